import type { ProposalView } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, In } from 'typeorm';
import { notFound } from '../common/problem.js';
import { ask } from '../database/data-source.js';
import { Entry, ProposalSettled } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';
import { OPEN_PROPOSALS, PROPOSES } from './sheets.sql.js';

/** 'Next time' notes of jobs, and figures found on them, as proposals for the sheet they went by. */
@Injectable()
export class ProposalsService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** Those nobody has settled, of every revision of the sheet, the oldest first. */
  ofSheet(revisionId: string): Promise<readonly ProposalView[]> {
    return ask(this.dataSource.manager, OPEN_PROPOSALS, revisionId);
  }

  /** Settling twice is settling once: the first word stands. */
  async settle(entryId: string, how: 'taken' | 'left', personId: string): Promise<void> {
    const { manager } = this.dataSource;
    if (!(await manager.existsBy(Entry, { id: entryId, kind: In(PROPOSES) }))) throw notFound('proposal');
    await manager.createQueryBuilder().insert().into(ProposalSettled).values({ entryId, how, personId }).orIgnore().execute();
    this.stream.tell({ type: 'sheet' });
  }
}
