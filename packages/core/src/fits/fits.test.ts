import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { output, refused } from '../working/run.test-kit.js';
import { contactPressure, hoopStress, type Cylinder } from './lame.js';
import { zoneAt } from './zones.js';

/** A size in the middle of each main step of ISO 286, mm. */
const SIZES = [2, 5, 8, 15, 25, 40, 60, 100, 150, 220, 280, 350, 450];

/** ISO 286-2:2010, upper and lower limits in µm at those sizes; from memory of its tables. */
const CELLS: Readonly<Record<string, readonly string[]>> = {
  H7: ['10 0', '12 0', '15 0', '18 0', '21 0', '25 0', '30 0', '35 0', '40 0', '46 0', '52 0', '57 0', '63 0'],
  h6: ['0 -6', '0 -8', '0 -9', '0 -11', '0 -13', '0 -16', '0 -19', '0 -22', '0 -25', '0 -29', '0 -32', '0 -36', '0 -40'],
  g6: [
    '-2 -8',
    '-4 -12',
    '-5 -14',
    '-6 -17',
    '-7 -20',
    '-9 -25',
    '-10 -29',
    '-12 -34',
    '-14 -39',
    '-15 -44',
    '-17 -49',
    '-18 -54',
    '-20 -60',
  ],
  f7: [
    '-6 -16',
    '-10 -22',
    '-13 -28',
    '-16 -34',
    '-20 -41',
    '-25 -50',
    '-30 -60',
    '-36 -71',
    '-43 -83',
    '-50 -96',
    '-56 -108',
    '-62 -119',
    '-68 -131',
  ],
  k6: ['6 0', '9 1', '10 1', '12 1', '15 2', '18 2', '21 2', '25 3', '28 3', '33 4', '36 4', '40 4', '45 5'],
  m6: ['8 2', '12 4', '15 6', '18 7', '21 8', '25 9', '30 11', '35 13', '40 15', '46 17', '52 20', '57 21', '63 23'],
  n6: ['10 4', '16 8', '19 10', '23 12', '28 15', '33 17', '39 20', '45 23', '52 27', '60 31', '66 34', '73 37', '80 40'],
  p6: ['12 6', '20 12', '24 15', '29 18', '35 22', '42 26', '51 32', '59 37', '68 43', '79 50', '88 56', '98 62', '108 68'],
  K7: ['0 -10', '3 -9', '5 -10', '6 -12', '6 -15', '7 -18', '9 -21', '10 -25', '12 -28', '13 -33', '16 -36', '17 -40', '18 -45'],
  M7: ['-2 -12', '0 -12', '0 -15', '0 -18', '0 -21', '0 -25', '0 -30', '0 -35', '0 -40', '0 -46', '0 -52', '0 -57', '0 -63'],
  N7: [
    '-4 -14',
    '-4 -16',
    '-4 -19',
    '-5 -23',
    '-7 -28',
    '-8 -33',
    '-9 -39',
    '-10 -45',
    '-12 -52',
    '-14 -60',
    '-14 -66',
    '-16 -73',
    '-17 -80',
  ],
  P7: [
    '-6 -16',
    '-8 -20',
    '-9 -24',
    '-11 -29',
    '-14 -35',
    '-17 -42',
    '-21 -51',
    '-24 -59',
    '-28 -68',
    '-33 -79',
    '-36 -88',
    '-41 -98',
    '-45 -108',
  ],
};

describe('fit.limits', () => {
  test.each(Object.entries(CELLS))('%s at thirteen sizes, as in ISO 286-2', (zone, cells) => {
    expect(SIZES.map((size) => zoneAt(zone, size)).map((found) => `${found?.upper ?? ''} ${found?.lower ?? ''}`)).toEqual(cells);
  });

  /** ISO 286-2, from memory: zone, size, upper, lower. */
  test.each([
    ['k6', 50, 18, 2],
    ['p6', 40, 42, 26],
    ['N7', 80, -9, -39],
    ['js6', 30, 6.5, -6.5],
    ['j6', 30, 9, -4],
    ['J7', 62, 18, -12],
    ['M6', 280, -9, -41],
    ['M6', 40, -4, -20],
    ['N9', 20, 0, -52],
    ['K8', 25, 10, -23],
    ['s6', 60, 72, 53],
    ['s6', 70, 78, 59],
    ['r6', 100, 73, 51],
    ['u6', 30, 61, 48],
    ['t6', 30, 54, 41],
    ['D10', 25, 149, 65],
    ['E9', 40, 112, 50],
    ['F8', 60, 76, 30],
    ['d9', 25, -65, -117],
    ['P9', 10, -15, -51],
    ['R7', 60, -30, -60],
    ['S7', 25, -27, -48],
    ['h11', 100, 0, -220],
  ])('%s at %d: %d and %d', (zone, size, upper, lower) => {
    expect(zoneAt(zone, size)).toEqual({ upper, lower });
  });

  test('50 H7/k6 is a transition fit; a zone of the other kind and one that is none are refused', () => {
    expect(output('fit.limits', { nominal: 50 })).toMatchObject({
      sort: 'transition',
      playLeast: expect.closeTo(-0.018, 9),
      playMost: expect.closeTo(0.023, 9),
    });
    expect(refused('fit.limits', { nominal: 50, hole: 'h7' })).toContain('is not one of');
    expect(refused('fit.limits', { nominal: 20, shaft: 't6' })).toContain('is not one of');
    expect(refused('fit.limits', { nominal: 501 })).toContain('too large');
    expect(refused('fit.limits', { nominal: 50, hole: 'H12' })).toContain('grade from 5 to 11');
  });
});

describe('fit.measured', () => {
  test('a tight one, a loose one, and what can be done', () => {
    expect(output('fit.measured', { shaft: 30.006, bore: 29.991, nominal: 30 })).toMatchObject({
      verdict: 'in',
      interference: expect.closeTo(0.015, 9),
    });
    const spun = output('fit.measured', { shaft: 29.95, bore: 30.01, nominal: 30, spun: 'yes' }) as {
      verdict: string;
      ways: { way: string; possible: boolean }[];
    };
    expect(spun.verdict).toBe('out');
    expect(spun.ways.filter(({ possible }) => possible).map(({ way }) => way)).toEqual(['retaining compound', 'sleeve', 'renew the part']);
    const wide = output('fit.measured', { shaft: 29.7, bore: 30.01, nominal: 30 }) as typeof spun;
    expect(wide.ways.find(({ way }) => way === 'retaining compound')?.possible).toBe(false);
    expect(refused('fit.measured', { shaft: 40, bore: 30 })).toContain('about the bore');
  });
});

/** Lamé afresh: u = A·r + B/r in both, the two unknowns of each from the pressures on their faces, met at the seat. */
function pressureByUnknowns(interference: number, seat: number, hub: Cylinder, shaft: Cylinder): number {
  const growth = (pressure: number, { inside, outside, modulusMPa, poisson }: Cylinder, atInside: boolean): number => {
    const [ri, ro] = [inside / 2, outside / 2];
    const r = seat / 2;
    // σr = E/(1−ν²)·[A(1+ν) − B(1−ν)/r²]; a solid shaft has no B.
    const stiff = modulusMPa / (1 - poisson ** 2);
    const row = (at: number): number[] => [stiff * (1 + poisson), (-stiff * (1 - poisson)) / at ** 2];
    const [A, B] =
      ri === 0
        ? [(atInside ? 0 : -pressure) / (stiff * (1 + poisson)), 0]
        : solve(new Matrix([row(ri), row(ro)]), Matrix.columnVector(atInside ? [-pressure, 0] : [0, -pressure])).to1DArray();
    return A! * r + B! / r;
  };
  const gap = (pressure: number): number => 2 * (growth(pressure, hub, true) - growth(pressure, shaft, false));
  return interference / gap(1);
}

describe('fit.press', () => {
  const steel = { modulusMPa: 205_000, poisson: 0.3 };

  test('pressure by Lamé, derived afresh', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 200, noNaN: true }),
        fc.double({ min: 1.1, max: 4, noNaN: true }),
        fc.double({ min: 0, max: 0.9, noNaN: true }),
        fc.constantFrom(0.25, 0.33),
        (seat, wall, hollow, poisson) => {
          const hub = { inside: seat, outside: seat * wall, modulusMPa: 71_000, poisson };
          const shaft = { inside: hollow < 0.1 ? 0 : seat * hollow, outside: seat, ...steel };
          const pressure = contactPressure(0.03, seat, hub, shaft);
          expect(pressure / pressureByUnknowns(0.03, seat, hub, shaft)).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  /** Shigley (3-57), one metal and a solid shaft: p = E·δ·(D² − d²)/(2·d·D²). From memory. */
  test('the closed form for one metal, and the hub balances the pressure', () => {
    const pressure = contactPressure(0.02, 30, { inside: 30, outside: 60, ...steel }, { inside: 0, outside: 30, ...steel });
    expect(pressure).toBeCloseTo((205_000 * 0.02 * (60 ** 2 - 30 ** 2)) / (2 * 30 * 60 ** 2), 9);
    // σt − p is twice Lamé's constant: at the outside the hoop stress is what is left of it.
    expect(hoopStress(pressure, 30, 60)).toBeCloseTo((pressure * (60 ** 2 + 30 ** 2)) / (60 ** 2 - 30 ** 2), 9);
  });

  const asked = { seat: 30, long: 20, interference: 0.025, outside: 60 };
  test('a gauge shows the force over the ram; a longer fit takes more; a taper is pushed on by interference over taper', () => {
    const pushed = output('fit.press', { ...asked, ram: 50 }) as Record<string, number>;
    expect(pushed['gauge']).toBeCloseTo(pushed['force']! / ((Math.PI / 4) * 2500), 9);
    expect(Number(output('fit.press', { ...asked, long: 40 })['force'])).toBeCloseTo(2 * pushed['force']!, 6);
    expect(output('fit.press', { ...asked, taper: 1 / 12 })['advance']).toBeCloseTo(0.3, 9);
    expect(pushed['least']).toBeLessThan(pushed['force']!);
    expect(pushed['stop']).toBeCloseTo(1.25 * pushed['most']!, 9);
  });

  test.each([
    [{ outside: 30 }, 'the wall has no thickness'],
    [{ inside: 30 }, 'no wall left'],
    [{ interference: 0.003 }, 'smooth flat'],
    [{ capacity: 1000 }, 'take a larger press'],
    [{ yieldMPa: 50 }, 'what the hub stands'],
    [{ frictionLeast: 0 }, 'too small'],
    [{ frictionMost: 2 }, 'too large'],
  ])('%j is refused', (change, words) => {
    expect(refused('fit.press', { ...asked, ...change })).toContain(words);
  });
});

describe('fit.off', () => {
  const race = { ring: 'inner ring', seat: 30, long: 27, outside: 46, interference: 0.03 };
  const tubes = [
    { name: 'short', inside: 31, outside: 44, length: 20 },
    { name: 'narrow', inside: 31, outside: 36, length: 60 },
    { name: 'broad', inside: 31, outside: 44, length: 60 },
    { name: 'over the cage', inside: 31, outside: 50, length: 60 },
  ];

  /** Shigley (3-57), one metal and a solid shaft, from memory: p = E·δ·(D² − d²)/(2·d·D²); F = μ·π·d·L·p. */
  test('what it takes by the closed form; what lets go with it is added; a quarter more is the stop', () => {
    const pressure = (205_000 * 0.03 * (46 ** 2 - 30 ** 2)) / (2 * 30 * 46 ** 2);
    const { force, stop } = output('fit.off', race) as Record<string, number>;
    // The modulus of steel in the handbook's own figure: within a hundredth.
    expect(force! / (0.25 * Math.PI * 30 * 27 * pressure)).toBeCloseTo(1, 2);
    expect(stop).toBeCloseTo(1.25 * force!, 9);
    expect(Number(output('fit.off', { ...race, others: 12_000 })['force'])).toBeCloseTo(force! + 12_000, 6);
    expect(Number(output('fit.off', { ...race, friction: 0.125 })['force'])).toBeCloseTo(force! / 2, 6);
  });

  test('the pipe lets pass what has to, carries the ring alone and is as long as the way; of the crib the broadest face', () => {
    expect(output('fit.off', { ...race, tubes })['which']).toBe('broad');
    expect(output('fit.off', { ...race, tubes, way: 70 })['which']).toMatch(
      /^none of the crib: a pipe over 30.5 mm inside, .* 70 mm long$/u,
    );
    expect(output('fit.off', { ...race, tubes, passes: 35 })['which']).toMatch(/^none of the crib: a pipe over 35.5 mm/u);
    // In a housing the pipe carries the boss, however wide it is.
    expect(output('fit.off', { ...race, ring: 'outer ring', tubes })['which']).toBe('over the cage');
  });

  test('lets go of itself where the ring has grown by the interference, if it stands that', () => {
    const { releases, heat } = output('fit.off', race) as { releases: number; heat: string };
    expect((releases - 20) * 11.5e-6 * 30).toBeCloseTo(0.03, 9);
    expect(heat).toMatch(/lets go of itself; never over 120 °C/u);
    expect(output('fit.off', { ...race, interference: 0.05 })['heat']).toMatch(/Heat alone does not/u);
    expect(output('fit.off', { ...race, interference: 0.05, fate: 'spoil' })['heat']).toMatch(/never over 250 °C/u);
    expect(output('fit.off', { ...race, fate: 'spoil' })['what']).toMatch(/crack it/u);
  });

  test.each([
    [{ capacity: 10_000 }, 'a larger press, release heat, or cut it'],
    [{ support: 20 }, 'the whole way, 27 mm'],
    [{ support: 60, way: 90 }, 'the whole way, 90 mm'],
    [{ passes: 45 }, 'no face is left to carry it'],
    [{ passes: 25 }, 'the seat itself passes'],
    [{ outside: 30 }, 'the wall has no thickness left'],
    [{ friction: 0 }, 'too small'],
  ])('%j is refused', (change, words) => {
    expect(refused('fit.off', { ...race, ...change })).toContain(words);
  });
});

describe('fit.heat', () => {
  test('grows what is needed; a cold shaft gives its share; over the limit is refused with what would do', () => {
    const { temperature } = output('fit.heat', { seat: 60, interference: 0.03, gap: 0.04, what: 'hub' }) as { temperature: number };
    expect((temperature - 20) * 11.5e-6 * 60).toBeCloseTo(0.07, 9);
    expect(refused('fit.heat', { seat: 60, interference: 0.03, gap: 0.04 })).toContain('cool the shaft');
    expect(refused('fit.heat', { seat: 40, interference: 0.015, what: 'sealed-bearing' })).toContain('80 °C');
    const cold = output('fit.heat', { seat: 60, interference: 0.03, gap: 0.04, shaftT: -70 }) as { temperature: number; byShaft: number };
    // Steel made very cold shrinks by 8.5e-6/K (Machinery's Handbook, from memory).
    expect(cold.byShaft).toBeCloseTo(8.5e-6 * 90 * 60, 9);
    expect(cold.temperature).toBeLessThan(temperature);
  });

  test('the time left is where the falling curve meets what grips', () => {
    const ring = { seat: 40, interference: 0.015, outside: 80, width: 18 };
    const { left, temperature, grips } = output('fit.heat', ring) as Record<string, number>;
    // Newton's cooling stepped through, with the ring's own figures.
    const face = (Math.PI / 4) * (80 ** 2 - 40 ** 2);
    const perSecond = (14e-6 * (Math.PI * 120 * 18 + 2 * face)) / (7850e-9 * 460 * face * 18);
    let [warm, time] = [temperature!, 0];
    for (; warm > grips!; time += 0.01) warm -= perSecond * (warm - 20) * 0.01;
    expect(left).toBeCloseTo(time, 0);
  });
});

describe('press.sleeve', () => {
  const tubes = [
    { name: 'inner', inside: 21, outside: 26, length: 60 },
    { name: 'outer', inside: 41, outside: 46, length: 60 },
    { name: 'plate', inside: 20.6, outside: 46, length: 60 },
    { name: 'disc', inside: 0, outside: 46.4, length: 20 },
  ];
  test.each([
    ['shaft', 'bearing', 'inner'],
    ['housing', 'bearing', 'outer'],
    ['both', 'bearing', 'plate'],
    ['housing', 'seal', 'disc'],
  ])('%s, %s: the %s', (into, part, which) => {
    expect(output('press.sleeve', { into, part, bore: 20, outside: 47, depth: 10, tubes })['which']).toBe(which);
  });

  test('too short, or none: what to turn', () => {
    expect(output('press.sleeve', { bore: 20, outside: 47, depth: 80, tubes })['which']).toContain('none of the crib');
  });
});

describe('what a press fit stands', () => {
  const fit = { seat: 30, long: 20, interference: 0.04, interferenceU: 0, outside: 60, roughness: 0 };

  /** Von Mises at the bore, from Lamé's three stresses by the full formula (Shigley 5-12): hoop, radial −p, endwise 0. */
  test('hoop stress and pressure count together, in the hub and at the bore of a hollow shaft', () => {
    const { pressure: p, hoop, hubStress, shaftStress } = output('fit.press', { ...fit, inside: 15 }) as Record<string, number>;
    const mises = (a: number, b: number, c: number): number => Math.sqrt(((a - b) ** 2 + (b - c) ** 2 + (c - a) ** 2) / 2);
    expect(hubStress).toBeCloseTo(mises(hoop!, -p!, 0), 9);
    const atBore = (-2 * p! * 30 ** 2) / (30 ** 2 - 15 ** 2);
    expect(shaftStress).toBeCloseTo(mises(atBore, 0, 0), 9);
    const solid = output('fit.press', fit) as Record<string, number>;
    expect(solid['shaftStress']).toBeCloseTo(mises(-solid['pressure']!, -solid['pressure']!, 0), 9);
  });

  test('a hub that hoop stress alone would pass is refused', () => {
    const { hoop, hubStress } = output('fit.press', fit) as Record<string, number>;
    expect(refused('fit.press', { ...fit, yieldMPa: (hoop! + hubStress!) / 2 })).toContain('what the hub stands');
    expect(refused('fit.press', { ...fit, inside: 26, shaftYieldMPa: 100 })).toContain('what the shaft stands');
  });
});

describe('heat, by what is warmed', () => {
  const ring = { seat: 40, interference: 0.015 };
  const byShaft = (input: object): number => Number(output('fit.heat', { ...ring, ...input })['byShaft']);

  test('a hardened gear is not a hub, and aluminium stands no more for being called one', () => {
    const tight = { seat: 40, interference: 0.06 };
    expect(output('fit.heat', { ...tight, what: 'hub' })['most']).toBe(250);
    expect(refused('fit.heat', { ...tight, what: 'hardened' })).toContain('150 °C');
    expect(output('fit.heat', { ...ring, what: 'hub', ringOf: 'aluminium' })['most']).toBe(150);
    expect(refused('fit.heat', { ...ring, what: 'soft-hub', ringOf: 'steel' })).toContain('light or yellow');
    expect(refused('fit.heat', { ...ring, ringOf: 'aluminium' })).toContain('a bearing is of steel');
  });

  test('a temperature that is not given is the bench’s', () => {
    expect(byShaft({ bench: 5 })).toBe(0);
    expect(byShaft({ bench: 35 })).toBe(0);
  });

  test('colder is never less', () => {
    const given = [40, 25, 20, 15, 1, 0, -1, -20, -70, -196].map((shaftT) => byShaft({ shaftT }));
    expect(given).toEqual(given.toSorted((one, other) => one - other));
  });

  /** Expansions 23 and 11.5 per million, heat 2700·900 and 7850·460 J/(m³·K): handbook values, from memory. */
  test('an aluminium housing grows and cools by its own figures', () => {
    const size = { ...ring, outside: 80, width: 18, gap: 0.02 };
    const soft = output('fit.heat', { ...size, what: 'soft-hub' }) as Record<string, number>;
    expect((soft['temperature']! - 20) * 23e-6 * 40).toBeCloseTo(0.035, 9);
    const steel = output('fit.heat', { ...size, what: 'hub' }) as Record<string, number>;
    expect(soft['left']! / steel['left']!).toBeCloseTo((2700 * 900) / (7850 * 460), 9);
    expect(byShaft({ shaftT: -70, shaftOf: 'aluminium' })).toBeCloseTo((byShaft({ shaftT: -70 }) * 23) / 11.5, 9);
  });

  test('a nominal size that an inch carries a hair over its row is meant for it', () => {
    const limits = (nominal: unknown): unknown => output('fit.limits', { nominal })['holeMost'];
    expect(Number(limits('0.7087 in')) - 0.7087 * 25.4).toBeCloseTo(0.018, 9);
    expect(Number(limits(30.0000000004)) - 30).toBeCloseTo(0.021, 6);
  });
});
