import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { InstrumentView, LinesView, LiveLine } from '@jubb/contract';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { DataSource } from 'typeorm';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { StreamService } from '../stream/stream.service.js';
import { digest } from '../tablets/tablets.service.js';
import { readLines } from './instrument-lines.js';

/** More than a dial sends; a flood is told to wait. */
const LINES_A_SECOND = 100;

const VIEW = `
  SELECT i.id, i.clicks, i.last, i.last_n::float8 AS "lastN", i.key_hash AS "keyHash",
         json_build_object('id', t.id, 'tag', t.tag, 'name', t.name, 'kind', t.kind, 'quantity', t.quantity, 'unit', t.unit, 'low', t.low, 'high', t.high,
           'resolution', t.resolution, 'u', t.u, 's', t.s, 'length', t.length, 'calibrationDue', t.calibration_due) AS tool,
         CASE WHEN b.id IS NOT NULL THEN json_build_object('id', b.id, 'name', b.name) END AS tablet
  FROM instrument i JOIN tool t ON t.id = i.tool_id LEFT JOIN tablet b ON b.id = i.tablet_id`;

type InstrumentRow = InstrumentView & { readonly lastN: number; readonly keyHash: string | null };

@Injectable()
export class InstrumentsService {
  readonly #flood = new RateLimiterMemory({ points: LINES_A_SECOND, duration: 1 });

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
    if (!isPerson && (key === undefined || instrument.keyHash !== digest(key)))
      throw new ProblemError(401, 'This instrument is not known by that key');
    const { lines, refused } = readLines(body, instrument, {
      now: new Date().toISOString(),
      today: (await shopDay(this.dataSource)).today,
    });
    const wait = await this.#flood.consume(id, Math.max(1, lines.length + refused.length)).then(
      () => undefined,
      () => new ProblemError(429, `Too many lines; at most ${LINES_A_SECOND} a second`),
    );
    if (wait) throw wait;
    const last = lines.at(-1);
    if (last) {
      await this.dataSource.query('UPDATE instrument SET last = $2, last_n = $3 WHERE id = $1 AND last_n < $3', [id, last, last.n]);
      this.stream.tellLines(lines satisfies readonly LiveLine[]);
    }
    return { kept: lines.length, refused };
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
