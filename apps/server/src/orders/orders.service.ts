import type { NewEntry, PersonView } from '@jubb/book';
import type { DeliveredLine, GoodsInBody, OrderLine, OrderView, WantBody } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import type { PoolClient } from 'pg';
import { DataSource } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { ask, inTransaction, poolOf, type Statement } from '../database/data-source.js';
import { EntriesService } from '../entries/entries.service.js';
import { OutboxService } from '../outbox/outbox.service.js';
import { StoresService } from '../stores/stores.service.js';
import { StreamService } from '../stream/stream.service.js';
import { SupplierStandIn, SupplierTimeout, priceFor } from './supplier-stand-in.js';

const ORDERS = `
  SELECT o.id, o.number, o.supplier, o.state, o.sent_at AS "sentAt",
    coalesce((SELECT json_agg(json_build_object('id', l.id, 'number', l.number, 'name', l.name, 'quantity', l.quantity, 'priceMinor', l.price_minor,
      'jobId', l.job_id, 'jobNumber', j.number, 'confirmed', l.confirmed, 'due', l.due, 'received', l.received, 'returned', l.returned) ORDER BY l.number, l.id)
      FROM part_order_line l LEFT JOIN job j ON j.id = l.job_id WHERE l.order_id = o.id), '[]') AS lines,
    coalesce((SELECT s.notes FROM supplier_order s WHERE s.reference = o.id), '[]') AS notes
  FROM part_order o`;
const LIST: Statement = {
  name: 'orders',
  text: `${ORDERS} WHERE o.state <> 'delivered' OR o.sent_at > now() - interval '30 days' ORDER BY o.number DESC LIMIT 100`,
};
const ONE: Statement = { name: 'order', text: `${ORDERS} WHERE o.id = $1` };

@Injectable()
export class OrdersService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StoresService) private readonly stores: StoresService,
    @Inject(SupplierStandIn) private readonly supplier: SupplierStandIn,
    @Inject(EntriesService) private readonly entries: EntriesService,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(OutboxService) private readonly outbox: OutboxService,
  ) {
    outbox.goesBy('order', (id) => this.#goOut(id));
  }

  list(): Promise<readonly OrderView[]> {
    return ask(poolOf(this.dataSource), LIST);
  }

  async one(id: string): Promise<OrderView> {
    const [order] = await ask<OrderView>(poolOf(this.dataSource), ONE, id);
    if (!order) throw notFound('order');
    return order;
  }

  /** Puts something on the order that is being gathered for a supplier; the same id again is the same line. */
  async want(body: WantBody): Promise<OrderView> {
    const offer = await this.supplier.offer(body.supplier, body.number);
    if (!offer) throw badInput([{ field: 'number', given: body.number, allowed: `is not in the catalogue of ${body.supplier}` }]);
    if (offer.supersededBy !== null)
      throw badInput([{ field: 'number', given: body.number, allowed: `has been replaced; order ${offer.supersededBy}` }]);
    const id = await inTransaction(poolOf(this.dataSource), async (client) => {
      await client.query("INSERT INTO part_order (supplier) VALUES ($1) ON CONFLICT (supplier) WHERE state = 'open' DO NOTHING", [
        body.supplier,
      ]);
      const { rows } = await client.query<{ id: string }>("SELECT id FROM part_order WHERE supplier = $1 AND state = 'open' FOR UPDATE", [
        body.supplier,
      ]);
      const known = await client.query<{ order_id: string }>('SELECT order_id FROM part_order_line WHERE id = $1', [body.id]);
      if (known.rows[0]) return known.rows[0].order_id;
      const orderId = rows[0]!.id;
      await client.query(
        'INSERT INTO part_order_line (id, order_id, number, name, quantity, price_minor, job_id) VALUES ($1, $2, $3, $4, $5, $6, $7)',
        [body.id, orderId, body.number, offer.name, body.quantity, priceFor(offer, body.quantity), body.jobId ?? null],
      );
      return orderId;
    });
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  /** Takes a line off an order that is not sent yet; an order without lines is gone. */
  async drop(lineId: string): Promise<void> {
    await inTransaction(poolOf(this.dataSource), async (client) => {
      const { rows } = await client.query<{ order_id: string }>(
        `DELETE FROM part_order_line l USING part_order o WHERE l.id = $1 AND o.id = l.order_id AND o.state = 'open' RETURNING l.order_id`,
        [lineId],
      );
      if (!rows[0] && (await client.query('SELECT 1 FROM part_order_line WHERE id = $1', [lineId])).rowCount === 0) throw notFound('line');
      if (!rows[0]) throw new ProblemError('order-closed');
      await client.query(
        'DELETE FROM part_order o WHERE o.id = $1 AND NOT EXISTS (SELECT 1 FROM part_order_line l WHERE l.order_id = o.id)',
        [rows[0].order_id],
      );
    });
    this.stream.tell({ type: 'stores' });
  }

  /**
   * Sends an order, once: its id is our reference at the supplier, so that pressing again, a lost
   * answer, or a second tablet ask after the same order. The jobs that wait for it, and that it is to
   * go out, are kept with it; unanswered it is asked for again by itself.
   */
  async send(id: string, person: PersonView): Promise<OrderView> {
    const { supplier, state, tell } = await this.#lock(id, async (client, order) => {
      if (order.lines.length === 0) throw new ProblemError('order-empty');
      if (order.state !== 'open') return { ...order, tell: [] };
      await client.query("UPDATE part_order SET state = 'sent', sent_at = now(), sent_by = $2 WHERE id = $1", [id, person.id]);
      await this.outbox.put(client, 'order', id);
      return { ...order, tell: await this.#holdJobs(client, order, person) };
    });
    for (const told of tell) told();
    try {
      if (state === 'open' || state === 'sent') await this.outbox.send('order', id);
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
    const answer = await this.supplier.order(id, supplier, lines);
    await this.#lock(id, async (client, order) => {
      await this.outbox.went(client, 'order', id);
      if (order.state !== 'sent') return;
      for (const line of answer.lines)
        await client.query('UPDATE part_order_line SET confirmed = $2, price_minor = $3, due = $4 WHERE id = $1', [
          line.lineId,
          line.confirmed,
          line.priceMinor,
          line.due,
        ]);
      const differs = answer.lines.some(({ lineId, confirmed }) => order.lines.find((one) => one.id === lineId)?.quantity !== confirmed);
      await client.query('UPDATE part_order SET state = $2 WHERE id = $1', [id, differs ? 'differs' : 'confirmed']);
    });
    this.stream.tell({ type: 'stores' });
  }

  /** Takes a confirmation that says otherwise than was ordered, as it is, or takes those lines off. */
  async settle(id: string, asConfirmed: boolean): Promise<OrderView> {
    await this.#lock(id, async (client, order) => {
      if (order.state !== 'differs') throw new ProblemError('order-settled');
      for (const line of order.lines.filter(({ quantity, confirmed }) => quantity !== confirmed)) {
        const keeps = asConfirmed ? (line.confirmed ?? 0) : 0;
        if (keeps === 0) await client.query('DELETE FROM part_order_line WHERE id = $1', [line.id]);
        else await client.query('UPDATE part_order_line SET quantity = $2 WHERE id = $1', [line.id, keeps]);
      }
      // Nothing left of it is nothing to wait for.
      await client.query(
        "UPDATE part_order SET state = CASE WHEN EXISTS (SELECT 1 FROM part_order_line WHERE order_id = $1) THEN 'confirmed' ELSE 'delivered' END WHERE id = $1",
        [id],
      );
    });
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  /** Lets the stand-in's van come. */
  async deliver(id: string): Promise<OrderView> {
    const order = await this.one(id);
    if (order.state !== 'confirmed') throw new ProblemError('order-not-confirmed', { named: { act: 'be delivered' } });
    await this.supplier.deliver(
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
    const tell = await this.#lock(id, async (client, order) => {
      const { rowCount } = await client.query(
        'INSERT INTO goods_in (id, order_id, lines, person_id) VALUES ($1, $2, $3, $4) ON CONFLICT (id) DO NOTHING',
        [noteId, id, JSON.stringify(lines), person.id],
      );
      if (rowCount === 0) return [];
      if (order.state !== 'confirmed') throw new ProblemError('order-not-confirmed', { named: { act: 'come in' } });
      // Whoever keeps an entry locks its job before it moves the shelves; so does this.
      await client.query('SELECT 1 FROM job WHERE id = ANY ($1) ORDER BY id FOR NO KEY UPDATE', [jobsOf(order)]);
      for (const [index, delivered] of lines.entries()) {
        const line = order.lines.find((one) => one.id === delivered.lineId);
        if (!line) throw badInput([{ field: `lines[${index}].lineId`, given: delivered.lineId, allowed: 'is not a line of this order' }]);
        await this.#takeIn(client, order, line, delivered, `lines[${index}]`, person);
      }
      await client.query("UPDATE supplier_order SET notes = '[]' WHERE reference = $1", [id]);
      await client.query(
        "UPDATE part_order SET state = 'delivered' WHERE id = $1 AND NOT EXISTS (SELECT 1 FROM part_order_line WHERE order_id = $1 AND received < quantity)",
        [id],
      );
      return this.#releaseJobs(client, order, person);
    });
    for (const told of tell) told();
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  async #takeIn(
    client: PoolClient,
    order: OrderView,
    line: OrderLine,
    { number, quantity, why }: DeliveredLine,
    field: string,
    person: PersonView,
  ): Promise<void> {
    if (quantity === 0) return;
    if (number.trim() !== line.number) {
      await client.query('UPDATE part_order_line SET returned = returned + $2 WHERE id = $1', [line.id, quantity]);
      return;
    }
    const owed = Math.max(0, line.quantity - line.received);
    const more = Math.max(0, quantity - owed);
    if (more > 0 && !why?.trim())
      throw badInput([
        { field: `${field}.quantity`, given: String(quantity), allowed: `must be at most ${owed}, or say why more is taken in` },
      ]);
    const from = `order ${order.number}, ${order.supplier}`;
    const item = await this.stores.lineOf(client, line.number, line.name, line.priceMinor);
    if (quantity > more) await this.stores.receive(client, item, quantity - more, line.jobId, from, person.id);
    if (more > 0) await this.stores.receive(client, item, more, null, `${from}, more than was ordered: ${why!.trim()}`, person.id);
    await client.query('UPDATE part_order_line SET received = received + $2 WHERE id = $1', [line.id, quantity]);
  }

  async #lock<T>(id: string, work: (client: PoolClient, order: OrderView) => Promise<T>): Promise<T> {
    return inTransaction(poolOf(this.dataSource), async (client) => {
      await client.query('SELECT 1 FROM part_order WHERE id = $1 FOR UPDATE', [id]);
      const [order] = await ask<OrderView>(client, ONE, id);
      if (!order) throw notFound('order');
      return work(client, order);
    });
  }

  /** Jobs that wait for what is ordered say so. */
  async #holdJobs(client: PoolClient, order: OrderView, person: PersonView): Promise<readonly (() => void)[]> {
    const { rows } = await client.query<{ id: string }>(
      'SELECT id FROM job WHERE id = ANY ($1) AND hold IS NULL AND closed_at IS NULL ORDER BY id FOR NO KEY UPDATE',
      [jobsOf(order)],
    );
    return this.#post(client, rows, person, {
      kind: 'hold',
      payload: { reason: 'parts', words: `Order ${order.number}, ${order.supplier}` },
    });
  }

  /** A job of which nothing is on order any more, and that waits for parts, goes on. */
  async #releaseJobs(client: PoolClient, order: OrderView, person: PersonView): Promise<readonly (() => void)[]> {
    const { rows } = await client.query<{ id: string }>(
      `SELECT j.id FROM job j WHERE j.id = ANY ($1) AND j.hold->>'reason' = 'parts' AND j.closed_at IS NULL
         AND NOT EXISTS (SELECT 1 FROM part_order_line l WHERE l.job_id = j.id AND l.received < l.quantity) ORDER BY j.id`,
      [jobsOf(order)],
    );
    return this.#post(client, rows, person, { kind: 'hold-off', payload: { words: 'All parts are here' } });
  }

  async #post(
    client: PoolClient,
    jobs: readonly { readonly id: string }[],
    person: PersonView,
    entry: Pick<NewEntry, 'kind' | 'payload'>,
  ): Promise<readonly (() => void)[]> {
    const tell: (() => void)[] = [];
    for (const { id } of jobs)
      tell.push(await this.entries.postWithin(client, id, person, [{ ...entry, id: uuid(), takenAt: new Date().toISOString() }]));
    return tell;
  }
}

function jobsOf({ lines }: OrderView): readonly string[] {
  return [...new Set(lines.flatMap(({ jobId }) => (jobId === null ? [] : [jobId])))];
}
