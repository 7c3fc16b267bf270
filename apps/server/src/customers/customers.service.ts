import type { PersonView } from '@jubb/book';
import { OVER_THE_COUNTER, cutText } from '@jubb/sheet';
import { CustomerBody, customerFrom, type Cells, type CustomerJob, type CustomerLine, type CustomerView } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, ILike, In, type EntityManager } from 'typeorm';
import { keepChange } from '../common/changes.js';
import { badInput, changedSince, notFound } from '../common/problem.js';
import { checkRow } from '../common/validation.js';
import { anywhere, ask, inTransaction } from '../database/data-source.js';
import { Customer, Machine, Unit } from '../database/entities/index.js';
import { JobsService } from '../jobs/jobs.service.js';
import { QuotesService } from '../quotes/quotes.service.js';
import { StreamService } from '../stream/stream.service.js';
import { FOUND, JOBS_OF, LATELY, OPEN_OF } from './customers.sql.js';

/** What the list of changes says of a field of somebody's: that it was changed, and not what it was. */
const KEPT_BACK = '…';

@Injectable()
export class CustomersService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(QuotesService) private readonly quotes: QuotesService,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** By a piece of a name, a telephone number or a serial; without one, those that were here lately. */
  async list(find: string): Promise<readonly CustomerLine[]> {
    const { manager } = this.dataSource;
    const text = find.trim();
    const found = await (text === ''
      ? ask<{ id: string }>(manager, LATELY)
      : ask<{ id: string }>(manager, FOUND, anywhere(cutText(text, 100))));
    return (await this.#rows(found.map(({ id }) => id))).map(lineOf);
  }

  async one(id: string): Promise<CustomerView> {
    const [[customer], owed, jobs, quotes] = await Promise.all([
      this.#rows([id]),
      this.jobs.owedBy(id),
      ask<CustomerJob>(this.dataSource.manager, JOBS_OF, id),
      this.quotes.ofCustomer(id),
    ]);
    if (!customer) throw notFound('customer');
    const { email, address, version } = customer;
    return { ...lineOf(customer), email, address, version, owed, jobs, quotes };
  }

  /** What they are called and reached by. */
  async change(id: string, { version, ...body }: CustomerBody, by: PersonView): Promise<CustomerView> {
    await inTransaction(this.dataSource, async (manager) => {
      const before = await manager.findOne(Customer, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!before) throw notFound('customer');
      if (before.version !== version) throw changedSince('customer', await this.one(id));
      const after = { name: body.name.trim(), phone: plain(body.phone), email: plain(body.email), address: plain(body.address) };
      const fields = (['name', 'phone', 'email', 'address'] as const).filter((field) => before[field] !== after[field]);
      if (fields.length === 0) return;
      await manager.update(Customer, id, { ...after, version: version + 1 });
      await this.#changed(manager, by, id, 'changed', fields);
    });
    return this.#told(id, id);
  }

  /** A row of a table as a customer, by their name, and a machine of theirs; what it leaves empty stays. */
  async bring(manager: EntityManager, cells: Cells, by: PersonView): Promise<'made' | 'changed' | 'same'> {
    const name = (cells['name'] ?? '').trim();
    const known = await manager.find(Customer, { where: { name: ILike(escaped(name)) }, lock: { mode: 'pessimistic_write' } });
    if (known.length > 1)
      throw badInput([{ field: 'name', given: name, allowed: `is what ${known.length} of them are called: change them on their pages` }]);
    const [before] = known;
    const { body, machine, wrongs } = customerFrom(cells, before);
    checkRow(CustomerBody, body, wrongs);
    // They are known by their name, large or small: another one is given on their page.
    const row = { name: before?.name ?? name, phone: plain(body.phone), email: plain(body.email), address: plain(body.address) };
    const fields = before ? (['phone', 'email', 'address'] as const).filter((field) => before[field] !== row[field]) : [];
    const id = before?.id ?? String((await manager.insert(Customer, row)).identifiers[0]!['id']);
    if (fields.length > 0) await manager.update(Customer, id, { ...row, version: before!.version + 1 });
    if (!before || fields.length > 0) await this.#changed(manager, by, id, before ? 'changed' : 'added', fields);
    const isMachineNew = machine !== undefined && (await this.#bringMachine(manager, id, machine));
    return !before ? 'made' : fields.length > 0 || isMachineNew ? 'changed' : 'same';
  }

  /** Whether it is a new one here; refuses what is somebody else's. */
  async #bringMachine(manager: EntityManager, customerId: string, { name, serial }: { name: string; serial: string }): Promise<boolean> {
    const there = await manager.findBy(Machine, serial === '' ? { name, customerId } : { serial });
    if (there.some((machine) => machine.customerId === customerId)) return false;
    if (there.length > 0)
      throw badInput([{ field: 'serial', given: serial, allowed: 'is on a machine of somebody else’s: it changes hands on their page' }]);
    await manager.insert(Machine, { customerId, name, serial });
    return true;
  }

  /** Two that are one: machines, units and all that was done go to the one that stays. */
  async merge(id: string, into: string, by: PersonView): Promise<CustomerView> {
    if (id === into) throw badInput([{ field: 'into', given: into, allowed: 'is the same one' }]);
    await inTransaction(this.dataSource, async (manager) => {
      // In one order, whoever asks: two foremen who merge crosswise wait for one another.
      const both = await manager.find(Customer, {
        where: { id: In([id, into]) },
        order: { id: 'ASC' },
        lock: { mode: 'pessimistic_write' },
      });
      if (both.length < 2) throw notFound('customer');
      const [from, to] = [both.find((one) => one.id === id)!, both.find((one) => one.id === into)!];
      await this.#counterMoves(manager, id, into);
      await manager.update(Machine, { customerId: id }, { customerId: into });
      // What only the other knew is kept.
      await manager.update(Customer, into, {
        phone: to.phone ?? from.phone,
        email: to.email ?? from.email,
        address: to.address ?? from.address,
        version: to.version + 1,
      });
      await manager.delete(Customer, id);
      await this.#changed(manager, by, into, 'merged with another', []);
    });
    return this.#told(into, into);
  }

  /** What says who they are is taken away, with the letters to them and theirs; what was done on their units stays. */
  async nameless(id: string, by: PersonView): Promise<CustomerView> {
    await inTransaction(this.dataSource, async (manager) => {
      const { affected } = await manager.update(Customer, id, {
        name: `Nameless ${id.slice(0, 8)}`,
        phone: null,
        email: null,
        address: null,
        version: () => 'version + 1',
      });
      if (!affected) throw notFound('customer');
      await this.quotes.makeNameless(manager, id);
      await this.#changed(manager, by, id, 'made nameless', []);
    });
    return this.#told(id, id);
  }

  /** A machine is somebody else's from now on, with its units and all that was done on them. */
  async owner(machineId: string, customerId: string, by: PersonView): Promise<CustomerView> {
    await inTransaction(this.dataSource, async (manager) => {
      const machine = await manager.findOne(Machine, { where: { id: machineId }, lock: { mode: 'pessimistic_write' } });
      if (!machine) throw notFound('machine');
      if (machine.name === OVER_THE_COUNTER)
        throw badInput([{ field: 'customerId', given: machine.name, allowed: 'is no machine: move its units' }]);
      await there(manager, Customer, customerId, 'customerId', 'customer');
      await manager.update(Machine, machineId, { customerId });
      await keepChange(manager, by, { what: 'machine', subject: machine.name, act: 'has another owner' }, []);
    });
    return this.#told(customerId, machineId);
  }

  /** A unit is in another machine from now on. */
  async placed(unitId: string, machineId: string, by: PersonView): Promise<CustomerView> {
    const customerId = await inTransaction(this.dataSource, async (manager) => {
      const unit = await manager.findOne(Unit, { where: { id: unitId }, lock: { mode: 'pessimistic_write' } });
      if (!unit) throw notFound('unit');
      const machine = await there(manager, Machine, machineId, 'machineId', 'machine');
      await manager.update(Unit, unitId, { machineId });
      await keepChange(manager, by, { what: 'unit', subject: `${unit.name} ${unit.serial}`.trim(), act: `is in ${machine.name}` }, []);
      return machine.customerId;
    });
    return this.#told(customerId, unitId);
  }

  #rows(ids: readonly string[]): Promise<Customer[]> {
    return this.dataSource.manager.find(Customer, {
      where: { id: In(ids) },
      relations: { machines: { units: true } },
      order: { name: 'ASC', machines: { name: 'ASC', units: { name: 'ASC' } } },
    });
  }

  /** What came over the counter is no machine of its own: its units go to where the other's lie. */
  async #counterMoves(manager: EntityManager, id: string, into: string): Promise<void> {
    const [own, other] = await Promise.all(
      [id, into].map((customerId) => manager.findOneBy(Machine, { customerId, name: OVER_THE_COUNTER, serial: '' })),
    );
    if (!own || !other) return;
    await manager.update(Unit, { machineId: own.id }, { machineId: other.id });
    await manager.delete(Machine, own.id);
  }

  /** The list of changes is for whoever runs the shop: it says that something of somebody was changed, and keeps no copy of it. */
  async #changed(manager: EntityManager, by: PersonView, id: string, act: string, fields: readonly string[]): Promise<void> {
    const said = fields.map((field) => ({ field, before: KEPT_BACK, after: KEPT_BACK }));
    await keepChange(manager, by, { what: 'customer', subject: `customer ${id.slice(0, 8)}`, act }, said);
  }

  /** Every page that shows an open job of it asks for that anew. */
  async #told(customerId: string, moved: string): Promise<CustomerView> {
    const open = await ask<{ id: string }>(this.dataSource.manager, OPEN_OF, moved);
    for (const { id } of open) this.stream.tell({ type: 'job', jobId: id });
    return this.one(customerId);
  }
}

/** A name as it stands, and no pattern. */
const escaped = (name: string): string => name.replaceAll(/[\\%_]/gu, String.raw`\$&`);

const plain = (text: string | undefined): string | null => text?.trim() || null;

async function there<T extends { id: string }>(
  manager: EntityManager,
  type: new () => T,
  id: string,
  field: string,
  what: string,
): Promise<T> {
  const row = await manager.findOneBy(type, { id } as never);
  if (!row) throw badInput([{ field, given: id, allowed: `is no ${what} of this shop` }]);
  return row;
}

function lineOf({ id, name, phone, machines }: Customer): CustomerLine {
  return {
    id,
    name,
    phone,
    machines: machines.map((machine) => ({
      id: machine.id,
      name: machine.name,
      serial: machine.serial,
      units: machine.units.map((unit) => ({ id: unit.id, name: unit.name, serial: unit.serial })),
    })),
  };
}
