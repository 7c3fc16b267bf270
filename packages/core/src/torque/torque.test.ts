import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { threadAreas } from '../threads/thread.js';
import { formatQuantity, parseThread, workings } from '../index.js';
import { output, refused } from '../working/run.test-kit.js';
import { CLASS_CHOICES } from './screw-tables.js';
import { strengthAt } from './screw.js';
import { memberStiffness } from './stiffness.js';

const LBF_PER_IN_KN_PER_MM = 4.4482216152605 / 25.4 / 1000;

describe('torque.no-spec', () => {
  const known = (thread: string, rest: object = {}): Record<string, unknown> =>
    output('torque.no-spec', { thread, propertyClass: '8.8', least: 0.12, most: 0.12, scatter: 0, ...rest });

  /** VDI 2230-1 table A1, class 8.8, μ = 0.12, and the same sum for 10.9; from memory. */
  test.each([
    ['M8', '8.8', 24.6],
    ['M10', '8.8', 48],
    ['M12', '8.8', 84],
    ['M16', '8.8', 206],
    ['M8', '10.9', 36.1],
    ['M12', '10.9', 123],
  ])('%s of class %s: %d N·m within 2 %%', (thread, propertyClass, expected) => {
    expect(Math.abs(Number(known(thread, { propertyClass })['high']) / expected - 1)).toBeLessThan(0.02);
  });

  /** Common practice: M6 of 8.8, oiled steel in steel, is near 9 to 11 N·m; aluminium or a gasket less. */
  test('M6 oiled is near 9 N·m, into a short thread of cast aluminium less, under a gasket less', () => {
    const aim = (rest: object): number => Number(output('torque.no-spec', { thread: 'M6', propertyClass: '8.8', ...rest })['aim']);
    expect(aim({})).toBeGreaterThan(8);
    expect(aim({ most: 0.14, least: 0.12 })).toBeLessThan(11);
    expect(aim({ female: 'cast-aluminium', engaged: 5 })).toBeLessThan(aim({}));
    expect(aim({ joint: 'gasket' })).toBeLessThan(aim({}));
    expect(aim({ joint: 'plastic' })).toBeLessThan(aim({ joint: 'gasket' }));
    expect(output('torque.no-spec', { thread: 'M8', propertyClass: '8.8', joint: 'stud' })['governs']).toContain('stud');
  });

  /** ISO 898-2: a nut of full height outlives its screw. */
  test.each(['M6', 'M8', 'M10', 'M12', 'M16'])('a steel nut of 0.8 d does not strip before an 8.8 %s breaks', (thread) => {
    const { stressArea } = threadAreas(parseThread(thread)!);
    expect(Number(known(thread)['strips'])).toBeGreaterThan(stressArea * 800);
  });

  test('low ≤ aim ≤ high, the clamp follows, and friction that is not known costs clamp', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('M5', 'M8', '1/2-13 UNC', 'M20'),
        fc.double({ min: 0.05, max: 0.3, noNaN: true }),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        (thread, least, wider) => {
          const screw = { thread, propertyClass: 'unmarked' };
          const wide = output('torque.no-spec', { ...screw, least, most: least + wider });
          expect(Number(wide['low'])).toBeLessThanOrEqual(Number(wide['aim']));
          expect(Number(wide['aim'])).toBeLessThanOrEqual(Number(wide['high']));
          expect(Number(wide['clampLeast'])).toBeLessThanOrEqual(
            Number(output('torque.no-spec', { ...screw, least, most: least })['clampLeast']) + 1e-6,
          );
        },
      ),
    );
  });

  test.each([
    [{ thread: 'M8', joint: 'set-screw' }, 'a second one on top'],
    [{ thread: 'M8', joint: 'hose-clamp' }, 'level with the band'],
    [{ thread: 'G 1/4' }, 'names no 60° thread'],
    [{ thread: 'M8', propertyClass: '7.7' }, 'is not one of'],
    [{ thread: 'M8', least: 0 }, 'too small'],
    [{ thread: 'M8', most: 2 }, 'too large'],
    [{ thread: 'M8', least: 0.2, most: 0.1 }, 'below the lower end'],
  ])('%j is refused', (input, words) => {
    expect(refused('torque.no-spec', { propertyClass: '8.8', ...input })).toContain(words);
  });
});

describe('what a screw is made of', () => {
  const high = (input: object): number => Number(output('torque.no-spec', { scatter: 0, ...input })['high']);
  test('one end of the friction that is known leaves the other as the surface has it', () => {
    const oiled = { thread: 'M10', propertyClass: '8.8', surface: 'oiled', scatter: 0 };
    const both = output('torque.no-spec', { ...oiled, least: 0.12, most: 0.16 });
    expect(output('torque.no-spec', { ...oiled, least: 0.12 })).toEqual(both);
    expect(output('torque.no-spec', { ...oiled, most: 0.2 })['high']).toBe(high({ ...oiled, least: 0.1, most: 0.2 }));
    expect(refused('torque.no-spec', { ...oiled, least: 0.3 })).toContain('0.16, the upper end of this surface');
  });

  test('the class is always asked, and an unmarked screw is the lowest', () => {
    for (const id of ['torque.no-spec', 'torque.preload', 'torque.angle', 'bolt.stretch']) {
      const { propertyClass: _, ...rest } = workings.describe(id)!.example;
      expect(refused(id, rest)).toContain('Class: is missing');
    }
    for (const { id } of CLASS_CHOICES.filter((one) => !['copper', 'brass'].includes(one.id)))
      expect(high({ thread: 'M6', propertyClass: 'unmarked' })).toBeLessThanOrEqual(high({ thread: 'M6', propertyClass: id }) + 1e-9);
  });

  /** SAE J429: grade 2 over ¾ in 36 ksi, grade 5 over 1 in 81 ksi, where the smaller have 57 and 92; from memory. */
  test.each([
    ['3/4-10', 'SAE 2', 393],
    ['7/8-9', 'SAE 2', 248],
    ['1-8', 'SAE 5', 634],
    ['1 1/8-7', 'SAE 5', 558],
    ['M16', '8.8', 640],
    ['M20', '8.8', 660],
  ])('%s of %s yields at %d MPa', (thread, propertyClass, yieldMPa) => {
    expect(strengthAt(propertyClass, parseThread(thread)!.diameter)?.yieldMPa).toBe(yieldMPa);
  });

  test('beyond the sizes of its standard a class is refused', () => {
    expect(refused('torque.no-spec', { thread: '2-4.5', propertyClass: 'SAE 5' })).toContain('where its standard ends');
    expect(refused('torque.no-spec', { thread: 'M20', propertyClass: '9.8' })).toContain('where its standard ends');
  });

  test('copper, brass and electrical studs are no steel of 8.8', () => {
    const steel = { thread: 'M6', propertyClass: '8.8' };
    expect(high({ ...steel, propertyClass: 'copper' })).toBeLessThan(high(steel) / 3);
    expect(high({ ...steel, propertyClass: 'brass' })).toBeLessThan(high(steel) / 1.5);
    // Whatever is said of a stud, it is not taken for steel; under M4 it does not get the cap of M4.
    expect(high({ ...steel, joint: 'stud' })).toBeLessThanOrEqual(high({ ...steel, propertyClass: 'copper' }));
    expect(high({ thread: 'M3', propertyClass: '8.8', joint: 'stud' })).toBeLessThan(0.5);
  });

  test.each([
    ['torque.no-spec', {}],
    ['torque.preload', { torque: 20 }],
    ['torque.angle', { snug: 15, grip: 40, angle: 20 }],
  ])('%s refuses a face no wider than the screw', (id, rest) => {
    expect(refused(id, { thread: 'M10', propertyClass: '8.8', face: 9, ...rest })).toContain('wider than the screw');
  });

  test('forces are written in kN', () => {
    expect(formatQuantity(18_234, 'force')).toBe('18.23 kN');
    expect(formatQuantity(820, 'force')).toBe('820 N');
  });
});

describe('torque.preload', () => {
  test('the factor is the most over the least, about the mean; there and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 40, noNaN: true }), (torque) => {
        const { force, least, most } = output('torque.preload', { thread: 'M10', propertyClass: '8.8', torque }) as {
          force: number;
          least: number;
          most: number;
        };
        expect(most / least).toBeCloseTo(1.5, 9);
        expect((most + least) / 2).toBeCloseTo(force, 6);
      }),
    );
  });

  test('what breaks the screw is refused', () => {
    expect(refused('torque.preload', { thread: 'M6', propertyClass: '8.8', torque: 200 })).toContain('at which the screw breaks');
  });
});

describe('torque.angle', () => {
  /** Shigley, example 8-2: ½ in screw, two ½ in plates and a washer, 30 Mpsi: km = 15.97 Mlbf/in. From memory. */
  test('stiffness of the members', () => {
    const km = memberStiffness(12.7, 1.095 * 25.4, 30e6 * 0.00689475729);
    expect(km / (15.97e6 * LBF_PER_IN_KN_PER_MM)).toBeCloseTo(1, 3);
  });

  const joint = { thread: 'M12', propertyClass: '10.9', snug: 20, grip: 60, shank: 30 };

  test('angle for a clamp, and the clamp of that angle', () => {
    fc.assert(
      fc.property(fc.double({ min: 15_000, max: 60_000, noNaN: true }), (clamp) => {
        const { turn } = output('torque.angle', { ...joint, ask: 'clamp', clamp });
        expect(output('torque.angle', { ...joint, angle: turn as number })['clamp']).toBeCloseTo(clamp, 3);
      }),
    );
  });

  test('70° is a flat and a sixth; past yield it is capped and a new screw each time', () => {
    const turned = output('torque.angle', { ...joint, grip: 160, shank: 100, angle: 70 });
    expect(turned['flats']).toBeCloseTo(70 / 60, 9);
    expect(turned['state']).toBe('elastic');
    const far = output('torque.angle', { ...joint, angle: 300 });
    expect(far['state']).toBe('yield');
    expect(Number(far['clamp'])).toBe(Number(output('torque.angle', { ...joint, angle: 320 })['clamp']));
  });

  test.each([
    [{ ...joint, angle: 90, shank: 61 }, 'the clamped length'],
    [{ ...joint, snug: 400, angle: 90 }, 'yields the screw'],
    [{ ...joint, ask: 'clamp', clamp: 1 }, 'what snug clamps'],
    [joint, 'is missing'],
  ])('%j is refused', (input, words) => {
    expect(refused('torque.angle', input)).toContain(words);
  });
});

describe('an angle goes through elastic, yield and fracture', () => {
  const joint = { thread: 'M10', propertyClass: '10.9', snug: 15, grip: 40 };
  const at = (angle: number): Record<string, number> => output('torque.angle', { ...joint, angle }) as Record<string, number>;

  test('the clamp levels off at yield, and every degree more stretches for good', () => {
    const { yieldsAt } = at(10);
    expect(at(yieldsAt! + 60)['clamp']).toBe(at(yieldsAt! + 120)['clamp']);
    // Past yield a degree is P/360 of stretch, all of it for good.
    expect(at(yieldsAt! + 120)['plastic']! - at(yieldsAt! + 60)['plastic']!).toBeCloseTo((60 / 360) * 1.5, 9);
    expect(at(yieldsAt! + 120)['stretch']! - at(yieldsAt! + 60)['stretch']!).toBeCloseTo((60 / 360) * 1.5, 9);
  });

  test('it breaks where the free thread has stretched by the elongation of its class; half of that is the most', () => {
    const { yieldsAt, breaksAt, mostAngle } = at(10);
    const soonest = yieldsAt! / 1.3;
    // ISO 898-1: 9 % for 10.9; 40 mm of thread and half a diameter.
    expect(((breaksAt! - soonest) / 360) * 1.5).toBeCloseTo(0.09 * 45, 9);
    expect(((mostAngle! - soonest) / 360) * 1.5).toBeCloseTo(0.045 * 45, 9);
    expect(refused('torque.angle', { ...joint, angle: mostAngle! + 1 })).toContain('may break at');
    // A long shank leaves little thread to stretch.
    expect(refused('torque.angle', { ...joint, shank: 38, angle: 180 })).toContain('may break at');
  });

  test.each([3, 900])('%d mm of grip is outside the method', (grip) => {
    expect(refused('torque.angle', { ...joint, grip, angle: 20 })).toContain('5 mm to 200 mm of grip');
  });
});

describe('bolt.stretch', () => {
  /** ISO 898-1 proof loads: M8 8.8 21 200 N, M10 8.8 33 700 N, M12 10.9 70 000 N, M16 8.8 91 000 N; from memory. */
  test.each([
    ['M8', '8.8', 21_200],
    ['M10', '8.8', 33_700],
    ['M12', '10.9', 70_000],
    ['M16', '8.8', 91_000],
  ])('%s %s proves at %d N', (thread, propertyClass, proof) => {
    const { force, proofShare } = output('bolt.stretch', { thread, propertyClass, grip: 60, free: 80, tight: 80.1 }) as Record<
      string,
      number
    >;
    expect(force! / proofShare! / proof).toBeCloseTo(1, 2);
  });

  test('longer for good is a new one; back to its length goes again', () => {
    const at = { thread: 'M12', propertyClass: '12.9', grip: 60, free: 82, tight: 82.12 };
    expect(output('bolt.stretch', { ...at, after: 82.03 })['reuse']).toBe('no');
    expect(output('bolt.stretch', { ...at, after: 82.001 })['reuse']).toBe('yes');
    expect(output('bolt.stretch', at)['reuse']).toBe('not-known');
    expect(refused('bolt.stretch', { ...at, tight: 81 })).toContain('no shorter');
  });
});

describe('torque.prevailing', () => {
  test('dry drag is added, wet threadlocker is not, a plain thread that drags is looked at', () => {
    expect(output('torque.prevailing', { torque: 60, runDown: 4.5 })).toMatchObject({ setting: 64.5, verdict: 'unsure' });
    expect(output('torque.prevailing', { torque: 60, runDown: 4.5, kind: 'wet-locker' })['setting']).toBe(60);
    expect(output('torque.prevailing', { torque: 60, runDown: 1, leastDrag: 1.6 })['verdict']).toBe('out');
    expect(refused('torque.prevailing', { torque: 60, runDown: 5, kind: 'plain' })).toContain('take it out and look');
  });
});

describe('torque.wrench', () => {
  const good = { arm: 450, u: 0.02, ways: 'both', calibration: 'good' };
  const asked = (torque: number, wrenches: object[], rest: object = {}): Record<string, unknown> =>
    output('torque.wrench', { torque, wrenches, ...rest });

  test('the finest that reads it, in its direction and in calibration; 20 % where only a top is marked (ISO 6789-1)', () => {
    const fine = { ...good, name: 'fine', low: 40, high: 200, u: 0.01 };
    const coarse = { ...good, name: 'coarse', low: 20, high: 340 };
    expect(asked(108, [coarse, fine])['which']).toBe('fine');
    expect(asked(108, [coarse, { ...fine, calibration: 'over' }])['which']).toBe('coarse');
    expect(asked(108, [{ ...fine, ways: 'right' }, coarse], { hand: 'left' })['which']).toBe('coarse');
    expect(refused('torque.wrench', { torque: 19, wrenches: [{ ...good, name: 'top only', low: 0, high: 100 }] })).toContain(
      '20 % of its top',
    );
    expect(asked(20, [{ ...good, name: 'top only', low: 0, high: 100 }])['which']).toBe('top only');
  });

  test('the adapter is reckoned with before the range', () => {
    const wrenches = [{ ...good, name: 'to 100', low: 20, high: 100 }];
    expect(refused('torque.wrench', { torque: 108, wrenches })).toContain('reads to 100 N·m');
    expect(asked(108, wrenches, { adapter: 55 })['setting']).toBeCloseTo((108 * 450) / 505, 9);
  });
});

describe('torque.batch', () => {
  const pulls = (angles: readonly number[], torques: readonly number[] = []): object[] =>
    angles.map((angle, index) => ({ screw: String(index + 1), torque: torques[index] ?? 24, angle }));
  const why = (input: object): string[] =>
    (output('torque.batch', { from: 22, to: 26, ...input })['each'] as { why: string }[]).map((row) => row.why);

  test('one that stopped early, one that turned too far, one over its torque', () => {
    expect(why({ pulls: pulls([60, 61, 22, 58]) })[2]).toContain('stopped early');
    expect(why({ pulls: pulls([60, 61, 120, 58]) })[2]).toContain('turned too far');
    expect(why({ pulls: pulls([60, 61, 60, 58], [24, 24, 30, 24]) })[2]).toContain('too tight');
    expect(why({ pulls: pulls([60, 61, 59, 58]) })).toEqual(Array.from({ length: 4 }, () => 'like its brothers'));
  });

  test('a wrench without an angle judges the torque alone; the same screw twice is refused', () => {
    expect(output('torque.batch', { from: 22, to: 26, pulls: pulls([0, 0, 0]) })).toMatchObject({ verdict: 'in', wrong: 0 });
    expect(refused('torque.batch', { from: 22, to: 26, pulls: [...pulls([60]), ...pulls([61])] })).toContain('said twice');
  });
});

describe('zeros', () => {
  test('a batch of pulls that held nothing has no share of nothing', () => {
    const pulls = ['1', '2'].map((screw) => ({ screw, torque: 0, angle: 0 }));
    expect(output('torque.batch', { from: 1, to: 2, pulls })).toMatchObject({ verdict: 'out', mean: 0, spread: 0 });
  });

  test('a wrench that only clicked leaves the upper end open', () => {
    expect(output('torque.breakaway', { how: 'clicks', least: 20, held: 25 })).toMatchObject({ verdict: 'in', high: undefined });
  });
});
