import { jobState, type AnyKeptEntry } from '@jubb/book';
import { HOLD_REASONS, STAGES, scopeSheet, type SheetFile } from '@jubb/sheet';
import { readSheetFile } from '@jubb/sheet/editing';
import { readFileSync, readdirSync } from 'node:fs';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { v5 } from 'uuid';
import { verifyChain } from '../entries/entry-hash.js';
import { ZONE } from './demo-known.js';
import { movesOf } from './demo-moves.js';
import { DEMO_PEOPLE, MORE_PEOPLE } from './demo-people.js';
import { planShop, type DemoPlan, type PlannedJob } from './demo-plan.js';
import { playedJob, workshopOf, type Workshop } from './demo-played.js';
import { unitOf } from './demo-unit.js';
import { workAt, type Worker } from './demo-work.js';
import { datedJob, type ShopKnown, type WorkedJob } from './demo-worker.js';
import { promisedDay } from './demo-promise.js';
import { ShopHours } from './shop-hours.js';

const FOLDER = new URL('../../demo/sheets/', import.meta.url);
const DAY = 24 * 3600 * 1000;
/** A Saturday, at night. */
const NOW = Date.parse('2026-11-28T22:10:00Z');

let sheets: Map<string, SheetFile>;
let plan: DemoPlan;

let workshop: Workshop;

beforeAll(() => {
  const read = readdirSync(FOLDER).map((name) => readSheetFile(readFileSync(new URL(name, FOLDER), 'utf8')));
  sheets = new Map(read.flatMap((one) => (one.ok ? [[one.sheet.key, one.sheet] as const] : [])));
  const library = [...sheets].map(([key, file]) => ({
    key,
    revision: 1,
    status: 'approved' as const,
    file,
    yaml: null,
    complete: [],
    hash: '',
  }));
  workshop = workshopOf(library, {});
  ({ plan } = workshop);
});

/** Ids of a database, by the names that every demo has. */
const idOf = (name: string): string => v5(name, '5f0f5e0a-7a52-4c63-9a0e-3f3f0e6a1c11');
const ids = (names: readonly string[]): Record<string, string> => Object.fromEntries(names.map((name) => [name, idOf(name)]));

function shopAt(now: number): ShopKnown {
  return {
    people: ids([...DEMO_PEOPLE, ...MORE_PEOPLE].map(([, login]) => login)),
    tools: ids(workshop.tools.map(({ tag }) => tag)),
    shelf: ids(Object.keys(workshop.shelf)),
    zone: ZONE,
    now,
  };
}

function work(job: PlannedJob, now = NOW): WorkedJob {
  const task = { job: { at: job.at, endedAgo: job.endedAgo }, id: `job-${job.seed}`, played: JSON.stringify(playedJob(job, workshop)) };
  return datedJob(task, shopAt(now));
}

const scoped = (job: PlannedJob): SheetFile => scopeSheet(sheets.get(plan.units[job.unit]!.sheet)!, job.scope).file;
const isOpen = ({ stop }: PlannedJob): boolean => stop !== undefined;

describe('two years of a shop', () => {
  test('is what it is said to be, the same from the same seed', () => {
    expect(planShop(sheets)).toEqual(plan);
    expect(plan.machines).toHaveLength(60);
    const [open, finished] = [plan.jobs.filter(isOpen), plan.jobs.filter((job) => !isOpen(job))];
    expect(finished).toHaveLength(600);
    // One more has no sheet yet, and is booked in by hand.
    expect(open).toHaveLength(39);
    const family = (job: PlannedJob): string => sheets.get(plan.units[job.unit]!.sheet)!.family;
    expect(new Set(open.map(family)).size).toBeGreaterThanOrEqual(18);
    expect(new Set(open.map(({ stop }) => stop!.stage))).toEqual(new Set(STAGES));
    const reasons = open.flatMap(({ stop }) => (stop!.then ?? []).map(({ payload }) => (payload as { reason?: string }).reason));
    expect(new Set(reasons.filter(Boolean))).toEqual(new Set(HOLD_REASONS));
    expect(open.filter(({ scope }) => scope.sides.length === 2)).toHaveLength(2);
    for (const within of ['torque', 'setting', 'pattern', 'sign'] as const)
      expect(open.some(({ stop }) => stop!.within === within)).toBe(true);
    // Each unit is on one bench at a time.
    expect(new Set(open.map(({ unit }) => unit)).size).toBe(open.length);
    const often = new Map<number, number>();
    for (const { unit } of plan.jobs) often.set(unit, (often.get(unit) ?? 0) + 1);
    expect([...often.values()].filter((times) => times > 1).length).toBeGreaterThanOrEqual(90);
  });

  test('a job is the same but for its days, whatever the day is', () => {
    const undated = (worked: WorkedJob): readonly object[] =>
      worked.rows.map(
        ({ takenAt: _t, keptAt: _k, hash: _h, prevHash: _p, contentHash: _c, payload, ...row }: Row & { contentHash?: string }) => ({
          ...row,
          payload: { ...payload, due: undefined },
        }),
      );
    for (const job of [plan.jobs[5]!, plan.jobs[300]!, ...plan.jobs.slice(-3)])
      expect(undated(work(job, NOW + 45 * DAY))).toEqual(undated(work(job)));
  });

  test('a job that was played before is what this shop would have kept of it', () => {
    const known = shopAt(NOW);
    const worker = (login: string, role: Worker['role']): Worker => ({ id: known.people[login]!, role });
    const some = [...plan.jobs.filter(({ byShelf }) => byShelf).slice(0, 40), ...plan.jobs.filter(isOpen)];
    const tools = workshop.tools.map((tool) => ({ ...tool, id: known.tools[tool.tag]! }));
    let fromShelf = 0;
    for (const job of some) {
      const sheet = scoped(job);
      const crew = {
        hand: worker(job.hand, job.hand === 'joss' ? 'apprentice' : 'mechanic'),
        foreman: worker('oswin', 'foreman'),
        counter: worker('perla', 'counter'),
      };
      const own = workAt(sheet, { ...job, unit: unitOf(sheet, job, known.shelf), crew }, tools);
      const kept = work(job).rows;
      expect(
        kept.map(({ id, kind, step, strikes, toolId, personId, working }) => ({ id, kind, step, strikes, toolId, personId, working })),
      ).toEqual(
        own.map(({ id, kind, step = null, strikes, toolId = null, person, working }) => ({
          ...{ id, kind, step, strikes, toolId, working: working && (JSON.parse(JSON.stringify(working)) as object) },
          personId: person.id,
        })),
      );
      expect(kept.map(({ payload }) => ({ ...payload, due: undefined }))).toEqual(
        own.map(({ payload }) => ({ ...payload, due: undefined })),
      );
      fromShelf += kept.filter(({ payload }) => 'item' in payload).length;
    }
    expect(fromShelf).toBeGreaterThan(20);
  });

  test('finished jobs leave nothing open, in the hours of the shop, and none ends ahead of now', () => {
    for (const job of plan.jobs.filter((one) => !isOpen(one)).filter((_, at) => at % 9 === 0)) {
      const worked = work(job);
      const rows = worked.rows;
      const state = jobState(scoped(job), rows as unknown as readonly AnyKeptEntry[]);
      expect([plan.units[job.unit]!.sheet, state.steps.filter(({ done }) => !done).map(({ step }) => step.ref), state.openEnds]).toEqual([
        plan.units[job.unit]!.sheet,
        [],
        [],
      ]);
      expect(state.handedOver).toBeDefined();
      expect(state.dues.filter(({ closed }) => !closed)).toEqual([]);
      expect(verifyChain(rows as never)).toMatchObject({ whole: true, hash: worked.lastHash });
      const hours = new ShopHours(ZONE, NOW, 900);
      expect(rows.map(({ takenAt }) => hours.within(Date.parse(takenAt)))).toEqual(rows.map(({ takenAt }) => Date.parse(takenAt)));
      expect(rows.map(({ takenAt }) => takenAt)).toEqual(rows.map(({ takenAt }) => takenAt).toSorted());
      expect(Date.parse(worked.closedAt!)).toBeLessThan(NOW);
    }
  });

  test('open jobs stand where they stand, and what came before is done', () => {
    for (const job of plan.jobs.filter(isOpen)) {
      const worked = work(job);
      const state = jobState(scoped(job), worked.rows as unknown as readonly AnyKeptEntry[]);
      const { stage, within } = job.stop!;
      expect(state.stage).toBe(stage);
      const before = state.steps.filter(({ step }) => STAGES.indexOf(step.stage) < STAGES.indexOf(stage));
      expect(before.filter(({ done }) => !done).map(({ step }) => step.ref)).toEqual([]);
      expect(Date.parse(worked.endedAt)).toBeLessThanOrEqual(NOW);
      if (within === 'torque') expect(state.joints.some(({ done, next }) => done > 0 && next !== undefined)).toBe(true);
      if (within === 'setting') expect(state.settings.some(({ tries, phase }) => tries.length > 0 && phase !== 'set')).toBe(true);
      if (within === 'pattern') expect(state.patterns.some(({ phase }) => phase === 'move')).toBe(true);
    }
  });
});

describe('the hours of a shop', () => {
  const hours = new ShopHours(ZONE, NOW, 60);

  test('leave out the night and the week-end, there and back', () => {
    // A Friday, 16:00 in Vienna in winter: half an hour is left before the week-end.
    const friday = Date.parse('2026-11-27T15:00:00Z');
    expect(new Date(hours.on(friday, 30)).toISOString()).toBe('2026-11-27T15:30:00.000Z');
    expect(new Date(hours.on(Date.parse('2026-11-20T15:00:00Z'), 90)).toISOString()).toBe('2026-11-23T07:00:00.000Z');
    expect(new Date(hours.on(Date.parse('2026-11-23T07:00:00Z'), -90)).toISOString()).toBe('2026-11-20T15:00:00.000Z');
    expect(new Date(hours.within(Date.parse('2026-11-21T10:00:00Z'))).toISOString()).toBe('2026-11-23T06:00:00.000Z');
    expect(new Date(hours.within(Date.parse('2026-11-21T10:00:00Z'), true)).toISOString()).toBe('2026-11-20T15:30:00.000Z');
  });

  test('what is to be done in one day is begun when the day has the time, there and back', () => {
    const in20 = (instant: string, isBack = false): string => new Date(hours.inOneDay(Date.parse(instant), 20, isBack)).toISOString();
    // Twenty minutes before it closes, and ten.
    expect(in20('2026-11-20T15:10:00Z')).toBe('2026-11-20T15:10:00.000Z');
    expect(in20('2026-11-20T15:20:00Z')).toBe('2026-11-23T06:00:00.000Z');
    // Twenty minutes after it opened, and ten.
    expect(in20('2026-11-23T06:20:00Z', true)).toBe('2026-11-23T06:20:00.000Z');
    expect(in20('2026-11-23T06:10:00Z', true)).toBe('2026-11-20T15:30:00.000Z');
  });
});

test('a shelf never has less than nothing, and says after each movement what lies there', () => {
  const at = (day: number): string => new Date(NOW - day * DAY).toISOString();
  const taking = (day: number, count: number) => ({
    entryId: `01a2236f-0000-7000-8000-0000000000${day}`,
    item: ITEM,
    count,
    jobId: 'j',
    personId: 'p',
    takenAt: at(day),
  });
  const count = { item: ITEM, minimum: 2, move: { id: ITEM, kind: 'receive' as const, quantity: 3, takenAt: at(1) } };
  const moves = movesOf([count], [taking(20, 2), taking(40, 1), taking(10, 7)], NOW - 100 * DAY, 'perla');
  let level = 0;
  for (const { kind, quantity, after } of moves) {
    level += kind === 'issue' ? -quantity : quantity;
    expect(after).toBe(level);
    expect(level).toBeGreaterThanOrEqual(0);
  }
  expect(moves.filter(({ kind }) => kind === 'issue').map(({ quantity }) => quantity)).toEqual([1, 2, 7]);
  expect(moves.map(({ takenAt }) => takenAt)).toEqual(moves.map(({ takenAt }) => takenAt).toSorted());
});

const ITEM = '01a2236f-0000-7000-8000-000000000001';

test('a promise falls on a day on which the shop is open; one that has gone by was due before today', () => {
  const monday = '2026-11-30T08:00:00Z';
  expect([0, 1, 2, 6].map((days) => promisedDay(ZONE, NOW, days))).toEqual(['2026-11-30', '2026-11-30', '2026-11-30', '2026-12-04']);
  expect([-1, -2, -3].map((days) => promisedDay(ZONE, monday, days))).toEqual(['2026-11-27', '2026-11-27', '2026-11-27']);
});
