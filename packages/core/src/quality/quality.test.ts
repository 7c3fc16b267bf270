import { describe, expect, test } from '@jest/globals';
// jstat has no types of its own.
// @ts-expect-error untyped module
import jstat from 'jstat';
import { normal, seeded } from '../math/random.js';
import { output, refused } from '../working/run.test-kit.js';
import { fitWeibull } from './weibull.js';

describe('quality.xmr', () => {
  /** NIST/SEMATECH e-Handbook, 6.3.2.2: the ten flow rates of the individuals chart. */
  test('the worked example of the handbook', () => {
    const found = output('quality.xmr', { figures: [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1] });
    expect(found['mean']).toBeCloseTo(50.81, 2);
    expect(found['upper']).toBeCloseTo(55.804, 3);
    expect(found['lower']).toBeCloseTo(45.816, 3);
    expect(found['steady']).toBe('steady');
  });

  test('a jump and a long run on one side are signals', () => {
    const wave = [1, -1, 1, -1, 1, -1, 1, -1];
    expect(output('quality.xmr', { figures: [...wave, 40] })['signals']).toContain('9 is outside');
    expect(
      output('quality.xmr', { figures: [...wave, ...Array.from({ length: 9 }, (_, index) => 2 + (index % 2) * 0.1)] })['signals'],
    ).toMatch(/10 to 17|9 to 17/u);
  });
});

describe('quality.weibull', () => {
  /** NIST/SEMATECH e-Handbook, 8.4.1.2 (from memory): ten failures of twenty, the rest still running at 500 h. */
  test('the worked example of the handbook: shape 1.72, scale 607', () => {
    const failed = [54, 187, 216, 240, 244, 335, 361, 373, 375, 386];
    const lives = [...failed.map((hours) => ({ hours, end: 'failed' })), ...failed.map(() => ({ hours: 500, end: 'runs' }))];
    const found = output('quality.weibull', { lives });
    expect(Math.abs(Number(found['shape']) - 1.72)).toBeLessThan(0.01);
    expect(Math.abs(Number(found['scale']) - 606.5)).toBeLessThan(1);
    expect(found['what']).toContain('Wear');
  });

  test('it is the maximum of the likelihood as jstat writes the density', () => {
    const lives = [
      { hours: 300, failed: true },
      { hours: 900, failed: true },
      { hours: 1400, failed: true },
      { hours: 1500, failed: false },
    ];
    const likelihood = (shape: number, scale: number): number =>
      lives.reduce(
        (sum, { hours, failed }) =>
          sum +
          Math.log(failed ? (jstat.weibull.pdf(hours, scale, shape) as number) : 1 - (jstat.weibull.cdf(hours, scale, shape) as number)),
        0,
      );
    const { shape, scale } = fitWeibull(lives);
    const best = likelihood(shape, scale);
    for (const [a, b] of [
      [1.01, 1],
      [0.99, 1],
      [1, 1.01],
      [1, 0.99],
    ] as const)
      expect(likelihood(shape * a, scale * b)).toBeLessThan(best);
    expect(
      output('quality.weibull', { lives: lives.map(({ hours, failed }) => ({ hours, end: failed ? 'failed' : 'runs' })) })['b10'],
    ).toBeCloseTo(jstat.weibull.inv(0.1, scale, shape) as number, 6);
  });

  test('its 90 % range holds the truth nine times of ten', () => {
    const random = seeded(7);
    let held = 0;
    const rounds = 300;
    for (let round = 0; round < rounds; round += 1) {
      const lives = Array.from({ length: 40 }, () => 1000 * (-Math.log(1 - random())) ** (1 / 2)).map((hours) => ({
        hours: Math.min(hours, 1200),
        failed: hours < 1200,
      }));
      const { shape, logShapeSigma } = fitWeibull(lives);
      if (Math.abs(Math.log(shape / 2)) < 1.6449 * logShapeSigma) held += 1;
    }
    expect(Math.abs(held / rounds - 0.9)).toBeLessThan(0.06);
  });

  test('one failure, and an end that is no end, are refused', () => {
    expect(
      refused('quality.weibull', {
        lives: [
          { hours: 10, end: 'failed' },
          { hours: 20, end: 'runs' },
        ],
      }),
    ).toContain('1 failed');
    expect(
      refused('quality.weibull', {
        lives: [
          { hours: 10, end: 'sold' },
          { hours: 20, end: 'runs' },
        ],
      }),
    ).toContain('failed, runs');
  });
});

describe('estimate.time', () => {
  test('without a past it is the book; with a long past it is the past, and four fifths stay under it', () => {
    expect(output('estimate.time', { book: '2 h' })['half']).toBeCloseTo(7200, 6);
    const random = seeded(3);
    const times = Array.from({ length: 400 }, () => Math.exp(normal(random, Math.log(3 * 3600), 0.25)));
    const found = output('estimate.time', { book: '2 h', past: times });
    const sorted = [...times].sort((one, other) => one - other);
    expect(Math.abs(Number(found['half']) / sorted[200]! - 1)).toBeLessThan(0.05);
    expect(Math.abs(Number(found['fourFifths']) / sorted[320]! - 1)).toBeLessThan(0.05);
  });

  test('four fifths against jstat for one job done', () => {
    const found = output('estimate.time', { book: 3600, past: [3600] });
    // Prior of three at ln 3600 with 0.35, one figure on it: weight 4, scale √(3·0.35²/4·1.25).
    const spread = Math.sqrt(((3 * 0.35 ** 2) / 4) * 1.25);
    expect(found['fourFifths']).toBeCloseTo(3600 * Math.exp((jstat.studentt.inv(0.8, 4) as number) * spread), 3);
  });
});
