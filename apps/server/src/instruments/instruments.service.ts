import type { PersonView } from '@jubb/book';
import type { InstrumentBody, InstrumentView, LinesView, LiveLine } from '@jubb/wire';
import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { DataSource, LessThan } from 'typeorm';
import { keepChange } from '../common/changes.js';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { ask, inTransaction } from '../database/data-source.js';
import { toolOf } from '../database/tool-of.js';
import { Instrument, InstrumentHeard, Tablet, ToolRow } from '../database/entities/index.js';
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

  /** A tool of the crib sends by itself from now on. */
  async begin({ toolId, clicks }: InstrumentBody, by: PersonView): Promise<readonly InstrumentView[]> {
    await inTransaction(this.dataSource, async (manager) => {
      // Of two who add it at once the second finds it there.
      const tool = await manager.findOne(ToolRow, { where: { id: toolId }, lock: { mode: 'pessimistic_write' } });
      if (!tool) throw badInput([{ field: 'toolId', given: toolId, allowed: 'is no tool of this crib' }]);
      const given = `${tool.tag} ${tool.name}`;
      if (tool.retired !== null) throw badInput([{ field: 'toolId', given, allowed: 'is out of use' }]);
      if (await manager.existsBy(Instrument, { toolId })) throw badInput([{ field: 'toolId', given, allowed: 'sends by itself already' }]);
      if (clicks && tool.kind !== 'torque-wrench')
        throw badInput([{ field: 'clicks', given: 'true', allowed: 'is for a torque wrench: anything else has a figure to send' }]);
      await manager.insert(Instrument, { toolId, clicks });
      await keepChange(manager, by, { what: 'tool', subject: given, act: 'sends by itself' }, []);
    });
    this.stream.tell({ type: 'instruments' });
    return this.list();
  }

  /** It is a tool like any other again; what was read with it stays. */
  async end(id: string, by: PersonView): Promise<readonly InstrumentView[]> {
    await inTransaction(this.dataSource, async (manager) => {
      const instrument = await manager.findOne(Instrument, { where: { id }, relations: { tool: true } });
      if (!instrument) throw notFound('instrument');
      await manager.delete(InstrumentHeard, { instrumentId: id });
      await manager.delete(Instrument, id);
      const { tag, name } = instrument.tool;
      await keepChange(manager, by, { what: 'tool', subject: `${tag} ${name}`, act: 'sends by itself no more' }, []);
    });
    this.stream.tell({ type: 'instruments' });
    return this.list();
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
