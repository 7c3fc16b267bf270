import { SHAPING, shaped, type ShapingEntry } from '@jubb/book';
import type { JobScope, SheetFile } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { notFound } from '../common/problem.js';
import { ask } from '../database/data-source.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StreamService } from '../stream/stream.service.js';
import { PIN } from './entries.sql.js';

interface Pin {
  readonly revisionId: string;
  readonly scope: JobScope | null;
  readonly shaping: readonly ShapingEntry[];
}

/** Which sheet a job goes by: its revision, its scope and the entries that shape it; forgotten when the job is told to have changed. */
@Injectable()
export class PinsService {
  readonly #pins = new Map<string, Pin>();
  /** Counts what was forgotten: what was read before somebody forgot it is not remembered afterwards. */
  #forgotten = 0;

  constructor(
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {
    stream.events.subscribe((event) => {
      if (event.type === 'job') this.forget(event.jobId);
    });
    stream.missed.subscribe(() => {
      this.#forgotten += 1;
      this.#pins.clear();
    });
  }

  /** The sheet as the job sees it. */
  async sheetOf(manager: EntityManager, jobId: string): Promise<SheetFile> {
    const { revisionId, scope, shaping } = await this.#pinOf(manager, jobId);
    return shaped((await this.sheets.pinned(revisionId, scope)).file, shaping);
  }

  forget(jobId: string): void {
    this.#forgotten += 1;
    this.#pins.delete(jobId);
  }

  async #pinOf(manager: EntityManager, jobId: string): Promise<Pin> {
    const known = this.stream.isDeaf ? undefined : this.#pins.get(jobId);
    if (known !== undefined) return known;
    const forgotten = this.#forgotten;
    const [row] = await ask<Pin>(manager, PIN, jobId, SHAPING);
    if (!row) throw notFound('job');
    // Told to forget while it was read: it may be from before, and is good for this once alone.
    if (this.#forgotten === forgotten && !this.stream.isDeaf) this.#pins.set(jobId, row);
    return row;
  }
}
