import { kindOf, type Outside, type PayloadOf } from '@jubb/book';
import type { EntityManager } from 'typeorm';
import { badInput } from '../common/problem.js';
import { ask } from '../database/data-source.js';
import { Entry } from '../database/entities/index.js';
import { STILL_OWED } from './owed.sql.js';
import { APPROVED_REVISION } from './entries.sql.js';
import type { EntryContent } from './entry-hash.js';

type Check = (manager: EntityManager, jobId: string, payload: never) => Promise<void>;

/** What only the shop's own books can tell. */
const CHECKS: Readonly<Record<Outside, Check>> = {
  /** A job goes on only by an approved revision of its own sheet. */
  async 'approved-revision'(manager, jobId, { revisionId, revision }: PayloadOf<'pinned'>) {
    const rows = await ask(manager, APPROVED_REVISION, jobId, revisionId, revision);
    if (rows.length === 0)
      throw badInput([{ field: 'payload.revisionId', given: revisionId, allowed: 'is not an approved revision of the sheet of this job' }]);
  },
  /** Only what is still owed is settled, and only by a job of the same machine. */
  async 'still-owed'(manager, jobId, { owed }: PayloadOf<'owed-settled'>) {
    const rows = await ask(manager, STILL_OWED, jobId, owed);
    if (rows.length === 0) throw badInput([{ field: 'payload.owed', given: owed, allowed: 'is nothing that this machine still owes' }]);
  },
  /** What served was made, here or on another job. */
  async 'made-tool'(manager, _jobId, { tool }: PayloadOf<'tool-served'>) {
    if (!(await manager.existsBy(Entry, { id: tool, kind: 'tool-made' })))
      throw badInput([{ field: 'payload.tool', given: tool, allowed: 'is no tool that was made here' }]);
  },
};

export async function checkOutside(manager: EntityManager, jobId: string, { kind, payload }: EntryContent): Promise<void> {
  const { outside } = kindOf(kind);
  if (outside) await CHECKS[outside](manager, jobId, payload as never);
}
