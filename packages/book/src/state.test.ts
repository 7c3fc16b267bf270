import { readSheetFile } from '@jubb/sheet/editing';
import type { EntryKind } from './entries/kept.js';
import type { AnyKeptEntry } from './entries/kept.js';
import { workingFor } from './kinds/registry.js';
import { jobState, nextAct, stopsHandOver } from './state.js';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

const read = readSheetFile(
  readFileSync(new URL('../../../apps/server/demo/sheets/harrowmere-th6-front-hub.json', import.meta.url), 'utf8'),
);
if (!read.ok) throw new Error('the demo sheet does not read');
const { sheet } = read;

interface Line {
  /** Otherwise Ilka, kept as it was taken, at nine. */
  readonly by?: string;
  readonly taken?: string;
  readonly kept?: string;
  readonly kind: EntryKind;
  readonly payload: object;
  readonly step?: string;
  readonly strikes?: number;
}

/** Entries in a row, as the server would keep them. */
function book(...lines: readonly Line[]): AnyKeptEntry[] {
  return lines.map(
    ({ kind, payload, step, strikes, by = 'ilka', taken = '09:00', kept = taken }, index) =>
      ({
        id: `entry ${index}`,
        jobId: 'job',
        seq: index + 1,
        kind,
        payload,
        step: step ?? null,
        toolId: null,
        strikes: strikes === undefined ? null : `entry ${strikes}`,
        personId: by,
        takenAt: `2027-01-08T${taken}:00.000Z`,
        keptAt: `2027-01-08T${kept}:00.000Z`,
        working: workingFor(kind, payload, sheet, undefined),
        prevHash: '',
        hash: '',
      }) as AnyKeptEntry,
  );
}

const nuts = (count: number) => ({
  kind: 'came-off' as const,
  payload: { part: 'wheel-nuts', name: 'Wheel nuts', count },
  step: 'wheel-off',
});
const pull = (pass: number, place: number, result = 'clicked') => ({
  kind: 'pull' as const,
  payload: { joint: 'wheel-nuts', pass, place, torque: 32.4, result, wrenchLength: 450, adapterLength: 0, adapterAngle: 0 },
  step: 'wheel-nuts',
});
const play = (moment: 'now' | 'locked' | 'proved', ...readings: number[]) => ({
  kind: 'end-play' as const,
  payload: { setting: 'end-play', moment, readings, unit: 'mm' },
  step: 'set-nut',
});
const turned = (angle: number) => ({ kind: 'nut' as const, payload: { setting: 'end-play', act: 'turned', angle } });

describe('counts', () => {
  test('a wrong count is a problem until it is struck', () => {
    const wrong = jobState(sheet, book(nuts(9)));
    expect(wrong.steps.find(({ step }) => step.ref === 'wheel-off')?.problem).toContain('9 counted, the sheet says 10');
    const mended = jobState(sheet, book(nuts(9), { kind: 'strike', payload: { reason: 'one in the socket' }, strikes: 0 }, nuts(10)));
    expect(mended.steps.find(({ step }) => step.ref === 'wheel-off')?.problem).toBeUndefined();
    expect(mended.reconcile).toEqual([
      { key: 'wheel-nuts', part: 'wheel-nuts', name: 'Wheel nuts M14 × 1.5', expected: 10, counted: undefined },
    ]);
  });

  test('two tablets that counted one thing without knowing of each other: once until a person says which stands', () => {
    const held = { ...nuts(9), by: 'bram', taken: '09:05', kept: '09:40' };
    const both = jobState(sheet, book(nuts(10), held));
    expect(both.conflicts).toMatchObject([{ name: 'Wheel nuts', entries: [{ personId: 'ilka' }, { personId: 'bram' }] }]);
    expect(both.reconcile[0]?.expected).toBe(10);
    expect(both.steps.find(({ step }) => step.ref === 'wheel-off')).toMatchObject({
      done: false,
      problem: 'Wheel nuts was counted twice: 10 and 9; strike what is wrong',
    });
    const settled = jobState(sheet, book(nuts(10), held, { kind: 'strike', payload: { reason: 'the other stands' }, strikes: 0 }));
    expect(settled.conflicts).toEqual([]);
    expect(settled.reconcile[0]?.expected).toBe(9);
  });

  test('a count made again before the build is a fresh one, unless another made it before the first was known', () => {
    const counted = (count: number, rest: Partial<Line>): Line => ({
      kind: 'counted',
      payload: { part: 'wheel-nuts', name: 'Wheel nuts', count },
      step: 'count-back',
      ...rest,
    });
    const again = jobState(sheet, book(nuts(10), counted(9, {}), counted(10, { taken: '09:10' })));
    expect(again.conflicts).toEqual([]);
    expect(again.reconcile[0]?.counted).toBe(10);
    const apart = jobState(sheet, book(nuts(10), counted(9, { kept: '09:30' }), counted(10, { by: 'bram', taken: '09:10' })));
    expect(apart.conflicts).toHaveLength(1);
    expect(apart.steps.find(({ step }) => step.ref === 'count-back')?.done).toBe(false);
  });

  test('what came off in several lines is counted back as one, and one too few is named', () => {
    const counted = { kind: 'counted' as const, payload: { part: 'wheel-nuts', name: 'Wheel nuts', count: 9 }, step: 'count-back' };
    const state = jobState(sheet, book(nuts(6), nuts(4), counted));
    expect(state.reconcile[0]).toMatchObject({ expected: 10, counted: 9 });
    expect(state.steps.find(({ step }) => step.ref === 'count-back')).toMatchObject({ done: false });
    expect(stopsHandOver(state).join('\n')).toContain('9 on the bench, 10 came off');
  });
});

describe('a joint', () => {
  test('pulls come in star order, pass by pass, and trouble does not count', () => {
    const order = [];
    const pulls: ReturnType<typeof pull>[] = [];
    for (let turn = 0; turn < 10; turn += 1) {
      const next = jobState(sheet, book(...pulls)).joints[0]?.next;
      order.push(next?.place);
      pulls.push(pull(next?.pass ?? 0, next?.place ?? 0));
    }
    // Ten on a circle: each next one across, as ASME PCC-1 draws it, never a neighbour.
    expect(order.slice(0, 4)).toEqual([0, 5, 2, 7]);
    expect(jobState(sheet, book(...pulls)).joints[0]).toMatchObject({ done: 10, total: 40, next: { pass: 2, place: 0 } });
    expect(jobState(sheet, book(...pulls, pull(2, 0, 'trouble'))).joints[0]).toMatchObject({ done: 10, next: { pass: 2, place: 0 } });
  });

  test('a check pass in which one turned is followed by another round', () => {
    const all = [1, 2, 3, 4].flatMap((pass) => Array.from({ length: 10 }, (_, place) => pull(pass, place)));
    expect(jobState(sheet, book(...all)).joints[0]).toMatchObject({ done: 40, total: 40, next: undefined });
    const withTurn = all.map((one) => (one.payload.pass === 4 && one.payload.place === 6 ? pull(4, 6, 'turned') : one));
    expect(jobState(sheet, book(...withTurn)).joints[0]).toMatchObject({ done: 40, total: 50, next: { pass: 5, place: 0 } });
  });
});

test('what only tells of the unit condemns no part, and what condemns one says why', () => {
  const reading = (limit: string, ...readings: number[]) => ({ kind: 'reading' as const, payload: { limit, readings, unit: 'mm' } });
  const proposed = (...lines: readonly Line[]) =>
    new Map(jobState(sheet, book(...lines)).decisions.map(({ part, proposed: fate, because }) => [part.ref, `${fate}: ${because}`]));
  expect(proposed(reading('end-float-found', 0.34)).get('hub')).toBe('reuse: not read: Races in the hub');
  const tight = { kind: 'look' as const, payload: { limit: 'races-crept', look: 'tight' } };
  expect(proposed(tight).get('hub')).toBe('reuse: Races in the hub in');
  expect(proposed(reading('inner-journal', 34.95)).get('spindle')).toBe('renew: Inner journal is out');
  expect(proposed().get('hub-seal')).toBe('renew: renewed every time');
  // What is out weighs more than what is unsure before it: the spindle has two journals.
  const both = jobState(sheet, book(reading('inner-journal', 34.96, 34.98), reading('outer-journal', 24.9))).decisions.find(
    ({ part }) => part.ref === 'spindle',
  );
  expect(both).toMatchObject({ proposed: 'renew', because: 'Outer journal is out', verdict: 'out' });
  expect(jobState(sheet, book(reading('inner-journal', 34.96, 34.98))).decisions.find(({ part }) => part.ref === 'spindle')).toMatchObject({
    verdict: 'unsure',
  });
});

describe('the nut', () => {
  test('is advised from the dial, read again when locked, and set only when the reading is in', () => {
    const seated = { kind: 'nut' as const, payload: { setting: 'end-play', act: 'seated', angle: -90, torque: 70 } };
    const phase = (...lines: readonly Line[]) => jobState(sheet, book(...lines)).settings[0]?.phase;
    expect(phase()).toBe('seat');
    expect(phase(seated)).toBe('read');
    expect(phase(seated, play('now', 0.21))).toBe('turn');
    expect(phase(seated, play('now', 0.21), turned(30))).toBe('read-locked');
    expect(phase(seated, play('now', 0.21), turned(30), play('locked', 0.15))).toBe('turn');
    expect(phase(seated, play('now', 0.21), turned(30), play('locked', 0.08))).toBe('set');
    // The reading before the turn is advised on, not judged.
    expect(jobState(sheet, book(seated, play('now', 0.21))).settings[0]?.tries[0]?.verdict).toBeUndefined();
    // A dial that shows nothing gives no play to reckon from: back to the start.
    expect(phase(seated, play('now', 0))).toBe('seat');
  });

  test('a nut that is moved afterwards takes its proof with it', () => {
    const proved = book(play('proved', 0.08));
    expect(jobState(sheet, proved).settings[0]?.proved?.verdict).toBe('in');
    expect(jobState(sheet, book(play('proved', 0.08), turned(30))).settings[0]?.proved).toBeUndefined();
  });
});

test('a step that leaves something open is on the list until its own step closes it', () => {
  const off = { kind: 'came-off' as const, payload: { part: 'dust-cap', name: 'Dust cap', count: 1 }, step: 'cap-off' };
  const on = { kind: 'tick' as const, payload: {}, step: 'cap-on' };
  expect(jobState(sheet, book(off)).openEnds.map((end) => end.what)).toEqual(['Dust cap off']);
  const home = { kind: 'seated' as const, payload: { fastening: 'cap', count: 1 }, step: 'cap-on' };
  expect(jobState(sheet, book(off, on)).openEnds.map((end) => end.what)).toEqual(['Dust cap off']);
  expect(jobState(sheet, book(off, on, home)).openEnds).toEqual([]);
});

test('whatever is struck, the state is that of the entries that were not', () => {
  const lines = [nuts(10), pull(1, 0), pull(1, 5), play('now', 0.2), { kind: 'note' as const, payload: { text: 'x' } }];
  fc.assert(
    fc.property(fc.subarray([0, 1, 2, 3, 4]), (struckLines) => {
      const strikes = struckLines.map((line) => ({ kind: 'strike' as const, payload: { reason: 'wrong' }, strikes: line }));
      const withStrikes = jobState(sheet, book(...lines, ...strikes));
      const without = jobState(
        sheet,
        book(...lines).filter((_, line) => !struckLines.includes(line)),
      );
      expect(withStrikes.steps).toEqual(without.steps);
      expect(withStrikes.joints.map(({ done, next }) => ({ done, next }))).toEqual(
        without.joints.map(({ done, next }) => ({ done, next })),
      );
      expect(nextAct(withStrikes)).toEqual(nextAct(without));
    }),
  );
});

describe('the shop’s own rules', () => {
  const proposals = (words: string): readonly string[] =>
    jobState(sheet, [], [{ words, why: 'they are cheap' }]).decisions.flatMap(({ part, proposed, because }) =>
      because.includes('they are cheap') && proposed === 'renew' ? [part.name] : [],
    );
  const inspected = sheet.parts.filter(({ policy }) => policy !== 'renew').map(({ name }) => name);

  test('a part with the words in its name is proposed for renewal; half a word in its middle is none', () => {
    const [name] = inspected;
    expect(proposals(name!)).toContain(name);
    expect(proposals(name!.slice(1, 4))).not.toContain(name);
    expect(proposals('  ')).toEqual([]);
  });
});
