import type { NoticeView, PersonView } from '@jubb/book';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound } from '../common/problem.js';
import { Notice } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';

/** So many of the newest are shown, and none that is older. */
const MOST = 20;
const OLDEST = '14 days';

/** What somebody has to know, on their Today until they put it away: of each topic the newest. */
@Injectable()
export class NoticesService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** For one person and every foreman; for everybody when no person is named. */
  async tell(topic: string, words: string, personId: string | null): Promise<void> {
    await this.dataSource.manager.upsert(Notice, { topic, words, personId, at: () => 'now()', seenBy: [] }, ['topic']);
    this.stream.tell({ type: 'notices' });
  }

  /** The matter is over. */
  async takeBack(topic: string): Promise<void> {
    const { affected } = await this.dataSource.manager.delete(Notice, { topic });
    if (affected) this.stream.tell({ type: 'notices' });
  }

  async of({ id, role }: PersonView): Promise<readonly NoticeView[]> {
    const found = await this.dataSource.manager
      .createQueryBuilder(Notice, 'notice')
      .where(`notice.at > now() - :oldest::interval`, { oldest: OLDEST })
      .andWhere('NOT :id = ANY (notice.seenBy)', { id })
      .andWhere('(notice.personId IS NULL OR notice.personId = :id OR :isForeman)', { isForeman: role === 'foreman' })
      .orderBy('notice.at', 'DESC')
      .take(MOST)
      .getMany();
    return found.map((notice) => ({ id: notice.id, words: notice.words, at: notice.at.toISOString() }));
  }

  async putAway(id: string, personId: string): Promise<void> {
    const { affected } = await this.dataSource.manager
      .createQueryBuilder()
      .update(Notice)
      .set({ seenBy: () => 'array_append(seen_by, :personId::uuid)' })
      .where({ id })
      .setParameter('personId', personId)
      .execute();
    if (!affected) throw notFound('notice');
  }
}
