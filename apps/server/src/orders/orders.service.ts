import { toCome, type NewEntry, type PersonView, type SupplierOffer } from '@jubb/book';
import type { ConfirmedLine, DeliveredLine, GoodsInBody, OrderLine, OrderView, WantBody, WantedLine } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, In, IsNull, Raw, type EntityManager, type FindOptionsWhere } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { ask, inTransaction } from '../database/data-source.js';
import { GoodsIn, Job, PartOrder, PartOrderLine, SupplierOrder } from '../database/entities/index.js';
import { EntriesService } from '../entries/entries.service.js';
import { OutboxService } from '../outbox/outbox.service.js';
import { StoresService } from '../stores/stores.service.js';
import { StreamService } from '../stream/stream.service.js';
import { LIST, NOTHING_ON_ORDER, ONE } from './orders.sql.js';
import { SuppliersService } from './suppliers.service.js';
import { SupplierStandIn, SupplierTimeout, priceFor } from './supplier-stand-in.js';

@Injectable()
export class OrdersService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StoresService) private readonly stores: StoresService,
    @Inject(SuppliersService) private readonly suppliers: SuppliersService,
    @Inject(SupplierStandIn) private readonly standIn: SupplierStandIn,
    @Inject(EntriesService) private readonly entries: EntriesService,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(OutboxService) private readonly outbox: OutboxService,
  ) {
    outbox.goesBy('order', (id) => this.#goOut(id));
  }

  list(): Promise<readonly OrderView[]> {
    return ask(this.dataSource.manager, LIST);
  }

  async one(id: string): Promise<OrderView> {
    const [order] = await ask<OrderView>(this.dataSource.manager, ONE, id);
    if (!order) throw notFound('order');
    return order;
  }

  /** Puts lines on the orders that are being gathered for their suppliers, all or none; the same id again is the same line. */
  async want({ lines }: WantBody): Promise<readonly OrderView[]> {
    const ids = await inTransaction(this.dataSource, async (manager) => {
      const wanted: { readonly line: WantedLine; readonly offer: SupplierOffer }[] = [];
      // By supplier and number, always in the same order: two who order at once wait for each other, never both.
      const inOrder = [...lines.entries()].toSorted(([, one], [, other]) => nameOf(one).localeCompare(nameOf(other)));
      for (const [index, line] of inOrder) {
        const offer = await this.suppliers.offered(manager, line, `lines[${index}]`);
        if (offer.supersededBy !== null) {
          const allowed = `has been replaced; order ${offer.supersededBy}`;
          throw badInput([{ field: `lines[${index}].number`, given: line.number, allowed }]);
        }
        wanted.push({ line, offer });
      }
      const orders = new Set<string>();
      for (const { line, offer } of wanted) orders.add(await this.#putOn(manager, line, offer));
      return [...orders];
    });
    this.stream.tell({ type: 'stores' });
    return Promise.all(ids.map((id) => this.one(id)));
  }

  async #putOn(manager: EntityManager, { id, supplier, quantity, jobId }: WantedLine, offer: SupplierOffer): Promise<string> {
    // The one that is gathered: made where there is none, by whoever is first.
    await manager.createQueryBuilder().insert().into(PartOrder).values({ supplier }).orIgnore().execute();
    const open = await manager.findOneOrFail(PartOrder, { where: { supplier, state: 'open' }, lock: { mode: 'pessimistic_write' } });
    const known = await manager.findOneBy(PartOrderLine, { id });
    if (known) return known.orderId;
    const { number, name } = offer;
    const priceMinor = priceFor(offer, quantity);
    await manager.insert(PartOrderLine, { id, orderId: open.id, number, name, quantity, priceMinor, jobId: jobId ?? null });
    return open.id;
  }

  /** Takes a line off an order that is not sent yet; an order without lines is gone. */
  async drop(lineId: string): Promise<void> {
    await inTransaction(this.dataSource, async (manager) => {
      const line = await manager.findOne(PartOrderLine, { where: { id: lineId } });
      if (!line) throw notFound('line');
      // Whoever sends it at this moment comes first, or finds it shorter.
      const open = await manager.findOne(PartOrder, { where: { id: line.orderId, state: 'open' }, lock: { mode: 'pessimistic_write' } });
      if (!open) throw new ProblemError('order-closed');
      await manager.delete(PartOrderLine, lineId);
      if (!(await manager.existsBy(PartOrderLine, { orderId: open.id }))) await manager.delete(PartOrder, open.id);
    });
    this.stream.tell({ type: 'stores' });
  }

  /**
   * Sends an order, once: its id is our reference at the supplier, so that pressing again, a lost
   * answer, or a second tablet ask after the same order. The jobs that wait for it, and that it is to
   * go out, are kept with it; unanswered it is asked for again by itself.
   */
  async send(id: string, person: PersonView): Promise<OrderView> {
    const { supplier, state, byHand, tell } = await this.#lock(id, async (manager, order) => {
      if (order.lines.length === 0) throw new ProblemError('order-empty');
      if (order.state !== 'open') return { ...order, tell: [] };
      await manager.update(PartOrder, id, { state: 'sent', sentAt: () => 'now()', sentBy: person.id });
      // By hand it goes out as somebody writes or calls: nobody answers by a line.
      if (!order.byHand) await this.outbox.put(manager, 'order', id);
      return { ...order, tell: await this.#holdJobs(manager, order, person) };
    });
    for (const told of tell) told();
    try {
      if (!byHand && (state === 'open' || state === 'sent')) await this.outbox.send('order', id);
    } catch (error) {
      if (!(error instanceof SupplierTimeout)) throw error;
      throw new ProblemError('supplier-silent', { named: { supplier } });
    } finally {
      this.stream.tell({ type: 'stores' });
    }
    return this.one(id);
  }

  /** Brings an order to its supplier and keeps the answer. */
  async #goOut(id: string): Promise<void> {
    const { supplier, lines } = await this.one(id);
    const answer = await this.standIn.order(id, supplier, lines);
    await this.#lock(id, async (manager, order) => {
      await this.outbox.went(manager, 'order', id);
      if (order.state !== 'sent') return;
      for (const { lineId, confirmed, priceMinor, due } of answer.lines)
        await manager.update(PartOrderLine, lineId, { confirmed, priceMinor, due });
      const differs = answer.lines.some(({ lineId, confirmed }) => order.lines.find((one) => one.id === lineId)?.quantity !== confirmed);
      await manager.update(PartOrder, id, { state: differs ? 'differs' : 'confirmed' });
    });
    this.stream.tell({ type: 'stores' });
  }

  /** Keeps what a supplier by hand said to an order: how many of each come, at what price, and when. */
  async confirm(id: string, lines: readonly ConfirmedLine[]): Promise<OrderView> {
    await this.#lock(id, async (manager, order) => {
      if (!order.byHand) throw notFound('order');
      if (order.state !== 'sent' && order.state !== 'confirmed') throw new ProblemError('order-settled');
      for (const [index, { lineId, confirmed, priceMinor, due }] of lines.entries()) {
        const line = order.lines.find((one) => one.id === lineId);
        if (!line) throw badInput([{ field: `lines[${index}].lineId`, given: lineId, allowed: 'is not a line of this order' }]);
        if (confirmed < line.received)
          throw badInput([
            {
              field: `lines[${index}].confirmed`,
              given: String(confirmed),
              allowed: `must be at least ${line.received}: so many are here`,
            },
          ]);
        await manager.update(PartOrderLine, lineId, { confirmed, priceMinor, due: due ?? null });
      }
      const said = new Map(lines.map(({ lineId, confirmed }) => [lineId, confirmed]));
      const differs = order.lines.some((line) => (said.get(line.id) ?? line.confirmed ?? line.quantity) !== line.quantity);
      await manager.update(PartOrder, id, { state: differs ? 'differs' : 'confirmed' });
    });
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  /** Takes a confirmation that says otherwise than was ordered, as it is, or takes those lines off. */
  async settle(id: string, asConfirmed: boolean): Promise<OrderView> {
    await this.#lock(id, async (manager, order) => {
      if (order.state !== 'differs') throw new ProblemError('order-settled');
      for (const line of order.lines.filter(({ quantity, confirmed }) => quantity !== confirmed)) {
        const keeps = asConfirmed ? (line.confirmed ?? 0) : 0;
        if (keeps === 0) await manager.delete(PartOrderLine, line.id);
        else await manager.update(PartOrderLine, line.id, { quantity: keeps });
      }
      // Nothing left of it is nothing to wait for.
      const isLeft = await manager.existsBy(PartOrderLine, { orderId: id });
      await manager.update(PartOrder, id, { state: isLeft ? 'confirmed' : 'delivered' });
    });
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  /** Lets the stand-in's van come. */
  async deliver(id: string): Promise<OrderView> {
    const order = await this.one(id);
    if (order.byHand) throw notFound('order');
    if (order.state !== 'confirmed') throw new ProblemError('order-not-confirmed', { named: { act: 'be delivered' } });
    await this.standIn.deliver(
      id,
      order.lines.map((line) => ({ ...line, left: line.quantity - line.received })),
    );
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  /**
   * Takes in what came, and lets the jobs go on that waited for it: the right number onto the shelf and kept for its
   * job; another number goes back. More than was ordered is taken in with a word why.
   */
  async goodsIn(id: string, { id: noteId, lines }: GoodsInBody, person: PersonView): Promise<OrderView> {
    const twice = lines.findIndex(({ lineId }, index) => lines.findIndex((one) => one.lineId === lineId) < index);
    if (twice >= 0)
      throw badInput([{ field: `lines[${twice}].lineId`, given: lines[twice]!.lineId, allowed: 'must be named once: count it together' }]);
    const tell = await this.#lock(id, async (manager, order) => {
      if (await manager.existsBy(GoodsIn, { id: noteId })) return [];
      await manager.insert(GoodsIn, { id: noteId, orderId: id, lines, personId: person.id });
      if (order.state !== 'confirmed') throw new ProblemError('order-not-confirmed', { named: { act: 'come in' } });
      // Whoever keeps an entry locks its job before it moves the shelves; so does this.
      await lockJobs(manager, jobsOf(order));
      for (const [index, delivered] of lines.entries()) {
        const line = order.lines.find((one) => one.id === delivered.lineId);
        if (!line) throw badInput([{ field: `lines[${index}].lineId`, given: delivered.lineId, allowed: 'is not a line of this order' }]);
        await this.#takeIn(manager, order, line, delivered, `lines[${index}]`, person);
      }
      await manager.update(SupplierOrder, id, { notes: [] });
      const lacks = await manager.existsBy(PartOrderLine, { orderId: id, received: Raw((received) => `${received} < quantity`) });
      if (!lacks) await manager.update(PartOrder, id, { state: 'delivered' });
      return this.#releaseJobs(manager, order, person);
    });
    for (const told of tell) told();
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  async #takeIn(
    manager: EntityManager,
    order: OrderView,
    line: OrderLine,
    { number, quantity, why }: DeliveredLine,
    field: string,
    person: PersonView,
  ): Promise<void> {
    if (quantity === 0) return;
    if (number.trim() !== line.number) {
      await manager.increment(PartOrderLine, { id: line.id }, 'returned', quantity);
      return;
    }
    const owed = toCome(line);
    const more = Math.max(0, quantity - owed);
    if (more > 0 && !why?.trim())
      throw badInput([
        { field: `${field}.quantity`, given: String(quantity), allowed: `must be at most ${owed}, or say why more is taken in` },
      ]);
    const from = `order ${order.number}, ${order.supplier}`;
    const item = await this.stores.lineOf(manager, line.number, line.name, line.priceMinor);
    if (quantity > more) await this.stores.receive(manager, item, quantity - more, line.jobId, from, person.id);
    if (more > 0) await this.stores.receive(manager, item, more, null, `${from}, more than was ordered: ${why!.trim()}`, person.id);
    await manager.increment(PartOrderLine, { id: line.id }, 'received', quantity);
  }

  async #lock<T>(id: string, work: (manager: EntityManager, order: OrderView) => Promise<T>): Promise<T> {
    return inTransaction(this.dataSource, async (manager) => {
      await manager.findOne(PartOrder, { where: { id }, lock: { mode: 'pessimistic_write' } });
      const [order] = await ask<OrderView>(manager, ONE, id);
      if (!order) throw notFound('order');
      return work(manager, order);
    });
  }

  /** Jobs that wait for what is ordered say so. */
  async #holdJobs(manager: EntityManager, order: OrderView, person: PersonView): Promise<readonly (() => void)[]> {
    const waiting = await lockJobs(manager, jobsOf(order), { hold: IsNull(), closedAt: IsNull() });
    return this.#post(manager, waiting, person, {
      kind: 'hold',
      payload: { reason: 'parts', words: `Order ${order.number}, ${order.supplier}` },
    });
  }

  /** A job of which nothing is on order any more, and that waits for parts, goes on. */
  async #releaseJobs(manager: EntityManager, order: OrderView, person: PersonView): Promise<readonly (() => void)[]> {
    const free = await ask<{ id: string }>(manager, NOTHING_ON_ORDER, jobsOf(order));
    return this.#post(manager, free, person, { kind: 'hold-off', payload: { words: 'All parts are here' } });
  }

  async #post(
    manager: EntityManager,
    jobs: readonly { readonly id: string }[],
    person: PersonView,
    entry: Pick<NewEntry, 'kind' | 'payload'>,
  ): Promise<readonly (() => void)[]> {
    const tell: (() => void)[] = [];
    for (const { id } of jobs)
      tell.push(await this.entries.postWithin(manager, id, person, [{ ...entry, id: uuid(), takenAt: new Date().toISOString() }]));
    return tell;
  }
}

const nameOf = ({ supplier, number }: WantedLine): string => `${supplier} ${number}`;

function jobsOf({ lines }: OrderView): readonly string[] {
  return [...new Set(lines.flatMap(({ jobId }) => (jobId === null ? [] : [jobId])))];
}

/** Locks jobs in one order, so that two who do it do not wait for each other. */
function lockJobs(manager: EntityManager, ids: readonly string[], which: FindOptionsWhere<Job> = {}): Promise<readonly Job[]> {
  return manager.find(Job, { where: { ...which, id: In(ids) }, order: { id: 'ASC' }, lock: { mode: 'for_no_key_update' } });
}
