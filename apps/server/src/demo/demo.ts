import { jobState, type JobHead, type JobState, type PersonView } from '@jubb/book';
import { daysOn, type Role, type SheetFile, type Tool } from '@jubb/sheet';
import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import { seeded } from '@jubb/core';
import { DataSource, In } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { ask } from '../database/data-source.js';
import { Instrument, Person, Shop, ToolRow } from '../database/entities/index.js';
import { EntriesService } from '../entries/entries.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { PeopleService } from '../people/people.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StoresService } from '../stores/stores.service.js';
import { DATE_JOBS } from './demo.sql.js';
import { DEMO_INSTRUMENTS, demoTools } from './demo-crib.js';
import { loadDemoStores } from './demo-stores.js';
import { nextEntries, type DemoEntry, type DemoUnit } from './demo-mechanic.js';

/** One password for all demo people; it is printed by `./jubb start`. */
export const DEMO_PASSWORD = 'bench-417';

/** One PIN for all of them, at a tablet that knows them. */
export const DEMO_PIN = '4170';

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
    @Inject(StoresService) private readonly stores: StoresService,
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
    for (const { id } of staff.values()) await this.people.setPin(id, DEMO_PIN);
    const person = (login: string): PersonView => staff.get(login)!;
    for (const file of (await readdir(sheetFolder)).toSorted()) {
      const { revisionId } = await this.sheets.importFile(await readFile(join(sheetFolder, file), 'utf8'), person('ilka'));
      await this.sheets.approve(revisionId!, person('oswin').id);
    }
    await this.dataSource.getRepository(ToolRow).insert(demoTools());
    const { manager } = this.dataSource;
    const senders = await manager.findBy(ToolRow, { tag: In(DEMO_INSTRUMENTS) });
    await manager.insert(
      Instrument,
      senders.map(({ id, name }) => ({ toolId: id, clicks: name.startsWith('Click') })),
    );
    await loadDemoStores(this.dataSource, this.stores, await this.#files(), person('perla').id);
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
      customer: { name: 'Gelmarn Lift and Piste', phone: '0555 0178' },
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
    await ask(this.dataSource.manager, DATE_JOBS);
  }

  /** The approved sheets, as a whole job would see them. */
  async #files(): Promise<readonly SheetFile[]> {
    const lines = await this.sheets.list();
    return Promise.all(lines.map(async ({ revisionId }) => (await this.sheets.pinned(revisionId, null)).file));
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
              due: daysOn('UTC', Date.now(), 21),
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
