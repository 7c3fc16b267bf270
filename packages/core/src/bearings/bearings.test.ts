import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { seeded, normal } from '../math/random.js';
import { output, refused } from '../working/run.test-kit.js';
import { workings } from '../workings.js';
import { CLEARANCE } from './clearance-table.js';

describe('bearing.balls', () => {
  /** Six balls round a seventh of the same size: the hexagon; twelve of 1/4 in on an inch and more. */
  test.each([
    [10, 20, 6, 5],
    [6.35, 26, 12, 11],
    [4.7625, 30, 19, 18],
  ])('%d on %d: %d fill it', (ball, circle, full, working) => {
    expect(output('bearing.balls', { ball, circle })).toMatchObject({ full, working });
  });

  test('the full row fits and one more does not; a lost one is seen', () => {
    fc.assert(
      fc.property(fc.double({ min: 2, max: 20, noNaN: true }), fc.double({ min: 2.2, max: 12, noNaN: true }), (ball, times) => {
        const circle = ball * times;
        const { full } = output('bearing.balls', { ball, circle }) as { full: number };
        const angle = 2 * Math.asin(ball / circle);
        expect(full * angle).toBeLessThanOrEqual(2 * Math.PI + 1e-6);
        expect((full + 1) * angle).toBeGreaterThan(2 * Math.PI);
      }),
    );
    expect(output('bearing.balls', { ball: 6.35, circle: 26, left: 11, right: 10 })['what']).toContain('one is lost');
    expect(refused('bearing.balls', { ball: 20, circle: 20 })).toContain('less than the pitch circle');
  });
});

describe('bearing.shim', () => {
  const shelf = [0.05, 0.1, 0.2, 0.5, 1].map((thickness) => ({ thickness, count: 4 }));
  const asked = { measured: 0.14, trial: 1, from: 0.03, to: 0.08, shelf };

  test('play less the pack is what it gives, whichever way a thicker one works', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.2, max: 0.8, noNaN: true }), fc.constantFrom('closes', 'opens'), (measured, thicker) => {
        const { gives, thickness } = output('bearing.shim', { ...asked, measured, thicker }) as { gives: number; thickness: number };
        expect(gives).toBeCloseTo(measured - (thicker === 'closes' ? 1 : -1) * (thickness - 1), 9);
      }),
    );
  });

  test.each([
    [{ shelf: shelf.map(({ thickness }) => ({ thickness, count: 0 })) }, 'the box is empty'],
    [{ shelf: [{ thickness: 0, count: 1 }] }, 'more than 0 mm'],
    [{ shelf: [...shelf, shelf[0]] }, 'said twice'],
    [{ measured: -1.2 }, 'no pack is thinner than none'],
    [{ to: 0.01 }, 'below the lower end'],
    [{ mostPieces: 20 }, 'too large'],
  ])('%j is refused', (change, words) => {
    expect(refused('bearing.shim', { ...asked, ...change })).toContain(words);
  });

  test('a target narrower than any pack is refused, with the nearest and with what would be right', () => {
    expect(refused('bearing.shim', { ...asked, from: 0.061, to: 0.062 })).toMatch(
      /On the shelf: none of the shims will do: the nearest, 1 \+ 0\.1 mm, gives 0\.04 mm; 1\.078 mm to 1\.079 mm in all would be right/u,
    );
  });

  test('a pack of more than twice what the aim wants is found where it alone lands inside', () => {
    const aimed = { measured: 0.11, trial: 0, from: 0.01, to: 0.1, aim: 0.1, shelf: [{ thickness: 0.05, count: 1 }] };
    expect(output('bearing.shim', aimed)).toMatchObject({ pack: '0.05 mm', gives: expect.closeTo(0.06, 9) });
  });

  test('what lands inside is taken, however far from the aim: refused only where nothing does', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.2, max: 0.8, noNaN: true }),
        fc.double({ min: 0, max: 0.06, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.constantFrom(1, -1),
        (measured, wide, share, sign) => {
          const input = {
            ...asked,
            measured,
            to: asked.from + wide,
            aim: asked.from + share * wide,
            thicker: sign === 1 ? 'closes' : 'opens',
          };
          // Steps of 0.05 mm up to 2.2 mm: every pack of four of these there is.
          const inside = Array.from({ length: 80 }, (_, step) => measured - sign * (step * 0.05 - 1)).filter(
            (play) => play >= input.from - 1e-9 && play <= input.to + 1e-9,
          );
          const result = workings.run('bearing.shim', input);
          if (!result?.ok) return expect(inside).toEqual([]);
          const { gives } = result.run.output as { gives: number };
          const nearest = Math.min(...inside.map((play) => Math.abs(play - input.aim)));
          expect(Math.abs(gives - input.aim)).toBeCloseTo(nearest, 9);
        },
      ),
    );
  });
});

describe('bearing.cone-and-locknut', () => {
  /** A hub that takes up so much in the lock and the clamp, read by a dial of its noise: two tries do. */
  test('two tries do, on hubs of every kind', () => {
    let late = 0;
    for (let seed = 1; seed <= 200; seed += 1) {
      const random = seeded(seed);
      const [lock, clamp, noise] = [0.02 + 0.08 * random(), 0.03 * random(), 0.002];
      const window = { from: 0, to: 0.03, pitch: 1 };
      let set = 0.05 + 0.2 * random();
      let known = {};
      let tries = 0;
      for (; tries < 5; tries += 1) {
        const read = (play: number): number => Math.max(0, normal(random, play, noise));
        const { turn } = output('bearing.cone-and-locknut', { ...window, playNow: read(set), ...known }) as { turn: number };
        set -= (turn * window.pitch) / 360;
        const riding = set - lock - clamp;
        if (riding >= window.from && riding <= window.to) break;
        known = { setBefore: set, lockedAfter: Math.max(0, set - lock), clamped: Math.max(0, set - lock - clamp) };
        // Too tight to read: the play is opened until the dial shows some.
        if (set - lock - clamp < 0) {
          set += 0.1;
          known = { setBefore: set, lockedAfter: set - lock, clamped: Math.max(0, set - lock - clamp) };
        }
      }
      if (tries + 1 > 2) late += 1;
    }
    expect(late).toBeLessThanOrEqual(10);
  });

  test('a lock may add play; a clamp never does, and half a pair says nothing', () => {
    const base = { playNow: 0.1, from: 0, to: 0.03, pitch: 1 };
    expect(output('bearing.cone-and-locknut', { ...base, setBefore: 0.05, lockedAfter: 0.08 })).toMatchObject({
      lock: expect.closeTo(-0.03, 12),
      setTo: 0,
    });
    expect(refused('bearing.cone-and-locknut', { ...base, setBefore: 0.05, lockedAfter: 0.1 })).toContain('hold the cone');
    expect(refused('bearing.cone-and-locknut', { ...base, setBefore: 0.05, lockedAfter: 0.04, clamped: 0.05 })).toContain(
      'never adds play',
    );
    expect(refused('bearing.cone-and-locknut', { ...base, setBefore: 0.05 })).toContain('Last try, locked: is missing');
    expect(refused('bearing.cone-and-locknut', { ...base, clamped: 0.05 })).toContain('Last try, locked: is missing');
    expect(refused('bearing.cone-and-locknut', { ...base, lockedAfter: 0.05 })).toContain('before locking: is missing');
    expect(refused('bearing.cone-and-locknut', { ...base, pitch: 0 })).toContain('too small');
  });
});

describe('bearing.rolling-torque', () => {
  test('force on its radius, less the seal; the carrier through the ratio', () => {
    const base = { pulls: [22, 22, 22], radius: 52, from: 0.9, to: 1.4, u: 0.2 };
    expect(output('bearing.rolling-torque', base)['torque']).toBeCloseTo(1.144, 9);
    expect(output('bearing.rolling-torque', { ...base, sealDrag: 0.2 })['torque']).toBeCloseTo(0.944, 9);
    // T = Tp + Tc/i: a carrier of 1.77 N·m seen at a pinion of 0.6 N·m, 39 : 11.
    const whole = 0.6 + 1.77 / (39 / 11);
    const seen = output('bearing.rolling-torque', { ...base, pulls: [whole / 0.052], pinion: 0.6, ratio: 39 / 11 });
    expect(seen['torque']).toBeCloseTo(1.77, 9);
    expect(output('bearing.rolling-torque', { ...base, start: 60 })['what']).toContain('something sticks');
    expect(refused('bearing.rolling-torque', { ...base, sealDrag: 2 })).toContain('what was read in all');
    expect(refused('bearing.rolling-torque', { ...base, ratio: 0 })).toContain('too small');
  });
});

describe('bearing.crush-sleeve', () => {
  /** A sleeve that yields: nothing until the play is gone, then a rise that gets steeper. */
  test('stays inside the window on sleeves of every stiffness, and never asks for a step back', () => {
    for (let seed = 1; seed <= 300; seed += 1) {
      const random = seeded(seed);
      const [gone, slope, bend] = [10 + 80 * random(), 0.01 + 0.04 * random(), 0.0008 * random()];
      const torqueAt = (angle: number): number => 0.03 + (angle > gone ? slope * (angle - gone) + bend * (angle - gone) ** 2 : 0);
      const window = { from: 1.2, to: 1.8 };
      const readings = [{ angle: 0, torque: torqueAt(0) }];
      let state = 'on';
      for (let steps = 0; state === 'on' && steps < 60; steps += 1) {
        const now = output('bearing.crush-sleeve', { ...window, readings }) as { state: string; step: number };
        ({ state } = now);
        expect(now.step).toBeGreaterThanOrEqual(0);
        if (state !== 'on') break;
        const angle = readings.at(-1)!.angle + now.step;
        readings.push({ angle, torque: torqueAt(angle) });
      }
      expect(state).toBe('in');
    }
  });

  test('over the window is a new sleeve; a nut backed off is refused', () => {
    const window = { from: 1.2, to: 1.8 };
    expect(output('bearing.crush-sleeve', { ...window, readings: [{ angle: 0, torque: 2 }] })['state']).toBe('over');
    const back = [
      { angle: 30, torque: 1 },
      { angle: 20, torque: 0.8 },
    ];
    expect(refused('bearing.crush-sleeve', { ...window, readings: back })).toContain('never backed off');
  });
});

describe('bearing.thermal', () => {
  /** Bearing handbook: K 1.5, D 60, L 180, steel, shaft 20 K warmer, face to face loses about 0.10 mm; from memory. */
  const pair = { setting: 0.15, k1: 1.5, d1: 60, apart: 180, shaftT: 40, housingT: 20, housingOf: 'steel' };
  test('face to face loses a tenth, back to back the axial part is given back', () => {
    const face = output('bearing.thermal', pair) as Record<string, number>;
    expect(face['loses']).toBeCloseTo(0.1, 1);
    expect(face['loses']).toBeGreaterThan(0.09);
    const back = output('bearing.thermal', { ...pair, arrangement: 'back-to-back' }) as Record<string, number>;
    expect(back['loses']).toBeCloseTo(face['radial']! - face['axial']!, 12);
  });

  test('cold from hot and hot from cold', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.05, max: 0.3, noNaN: true }), fc.double({ min: 20, max: 120, noNaN: true }), (setting, shaftT) => {
        const { cold } = output('bearing.thermal', { ...pair, ask: 'hot', setting, shaftT });
        expect(output('bearing.thermal', { ...pair, setting: cold as number, shaftT })['hot']).toBeCloseTo(setting, 12);
      }),
    );
  });
});

describe('bearing.life', () => {
  /** ISO 281 by hand: (19.5/3)³ = 274.6 million turns, 4577 h at 1000 rpm; (80/10)^(10/3) = 1024 million, 56 889 h at 300 rpm. */
  test.each([
    [{ rating: '19.5 kN', radial: '3 kN', speed: 1000 }, 274.625, 4577.08],
    [{ kind: 'roller', rating: '80 kN', radial: '10 kN', speed: 300 }, 1024, 56_888.9],
    [{ rating: '19.5 kN', radial: '3 kN', speed: 1000, reliability: '99' }, 68.656, 1144.27],
  ])('%j', (input, turns, hours) => {
    const found = output('bearing.life', input) as Record<string, number>;
    expect(found['turns']).toBeCloseTo(turns, 2);
    expect(found['hours']! / 3600).toBeCloseTo(hours, 1);
  });

  test('thrust counts from e on; the rating for the hours is the one that gives them; a taper pulls 0.5·Fr/Y', () => {
    expect(output('bearing.life', { rating: '19.5 kN', radial: '3 kN', thrust: '0.8 kN', speed: 1000 })['load']).toBe(3000);
    expect(output('bearing.life', { rating: '19.5 kN', radial: '3 kN', thrust: '2 kN', speed: 1000 })['load']).toBeCloseTo(
      0.56 * 3000 + 1.6 * 2000,
      9,
    );
    const { rating } = output('bearing.life', { ask: 'rating', hours: '5000 h', radial: '3 kN', speed: 1000 });
    expect(Number(output('bearing.life', { rating: rating as number, radial: '3 kN', speed: 1000 })['hours']) / 3600).toBeCloseTo(5000, 6);
    expect(output('bearing.life', { kind: 'roller', rating: '80 kN', radial: '10 kN', y: 1.6, speed: 300 })['induced']).toBe(3125);
    expect(refused('bearing.life', { rating: '5 kN', radial: '4 kN', speed: 100 })).toContain('half of the rating');
  });
});

describe('bearing.clearance', () => {
  /** ISO 5753-1, µm: bore, group, least, most; from memory. */
  test.each([
    [30, 'CN', 5, 20],
    [30, 'C3', 13, 28],
    [25, 'C4', 23, 41],
    [20, 'CN', 5, 20],
    [20, 'C2', 0, 10],
    [17, 'C3', 11, 25],
    [10, 'CN', 2, 13],
    [40, 'CN', 6, 20],
    [45, 'C3', 18, 36],
    [60, 'CN', 8, 28],
    [65, 'C3', 23, 43],
    [80, 'CN', 10, 30],
    [100, 'C3', 30, 58],
    [110, 'CN', 15, 41],
  ])('bore %d, %s: %d to %d µm', (bore, group, least, most) => {
    const { each } = output('bearing.clearance', { bore, outside: 2 * bore, warmer: 0 }) as {
      each: { group: string; least: number; most: number }[];
    };
    const row = each.find((one) => one.group === group);
    expect([row!.least * 1000, row!.most * 1000]).toEqual([expect.closeTo(least, 6), expect.closeTo(most, 6)]);
  });

  test('groups overlap and rise with the bore, as in the standard', () => {
    for (const [, , ...groups] of CLEARANCE)
      groups.slice(1).forEach(([least, most], place) => {
        expect(least).toBeGreaterThan(groups[place]![0]);
        expect(least).toBeLessThanOrEqual(groups[place]![1]);
        expect(most).toBeGreaterThan(groups[place]![1]);
      });
  });

  test('a loose cold one is CN; tighter fits and more warmth ask for C3; others are refused', () => {
    const at = { bore: 30, outside: 62 };
    expect(output('bearing.clearance', { ...at, warmer: 3 })['group']).toBe('CN');
    expect(output('bearing.clearance', { ...at, warmer: 5, onShaft: 0.009 })['group']).toBe('C3');
    expect(refused('bearing.clearance', { ...at, kind: 'tapered' })).toContain('deep groove');
    expect(refused('bearing.clearance', { ...at, onShaft: 0.15 })).toContain('fit it looser');
  });
});

describe('bearing.identify', () => {
  /** ISO 15 and ISO 355, from memory. */
  test.each([
    ['6204', 20, 47, 14],
    ['30205', 25, 52, 16.25],
    ['6000', 10, 26, 8],
    ['6305', 25, 62, 17],
    ['6208', 40, 80, 18],
    ['6010', 50, 80, 16],
    ['NU 206', 30, 62, 16],
    ['32008', 40, 68, 19],
    ['32206', 30, 62, 21.25],
    ['6902', 15, 28, 7],
    ['6406', 30, 90, 23],
    ['3206', 30, 62, 23.8],
  ])('%s is %d × %d × %d, and back', (designation, bore, outside, width) => {
    expect(output('bearing.identify', { what: 'designation', designation })).toMatchObject({ bore, outside, width });
    expect(String(output('bearing.identify', { bore, outside, width })['name']).split(', ')).toContain(designation);
  });

  test('a suffix changes nothing; a worn or badly read one is named with how far it is off', () => {
    expect(output('bearing.identify', { what: 'designation', designation: '6204-2RS C3' })['bore']).toBe(20);
    const near = output('bearing.identify', { bore: 19.98, outside: 46.9, width: 14.1 });
    expect(near['name']).toContain('6204');
    expect(near['off']).toBeCloseTo(0.1, 6);
    expect(refused('bearing.identify', { bore: 19, outside: 47.5, width: 14 })).toContain('an inch size');
    expect(refused('bearing.identify', { what: 'designation', designation: 'hello' })).toContain('the tables have');
  });

  /** DIN 471 and DIN 472, from memory. */
  test.each([
    ['shaft-ring', 25, 23.9, 1.2],
    ['bore-ring', 52, 55, 2],
  ])('%s for %d: groove %d', (what, bore, groove, width) => {
    expect(output('bearing.identify', { what, bore })).toMatchObject({ outside: groove, width });
  });
});

describe('loads and lives that agree with themselves', () => {
  const taper = { kind: 'roller', rating: 40_000, radial: 5000, speed: 500 };
  /** ISO 281: X 0.4 and Y 0.4·cot α for tapers, e = 1.5·tan α, so Y·e = 0.6; X 0.56 and Y·e = 0.44 for deep groove; from memory. */
  test('P is never less than Fr for rollers, and e goes with Y', () => {
    for (const thrust of [0, 1000, 1870, 1880, 2500])
      expect(Number(output('bearing.life', { ...taper, y: 1.6, thrust })['load'])).toBeGreaterThanOrEqual(5000);
    expect(output('bearing.life', { ...taper, y: 1.6, thrust: 3000 })['load']).toBeCloseTo(0.4 * 5000 + 1.6 * 3000, 9);
    expect(output('bearing.life', { ...taper, e: 0.375, thrust: 3000 })['load']).toBeCloseTo(0.4 * 5000 + 1.6 * 3000, 9);
    expect(output('bearing.life', { ...taper, kind: 'ball', y: 1.99, thrust: 3000 })['load']).toBeCloseTo(0.56 * 5000 + 1.99 * 3000, 9);
  });

  test.each([
    [0.19, 2.3],
    [0.26, 1.71],
    [0.44, 1],
  ])('e %d and Y %d of the standard’s table go together, and others do not', (e, y) => {
    expect(output('bearing.life', { ...taper, kind: 'ball', y, e, thrust: 4000 })['load']).toBeCloseTo(0.56 * 5000 + y * 4000, 9);
    expect(refused('bearing.life', { ...taper, kind: 'ball', y: y * 1.5, e })).toContain('one line of the catalogue');
  });
});

describe('a pair in an aluminium housing', () => {
  const pair = { arrangement: 'face-to-face', setting: 0.1, k1: 1.5, d1: 60, apart: 120, housingOf: 'aluminium' };
  test('a cold start is worked out, and is the tighter one', () => {
    const cold = output('bearing.thermal', { ...pair, shaftT: -25, housingT: -25 }) as Record<string, number | string>;
    const hot = output('bearing.thermal', { ...pair, shaftT: 80, housingT: 80 }) as Record<string, number | string>;
    expect(Number(cold['hot'])).toBeLessThan(0.1);
    expect(Number(hot['hot'])).toBeGreaterThan(0.1);
    expect(cold['what']).toContain('cold start');
    expect(hot['what']).toContain('work that out, too');
  });

  test('a cup that comes loose in the hot housing is said, with how much hold it loses', () => {
    const hot = output('bearing.thermal', { ...pair, shaftT: 90, housingT: 80 });
    // (23 − 11.5) per million, 60 K, 60 mm.
    expect(hot['cupLoosens']).toBeCloseTo(11.5e-6 * 60 * 60, 9);
    expect(hot['what']).toContain('The cups come loose');
    expect(output('bearing.thermal', { ...pair, housingOf: 'steel', shaftT: 90, housingT: 80 })['what']).not.toContain('loose');
  });
});

describe('bearing.clearance, by its rows', () => {
  test('30 mm by way of inches is still the row to 30 mm; a rise may be typed in °F', () => {
    const row = output('bearing.clearance', { bore: 30, outside: 62, warmer: 5 });
    expect(output('bearing.clearance', { bore: `${(30 + 4e-10) / 25.4} in`, outside: 62, warmer: '9 °F' })['group']).toBe(row['group']);
    expect(output('bearing.clearance', { bore: 30, outside: 62, warmer: '9 °F' })['warmth']).toBeCloseTo(Number(row['warmth']), 12);
  });
});
