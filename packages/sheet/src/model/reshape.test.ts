import { describe, expect, test } from '@jest/globals';
import { all, named } from '../library.test-kit.js';
import { sheetIssues } from '../checking/sheet-issues.js';
import { reviewSheet } from '../review/review.js';
import type { SheetFile, Variant } from './file.js';
import { find } from './resolve.js';
import { reshaped, reshapings } from './reshape.js';
import { scopeSheet } from './scope.js';

const issuesOf = (sheet: SheetFile): readonly string[] =>
  sheetIssues(sheet as unknown as Record<string, unknown>).map(({ path, message }) => `${path}: ${message}`);

/** A sheet with something else in one of its variants. */
function withVariant(name: string, ref: string, change: (variant: Variant) => void): SheetFile {
  const sheet = named(name);
  change(find(sheet.variants!, ref)!);
  return sheet;
}

describe('where it is done', () => {
  const tensioner = named('bt2');
  const at = (place?: 'in place' | 'on the bench'): SheetFile =>
    reshaped(scopeSheet(tensioner, place ? { place } : {}).file, { variant: 'bt2-h' });
  const steps = (sheet: SheetFile): readonly string[] => sheet.steps.map(({ ref }) => ref);

  test('in its machine a unit has steps that it has not on the bench, with what they take off and what they make necessary', () => {
    expect(steps(at('in place'))).toEqual(steps(tensioner));
    const bench = at('on the bench');
    expect(steps(tensioner).filter((ref) => !steps(bench).includes(ref))).toEqual([
      'listened-to',
      'on-stands',
      'hose-off',
      'hose-on',
      'coolant-in',
      'off-stands',
    ]);
    expect(find(bench.parts, 'top-hose')).toBeUndefined();
    expect(find(bench.fluids, 'coolant')).toBeUndefined();
    expect(bench.obligations?.map(({ ref }) => ref)).not.toContain('hose-off-level-again');
    expect(steps(at())).toEqual(steps(bench));
  });

  test('a sheet that knows no difference is the same in both', () => {
    const axle = named('sk2');
    expect(scopeSheet(axle, { place: 'in place' }).file).toEqual(scopeSheet(axle, { place: 'on the bench' }).file);
  });
});

describe('a variant makes the sheet another one', () => {
  const axle = named('d44');

  test('its fields stand in the place of the others, and nothing else moves', () => {
    const heavy = reshaped(axle, { variant: 'd44-hd' });
    const preload = (sheet: SheetFile) => find(sheet.settings, 'pinion-preload')!;
    expect([preload(heavy).window.from, preload(heavy).window.to, preload(heavy).windowUsed?.to]).toEqual(['2.5 N·m', '4 N·m', '2 N·m']);
    // Where it comes from stays beside it.
    expect(preload(heavy).window.source).toBe(preload(axle).window.source);
    expect(find(heavy.joints, 'cover-screws')!.count).toBe(12);
    expect(find(heavy.steps, 'cover-off')!.record.counts!.find(({ part }) => part === 'cover-screws')!.count).toBe(12);
    expect(heavy.seals).toEqual(axle.seals);
    expect(find(axle.joints, 'cover-screws')!.count).toBe(9);
  });

  test('the first is the sheet as it stands, and is taken where none is named', () => {
    const compressor = named('rx10');
    expect(reshaped(compressor, {})).toBe(compressor);
    expect(reshaped(compressor, { variant: 'rx10-up' })).toBe(compressor);
    expect(reshaped(compressor, { variant: 'of another sheet' })).toBe(compressor);
  });

  test('what only one has is not there on the others, with all that was there for it', () => {
    const [plain, damped] = ['bt2-l', 'bt2-h'].map((variant) => reshaped(named('bt2'), { variant })) as [SheetFile, SheetFile];
    expect([plain, damped].map(({ parts }) => parts.some(({ ref }) => ref === 'damper'))).toEqual([false, true]);
    expect([plain, damped].map(({ joints }) => joints.some(({ ref }) => ref === 'damper-screws'))).toEqual([false, true]);
    expect([plain, damped].map(({ steps }) => steps.some(({ ref }) => ref === 'damper-on'))).toEqual([false, true]);
    const off = find(plain.steps, 'tensioner-off')!.record.counts!.map(({ part }) => part);
    expect(off).toEqual(['mount-screws', 'idler-screw']);
  });

  test('a part that is not there takes its joint, its seal and their steps with it', () => {
    const fork = reshaped(named('sk2'), { variant: 'sk2-fork' });
    expect(fork.seals.map(({ ref }) => ref)).not.toContain('wiper-seal');
    expect(fork.steps.map(({ ref }) => ref)).not.toContain('plate-screws-tight');
    expect(fork.steps.map(({ ref }) => ref)).toContain('boot-on');
    expect(fork.fastenings!.map(({ ref }) => ref)).toContain('boot-clips');
    expect(reshaped(named('sk2'), {}).fastenings!.map(({ ref }) => ref)).not.toContain('boot-clips');
  });

  test('on each side of a job that has two, and in what its tasks leave of the sheet', () => {
    const sheet = { ...named('ut9'), sides: ['Left', 'Right'] };
    const scoped = scopeSheet(sheet, { variant: 'ut9-l', sides: ['Left', 'Right'], tasks: ['bolt-only'] }).file;
    expect(scoped.build).toBe('ut9-l');
    const hands = reshaped(scoped, { variant: scoped.build }).joints.filter(({ base }) => base === 'centre-bolt');
    expect(hands.map(({ hand, side }) => [side, hand])).toEqual([
      ['Left', 'left'],
      ['Right', 'left'],
    ]);
  });
});

describe('a way makes the job another one', () => {
  const box = named('pg540');
  const by = (way: string): SheetFile => reshaped(box, { ways: new Map([['input-seal-in', way]]) });
  const depth = (sheet: SheetFile): string | undefined => find(sheet.seals, 'input-seal')!.depth?.to;

  test('"inset" moves the window, "sleeve" brings part and step, and the shop’s own has neither', () => {
    expect(['flush-as-made', 'inset-past-the-track', 'sleeve'].map((way) => depth(by(way)))).toEqual(['0.5 mm', '2 mm', '0.5 mm']);
    const hasSleeve = ({ parts, steps }: SheetFile): readonly boolean[] => [
      parts.some(({ ref }) => ref === 'input-sleeve'),
      steps.some(({ ref }) => ref === 'sleeve-on'),
    ];
    expect(hasSleeve(by('sleeve'))).toEqual([true, true]);
    expect(hasSleeve(by('inset-past-the-track'))).toEqual([false, false]);
    expect(hasSleeve(reshaped(box, {}))).toEqual([false, false]);
  });

  test('of one side alone', () => {
    const scoped = scopeSheet({ ...box, sides: ['Left', 'Right'] }, { sides: ['Left', 'Right'] }).file;
    const left = reshaped(scoped, { ways: new Map([['input-seal-in--left', 'sleeve']]) });
    expect(left.parts.filter(({ base }) => base === 'input-sleeve').map(({ side }) => side)).toEqual(['Left']);
    expect(left.steps.filter(({ base }) => base === 'sleeve-on').map(({ side }) => side)).toEqual(['Left']);
  });
});

test.each(all)('%s holds together in every variant and by every way', (_, sheet) => {
  for (const { chosen, of } of reshapings(sheet)) {
    const made = reshaped(sheet, chosen);
    const stops = reviewSheet({ ...made, variants: [], steps: made.steps.map(({ ways: _ways, ...step }) => step) }).findings.filter(
      ({ severity }) => severity === 'stop',
    );
    expect([of.ref, stops.map(({ say }) => say)]).toEqual([of.ref, []]);
  }
});

describe('what cannot be is refused at its field', () => {
  test.each([
    ['a line that is not there', { changes: [{ list: 'joints', line: 'wing-nuts', field: 'count', is: '4' }] }, 'changes[0].line'],
    ['a part that is not there', { drops: ['wing-nuts'] }, 'drops[0]'],
    ['a step that is not there', { brings: ['polish-it'] }, 'brings[0]'],
    ['brought and dropped at once', { brings: ['pinion'], drops: ['pinion'] }, 'brings[0]'],
    ['a figure that is none', { changes: [{ list: 'settings', line: 'backlash', field: 'window.to', is: '0.2 kg' }] }, 'variants[2]'],
    ['a window upside down', { changes: [{ list: 'settings', line: 'backlash', field: 'window.to', is: '0.1 mm' }] }, 'variants[2]'],
    ['a hand that is none', { changes: [{ list: 'joints', line: 'pinion-nut', field: 'hand', is: 'both' }] }, 'changes[0].is'],
    ['a count that is none', { changes: [{ list: 'joints', line: 'pinion-nut', field: 'count', is: 'some' }] }, 'changes[0].is'],
    ['a field that is not there', { changes: [{ list: 'joints', line: 'pinion-nut', field: 'handed', is: 'left' }] }, 'changes[0].is'],
    ['what stands there already', { changes: [{ list: 'joints', line: 'pinion-nut', field: 'hand', is: 'right' }] }, 'changes[0].field'],
    [
      'a part that a step still points to',
      { changes: [{ list: 'joints', line: 'pinion-nut', field: 'part', is: 'wing-nut' }] },
      'variants[2]',
    ],
    ['a list that is none', { changes: [{ list: 'documents', line: 'wm', field: 'title', is: 'Other' }] }, 'changes[0].list'],
  ])('%s', (_, change, at) => {
    const sheet = withVariant('d44', 'd44-hd', (variant) => Object.assign(variant, { changes: [], ...change }));
    const issues = issuesOf(sheet);
    expect(issues.length).toBeGreaterThan(0);
    expect(issues[0]).toContain('variants[2]');
    expect(issues[0]).toContain(at);
  });

  test('a way is looked at as a variant is', () => {
    const sheet = named('pg540');
    sheet.steps.find(({ ref }) => ref === 'input-seal-in')!.ways![1]!.changes![1]!.is = '0.2 mm';
    expect(issuesOf(sheet)[0]).toMatch(/^steps\[\d+\]\.ways\[1\]: does not hold together: Seals.*upside down/u);
  });

  test('a variant that differs in words alone', () => {
    const sheet = withVariant('d44', 'd44-hd', (variant) => delete variant.changes);
    const found = reviewSheet(sheet).findings.find(({ list, ref }) => list === 'variants' && ref === 'd44-hd');
    expect(found).toMatchObject({ severity: 'stop', say: 'D44 HD, 4.091 differs in words alone: the job would go by the first variant' });
  });
});
