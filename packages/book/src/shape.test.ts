import { describe, expect, test } from '@jest/globals';
import { find, scopeSheet, type SheetFile } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from './book.test-kit.js';
import { kindOf, workingFor } from './kinds/registry.js';
import { jobState, stopsSigning, type JobState } from './state.js';
import { variantWords } from './words.js';

const hub = demoSheet('harrowmere-ut9-trailer-hub');
const box = demoSheet('harrowmere-pg540-pto-gearbox');
const bookedAs = (sheet: SheetFile, variant: string): SheetFile => scopeSheet(sheet, { variant }).file;
const found = (variant: string): BookLine => ({ kind: 'variant', payload: { variant, seen: 'a left-hand thread' } });
const state = (sheet: SheetFile, ...lines: readonly BookLine[]): JobState => jobState(sheet, book(sheet, ...lines));
const joint = (of: JobState, ref: string) => of.joints.find((run) => run.joint.ref === ref)!;
const pull = (place: number): BookLine => ({
  kind: 'pull',
  step: 'wheel-on',
  payload: { joint: 'wheel-nuts', pass: 1, place, torque: 67.5, result: 'clicked', wrenchLength: 450, adapterLength: 0, adapterAngle: 0 },
});

describe('the variant of a job', () => {
  test('a left-hand build says left in its torque run, and a build with more nuts asks for more pulls', () => {
    expect(joint(state(hub), 'centre-bolt').joint.hand).toBe('right');
    expect(joint(state(bookedAs(hub, 'ut9-l')), 'centre-bolt').joint.hand).toBe('left');
    const [five, six] = [state(hub), state(bookedAs(hub, 'ut9-6'))].map((of) => joint(of, 'wheel-nuts').total);
    expect(six! / five!).toBeCloseTo(6 / 5);
  });

  test('is as it was booked in, until it is found to be another; nobody’s word is said as that', () => {
    const words = (of: JobState): string => variantWords(of.variant!);
    expect(words(state(hub))).toBe('UT-9, five studs (not known yet; taken for the first of the sheet)');
    expect(words(state(bookedAs(hub, 'ut9-6')))).toBe('UT-9 H, six studs (as it was booked in)');
    expect(words(state(bookedAs(hub, 'ut9-6'), found('ut9-l')))).toBe('UT-9 L, left-hand bolt (found on the unit)');
    expect(joint(state(hub, found('ut9-l')), 'centre-bolt').joint.hand).toBe('left');
    expect(state({ ...hub, variants: hub.variants!.slice(0, 1) }).variant).toBeUndefined();
  });

  test('struck, the one before holds again', () => {
    const [entry] = book(hub, found('ut9-l'));
    const strike = { id: 'strike', kind: 'strike', payload: { reason: 'misread' }, strikes: entry!.id, step: null } as never;
    expect(joint(jobState(hub, [entry!]), 'centre-bolt').joint.hand).toBe('left');
    expect(joint(jobState(hub, [entry!, strike]), 'centre-bolt').joint.hand).toBe('right');
  });

  test('what was kept and has no place on it is named, and nothing else is', () => {
    const six = bookedAs(hub, 'ut9-6');
    const pulls = [pull(0), pull(5)];
    expect(state(six, ...pulls).misfits).toEqual([]);
    const other = state(six, ...pulls, found('ut9-5'));
    expect(other.misfits.map(({ payload }) => payload)).toEqual([pull(5).payload]);
    const damper: BookLine = { kind: 'tick', step: 'damper-on', payload: {} };
    const tensioner = demoSheet('ostrel-bt2-belt-tensioner');
    expect(state(tensioner, damper).misfits.map(({ step }) => step)).toEqual(['damper-on']);
    expect(state(bookedAs(tensioner, 'bt2-h'), damper).misfits).toEqual([]);
  });

  test('one that the sheet does not have is refused, with those that it has', () => {
    const wrongs = kindOf('variant').check!({ payload: { variant: 'ut9-7', seen: 'seven' } } as never, hub);
    expect(wrongs).toEqual([
      { field: 'payload.variant', given: 'ut9-7', allowed: 'is none of this sheet; it has: ut9-5, ut9-6, ut9-l, ut9-b' },
    ]);
  });
});

describe('the ways of a job', () => {
  const by = (way: string): BookLine => ({ kind: 'way', step: 'input-seal-in', payload: { way } });
  const gauge = {
    tag: 'M7',
    name: 'Depth gauge',
    kind: 'depth-gauge',
    quantity: 'length',
    unit: 'mm',
    u: 0.003,
    s: 0.002,
    resolution: 0.001,
  };
  /** What is said of a lip that stands so deep, mm. */
  const lip = (of: JobState, depth: number): unknown =>
    workingFor('seal-fitted', { seal: 'input-seal', depths: [depth] }, of.sheet, gauge as never)!.output['verdict'];
  const window = (of: JobState): string | undefined => find(of.sheet.seals, 'input-seal')!.depth?.to;

  test('with "inset" a deeper lip reads in; with "sleeve" the sleeve is on the parts list, and its step is asked for', () => {
    expect([window(state(box)), window(state(box, by('inset-past-the-track')))]).toEqual(['0.5 mm', '2 mm']);
    expect([lip(state(box), 1.5), lip(state(box, by('inset-past-the-track')), 1.5)]).toEqual(['out', 'in']);
    const all = bookedAs(box, 'pg540-1');
    expect(find(state(all).sheet.parts, 'input-sleeve')).toBeUndefined();
    expect(find(state(all, by('sleeve')).sheet.parts, 'input-sleeve')).toBeDefined();
    expect(stopsSigning(state(all, by('sleeve')))).toContain('Build: Sleeve on the input shaft');
    expect(stopsSigning(state(all))).not.toContain('Build: Sleeve on the input shaft');
  });

  test('the last one chosen holds', () => {
    expect(window(state(box, by('inset-past-the-track'), by('flush-as-made')))).toBe('0.5 mm');
  });
});
