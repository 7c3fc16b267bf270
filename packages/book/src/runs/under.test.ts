import { expect, test } from '@jest/globals';
import { find } from '@jubb/sheet';
import { book, demoSheet, putIn, reportOf, type BookLine } from '../book.test-kit.js';
import { checkOnJob } from '../entries/check.js';
import { trialRun } from './joint-run.js';
import { newMissing } from '../parts/new-first.js';
import { jobState, stopsSigning } from '../state.js';

const clutch = demoSheet('askvale-rx10-refrigerant-compressor');
const step = find(clutch.steps, 'plate-on-gap-set')!;
const here: BookLine = { kind: 'replacement-here', step: step.ref, payload: { seen: 'new nut' } };
const pull = (place = 0): BookLine => ({
  kind: 'pull',
  step: step.ref,
  payload: { joint: 'front-nut', pass: 1, place, torque: 17, result: 'clicked', wrenchLength: 300, adapterLength: 0, adapterAngle: 0 },
});
const gap = (...readings: readonly number[]): BookLine => ({
  kind: 'end-play',
  step: 'gap-set',
  payload: { setting: 'air-gap', moment: 'locked', readings, unit: 'mm' },
});
/** Which way the plate lies. */
const lies: BookLine = { kind: 'way-round', step: step.ref, payload: { part: 'front-plate', lies: 'springs outwards' } };
const standOf = (...lines: readonly BookLine[]) => {
  const state = jobState(clutch, book(clutch, ...lines));
  return {
    state,
    run: state.joints.find(({ joint }) => joint.ref === 'front-nut')!,
    at: state.steps.find((one) => one.step.ref === step.ref)!,
  };
};

test('another shim under a joint takes its pulls back, and says so where it is pulled', () => {
  const whole = [here, pull(), lies, gap(0.2, 0.2, 0.2)];
  expect(standOf(...whole).at).toMatchObject({ done: true });
  const { run, at, state } = standOf(...whole, putIn('air-gap'));
  expect([run.done, run.undone]).toEqual([0, 1]);
  expect(at).toMatchObject({ done: false, problem: 'pulled before, and undone again: all of it anew' });
  expect(stopsSigning(state).some((stop) => stop.includes('undone again'))).toBe(true);
  // Pulled anew it is done, whatever was said before.
  expect(standOf(...whole, putIn('air-gap'), pull(), lies).at).toMatchObject({ done: true });
  // A shim of another setting is no matter of it.
  expect(standOf(...whole, putIn('other')).at).toMatchObject({ done: true });
});

/** The same with a nut that is new each time. */
const eachTime = {
  ...clutch,
  joints: clutch.joints.map((joint) => (joint.ref === 'front-nut' ? { ...joint, renewEachTime: true } : joint)),
};

test('what is new each time has become old by it, and is asked for again, once', () => {
  const missing = (...lines: readonly BookLine[]) => newMissing(eachTime, step, book(eachTime, ...lines))?.why;
  expect(missing()).toBe('new each time');
  expect(missing(here, pull())).not.toBe('new each time');
  expect(missing(here, pull(), putIn('air-gap'))).toBe('new each time');
  expect(missing(here, pull(), putIn('air-gap'), here)).not.toBe('new each time');
});

test('a trial with the old ones uses nothing up and proves nothing', () => {
  const trial: BookLine = { ...pull(), payload: { ...(pull().payload as object), trial: true } };
  const { run } = standOf(trial);
  expect([run.done, run.undone]).toEqual([0, 0]);
  expect(trialRun(run.joint, book(clutch, trial)).left).toEqual([]);
  // Once it is meant, the trial before it is over.
  expect(trialRun(run.joint, book(clutch, trial, here, pull())).done).toBe(0);
  const given = (line: BookLine) =>
    ({ id: 'new', strikes: null, takenAt: '2026-11-29T08:00:00.000Z', ...line, step: line.step ?? null }) as never;
  const refused = (line: BookLine) => checkOnJob([given(line)], [], eachTime, { role: 'mechanic', personId: 'ilka' })?.errors[0]?.allowed;
  expect(refused(pull())).toMatch(/new each time/u);
  expect(refused(trial)).toBeUndefined();
});

test('the report prints every pull, and the undone one as that', () => {
  const entries = book(clutch, here, pull(), gap(0.2, 0.2, 0.2), putIn('air-gap'), pull());
  const pulls = reportOf(clutch, entries).sections.find(({ title }) => title.endsWith('every pull'))!.table!;
  expect(pulls.rows.map(({ struck }) => struck)).toEqual(['Undone again afterwards: it proves nothing', undefined]);
  expect(new Set(pulls.rows.map(({ cells }) => cells.length))).toEqual(new Set([pulls.head.length]));
});
