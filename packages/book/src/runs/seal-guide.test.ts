import { expect, test } from '@jest/globals';
import { workings } from '@jubb/core';
import type { Tool } from '@jubb/sheet';
import type { SealLine } from '../parts/stock.js';
import { book, demoSheet } from '../book.test-kit.js';
import { entryWords } from '../kinds/registry.js';
import { earlierOf } from './earlier.js';
import { looksThroughSeals, presetForSeal, sealDriver, sealSize, workingsForSeal } from './seal-guide.js';

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
  expect(workingsForSeal({ kind: 'lip-seal' })).toEqual([
    'seal.wear-track',
    'seal.lip',
    'seal.size',
    'seal.press',
    'press.sleeve',
    'seal.material',
    'seal.shelf-life',
  ]);
  expect(workingsForSeal({ kind: 'o-ring' })).toEqual([
    'oring.check',
    'oring.pick',
    'oring.no-groove',
    'oring.extrusion',
    'seal.material',
    'oring.drag',
    'oring.cord',
    'seal.shelf-life',
  ]);
  expect(workingsForSeal({ kind: 'sealant' })).toEqual(['seal.sealant']);
  expect(workingsForSeal({ kind: 'bellows' })).toEqual(['seal.face-compression', 'seal.material']);
  expect(workingsForSeal({ kind: 'gasket' })).toEqual(['gasket.compress', 'gasket.make']);
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

test('the crib’s driver for a lip seal is under its bore and no more than that; none where none fits', () => {
  const tool = (tag: string, kind: string, low: number, high: number): Tool => ({
    ...{ id: tag, tag, name: 'driver', kind, quantity: 'length', unit: 'mm', low, high },
    ...{ resolution: 0, u: 0, s: 0, length: null, calibrationDue: null },
  });
  const crib = [
    tool('V5', 'driver', 50, 61.5),
    tool('V6', 'driver', 58, 71.5),
    tool('V7', 'driver', 66, 79.5),
    tool('M1', 'micrometer', 0, 72),
  ];
  const seal = { kind: 'lip-seal', size: '44 × 72 × 10' } as const;
  expect(sealDriver(seal, crib)).toEqual({ outsideMost: 71.5, which: 'V6 driver' });
  expect(sealDriver(seal, crib.slice(0, 1))).toEqual({ outsideMost: 71.5 });
  expect(sealDriver({ kind: 'o-ring', size: '44 × 3' }, crib)).toBeUndefined();
  expect(sealDriver({ kind: 'lip-seal', size: 'by the maker' }, crib)).toBeUndefined();
});

test('the driver of the last time is offered again', () => {
  const axle = demoSheet('ostrel-d44-drive-axle');
  const given = { seal: 'pinion-seal', directionSeen: true, lubricated: true, depths: [0.2], unit: 'mm' };
  const jobs = [
    book(axle, { kind: 'seal-fitted', payload: given }),
    book(axle, { kind: 'seal-fitted', payload: { ...given, driver: 'tube 70' } }),
  ];
  expect(earlierOf(axle, jobs).seals).toEqual([{ seal: 'pinion-seal', driver: 'tube 70' }]);
  expect(entryWords(jobs[1]![0]!, axle)).toContain('fitted, tube 70, depth');
});

test('what lies on the shelf is looked through, but for rubber that the seal’s fluid takes apart', () => {
  const line = (number: string, size: string, material: string | null): SealLine =>
    ({ number, size, material, shore: material === null ? null : 70, location: 'R1-1', usable: 4 }) as unknown as SealLine;
  const lines = [line('A', '20 x 2.65', 'NBR'), line('B', '20 × 2.65', 'EPDM'), line('C', '44 × 72 × 10', 'FKM'), line('D', 'large', null)];
  const ring = { ...demoSheet('harrowmere-hs40-steering-cylinder').seals.find(({ ref }) => ref === 'cap-ring')! };
  expect(presetForSeal('oring.pick', ring, lines)).toEqual({ shelf: [{ name: 'A, NBR 70, R1-1', inside: 20, section: 2.65 }] });
  const pinion = demoSheet('ostrel-d44-drive-axle').seals.find(({ ref }) => ref === 'pinion-seal')!;
  expect(presetForSeal('seal.size', pinion, lines)['shelf']).toEqual([{ name: 'C, FKM 70, R1-1', shaft: 44, bore: 72, width: 10 }]);
  expect(presetForSeal('oring.pick', ring)).toEqual({});
  expect([looksThroughSeals('oring.pick'), looksThroughSeals('seal.lip')]).toEqual([true, false]);
});
