import {
  jobState,
  liveOf,
  mayAccept,
  mayMake,
  openBefore,
  stopsHandOver,
  stopsSigning,
  type AcceptedPayload,
  type AnyKeptEntry,
  type EntryKind,
  type JobState,
  type StagePayload,
} from '@jubb/book';
import type { Role, SheetFile } from '@jubb/sheet';
import { ProblemError, badInput } from '../common/problem.js';
import { checkFirst } from './check-first.js';
import type { EntryContent } from './entry-hash.js';

/** Entries that speak of another of the same job: of which kinds that one may be. */
const BOUND: readonly (readonly [kind: EntryKind, field: string, of: readonly EntryKind[], allowed: string])[] = [
  ['open-end-closed', 'opened', ['open-end'], 'is not an open end of this job'],
  ['put-back', 'moved', ['moved'], 'is nothing that was moved on this job'],
  ['wait-over', 'wait', ['wait'], 'is no wait of this job'],
  ['mark-met', 'mark', ['mark', 'came-off'], 'is not a mark of this job'],
  ['went-in', 'line', ['came-off'], 'is no line of this job’s ledger'],
  ['came-off', 'inside', ['came-off'], 'is no line of this job’s ledger'],
  ['came-off', 'photo', ['photo'], 'is no photo of this job'],
];

/** Over something open a job is taken on to be proved by the foreman, or with the reason. */
function checkStage({ stage, why }: StagePayload, state: JobState, role: Role): void {
  const open = openBefore(state, stage);
  if (open.length > 0 && why === undefined && role !== 'foreman')
    throw badInput([
      { field: 'payload.why', allowed: `is missing: say why it goes on over what is open (${open.slice(0, 3).join('; ')})` },
    ]);
}

/** Only a reading that is unsure is accepted: one that is out is set anew, one that is in needs nobody. */
function checkAccepted({ setting }: AcceptedPayload, state: JobState): void {
  const last = state.settings.find((run) => run.setting.ref === setting)?.tries.at(-1);
  if (!last || !mayAccept(last))
    throw badInput([
      {
        field: 'payload.setting',
        given: setting,
        allowed: `has no unsure reading that could be accepted: ${last ? `the last one is ${last.accepted === undefined ? (last.verdict ?? 'not judged') : 'accepted already'}` : 'it was not read yet'}`,
      },
    ]);
}

/** Entries whose keeping depends on what else the job holds, each after those before it in the batch. */
export function checkGuarded(fresh: readonly EntryContent[], before: readonly AnyKeptEntry[], sheet: SheetFile, role: Role): void {
  // What stands earlier in the same batch is there already for what comes after it.
  const held = [...before];
  const byId = new Map(held.map((entry) => [entry.id, entry]));
  for (const content of fresh) {
    if (content.kind === 'strike') {
      const struck = byId.get(content.strikes ?? '');
      if (!struck) throw badInput([{ field: 'strikes', given: content.strikes ?? '', allowed: 'is not an entry of this job' }]);
      if (struck.kind === 'strike')
        throw badInput([{ field: 'strikes', given: struck.id, allowed: 'is a strike itself; make the entry again instead' }]);
      // What somebody may not say, they may not take back either.
      if (!mayMake(struck.kind, role))
        throw new ProblemError(403, 'This is not yours to do', { detail: `An entry "${struck.kind}" is not struck by: ${role}` });
      const other = held.find((entry) => entry.strikes === struck.id);
      if (other) throw new ProblemError(409, 'Somebody struck this before you', { current: other });
    }
    for (const [kind, field, of, allowed] of BOUND) {
      const id = content.kind === kind ? (content.payload as Record<string, string | undefined>)[field] : undefined;
      if (id !== undefined && !of.includes(byId.get(id)?.kind ?? 'strike'))
        throw badInput([{ field: `payload.${field}`, given: id, allowed }]);
    }
    checkFirst(content, held, sheet);
    if (content.kind === 'accepted') checkAccepted(content.payload as AcceptedPayload, jobState(sheet, held));
    if (content.kind === 'stage') checkStage(content.payload as StagePayload, jobState(sheet, held), role);
    if (content.kind === 'sign' && liveOf(held).some(({ kind }) => kind === 'sign'))
      throw new ProblemError(409, 'It is signed already', {
        errors: [{ field: 'job', allowed: 'has its signature; strike that one first' }],
      });
    const stops =
      content.kind === 'sign'
        ? stopsSigning(jobState(sheet, held))
        : content.kind === 'handed-over'
          ? stopsHandOver(jobState(sheet, held))
          : [];
    if (stops.length > 0) {
      throw new ProblemError(409, content.kind === 'sign' ? 'It cannot be signed yet' : 'It cannot be handed over yet', {
        errors: stops.map((stop) => ({ field: 'job', allowed: stop })),
      });
    }
    const entry = content as unknown as AnyKeptEntry;
    held.push(entry);
    byId.set(entry.id, entry);
  }
}
