import { describe, expect, test } from '@jest/globals';
import { find, scopeSheet } from '@jubb/sheet';
import { book, demoSheet, putIn, reportOf, type BookLine } from '../book.test-kit.js';
import { checkOnJob } from '../entries/check.js';
import { entryWords } from '../kinds/registry.js';
import { jobState } from '../state.js';
import { leftOf, sharesOf } from './proof.js';

const axle = scopeSheet(demoSheet('ostrel-d44-drive-axle'), { tasks: ['whole-axle'], variant: 'd44-373' }).file;
const read = (setting: string, step: string, moment: string, ...readings: readonly number[]): BookLine => ({
  kind: 'end-play',
  step,
  payload: { setting, moment, readings, unit: setting === 'pinion-preload' ? 'N·m' : 'mm' },
});
const backlash = (...readings: readonly number[]): BookLine => read('backlash', 'backlash-set', 'locked', ...readings);
const bead: BookLine = {
  kind: 'seal-fitted',
  step: 'cover-on',
  payload: { seal: 'cover-joint', directionSeen: true, lubricated: true, unit: 'mm', depths: [] },
};
const IN = [0.15, 0.16, 0.15, 0.16];
const stateOf = (...lines: readonly BookLine[]) => jobState(axle, book(axle, ...lines));
const runOf = (setting: string, ...lines: readonly BookLine[]) => stateOf(...lines).settings.find((run) => run.setting.ref === setting)!;
const stepOf = (ref: string, ...lines: readonly BookLine[]) => stateOf(...lines).steps.find(({ step }) => step.ref === ref)!;
/** Why a line is not kept after others; empty where it is. */
function refused(line: BookLine, ...before: readonly BookLine[]): string {
  const given = { id: 'new', strikes: null, takenAt: '2026-11-29T08:00:00.000Z', ...line, step: line.step ?? null } as never;
  return checkOnJob([given], book(axle, ...before), axle, { role: 'mechanic', personId: 'ilka' })?.errors[0]?.allowed ?? '';
}

describe('what a closing step hides', () => {
  test('is read before it, and by every client', () => {
    expect(refused(bead)).toBe('hides Backlash, at four places, which was not read as it stays: read it first');
    expect(refused(bead, backlash(0.3, 0.31, 0.3, 0.3))).toMatch(/hides Backlash/u);
    expect(refused(bead, backlash(...IN))).not.toMatch(/hides/u);
  });

  test('is proved by its last reading once it is closed', () => {
    expect(runOf('backlash', backlash(...IN)).proved).toBeUndefined();
    expect(runOf('backlash', backlash(0.3, 0.3, 0.3, 0.3), backlash(...IN), bead).proved).toMatchObject({ verdict: 'in', play: 0.155 });
  });

  test('is read no more, unless it was moved; then it is closed anew', () => {
    const closed = [backlash(...IN), bead];
    expect(refused(backlash(...IN), ...closed)).toBe('is hidden since “Cover on”: strike that first where it is open again');
    const moved = [...closed, putIn('backlash')];
    expect(runOf('backlash', ...moved).proved).toBeUndefined();
    expect(stepOf('cover-on', ...moved)).toMatchObject({
      done: false,
      problem: 'Backlash, at four places was moved since: read it, then close it again',
    });
    expect(refused(backlash(...IN), ...moved)).toBe('');
    expect(refused(bead, ...moved)).toMatch(/hides/u);
    expect(runOf('backlash', ...moved, backlash(...IN)).proved).toBeUndefined();
    expect(stepOf('cover-on', ...moved, backlash(...IN))).toMatchObject({ done: false });
    expect(runOf('backlash', ...moved, backlash(...IN), bead).proved).toMatchObject({ verdict: 'in' });
  });

  test('asks nothing of a job that does not set it', () => {
    const sides = scopeSheet(demoSheet('ostrel-d44-drive-axle'), { tasks: ['side-bearings'], variant: 'd44-373' }).file;
    const { steps } = jobState(sides, []);
    expect(find(sides.settings, 'pinion-preload')?.proof?.closes).toBe('side-shims-chosen');
    const first = read('side-preload', 'side-shims-chosen', 'locked', 0.15, 0.15);
    const given = { id: 'new', strikes: null, takenAt: '2026-11-29T08:00:00.000Z', ...first } as never;
    expect(checkOnJob([given], [], sides, { role: 'mechanic', personId: 'ilka' })?.errors[0]?.allowed ?? '').not.toMatch(/hides/u);
    expect(steps.some(({ step }) => step.ref === 'preload-set')).toBe(false);
  });
});

describe('the whole less what else turns', () => {
  const pinion = read('pinion-preload', 'preload-set', 'locked', 2.4, 2.5, 2.6);
  const side = find(axle.settings, 'side-preload')!;
  const whole = (torque: number, less: readonly object[] | null = [{ setting: 'pinion-preload', torque: 2.5 }]): BookLine => ({
    kind: 'end-play',
    step: 'side-spread-proved',
    payload: { setting: 'side-preload', moment: 'proved', readings: [torque, torque], unit: 'N·m', ...(less ? { less } : {}) },
  });
  const set = read('side-preload', 'side-shims-chosen', 'locked', 0.15, 0.15);

  test('T = Tp + Tc: what is left is judged by the window of what is left', () => {
    expect(leftOf({ readings: [3.1, 3.3], less: [{ torque: 2.5 }] })).toBeCloseTo(0.7, 9);
    expect(runOf('side-preload', pinion, set, whole(3.2)).proved).toMatchObject({ verdict: 'in' });
    expect(runOf('side-preload', pinion, set, whole(2.6)).proved).toMatchObject({ verdict: 'out' });
    expect(stepOf('side-spread-proved', pinion, set, whole(4.2))).toMatchObject({
      done: false,
      problem: 'Side bearing spread is out',
    });
    // What the whole takes to turn is no reading of the spread.
    expect(runOf('side-preload', pinion, set, whole(3.2))).toMatchObject({ playNow: 0.15, tries: [{ play: 0.15 }] });
  });

  test('takes off what was read on this job, and nothing else', () => {
    expect(sharesOf(side, axle, book(axle))).toMatchObject([{ name: 'Pinion preload, by rolling torque', torque: undefined }]);
    expect(refused(whole(3.2), set)).toMatch(/is not known yet: Pinion preload, .* read it first/u);
    expect(refused(whole(3.2), pinion, set)).toBe('');
    for (const less of [null, [], [{ setting: 'pinion-preload', torque: 2 }], [{ setting: 'backlash', torque: 2.5 }]])
      expect(refused(whole(3.2, less), pinion, set)).toBe('is what was read here: Pinion preload, by rolling torque 2.5 N·m');
    const plain = { ...set, payload: { ...(set.payload as object), less: [{ limit: 'drag-as-found', torque: 1 }] } };
    expect(refused(plain, pinion)).toBe('goes with a proof by the whole only');
  });

  test('a geared share is felt by so much less', () => {
    const geared = { ...side, proof: { ...side.proof!, less: [{ setting: 'pinion-preload', ratio: '3.727' }] } };
    expect(sharesOf(geared, axle, book(axle, pinion))[0]!.torque).toBeCloseTo(2.5 / 3.727, 9);
  });

  test('says what it is, in ledger and report', () => {
    const entries = book(axle, pinion, set, whole(3.2));
    expect(entryWords(entries[2]!, axle)).toBe(
      'Side bearing spread, proved by the whole: whole axle turned at the pinion 3.2 N·m, less 2.5 N·m of what else turns: 0.7 N·m: in',
    );
    const { sections } = reportOf(axle, entries);
    expect(sections.find(({ title }) => title.startsWith('Side bearing spread'))!.text![0]).toBe(
      'As left: 0.15 mm, as set; proved by the whole axle turned at the pinion 3.2 N·m, less 2.5 N·m of what else turns: 0.7 N·m, in. Wanted 0.1 to 0.2 mm (published, Ostrel D44 axle manual, 5-27).',
    );
  });
});
