import { describe, expect, test } from '@jest/globals';
import { checkSheet } from '../checking/check.js';
import { reshapeIssues } from '../checking/reshape-issues.js';
import { named } from '../library.test-kit.js';
import type { SheetFile } from './file.js';
import { reshaped } from './reshape.js';
import { find } from './resolve.js';
import { scopeSheet } from './scope.js';

const pump = named('tindlebrook-ac2');
const { file } = scopeSheet(pump, { tasks: ['whole-compressor'] });
const refs = (list: readonly { readonly ref: string }[], of: string): readonly string[] =>
  list.map(({ ref }) => ref).filter((ref) => ref.startsWith(of));

/** What points to nothing; causes, kits, variants and ways speak of the lines as the sheet has them. */
const loose = (sheet: SheetFile) => checkSheet(sheet).filter(({ path }) => !/^(?:variants|causes|kits)\[|\.ways\[/u.test(path));

describe('several of a kind', () => {
  test('two heads of six screws are two torque runs, each step and setting its own, with its name', () => {
    expect(refs(file.joints, 'head-screws')).toEqual(['head-screws--first-cylinder', 'head-screws--second-cylinder']);
    expect(file.joints.filter(({ base }) => base === 'head-screws').map(({ name, count }) => [name, count])).toEqual([
      ['Head screws, first cylinder', 6],
      ['Head screws, second cylinder', 6],
    ]);
    expect(find(file.steps, 'heads-on--second-cylinder')?.record.joint).toBe('head-screws--second-cylinder');
    expect(refs(file.settings, 'top-clearance')).toHaveLength(2);
    expect(refs(file.parts, 'head-screws')).toEqual(['head-screws']);
  });

  test('as many as come off are pulled', () => {
    for (const part of ['head-screws', 'cylinder-nuts', 'rod-screws']) {
      const pulled = file.joints.filter((joint) => joint.part === part).reduce((sum, { count }) => sum + count, 0);
      expect(pulled).toBe(find(file.parts, part)!.quantity);
    }
  });

  test('a list from outside holds all of them; what must be done again is due for each', () => {
    const closing = (file.obligations ?? []).filter(({ closedBy }) => closedBy.startsWith('top-set'));
    expect(closing.map(({ closedBy, name }) => [closedBy, name.split(', ').at(-1)])).toEqual([
      ['top-set--first-cylinder', 'first cylinder'],
      ['top-set--second-cylinder', 'second cylinder'],
    ]);
    expect(loose(file)).toEqual([]);
  });

  test.each(pump.tasks!.map(({ ref }) => ref))('%s alone: every pointer points', (task) => {
    expect(loose(scopeSheet(pump, { tasks: [task] }).file)).toEqual([]);
  });

  test('a variant speaks of the line as the sheet has it', () => {
    const small = reshaped(scopeSheet(pump, { tasks: ['whole-compressor'], variant: 'ac1' }).file, { variant: 'ac1' });
    expect(small.joints.filter(({ base }) => base === 'head-screws').map(({ count }) => count)).toEqual([4, 4]);
  });

  test('a build that has fewer of them asks for fewer', () => {
    const asked = (variant: string): readonly string[] => {
      const hub = scopeSheet(named('askvale-ph80'), { tasks: ['whole-hub'], variant }).file;
      const built = reshaped(hub, { variant });
      expect(loose(built)).toEqual([]);
      // What only the fourth is measured by is gone with it.
      expect(refs(built.limits, 'pin-size')).toHaveLength(refs(built.steps, 'pins-measured').length);
      return refs(built.steps, 'pins-measured');
    };
    expect(asked('ph80-4')).toHaveLength(4);
    expect(asked('ph80-3')).toEqual(['pins-measured--planet-1', 'pins-measured--planet-2', 'pins-measured--planet-3']);
    expect(asked('ph65')).toHaveLength(3);
  });

  test('a variant has none that the sheet does not name', () => {
    const hub = structuredClone(named('askvale-ph80')) as SheetFile;
    const change = hub.variants![0]!.changes!.find(({ list }) => list === 'several')!;
    change.is = 'planet 1; planet 5';
    expect(reshapeIssues(hub)).toEqual([
      expect.objectContaining({
        path: 'variants[0].changes[0].is',
        given: 'planet 5',
        message: expect.stringContaining('is none of them'),
      }),
    ]);
  });

  test('on two sides there are four, by both names', () => {
    const sided: SheetFile = { ...pump, sides: ['left', 'right'] };
    const both = scopeSheet(sided, { tasks: ['whole-compressor'], sides: ['left', 'right'] }).file;
    expect(refs(both.joints, 'rod-screws')).toEqual([
      'rod-screws--first-cylinder--left',
      'rod-screws--second-cylinder--left',
      'rod-screws--first-cylinder--right',
      'rod-screws--second-cylinder--right',
    ]);
    expect(both.joints.every(({ base }) => base === undefined || !base.includes('--'))).toBe(true);
    expect(loose(both)).toEqual([]);
  });

  test.each<readonly [string, (sheet: SheetFile) => SheetFile, string]>([
    [
      'one of several that is named from outside',
      (sheet) => ({ ...sheet, steps: sheet.steps.map((step) => (step.ref === 'heads-on' ? plain(step) : step)) }),
      'is there of each of several (first cylinder, second cylinder): say "each: cylinders" of this line too',
    ],
    [
      'what is of each of nothing',
      (sheet) => ({ ...sheet, joints: sheet.joints.map((joint) => (joint.each ? { ...joint, each: 'heads' } : joint)) }),
      'refers to several of a kind "heads", which the sheet does not have',
    ],
    [
      'an instance twice',
      (sheet) => ({ ...sheet, several: [{ ref: 'cylinders', name: 'cylinder', names: ['first', 'first'] }] }),
      'names "first" twice',
    ],
  ])('%s is refused at its field', (_, broken, message) => {
    expect(checkSheet(broken(pump)).map((issue) => issue.message)).toContainEqual(expect.stringContaining(message));
  });
});

function plain<L extends { readonly each?: string }>({ each: _, ...line }: L): Omit<L, 'each'> {
  return line;
}
