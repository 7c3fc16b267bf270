import type { BeginView, ExampleLine, LackingLine } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, In } from 'typeorm';
import { ask } from '../database/data-source.js';
import { SheetRevision } from '../database/entities/index.js';
import { JobsService } from '../jobs/jobs.service.js';
import { SheetWork } from '../sheets/sheet-work.js';
import { EXAMPLES, type Examples } from '../tokens.js';
import { BEGUN } from './begin.sql.js';

/** So many sheets are looked through at once, those that were touched last: a shop that asks what it lacks has just begun. */
const MOST_SHEETS = 60;

@Injectable()
export class BeginService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(SheetWork) private readonly work: SheetWork,
    @Inject(EXAMPLES) private readonly examples: Examples,
  ) {}

  async view(): Promise<BeginView> {
    const [view] = await ask<BeginView>(this.dataSource.manager, BEGUN);
    return view!;
  }

  /** One for each kind of unit, in the order of their families. */
  async exampleLines(): Promise<readonly ExampleLine[]> {
    const byFamily = new Map((await this.examples()).toReversed().map((file) => [file.family, file]));
    return [...byFamily.values()]
      .map(({ family, title, steps, tasks }) => ({ family, title, steps: steps.length, tasks: (tasks ?? []).map(({ name }) => name) }))
      .toSorted((one, other) => one.family.localeCompare(other.family, 'en'));
  }

  /** Tools that the sheets ask for and the crib has not, those first that most sheets wait for. */
  async lacking(): Promise<readonly LackingLine[]> {
    const [tools, sheets] = await Promise.all([
      this.jobs.tools(),
      this.dataSource.manager.find(SheetRevision, {
        select: { id: true, title: true, file: true },
        where: { status: In(['approved', 'draft']) },
        order: { editedAt: 'DESC' },
        take: MOST_SHEETS,
      }),
    ]);
    const inUse = tools.filter(({ retired }) => !retired);
    const bySheet = new Map<string, Set<string>>();
    for (const { title, file } of sheets)
      for (const words of await this.work.run('lacking', file, inUse)) bySheet.set(words, (bySheet.get(words) ?? new Set()).add(title));
    return [...bySheet]
      .map(([words, titles]) => ({ words, sheets: [...titles] }))
      .toSorted((one, other) => other.sheets.length - one.sheets.length || one.words.localeCompare(other.words, 'en'));
  }
}
