import type { JobHead, NewEntry, PersonView } from '@jubb/book';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { daysOn } from '@jubb/sheet';
import { ask } from '../database/data-source.js';
import { EntriesService } from '../entries/entries.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { loadBenches } from './demo-benches.js';
import { DATE_JOBS } from './demo.sql.js';
import type { DemoUnit } from '@jubb/play';
import { workAt, type JobPlan } from './demo-work.js';

/** The sheet that the three go by. */
const HUB = 'harrowmere-th6-front-hub';
const HOUR = 3600 * 1000;
const DAY = 24 * HOUR;
const MINUTE = 60_000;

const WORN: DemoUnit = {
  limits: { 'end-float-found': 0.34, 'inner-journal': 34.982, 'outer-journal': 24.985 },
  looks: { 'inner-race': 'pitted', 'outer-race': 'clean' },
  finding: 'Dust cap dented, two wheel nuts rusty',
  foundAt: 'hub nose',
  backedOff: 0.216,
  receivedBy: 'Ragna Ollwick',
  foreman: 'Oswin Tarrell',
};
const LEAKING: DemoUnit = {
  ...WORN,
  limits: { 'end-float-found': 0.29, 'inner-journal': 34.98, 'outer-journal': 24.987 },
  looks: {},
  finding: 'Grease streak inside the rim, valve cap missing',
  backedOff: 0.205,
};

/** Three wheel hubs, kept as tablets keep: one handed over, one in the middle of its wheel nuts, one just brought. */
@Injectable()
export class DemoThree {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(EntriesService) private readonly entries: EntriesService,
  ) {}

  async load(staff: ReadonlyMap<string, PersonView>): Promise<void> {
    const [hand, foreman, counter] = [staff.get('ilka')!, staff.get('oswin')!, staff.get('perla')!];
    const crew = { hand, foreman, counter };
    const finished = await this.#bookIn(counter, {
      customer: { name: 'Valdorn Airfield Ground Services', phone: '0555 0141' },
      machine: { name: 'Baggage tractor 3, Harrowmere TH-6', serial: 'TH6-20931' },
      unit: { name: 'Right front hub', serial: 'VA-3-RF' },
      complaint: 'Rumbles on the apron, worse in right-hand bends.',
      promiseIn: -2 * DAY,
      estimateMinor: 38_500,
    });
    const middle = await this.#bookIn(counter, {
      customer: { id: finished.customer.id, name: finished.customer.name },
      machine: { name: 'Baggage tractor 5, Harrowmere TH-6', serial: 'TH6-21107' },
      unit: { name: 'Left front hub', serial: 'VA-5-LF' },
      complaint: 'Grease on the inside of the rim, wheel feels loose when lifted.',
      promiseIn: 6 * HOUR,
      estimateMinor: 42_000,
    });
    await this.#bookIn(counter, {
      customer: { name: 'Gelmarn Lift and Piste', phone: '0555 0178' },
      machine: { name: 'Luggage shuttle tractor, Harrowmere TH-6', serial: 'TH6-19850' },
      unit: { name: 'Left front hub', serial: 'HL-1-LF' },
      complaint: 'Squeals after the car wash. Please look at the bearing.',
      promiseIn: 3 * DAY,
      estimateMinor: 29_000,
    });
    const now = Date.now();
    const owed: NewEntry['payload'] = {
      what: 'Left front hub, the same bearings',
      told: 'in spring, before the season',
      due: daysOn('UTC', now, 21),
    };
    await this.#work(
      finished,
      { seed: 7, unit: WORN, crew, pace: 0.15, slips: true, after: { prove: [{ kind: 'owed', payload: owed }] } },
      now - 3 * DAY,
    );
    await this.#work(middle, { seed: 11, unit: LEAKING, crew, pace: 0.15, stop: { stage: 'build', within: 'torque' } }, now - 4 * HOUR);
    await ask(this.dataSource.manager, DATE_JOBS);
    await loadBenches(this.dataSource.manager, staff, [middle.id]);
  }

  async #bookIn(
    by: PersonView,
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
    const { revisionId } = (await this.sheets.list()).find(({ key }) => key === HUB)!;
    return this.jobs.bookIn(
      { id: uuid(), sheetRevisionId: revisionId, promise: new Date(Date.now() + promiseIn).toISOString(), ...what },
      by,
    );
  }

  /** Keeps what the demo mechanic does, in runs of one person's entries, at whatever hour it is. */
  async #work({ id }: JobHead, plan: JobPlan, from: number): Promise<void> {
    const { revisionId } = (await this.sheets.list()).find(({ key }) => key === HUB)!;
    const { file } = await this.sheets.pinned(revisionId, null);
    let clock = from;
    let run: NewEntry[] = [];
    let by = plan.crew.hand as PersonView;
    for (const { person, minutes, waits, working: _worked, strikes, ...entry } of workAt(file, plan, await this.jobs.tools())) {
      if (person !== by) {
        if (run.length > 0) await this.entries.post(id, by, run);
        run = [];
        by = person as PersonView;
      }
      clock += minutes * MINUTE;
      run.push({ ...entry, takenAt: new Date(clock).toISOString(), ...(strikes === null ? {} : { strikes }) });
    }
    if (run.length > 0) await this.entries.post(id, by, run);
  }
}
