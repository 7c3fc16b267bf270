import type { NewEntry, PersonView, WayInLine } from '@jubb/book';
import { seeded } from '@jubb/core';
import { OVER_THE_COUNTER, instantIn } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import { Piscina } from 'piscina';
import { DataSource, type EntityManager } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { ask, inTransaction } from '../database/data-source.js';
import { Customer, Machine, SheetRevision, StockItem, Unit, WayIn } from '../database/entities/index.js';
import { EntriesService } from '../entries/entries.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { DATE_JOBS, DATE_SHEETS, MANY_ENTRIES, MANY_JOBS, MANY_MOVES, NUMBER_ON } from './demo.sql.js';
import { CUSTOMERS, WAYS_IN } from './demo-fleet.js';
import { ZONE } from './demo-known.js';
import { movesOf } from './demo-moves.js';
import { planShop, type DemoPlan, type Pictures, type PlannedJob } from './demo-plan.js';
import { loadRest } from './demo-rest.js';
import type { FirstCount } from './demo-stores.js';
import type { ShopKnown, WorkTask, WorkedJob } from './demo-worker.js';
import type { Crew } from './demo-work.js';
import { promisedDay } from './shop-hours.js';

const DAY = 24 * 3600 * 1000;
const YEARS_MS = 730 * DAY;
const FIRST_NUMBER = 401;
/** So long ago the foreman wrote down what is in the way. */
const WRITTEN_MS = 200 * DAY;
const PROMISED_BY = '16:00';
/** So many jobs go to a thread, and to the database, at a time. */
const BATCH = 16;
const THREADS = 2;

/** A model that has no sheet here yet: its family is known, and nobody's figures. */
const NEW_MODEL = { family: 'PTO gearbox', make: 'Quennet', model: 'RA 3', machine: 'Snow blower' };

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
  readonly staff: ReadonlyMap<string, PersonView>;
  readonly counts: readonly FirstCount[];
  readonly now: number;
  readonly pictures: Pictures;
  readonly tell: Tell;
}

/** A job of the plan with what the database knows it by. */
interface Numbered {
  readonly job: PlannedJob;
  readonly task: WorkTask;
  readonly unitId: string;
  readonly sheetRevisionId: string;
  readonly number: number;
}

/** Two years of a shop at once: worked in threads, chained there, and kept by the hundred. */
@Injectable()
export class DemoYears {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(EntriesService) private readonly entries: EntriesService,
  ) {}

  async load({ staff, counts, now, pictures, tell }: Loading): Promise<void> {
    const { manager } = this.dataSource;
    await ask(manager, DATE_SHEETS, new Date(now).toISOString());
    const revisions = await manager.find(SheetRevision, { select: { id: true, key: true, revision: true, status: true, file: true } });
    const early = revisions.filter(({ status }) => status === 'superseded').toSorted((a, b) => b.revision - a.revision);
    const shelf = await manager.find(StockItem, { select: { id: true, number: true } });
    const known: ShopKnown = {
      sheets: Object.fromEntries(revisions.flatMap(({ key, status, file }) => (status === 'approved' ? [[key, file]] : []))),
      earlySheets: Object.fromEntries(early.toReversed().map(({ key, file }) => [key, file])),
      tools: await this.jobs.tools(),
      shelf: Object.fromEntries(shelf.map(({ number, id }) => [number, id])),
      zone: ZONE,
      now,
    };
    const plan = planShop(new Map(Object.entries(known.sheets)), pictures);
    const unitIds = await this.#customers(plan);
    const revisionOf = (key: string, isEarly: boolean): string =>
      (early.find((one) => isEarly && one.key === key) ?? revisions.find((one) => one.key === key && one.status === 'approved')!).id;
    const random = seeded(now);
    const numbered = plan.jobs.map((job, at): Numbered => {
      const { sheet } = plan.units[job.unit]!;
      const isEarly = job.isEarly && known.earlySheets[sheet] !== undefined;
      return {
        job,
        task: {
          job: { ...job, isEarly },
          id: uuid({ random: Uint8Array.from({ length: 16 }, () => Math.floor(random() * 256)) }),
          sheet,
          crew: crewOf(job, staff),
        },
        unitId: unitIds[job.unit]!,
        sheetRevisionId: revisionOf(sheet, isEarly),
        number: FIRST_NUMBER + at,
      };
    });
    await inTransaction(this.dataSource, async (within) => {
      const worked = await workAll(within, known, numbered, tell);
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

  /** A unit that nobody here has a sheet of: taken apart into the ledger, while its sheet is begun. */
  async #withoutSheet(hand: PersonView, unitIds: readonly string[], { units }: DemoPlan, now: number): Promise<void> {
    const { manager } = this.dataSource;
    const { revisionId } = await this.sheets.begin(NEW_MODEL, hand.id);
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

/** Of a customer by their place in the list. */
function phoneOf(customer: number): string {
  return `0555 ${String(141 + customer * 37).padStart(4, '0')}`;
}

/** What is known of a job once its entries are kept. */
type Kept = Omit<WorkedJob, 'rows'>;

/** Works all jobs in threads, and keeps each batch when it is back. */
async function workAll(manager: EntityManager, known: ShopKnown, numbered: readonly Numbered[], tell: Tell): Promise<readonly Kept[]> {
  const pool = new Piscina({
    filename: new URL('demo-worker.js', import.meta.url).href,
    minThreads: THREADS,
    maxThreads: THREADS,
    // As text: what is read there is quicker to work with than what was copied there.
    workerData: { known: JSON.stringify(known) },
    resourceLimits: { maxYoungGenerationSizeMb: 128 },
  });
  const all: Kept[] = [];
  let keeping: Promise<void> = Promise.resolve();
  try {
    const batches = Array.from({ length: Math.ceil(numbered.length / BATCH) }, (_, at) => numbered.slice(at * BATCH, (at + 1) * BATCH));
    await Promise.all(
      batches.map(async (batch) => {
        const worked = (await pool.run(batch.map(({ task }) => task))) as readonly WorkedJob[];
        all.push(...worked.map(({ rows: _rows, ...rest }) => rest));
        // One connection keeps them, one batch after the other.
        keeping = keeping.then(() => keepAll(manager, batch, worked, known.now));
        await keeping;
        tell(`${all.length} of ${numbered.length} jobs`);
      }),
    );
  } finally {
    await pool.destroy();
  }
  return all;
}

async function keepAll(manager: EntityManager, batch: readonly Numbered[], worked: readonly WorkedJob[], now: number): Promise<void> {
  const heads = batch.map(({ job, number, unitId, sheetRevisionId }, at) => {
    const { id, stage, bookedAt, closedAt, lastSeq, lastHash } = worked[at]!;
    const { complaint, estimateMinor, scope, promiseDays } = job;
    // What is open is promised from today on, so that it is late only where that is planned.
    const promise = instantIn(ZONE, promisedDay(ZONE, closedAt === null ? now : bookedAt, promiseDays), PROMISED_BY);
    return { id, number, unitId, sheetRevisionId, stage, complaint, promise, estimateMinor, scope, bookedAt, closedAt, lastSeq, lastHash };
  });
  await ask(manager, MANY_JOBS, JSON.stringify(heads));
  await ask(manager, MANY_ENTRIES, `[${worked.flatMap(({ rows }) => rows).join(',')}]`);
}

function crewOf({ hand }: PlannedJob, staff: ReadonlyMap<string, PersonView>): Crew {
  const worker = (login: string): Crew['hand'] => {
    const { id, role } = staff.get(login)!;
    return { id, role };
  };
  return { hand: worker(hand), foreman: worker('oswin'), counter: worker('perla') };
}
