import { expect, test } from '@jest/globals';
import type { Tool } from '@jubb/sheet';
import { KEYMAP, keysHelp } from './keymap.ts';
import { amountText, minorOf, percentText } from './money.ts';
import { pickTool } from './tool-pick.tsx';

test('no key means two things, and help tells every one', () => {
  const keys = Object.values(KEYMAP).flatMap(({ keys: own }) => [...own]);
  expect(new Set(keys).size).toBe(keys.length);
  expect(keysHelp('bench')).toHaveLength(Object.keys(KEYMAP).length);
  // Letters of a single step: a, c, d, t, w and x are theirs.
  expect(keys.filter((key) => ['a', 'c', 'd', 't', 'w', 'x'].includes(key))).toEqual([]);
});

test.each([
  ['420', 42_000],
  ['420,50', 42_050],
  [' 0.07 ', 7],
  ['1.005', undefined],
  ['-3', undefined],
  ['12 EUR', undefined],
  ['', undefined],
])('an amount typed as "%s" is %s minor units', (typed, minor) => {
  expect(minorOf(typed)).toBe(minor);
});

test('an amount reads back as it was typed', () => {
  for (const minor of [0, 1, 99, 100, 12_345, 9_999_999]) expect(minorOf(amountText(minor))).toBe(minor);
  expect([percentText(0.2), percentText(0.075)]).toEqual(['20', '7.5']);
});

test('a tool is of the kind that is asked for; where a sheet names none, any that reads it and reaches there', () => {
  const tool = (id: string, kind: string, quantity: Tool['quantity'], high: number): Tool => ({
    ...{ id, tag: id, name: kind, kind, quantity, unit: 'mm', low: 0, high },
    ...{ resolution: 0.01, u: 0.02, s: 0, length: null, calibrationDue: null },
  });
  const crib = [tool('W', 'torque-wrench', 'torque', 200), tool('M', 'micrometer', 'length', 25), tool('K', 'calliper', 'length', 150)];
  const at = (base: number): { quantity: 'length'; base: number } => ({ quantity: 'length', base });
  const picked = (kind: string | undefined, base: number): string | undefined => pickTool(crib, kind, at(base), undefined, 'length')?.id;
  expect([picked('micrometer', 20), picked('micrometer', 40), picked('dial-indicator', 1)]).toEqual(['M', undefined, undefined]);
  expect([picked(undefined, 20), picked(undefined, 40), picked(undefined, 400)]).toEqual(['M', 'K', undefined]);
  expect(pickTool(crib, undefined, undefined, 'K', 'length')?.id).toBe('K');
});
