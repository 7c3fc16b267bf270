import { whoWords, type Bench, type PersonView } from '@jubb/book';
import { BenchBody, benchFrom, type BenchChangeBody, type Cells, type FieldProblem } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, In, IsNull, type EntityManager } from 'typeorm';
import { changedFields, keepChange, type InWords } from '../common/changes.js';
import { hoursFrom, hoursInWords } from '../common/hours.js';
import { badInput, changedSince, notFound } from '../common/problem.js';
import { checkRow } from '../common/validation.js';
import { inTransaction } from '../database/data-source.js';
import { BenchRow, Job, JobBench, Person } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';

@Injectable()
export class BenchesService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** All of them, by kind and name, with the open jobs that stand there. */
  async all(manager: EntityManager = this.dataSource.manager): Promise<readonly Bench[]> {
    const [rows, standing] = await Promise.all([
      manager.find(BenchRow, { relations: { who: true }, order: { kind: 'ASC', name: 'ASC' } }),
      manager.find(JobBench, {
        where: { job: { closedAt: IsNull() } },
        relations: { job: { unit: true } },
        select: { jobId: true, benchId: true, job: { id: true, number: true, unit: { id: true, name: true } } },
        order: { since: 'ASC' },
      }),
    ]);
    return rows.map((row) => viewOf(row, standing));
  }

  async one(id: string): Promise<Bench> {
    const bench = (await this.all()).find((one) => one.id === id);
    if (!bench) throw notFound('bench');
    return bench;
  }

  async add(body: BenchBody, by: PersonView): Promise<Bench> {
    const id = await inTransaction(this.dataSource, (manager) => this.#put(manager, body, by));
    return this.#told(id);
  }

  async #put(manager: EntityManager, body: BenchBody, by: PersonView): Promise<string> {
    const row = await rowOf(manager, body);
    const { id } = await manager.save(BenchRow, row);
    await keepChange(manager, by, { what: 'place', subject: row.name, act: 'added' }, changedFields({}, inWords(row)));
    return id;
  }

  async change(id: string, { version, ...body }: BenchChangeBody, by: PersonView): Promise<Bench> {
    await inTransaction(this.dataSource, async (manager) => {
      const before = await lock(manager, { id });
      if (!before) throw notFound('bench');
      if (before.version !== version) throw changedSince('bench', await this.one(id));
      await this.#mend(manager, before, body, by);
    });
    return this.#told(id);
  }

  /** Whether something is other than before. */
  async #mend(manager: EntityManager, before: BenchRow, body: BenchBody, by: PersonView): Promise<boolean> {
    const row = await rowOf(manager, body, before.id);
    const fields = changedFields(inWords(before), inWords(row));
    if (fields.length === 0) return false;
    await manager.save(BenchRow, { ...row, id: before.id, version: before.version + 1 });
    await keepChange(manager, by, { what: 'place', subject: row.name, act: 'changed' }, fields);
    return true;
  }

  /** A row of a table as a bench: a new one, or the one of its name, mended by what the row says. */
  async bring(manager: EntityManager, cells: Cells, by: PersonView): Promise<'made' | 'changed' | 'same'> {
    const before = await lock(manager, { name: (cells['name'] ?? '').trim() });
    const { body, wrongs, logins } = benchFrom(cells, before ? bodyOf(before) : undefined);
    const people = await manager.findBy(Person, { login: In(logins) });
    const unknown = logins.filter((login) => !people.some((one) => one.login === login));
    const others: readonly FieldProblem[] = unknown.map((given) => ({ field: 'who', given, allowed: 'is no log-in of anybody here' }));
    if (logins.length > 0) body.who = people.map(({ id }) => id);
    checkRow(BenchBody, body, [...wrongs, ...others]);
    if (!before) {
      await this.#put(manager, body, by);
      return 'made';
    }
    return (await this.#mend(manager, before, body, by)) ? 'changed' : 'same';
  }

  async drop(id: string, by: PersonView): Promise<void> {
    await inTransaction(this.dataSource, async (manager) => {
      const before = await lock(manager, { id });
      if (!before) throw notFound('bench');
      await manager.delete(BenchRow, id);
      await keepChange(manager, by, { what: 'place', subject: before.name, act: 'taken off' }, changedFields(inWords(before), {}));
    });
    this.tell();
  }

  /** The unit of a job stands at a bench from now on, or at none. */
  async stand(jobId: string, benchId: string | null): Promise<readonly Bench[]> {
    await inTransaction(this.dataSource, async (manager) => {
      const job = await manager.findOneBy(Job, { id: jobId });
      if (!job) throw notFound('job');
      if (job.closedAt !== null && benchId !== null)
        throw badInput([{ field: 'benchId', given: benchId, allowed: 'cannot hold it: the job was handed over' }]);
      if (benchId !== null && !(await manager.existsBy(BenchRow, { id: benchId })))
        throw badInput([{ field: 'benchId', given: benchId, allowed: 'is none of the shop’s benches' }]);
      await manager.delete(JobBench, { jobId });
      if (benchId !== null) await manager.insert(JobBench, { jobId, benchId });
    });
    this.tell();
    return this.all();
  }

  tell(): void {
    this.stream.tell({ type: 'benches' });
  }

  #told(id: string): Promise<Bench> {
    this.tell();
    return this.one(id);
  }
}

function viewOf({ id, name, kind, hours, out, version, who }: BenchRow, standing: readonly JobBench[]): Bench {
  return {
    ...{ id, name, kind, hours, out, version },
    who: byName(who).map((one) => ({ id: one.id, name: one.name })),
    jobs: standing.filter(({ benchId }) => benchId === id).map(({ job }) => ({ id: job.id, number: job.number, unit: job.unit.name })),
  };
}

const byName = (people: readonly Person[]): readonly Person[] => people.toSorted((one, other) => one.name.localeCompare(other.name, 'en'));

type Row = Pick<BenchRow, 'name' | 'kind' | 'hours' | 'out' | 'who'>;

/** As it is kept; refuses a name that another has, hours that cannot be, and somebody who does not work here. */
async function rowOf(manager: EntityManager, { name, kind, who, week, closed, out }: BenchBody, id?: string): Promise<Row> {
  const other = await manager.findOneBy(BenchRow, { name: name.trim() });
  if (other && other.id !== id) throw badInput([{ field: 'name', given: name, allowed: 'is the name of another' }]);
  if (week.length > 0 && week.length < 7)
    throw badInput([{ field: 'week', given: `${week.length} days`, allowed: 'must be the seven days of a week, or none' }]);
  const people = await manager.findBy(Person, { id: In(who) });
  const unknown = who.findIndex((one) => !people.some((person) => person.id === one.toLowerCase()));
  if (unknown >= 0) throw badInput([{ field: `who[${unknown}]`, given: who[unknown]!, allowed: 'is nobody who works here' }]);
  return { name: name.trim(), kind, hours: week.length === 0 ? null : hoursFrom(week, closed), out: out?.trim() || null, who: people };
}

/** As its form has it. */
function bodyOf({ name, kind, hours, out, who }: BenchRow): BenchBody {
  return {
    ...{ name, kind, who: who.map(({ id }) => id) },
    week: (hours?.week ?? []).map((open) => open ?? { from: '', to: '' }),
    closed: [...(hours?.closed ?? [])],
    ...(out === null ? {} : { out }),
  };
}

/** Held for the transaction: of two who change it at once, one does. */
async function lock(manager: EntityManager, where: { readonly id: string } | { readonly name: string }): Promise<BenchRow | null> {
  const row = await manager.findOne(BenchRow, { where, lock: { mode: 'pessimistic_write' } });
  return row && manager.findOne(BenchRow, { where: { id: row.id }, relations: { who: true } });
}

function inWords({ name, kind, hours, out, who }: Row): InWords {
  const open = hours ? hoursInWords(hours) : { open: 'as the shop' };
  return { name, kind, 'used by': whoWords({ who: byName(who) }), ...open, 'out of use': out ?? '' };
}
