import { inDate, type JobPartsView, type PersonView, type SealLine, type ShimLine } from '@jubb/book';
import { StockItemBody, stockFrom, type Cells, type MoveBody, type StockChangeBody, type StockView } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { parseQuantity, shelfLife, type Material } from '@jubb/core';
import { yearsOn } from '@jubb/sheet';
import { DataSource, IsNull, type EntityManager } from 'typeorm';
import { v5, v7 as uuid } from 'uuid';
import { ProblemError, badInput, changedSince, notFound } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { checkRow } from '../common/validation.js';
import { anywhere, ask, askJson, inTransaction } from '../database/data-source.js';
import { Shop, StockCount, StockItem } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';
import { ALL, FOR_JOB, MOVABLE, MOVE, OFFERS, ONE, ORDERED_FOR, SEALS, SHIMS, SHORT, found } from './stores.sql.js';

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

  /** Seals and rings that may go in today. */
  async seals(): Promise<readonly SealLine[]> {
    const { today } = await shopDay(this.dataSource);
    const lines = await ask<SealLine>(this.dataSource.manager, SEALS, today);
    return lines.filter(({ usable }) => usable > 0);
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

  /** A row of a table as a line of the stores: a new one, or that of its number; how many lie there is counted in. */
  async bring(manager: EntityManager, cells: Cells, by: PersonView): Promise<'made' | 'changed' | 'same'> {
    const before = await manager.findOne(StockItem, {
      where: { number: (cells['number'] ?? '').trim() },
      lock: { mode: 'pessimistic_write' },
    });
    const { body, wrongs, onHand } = stockFrom(cells, before ? bodyOf(before) : undefined);
    checkRow(StockItemBody, body, wrongs);
    const row = lineFrom(body);
    const isSame = before !== null && Object.entries(row).every(([name, value]) => before[name as keyof StockItem] === value);
    const id = before?.id ?? String((await manager.insert(StockItem, row)).identifiers[0]!['id']);
    if (before && !isSame) await manager.update(StockItem, id, { ...row, version: before.version + 1 });
    const isCounted = onHand !== undefined && onHand !== (before?.onHand ?? 0);
    if (isCounted)
      await this.moveOn(
        manager,
        id,
        { id: uuid(), kind: 'count', quantity: onHand, words: 'out of a table', takenAt: new Date().toISOString() },
        by.id,
      );
    return before ? (isSame && !isCounted ? 'same' : 'changed') : 'made';
  }

  /** Tells every page that the shelves are other ones. */
  tell(): void {
    this.stream.tell({ type: 'stores' });
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
    else {
      if (body.kind === 'issue' && body.batch === undefined) await this.#inDate(itemId, body.quantity);
      await this.moveOn(this.dataSource.manager, itemId, await this.#dated(itemId, body), person.id);
    }
    this.stream.tell({ type: 'stores' });
    return this.one(itemId);
  }

  /** What is past its day is not taken out unseen: who takes what lies there takes of what is in date. */
  async #inDate(itemId: string, quantity: number): Promise<void> {
    const line = await this.one(itemId);
    const { past, good } = inDate(line, (await shopDay(this.dataSource)).today);
    if (past > 0 && quantity > good)
      throw badInput([
        {
          field: 'quantity',
          given: `${quantity}`,
          allowed: `must be at most ${good}${line.unit === 'piece' ? '' : ` ${line.unit}`}: the rest is past its day`,
        },
      ]);
  }

  /** How long rubber lies well, by its material and the day it was cured; what is past that is not taken in. */
  async #dated(itemId: string, { cured, ...body }: MoveBody): Promise<MoveBody> {
    if (cured === undefined) return body;
    const wrong = (allowed: string): Error => badInput([{ field: 'cured', given: cured, allowed }]);
    if (body.kind !== 'receive') throw wrong('is asked for where goods come in');
    const material = (await this.dataSource.manager.findOneBy(StockItem, { id: itemId }))?.material;
    const life = shelfLife(material ?? '');
    if (!life) throw wrong(`tells nothing of ${material ?? 'a line without a material'}: say until when it is good`);
    const { today } = await shopDay(this.dataSource);
    if (cured > today) throw wrong('must not lie ahead');
    const expires = body.expires ?? yearsOn(cured, life.first);
    if (expires < today)
      throw wrong(`is past the ${life.first} years that ${material} lies well: look at it and bend it, and say until when it is good`);
    return { ...body, expires, batch: body.batch ?? `cured ${cured}`, words: [body.words, `cured ${cured}`].filter(Boolean).join('; ') };
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

/** A line as its form has it. */
function bodyOf({ number, name, kind, unit, size, designation, location, minimum, priceMinor, material, shore }: StockItem): StockItemBody {
  return {
    ...{ number, name, kind, unit: unit as StockItemBody['unit'], location, minimum, priceMinor },
    ...(size === null ? {} : { size }),
    ...(designation === null ? {} : { designation }),
    ...(material === null ? {} : { material: material as Material }),
    ...(shore === null ? {} : { shore }),
  };
}

/** The row of a line as its form has it. */
export function lineFrom({
  number,
  name,
  kind,
  unit,
  size,
  designation,
  location,
  minimum,
  priceMinor,
  material,
  shore,
}: StockItemBody): Partial<StockItem> {
  return {
    number: number.trim(),
    name: name.trim(),
    kind,
    unit,
    size: size?.trim() || null,
    designation: designation?.trim() || null,
    location: location?.trim() ?? '',
    material: material ?? null,
    shore: shore ?? null,
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
