import { Inject, Injectable } from '@nestjs/common';
import type { ProposalView } from '@jubb/contract';
import { DataSource } from 'typeorm';
import { notFound } from '../common/problem.js';
import { StreamService } from '../stream/stream.service.js';

/** 'Next time' notes of jobs, as proposals for the sheet they went by. */
@Injectable()
export class ProposalsService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** Those nobody has settled, of every revision of the sheet, the oldest first. */
  ofSheet(revisionId: string): Promise<readonly ProposalView[]> {
    return this.dataSource.query(
      `SELECT e.id AS "entryId", j.id AS "jobId", j.number AS "jobNumber", p.name AS person, e.taken_at AS "takenAt", e.payload->>'text' AS text,
              e.payload->>'list' AS list, regexp_replace(e.payload->>'line', '--.*$', '') AS line, e.payload->>'field' AS field, e.payload->>'figure' AS figure
       FROM sheet_revision s
       JOIN sheet_revision r ON r.key = s.key
       JOIN job j ON j.sheet_revision_id = r.id
       JOIN entry e ON e.job_id = j.id AND e.kind = 'next-time'
       JOIN person p ON p.id = e.person_id
       WHERE s.id = $1 AND NOT EXISTS (SELECT 1 FROM proposal_settled t WHERE t.entry_id = e.id)
         AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
       ORDER BY e.taken_at`,
      [revisionId],
    );
  }

  /** Settling twice is settling once: the first word stands. */
  async settle(entryId: string, how: 'taken' | 'left', personId: string): Promise<void> {
    const [entry] = await this.dataSource.query<unknown[]>(`SELECT 1 FROM entry WHERE id = $1 AND kind = 'next-time'`, [entryId]);
    if (!entry) throw notFound('proposal');
    await this.dataSource.query('INSERT INTO proposal_settled (entry_id, how, person_id) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING', [
      entryId,
      how,
      personId,
    ]);
    this.stream.tell({ type: 'sheet' });
  }
}
