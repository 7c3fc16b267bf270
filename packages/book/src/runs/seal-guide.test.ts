import { expect, test } from '@jest/globals';
import { workings } from '@jubb/core';
import { demoSheet } from '../book.test-kit.js';
import { presetForSeal, sealSize, workingsForSeal } from './seal-guide.js';

test.each([
  ['44 × 72 × 10', { shaft: '44 mm', bore: '72 mm', width: '10 mm' }],
  ['240 × 4', { inside: '240 mm', section: '4 mm' }],
  ['48 × 2.65', { inside: '48 mm', section: '2.65 mm' }],
  ['bead 1.5 mm', { bead: '1.5 mm' }],
  ['185, toric 12', {}],
  ['7-hole', {}],
  ['by the cover', {}],
  ['30', {}],
])('"%s" says %j', (size, said) => {
  expect(sealSize(size)).toEqual(said);
});

test('each kind of seal has what helps there first, and none has what it cannot use', () => {
  expect(workingsForSeal({ kind: 'lip-seal' })).toEqual(['seal.wear-track', 'seal.lip', 'seal.size', 'seal.material']);
  expect(workingsForSeal({ kind: 'o-ring' })).toEqual([
    'oring.check',
    'oring.pick',
    'oring.no-groove',
    'oring.extrusion',
    'seal.material',
    'oring.drag',
  ]);
  expect(workingsForSeal({ kind: 'sealant' })).toEqual(['seal.sealant']);
  expect(workingsForSeal({ kind: 'bellows' })).toEqual(['seal.face-compression', 'seal.material']);
  expect(workingsForSeal({ kind: 'gasket' })).toEqual(['gasket.compress']);
});

test('what the sheet says of a seal is not asked again, and is read by the working as it stands', () => {
  const { seals } = demoSheet('ostrel-d44-drive-axle');
  const pinion = seals.find(({ ref }) => ref === 'pinion-seal')!;
  expect(presetForSeal('seal.lip', pinion)).toEqual({ shaft: '44 mm', bore: '72 mm', material: 'NBR' });
  expect(presetForSeal('seal.wear-track', pinion)).toEqual({ width: '10 mm', most: '0.5 mm' });
  // A material in words is asked.
  expect(presetForSeal('seal.material', { ...pinion, material: 'silicone for axle oil' })).toEqual({ medium: 'hypoid-oil' });
  for (const id of workingsForSeal(pinion)) {
    const fields = workings.describe(id)!.inputs.map(({ name }) => name);
    expect(fields).toEqual(expect.arrayContaining(Object.keys(presetForSeal(id, pinion))));
  }
  const result = workings.run('seal.lip', { ...presetForSeal('seal.lip', pinion), speed: 2000 });
  expect(result?.ok && result.run.output).toMatchObject({ verdict: 'in', surface: expect.closeTo(4.608, 3) });
});
