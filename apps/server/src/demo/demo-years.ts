import type { NewEntry, PersonView, WayInLine } from '@jubb/book';
import { seeded } from '@jubb/core';
import { OVER_THE_COUNTER, instantIn } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import type { PoolClient } from 'pg';
import { from as copyInto } from 'pg-copy-streams';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Piscina } from 'piscina';
import { DataSource, type EntityManager } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { ask, inTransaction } from '../database/data-source.js';
import { Customer, Machine, SheetRevision, StockItem, ToolRow, Unit, WayIn } from '../database/entities/index.js';
import { EntriesService } from '../entries/entries.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { COPY_ENTRIES, DATE_JOBS, DATE_SHEETS, MANY_JOBS, MANY_MOVES, NUMBER_ON, TIES } from './demo.sql.js';
import { CUSTOMERS, WAYS_IN } from './demo-fleet.js';
import { ZONE } from './demo-known.js';
import { movesOf } from './demo-moves.js';
import type { LibrarySheet } from './demo-library.js';
import type { DemoPlan, Pictures, PlannedJob } from './demo-plan.js';
import { readPlayed, workshopOf } from './demo-played.js';
import { loadRest } from './demo-rest.js';
import type { FirstCount } from './demo-stores.js';
import type { DatedBatch, DatedTask, ShopKnown, WorkedJob } from './demo-worker.js';
import { promisedDay } from './demo-promise.js';

const DAY = 24 * 3600 * 1000;
const YEARS_MS = 730 * DAY;
const FIRST_NUMBER = 401;
/** So long ago the foreman wrote down what is in the way. */
const WRITTEN_MS = 200 * DAY;
const PROMISED_BY = '16:00';
/** So many jobs go to a thread, and to the database, at a time. */
const BATCH = 16;
const THREADS = 2;

/** The sheet of the same kind of unit, of another maker. */
const NEAREST = 'harrowmere-pg540-pto-gearbox';

/** What came off it so far: name, count, tray, and what was noticed. */
const OFF: readonly (readonly [name: string, count: number, tray: string, more?: object])[] = [
  ['Cover screws M8 × 25', 10, '1'],
  ['Breather', 1, '1', { condition: 'blocked' }],
  ['Cover', 1, 'shelf'],
  ['Input flange nut M20', 1, '2', { mark: 'paint line across nut and shaft' }],
  ['Input flange', 1, 'shelf', { mark: 'dot at the wide spline' }],
  ['Shims behind the bearing', 3, '3', { stack: 'input shaft' }],
  ['Taper roller bearing', 2, '3', { stack: 'input shaft', condition: 'one runs rough' }],
  ['Spacer', 1, '3', { stack: 'input shaft' }],
];

/** Called as it goes on: whoever waits for it hears that it does. */
export type Tell = (words: string) => void;

export interface Loading {
  readonly library: readonly LibrarySheet[];
  readonly staff: ReadonlyMap<string, PersonView>;
  readonly counts: readonly FirstCount[];
  readonly now: number;
  readonly pictures: Pictures;
  readonly tell: Tell;
}

/** A job of the plan with what the database knows it by. */
interface Numbered {
  readonly job: PlannedJob;
  readonly task: DatedTask;
  readonly unitId: string;
  readonly sheetRevisionId: string;
  readonly number: number;
}

/** Two years of a shop at once: as they were played, put on their days and chained in threads, and kept by the hundred. */
@Injectable()
export class DemoYears {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(EntriesService) private readonly entries: EntriesService,
  ) {}

  async load({ library, staff, counts, now, pictures, tell }: Loading): Promise<void> {
    const { manager } = this.dataSource;
    await ask(manager, DATE_SHEETS, new Date(now).toISOString());
    const { plan, earlySheets } = workshopOf(library, pictures);
    const played = await readPlayed();
    if (played.length !== plan.jobs.length)
      throw new Error(`Of the ${plan.jobs.length} jobs of the demo ${played.length} are played: ./jubb build does it anew`);
    const known: ShopKnown = {
      people: Object.fromEntries([...staff].map(([login, { id }]) => [login, id])),
      tools: byName((await manager.find(ToolRow, { select: { id: true, tag: true } })).map(({ id, tag }) => [tag, id])),
      shelf: byName((await manager.find(StockItem, { select: { id: true, number: true } })).map(({ id, number }) => [number, id])),
      zone: ZONE,
      now,
    };
    const unitIds = await this.#customers(plan);
    // Of several that were in force before, early jobs went by the last of them.
    const revisions = await manager.find(SheetRevision, {
      select: { id: true, key: true, revision: true, status: true },
      order: { revision: 'DESC' },
    });
    const revisionOf = (key: string, isEarly: boolean): string =>
      revisions.find((one) => one.key === key && one.status === (isEarly ? 'superseded' : 'approved'))!.id;
    const random = seeded(now);
    const numbered = plan.jobs.map((job, at): Numbered => {
      const { sheet } = plan.units[job.unit]!;
      const id = uuid({ random: Uint8Array.from({ length: 16 }, () => Math.floor(random() * 256)) });
      return {
        job,
        task: { job: { at: job.at, endedAgo: job.endedAgo }, id, played: played[at]! },
        unitId: unitIds[job.unit]!,
        sheetRevisionId: revisionOf(sheet, job.isEarly && earlySheets.has(sheet)),
        number: FIRST_NUMBER + at,
      };
    });
    await inTransaction(this.dataSource, async (within) => {
      const [ties] = await ask<{ off: string; tied: string }>(within, TIES);
      await within.query(`ALTER TABLE entry ${ties!.off}`);
      const worked = await dateAll(within, known, numbered, tell);
      await within.query(`ALTER TABLE entry ${ties!.tied}`);
      const takings = worked.flatMap((one) => one.takings);
      await ask(within, MANY_MOVES, JSON.stringify(movesOf(counts, takings, now - YEARS_MS - DAY, staff.get('perla')!.id)));
      await ask(within, NUMBER_ON);
      const byId = new Map(worked.map((one) => [one.id, one]));
      const kept = numbered.map(({ job, task }) => {
        const { name, customer } = plan.units[job.unit]!;
        return { plan: job, worked: byId.get(task.id)!, unit: name, phone: phoneOf(customer) };
      });
      await loadRest(within, kept, staff, now);
    });
    await this.#waysIn(plan, unitIds, staff.get('oswin')!.id, now);
    await this.#withoutSheet(staff.get('tova')!, unitIds, plan, now);
  }

  /** How one gets at some of the units, as the foreman wrote it down. */
  async #waysIn({ units }: DemoPlan, unitIds: readonly string[], editedBy: string, now: number): Promise<void> {
    const { manager } = this.dataSource;
    const machines = new Map(
      (await manager.find(Unit, { select: { id: true, machineId: true } })).map(({ id, machineId }) => [id, machineId]),
    );
    const ways = new Map<string, readonly WayInLine[]>();
    for (const [at, { machine, sheet, name }] of units.entries()) {
      const machineId = machines.get(unitIds[at]!)!;
      const known = ways.get(machineId) ?? [];
      if (machine === undefined || !WAYS_IN[sheet] || known.some(({ unit }) => unit === name)) continue;
      ways.set(machineId, [...known, ...WAYS_IN[sheet].map((line) => ({ ...line, unit: name }))]);
    }
    const editedAt = new Date(now - WRITTEN_MS);
    const rows = [...ways].map(([machineId, lines]) => ({ machineId, lines, version: 1, editedBy, editedAt }));
    await manager.insert(WayIn, rows);
  }

  /** A unit that nobody here has more of than a sheet that is begun: taken apart into the ledger. */
  async #withoutSheet(hand: PersonView, unitIds: readonly string[], { units }: DemoPlan, now: number): Promise<void> {
    const { manager } = this.dataSource;
    const { id: revisionId } = await manager.findOneByOrFail(SheetRevision, { status: 'draft' });
    const place = units.findLastIndex(({ machine, sheet }) => machine !== undefined && sheet === NEAREST);
    const { machine } = await manager.findOneOrFail(Unit, { where: { id: unitIds[place]! }, relations: { machine: { customer: true } } });
    const { id } = await this.jobs.bookIn(
      {
        id: uuid(),
        customer: { id: machine.customer.id, name: machine.customer.name },
        machine: { id: machine.id, name: machine.name, serial: machine.serial },
        unit: { name: 'Drive gearbox, other model', serial: 'RA3-0417' },
        sheetRevisionId: revisionId,
        complaint: 'Howls, and drips at the input.',
        promise: instantIn(ZONE, promisedDay(ZONE, now, 6), PROMISED_BY),
        estimateMinor: 52_000,
      },
      hand,
    );
    const cameOff = OFF.map(([name, count, tray, more = {}]) => ({ kind: 'came-off' as const, payload: { name, count, tray, ...more } }));
    const acts: readonly Pick<NewEntry, 'kind' | 'payload'>[] = [
      { kind: 'finding', payload: { text: 'Oil on the guard, plate unreadable', place: 'input side' } },
      { kind: 'stage', payload: { stage: 'strip' } },
      ...cameOff,
    ];
    const entries = acts.map((act, at): NewEntry => ({
      ...act,
      id: uuid(),
      takenAt: new Date(now - (acts.length - at) * 4 * 60_000).toISOString(),
    }));
    await this.entries.post(id, hand, entries);
    await ask(manager, DATE_JOBS);
  }

  async #customers({ machines, units }: DemoPlan): Promise<readonly string[]> {
    const { manager } = this.dataSource;
    const customers = CUSTOMERS.map((name, at) => ({ id: uuid(), name, phone: phoneOf(at) }));
    await manager.insert(Customer, customers);
    const rows = machines.map(({ customer, name, serial }) => ({ id: uuid(), customerId: customers[customer]!.id, name, serial }));
    // What came without its machine is kept together, by customer.
    const counter = customers.map(({ id }) => ({ id: uuid(), customerId: id, name: OVER_THE_COUNTER, serial: '' }));
    await manager.insert(Machine, [...rows, ...counter]);
    const made = units.map(({ customer, machine, name, serial }) => ({
      id: uuid(),
      machineId: (machine === undefined ? counter[customer] : rows[machine])!.id,
      name,
      serial,
    }));
    await manager.insert(Unit, made);
    return made.map(({ id }) => id);
  }
}

function byName(pairs: readonly (readonly [string, string])[]): Readonly<Record<string, string>> {
  return Object.fromEntries(pairs);
}

/** Of a customer by their place in the list. */
function phoneOf(customer: number): string {
  return `0555 ${String(141 + customer * 37).padStart(4, '0')}`;
}

/** What is known of a job once its entries are kept. */
type Kept = Omit<WorkedJob, 'rows'>;

/** Dates all jobs in threads, and keeps each batch when it is back. */
async function dateAll(manager: EntityManager, known: ShopKnown, numbered: readonly Numbered[], tell: Tell): Promise<readonly Kept[]> {
  const pool = new Piscina({
    filename: new URL('demo-worker.js', import.meta.url).href,
    minThreads: THREADS,
    maxThreads: THREADS,
    workerData: { known },
    resourceLimits: { maxYoungGenerationSizeMb: 128 },
  });
  const all: Kept[] = [];
  let keeping: Promise<void> = Promise.resolve();
  try {
    const batches = Array.from({ length: Math.ceil(numbered.length / BATCH) }, (_, at) => numbered.slice(at * BATCH, (at + 1) * BATCH));
    await Promise.all(
      batches.map(async (batch) => {
        const dated = (await pool.run(batch.map(({ task }) => task))) as DatedBatch;
        all.push(...dated.jobs);
        // One connection keeps them, one batch after the other.
        keeping = keeping.then(() => keepAll(manager, batch, dated, known.now));
        await keeping;
        tell(`${all.length} of ${numbered.length} jobs`);
      }),
    );
  } finally {
    await pool.destroy();
  }
  return all;
}

async function keepAll(manager: EntityManager, batch: readonly Numbered[], { jobs, text }: DatedBatch, now: number): Promise<void> {
  const heads = batch.map(({ job, number, unitId, sheetRevisionId }, at) => {
    const { id, stage, bookedAt, closedAt, lastSeq, lastHash } = jobs[at]!;
    const { complaint, estimateMinor, scope, promiseDays } = job;
    // What is open is promised from today on, so that it is late only where that is planned.
    const promise = instantIn(ZONE, promisedDay(ZONE, closedAt === null ? now : bookedAt, promiseDays), PROMISED_BY);
    return { id, number, unitId, sheetRevisionId, stage, complaint, promise, estimateMinor, scope, bookedAt, closedAt, lastSeq, lastHash };
  });
  await ask(manager, MANY_JOBS, JSON.stringify(heads));
  const client = (await manager.queryRunner!.connect()) as PoolClient;
  await pipeline(Readable.from([text]), client.query(copyInto(COPY_ENTRIES)));
}
