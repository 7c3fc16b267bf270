import { kindsThat } from '@jubb/book';
import type { ProposalView } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound } from '../common/problem.js';
import { StreamService } from '../stream/stream.service.js';

/** 'Next time' notes of jobs, and figures found on them, as proposals for the sheet they went by. */
/** Word for word as the index has it that finds them. */
const PROPOSES = `e.kind IN (${kindsThat(({ proposes }) => proposes === true)
  .toSorted()
  .map((kind) => `'${kind}'`)
  .join(', ')})`;

@Injectable()
export class ProposalsService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** Those nobody has settled, of every revision of the sheet, the oldest first. */
  ofSheet(revisionId: string): Promise<readonly ProposalView[]> {
    return this.dataSource.query(
      `SELECT e.id AS "entryId", j.id AS "jobId", j.number AS "jobNumber", p.name AS person, e.taken_at AS "takenAt", coalesce(e.payload->>'text', e.payload->>'source') AS text,
              e.payload->>'list' AS list, regexp_replace(e.payload->>'line', '--.*$', '') AS line,
              CASE WHEN e.kind = 'value-found' THEN e.payload->'figures'
                   WHEN e.payload ? 'figure' THEN jsonb_build_array(jsonb_build_object('field', e.payload->'field', 'figure', e.payload->'figure'))
                   ELSE '[]' END AS figures
       FROM sheet_revision s
       JOIN sheet_revision r ON r.key = s.key
       JOIN job j ON j.sheet_revision_id = r.id
       JOIN entry e ON e.job_id = j.id AND ${PROPOSES}
       JOIN person p ON p.id = e.person_id
       WHERE s.id = $1 AND NOT EXISTS (SELECT 1 FROM proposal_settled t WHERE t.entry_id = e.id)
         AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
       ORDER BY e.taken_at`,
      [revisionId],
    );
  }

  /** Settling twice is settling once: the first word stands. */
  async settle(entryId: string, how: 'taken' | 'left', personId: string): Promise<void> {
    const [entry] = await this.dataSource.query<unknown[]>(`SELECT 1 FROM entry e WHERE e.id = $1 AND ${PROPOSES}`, [entryId]);
    if (!entry) throw notFound('proposal');
    await this.dataSource.query('INSERT INTO proposal_settled (entry_id, how, person_id) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING', [
      entryId,
      how,
      personId,
    ]);
    this.stream.tell({ type: 'sheet' });
  }
}
