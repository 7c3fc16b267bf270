import { shopDay } from '../common/shop-day.js';
import type { SupplierOffer } from '@jubb/book';
import { daysOn, type SupplierFault } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound } from '../common/problem.js';
import { Supplier, SupplierItem, SupplierOrder, type DeliveryNote, type SupplierAnswer } from '../database/entities/index.js';

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

  async setFault(name: string, fault: SupplierFault): Promise<void> {
    const { affected } = await this.dataSource.manager.update(Supplier, { name, byHand: false }, { fault });
    if (!affected) throw notFound('supplier');
  }

  async #offer(supplier: string, number: string): Promise<SupplierOffer | undefined> {
    return (await this.dataSource.manager.findOneBy(SupplierItem, { supplier, number })) ?? undefined;
  }

  /** Takes an order. Throws `SupplierTimeout` when the answer gets lost on its way; the order is taken all the same. */
  async order(reference: string, supplier: string, lines: readonly Ordered[]): Promise<SupplierAnswer> {
    const known = await this.#answerTo(reference);
    if (known) return known;
    const { manager } = this.dataSource;
    const fault = (await manager.findOneBy(Supplier, { name: supplier }))?.fault ?? 'none';
    const answer: SupplierAnswer = { lines: await Promise.all(lines.map((line, index) => this.#confirm(supplier, line, index, fault))) };
    await manager.createQueryBuilder().insert().into(SupplierOrder).values({ reference, supplier, answer }).orIgnore().execute();
    if (fault === 'time-out') {
      await this.setFault(supplier, 'none');
      throw new SupplierTimeout('the supplier does not answer');
    }
    // Two that ordered under one reference at once get what was kept first.
    return (await this.#answerTo(reference)) ?? answer;
  }

  async #answerTo(reference: string): Promise<SupplierAnswer | undefined> {
    return (await this.dataSource.manager.findOneBy(SupplierOrder, { reference }))?.answer;
  }

  async #confirm(supplier: string, line: Ordered, index: number, fault: SupplierFault): Promise<SupplierAnswer['lines'][number]> {
    const offer = await this.#offer(supplier, line.number);
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
    const { manager } = this.dataSource;
    const order = await manager.findOne(SupplierOrder, { where: { reference }, relations: { from: true } });
    if (!order) throw notFound('order');
    const { fault } = order.from;
    const sent = open
      .filter(({ left }) => left > 0)
      .map(({ id, number, left }, index): DeliveryNote => {
        if (fault === 'wrong part' && index === 0) return { lineId: id, number: `${number}-L`, quantity: left };
        return { lineId: id, number, quantity: fault === 'part of it' ? Math.ceil(left / 2) : left };
      });
    const notes = fault === 'part of it' && sent.length > 1 ? sent.slice(0, -1) : sent;
    await manager.update(SupplierOrder, reference, { notes });
    if (fault === 'wrong part' || fault === 'part of it') await this.setFault(order.supplier, 'none');
  }
}

/** What each costs when so many are ordered. */
export function priceFor({ priceMinor, breaks }: Pick<SupplierOffer, 'priceMinor' | 'breaks'>, quantity: number): number {
  return breaks.filter(({ from }) => quantity >= from).reduce((least, step) => Math.min(least, step.priceMinor), priceMinor);
}
