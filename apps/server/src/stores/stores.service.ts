import type { JobPartsView, PersonView, ShimLine } from '@jubb/book';
import type { MoveBody, StockChangeBody, StockItemBody, StockView } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import type { Pool, PoolClient } from 'pg';
import { parseQuantity } from '@jubb/core';
import { DataSource } from 'typeorm';
import { v5, v7 as uuid } from 'uuid';
import { ProblemError, badInput, changedSince, notFound } from '../common/problem.js';
import { ask, askJson, inTransaction, poolOf, type Statement } from '../database/data-source.js';
import { StreamService } from '../stream/stream.service.js';

const PAGE = 50;
const THICKEST_MM = 50;
const COLUMNS = `i.id, i.number, i.name, i.kind, i.unit, i.size, i.designation, i.location, i.minimum::float8 AS minimum,
  i.price_minor AS "priceMinor", i.on_hand::float8 AS "onHand", i.reserved::float8 AS reserved, i.version`;
const ALL: Statement = {
  name: 'stock',
  text: `SELECT ${COLUMNS} FROM stock_item i WHERE ($1::text IS NULL OR i.number > $1) ORDER BY i.number LIMIT ${PAGE}`,
};
const FOUND: Statement = {
  name: 'stock-found',
  text: `SELECT ${COLUMNS} FROM stock_item i WHERE i.words LIKE ALL ($2::text[]) AND ($1::text IS NULL OR i.number > $1) ORDER BY i.number LIMIT ${PAGE}`,
};
const SHORT: Statement = {
  name: 'stock-short',
  text: `SELECT ${COLUMNS} FROM stock_item i WHERE i.on_hand - i.reserved < i.minimum AND ($1::text IS NULL OR i.number > $1) ORDER BY i.number LIMIT ${PAGE}`,
};
const SHIMS: Statement = {
  name: 'stock-shims',
  text: `SELECT ${COLUMNS}, i.thickness_mm AS "thicknessMm" FROM stock_item i WHERE i.thickness_mm IS NOT NULL ORDER BY i.thickness_mm, i.number LIMIT 1000`,
};
const MOVEMENTS = `SELECT m.id, m.kind, m.quantity::float8 AS quantity, m.on_hand_after::float8 AS "onHandAfter", j.number AS "jobNumber", m.batch, m.words,
         p.name AS person, m.taken_at AS "takenAt"
         FROM stock_movement m JOIN person p ON p.id = m.person_id LEFT JOIN job j ON j.id = m.job_id WHERE m.item_id = $1 ORDER BY m.seq DESC LIMIT 100`;
const BATCHES = `SELECT m.batch, min(m.expires)::text AS expires,
           sum(CASE WHEN m.kind IN ('receive', 'return') THEN m.quantity WHEN m.kind = 'issue' THEN -m.quantity ELSE 0 END)::float8 AS "onHand"
         FROM stock_movement m WHERE m.item_id = $1 AND m.batch IS NOT NULL GROUP BY m.batch ORDER BY min(m.expires), m.batch`;
const RESERVATIONS = `SELECT r.job_id AS "jobId", j.number AS "jobNumber", r.quantity::float8 AS quantity
         FROM stock_reservation r JOIN job j ON j.id = r.job_id WHERE r.item_id = $1 ORDER BY j.number`;
const COUNTS = `SELECT c.id, c.quantity::float8 AS quantity, p.name AS person, c.words, c.taken_at AS "takenAt"
         FROM stock_count c JOIN person p ON p.id = c.person_id WHERE c.item_id = $1 AND c.settled_by IS NULL ORDER BY c.kept_at`;
const rowsOf = (query: string): string => `(SELECT coalesce(json_agg(found), '[]') FROM (${query}) found)`;
/** A line with all that is behind it, in one round to the database. */
const ONE: Statement = {
  name: 'stock-one',
  text: `SELECT ${COLUMNS}, ${rowsOf(MOVEMENTS)} AS movements, ${rowsOf(BATCHES)} AS batches, ${rowsOf(RESERVATIONS)} AS reservations, ${rowsOf(COUNTS)} AS counts
         FROM stock_item i WHERE i.id = $1`,
};
const MOVE: Statement = { name: 'move-stock', text: 'SELECT (move_stock($1, $2, $3)).id' };
const FOR_JOB: Statement = {
  name: 'stock-for-job',
  text: `SELECT ${COLUMNS}, coalesce(r.quantity, 0)::float8 AS "reservedHere",
           coalesce((SELECT sum(CASE m.kind WHEN 'issue' THEN m.quantity ELSE -m.quantity END) FROM stock_movement m
             WHERE m.item_id = i.id AND m.job_id = $1 AND m.kind IN ('issue', 'return')), 0)::float8 AS "issuedHere"
         FROM stock_item i LEFT JOIN stock_reservation r ON r.item_id = i.id AND r.job_id = $1
         WHERE i.number = ANY ($2::text[]) OR i.designation = ANY ($3::text[]) ORDER BY i.number LIMIT 400`,
};
const ORDERED_FOR: Statement = {
  name: 'ordered-for-job',
  text: `SELECT l.number, l.quantity, l.received, o.state, l.due::text AS due FROM part_order_line l JOIN part_order o ON o.id = l.order_id WHERE l.job_id = $1`,
};
const OFFERS: Statement = {
  name: 'supplier-offers',
  text: `SELECT supplier, number, name, price_minor AS "priceMinor", breaks, lead_days AS "leadDays", lead_spread AS "leadSpread", available,
         superseded_by AS "supersededBy" FROM supplier_item WHERE number = ANY ($1::text[]) ORDER BY number, price_minor`,
};

/** Free for a job on a line, what is kept for it with the rest, and what the job has out; the line stays locked. */
const MOVABLE = `SELECT greatest(0, least(i.on_hand, greatest(coalesce(r.quantity, 0), i.on_hand - i.reserved + coalesce(r.quantity, 0))))::float8 AS free,
    coalesce((SELECT sum(CASE m.kind WHEN 'issue' THEN m.quantity ELSE -m.quantity END) FROM stock_movement m
      WHERE m.item_id = i.id AND m.job_id = $2 AND m.kind IN ('issue', 'return')), 0)::float8 AS out
  FROM stock_item i LEFT JOIN stock_reservation r ON r.item_id = i.id AND r.job_id = $2 WHERE i.id = $1 FOR UPDATE OF i`;

interface CountRow {
  readonly id: string;
  readonly itemId: string;
  readonly quantity: number;
  readonly words: string | null;
  readonly personId: string;
  readonly takenAt: Date;
}

/** What a movement takes over from the entry that makes it. */
interface MovingEntry {
  readonly id: string;
  readonly jobId: string;
  readonly personId: string;
  readonly takenAt: string;
}

@Injectable()
export class StoresService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** A page of stock lines by number, as JSON text; every word typed must be in the line. */
  listJson(find: string, after: string | undefined, isShort: boolean): Promise<string> {
    const pool = poolOf(this.dataSource);
    if (isShort) return askJson(pool, SHORT, after ?? null);
    const words = find.toLowerCase().split(/\s+/u).filter(Boolean);
    if (words.length === 0) return askJson(pool, ALL, after ?? null);
    return askJson(
      pool,
      FOUND,
      after ?? null,
      words.map((word) => `%${word.replace(/[\\%_]/gu, '\\$&')}%`),
    );
  }

  async one(id: string): Promise<StockView> {
    const [line] = await ask<StockView>(poolOf(this.dataSource), ONE, id);
    if (!line) throw notFound('stock line');
    return line;
  }

  shims(): Promise<readonly ShimLine[]> {
    return ask(poolOf(this.dataSource), SHIMS);
  }

  async shopName(): Promise<string> {
    const [shop] = await this.dataSource.query<{ name: string }[]>('SELECT name FROM shop');
    return shop?.name ?? '';
  }

  async add(body: StockItemBody): Promise<StockView> {
    const { rows } = await poolOf(this.dataSource).query<{ id: string }>(
      `INSERT INTO stock_item (number, name, kind, unit, size, designation, location, minimum, price_minor, thickness_mm)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) ON CONFLICT (number) DO NOTHING RETURNING id`,
      valuesOf(body),
    );
    const [row] = rows;
    if (!row) throw badInput([{ field: 'number', given: body.number, allowed: 'is on the shelves already' }]);
    this.stream.tell({ type: 'stores' });
    return this.one(row.id);
  }

  /** Changes what a line says, if nobody else did since `version`. */
  async change(id: string, body: StockChangeBody): Promise<StockView> {
    const { rowCount } = await poolOf(this.dataSource).query(
      `UPDATE stock_item SET number = $1, name = $2, kind = $3, unit = $4, size = $5, designation = $6, location = $7, minimum = $8, price_minor = $9, thickness_mm = $10,
         version = version + 1 WHERE id = $11 AND version = $12`,
      [...valuesOf(body), id, body.version],
    );
    if (rowCount === 0) throw changedSince('line', await this.one(id));
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  async move(itemId: string, body: MoveBody, person: PersonView): Promise<StockView> {
    if ((body.kind === 'reserve' || body.kind === 'release') && body.jobId === undefined)
      throw badInput([{ field: 'jobId', allowed: 'is missing: for which job?' }]);
    if (body.kind !== 'count' && body.quantity === 0) throw badInput([{ field: 'quantity', given: '0', allowed: 'must be more than 0' }]);
    if (body.kind === 'count' && person.role === 'apprentice') await this.#countToSign(itemId, body, person);
    else await this.moveOn(poolOf(this.dataSource), itemId, body, person.id);
    this.stream.tell({ type: 'stores' });
    return this.one(itemId);
  }

  /** What an apprentice counted is kept, and is what is there when somebody signs it. */
  async #countToSign(itemId: string, { id, quantity, words, takenAt }: MoveBody, person: PersonView): Promise<void> {
    const { rowCount } = await poolOf(this.dataSource).query(
      `INSERT INTO stock_count (id, item_id, quantity, words, person_id, taken_at)
       SELECT $1, i.id, $3, $4, $5, $6 FROM stock_item i WHERE i.id = $2 ON CONFLICT (id) DO UPDATE SET id = excluded.id`,
      [id, itemId, quantity, words ?? null, person.id, takenAt],
    );
    if (rowCount === 0) throw notFound('stock line');
  }

  /** Signs a count that waits, or leaves it; once, whoever is first. */
  async settleCount(countId: string, take: boolean, person: PersonView): Promise<StockView> {
    const itemId = await inTransaction(poolOf(this.dataSource), async (client) => {
      const { rows } = await client.query<CountRow>(
        `UPDATE stock_count c SET settled_by = $2, is_taken = $3 FROM person p WHERE c.id = $1 AND c.settled_by IS NULL AND p.id = c.person_id
         RETURNING c.id, c.item_id AS "itemId", c.quantity::float8 AS quantity, c.words, c.person_id AS "personId", c.taken_at AS "takenAt"`,
        [countId, person.id, take],
      );
      const [count] = rows;
      if (!count) throw new ProblemError('no-count-waiting');
      const words = [count.words, `signed by ${person.name}`].filter(Boolean).join('; ');
      const { id, quantity, takenAt } = count;
      if (take)
        await this.moveOn(client, count.itemId, { id, kind: 'count', quantity, words, takenAt: takenAt.toISOString() }, count.personId);
      return count.itemId;
    });
    this.stream.tell({ type: 'stores' });
    return this.one(itemId);
  }

  /** The same on a connection that is in the middle of more. */
  async moveOn(on: Pool | PoolClient, itemId: string, body: MoveBody, personId: string): Promise<void> {
    try {
      await ask(on, MOVE, JSON.stringify(body), itemId, personId);
    } catch (error) {
      throw refusedMove(error, body);
    }
  }

  /**
   * What an entry of a job moves, by its own id: sent twice, it moves once. Never refused for a shelf that has less than
   * was taken from it: what is in hand is in hand, and the movement says that the shelf must be counted.
   */
  async moveByEntry(on: PoolClient, entry: MovingEntry, itemId: string, pieces: number): Promise<void> {
    const { rows } = await on.query<{ free: number; out: number }>(MOVABLE, [itemId, entry.jobId]);
    const [line] = rows;
    if (!line) throw badInput([{ field: 'payload.item', given: itemId, allowed: 'is no line of the stores' }]);
    const asked = Math.abs(pieces);
    const quantity = Math.min(asked, pieces > 0 ? line.free : line.out);
    const words = quantity < asked && pieces > 0 ? `${asked} went in, and the shelf had ${quantity} free: count it` : undefined;
    if (quantity <= 0 && words === undefined) return;
    const kind = pieces > 0 ? 'issue' : 'return';
    await this.moveOn(
      on,
      itemId,
      { id: v5(itemId, entry.id), kind, quantity, jobId: entry.jobId, takenAt: entry.takenAt, ...(words ? { words } : {}) },
      entry.personId,
    );
  }

  /** What lies on the shelves, is on offer and is on order of these numbers, for one job. */
  async forJob(jobId: string, numbers: readonly string[], designations: readonly string[]): Promise<JobPartsView> {
    const pool = poolOf(this.dataSource);
    const [stock, offers, ordered] = await Promise.all([
      ask<JobPartsView['stock'][number]>(pool, FOR_JOB, jobId, numbers, designations),
      ask<JobPartsView['offers'][number]>(pool, OFFERS, numbers),
      ask<JobPartsView['ordered'][number]>(pool, ORDERED_FOR, jobId),
    ]);
    return { stock, offers, ordered };
  }

  /** The line of a number, made when there is none yet: what an order brings has a place. */
  async lineOf(on: PoolClient, number: string, name: string, priceMinor: number): Promise<string> {
    await on.query(
      `INSERT INTO stock_item (number, name, kind, unit, price_minor, location) VALUES ($1, $2, 'part', 'piece', $3, 'goods in') ON CONFLICT (number) DO NOTHING`,
      [number, name, priceMinor],
    );
    const { rows } = await on.query<{ id: string }>('SELECT id FROM stock_item WHERE number = $1', [number]);
    return rows[0]!.id;
  }

  /** Puts what came on the shelf and keeps it for the job that it came for. */
  async receive(on: PoolClient, itemId: string, quantity: number, jobId: string | null, words: string, personId: string): Promise<void> {
    const takenAt = new Date().toISOString();
    await this.moveOn(
      on,
      itemId,
      { id: uuid(), kind: 'receive', quantity, words, takenAt, ...(jobId === null ? {} : { jobId }) },
      personId,
    );
  }
}

function valuesOf(body: StockItemBody): unknown[] {
  const { number, name, kind, unit, size, designation, location, minimum, priceMinor } = body;
  return [
    number.trim(),
    name.trim(),
    kind,
    unit,
    size?.trim() || null,
    designation?.trim() || null,
    location?.trim() ?? '',
    minimum,
    priceMinor,
    kind === 'shim' ? thicknessOf(size) : null,
  ];
}

/** Base mm of a shim's size. */
function thicknessOf(size: string | undefined): number {
  const parsed = parseQuantity(size ?? '', 'length', 'size');
  const thickness = parsed.ok ? parsed.quantity.base : 0;
  if (thickness > 0 && thickness <= THICKEST_MM) return thickness;
  throw badInput([
    { field: 'size', given: size ?? '', allowed: `must be the thickness of the shim, such as 0.10 mm, at most ${THICKEST_MM} mm` },
  ]);
}

/** What the database says of a movement that cannot be, in the words of the stores. */
function refusedMove(error: unknown, { quantity, kind, batch }: MoveBody): unknown {
  const { code, message } = error as { code?: string; message?: string };
  switch (code) {
    case 'JB420':
      return new ProblemError('not-free', {
        named: { pieces: message ?? '0', are: message === '1' ? 'is' : 'are' },
        errors: [
          { field: 'quantity', given: String(quantity), allowed: `must be at most ${message ?? '0'}, which is what is free to ${kind}` },
        ],
      });
    case 'JB421':
      return badInput([
        { field: 'quantity', given: String(quantity), allowed: `must be at most ${message ?? '0'}, which is what the job has reserved` },
      ]);
    case 'JB422':
      return badInput([{ field: 'batch', given: batch ?? '', allowed: message ?? 'cannot be used' }]);
    default:
      return error;
  }
}
