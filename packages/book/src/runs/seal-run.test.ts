import { describe, expect, test } from '@jest/globals';
import { find, type Seal } from '@jubb/sheet';
import { book, demoSheet, refused, reportOf, type BookLine } from '../book.test-kit.js';
import { sealSeen, type SealSeenPayload } from '../kinds/seal-seen.js';
import { newPartsMissing } from '../parts/new-parts.js';
import { jobState } from '../state.js';
import type { StepState } from '../steps/define-step.js';
import { beforeSeal, rubberStands, sightsAfter, sightsBefore, type SealSight } from './seal-run.js';

// A lip seal with tape over the splines, its spring and its lip looked at once it is in.
const axle = demoSheet('tindlebrook-sk2-steered-end');
const seal = find(axle.seals, 'inner-seal')!;
const AT = axle.steps.find(({ record }) => record.seal === seal.ref)!.ref;

const out: BookLine = { kind: 'old-seal-out', step: AT, payload: { seal: seal.ref, whole: true } };
const seen = (what: SealSight, fault?: string): BookLine => ({
  kind: 'seal-seen',
  step: AT,
  payload: { seal: seal.ref, what, fine: fault === undefined, ...(fault === undefined ? {} : { words: fault }) },
});
const fitted: BookLine = {
  kind: 'seal-fitted',
  step: AT,
  payload: { seal: seal.ref, directionSeen: true, lubricated: true, depths: [0.2, 0.2, 0.3], unit: 'mm' },
};
const ready = [out, seen('place'), seen('new'), seen('guard-on')];
const here: BookLine = { kind: 'replacement-here', step: AT, payload: { seen: 'shelf', part: seal.part, count: 1 } };
const why = (line: BookLine, ...before: readonly BookLine[]): string | undefined => refused(axle, line, here, ...before);
/** What is wrong with a look by itself. */
const wrongs = (payload: Pick<SealSeenPayload, 'what' | 'fine'>): readonly string[] =>
  sealSeen.check!({ payload: { seal: seal.ref, ...payload }, step: AT } as never, axle).map(({ allowed }) => allowed);
const step = (...lines: readonly BookLine[]): StepState =>
  jobState(axle, book(axle, here, ...lines)).steps.find((one) => one.step.ref === AT)!;

describe('before a seal goes in', () => {
  test('its place, itself and the way in are looked at, in that order', () => {
    expect(sightsBefore(seal)).toEqual(['place', 'new', 'guard-on']);
    expect(beforeSeal(seal, book(axle, out, seen('place'))).map(({ sight }) => sight)).toEqual(['new', 'guard-on']);
    expect(why(fitted, ...ready)).toBeUndefined();
  });

  test.each([
    ['a gouge that was not looked for', [out, seen('new'), seen('guard-on')], /looked at: bore clean, no gouge/u],
    ['a gouge that was seen and not dressed', [out, seen('place', 'gouge'), seen('new'), seen('guard-on')], /like that: gouge/u],
    ['a new one that nobody looked at', [out, seen('place'), seen('guard-on')], /whole on every face and edge, no nick/u],
    ['a nicked one', [out, seen('place'), seen('new', 'nicked'), here, seen('guard-on')], /like that: nicked/u],
    ['a nicked one without another', [out, seen('place'), seen('new', 'nicked'), seen('guard-on')], /not said to be here: 1 × /u],
    ['splines without tape', [out, seen('place'), seen('new')], /tape over the splines: on/u],
  ])('%s stops it', (_, before, words) => {
    expect(why(fitted, ...before)).toMatch(words);
  });

  test('a dressed place and another new one let it go on; the one put aside takes a new one from the stores', () => {
    const again = [out, seen('place', 'gouge'), seen('place'), seen('new', 'nicked')];
    const missing = (...lines: readonly BookLine[]) =>
      newPartsMissing(axle, book(axle, here, ...lines), [seal.part]).map(({ here: n }) => n);
    expect(missing(out, seen('new'))).toEqual([]);
    expect(missing(...again)).toEqual([0]);
    expect(missing(...again, here)).toEqual([]);
    expect(why(fitted, ...again, here, seen('new'), seen('guard-on'))).toBeUndefined();
  });

  test('its place is not bare before the old one is out, and what is wrong is said', () => {
    expect(why(seen('place'))).toMatch(/not bare until the old one/u);
    expect(wrongs({ what: 'new', fine: false })).toEqual(['is missing: what is wrong with it?']);
    const plain = axle.seals.find(({ guard }) => guard === undefined);
    expect(plain === undefined ? [] : sightsBefore(plain)).not.toContain('guard-on');
  });

  test('once its part comes off again all of it is looked at anew', () => {
    const off: BookLine = { kind: 'came-off', payload: { part: seal.part, name: 'seal', count: 1 } };
    expect(beforeSeal(seal, book(axle, ...ready, off)).map(({ sight }) => sight)).toEqual(['place', 'new', 'guard-on']);
  });
});

describe('once it is in', () => {
  const looks = (...lines: readonly BookLine[]) => step(...lines).looks?.flatMap((look) => (look.what === 'seal' ? look.sight : []));

  test('the tape comes off again, spring and lip show; till then the step is open', () => {
    expect(sightsAfter(seal)).toEqual(['guard-off', 'spring', 'lip']);
    expect(looks(...ready, fitted)).toEqual(['guard-off', 'spring', 'lip']);
    expect(step(...ready, fitted, seen('spring'), seen('lip'))).toMatchObject({
      done: false,
      problem: expect.stringContaining('tape over the splines: off again'),
    });
    expect(step(...ready, fitted, seen('guard-off'), seen('spring'), seen('lip')).done).toBe(true);
  });

  test('is not ticked beforehand, and what the sheet does not ask is not asked', () => {
    expect(why(seen('guard-off'), ...ready)).toMatch(/once the new one is in/u);
    expect(wrongs({ what: 'turns', fine: true })).toEqual(['is not looked at here: place, new, guard-on, guard-off, spring, lip']);
  });

  test('a lip turned under stays open; spoilt, it is put aside and another one goes in and is looked at', () => {
    const turned = [...ready, fitted, seen('guard-off'), seen('spring'), seen('lip', 'turned under')];
    expect(step(...turned).problem).toBe('not right: turned under');
    const aside = [...turned, seen('new', 'turned under')];
    expect(step(...aside)).toMatchObject({ done: false, problem: expect.stringContaining('another one goes in') });
    const anew = [...aside, here, seen('new'), fitted];
    expect(looks(...anew)).toEqual(['guard-off', 'spring', 'lip']);
    expect(step(...anew, seen('guard-off'), seen('spring'), seen('lip')).done).toBe(true);
  });

  test('is printed, with what was not right', () => {
    const { sections } = reportOf(axle, book(axle, ...ready, fitted, seen('lip', 'turned under'))) as unknown as {
      sections: readonly { rows: readonly (readonly string[])[] }[];
    };
    const printed = JSON.stringify(sections);
    expect(printed).toContain('whole on every face and edge, no nick');
    expect(printed).toContain('not so: turned under');
    expect(printed).not.toContain('bore clean');
  });
});

test('a rubber is held against what it meets; without one, or of several, nothing is said', () => {
  const of = (material: string, medium?: Seal['medium']) => rubberStands({ material, ...(medium === undefined ? {} : { medium }) });
  expect(of('EPDM', 'mineral-oil')).toMatchObject({ rating: 'no' });
  expect(of('EPDM', 'glycol-brake-fluid')).toMatchObject({ rating: 'fit' });
  expect(of('NBR', 'glycol-brake-fluid')).toMatchObject({ rating: 'no' });
  expect(of('NBR')).toBeUndefined();
  expect(of('PTFE on NBR', 'mineral-oil')).toBeUndefined();
});
