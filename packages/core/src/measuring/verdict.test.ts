import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
// jstat has no types of its own.
// @ts-expect-error untyped module
import jstat from 'jstat';
import { output } from '../working/run.test-kit.js';
import { judge } from './verdict.js';

const window = { lower: 10.02, upper: 10.08 };

describe('few readings', () => {
  test('places that differ by more than the tool explains are out all the same where each is out beyond the same limit', () => {
    // A backlash at four teeth, 0.13 to 0.2 mm, by an indicator good to 3 µm.
    const over = output('measure.verdict', {
      readings: ['0.30 mm', '0.31 mm', '0.33 mm', '0.32 mm'],
      lower: '0.13 mm',
      upper: '0.2 mm',
      toolU: 0.003,
    });
    expect(over['verdict']).toBe('out');
    const across = output('measure.verdict', {
      readings: ['0.30 mm', '0.31 mm', '0.19 mm', '0.32 mm'],
      lower: '0.13 mm',
      upper: '0.2 mm',
      toolU: 0.003,
    });
    expect(across['verdict']).toBe('unsure');
  });

  test('two that lie outside on opposite sides are unsure, and it is said that they contradict each other', () => {
    const found = output('measure.verdict', { readings: [10, 10.1], ...window, toolU: 0.002 });
    expect(found['verdict']).toBe('unsure');
    expect(found['settle']).toContain('not of one thing');
    // Of a tool of which nothing is known nothing can be said but their own spread.
    expect(output('measure.verdict', { readings: [10, 10.1], ...window, toolU: 0 })['verdict']).toBe('unsure');
  });

  /** Student's factor over the normal one, one-sided 95 %: t(n − 1)/z, by jstat. */
  test.each([2, 3, 4])('of %i the own spread counts with Student’s factor where it is the larger', (n) => {
    const readings = Array.from({ length: n }, (_, at) => 10.05 + (at % 2 ? 0.003 : -0.003));
    const mean = readings.reduce((sum, one) => sum + one, 0) / n;
    const s = Math.sqrt(readings.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (n - 1));
    const factor = jstat.studentt.inv(0.95, n - 1) / jstat.normal.inv(0.95, 0, 1);
    const { u, spread } = output('measure.verdict', { readings, ...window, toolU: 0.002 }) as Record<string, number>;
    expect(spread).toBeCloseTo(s, 12);
    expect(u).toBeCloseTo(Math.hypot(0.002, (factor * s) / Math.sqrt(n)), 9);
    // A tool known to spread more than they did keeps its own.
    const pooled = output('measure.verdict', { readings, ...window, toolU: 0.002, toolS: 0.01 }) as Record<string, number>;
    expect(pooled['u']).toBeCloseTo(Math.hypot(0.002, 0.01 / Math.sqrt(n)), 12);
  });

  test('from five on their own spread stands alone', () => {
    const readings = [10.05, 10.052, 10.048, 10.051, 10.049];
    const { spread } = output('measure.verdict', { readings, ...window, toolU: 0.002, toolS: 0.02 }) as Record<string, number>;
    expect(spread).toBeCloseTo(Math.sqrt((2 * 0.002 ** 2 + 2 * 0.001 ** 2) / 4), 12);
  });
});

describe('out is not the absence of in (ISO 14253-1)', () => {
  test('a tool too coarse for the window condemns nothing that reads dead centre', () => {
    expect(judge(10.05, 0.2, window)).toBe('unsure');
    expect(output('measure.verdict', { readings: [10.05], ...window, toolU: 0.2 })['betterU']).toBeGreaterThan(0);
    // The same where a working judges by itself.
    expect(
      output('measure.bore', { readings: [{ depth: 1, along: 85.015, across: 85.015 }], lower: 85.01, upper: 85.02, toolU: 0.05 })[
        'verdict'
      ],
    ).toBe('unsure');
  });

  test('out only where 95 % lie beyond one limit, in only where 95 % lie within both', () => {
    fc.assert(
      fc.property(fc.double({ min: 9.9, max: 10.2, noNaN: true }), fc.double({ min: 1e-4, max: 0.5, noNaN: true }), (mean, u) => {
        const under = jstat.normal.cdf(window.lower, mean, u);
        const over = 1 - jstat.normal.cdf(window.upper, mean, u);
        fc.pre([under, over, under + over].every((chance) => Math.abs(chance - 0.95) > 1e-9 && Math.abs(chance - 0.05) > 1e-9));
        expect(judge(mean, u, window)).toBe(under + over <= 0.05 ? 'in' : Math.max(under, over) >= 0.95 ? 'out' : 'unsure');
      }),
    );
  });

  test('an end met within the noise of a conversion is met', () => {
    expect(output('measure.verdict', { readings: [0.0254], upper: '0.001 in', toolU: 0 })['verdict']).toBe('in');
  });
});
