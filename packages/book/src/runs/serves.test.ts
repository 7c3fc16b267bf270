import { expect, test } from '@jest/globals';
import { workings } from '@jubb/core';
import { FAMILIES, SEAL_KINDS, SETTING_KINDS, SETTING_METHODS } from '@jubb/sheet';
import { partAbout, workingsAt, workingsForSetting } from './setting-guide.js';

const served = workings.list().flatMap((working) => workings.servesOf(working.id).map((serves) => ({ working, serves })));

test('where a working serves is named as sheets name it, and gives it what it asks', () => {
  expect(served.length).toBeGreaterThan(30);
  const named = (list: readonly string[] = [], known: readonly string[]): readonly string[] => list.filter((one) => !known.includes(one));
  for (const { working, serves } of served) {
    expect(named([...(serves.families ?? []), ...(serves.butNot ?? [])], FAMILIES)).toEqual([]);
    expect(named(serves.kinds, serves.at === 'seal' ? SEAL_KINDS : SETTING_KINDS)).toEqual([]);
    expect(named(serves.methods, SETTING_METHODS)).toEqual([]);
    expect(
      named(
        Object.keys(serves.preset ?? {}),
        working.inputs.map(({ name }) => name),
      ),
    ).toEqual([]);
    const outputs = working.outputs.map(({ name }) => name);
    expect(named(serves.packs, outputs)).toEqual([]);
    const before = Object.values(serves.preset ?? {}).flatMap((from) => (from.startsWith('before.') ? from.slice('before.'.length) : []));
    expect(named(before, outputs)).toEqual([]);
  }
});

test.each([
  ['preload', 'crush-sleeve', 'drive axle with pinion and carrier', ['bearing.crush-sleeve', 'bearing.rolling-torque']],
  ['end-play', 'shims', 'drive axle with pinion and carrier', ['bearing.shim', 'gear.pinion-depth']],
  ['end-play', 'shims', 'PTO gearbox', ['bearing.shim', 'bearing.thermal']],
  ['end-play', 'castle-nut', 'tapered-roller wheel hub with castle nut', []],
  ['compression', 'shims', 'dripless shaft seal with bellows', []],
] as const)('%s by %s on a %s is set with %j', (kind, method, family, ids) => {
  expect(workingsForSetting({ kind, method }, family)).toEqual(ids);
});

test('an alternator is judged coil by coil, in the order of the bench; any build asks for its fits', () => {
  expect(workingsAt('measure', 'alternator')).toEqual([
    'alternator.rotor',
    'alternator.stator',
    'alternator.diodes',
    'alternator.brushes',
    'alternator.output',
    'measure.at-20',
  ]);
  expect(workingsAt('build', 'brake cylinder').slice(0, 2)).toEqual(['fit.measured', 'fit.press']);
});

test('a working proposes the part that it is likely about', () => {
  const parts = [{ name: 'Stator' }, { name: 'Rotor' }] as never;
  expect(partAbout('alternator.rotor', parts)).toEqual({ name: 'Rotor' });
  expect(partAbout('bearing.life', parts)).toBeUndefined();
});
