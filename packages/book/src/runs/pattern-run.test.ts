import { checkSheet, find, scopeSheet } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from '../book.test-kit.js';
import { newMissing } from '../parts/new-first.js';
import { jobState, type JobState } from '../state.js';
import { patternMove, patternRead, type PatternRun } from './pattern-run.js';
import { describe, expect, test } from '@jest/globals';
import type { ContactSpots } from '@jubb/core';

const axle = scopeSheet(demoSheet('ostrel-d44-drive-axle'), { tasks: ['whole-axle'] }).file;
const GOOD = { driveAlong: 'centre', driveUp: 'centre', coastAlong: 'centre', coastUp: 'centre' } as const;
const FAR_OUT = { driveAlong: 'heel', driveUp: 'face', coastAlong: 'toe', coastUp: 'face' } as const;
const HALF_WAY = { driveAlong: 'heel-ish', driveUp: 'face-ish', coastAlong: 'toe-ish', coastUp: 'face-ish' } as const;
const TO_HEEL = { ...GOOD, driveAlong: 'heel', coastAlong: 'heel' } as const;

const backlash = (...readings: readonly number[]): BookLine => ({
  kind: 'end-play',
  payload: { setting: 'backlash', moment: 'locked', readings, unit: 'mm' },
  step: 'backlash-set',
});
const preload: BookLine = {
  kind: 'end-play',
  payload: { setting: 'pinion-preload', moment: 'locked', readings: [2.4, 2.5, 2.4], unit: 'N·m' },
  step: 'preload-set',
};
const SET = [preload, backlash(0.16, 0.17, 0.16, 0.17)] as const;
const pull = (joint: string, pass: number, place: number, torque: number): BookLine => ({
  kind: 'pull',
  payload: { joint, pass, place, torque, result: 'clicked', wrenchLength: 450, adapterLength: 0, adapterAngle: 0 },
});
const pulled = (joint: string, ...places: readonly (readonly [pass: number, place: number, torque: number])[]): readonly BookLine[] =>
  places.map((place) => pull(joint, ...place));
const NUT = pulled('pinion-nut', [1, 0, 240]);
const moved = (gear: 'pinion' | 'ring', by: number, undone: readonly string[] = []): BookLine => ({
  kind: 'gear-moved',
  payload: { setting: 'backlash', gear, by, undone },
  step: 'contact-pattern-as-set',
});

function stateOf(...lines: readonly BookLine[]): JobState {
  return jobState(axle, book(axle, ...lines));
}
function runOf(...lines: readonly BookLine[]): PatternRun {
  return stateOf(...lines).patterns[0]!;
}
/** A pattern as the page keeps it after those lines. */
function marked(spots: ContactSpots, ...before: readonly BookLine[]): BookLine {
  return { kind: 'pattern', payload: patternRead(runOf(...before), spots), step: 'contact-pattern-as-set' };
}
const titles = ({ first }: PatternRun): readonly string[] => first.map(({ ref }) => ref);
/** Done, but for saying that it is as expected, and for the foreman who looks at it. */
const isDone = (state: JobState): boolean =>
  state.steps
    .find(({ step }) => step.ref === 'contact-pattern-as-set')
    ?.looks?.map(({ what }) => what)
    .join() === 'expected';

describe('a contact pattern', () => {
  test('waits for the backlash, then is read; good is done', () => {
    expect(runOf()).toMatchObject({ phase: 'set-first' });
    expect(titles(runOf())).toEqual(['backlash-set']);
    expect(runOf(...SET).phase).toBe('read');
    const state = stateOf(...SET, marked(GOOD, ...SET));
    expect(state.patterns[0]?.phase).toBe('good');
    expect(isDone(state)).toBe(true);
  });

  test('a pinion too far out is answered by its move; what goes with it is set anew before it is marked again', () => {
    const read = [...SET, ...NUT, marked(FAR_OUT, ...SET)];
    const run = runOf(...read);
    expect(run.phase).toBe('move');
    expect(run.tight.map(({ joint }) => joint.ref)).toEqual(['pinion-nut']);
    expect(patternMove(run, undefined)).toMatchObject({ gear: 'pinion', by: expect.closeTo(0.1, 9) });
    expect(isDone(stateOf(...read))).toBe(false);

    const after = [...read, moved('pinion', 0.05, ['pinion-nut'])];
    const state = stateOf(...after);
    expect(titles(state.patterns[0]!)).toEqual(['flange-and-new-nut-on', 'preload-set', 'backlash-set']);
    expect(state.settings.map(({ setting, phase }) => [setting.ref, phase])).toContainEqual(['pinion-preload', 'read-locked']);
    expect(runOf(...after, ...NUT, ...SET).phase).toBe('read');
  });

  test('the next move is what the last one showed', () => {
    const read = [...SET, marked(FAR_OUT, ...SET)];
    const after = [...read, moved('pinion', 0.05), ...SET];
    const again = marked(HALF_WAY, ...after);
    // Half of the way by 0.05 mm: 0.1 mm from the face to the middle, as was taken.
    expect(again.payload).toMatchObject({ pinionStep: expect.closeTo(0.1, 9) });
    const run = runOf(...after, again);
    expect(patternMove(run, undefined)?.by).toBeCloseTo(0.05, 9);
    expect(run.tries.map(({ before }) => before)).toEqual(['as set', 'pinion 0.05 mm deeper']);
    // Nothing to be seen of it: twice as far.
    expect(marked(FAR_OUT, ...after).payload).toMatchObject({ pinionStep: expect.closeTo(0.2, 9) });
  });

  test('a ring moves as far as its backlash lets it', () => {
    const run = (play: number, spots: ContactSpots): ReturnType<typeof patternMove> => {
      const lines = [preload, backlash(play, play, play, play)];
      const state = stateOf(...lines, marked(spots, ...lines));
      return patternMove(
        state.patterns[0]!,
        state.settings.find(({ setting }) => setting.ref === 'backlash'),
      );
    };
    const toToe = { ...GOOD, driveAlong: 'toe', coastAlong: 'toe' } as const;
    // 0.13 to 0.2 mm are wanted; a spiral gear takes 0.86 mm of backlash for each mm.
    expect(run(0.16, TO_HEEL)).toMatchObject({ gear: 'ring', by: expect.closeTo(0.03 / 0.86, 9), asked: expect.closeTo(0.1, 9) });
    expect(run(0.16, toToe)).toMatchObject({ gear: 'ring', by: expect.closeTo(-0.04 / 0.86, 9), asked: expect.closeTo(-0.1, 9) });
    expect(run(0.135, TO_HEEL)).toMatchObject({ by: 0, asked: expect.closeTo(0.1, 9) });
    expect(run(0.19, { ...GOOD, driveAlong: 'heel-ish', coastAlong: 'heel-ish' })).toMatchObject({ by: expect.closeTo(0.05, 9) });
    const lines = [...SET, marked(TO_HEEL, ...SET), moved('ring', 0.02)];
    expect(titles(runOf(...lines))).toEqual(['backlash-set']);
    const learned = marked({ ...GOOD, driveAlong: 'heel-ish', coastAlong: 'heel-ish' }, ...lines, backlash(0.15, 0.15, 0.15, 0.15));
    expect(learned.payload).toMatchObject({ ringStep: expect.closeTo(0.1 ** 0.3 * 0.04 ** 0.7, 9) });
  });

  test('one that stays so on somebody’s word is done, and remains what it is', () => {
    const left = marked(TO_HEEL, ...SET);
    const state = stateOf(...SET, { ...left, payload: { ...left.payload, left: 'Oswin: the gears go back used' } });
    expect(state.patterns[0]).toMatchObject({ phase: 'good', tries: [{ verdict: 'out' }] });
    expect(isDone(state)).toBe(true);
  });

  test('sides that contradict each other ask for no move, but for marking again', () => {
    const skew = { ...GOOD, driveUp: 'face', coastUp: 'flank' } as const;
    const run = runOf(...SET, marked(skew, ...SET));
    expect(patternMove(run, undefined)).toMatchObject({ by: 0, asked: 0, what: expect.stringContaining('contradict') });
  });

  test('shims that are put in at the backlash afterwards take a good pattern with them', () => {
    const input = { readings: [0.17], from: 0.13, to: 0.2, teethSide: 2, otherSide: 2, rule: 'geometry' };
    const put: BookLine = { kind: 'worked', payload: { working: 'gear.backlash', input, setting: 'backlash' } };
    const lines = [...SET, marked(GOOD, ...SET), put];
    expect(runOf(...lines)).toMatchObject({ phase: 'set-first' });
    expect(runOf(...lines, SET[1]).phase).toBe('read');
  });
});

test('a joint that was undone is pulled anew, with new screws where they are new each time', () => {
  const step = find(axle.steps, 'flange-and-new-nut-on')!;
  const here: BookLine = { kind: 'replacement-here', payload: { seen: 'a new nut' }, step: step.ref };
  const lines = [here, ...NUT, ...SET, marked(FAR_OUT, ...SET)];
  expect(newMissing(axle, step, book(axle, ...lines))).toBeUndefined();
  const undone = [...lines, moved('pinion', 0.05, ['pinion-nut'])];
  expect(stateOf(...lines).joints.find(({ joint }) => joint.ref === 'pinion-nut')).toMatchObject({ done: 1, total: 1 });
  expect(stateOf(...undone).joints.find(({ joint }) => joint.ref === 'pinion-nut')).toMatchObject({ done: 0, total: 1 });
  expect(newMissing(axle, step, book(axle, ...undone))).toMatchObject({ why: 'new each time' });
  expect(newMissing(axle, step, book(axle, ...undone, here))).toBeUndefined();
});

test('a sheet whose pattern goes with no backlash is refused', () => {
  const at = axle.steps.findIndex(({ ref }) => ref === 'contact-pattern-as-set');
  const steps = (setting: string): typeof axle.steps =>
    axle.steps.map((step, index) => (index === at ? { ...step, record: { kind: 'pattern', setting } } : step));
  expect(checkSheet({ ...axle, steps: steps('backlash') })).toEqual([]);
  expect(checkSheet({ ...axle, steps: steps('pinion-preload') })).toEqual([
    {
      path: `steps[${at}].record.setting`,
      given: 'pinion-preload',
      message: 'is of kind "preload"; a pattern goes with the backlash of its gears',
    },
  ]);
});
