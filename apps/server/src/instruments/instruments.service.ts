import type { InstrumentView, LinesView, LiveLine } from '@jubb/wire';
import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { DataSource } from 'typeorm';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { poolOf } from '../database/data-source.js';
import { StreamService } from '../stream/stream.service.js';
import { digest } from '../tablets/tablets.service.js';
import { RUN, readLines, type ReadLine } from './instrument-lines.js';

/** More than a dial sends; a flood is told to wait. Counted over ten seconds, so that what was held without a link goes through. */
const LINES_A_SECOND = 100;
const COUNTED_S = 10;
/**
 * A line of which no run is named, and that comes again after so long, is another one: a counter that began again, and
 * happens to read the same. Until then it is the same, sent again because its answer was lost.
 */
const SENT_AGAIN = '10 minutes';
const FORGOTTEN = '7 days';

const VIEW = `
  SELECT i.id, i.clicks, i.last, i.key_hash AS "keyHash",
         json_build_object('id', t.id, 'tag', t.tag, 'name', t.name, 'kind', t.kind, 'quantity', t.quantity, 'unit', t.unit, 'low', t.low, 'high', t.high,
           'resolution', t.resolution, 'u', t.u, 's', t.s, 'length', t.length, 'calibrationDue', t.calibration_due) AS tool,
         CASE WHEN b.id IS NOT NULL THEN json_build_object('id', b.id, 'name', b.name) END AS tablet
  FROM instrument i JOIN tool t ON t.id = i.tool_id LEFT JOIN tablet b ON b.id = i.tablet_id`;

type InstrumentRow = InstrumentView & { readonly keyHash: string | null };

@Injectable()
export class InstrumentsService {
  readonly #flood = new RateLimiterMemory({ points: LINES_A_SECOND * COUNTED_S, duration: COUNTED_S });

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  async list(): Promise<readonly InstrumentView[]> {
    const rows = await this.dataSource.query<InstrumentRow[]>(`${VIEW} ORDER BY t.tag`);
    return rows.map(({ id, tool, tablet, clicks, last }) => ({ id, tool, tablet, clicks, last }));
  }

  /** The tablet that its lines go to from now on; null: to none. */
  async pair(id: string, tabletId: string | null): Promise<void> {
    await this.#one(id);
    if (tabletId !== null && !(await this.#tabletExists(tabletId)))
      throw badInput([{ field: 'tabletId', given: tabletId, allowed: 'is not a tablet of this shop' }]);
    await this.dataSource.query('UPDATE instrument SET tablet_id = $2 WHERE id = $1', [id, tabletId]);
    this.stream.tell({ type: 'instruments' });
  }

  /** A new key by which the instrument sends with nobody logged in; it is shown this once. */
  async newKey(id: string): Promise<string> {
    await this.#one(id);
    const key = randomBytes(24).toString('base64url');
    await this.dataSource.query('UPDATE instrument SET key_hash = $2 WHERE id = $1', [id, digest(key)]);
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
      await this.dataSource.query('UPDATE instrument SET last = $2 WHERE id = $1', [id, last]);
      this.stream.tellLines(fresh);
    }
    return { kept: fresh.length, known: lines.length - fresh.length, refused };
  }

  /** Those that were not here yet, each once, however many send them at the same time. */
  async #notHeard(id: string, lines: readonly ReadLine[]): Promise<readonly LiveLine[]> {
    const byMark = new Map(lines.map(({ mark, line }) => [mark, line]));
    if (byMark.size === 0) return [];
    const [heard] = await Promise.all([
      poolOf(this.dataSource).query<{ mark: string }>(
        `INSERT INTO instrument_heard (instrument_id, mark) SELECT $1, mark FROM unnest($2::text[]) mark ORDER BY mark
         ON CONFLICT (instrument_id, mark) DO UPDATE SET heard_at = now()
           WHERE instrument_heard.heard_at < now() - interval '${SENT_AGAIN}' AND instrument_heard.mark NOT LIKE '${RUN}%' RETURNING mark`,
        [id, [...byMark.keys()]],
      ),
      this.dataSource.query(`DELETE FROM instrument_heard WHERE instrument_id = $1 AND heard_at < now() - interval '${FORGOTTEN}'`, [id]),
    ]);
    const marks = new Set(heard.rows.map(({ mark }) => mark));
    return [...byMark].filter(([mark]) => marks.has(mark)).map(([, line]) => line);
  }

  async #one(id: string): Promise<InstrumentRow> {
    const [row] = await this.dataSource.query<InstrumentRow[]>(`${VIEW} WHERE i.id = $1`, [id]);
    if (!row) throw notFound('instrument');
    return row;
  }

  async #tabletExists(id: string): Promise<boolean> {
    return (await this.dataSource.query<unknown[]>('SELECT 1 FROM tablet WHERE id = $1', [id])).length > 0;
  }
}
