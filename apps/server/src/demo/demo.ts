import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import { jobState, type JobHead, type JobState, type PersonView, type Role, type SheetFile, type Tool } from '@jubb/contract';
import { DataSource } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { Person, Shop, ToolRow } from '../database/entities.js';
import { EntriesService } from '../entries/entries.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { PeopleService } from '../people/people.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { nextEntries, type DemoEntry, type DemoUnit } from './demo-mechanic.js';
import { seeded } from './random.js';

/** One password for all demo people; it is printed by `./jubb start`. */
export const DEMO_PASSWORD = 'bench-417';

export const DEMO_PEOPLE: readonly (readonly [name: string, login: string, role: Role])[] = [
  ['Ilka Varne', 'ilka', 'mechanic'],
  ['Bram Estelow', 'bram', 'mechanic'],
  ['Oswin Tarrell', 'oswin', 'foreman'],
  ['Perla Dunmoor', 'perla', 'counter'],
  ['Joss Hallick', 'joss', 'apprentice'],
];

/** The sheet that the demo jobs go by. */
const HUB = 'harrowmere-th6-front-hub';

const HOUR = 3600 * 1000;
const DAY = 24 * HOUR;
const WEEK = 7 * DAY;
const STEP_MS = 150_000;

/** Invented, all of it: a shop in a ski valley with a small airfield. */
@Injectable()
export class Demo {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(EntriesService) private readonly entries: EntriesService,
  ) {}

  async loadIfEmpty(sheetFolder: string): Promise<boolean> {
    const runner = this.dataSource.createQueryRunner();
    // One process loads it, however many start together.
    await runner.query('SELECT pg_advisory_lock(20118)');
    try {
      if (await this.dataSource.getRepository(Person).exists()) return false;
      await this.#load(sheetFolder);
      return true;
    } finally {
      await runner.query('SELECT pg_advisory_unlock(20118)');
      await runner.release();
    }
  }

  async #load(sheetFolder: string): Promise<void> {
    await this.dataSource
      .getRepository(Shop)
      .update(1, { name: 'Skarrow Bench', zone: 'Europe/Vienna', currency: 'EUR', hourlyMinor: 6800 });
    const staff = new Map<string, PersonView>();
    for (const [name, login, role] of DEMO_PEOPLE) staff.set(login, await this.people.add(name, login, role, DEMO_PASSWORD));
    const person = (login: string): PersonView => staff.get(login)!;
    for (const file of (await readdir(sheetFolder)).toSorted()) {
      const { revisionId } = await this.sheets.importFile(await readFile(join(sheetFolder, file), 'utf8'), person('ilka').id);
      await this.sheets.approve(revisionId!, person('oswin').id);
    }
    await this.dataSource.getRepository(ToolRow).insert(demoTools());
    const tools = await this.jobs.tools();
    const sheet = (await this.sheets.list()).find(({ key }) => key === HUB);
    const { file } = await this.sheets.pinned(sheet!.revisionId, null);
    const crew = { hand: person('ilka'), foreman: person('oswin'), counter: person('perla') };

    const finished = await this.#bookIn(sheet!.revisionId, {
      customer: { name: 'Valdorn Airfield Ground Services', phone: '0555 0141' },
      machine: { name: 'Baggage tractor 3, Harrowmere TH-6', serial: 'TH6-20931' },
      unit: { name: 'Right front hub', serial: 'VA-3-RF' },
      complaint: 'Rumbles on the apron, worse in right-hand bends.',
      promiseIn: -2 * DAY,
      estimateMinor: 38_500,
    });
    const middle = await this.#bookIn(sheet!.revisionId, {
      customer: { id: finished.customer.id, name: finished.customer.name },
      machine: { name: 'Baggage tractor 5, Harrowmere TH-6', serial: 'TH6-21107' },
      unit: { name: 'Left front hub', serial: 'VA-5-LF' },
      complaint: 'Grease on the inside of the rim, wheel feels loose when lifted.',
      promiseIn: 6 * HOUR,
      estimateMinor: 42_000,
    });
    await this.#bookIn(sheet!.revisionId, {
      customer: { name: 'Hochkar Lift and Piste', phone: '0555 0178' },
      machine: { name: 'Luggage shuttle tractor, Harrowmere TH-6', serial: 'TH6-19850' },
      unit: { name: 'Left front hub', serial: 'HL-1-LF' },
      complaint: 'Squeals after the car wash. Please look at the bearing.',
      promiseIn: 3 * DAY,
      estimateMinor: 29_000,
    });

    const worn: DemoUnit = {
      limits: { 'end-float-found': 0.34, 'inner-journal': 34.982, 'outer-journal': 24.985 },
      looks: { 'inner-race': 'pitted', 'outer-race': 'clean' },
      finding: 'Dust cap dented, two wheel nuts rusty',
      backedOff: 0.216,
      receivedBy: 'Ragna Ollwick',
      foreman: 'Oswin Tarrell',
    };
    const now = Date.now();
    await this.#work(finished, file, worn, tools, crew, startOfWork(now - 3 * DAY), 7, () => false, true);
    const leaking: DemoUnit = {
      ...worn,
      limits: { 'end-float-found': 0.29, 'inner-journal': 34.98, 'outer-journal': 24.987 },
      looks: {},
      finding: 'Grease streak inside the rim, valve cap missing',
      backedOff: 0.205,
    };
    const inLastPass = (state: JobState): boolean => (state.joints[0]?.done ?? 0) >= 24;
    await this.#work(middle, file, leaking, tools, crew, now - 4 * HOUR, 11, inLastPass, false);
    await this.#dateJobs();
  }

  async #bookIn(
    sheetRevisionId: string,
    {
      promiseIn,
      ...what
    }: {
      customer: { id?: string; name: string; phone?: string };
      machine: { name: string; serial: string };
      unit: { name: string; serial: string };
      complaint: string;
      promiseIn: number;
      estimateMinor: number;
    },
  ): Promise<JobHead> {
    return this.jobs.bookIn({ id: uuid(), sheetRevisionId, promise: new Date(Date.now() + promiseIn).toISOString(), ...what });
  }

  /** Jobs were booked in just before their first entry, and closed with their last. */
  async #dateJobs(): Promise<void> {
    await this.dataSource.query(`
      UPDATE job SET booked_at = work.first - interval '20 minutes', closed_at = CASE WHEN closed_at IS NULL THEN NULL ELSE work.last END
      FROM (SELECT job_id, min(taken_at) AS first, max(taken_at) AS last FROM entry GROUP BY job_id) work
      WHERE work.job_id = job.id`);
  }

  /** Lets the demo mechanic work at a job until `stop` or until it is handed over. */
  async #work(
    job: JobHead,
    sheet: SheetFile,
    unit: DemoUnit,
    tools: readonly Tool[],
    crew: { hand: PersonView; foreman: PersonView; counter: PersonView },
    from: number,
    seed: number,
    stop: (state: JobState) => boolean,
    withMistake: boolean,
  ): Promise<void> {
    const random = seeded(seed);
    let clock = from;
    const keep = async (person: PersonView, drafts: readonly (DemoEntry & { strikes?: string })[]): Promise<void> => {
      const entries = drafts.map((draft) => ({
        ...draft,
        id: uuid(),
        takenAt: new Date((clock += STEP_MS * (0.1 + random() * 0.2))).toISOString(),
      }));
      await this.entries.post(job.id, person, entries);
    };
    for (;;) {
      const before = await this.entries.ofJob(job.id);
      const state = jobState(sheet, before);
      if (stop(state)) return;
      const drafts = nextEntries(sheet, state, unit, tools, random);
      if (drafts.length === 0) return;
      const kinds = new Set(drafts.map((draft) => draft.kind));
      const nuts = drafts.find((draft) => draft.kind === 'came-off' && (draft.payload as { part?: string }).part === 'wheel-nuts');
      if (withMistake && nuts) {
        await keep(crew.hand, [{ ...nuts, payload: { ...nuts.payload, count: 9 } }]);
        const wrong = (await this.entries.ofJob(job.id)).at(-1);
        await keep(crew.hand, [{ kind: 'strike', payload: { reason: 'One was still in the wheel brace' }, strikes: wrong!.id }]);
      }
      if (withMistake && kinds.has('handed-over'))
        await keep(crew.counter, [
          {
            kind: 'owed',
            payload: {
              what: 'Left front hub, the same bearings',
              told: 'in spring, before the season',
              due: new Date(Date.now() + 3 * WEEK).toISOString().slice(0, 10),
            },
          },
        ]);
      await keep(kinds.has('sign') ? crew.foreman : kinds.has('handed-over') ? crew.counter : crew.hand, drafts);
    }
  }
}

/** The hour at which the shop opens on the day of an instant, near enough for its zone. */
function startOfWork(instant: number): number {
  return Math.floor(instant / DAY) * DAY + 7 * HOUR;
}

/** A small crib, one wrench and one micrometer of it overdue. */
function demoTools(): Omit<ToolRow, 'id'>[] {
  const due = (days: number): string => new Date(Date.now() + days * DAY).toISOString().slice(0, 10);
  const row = (
    tag: string,
    name: string,
    kind: string,
    quantity: ToolRow['quantity'],
    unit: string,
    low: number,
    high: number,
    resolution: number,
    u: number,
    s: number,
    days: number | null,
    length: number | null = null,
  ) => ({
    tag,
    name,
    kind,
    quantity,
    unit,
    low,
    high,
    resolution,
    u,
    s,
    length,
    calibrationDue: days === null ? null : due(days),
  });
  return [
    row('W3', 'Click wrench 20–200', 'torque-wrench', 'torque', 'N·m', 20, 200, 1, 2, 1.2, 110, 450),
    row('W1', 'Click wrench 5–25', 'torque-wrench', 'torque', 'N·m', 5, 25, 0.1, 0.3, 0.2, -20, 260),
    row('A1', 'Crowfoot 21 mm', 'crowfoot', 'length', 'mm', 0, 0, 1, 0.5, 0, null, 55),
    row('D2', 'Dial indicator 0–10', 'dial-indicator', 'length', 'mm', 0, 10, 0.005, 0.002, 0.003, 75),
    row('M2', 'Micrometer 0–25', 'micrometer', 'length', 'mm', 0, 25, 0.001, 0.0012, 0.001, 140),
    row('M3', 'Micrometer 25–50', 'micrometer', 'length', 'mm', 25, 50, 0.001, 0.0015, 0.001, 140),
    row('M4', 'Micrometer 50–75', 'micrometer', 'length', 'mm', 50, 75, 0.001, 0.0018, 0.001, -20),
    row('K1', 'Calliper 0–150', 'calliper', 'length', 'mm', 0, 150, 0.01, 0.012, 0.01, 200),
    row('G1', 'Depth gauge 0–25', 'depth-gauge', 'length', 'mm', 0, 25, 0.01, 0.01, 0.01, 200),
    row('W4', 'Click wrench 2–25', 'torque-wrench', 'torque', 'N·m', 2, 25, 0.1, 0.25, 0.15, 90, 280),
    row('W5', 'Click wrench 80–400', 'torque-wrench', 'torque', 'N·m', 80, 400, 1, 4, 2.5, 160, 690),
    row('W6', 'Torque screwdriver 0.5–5', 'torque-wrench', 'torque', 'N·m', 0.5, 5, 0.05, 0.08, 0.05, 60, 120),
    row('B1', 'Beam wrench 0–20', 'beam-wrench', 'torque', 'N·m', 0, 20, 0.1, 0.08, 0.06, 210, 300),
    row('B2', 'Spring balance and cord', 'spring-balance', 'torque', 'N·m', 0, 30, 0.1, 0.08, 0.08, 130),
    row('G2', 'Bore gauge 10–160', 'bore-gauge', 'length', 'mm', 10, 160, 0.001, 0.003, 0.002, 95),
    row('F1', 'Feeler gauges 0.02–3', 'feeler-gauge', 'length', 'mm', 0, 3, 0.01, 0.01, 0.008, null),
    row('R1', 'Steel rule 500', 'rule', 'length', 'mm', 0, 500, 0.5, 0.2, 0.15, null),
    row('A2', 'Protractor', 'protractor', 'angle', '°', 0, 180, 0.5, 0.3, 0.3, null),
    row('P1', 'Test gauge, class 0.6', 'pressure-gauge', 'pressure', 'kPa', 0, 0, 1, 0.004, 0.002, 40),
    row('E1', 'Multimeter', 'multimeter', 'voltage', 'V', 0, 0, 0.01, 0.01, 0.005, 250),
    row('L1', 'Alternator load stand', 'load-stand', 'current', 'A', 0, 200, 0.5, 0.6, 0.4, 120),
    row('L2', 'Balance stand', 'balance-stand', 'unbalance', 'g·mm', 0, 0, 0.01, 0.02, 0.02, 45),
    row('T1', 'Stopwatch', 'stopwatch', 'time', 's', 0, 0, 1, 0.5, 0.5, null),
    row('S1', 'Bench scale 5 kg', 'scale', 'mass', 'g', 0, 5, 0.001, 0.001, 0.0005, 300),
  ];
}
