import { expect, test } from '@jest/globals';
import { OPEN_OHM } from '@jubb/core';
import type { Fluid, Limit } from '@jubb/sheet';
import { amountAsked, plausibleReadings, spreadOf } from './plausible.js';

const limit = (fields: object): Limit => ({ ref: 'l', name: 'Limit', whenOut: 'renew', ...fields }) as unknown as Limit;

test.each([
  ['a journal', { kind: 'size', service: { figure: '', from: '39.98 mm', to: '40 mm' } }, { least: 19.99, most: 60 }],
  ['a play', { kind: 'size', service: { figure: '', to: '0.15 mm' } }, { least: 0, most: 5 }],
  ['a chain’s slack', { kind: 'size', service: { figure: '', from: '4 mm', to: '16 mm' } }, { least: 2, most: 24 }],
  ['a depth that may be nothing', { kind: 'size', service: { figure: '', from: '0 mm', to: '30 mm' } }, { least: 0, most: 45 }],
  ['a winding', { kind: 'value', quantity: 'resistance', service: { figure: '', to: '1 ohm' } }, { least: -20_000, most: OPEN_OHM }],
])('of %s a reading may be anything that is no slip', (_, fields, range) => {
  expect(plausibleReadings(limit(fields))).toEqual(range);
});

test('a tool spreads by the larger of its spread and its step', () => {
  expect([spreadOf({ s: 0.003, resolution: 0.001 }), spreadOf({ s: 0.001, resolution: 0.01 }), spreadOf(undefined)]).toEqual([
    0.003, 0.01, 0,
  ]);
});

test.each([
  [
    { amount: { figure: '250 g' }, tolerance: '4 %' },
    { wanted: 0.25, from: 0.24, to: 0.26, tolerance: '4 %' },
  ],
  [{ amount: { figure: '250 g' } }, { wanted: 0.25, from: 0.225, to: 0.275, tolerance: '10 %' }],
  [{ until: 'it shows at the plug' }, undefined],
])('of %j is asked %j', (fields, asked) => {
  const found = amountAsked(fields as unknown as Fluid);
  expect(found).toEqual(
    asked && { ...asked, wanted: expect.closeTo(asked.wanted), from: expect.closeTo(asked.from), to: expect.closeTo(asked.to) },
  );
});
