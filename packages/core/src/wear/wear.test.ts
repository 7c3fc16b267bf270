import { describe, expect, test } from '@jest/globals';
import { output, refused } from '../working/run.test-kit.js';
import { workings } from '../workings.js';

describe('wear', () => {
  test('half used is as many hours again, whichever way it wears', () => {
    const gap = output('synchro.gap', { gaps: [0.85, 0.9, 0.95], fresh: 1.2, limit: 0.5, hours: '1000 h' });
    expect(gap['used']).toBeCloseTo(0.5, 9);
    expect(Number(gap['hoursLeft']) / 3600).toBeCloseTo(1000, 6);
    const play = output('spline.wear', { movement: 0.9, radius: 200, diameter: 40, fresh: 0.03, limit: 0.15, hours: '1000 h' });
    expect(play['play']).toBeCloseTo(0.09, 9);
    expect(Number(play['hoursLeft']) / 3600).toBeCloseTo(1000, 6);
  });

  test('a chain of 20 half-inch links at 257.5 mm is 1.38 % long', () => {
    expect(output('chain.wear', { now: 257.5, pitch: '1/2 in' })['longer']).toBeCloseTo(257.5 / 254 - 1, 9);
    expect(output('chain.wear', { now: 258.5, pitch: '1/2 in' })['verdict']).toBe('out');
    expect(refused('chain.wear', { now: 258.5, pitch: 'two' })).toContain('is not a figure');
  });
});

describe('spring.check', () => {
  const { example } = workings.describe('spring.check')!;

  test('the tired one is named, and the rate is load over what it was pushed together', () => {
    const each = output('spring.check', example)['each'] as { rate: number; verdict: string; why: string }[];
    expect(each.map(({ verdict }) => verdict)).toEqual(['in', 'in', 'out']);
    expect(each[2]!.why).toContain('load out');
    expect(each[0]!.rate * 1000).toBeCloseTo(212 / 12, 9);
  });

  test('a spring shorter than its set length is refused', () => {
    expect(refused('spring.check', { springs: [{ free: 20, load: 10, lean: 0 }], setLength: 26 })).toContain('more than the set length');
  });
});

describe('bearing.noise', () => {
  /** A 6205 (9 balls of 7.94 on 39.04 mm) of the public Case Western Reserve University test set. */
  test('a 6205', () => {
    const found = output('bearing.noise', { balls: 9, ball: '0.3126 in', pitch: '1.537 in', speed: 1797, peaks: ['107.4 Hz'] });
    expect(found['outer']).toBeCloseTo(3.5848, 4);
    expect(found['inner']).toBeCloseTo(5.4152, 4);
    expect(found['cage']).toBeCloseTo(0.3983, 4);
    expect(found['rolling']).toBeCloseTo(4.7135, 3);
    expect(found['what']).toBe('outer race');
  });

  test('balls that do not fit their circle are refused', () => {
    expect(refused('bearing.noise', { balls: 9, ball: 40, pitch: 39, speed: 100 })).toContain('pitch circle');
  });
});

describe('changed over', () => {
  test.each([
    ['synchro.gap', { gaps: [0.8], fresh: 0.5, limit: 1.2 }],
    ['alternator.brushes', { lengths: [8], fresh: 5, limit: 14 }],
    ['spline.wear', { movement: 0.6, radius: 200, diameter: 40, fresh: 0.15, limit: 0.03 }],
  ])('%s refuses new and limit the wrong way round', (id, input) => {
    expect(refused(id, input)).toContain('were the two changed over');
  });

  /** With the outer ring turning the cage goes (1 + q)/2 (workings of the public 6205 set). */
  test('a hub: the cage goes with the outer ring, the strikes are the same', () => {
    const bearing = { balls: 9, ball: 7.94, pitch: 39.04, speed: 600 };
    const [shaft, hub] = [output('bearing.noise', bearing), output('bearing.noise', { ...bearing, turning: 'outer' })];
    expect(Number(shaft['cage']) + Number(hub['cage'])).toBeCloseTo(1, 12);
    expect([hub['outer'], hub['inner'], hub['rolling']]).toEqual([shaft['outer'], shaft['inner'], shaft['rolling']]);
  });
});
