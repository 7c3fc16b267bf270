import type { PersonView, SupplierOffer } from '@jubb/book';
import {
  priceFrom,
  type Cells,
  type OfferBody,
  type SupplierBody,
  type SupplierChangeBody,
  type SupplierView,
  type WantedLine,
} from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { changedFields, keepChange, type InWords } from '../common/changes.js';
import { badInput, changedSince, notFound } from '../common/problem.js';
import { inTransaction } from '../database/data-source.js';
import { Supplier, SupplierItem } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';

/** Whom the shop orders from, and what is known of their catalogues. */
@Injectable()
export class SuppliersService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  async list(): Promise<readonly SupplierView[]> {
    const { manager } = this.dataSource;
    const suppliers = await manager.find(Supplier, { order: { isGone: 'ASC', name: 'ASC' } });
    return Promise.all(suppliers.map((supplier) => viewOf(manager, supplier)));
  }

  async add({ name, ...reached }: SupplierBody, by: PersonView): Promise<SupplierView> {
    return this.#told(async (manager) => {
      const supplier = { name: name.trim(), byHand: true, ...fieldsOf(reached) };
      const made = await manager.createQueryBuilder().insert().into(Supplier).values(supplier).orIgnore().returning('name').execute();
      // Of two who put in the same one at once, the second finds it there.
      if ((made.raw as readonly unknown[]).length === 0)
        throw badInput([{ field: 'name', given: name, allowed: 'is there already: add a place or a street to it' }]);
      await keepChange(manager, by, { what: 'supplier', subject: supplier.name, act: 'added' }, changedFields({}, inWords(supplier)));
      return viewOf(manager, await manager.findOneByOrFail(Supplier, { name: supplier.name }));
    });
  }

  async change(name: string, { version, isGone, ...reached }: SupplierChangeBody, by: PersonView): Promise<SupplierView> {
    return this.#told(async (manager) => {
      const before = await lock(manager, name);
      if (before.version !== version) throw changedSince('supplier', await viewOf(manager, before));
      const after = { ...fieldsOf(reached), isGone, version: version + 1 };
      await manager.update(Supplier, name, after);
      // What is known of their catalogue takes as long as they do.
      if (after.leadDays !== before.leadDays) await manager.update(SupplierItem, { supplier: name }, { leadDays: after.leadDays });
      const act = before.isGone === isGone ? 'changed' : isGone ? 'no more orders' : 'is back';
      const fields = changedFields(inWords(before), inWords({ ...before, ...after }));
      if (fields.length > 0 || act !== 'changed') await keepChange(manager, by, { what: 'supplier', subject: name, act }, fields);
      return viewOf(manager, await manager.findOneByOrFail(Supplier, { name }));
    });
  }

  async catalogue(name: string): Promise<readonly SupplierOffer[]> {
    const { manager } = this.dataSource;
    if (!(await manager.existsBy(Supplier, { name }))) throw notFound('supplier');
    return catalogueOf(manager, name);
  }

  async keepOffer(name: string, offer: OfferBody): Promise<readonly SupplierOffer[]> {
    return this.#told(async (manager) => {
      await putOffer(manager, await lock(manager, name), offer);
      return catalogueOf(manager, name);
    });
  }

  async dropOffer(name: string, number: string): Promise<readonly SupplierOffer[]> {
    return this.#told(async (manager) => {
      const { affected } = await manager.delete(SupplierItem, { supplier: (await lock(manager, name)).name, number });
      if (!affected) throw notFound('line');
      return catalogueOf(manager, name);
    });
  }

  /** What a supplier has of a number; of one by hand also what is said of it as it is ordered, which is kept. */
  async offered(manager: EntityManager, { supplier, name, priceMinor, ...line }: WantedLine, field: string): Promise<SupplierOffer> {
    const number = line.number.trim();
    const from = await manager.findOneBy(Supplier, { name: supplier });
    if (from?.isGone)
      throw badInput([{ field: `${field}.supplier`, given: supplier, allowed: 'is one where nothing is ordered any more' }]);
    const known = await manager.findOneBy(SupplierItem, { supplier, number });
    if (!from?.byHand) {
      if (known) return known;
      throw badInput([{ field: `${field}.number`, given: number, allowed: `is not in the catalogue of ${supplier}` }]);
    }
    if (known && priceMinor === undefined) return known;
    if (priceMinor === undefined)
      throw badInput([{ field: `${field}.priceMinor`, allowed: `is missing: what does one cost at ${supplier}?` }]);
    const called = name ?? known?.name;
    if (called === undefined) throw badInput([{ field: `${field}.name`, allowed: 'is missing: what is it?' }]);
    await putOffer(manager, from, { number, name: called, priceMinor });
    return manager.findOneByOrFail(SupplierItem, { supplier, number });
  }

  /** A row of a list of prices. */
  async bring(manager: EntityManager, cells: Cells): Promise<'made' | 'changed' | 'same'> {
    const { supplier, body, wrongs } = priceFrom(cells);
    if (wrongs.length > 0) throw badInput(wrongs);
    const from = await manager.findOneBy(Supplier, { name: supplier, byHand: true });
    if (!from) throw badInput([{ field: 'supplier', given: supplier, allowed: 'is none of the shop’s suppliers: put them in first' }]);
    const before = await manager.findOneBy(SupplierItem, { supplier, number: body.number });
    const offer = { ...body, name: body.name || (before?.name ?? '') };
    if (offer.name === '') throw badInput([{ field: 'name', allowed: 'is missing: what is it?' }]);
    if (before?.name === offer.name && before.priceMinor === offer.priceMinor) return 'same';
    await putOffer(manager, from, offer);
    return before ? 'changed' : 'made';
  }

  async #told<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    const done = await inTransaction(this.dataSource, work);
    this.stream.tell({ type: 'stores' });
    return done;
  }
}

/** One of the shop's own; the stand-in's books are its own. */
async function lock(manager: EntityManager, name: string): Promise<Supplier> {
  const supplier = await manager.findOne(Supplier, { where: { name, byHand: true }, lock: { mode: 'pessimistic_write' } });
  if (!supplier) throw notFound('supplier');
  return supplier;
}

async function putOffer(
  manager: EntityManager,
  { name: supplier, leadDays }: Supplier,
  { number, name, priceMinor }: OfferBody,
): Promise<void> {
  const offer = { supplier, number: number.trim(), name: name.trim(), priceMinor, leadDays, leadSpread: 0, available: true };
  await manager.upsert(SupplierItem, offer, ['supplier', 'number']);
}

function catalogueOf(manager: EntityManager, supplier: string): Promise<readonly SupplierOffer[]> {
  return manager.find(SupplierItem, { where: { supplier }, order: { number: 'ASC' }, take: 2000 });
}

async function viewOf(manager: EntityManager, supplier: Supplier): Promise<SupplierView> {
  const { name, fault, byHand, email, phone, account, leadDays, isGone, version } = supplier;
  const items = await manager.countBy(SupplierItem, { supplier: name });
  return { name, fault, items, byHand, email, phone, account, leadDays, isGone, version };
}

type Reached = Pick<SupplierBody, 'email' | 'phone' | 'account' | 'leadDays'>;

function fieldsOf({ email, phone, account, leadDays }: Reached): Pick<Supplier, 'email' | 'phone' | 'account' | 'leadDays'> {
  const said = (text: string | undefined): string | null => text?.trim() || null;
  return { email: said(email), phone: said(phone), account: said(account), leadDays };
}

function inWords({ email, phone, account, leadDays }: Pick<Supplier, 'email' | 'phone' | 'account' | 'leadDays'>): InWords {
  return { 'e-mail': email ?? '', telephone: phone ?? '', 'our number': account ?? '', days: String(leadDays) };
}
