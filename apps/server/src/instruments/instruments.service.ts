import type { InstrumentView, LinesView, LiveLine } from '@jubb/wire';
import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { DataSource, LessThan } from 'typeorm';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { ask } from '../database/data-source.js';
import { toolOf } from '../database/tool-of.js';
import { Instrument, InstrumentHeard, Tablet } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';
import { digest } from '../tablets/tablets.service.js';
import { HEARD } from './instruments.sql.js';
import { RUN, readLines, type ReadLine } from './instrument-lines.js';

/** More than a dial sends; a flood is told to wait. Counted over ten seconds, so that what was held without a link goes through. */
const LINES_A_SECOND = 100;
const COUNTED_S = 10;
/**
 * A line of which no run is named, and that comes again after so long, is another one: a counter that began again, and
 * happens to read the same. Until then it is the same, sent again because its answer was lost.
 */
const SENT_AGAIN_MS = 10 * 60 * 1000;
const FORGOTTEN_MS = 7 * 24 * 3600 * 1000;
const OF_ALL = { tool: true, tablet: true } as const;

@Injectable()
export class InstrumentsService {
  readonly #flood = new RateLimiterMemory({ points: LINES_A_SECOND * COUNTED_S, duration: COUNTED_S });

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  async list(): Promise<readonly InstrumentView[]> {
    const all = await this.dataSource.manager.find(Instrument, { relations: OF_ALL, order: { tool: { tag: 'ASC' } } });
    return all.map(({ id, tool, tablet, clicks, last }) => ({
      id,
      tool: toolOf(tool),
      tablet: tablet && { id: tablet.id, name: tablet.name },
      clicks,
      last,
    }));
  }

  /** The tablet that its lines go to from now on; null: to none. */
  async pair(id: string, tabletId: string | null): Promise<void> {
    await this.#one(id);
    if (tabletId !== null && !(await this.dataSource.manager.existsBy(Tablet, { id: tabletId })))
      throw badInput([{ field: 'tabletId', given: tabletId, allowed: 'is not a tablet of this shop' }]);
    await this.dataSource.manager.update(Instrument, id, { tabletId });
    this.stream.tell({ type: 'instruments' });
  }

  /** A new key by which the instrument sends with nobody logged in; it is shown this once. */
  async newKey(id: string): Promise<string> {
    await this.#one(id);
    const key = randomBytes(24).toString('base64url');
    await this.dataSource.manager.update(Instrument, id, { keyHash: digest(key) });
    return key;
  }

  /** Takes in what an instrument sent: by its own key, or by somebody at the bench. */
  async lines(id: string, body: Buffer, key: string | undefined, isPerson: boolean): Promise<LinesView> {
    const instrument = await this.#one(id);
    if (!isPerson && (key === undefined || instrument.keyHash !== digest(key))) throw new ProblemError('instrument-unknown');
    const { lines, refused } = readLines(body, instrument, {
      now: new Date().toISOString(),
      today: (await shopDay(this.dataSource)).today,
    });
    const wait = await this.#flood.consume(id, Math.max(1, lines.length + refused.length)).then(
      () => undefined,
      () => new ProblemError('too-many-lines', { named: { most: LINES_A_SECOND } }),
    );
    if (wait) throw wait;
    const fresh = await this.#notHeard(id, lines);
    const last = fresh.at(-1);
    if (last) {
      await this.dataSource.manager.update(Instrument, id, { last });
      this.stream.tellLines(fresh);
    }
    return { kept: fresh.length, known: lines.length - fresh.length, refused };
  }

  /** Those that were not here yet, each once, however many send them at the same time. */
  async #notHeard(id: string, lines: readonly ReadLine[]): Promise<readonly LiveLine[]> {
    const byMark = new Map(lines.map(({ mark, line }) => [mark, line]));
    if (byMark.size === 0) return [];
    const { manager } = this.dataSource;
    await manager.delete(InstrumentHeard, { instrumentId: id, heardAt: LessThan(new Date(Date.now() - FORGOTTEN_MS)) });
    const heard = await ask<{ mark: string }>(manager, HEARD, id, [...byMark.keys()], SENT_AGAIN_MS, RUN);
    const marks = new Set(heard.map(({ mark }) => mark));
    return [...byMark].filter(([mark]) => marks.has(mark)).map(([, line]) => line);
  }

  async #one(id: string): Promise<Instrument> {
    const instrument = await this.dataSource.manager.findOne(Instrument, { where: { id }, relations: OF_ALL });
    if (!instrument) throw notFound('instrument');
    return instrument;
  }
}
