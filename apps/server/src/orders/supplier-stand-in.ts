import { shopDay } from '../common/shop-day.js';
import type { SupplierOffer } from '@jubb/book';
import { daysOn, type SupplierFault } from '@jubb/sheet';
import type { SupplierView } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound } from '../common/problem.js';
import { poolOf } from '../database/data-source.js';

/** How the supplier answers an order: line by line what comes, at which price, and when. */
export interface SupplierAnswer {
  readonly lines: readonly {
    readonly lineId: string;
    readonly confirmed: number;
    readonly priceMinor: number;
    readonly due: string | null;
  }[];
}

export interface DeliveryNote {
  readonly lineId: string;
  readonly number: string;
  readonly quantity: number;
}

interface Ordered {
  readonly id: string;
  readonly number: string;
  readonly quantity: number;
}

export class SupplierTimeout extends Error {}

/**
 * Plays the suppliers: a catalogue with price breaks and lead times, orders by our reference, and
 * deliveries. It keeps its own books, as a supplier would: an order under a reference that it
 * knows is the same order, whatever became of its first answer.
 */
@Injectable()
export class SupplierStandIn {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  async list(): Promise<readonly SupplierView[]> {
    return this.dataSource.query(
      `SELECT s.name, s.fault, (SELECT count(*)::int FROM supplier_item i WHERE i.supplier = s.name) AS items FROM supplier s ORDER BY s.name`,
    );
  }

  async setFault(name: string, fault: SupplierFault): Promise<void> {
    const { rowCount } = await poolOf(this.dataSource).query('UPDATE supplier SET fault = $2 WHERE name = $1', [name, fault]);
    if (rowCount === 0) throw notFound('supplier');
  }

  async offer(supplier: string, number: string): Promise<SupplierOffer | undefined> {
    const [found] = await this.dataSource.query<SupplierOffer[]>(
      `SELECT supplier, number, name, price_minor AS "priceMinor", breaks, lead_days AS "leadDays", lead_spread AS "leadSpread", available,
       superseded_by AS "supersededBy" FROM supplier_item WHERE supplier = $1 AND number = $2`,
      [supplier, number],
    );
    return found;
  }

  /** Takes an order. Throws `SupplierTimeout` when the answer gets lost on its way; the order is taken all the same. */
  async order(reference: string, supplier: string, lines: readonly Ordered[]): Promise<SupplierAnswer> {
    const pool = poolOf(this.dataSource);
    const known = await this.#answerTo(reference);
    if (known) return known;
    const { rows } = await pool.query<{ fault: SupplierFault }>('SELECT fault FROM supplier WHERE name = $1', [supplier]);
    const fault = rows[0]?.fault ?? 'none';
    const answer: SupplierAnswer = { lines: await Promise.all(lines.map((line, index) => this.#confirm(supplier, line, index, fault))) };
    await pool.query('INSERT INTO supplier_order (reference, supplier, answer) VALUES ($1, $2, $3) ON CONFLICT (reference) DO NOTHING', [
      reference,
      supplier,
      answer,
    ]);
    if (fault === 'time-out') {
      await this.setFault(supplier, 'none');
      throw new SupplierTimeout('the supplier does not answer');
    }
    // Two that ordered under one reference at once get what was kept first.
    return (await this.#answerTo(reference)) ?? answer;
  }

  async #answerTo(reference: string): Promise<SupplierAnswer | undefined> {
    const { rows } = await poolOf(this.dataSource).query<{ answer: SupplierAnswer }>(
      'SELECT answer FROM supplier_order WHERE reference = $1',
      [reference],
    );
    return rows[0]?.answer;
  }

  async #confirm(supplier: string, line: Ordered, index: number, fault: SupplierFault): Promise<SupplierAnswer['lines'][number]> {
    const offer = await this.offer(supplier, line.number);
    const isGone = !offer?.available || (fault === 'sold out' && index === 0);
    const confirmed = isGone ? 0 : fault === 'other quantity' && index === 0 ? line.quantity + 1 : line.quantity;
    // The spread of the lead time, the same for the same line of the same order.
    const late = offer ? Number.parseInt(line.id.replaceAll('-', '').slice(-4), 16) % (offer.leadSpread + 1) : 0;
    const { zone } = await shopDay(this.dataSource);
    const due = isGone ? null : daysOn(zone, Date.now(), (offer?.leadDays ?? 0) + late);
    return { lineId: line.id, confirmed, priceMinor: offer ? priceFor(offer, line.quantity) : 0, due };
  }

  /** Lets the van come: all that is still owed, or what the fault makes of it. */
  async deliver(reference: string, open: readonly (Ordered & { readonly left: number })[]): Promise<void> {
    const pool = poolOf(this.dataSource);
    const { rows } = await pool.query<{ supplier: string; fault: SupplierFault }>(
      'SELECT o.supplier, s.fault FROM supplier_order o JOIN supplier s ON s.name = o.supplier WHERE o.reference = $1',
      [reference],
    );
    const [order] = rows;
    if (!order) throw notFound('order');
    const sent = open
      .filter(({ left }) => left > 0)
      .map(({ id, number, left }, index): DeliveryNote => {
        if (order.fault === 'wrong part' && index === 0) return { lineId: id, number: `${number}-L`, quantity: left };
        return { lineId: id, number, quantity: order.fault === 'part of it' ? Math.ceil(left / 2) : left };
      });
    const notes = order.fault === 'part of it' && sent.length > 1 ? sent.slice(0, -1) : sent;
    await pool.query('UPDATE supplier_order SET notes = $2 WHERE reference = $1', [reference, JSON.stringify(notes)]);
    if (order.fault === 'wrong part' || order.fault === 'part of it') await this.setFault(order.supplier, 'none');
  }
}

/** What each costs when so many are ordered. */
export function priceFor({ priceMinor, breaks }: Pick<SupplierOffer, 'priceMinor' | 'breaks'>, quantity: number): number {
  return breaks.filter(({ from }) => quantity >= from).reduce((least, step) => Math.min(least, step.priceMinor), priceMinor);
}
