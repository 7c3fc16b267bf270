import { describe, expect, test } from '@jest/globals';
import type { SheetFile } from '@jubb/sheet';
import { readSheetFile, reviewSheet } from '@jubb/sheet/editing';
import { sheetIssues } from '@jubb/sheet/file';
import { readFileSync, readdirSync } from 'node:fs';
import { checkByPlay } from './check.js';
import { routesOf } from './routes.js';

const FOLDER = new URL('../../../apps/server/demo/sheets/', import.meta.url);
const texts = readdirSync(FOLDER).map((name) => [name, readFileSync(new URL(name, FOLDER), 'utf8')] as const);
/** The file as it is written, to be spoilt. */
function named(part: string): SheetFile {
  const read = readSheetFile(texts.find(([name]) => name.includes(part))![1]);
  if (!read.ok) throw new Error(`${part} does not read`);
  return structuredClone(read.plain);
}
const step = (sheet: SheetFile, ref: string) => sheet.steps.find((one) => one.ref === ref)!;
const of = <T extends { readonly ref: string }>(rows: readonly T[] | undefined, ref: string): T => rows!.find((one) => one.ref === ref)!;
function without(sheet: SheetFile, ref: string): void {
  sheet.steps = sheet.steps.filter((one) => one.ref !== ref);
}

/** All that is said of a sheet, by whoever says it: the shape, the reader, the play. */
function said(sheet: SheetFile): string {
  const issues = sheetIssues(sheet as unknown as Record<string, unknown>);
  if (issues.length > 0) return issues.map(({ path, message }) => `${path} ${message}`).join('\n');
  const review = reviewSheet(sheet).findings.filter(({ severity }) => severity !== 'note');
  if (review.some(({ severity }) => severity === 'stop')) return review.map(({ say }) => say).join('\n');
  return [...review.map(({ say }) => say), ...checkByPlay(sheet).findings.map(({ say, on }) => `${say} (${on})`)].join('\n');
}

const sound = new Map<string, string>();
/** What is said of a sheet before it is spoilt, looked up once. */
function soundly(name: string): string {
  const before = sound.get(name) ?? said(named(name));
  sound.set(name, before);
  return before;
}

type Broken = readonly [name: string, sheet: string, spoil: (sheet: SheetFile) => unknown, words: RegExp];

const BROKEN: readonly Broken[] = [
  ['off, and never on', 'ps2', (s) => delete step(s, 'guard-on').putsIn, /Guard: comes off at “Guard off”, and no step puts it in/u],
  ['a seal that is out and never in', 'bn2', (s) => without(s, 'seal-in'), /Nose seal .*: comes off at .*, and no step puts it in/u],
  [
    'what is needed off and never comes off',
    'ps2',
    (s) => (step(s, 'guard-off').record.counts = step(s, 'guard-off').record.counts!.slice(0, 1)),
    /needs the guard off, and no step before takes it off/u,
  ],
  [
    'a seal that goes in and never came out',
    'bn2',
    (s) => without(s, 'seal-hooked-out'),
    /“Seal in” puts in the Nose seal .* which never came off \(Seal only/u,
  ],
  [
    'a joint that is pulled and was never undone',
    'mk7',
    (s) => without(s, 'cable-slackened'),
    /Locknut of the cable: pulled, and never undone/u,
  ],
  [
    'screws that come off and get no pull',
    'ps2',
    (s) => without(s, 'guard-on'),
    /Guard screws: its screws come off, and none gets a pull/u,
  ],
  [
    'a joint of each of several with one left out',
    'ac2',
    (s) => without(s, 'rod-caps') ?? (s.several![0]!.names = ['only one']),
    /several\[0\]\.names/u,
  ],
  [
    'a task that lacks a step',
    'cc1',
    (s) => (step(s, 'anchor-on').tasks = ['full-service']),
    /Brake anchor screw .*: comes off at “Wheel out”, and no step puts it in \(Adjust only/u,
  ],
  [
    'a variant that drops what takes a pull',
    'bn2',
    (s) => (of(s.variants, 'bn2-p').drops = ['rear-plate-on']),
    /Rear plate.*comes off|Rear plate screws: its screws come off/u,
  ],
  [
    'a setting that no reading can end',
    'ps2',
    (s) => Object.assign(of(s.settings, 'cross-play'), { method: 'castle-nut' }),
    /nut is missing; a castle nut needs/u,
  ],
  ['a proof that nobody can take', 'd44', (s) => delete of(s.settings, 'backlash').proof, /Backlash, at four places: no step proves it/u],
  [
    'a proof by a step that is not there',
    'd44',
    (s) => (of(s.settings, 'backlash').proof!.closes = 'lid-on'),
    /refers to a step "lid-on"/u,
  ],
  [
    'a proof by a step before it is set',
    'd44',
    (s) => (of(s.settings, 'backlash').proof!.closes = 'count'),
    /comes before the step that sets it/u,
  ],
  [
    'a proof by closing that names no step',
    'd44',
    (s) => delete of(s.settings, 'backlash').proof!.closes,
    /is missing; name the step that hides it/u,
  ],
  [
    'a proof by the whole with nothing taken off',
    'd44',
    (s) => delete of(s.settings, 'side-preload').proof!.less,
    /is missing; name what else of it is in the whole/u,
  ],
  [
    'a proof by the whole that takes off a length',
    'd44',
    (s) => (of(s.settings, 'side-preload').proof!.less = [{ limit: 'pinion-play' }]),
    /is a length; what is taken off a torque is a torque/u,
  ],
  [
    'a proof by the whole that takes off two at once',
    'd44',
    (s) => Object.assign(of(s.settings, 'side-preload').proof!.less![0]!, { limit: 'drag-as-found' }),
    /names a setting or a limit, one of the two/u,
  ],
  [
    'a length proved by a torque without a window',
    'd44',
    (s) => delete of(s.settings, 'side-preload').proof!.window,
    /what is left of the whole is a torque, and the setting is none/u,
  ],
  [
    'a share that is read after the proof',
    'sk2',
    (s) =>
      s.steps.push(
        ...s.steps.splice(
          s.steps.findIndex(({ ref }) => ref === 'seal-drag-read'),
          1,
        ),
      ),
    /is read after the proof; read it before/u,
  ],
  [
    'closed by a joint that does not lie over it',
    'gx5',
    (s) => {
      of(s.settings, 'output-preload').proof = { by: 'closing', closes: 'case-screws' };
      delete of(s.settings, 'output-preload').under;
    },
    /closes it, and its joint does not lie over it/u,
  ],
  [
    'proved before it is closed, and again',
    'd44',
    (s) => (of(s.settings, 'side-preload').proof = { by: 'closing', closes: 'cover-on' }),
    /proved before it is closed, and a step proves it again/u,
  ],
  [
    'a seat of another size than its ring',
    'd44',
    (s) => (of(s.fits, 'head-bearing').seat = '40 mm'),
    /a seat of 40 mm, and the bore of a 32306 is 30 mm/u,
  ],
  [
    'a bore of another size than its ring',
    'd44',
    (s) => (of(s.fits, 'tail-cup').seat = '72 mm'),
    /a seat of 72 mm, and the outside of a 30305 is 62 mm/u,
  ],
  [
    'a torque over what strips the hole',
    'pg540',
    (s) => (of(s.joints, 'input-cap').torque!.figure = '31 N·m'),
    /31 N·m is over the .* that M8 8.8 takes, dry/u,
  ],
  [
    'a torque over what oil leaves of it',
    'd44',
    (s) => Object.assign(of(s.joints, 'cap-screws'), { torque: { ...of(s.joints, 'cap-screws').torque!, figure: '115 N·m' } }),
    /is over the .* that M12 10.9 takes, oiled: the screw/u,
  ],
  [
    'an aim outside its window',
    'd44',
    (s) => (of(s.settings, 'backlash').aim!.figure = '0.3 mm'),
    /the aim of 0.3 mm lies outside the window/u,
  ],
  ['a fit apart that is none', 'd44', (s) => (step(s, 'head-bearing-and-shim-off').letsGo = ['tail-race']), /refers to a fit "tail-race"/u],
  [
    'a fit that lets go with one that is none',
    'bn2',
    (s) => (of(s.fits, 'shaft-in-front').off!.with = ['plate']),
    /refers to a fit "plate"/u,
  ],
  [
    'a variant that brings what is not there',
    'bn2',
    (s) => (of(s.variants, 'bn2-p').brings = ['idler']),
    /refers to a step or a part "idler"|"idler"/u,
  ],
  [
    'a way that changes a line that is not there',
    'd44',
    (s) => (step(s, 'head-bearing-on-with-its-shim').ways![1]!.changes![0]!.line = 'nothing'),
    /"nothing"/u,
  ],
  ['a step twice', 'd44', (s) => s.steps.push(structuredClone(s.steps[3]!)), /is used twice among the steps/u],
  ['an instance twice', 'ac2', (s) => (s.several![0]!.names = ['front', 'front']), /names "front" twice/u],
  [
    'a window upside down',
    'd44',
    (s) => Object.assign(of(s.settings, 'backlash').window, { from: '0.3 mm', to: '0.2 mm' }),
    /the window is upside down/u,
  ],
  ['passes that do not rise', 'd44', (s) => (of(s.joints, 'cap-screws').pattern.passes = [1, 0.5]), /must rise to 1/u],
  [
    'what must be ready begins after its step',
    'd44',
    (s) => (step(s, 'head-bearing-on-with-its-shim').lead!.from = 'cover-on'),
    /would begin after it/u,
  ],
  [
    'what holds for less than it takes',
    'd44',
    (s) => (step(s, 'head-bearing-on-with-its-shim').lead!.most = '5 min'),
    /must be over the time that it takes/u,
  ],
  [
    'a fastening that no step looks at',
    'd44',
    (s) => delete step(s, 'caps-on').seats,
    /Caps on their own side: no step looks whether it is home/u,
  ],
  ['a joint that no step comes to', 'd44', (s) => without(s, 'plug-tight'), /Filler plug: no step comes to it/u],
  ['nothing counts what goes back', 'd44', (s) => without(s, 'count'), /Nothing counts what came off|refers to a step "count"/u],
  ['nobody signs', 'd44', (s) => without(s, 'sign'), /No step has the foreman sign/u],
  ['a unit that is none', 'd44', (s) => (of(s.settings, 'backlash').window.to = '0.2 kPa'), /kPa/u],
  ['a seal without what reads its depth', 'bn2', (s) => delete of(s.seals, 'nose-seal').tool, /say what reads the depth/u],
];

describe('a broken sheet', () => {
  test('is one of a list that is long enough', () => {
    expect(BROKEN.length).toBeGreaterThanOrEqual(40);
    expect(new Set(BROKEN.map(([name]) => name)).size).toBe(BROKEN.length);
  });

  test.each(BROKEN)('%s is named for what is wrong', (_, name, spoil, words) => {
    expect(soundly(name)).toBe('');
    const sheet = named(name);
    spoil(sheet);
    expect(said(sheet)).toMatch(words);
  });
});

test('every way through the library plays to the end, and each is told as it is done', () => {
  const counts = texts.map(([name]) => {
    const sheet = named(name);
    const told: string[] = [];
    const { routes, findings } = checkByPlay(sheet, (done, ways) => told.push(`${done}/${ways}`));
    expect({ name, findings }).toEqual({ name, findings: [] });
    expect(told).toEqual(Array.from({ length: routes }, (_, at) => `${at + 1}/${routes}`));
    return routes;
  });
  expect(counts.reduce((sum, count) => sum + count, 0)).toBeGreaterThan(200);
});

test('a way through a sheet is a task in a variant by one way; the shop’s own is said by none', () => {
  const routes = routesOf(named('d44'));
  expect(routes.slice(0, 2).map(({ words }) => words)).toEqual(['Whole axle, D44, 3.727', 'Whole axle, D44, 3.727, Press']);
  expect(routes[1]!.begins).toEqual([{ kind: 'way', step: 'head-bearing-on-with-its-shim', payload: { way: 'press' } }]);
  expect(new Set(routes.map(({ words }) => words)).size).toBe(routes.length);
});
