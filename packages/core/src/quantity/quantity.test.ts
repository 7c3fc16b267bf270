import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import Qty from 'js-quantities';
import {
  formatQuantity,
  fromBase,
  mayBegin,
  parseQuantity,
  QUANTITIES,
  roundWithin,
  splitList,
  toBase,
  unitsOf,
  wording,
  type Quantity,
} from '../index.js';
import { output, refused } from '../working/run.test-kit.js';

/** Our symbol → the name js-quantities knows; units it lacks are left out. */
const JS_NAMES: Partial<Record<Quantity, Record<string, string>>> = {
  length: { mm: 'mm', µm: 'um', cm: 'cm', m: 'm', in: 'in', ft: 'ft' },
  torque: { 'N·m': 'N*m', 'N·cm': 'N*cm', 'lbf·ft': 'lbf*ft', 'lbf·in': 'lbf*in', 'kgf·m': 'gee*kg*m', 'kgf·cm': 'gee*kg*cm' },
  force: { N: 'N', kN: 'kN', lbf: 'lbf', kgf: 'gee*kg' },
  pressure: { MPa: 'MPa', kPa: 'kPa', Pa: 'Pa', bar: 'bar', psi: 'psi', atm: 'atm' },
  mass: { kg: 'kg', g: 'g', lb: 'lb', oz: 'oz' },
  volume: { L: 'l', mL: 'ml', 'm³': 'm3', 'in³': 'in3', 'US gal': 'gal' },
  temperature: { '°C': 'tempC', '°F': 'tempF', K: 'tempK' },
  time: { s: 's', min: 'min', h: 'h', d: 'd' },
  angle: { '°': 'deg', rad: 'rad' },
};

describe('factors', () => {
  /** NIST SP 811 (2008), appendix B.8; 1 lbf·ft is printed there to seven digits, the rest follows from exact definitions. */
  test.each([
    ['1 lbf·ft', 'torque', 1.3558179483314],
    ['1 in', 'length', 25.4],
    ['1 psi', 'pressure', 6.894757293168361e-3],
    ['1 kgf·m', 'torque', 9.80665],
    ['212 °F', 'temperature', 100],
    ['12 tpi', 'pitch', 25.4 / 12],
  ] as const)('%s', (text, quantity, base) => {
    const parsed = parseQuantity(text, quantity, 'x');
    expect(parsed.ok && parsed.quantity.base).toBeCloseTo(base, 10);
  });

  const pairs = Object.entries(JS_NAMES).flatMap(([quantity, names]) =>
    Object.entries(names).flatMap(([from, jsFrom]) =>
      Object.entries(names).map(([to, jsTo]) => [quantity as Quantity, from, to, jsFrom, jsTo] as const),
    ),
  );
  test(`js-quantities agrees over all ${pairs.length} pairs`, () => {
    for (const [quantity, from, to, jsFrom, jsTo] of pairs) {
      const unit = (symbol: string) => unitsOf(quantity).find((candidate) => candidate.symbol === symbol)!;
      const ours = fromBase(toBase(7.25, unit(from)), unit(to));
      const theirs = Qty(7.25, jsFrom).to(jsTo).scalar;
      // Relative 1e-4: js-quantities carries some factors with five digits only (psi, atm, lbf).
      expect(Math.abs(ours - theirs)).toBeLessThan(1e-4 * Math.max(1, Math.abs(theirs)));
    }
  });

  test('there and back is the same figure, for every unit', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...QUANTITIES.flatMap((quantity) => unitsOf(quantity))),
        fc.double({ min: 1e-3, max: 1e6, noNaN: true }),
        (unit, figure) => {
          expect(fromBase(toBase(figure, unit), unit)).toBeCloseTo(figure, 6);
        },
      ),
    );
  });
});

describe('reading what people type', () => {
  test.each([
    ['22 lbf·ft', 'torque', 29.828],
    ['22 ft-lb', 'torque', 29.828],
    ['22 LBF.FT', 'torque', 29.828],
    ['0,35 mm', 'length', 0.35],
    ['25,005 mm', 'length', 25.005],
    ['4 thou', 'length', 0.1016],
    ['1 1/4 in', 'length', 31.75],
    ['3/8"', 'length', 9.525],
    ['−5 °C', 'temperature', -5],
    ['2e3 N', 'force', 2000],
    ['470 mΩ', 'resistance', 0.47],
    ['1.5 MΩ', 'resistance', 1.5e6],
    ['0.004', 'length', 0.004],
  ] as const)('%s', (text, quantity, base) => {
    const parsed = parseQuantity(text, quantity, 'x');
    expect(parsed.ok && parsed.quantity.base).toBeCloseTo(base, 3);
  });

  test.each([
    ['', 'length', 'required', 'is missing'],
    ['1/2-20 UNF', 'length', 'is-a-thread', 'names a thread'],
    ['M6x1', 'length', 'is-a-thread', 'names a thread'],
    ['30 kPa', 'torque', 'wrong-quantity', 'is a pressure; a torque is asked'],
    ['22 lb', 'torque', 'wrong-quantity', 'is a mass'],
    ['1.234,5 mm', 'length', 'ambiguous-number', 'more than one decimal sign'],
    ['12 furlongs', 'length', 'unknown-unit', 'not a unit of length'],
    ['about ten', 'length', 'not-a-figure', 'is not a figure'],
    ['🔧', 'length', 'not-a-figure', 'is not a figure'],
    ['9'.repeat(10_000), 'length', 'not-a-figure', 'is not a figure'],
    ['1e999 mm', 'length', 'not-finite', 'is not a finite number'],
    ['1/0 in', 'length', 'not-finite', 'is not a finite number'],
  ] as const)('"%s" is refused', (text, quantity, code, words) => {
    const parsed = parseQuantity(text, quantity, 'x');
    expect(parsed).toMatchObject({ ok: false, issue: { code } });
    if (!parsed.ok) expect(wording(parsed.issue)).toContain(words);
    if (!parsed.ok) expect(wording(parsed.issue).length).toBeLessThan(200);
  });

  test('whatever is typed ends in a figure or an issue', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), fc.constantFrom(...QUANTITIES), (text, quantity) => {
        const parsed = parseQuantity(text, quantity, 'x');
        expect(parsed.ok ? Number.isFinite(parsed.quantity.base) : wording(parsed.issue).length > 0).toBe(true);
      }),
    );
  });
});

describe('showing figures', () => {
  test('rounding never carries a figure over a limit', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2, noNaN: true }), fc.double({ min: 0, max: 2, noNaN: true }), (figure, limit) => {
        fc.pre(Math.abs(figure - limit) > 1e-8);
        expect(Math.sign(Number(roundWithin(figure, 2, { to: limit })) - limit)).toBe(Math.sign(figure - limit));
      }),
    );
  });

  test.each([
    [0.1274, { to: 0.127 }, '0.1274 mm'],
    [0.127, { to: 0.127 }, '0.127 mm'],
    [0.08499999999999999, {}, '0.085 mm'],
  ])('%p', (figure, limits, shown) => {
    expect(formatQuantity(figure, 'length', 'mm', limits)).toBe(shown);
  });
});

describe('lists', () => {
  const mean = (readings: unknown): unknown => output('measure.verdict', { readings, upper: 100, toolU: 1000, toolS: 0 })['mean'];
  test.each([
    ['0 1 2 1 thou', 0.0254],
    ['1 1/4 in', 31.75],
    ['1/2 1/4 in', 9.525],
    ['1 1/4; 3/4 in', 25.4],
    ['5; 6 7 mm', 6],
    ['0.1 in 0.2 0.3', 5.08],
  ])('%s is one list in one unit', (text, expected) => {
    expect(mean(text)).toBeCloseTo(expected, 9);
    expect(mean(splitList(text))).toBeCloseTo(expected, 9);
  });

  test('in several units a bare figure may be either, and is asked', () => {
    expect(refused('measure.verdict', { readings: '1 mm 2 3 thou', upper: 100, toolU: 1 })).toContain('figure 2: "2" has no unit');
  });
});

describe('what a figure may begin with', () => {
  const units = QUANTITIES.flatMap((quantity) =>
    unitsOf(quantity).flatMap(({ symbol, aliases = [] }) => [symbol, ...aliases].map((name) => [quantity, name] as const)),
  );

  test('every beginning of a figure that is read may be one', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...units),
        fc.constantFrom('0.31', '0,31', '12', '-4', '1 1/4', '3/8', '1.5e-3', '.5'),
        fc.constantFrom('', ' '),
        ([quantity, unit], figure, gap) => {
          const text = `${figure}${gap}${unit}`;
          if (!parseQuantity(text, quantity, 'x').ok) return;
          for (let length = 1; length <= text.length; length += 1)
            expect([text.slice(0, length), mayBegin(text.slice(0, length), quantity)]).toEqual([text.slice(0, length), true]);
        },
      ),
      { numRuns: 2000, seed: 20_261_127 },
    );
    for (const open of ['OL', 'O.L.', 'open', 'ol MΩ']) expect(mayBegin(open, 'resistance')).toBe(true);
  });

  test.each([
    ['x', 'length', false],
    ['0.31x', 'length', false],
    ['0.31 h', 'length', true],
    ['0.31 n', 'length', false],
    ['22 N', 'torque', true],
    ['22 x', 'torque', false],
    ['o', 'length', false],
    ['o', 'resistance', true],
    ['op', 'resistance', true],
    ['on', 'resistance', false],
    ['n', 'count', false],
  ] as const)('%s of a %s: %s', (text, quantity, may) => {
    expect(mayBegin(text, quantity)).toBe(may);
  });
});

describe('small figures', () => {
  test.each([
    [0.55, 'torque', {}, '0.55 N·m'],
    [0.055, 'torque', {}, '0.055 N·m'],
    [1.14, 'torque', {}, '1.14 N·m'],
    [108, 'torque', {}, '108 N·m'],
    [12.34, 'torque', { from: 12.25, to: 12.75 }, '12.34 N·m'],
    [0.0123, 'mass', {}, '0.0123 kg'],
    [0.0505, 'resistance', {}, '0.0505 Ω'],
    [2.34, 'angle', {}, '2.3°'],
  ] as const)('%d of %s, %j, is written %s', (figure, quantity, window, shown) => {
    expect(formatQuantity(figure, quantity, undefined, window)).toBe(shown);
  });
});
