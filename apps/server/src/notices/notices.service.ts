import type { NoticeView, PersonView } from '@jubb/book';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound } from '../common/problem.js';
import { poolOf } from '../database/data-source.js';
import { StreamService } from '../stream/stream.service.js';

/** What somebody has to know, on their Today until they put it away: of each topic the newest. */
@Injectable()
export class NoticesService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** For one person and every foreman; for everybody when no person is named. */
  async tell(topic: string, words: string, personId: string | null): Promise<void> {
    await poolOf(this.dataSource).query(
      `INSERT INTO notice (topic, words, person_id) VALUES ($1, $2, $3)
       ON CONFLICT (topic) DO UPDATE SET words = excluded.words, at = now(), seen_by = '{}'`,
      [topic, words, personId],
    );
    this.stream.tell({ type: 'notices' });
  }

  /** The matter is over. */
  async takeBack(topic: string): Promise<void> {
    const { rowCount } = await poolOf(this.dataSource).query('DELETE FROM notice WHERE topic = $1', [topic]);
    if (rowCount) this.stream.tell({ type: 'notices' });
  }

  async of({ id, role }: PersonView): Promise<readonly NoticeView[]> {
    return this.dataSource.query(
      `SELECT id, words, at FROM notice WHERE at > now() - interval '14 days' AND NOT $1::uuid = ANY (seen_by)
         AND (person_id IS NULL OR person_id = $1 OR $2) ORDER BY at DESC LIMIT 20`,
      [id, role === 'foreman'],
    );
  }

  async putAway(id: string, personId: string): Promise<void> {
    const { rowCount } = await poolOf(this.dataSource).query('UPDATE notice SET seen_by = array_append(seen_by, $2) WHERE id = $1', [
      id,
      personId,
    ]);
    if (!rowCount) throw notFound('notice');
  }
}
