import { expect, test } from '@jest/globals';
import { KEYMAP, keysHelp } from './keymap.ts';
import { amountText, minorOf, percentText } from './money.ts';

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
