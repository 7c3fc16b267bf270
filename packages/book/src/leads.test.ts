import { describe, expect, test } from '@jest/globals';
import { find, scopeSheet } from '@jubb/sheet';
import { demoSheet } from './book.test-kit.js';
import { checkOnJob } from './entries/check.js';
import type { AnyKeptEntry, EntryKind } from './entries/kept.js';
import { shaped } from './shape.js';
import { jobState } from './state.js';
import { heldBy } from './waits.js';

const clutch = demoSheet('ostrel-mk7-multi-plate-clutch');
const axle = demoSheet('ostrel-d44-drive-axle');
const at = (minute: number): string => new Date(Date.parse('2026-11-29T08:00:00.000Z') + minute * 60_000).toISOString();
let number = 0;
function entry(kind: EntryKind, payload: object, step: string | null, minute: number, id = `entry ${(number += 1)}`): AnyKeptEntry {
  return {
    id,
    seq: number,
    kind,
    payload,
    step,
    strikes: null,
    personId: 'ilka',
    takenAt: at(minute),
    working: null,
  } as unknown as AnyKeptEntry;
}
const soaks = (minute: number): AnyKeptEntry =>
  entry('wait', { what: find(clutch.steps, 'pack-in')!.lead!.what, seconds: 7200 }, 'pack-in', minute, 'soak');
function refused(sheet: typeof clutch, step: string, kind: EntryKind, minute: number, ...before: readonly AnyKeptEntry[]): string {
  const payload = kind === 'tick' ? {} : { fit: 'head-bearing', by: 'heat', driver: 'none', home: 'dropped' };
  const given = { id: 'new', kind, payload, step, strikes: null, takenAt: at(minute) } as never;
  const found = checkOnJob([given], before, sheet, { role: 'mechanic', personId: 'ilka' });
  return found?.detail ?? found?.errors[0]?.allowed ?? '';
}

describe('work ahead of a step', () => {
  test('is offered as early as it may start, long before its step', () => {
    const { leads } = jobState(axle, []);
    expect(leads).toMatchObject([{ step: { ref: 'head-bearing-on-with-its-shim' }, mayBegin: false, begun: undefined }]);
    const counted = axle.steps.find(({ record }) => record.kind === 'reconcile')!;
    expect(find(axle.steps, 'head-bearing-on-with-its-shim')!.lead!.from).toBe(counted.ref);
    // Where nothing has to come before it, from the beginning: a job whose scope leaves that step out.
    const { file } = scopeSheet({ ...clutch, steps: clutch.steps.filter(({ ref }) => ref !== 'decide') }, { tasks: ['plates'] });
    expect(jobState(file, []).leads).toMatchObject([{ mayBegin: true }]);
  });

  test('holds its step until its time, and says how long; for every client', () => {
    expect(refused(clutch, 'pack-in', 'tick', 0)).toBe("waits: new friction plates into the machine's oil first");
    expect(refused(clutch, 'pack-in', 'tick', 90, soaks(0))).toBe("waits, 30 min to go: new friction plates into the machine's oil");
    expect(refused(clutch, 'pack-in', 'tick', 121, soaks(0))).not.toMatch(/waits/u);
    // Somebody looked, and said that it is ready.
    expect(refused(clutch, 'pack-in', 'tick', 90, soaks(0), entry('wait-over', { wait: 'soak' }, 'pack-in', 80))).not.toMatch(/waits/u);
  });

  test('a heat that has gone is begun anew', () => {
    const warm = (minute: number): AnyKeptEntry =>
      entry(
        'wait',
        { what: 'head bearing into the oven at 100 °C, never over 120 °C', seconds: 1200 },
        'head-bearing-on-with-its-shim',
        minute,
      );
    const on = (minute: number, ...before: readonly AnyKeptEntry[]) =>
      refused(axle, 'head-bearing-on-with-its-shim', 'fitted', minute, ...before);
    expect(on(200, warm(0))).toMatch(/is too late: .* holds for 3 h and no longer/u);
    expect(on(230, warm(0), warm(201))).not.toMatch(/late|waits/u);
  });

  test('its clock stands for its own step; what cools afterwards is hot until then', () => {
    const state = jobState(clutch, [soaks(0)]);
    expect(heldBy(state, state.clocks[0]!)?.ref).toBe('pack-in');
    const cools = entry(
      'wait',
      { what: 'head bearing to cool on the pinion', seconds: 1200, hot: true },
      'head-bearing-on-with-its-shim',
      0,
    );
    expect(jobState(axle, [cools]).clocks).toMatchObject([{ hot: true }]);
    expect(refused(axle, 'pinion-in', 'reading', 5, cools)).toMatch(/^waits, 15 min to go: head bearing to cool/u);
  });

  test('by a way that needs none there is none', () => {
    const way = { ...entry('way', { way: 'press' }, 'head-bearing-on-with-its-shim', 0) };
    expect(jobState(axle, [way]).leads).toEqual([]);
    expect(refused(shaped(axle, [way]), 'head-bearing-on-with-its-shim', 'fitted', 1, way)).not.toMatch(/waits/u);
  });
});
