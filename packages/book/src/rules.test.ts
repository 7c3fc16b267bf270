import { describe, expect, test } from '@jest/globals';
import { measureAt20 } from '@jubb/core';
import { scopeSheet, toolRefusal, type Fit, type Limit, type Tool } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from './book.test-kit.js';
import { checkEntry, type CribTool } from './entries/check.js';
import type { NewEntry } from './entries/entry.js';
import { judgeLimit } from './measured/working-for.js';
import { canDo } from './now.js';
import { risenSince, soldAt } from './parts/quote.js';
import type { QuoteView } from './parts/quote-body.js';
import type { PartLine, Parts } from './parts/part-lines.js';
import { presetForFit, FIT_WAYS, fitRun } from './runs/fit-run.js';
import { jointRun, sinceUndone } from './runs/joint-run.js';
import { jobState } from './state.js';
import { isBefore } from './waits.js';

// Rules of the bench that hold whatever the page shows: each was left out once, and nothing had noticed.

const axle = demoSheet('ostrel-d44-drive-axle');
const NOW = Date.parse('2027-03-01T12:00:00Z');
const dial: CribTool = {
  id: '01935f3a-0000-4000-8000-000000000001',
  tag: 'D1',
  name: 'Dial',
  kind: 'dial-indicator',
  quantity: 'length',
  unit: 'mm',
  low: 0,
  high: 10,
  resolution: 0.01,
  u: 0.006,
  s: 0.004,
  length: null,
  calibrationDue: '2027-03-01',
  zone: 'Europe/Vienna',
  foundOutAt: undefined,
};

function refused(entry: Partial<NewEntry>, tool: CribTool, takenAt = new Date(NOW).toISOString()): readonly string[] {
  const given = { id: '01935f3a-0000-7000-8000-000000000002', takenAt, toolId: tool.id, ...entry } as NewEntry;
  const found = checkEntry(given, { sheet: axle, tools: new Map([[tool.id, tool]]), role: 'mechanic', now: NOW });
  return found?.errors.map(({ field, allowed }) => `${field} ${allowed}`) ?? [];
}

const reading: Partial<NewEntry> = { kind: 'reading', payload: { limit: 'pinion-play', readings: [0.05, 0.05, 0.05], unit: 'mm' } };
const pull: Partial<NewEntry> = {
  kind: 'pull',
  payload: {
    joint: 'cap-screws',
    pass: 1,
    place: 0,
    torque: 42.5,
    result: 'clicked',
    wrenchLength: 450,
    adapterLength: 0,
    adapterAngle: 0,
  },
};

describe('a tool', () => {
  test('is good on the day its check falls due, and not on the next', () => {
    expect(refused(reading, dial)).toEqual([]);
    expect(refused(reading, { ...dial, calibrationDue: '2027-02-28' })[0]).toContain('past its check, which was due 2027-02-28');
    expect(toolRefusal(dial, undefined, '2027-03-01')).toBeUndefined();
    expect(toolRefusal(dial, undefined, '2027-03-02')).toContain('check was due');
  });

  test('is good on that day in the zone of the shop, whatever day it is elsewhere', () => {
    // Half an hour into the first of March in Vienna.
    expect(refused(reading, { ...dial, calibrationDue: '2027-02-28' }, '2027-02-28T23:30:00Z')[0]).toContain('past its check');
    expect(refused(reading, { ...dial, calibrationDue: '2027-02-28' }, '2027-02-28T22:30:00Z')).toEqual([]);
  });

  test('is waited for only where the crib has none that is good today', () => {
    const atPlay = jobState(axle, []);
    const around = { hold: null, role: 'mechanic', now: new Date(NOW).toISOString() } as const;
    const wait = (due: string): string | undefined => {
      const step = axle.steps.find(
        ({ record }) => record.limit !== undefined && axle.limits.find(({ ref }) => ref === record.limit)?.tool,
      )!;
      const kind = axle.limits.find(({ ref }) => ref === step.record.limit)!.tool!;
      const others = atPlay.steps.map((one) => ({ ...one, done: one.step.ref !== step.ref }));
      const state = { ...atPlay, stage: step.stage, steps: others };
      return canDo(state, { ...around, today: '2027-03-01', tools: [{ ...dial, kind, calibrationDue: due } as Tool] }).waits?.words;
    };
    expect(wait('2027-03-01')).toBeUndefined();
    expect(wait('2027-02-28')).toContain('in calibration');
  });

  test('of another quantity has read nothing of this', () => {
    expect(refused(pull, dial)).toEqual(['toolId reads a length; a torque was kept']);
  });
});

test('a span is as unsure as two readings are', () => {
  const span = (of?: 'span'): number => {
    const limit = {
      ref: 'flat',
      kind: 'size',
      grid: { rows: 1, columns: 4, ...(of ? { of } : {}) },
      service: { to: '0.1 mm', trust: 'shop', source: 'x' },
    } as unknown as Limit;
    const judged = judgeLimit(limit, { readings: [0.01, 0.02, 0.03, 0.04] }, dial);
    return Number(judged?.input['toolU']);
  };
  expect(span()).toBeCloseTo(dial.u, 9);
  expect(span('span')).toBeCloseTo(dial.u * Math.SQRT2, 9);
});

test('every joint that a moved gear undid is pulled again, and no other', () => {
  const undone = ['cap-screws', 'cover-screws'];
  const payload = (joint: string): object => ({ ...(pull.payload as object), joint });
  const refs = axle.joints.map(({ ref }) => ref);
  const entries = book(axle, ...refs.map((ref) => ({ kind: 'pull' as const, payload: payload(ref) })), {
    kind: 'gear-moved',
    payload: { setting: 'backlash', gear: 'ring', by: 0.1, undone },
  });
  const pulls = axle.joints.map((joint) => [joint.ref, jointRun(joint, entries).pulls.length] as const);
  expect(
    pulls
      .filter(([, count]) => count === 0)
      .map(([ref]) => ref)
      .toSorted(),
  ).toEqual(undone.toSorted());
  expect(
    sinceUndone(
      axle.joints.find(({ ref }) => ref === 'cap-screws')!,
      entries,
      axle.settings,
    ),
  ).toEqual([]);
  const wrong = { kind: 'gear-moved' as const, payload: { setting: 'backlash', gear: 'ring', by: 0.1, undone: ['cap-screws', 'lid'] } };
  const by = { sheet: axle, tools: new Map(), role: 'mechanic' as const, now: NOW };
  const given = { id: '01935f3a-0000-7000-8000-000000000003', takenAt: new Date(NOW).toISOString(), ...wrong } as NewEntry;
  expect(checkEntry(given, by)?.errors).toMatchObject([{ field: 'payload.undone', given: 'lid' }]);
});

test('what has to be bought is not sold under what it costs now, and what lies there is sold as marked', () => {
  const line = (onHand: number, shelfMinor: number): PartLine =>
    ({
      need: { number: 'S-1' },
      shelf: { priceMinor: shelfMinor, onHand, reserved: 0, reservedHere: 0 },
      others: [],
      offers: [
        { number: 'S-1', available: true, priceMinor: 1000 },
        { number: 'S-1', available: false, priceMinor: 10 },
      ],
    }) as unknown as PartLine;
  expect(soldAt(line(0, 900), 0.2)).toBe(1200);
  expect(soldAt(line(0, 1500), 0.2)).toBe(1500);
  expect(soldAt(line(1, 900), 0.2)).toBe(900);
});

test('a soft housing is warmed by its own figures and limit, not by those of steel', () => {
  const seat = { seat: '80 mm', long: '20 mm', outside: '110 mm', pressedOn: 'outer ring', warmed: 'soft-hub' };
  const soft = { ref: 'cup', name: 'Cup', part: 'cup', wanted: { from: '0.01 mm', to: '0.04 mm' }, ...seat } as unknown as Fit;
  const preset = presetForFit(FIT_WAYS.heat, fitRun(soft, []), 20);
  expect(preset).toMatchObject({ what: 'soft-hub', ringOf: 'aluminium' });
  expect(presetForFit(FIT_WAYS.heat, fitRun({ ...soft, warmed: 'hub' }, []), 20)).not.toHaveProperty('ringOf');
});

test('a side has all that its lines point to, lists of it too', () => {
  const sides = ['Left', 'Right'];
  const both = scopeSheet({ ...axle, sides }, { sides }).file;
  const lists = ['after', 'frees', 'needsOff', 'putsIn'] as const;
  const refs = new Set([...both.steps, ...both.parts].map(({ ref }) => ref));
  const left = both.steps.filter(({ side }) => side === 'Left');
  expect(left.length).toBeGreaterThan(10);
  let pointed = 0;
  for (const step of left)
    for (const list of lists)
      for (const ref of step[list] ?? []) {
        pointed += 1;
        expect(refs).toContain(ref);
        expect(ref).not.toMatch(/--right$/u);
      }
  expect(pointed).toBeGreaterThan(10);
  for (const setting of both.settings.filter(({ side }) => side === 'Right'))
    for (const ref of setting.bearings ?? []) expect(ref).toMatch(/--right$/u);
});

test('a size that is far from its limit is a slip of the unit, before anything is judged', () => {
  const kept = (read: number): readonly string[] =>
    refused(
      { kind: 'reading', payload: { limit: 'backlash-found', readings: [read, read, read, read], unit: 'mm' } },
      { ...dial, high: 100 },
    );
  expect(kept(0.2)).toEqual([]);
  expect(kept(0.6)).toEqual([]);
  expect(kept(40)).toEqual([expect.stringMatching(/^payload\.readings must not be over .*: a slip of the unit\?$/u)]);
});

test('a step waits for the clock of a step that it names, however far before', () => {
  const [first, second, third] = axle.steps.map(({ ref }) => ref) as [string, string, string];
  const sheet = { ...axle, steps: axle.steps.map((step) => (step.ref === third ? { ...step, after: [first] } : step)) };
  const clock = (step: string): Parameters<typeof isBefore>[1] => ({ entryId: 'e', what: 'cure', step, until: '' });
  const at = (ref: string) => sheet.steps.find((step) => step.ref === ref)!;
  expect(isBefore({ sheet }, clock(first), at(third))).toBe(true);
  expect(isBefore({ sheet }, clock(second), at(third))).toBe(true);
  expect(isBefore({ sheet }, clock(first), at(second))).toBe(true);
  expect(
    isBefore(
      { sheet: axle },
      clock(first),
      axle.steps.find(({ ref }) => ref === third)!,
    ),
  ).toBe(axle.steps.find(({ ref }) => ref === third)!.after?.includes(first) ?? false);
});

test('a reading that is not at 20 °C carries what its temperature leaves open', () => {
  const known = measureAt20.run({ read: 85.06, partT: 40, part: 'steel' });
  expect(known.ok && known.run.output.u).toBeGreaterThan(0);
});

test('the customer is asked again about what got dearer, and not about what they left out, what has no number or is here already', () => {
  const part = (number: string, more: object = {}): PartLine =>
    ({
      need: { number },
      shelf: { priceMinor: 1500, onHand: 1, reserved: 0, reservedHere: 0 },
      others: [],
      offers: [],
      open: 1,
      ordered: 0,
      ...more,
    }) as unknown as PartLine;
  const lines = [part('S-1'), part('S-2'), part('S-3', { open: 0 }), part('S-4')];
  const quoted = (number: string | undefined, unitMinor = 1000): object => ({ number, what: number ?? 'Labour', quantity: 1, unitMinor });
  const quote = {
    state: 'yes',
    body: { options: [{ lines: [quoted(undefined), quoted('S-1'), quoted('S-2'), quoted('S-3'), quoted('S-4', 1500)] }] },
    answer: { option: 0, without: [2] },
  } as unknown as QuoteView;
  expect(risenSince(quote, { lines } as unknown as Parts, 0.2)).toEqual([{ number: 'S-1', what: 'S-1', wasMinor: 1000, nowMinor: 1500 }]);
  expect(risenSince({ ...quote, state: 'sent' }, { lines } as unknown as Parts, 0.2)).toEqual([]);
});

test('a setting of the build is not done by a reading that is off', () => {
  const read = (play: number, step: string): readonly BookLine[] => [
    {
      kind: 'end-play',
      payload: { setting: 'backlash', readings: [play, play, play], unit: 'mm', moment: 'now' },
      step,
    },
  ];
  const steps = axle.steps.filter(({ record }) => record.kind === 'setting' && record.setting === 'backlash');
  const build = steps.find(({ stage }) => stage === 'build')!;
  const isDone = (lines: readonly BookLine[]): boolean =>
    jobState(axle, book(axle, ...lines)).steps.find(({ step }) => step.ref === build.ref)!.done;
  expect(isDone([])).toBe(false);
  expect(isDone(read(3, build.ref))).toBe(false);
});
