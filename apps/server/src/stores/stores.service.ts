import type { JobPartsView, PersonView, ShimLine } from '@jubb/book';
import type { MoveBody, StockChangeBody, StockItemBody, StockView } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { parseQuantity } from '@jubb/core';
import { DataSource, IsNull, type EntityManager } from 'typeorm';
import { v5, v7 as uuid } from 'uuid';
import { ProblemError, badInput, changedSince, notFound } from '../common/problem.js';
import { anywhere, ask, askJson, inTransaction } from '../database/data-source.js';
import { Shop, StockCount, StockItem } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';
import { ALL, FOR_JOB, MOVABLE, MOVE, OFFERS, ONE, ORDERED_FOR, SHIMS, SHORT, found } from './stores.sql.js';

const THICKEST_MM = 50;
/** So many words of a search are looked for. */
const MOST_WORDS = 8;

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
    const { manager } = this.dataSource;
    if (isShort) return askJson(manager, SHORT, after ?? null);
    const words = find.toLowerCase().split(/\s+/u).filter(Boolean).slice(0, MOST_WORDS);
    if (words.length === 0) return askJson(manager, ALL, after ?? null);
    return askJson(manager, found(words.length), after ?? null, ...words.map(anywhere));
  }

  async one(id: string): Promise<StockView> {
    const [line] = await ask<StockView>(this.dataSource.manager, ONE, id);
    if (!line) throw notFound('stock line');
    return line;
  }

  shims(): Promise<readonly ShimLine[]> {
    return ask(this.dataSource.manager, SHIMS);
  }

  async shopName(): Promise<string> {
    return (await this.dataSource.manager.findOneByOrFail(Shop, { id: 1 })).name;
  }

  async add(body: StockItemBody): Promise<StockView> {
    const { manager } = this.dataSource;
    const { raw } = await manager.createQueryBuilder().insert().into(StockItem).values(lineFrom(body)).orIgnore().returning('id').execute();
    const [row] = raw as readonly { id: string }[];
    if (!row) throw badInput([{ field: 'number', given: body.number, allowed: 'is on the shelves already' }]);
    this.stream.tell({ type: 'stores' });
    return this.one(row.id);
  }

  /** Changes what a line says, if nobody else did since `version`. */
  async change(id: string, body: StockChangeBody): Promise<StockView> {
    const { version } = body;
    const { affected } = await this.dataSource.manager.update(StockItem, { id, version }, { ...lineFrom(body), version: version + 1 });
    if (!affected) throw changedSince('line', await this.one(id));
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  async move(itemId: string, body: MoveBody, person: PersonView): Promise<StockView> {
    if ((body.kind === 'reserve' || body.kind === 'release') && body.jobId === undefined)
      throw badInput([{ field: 'jobId', allowed: 'is missing: for which job?' }]);
    if (body.kind !== 'count' && body.quantity === 0) throw badInput([{ field: 'quantity', given: '0', allowed: 'must be more than 0' }]);
    if (body.kind === 'count' && person.role === 'apprentice') await this.#countToSign(itemId, body, person);
    else await this.moveOn(this.dataSource.manager, itemId, body, person.id);
    this.stream.tell({ type: 'stores' });
    return this.one(itemId);
  }

  /** What an apprentice counted is kept, and is what is there when somebody signs it. */
  async #countToSign(itemId: string, { id, quantity, words, takenAt }: MoveBody, person: PersonView): Promise<void> {
    const { manager } = this.dataSource;
    if (!(await manager.existsBy(StockItem, { id: itemId }))) throw notFound('stock line');
    const count = { id, itemId, quantity, words: words ?? null, personId: person.id, takenAt: new Date(takenAt) };
    await manager.createQueryBuilder().insert().into(StockCount).values(count).orIgnore().execute();
  }

  /** Signs a count that waits, or leaves it; once, whoever is first. */
  async settleCount(countId: string, take: boolean, person: PersonView): Promise<StockView> {
    const itemId = await inTransaction(this.dataSource, async (manager) => {
      const { affected } = await manager.update(StockCount, { id: countId, settledBy: IsNull() }, { settledBy: person.id, isTaken: take });
      if (!affected) throw new ProblemError('no-count-waiting');
      const { id, quantity, takenAt, ...count } = await manager.findOneByOrFail(StockCount, { id: countId });
      const words = [count.words, `signed by ${person.name}`].filter(Boolean).join('; ');
      if (take)
        await this.moveOn(manager, count.itemId, { id, kind: 'count', quantity, words, takenAt: takenAt.toISOString() }, count.personId);
      return count.itemId;
    });
    this.stream.tell({ type: 'stores' });
    return this.one(itemId);
  }

  /** The same as part of what the caller does. */
  async moveOn(manager: EntityManager, itemId: string, body: MoveBody, personId: string): Promise<void> {
    try {
      await ask(manager, MOVE, JSON.stringify(body), itemId, personId);
    } catch (error) {
      throw refusedMove(error, body);
    }
  }

  /**
   * What an entry of a job moves, by its own id: sent twice, it moves once. Never refused for a shelf that has less than
   * was taken from it: what is in hand is in hand, and the movement says that the shelf must be counted.
   */
  async moveByEntry(manager: EntityManager, entry: MovingEntry, itemId: string, pieces: number): Promise<void> {
    const [line] = await ask<{ free: number; out: number }>(manager, MOVABLE, itemId, entry.jobId);
    if (!line) throw badInput([{ field: 'payload.item', given: itemId, allowed: 'is no line of the stores' }]);
    const asked = Math.abs(pieces);
    const quantity = Math.min(asked, pieces > 0 ? line.free : line.out);
    const words = quantity < asked && pieces > 0 ? `${asked} went in, and the shelf had ${quantity} free: count it` : undefined;
    if (quantity <= 0 && words === undefined) return;
    const kind = pieces > 0 ? 'issue' : 'return';
    await this.moveOn(
      manager,
      itemId,
      { id: v5(itemId, entry.id), kind, quantity, jobId: entry.jobId, takenAt: entry.takenAt, ...(words ? { words } : {}) },
      entry.personId,
    );
  }

  /** What lies on the shelves, is on offer and is on order of these numbers, for one job. */
  async forJob(jobId: string, numbers: readonly string[], designations: readonly string[]): Promise<JobPartsView> {
    const { manager } = this.dataSource;
    const [stock, offers, ordered] = await Promise.all([
      ask<JobPartsView['stock'][number]>(manager, FOR_JOB, jobId, numbers, designations),
      ask<JobPartsView['offers'][number]>(manager, OFFERS, numbers),
      ask<JobPartsView['ordered'][number]>(manager, ORDERED_FOR, jobId),
    ]);
    return { stock, offers, ordered };
  }

  /** The line of a number, made when there is none yet: what an order brings has a place. */
  async lineOf(manager: EntityManager, number: string, name: string, priceMinor: number): Promise<string> {
    const fresh = { number, name, kind: 'part', unit: 'piece', priceMinor, location: 'goods in' } as const;
    await manager.createQueryBuilder().insert().into(StockItem).values(fresh).orIgnore().execute();
    return (await manager.findOneByOrFail(StockItem, { number })).id;
  }

  /** Puts what came on the shelf and keeps it for the job that it came for. */
  async receive(
    manager: EntityManager,
    itemId: string,
    quantity: number,
    jobId: string | null,
    words: string,
    personId: string,
  ): Promise<void> {
    const takenAt = new Date().toISOString();
    await this.moveOn(
      manager,
      itemId,
      { id: uuid(), kind: 'receive', quantity, words, takenAt, ...(jobId === null ? {} : { jobId }) },
      personId,
    );
  }
}

function lineFrom({ number, name, kind, unit, size, designation, location, minimum, priceMinor }: StockItemBody): Partial<StockItem> {
  return {
    number: number.trim(),
    name: name.trim(),
    kind,
    unit,
    size: size?.trim() || null,
    designation: designation?.trim() || null,
    location: location?.trim() ?? '',
    minimum,
    priceMinor,
    thicknessMm: kind === 'shim' ? thicknessOf(size) : null,
  };
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
