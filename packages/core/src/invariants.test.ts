import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readOpen } from './quantity/open.js';
import { StandIn, standInFor } from './instruments/stand-in.js';
import { contradiction } from './measuring/contradiction.js';
import { output } from './working/run.test-kit.js';
import { workings } from './workings.js';

const figure = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });

describe('what turning, tilting, shifting and scaling must not change', () => {
  test('a part turned in its blocks has its high spot turned, and the same run-out', () => {
    fc.assert(
      fc.property(fc.array(figure(-1, 1), { minLength: 6, maxLength: 24 }), fc.nat(23), (readings, by) => {
        const turn = by % readings.length;
        const one = output('measure.runout', { readings });
        const other = output('measure.runout', { readings: [...readings.slice(turn), ...readings.slice(0, turn)] });
        expect(other['tir']).toBeCloseTo(one['tir'] as number, 9);
        fc.pre(Number(one['eccentricity']) > 1e-6);
        const moved = (Number(one['highAt']) - Number(other['highAt']) - (360 * turn) / readings.length) % 360;
        expect(Math.min(Math.abs(moved), 360 - Math.abs(moved))).toBeLessThan(1e-4);
      }),
    );
  });

  test('a face that lies askew is as flat as before', () => {
    const point = fc.record({ x: fc.integer({ min: 0, max: 9 }), y: fc.integer({ min: 0, max: 9 }), z: figure(-0.1, 0.1) });
    fc.assert(
      fc.property(
        fc.uniqueArray(point, { minLength: 5, maxLength: 16, selector: ({ x, y }) => `${x} ${y}` }),
        figure(-0.01, 0.01),
        figure(-0.01, 0.01),
        (points, a, b) => {
          const straight = workings.run('measure.flatness', { points });
          fc.pre(straight?.ok === true);
          const tilted = output('measure.flatness', { points: points.map(({ x, y, z }) => ({ x, y, z: z + a * x + b * y + 4 })) });
          expect(tilted['flatness']).toBeCloseTo((straight?.ok && straight.run.output['flatness']) as number, 6);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('a control chart in other units has its limits in them, and the same signals', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 3, maxLength: 30 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: -99, max: 99 }),
        (figures, scale, shift) => {
          const one = output('quality.xmr', { figures });
          const other = output('quality.xmr', { figures: figures.map((each) => each * scale + shift) });
          expect(other['upper']).toBeCloseTo(Number(one['upper']) * scale + shift, 6);
        },
      ),
    );
  });

  test('lives in days have the same shape as in hours, and their scale in days', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 500 }), { minLength: 3, maxLength: 20 }), (days) => {
        const lives = (by: number): object => ({
          lives: days.map((each, index) => ({ hours: each * by, end: index % 4 === 3 ? 'runs' : 'failed' })),
        });
        const one = output('quality.weibull', lives(1));
        const other = output('quality.weibull', lives(24));
        expect(other['shape']).toBeCloseTo(one['shape'] as number, 5);
        expect(Number(other['scale']) / Number(one['scale'])).toBeCloseTo(24, 5);
      }),
    );
  });

  test('in another currency the same way is the cheapest', () => {
    const option = fc.record({
      cost: fc.integer({ min: 1, max: 5000 }),
      seasons: figure(0.5, 9),
      comeback: figure(0, 1),
      down: figure(0, 9),
    });
    fc.assert(
      fc.property(fc.array(option, { minLength: 2, maxLength: 6 }), fc.integer({ min: 2, max: 40 }), (rows, rate) => {
        const options = (by: number): object => ({
          dayCost: 30 * by,
          options: rows.map((row, index) => ({ ...row, option: `way ${index}`, spread: 0.3, cost: row.cost * by, comebackCost: 200 * by })),
        });
        const one = output('decide.repair', options(1));
        const other = output('decide.repair', options(rate));
        expect(Number(other['perSeason']) / Number(one['perSeason'])).toBeCloseTo(rate, 6);
      }),
    );
  });

  test('the order in which diodes are read changes nothing', () => {
    const reading = fc.record({
      forward: fc.constantFrom('0.52', '0.51', 'OL', '0.001', '0.7'),
      reverse: fc.constantFrom('OL', '0.001', '1.2'),
    });
    fc.assert(
      fc.property(fc.array(reading, { minLength: 2, maxLength: 6 }), (read) => {
        const named = read.map((row, index) => ({ diode: `d${index}`, ...row }));
        const states = (rows: object[]): unknown =>
          [...(output('alternator.diodes', { readings: rows })['states'] as { diode: string }[])].sort((a, b) =>
            a.diode.localeCompare(b.diode),
          );
        expect(states([...named].reverse())).toEqual(states(named));
      }),
    );
  });

  test('the odd phase of a star is found wherever it is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 }), figure(0.05, 1), fc.constantFrom(0.6, 1.5), (odd, sound, factor) => {
        const phases = [0, 1, 2].map((phase) => (phase === odd ? sound * factor : sound));
        const pair = (one: number, other: number): string => `${phases[one]! + phases[other]!} Ω`;
        expect(output('alternator.stator', { pair12: pair(0, 1), pair23: pair(1, 2), pair31: pair(2, 0) })['bad']).toBe(`phase ${odd + 1}`);
      }),
    );
  });

  test('wear is used up in proportion, and a longer run so far is a longer one to come', () => {
    fc.assert(
      fc.property(figure(0.1, 0.9), fc.integer({ min: 1, max: 9000 }), (used, hours) => {
        const now = 14 - used * 9;
        const worn = output('alternator.brushes', { lengths: [now], fresh: 14, limit: 5, hours: `${hours} h` });
        expect(worn['used']).toBeCloseTo(used, 9);
        expect(Number(worn['hoursLeft']) / 3600).toBeCloseTo((hours * (1 - used)) / used, 3);
      }),
    );
  });

  test('twice the section loses half, twice the length twice', () => {
    fc.assert(
      fc.property(figure(0.5, 50), figure(1, 200), (section, current) => {
        const lost = (change: object): number => Number(output('wire.drop', { length: 2000, section, current, ...change })['lost']);
        expect(lost({ section: section * 2 })).toBeCloseTo(lost({}) / 2, 9);
        expect(lost({ length: 4000 })).toBeCloseTo(lost({}) * 2, 9);
      }),
    );
  });
});

describe('readings', () => {
  test.each([
    ['OL', Number.POSITIVE_INFINITY],
    ['0L MΩ', Number.POSITIVE_INFINITY],
    ['open', Number.POSITIVE_INFINITY],
    ['∞', Number.POSITIVE_INFINITY],
    ['4,7 kΩ', 4700],
    ['0', 0],
    ['some', Number.NaN],
    ['3 V', Number.NaN],
  ])('%s is %d Ω', (text, ohm) => {
    expect(readOpen(text, 'resistance')).toBe(ohm);
  });

  test('one that scatters like its brothers is never asked about', () => {
    fc.assert(
      fc.property(figure(20, 60), fc.array(figure(-2, 2), { minLength: 2, maxLength: 8 }), (size, noise) => {
        const [first = 0, ...others] = noise.map((each) => size + each * 0.001);
        expect(contradiction(first, { others, from: size - 0.01, to: size + 0.01, spread: 0.001, isLength: true })).toBeUndefined();
      }),
    );
  });

  test('a meter that finds its own range sends what it is held to, and an open circuit without a figure', () => {
    const meter = new StandIn(
      standInFor({ kind: 'multimeter', quantity: 'resistance', unit: 'Ω', low: 0, high: 0, resolution: 0.01, s: 0.005 }, false),
      3,
    );
    expect(Math.abs((meter.read(2.6, 1, [], true).value ?? 0) - 2.6)).toBeLessThan(0.05);
    expect(meter.open()).toEqual({ n: 2, unit: 'Ω', taken: true });
  });
});
