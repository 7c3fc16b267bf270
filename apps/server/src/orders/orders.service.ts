import { Inject, Injectable } from '@nestjs/common';
import type { GoodsInBody, OrderView, PersonView, WantBody } from '@jubb/contract';
import type { PoolClient } from 'pg';
import { DataSource } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { ask, inTransaction, poolOf, type Statement } from '../database/data-source.js';
import { EntriesService } from '../entries/entries.service.js';
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
  ) {}

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
      if (!rows[0]) throw new ProblemError(409, 'This line is not on an order that can still be changed');
      await client.query(
        'DELETE FROM part_order o WHERE o.id = $1 AND NOT EXISTS (SELECT 1 FROM part_order_line l WHERE l.order_id = o.id)',
        [rows[0].order_id],
      );
    });
    this.stream.tell({ type: 'stores' });
  }

  /**
   * Sends an order, once: its id is our reference at the supplier, so that pressing again, a lost
   * answer, or a second tablet ask after the same order.
   */
  async send(id: string, person: PersonView): Promise<OrderView> {
    const before = await this.#lock(id, async (client, order) => {
      if (order.lines.length === 0) throw new ProblemError(409, 'There is nothing on this order');
      if (order.state === 'open')
        await client.query("UPDATE part_order SET state = 'sent', sent_at = now(), sent_by = $2 WHERE id = $1", [id, person.id]);
      return order;
    });
    if (before.state === 'open') await this.#holdJobs(before, person);
    if (before.state === 'open' || before.state === 'sent') {
      try {
        const answer = await this.supplier.order(id, before.supplier, before.lines);
        await this.#lock(id, async (client, order) => {
          if (order.state !== 'sent') return;
          for (const line of answer.lines)
            await client.query('UPDATE part_order_line SET confirmed = $2, price_minor = $3, due = $4 WHERE id = $1', [
              line.lineId,
              line.confirmed,
              line.priceMinor,
              line.due,
            ]);
          const differs = answer.lines.some(
            ({ lineId, confirmed }) => order.lines.find((one) => one.id === lineId)?.quantity !== confirmed,
          );
          await client.query('UPDATE part_order SET state = $2 WHERE id = $1', [id, differs ? 'differs' : 'confirmed']);
        });
      } catch (error) {
        if (!(error instanceof SupplierTimeout)) throw error;
        this.stream.tell({ type: 'stores' });
        throw new ProblemError(504, `${before.supplier} does not answer. The order is sent; ask again, it will not be ordered twice`);
      }
    }
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  /** Takes a confirmation that says otherwise than was ordered, as it is, or takes those lines off. */
  async settle(id: string, asConfirmed: boolean): Promise<OrderView> {
    await this.#lock(id, async (client, order) => {
      if (order.state !== 'differs') throw new ProblemError(409, 'This order was settled before');
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
    if (order.state !== 'confirmed') throw new ProblemError(409, 'Only an order that is confirmed can be delivered');
    await this.supplier.deliver(
      id,
      order.lines.map((line) => ({ ...line, left: line.quantity - line.received })),
    );
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  /** Takes in what came: the right number onto the shelf and kept for its job; another number goes back. */
  async goodsIn(id: string, { id: noteId, lines }: GoodsInBody, person: PersonView): Promise<OrderView> {
    await this.#lock(id, async (client, order) => {
      const { rowCount } = await client.query(
        'INSERT INTO goods_in (id, order_id, lines, person_id) VALUES ($1, $2, $3, $4) ON CONFLICT (id) DO NOTHING',
        [noteId, id, JSON.stringify(lines), person.id],
      );
      if (rowCount === 0) return;
      if (order.state !== 'confirmed') throw new ProblemError(409, 'Only an order that is confirmed can come in');
      for (const [index, { lineId, number, quantity }] of lines.entries()) {
        const line = order.lines.find((one) => one.id === lineId);
        if (!line) throw badInput([{ field: `lines[${index}].lineId`, given: lineId, allowed: 'is not a line of this order' }]);
        if (quantity === 0) continue;
        if (number.trim() !== line.number) {
          await client.query('UPDATE part_order_line SET returned = returned + $2 WHERE id = $1', [lineId, quantity]);
          continue;
        }
        if (line.received + quantity > line.quantity)
          throw badInput([
            {
              field: `lines[${index}].quantity`,
              given: String(quantity),
              allowed: `must be at most ${line.quantity - line.received}: no more were ordered`,
            },
          ]);
        const item = await this.stores.lineOf(client, line.number, line.name, line.priceMinor);
        await this.stores.receive(client, item, quantity, line.jobId, `order ${order.number}, ${order.supplier}`, person.id);
        await client.query('UPDATE part_order_line SET received = received + $2 WHERE id = $1', [lineId, quantity]);
      }
      await client.query("UPDATE supplier_order SET notes = '[]' WHERE reference = $1", [id]);
      await client.query(
        "UPDATE part_order SET state = 'delivered' WHERE id = $1 AND NOT EXISTS (SELECT 1 FROM part_order_line WHERE order_id = $1 AND received < quantity)",
        [id],
      );
    });
    const order = await this.one(id);
    await this.#releaseJobs(order, person);
    this.stream.tell({ type: 'stores' });
    return order;
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
  async #holdJobs(order: OrderView, person: PersonView): Promise<void> {
    for (const jobId of jobsOf(order)) {
      const { rows } = await poolOf(this.dataSource).query<{ held: boolean }>(
        'SELECT hold IS NOT NULL OR closed_at IS NOT NULL AS held FROM job WHERE id = $1',
        [jobId],
      );
      if (rows[0]?.held) continue;
      await this.#post(jobId, person, { kind: 'hold', payload: { reason: 'parts', words: `Order ${order.number}, ${order.supplier}` } });
    }
  }

  /** A job of which nothing is on order any more, and that waits for parts, goes on. */
  async #releaseJobs(order: OrderView, person: PersonView): Promise<void> {
    for (const jobId of jobsOf(order)) {
      const { rows } = await poolOf(this.dataSource).query<{ free: boolean }>(
        `SELECT j.hold->>'reason' = 'parts' AND j.closed_at IS NULL AND NOT EXISTS (SELECT 1 FROM part_order_line l JOIN part_order o ON o.id = l.order_id
           WHERE l.job_id = j.id AND l.received < l.quantity) AS free FROM job j WHERE j.id = $1`,
        [jobId],
      );
      if (rows[0]?.free) await this.#post(jobId, person, { kind: 'hold-off', payload: { words: 'All parts are here' } });
    }
  }

  async #post(jobId: string, person: PersonView, entry: { kind: 'hold' | 'hold-off'; payload: object }): Promise<void> {
    await this.entries.post(jobId, person, [{ ...entry, id: uuid(), takenAt: new Date().toISOString() }]);
  }
}

function jobsOf({ lines }: OrderView): readonly string[] {
  return [...new Set(lines.flatMap(({ jobId }) => (jobId === null ? [] : [jobId])))];
}
