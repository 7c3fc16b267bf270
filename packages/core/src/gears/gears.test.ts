import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { normal, seeded } from '../math/random.js';
import { output, refused } from '../working/run.test-kit.js';
import { CONTACT_ALONG, CONTACT_UP, contactOff, contactStep, type ContactSpots } from './contact.js';

describe('gear.backlash', () => {
  const shelf = [2, 1.5, 1, 0.5, 0.3, 0.2, 0.1, 0.05].map((thickness) => ({ thickness, count: 4 }));
  const base = { readings: [0.3, 0.31, 0.33, 0.32], from: 0.13, to: 0.18, teethSide: 2.1, otherSide: 1.9, rule: 'geometry' };

  test('0.70 for 20° and 75°, and more by the spiral', () => {
    expect(output('gear.backlash', base)['k']).toBeCloseTo(0.7, 2);
    expect(output('gear.backlash', { ...base, spiral: 35 })['k']).toBeCloseTo(0.703137 / Math.cos((35 * Math.PI) / 180), 4);
  });

  test('set at the tightest place, by two readings or by the angles; both packs keep the preload', () => {
    const found = output('gear.backlash', { ...base, rule: 'two-readings', before: 0.44, moved: 0.2, play: 0.05, preload: 0.1 }) as Record<
      string,
      number
    >;
    expect(found['k']).toBeCloseTo(0.7, 9);
    // The four places vary by 0.03 mm: from 0.13 to 0.15 at the tightest all of them are inside.
    expect(found['shift']).toBeCloseTo((0.3 - 0.14) / 0.7, 9);
    expect(found['teeth']! + found['other']!).toBeCloseTo(2.1 + 1.9 + 0.05 + 0.1, 9);
    expect(found['varies']).toBeCloseTo(0.03, 9);
  });

  test('what the packs of the shelf give is what was reckoned from them', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.5, noNaN: true }), fc.double({ min: 0, max: 0.2, noNaN: true }), (tight, play) => {
        const found = output('gear.backlash', { ...base, readings: [tight], play, preload: 0.1, shelf, mostPieces: 4 }) as Record<
          string,
          number
        >;
        expect(Math.abs(found['gives']! - 0.155)).toBeLessThan(0.03);
        expect(Math.abs(found['givesPreload']! - 0.1)).toBeLessThan(0.06);
      }),
      { numRuns: 30 },
    );
  });

  test('where both as near as can be leaves the backlash outside, the teeth come first', () => {
    const few = [1.9, 1.8].map((thickness) => ({ thickness, count: 1 }));
    const found = output('gear.backlash', { ...base, otherSide: 1.744, shelf: few, mostPieces: 1 });
    expect(found).toMatchObject({ teethPack: '1.9 mm', otherPack: '1.8 mm' });
    expect(Number(found['gives'])).toBeCloseTo(0.3 - 0.703137 * 0.2, 5);
  });

  test('a dial off the ring’s radius is scaled', () => {
    expect(output('gear.backlash', { ...base, dialRadius: 60, ringRadius: 90 })['tightest']).toBeCloseTo(0.45, 9);
  });

  test.each([
    [{ rule: 'two-readings' }, 'is missing'],
    [{ rule: 'two-readings', before: 0.44, moved: 0 }, 'no second reading'],
    [{ rule: 'two-readings', before: 0.1, moved: 0.2 }, 'look at the signs'],
    [{ teethSide: 0.05 }, 'not as they were'],
    [{ to: 0.1 }, 'below the lower end'],
    [{ shelf: [{ thickness: 1, count: 0 }] }, 'the box is empty'],
    [
      { shelf: [{ thickness: 1, count: 4 }] },
      'the nearest, 2 × 1 mm, gives 0.23 mm of backlash; 1.858 mm to 1.929 mm at the teeth would be right',
    ],
  ])('%j is refused', (change, words) => {
    expect(refused('gear.backlash', { ...base, ...change })).toContain(words);
  });
});

describe('gear.pinion-depth', () => {
  /** Common practice: a plus mark is further from the ring gear's axis; behind the inner race thicker is deeper. */
  test.each([
    ['inner-race', 'further', 1.23],
    ['inner-race', 'deeper', 1.17],
    ['retainer', 'further', 1.17],
    ['retainer', 'deeper', 1.23],
  ])('%s, plus is %s: %d', (place, plus, newShim) => {
    expect(output('gear.pinion-depth', { shim: 1.2, oldMark: '0.02 mm', newMark: '-0.01 mm', place, plus })['newShim']).toBeCloseTo(
      newShim,
      9,
    );
  });

  test('by gauge; marks of inches are inches; half an arbor forgotten is seen', () => {
    expect(output('gear.pinion-depth', { shim: 1.2, by: 'gauge', read: 60.05, wanted: 60 })['newShim']).toBeCloseTo(1.25, 9);
    expect(output('gear.pinion-depth', { shim: 1.2, oldMark: '3 thou', newMark: '0 mm' })['newShim']).toBeCloseTo(1.2762, 9);
    expect(refused('gear.pinion-depth', { shim: 1.2, by: 'gauge', read: 75, wanted: 60 })).toContain('half of the arbor');
  });
});

describe('gear.contact', () => {
  /** The four classic patterns and the good one; common practice. */
  test.each([
    ['pinion too far out', { driveAlong: 'heel', driveUp: 'face', coastAlong: 'toe', coastUp: 'face' }, 1, 0],
    ['pinion too deep', { driveAlong: 'toe', driveUp: 'flank', coastAlong: 'heel', coastUp: 'flank' }, -1, 0],
    ['ring too far', { driveAlong: 'heel', coastAlong: 'heel' }, 0, 1],
    ['ring too close', { driveAlong: 'toe', coastAlong: 'toe' }, 0, -1],
    ['good', {}, 0, 0],
  ])('%s', (_name, input, pinion, ring) => {
    const found = output('gear.contact', input) as { pinion: number; ring: number; verdict: string };
    expect(Math.sign(found.pinion)).toBe(pinion);
    expect(Math.sign(found.ring)).toBe(ring);
    expect(found.verdict).toBe(pinion === 0 && ring === 0 ? 'in' : 'out');
  });

  test('the same pattern turned about asks for the opposite move', () => {
    const there = output('gear.contact', { driveUp: 'face-ish', coastUp: 'face' })['pinion'] as number;
    expect(output('gear.contact', { driveUp: 'flank-ish', coastUp: 'flank' })['pinion']).toBeCloseTo(-there, 12);
  });

  test('a step is what the last move showed; twice as far where nothing changed, as before where it went the wrong way', () => {
    expect(contactStep(1, 0.5, 0.05)).toBeCloseTo(0.1, 12);
    expect(contactStep(1, -0.5, 0.1)).toBeCloseTo(0.1 / 1.5 ** 0.7, 12);
    expect(contactStep(1, 1, 0.1)).toBeCloseTo(0.2, 12);
    expect(contactStep(0.5, 1, 0.1, 0.15)).toBe(0.15);
    expect(contactStep(1, 1, 0.4, 0.4)).toBe(0.5);
  });

  /** A mesh whose pattern moves by so much for a move, seen by an eye that is not sure of a fifth of a half tooth. */
  function readsUntilGood(seed: number, learns = true): number {
    const random = seeded(seed);
    const [depthStep, apartStep] = [0.03 * 10 ** random(), 0.03 * 10 ** random()];
    let [deep, apart] = [3 * depthStep * (random() - 0.5), 2 * apartStep * (random() - 0.5)];
    const place = <T>(places: readonly T[], centre: number, share: number): T => {
      const seen = Math.max(-1, Math.min(1, normal(random, share, 0.1)));
      // The middle is named first; the others lie in their order.
      const row = [places[1]!, places[2]!, places[0]!, places[3]!, places[4]!];
      return row[Math.round(2 * seen) + centre]!;
    };
    const look = (): ContactSpots => {
      const [depth, ring] = [deep / depthStep, apart / apartStep];
      return {
        driveAlong: place(CONTACT_ALONG, 2, ring + depth / 2),
        driveUp: place(CONTACT_UP, 2, depth),
        coastAlong: place(CONTACT_ALONG, 2, ring - depth / 2),
        coastUp: place(CONTACT_UP, 2, depth),
      };
    };
    let steps: { pinionStep?: number; ringStep?: number } = {};
    for (let reads = 1; ; reads += 1) {
      const spots = look();
      const { verdict, pinion, ring } = output('gear.contact', { ...spots, ...(learns ? steps : {}) }) as Record<
        'pinion' | 'ring',
        number
      > & {
        verdict: string;
      };
      if (verdict === 'in' || reads === 10) return reads;
      const before = contactOff(spots);
      if (pinion !== 0) {
        deep -= pinion;
        // The backlash is set again afterwards, and comes out anywhere in its window.
        apart = 0.4 * apartStep * (random() - 0.5);
        steps = { ...steps, pinionStep: contactStep(before.depth, contactOff(look()).depth, pinion, steps.pinionStep) };
      } else {
        apart -= ring;
        steps = { ...steps, ringStep: contactStep(before.apart, contactOff(look()).apart, ring, steps.ringStep) };
      }
    }
  }

  test('read, moved and read again: by the fourth reading in 95 of 100 gears of any size, by the fifth in all', () => {
    const share = (most: number, learns: boolean): number =>
      Array.from({ length: 400 }, (_, seed) => readsUntilGood(seed + 1, learns)).filter((reads) => reads <= most).length / 400;
    expect(share(4, true)).toBeGreaterThanOrEqual(0.95);
    expect(share(5, true)).toBe(1);
    // By the same move each time many are not there by then.
    expect(share(5, false)).toBeLessThan(0.9);
  });
});

describe('washers, rings, plates and gaps', () => {
  test('a washer fills what was read; a crooked gap is refused', () => {
    const input = { gaps: [0.41, 0.43, 0.42], trial: 2, from: 0.1, to: 0.2, sizes: [2.1, 2.25, 2.3] };
    expect(output('shaft.end-play-shim', input)).toMatchObject({ washer: 2.25, gives: expect.closeTo(0.17, 9) });
    expect(refused('shaft.end-play-shim', { ...input, gaps: [0.2, 0.4, 0.6] })).toContain('does not sit square');
    expect(refused('shaft.end-play-shim', { ...input, gaps: [0.4, 0.4] })).toContain('at least 3');
    expect(refused('shaft.end-play-shim', { ...input, sizes: [1] })).toContain(
      'the nearest, 1 mm, leaves 1.42 mm; 2.22 mm to 2.32 mm thick',
    );
    expect(refused('shaft.end-play-shim', { ...input, sizes: [2.5] })).toContain('is 0.08 mm too thick');
  });

  test('the thickest ring that goes in where the groove is narrowest', () => {
    const input = { gaps: [2.34, 2.36, 2.35], to: 0.1, sizes: [2.2, 2.25, 2.3, 2.35] };
    expect(output('gearbox.snap-ring', input)).toMatchObject({ ring: 2.3, most: expect.closeTo(0.06, 9) });
    expect(refused('gearbox.snap-ring', { ...input, sizes: [2.5] })).toContain('goes in');
    expect(refused('gearbox.snap-ring', { ...input, sizes: [2.2] })).toContain('leaves 0.16 mm; 2.26 mm to 2.34 mm thick would be right');
    expect(refused('gearbox.snap-ring', { ...input, gaps: [2.3, 2.42, 2.35] })).toContain('does not sit square');
  });

  test('clearance for each rubbing face: twice the friction plates', () => {
    const input = { gaps: [2.1, 2.12, 2.08], plates: 6, from: 0.12, to: 0.16, plateNow: 3, sizes: [3, 3.2, 3.4, 3.6] };
    expect(output('clutch.pack', input)).toMatchObject({ plate: 3.4, faces: 12, eachFace: expect.closeTo(1.7 / 12, 9) });
    expect(refused('clutch.pack', { ...input, sizes: [6] })).toContain('one plate too many');
    expect(refused('clutch.pack', { ...input, sizes: [3, 3.1] })).toContain('3.18 mm to 3.66 mm thick would be right');
  });

  test('shims under a clutch hub open the gap', () => {
    const input = {
      gaps: [0.21, 0.22, 0.23],
      shims: 0.5,
      from: 0.4,
      to: 0.6,
      shelf: [
        { thickness: 0.5, count: 2 },
        { thickness: 0.3, count: 2 },
      ],
    };
    expect(output('compressor.air-gap', input)).toMatchObject({ pack: '0.5 + 0.3 mm', gives: expect.closeTo(0.52, 9) });
    expect(refused('compressor.air-gap', { ...input, gaps: [1.5, 1.5, 1.5], shims: 0.1 })).toContain('not home');
    expect(refused('compressor.air-gap', { ...input, shelf: [{ thickness: 1, count: 2 }] })).toContain(
      'the nearest, 1 mm, gives 0.72 mm; 0.69 mm to 0.87 mm in all would be right',
    );
  });
});

describe('clutch.capacity', () => {
  const clutch = { springs: 5, rate: '18 N/mm', freeNew: 38, freeNow: 38, set: 26, faces: 14, outer: 55, inner: 45, demand: 60 };

  /** Shigley 16-5: both sums against the integral of friction over the face. */
  test('uniform pressure is the integral of the same pressure, uniform wear of pressure over the radius', () => {
    const found = output('clutch.capacity', clutch) as Record<string, number>;
    const steps = 20_000;
    const width = 10 / steps;
    let [area, moment, wearForce, wearMoment] = [0, 0, 0, 0];
    for (let step = 0; step < steps; step += 1) {
      const r = 45 + (step + 0.5) * width;
      area += 2 * Math.PI * r * width;
      moment += 2 * Math.PI * r * r * width;
      wearForce += 2 * Math.PI * width;
      wearMoment += 2 * Math.PI * r * width;
    }
    const force = found['clamp']!;
    expect(found['torquePressure']).toBeCloseTo((14 * 0.12 * force * moment) / area / 1000, 6);
    expect(found['torque']).toBeCloseTo((14 * 0.12 * force * wearMoment) / wearForce / 1000, 6);
  });

  test('springs or plates: the loss is shared out, and the answer names what helps', () => {
    const tired = output('clutch.capacity', { ...clutch, freeNow: 35, wear: 0.3 }) as Record<string, number | string>;
    expect(Number(tired['springShare']) + Number(tired['plateShare'])).toBeCloseTo(1, 9);
    expect(tired['what']).toContain('The springs');
    expect(output('clutch.capacity', { ...clutch, freeNow: 37.8, wear: 3 })['what']).toContain('The plates');
    expect(output('clutch.capacity', { ...clutch, freeNow: 35.5, wear: 2.5, demand: 68 })['what']).toContain('Both');
    expect(output('clutch.capacity', clutch)['what']).toContain('carries enough');
    expect(refused('clutch.capacity', { ...clutch, wear: 15 })).toContain('still presses');
  });
});

describe('driveline.angles', () => {
  const line = (...slopes: readonly number[]): object[] => slopes.map((down, index) => ({ shaft: String(index), down, left: 0 }));

  test('parallel ends cancel; with the yokes a quarter turn off they add', () => {
    expect(output('driveline.angles', { shafts: line(3, 6, 3) })['left']).toBeCloseTo(0, 6);
    expect(output('driveline.angles', { shafts: line(3, 6, 3), phase: 'quarter' })['left']).toBeCloseTo(3 * Math.SQRT2, 1);
  });

  /** One cardan joint: tan φ2 = tan φ1·cos θ swings the speed by about θ²/2, up and down. */
  test('unsteady by as much as the joint’s own motion is', () => {
    const theta = 8;
    const c = Math.cos((theta * Math.PI) / 180);
    const speeds = Array.from({ length: 720 }, (_, step) => {
      const phi = (step * Math.PI) / 360;
      return c / (1 - (1 - c * c) * Math.cos(phi) ** 2);
    });
    const swing = (Math.max(...speeds) - Math.min(...speeds)) / 2;
    const found = output('driveline.angles', { shafts: line(0, theta, theta) }) as { unsteady: number; left: number };
    expect(found.left).toBeCloseTo(theta, 6);
    expect(Math.abs(found.unsteady / swing - 1)).toBeLessThan(0.01);
  });

  test('a joint in top view counts as one in side view; two square to each other do not cancel', () => {
    const sideways = [
      { shaft: 'a', down: 0, left: 0 },
      { shaft: 'b', down: 0, left: 4 },
      { shaft: 'c', down: 0, left: 0 },
    ];
    expect(output('driveline.angles', { shafts: sideways })['left']).toBeCloseTo(0, 6);
    const crossed = [
      { shaft: 'a', down: 0, left: 0 },
      { shaft: 'b', down: 4, left: 0 },
      { shaft: 'c', down: 4, left: 4 },
    ];
    expect(Number(output('driveline.angles', { shafts: crossed })['left'])).toBeCloseTo(4 * Math.SQRT2, 1);
    expect(refused('driveline.angles', { shafts: line(0, 60, 0) })).toContain('slopes to 45°');
  });
});

describe('what a carrier does to its backlash', () => {
  const base = { readings: [0.3, 0.31, 0.33, 0.32], from: 0.13, to: 0.18, teethSide: 2.1, otherSide: 1.9, rule: 'geometry' };
  const at = (input: object): Record<string, number> => output('gear.backlash', { ...base, ...input }) as Record<string, number>;

  test('every place lands inside where that is possible, else the tightest is set to the middle', () => {
    const { target, varies } = at({});
    expect(target! - 0.13).toBeCloseTo(0.18 - (target! + varies!), 9);
    expect(at({ readings: [0.3, 0.4] })['target']).toBeCloseTo(0.155, 9);
  });

  test('k from two readings is scaled with the dial, and a lone radius is refused', () => {
    const two = { rule: 'two-readings', before: 0.44, moved: 0.2 };
    expect(at({ ...two, dialRadius: 60, ringRadius: 90 })['k']).toBeCloseTo(0.7 * 1.5, 9);
    expect(refused('gear.backlash', { ...base, ringRadius: 90 })).toContain('is missing');
    expect(refused('gear.backlash', { ...base, dialRadius: 60 })).toContain('is missing');
  });

  /** Two springs in one preload: the ring stays where the share at each side is what that side gives. */
  test('the preload goes to both sides by stiffness, so that it leaves the backlash alone', () => {
    const [without, even, stiff] = [at({}), at({ preload: 0.1 }), at({ preload: 0.1, stiffer: 3 })];
    expect(even!['teeth']! - without!['teeth']!).toBeCloseTo(0.05, 9);
    expect(even!['other']! - without!['other']!).toBeCloseTo(0.05, 9);
    expect(stiff!['teeth']! - without!['teeth']!).toBeCloseTo(0.1 / 4, 9);
    // Pressed together by P, sides of stiffness 3 and 1 give P/4 and 3P/4: forces are equal.
    expect(3 * (0.1 / 4)).toBeCloseTo(1 * (0.1 - 0.1 / 4), 9);
  });

  test('the ring stands where it was pushed while it was read', () => {
    const [teeth, other] = [at({ play: 0.06 }), at({ play: 0.06, pushed: 'other' })];
    expect(teeth!['other']! - at({})['other']!).toBeCloseTo(0.06, 9);
    expect(other!['teeth']! - at({})['teeth']!).toBeCloseTo(0.06, 9);
    expect(other!['other']).toBeCloseTo(at({})['other']!, 9);
  });

  test('what the packs of the shelf give follows from where both put the ring', () => {
    const shelf = [2, 1.5, 1, 0.5, 0.3, 0.2, 0.1, 0.05, 0.03, 0.02].map((thickness) => ({ thickness, count: 6 }));
    const found = at({ readings: [0.3], play: 0.05, preload: 0.1, shelf, mostPieces: 6 }) as Record<string, number | string>;
    const sum = (pack: unknown): number =>
      String(pack)
        .replace(' mm', '')
        .split(' + ')
        .reduce((total, one) => total + one.split(' × ').reduce((product, factor) => product * Number(factor), 1), 0);
    const [teeth, other] = [sum(found['teethPack']), sum(found['otherPack'])];
    const preload = teeth + other - 4 - 0.05;
    expect(found['givesPreload']).toBeCloseTo(preload, 9);
    expect(found['gives']).toBeCloseTo(0.3 - Number(found['k']) * (2.1 - teeth + preload / 2), 9);
  });
});

describe('marks and sides that could be anything', () => {
  test('a bare mark is hundredths or thousandths, and asked which; none is over 0.3 mm', () => {
    const marks = { shim: 1.2, oldMark: '+2', newMark: '-1' };
    expect(refused('gear.pinion-depth', marks)).toContain('has no unit; say which is meant');
    expect(output('gear.pinion-depth', { ...marks, marksIn: 'hundredths' })['newShim']).toBeCloseTo(1.23, 9);
    expect(output('gear.pinion-depth', { ...marks, marksIn: 'thousandths' })['newShim']).toBeCloseTo(1.2 + 3 * 0.0254, 9);
    expect(output('gear.pinion-depth', { ...marks, oldMark: '3 thou', newMark: '0' })['newShim']).toBeCloseTo(1.2762, 9);
    expect(refused('gear.pinion-depth', { ...marks, oldMark: '0.5 mm', newMark: '0' })).toContain('too large');
    expect(refused('gear.pinion-depth', { ...marks, oldMark: 3, newMark: 0 })).toContain('too large');
  });

  test.each([
    [{ driveUp: 'face-ish', coastUp: 'flank-ish' }],
    [{ driveUp: 'face', coastUp: 'flank' }],
    [{ driveUp: 'face', coastUp: 'face', driveAlong: 'toe', coastAlong: 'heel' }],
  ])('sides that contradict, %j, are never good, and ask for no move', (spots) => {
    const found = output('gear.contact', spots);
    expect(found).toMatchObject({ verdict: 'unsure', pinion: 0, ring: 0 });
    expect(found['what']).toContain('contradict');
  });

  test.each([
    [{ driveUp: 'face', coastUp: 'face' }, 0.1, 0],
    [{ driveUp: 'flank', coastUp: 'flank' }, -0.1, 0],
    [{ driveAlong: 'heel', coastAlong: 'toe' }, 0.1, 0],
    [{ driveAlong: 'toe', coastAlong: 'toe' }, 0, -0.1],
  ])('from the very end, %j, it is the full step', (spots, pinion, ring) => {
    const found = output('gear.contact', spots) as Record<string, number>;
    expect(found['pinion']).toBeCloseTo(pinion, 9);
    expect(found['ring']).toBeCloseTo(ring, 9);
  });
});
