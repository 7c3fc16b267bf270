import type { SheetFile } from '@jubb/sheet';
import type { Decision } from '../decisions.js';
import { kitsFor, needsOf, orderNumber } from './needs.js';
import { quoteTotal } from './quote.js';
import { describe, expect, test } from '@jest/globals';

describe('the number to order', () => {
  test('the end of a chain; a ring of numbers ends where it began', () => {
    expect(
      orderNumber({
        number: 'A',
        superseded: [
          { number: 'B', by: 'C' },
          { number: 'A', by: 'B' },
        ],
      }),
    ).toBe('C');
    expect(
      orderNumber({
        number: 'A',
        superseded: [
          { number: 'A', by: 'B' },
          { number: 'B', by: 'A' },
        ],
      }),
    ).toBe('A');
    expect(orderNumber({})).toBeNull();
  });
});

describe('a fluid', () => {
  const amountOf = (figure: string): unknown =>
    needsOf({
      sheet: { parts: [], fluids: [{ ref: 'oil', name: 'Oil', grade: '90', rule: '', amount: { figure } }] } as unknown as SheetFile,
      decisions: [],
    }).map(({ pieces, unit }) => [pieces, unit]);

  // US and imperial measures by NIST Handbook 44, appendix C; the ounce of mass is the avoirdupois one.
  test.each([
    ['0.75 L', 0.75, 'L'],
    ['1,9 l', 1.9, 'L'],
    ['2 US qt', 1.893, 'L'],
    ['1 US pt', 0.473, 'L'],
    ['250 cm³', 0.25, 'L'],
    ['1.5 dm³', 1.5, 'L'],
    ['0.5 US gal', 1.893, 'L'],
    ['40 g', 0.04, 'kg'],
    ['3 oz', 0.085, 'kg'],
  ])('of %s is ordered as %d %s', (figure, pieces, unit) => {
    expect(amountOf(figure)).toEqual([[pieces, unit]]);
  });

  test.each(['to the hole', '3', '0 L'])('of "%s" has no amount to be ordered', (figure) => {
    expect(amountOf(figure)).toEqual([]);
  });
});

const part = (ref: string, number: string, quantity = 1): Decision['part'] =>
  ({ ref, name: ref, number, quantity, policy: 'inspect' }) as Decision['part'];
const decision = (of: Decision['part'], fate: 'renew' | 'reuse', decided = true): Decision =>
  ({
    part: of,
    proposed: fate,
    because: 'its limit is out',
    ...(decided ? { entry: { payload: { part: of.ref, fate, quantity: of.quantity } } } : {}),
  }) as Decision;

describe('what a job needs', () => {
  const parts = [
    { ...part('seal--left', 'S-1'), base: 'seal' },
    { ...part('seal--right', 'S-1'), base: 'seal' },
    part('screws', 'B-2', 6),
    part('shaft', 'W-3'),
  ];
  const sheet = {
    parts,
    fluids: [
      { ref: 'oil', name: 'Oil', grade: '90', rule: 'to the hole', amount: { figure: '0,75 L' } },
      { ref: 'grease', name: 'Grease', grade: '2', rule: '' },
    ],
    kits: [
      { ref: 'kit', name: 'Seal kit', number: 'K-1', parts: ['seal', 'screws'] },
      { ref: 'other', name: 'Other', parts: ['shaft'] },
    ],
  } as unknown as SheetFile;
  const needs = needsOf({
    sheet,
    decisions: [
      decision(parts[0]!, 'renew'),
      decision(parts[1]!, 'renew', false),
      decision(parts[2]!, 'renew'),
      decision(parts[3]!, 'reuse'),
    ],
  });

  test('both sides are one line under one number, sure only when all of it is decided; fluids by their amount', () => {
    expect(needs.map(({ number, pieces, sure, unit }) => [number, pieces, sure, unit])).toEqual([
      ['S-1', 2, false, 'piece'],
      ['B-2', 6, true, 'piece'],
      [null, 0.75, true, 'L'],
    ]);
  });

  test('kits bring what of them is needed, in the number of the unit', () => {
    expect(kitsFor(sheet, needs)).toEqual([
      {
        ref: 'kit',
        name: 'Seal kit',
        number: 'K-1',
        brings: [
          { need: 0, pieces: 1 },
          { need: 1, pieces: 6 },
        ],
      },
    ]);
  });
});

test('a quote: each line is rounded, the tax is on the sum, what is left out is not paid', () => {
  const lines = [
    { sort: 'part' as const, what: 'a', quantity: 3, unitMinor: 333 },
    { sort: 'labour' as const, what: 'b', quantity: 1.25, unitMinor: 6801 },
  ];
  expect(quoteTotal({ lines }, 0.2)).toEqual({ net: 999 + 8501, tax: 1900, gross: 11_400 });
  expect(quoteTotal({ lines }, 0.2, [1])).toEqual({ net: 999, tax: 200, gross: 1199 });
});
