import { describe, expect, test } from '@jest/globals';
import { workings } from './workings.js';

// Rules inside the workings that no worked example reaches: each was turned round once, and nothing had noticed.

interface Answer {
  readonly output: Readonly<Record<string, unknown>>;
  readonly refused: { readonly field: string; readonly bound?: string } | undefined;
}

/** The working's own example, with some of it otherwise. */
function run(id: string, otherwise: Readonly<Record<string, unknown>>): Answer {
  const ran = workings.run(id, { ...workings.describe(id)!.example, ...otherwise })!;
  return ran.ok ? { output: ran.run.output, refused: undefined } : { output: {}, refused: ran.issues[0] };
}

describe('work that is watched', () => {
  // Individuals and moving range: limits at 2.66 and 3.27 times the mean range (D2 and D4 of the charts for two at a time).
  const steady = Array.from({ length: 18 }, (_, at) => 10 + (at % 2) / 10);

  test('a step between two that are inside is a signal where it alone is large', () => {
    expect(run('quality.xmr', { figures: steady }).output['signals']).toBe('none');
    // Steps of 0.1 with one of 0.5 among them: the mean range is 0.13, its limit 0.42, the figures' limits 0.34 either way.
    const jump = [...steady, 9.8, 10.3, 10.2];
    const { signals, movingRange, rangeLimit, upper, lower } = run('quality.xmr', { figures: jump }).output;
    expect(rangeLimit).toBeCloseTo(3.267 * Number(movingRange), 3);
    expect(Math.max(...jump)).toBeLessThan(Number(upper));
    expect(Math.min(...jump)).toBeGreaterThan(Number(lower));
    expect(signals).toBe('the step from 19 to 20 is large');
  });
});

describe('what cannot be is said of the side that it is on', () => {
  test.each([
    ['teethSide', { teethSide: 0.05, readings: '0.60; 0.60' }],
    ['otherSide', { otherSide: 0.05, readings: '0.02; 0.02' }],
  ])('shims of the ring gear, %s', (field, otherwise) => {
    const { refused } = run('gear.backlash', otherwise);
    expect(refused).toMatchObject({ field, bound: expect.stringContaining('it would have to be -') });
  });

  test('a spring that is longer set than free, in its row', () => {
    const springs = [
      { free: 38, load: 212, lean: 0.4 },
      { free: 25, load: 211, lean: 0.5 },
    ];
    expect(run('spring.check', { springs }).refused?.field).toBe('springs[1].free');
  });
});

describe('what is told beside the verdict', () => {
  test('rings of an alternator: only what was measured, and what follows from it', () => {
    const rings = (otherwise: object): unknown => run('alternator.brushes', otherwise as Record<string, unknown>).output['rings'];
    expect(rings({ ring: 26.2, runout: 0.2 })).toBe('diameter out, runout out: turn or renew them, or the brushes hop');
    expect(rings({ runout: undefined, mostRunout: undefined })).toBe('diameter in');
    expect(rings({ ring: undefined, leastRing: undefined, runout: 0.2 })).toMatch(/^runout out/u);
    expect(rings({ ring: undefined, runout: undefined })).toBe('not measured');
  });

  test('a guard of two standard uncertainties is one, whatever share of wrong verdicts is meant', () => {
    const { output } = run('measure.verdict', { rule: '2u' });
    expect(output['guardFactor']).toBe(2);
    expect(Number(output['guard'])).toBeCloseTo(2 * Number(output['u']), 12);
    // One-sided 5 %: 1.645 (JCGM 106).
    expect(run('measure.verdict', {}).output['guardFactor']).toBeCloseTo(1.645, 3);
  });

  test('what has no balls is not warned of them', () => {
    expect(run('fit.off', {}).output['what']).toContain('Carry the inner ring');
    expect(run('fit.off', {}).output['what']).toContain('Never through the balls');
    const { what } = run('fit.off', { ring: 'the part itself' }).output;
    expect(what).toBe('Carry the part, push the shaft through.');
  });
});
