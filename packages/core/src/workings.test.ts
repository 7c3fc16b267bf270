import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
// jstat has no types of its own.
// @ts-expect-error untyped module
import jstat from 'jstat';
import { circlePoints, rankCandidates, rankCauses, rankQuestions, starOrder, wording, workings, type Field } from './index.js';
import { THREADS, sizeWindow } from './threads/thread.js';
import { parseThread, torqueAtYield } from './index.js';
import { Registry } from './working/registry.js';
import { output, refused } from './working/run.test-kit.js';
import { convert } from './units/convert.js';
import { normalCdf } from './math/normal.js';
import { chanceInside, guardOverU } from './measuring/verdict.js';

describe('every working', () => {
  test.each(workings.list().map((working) => [working.id, working] as const))(
    '%s has sources, help, and an example that runs',
    (id, working) => {
      expect(working.sources.length).toBeGreaterThan(0);
      for (const field of [...working.inputs, ...working.outputs]) expect(field.help).not.toBe('');
      const result = workings.run(id, working.example);
      expect(result?.ok).toBe(true);
      if (!result?.ok) return;
      expect(result.run.steps.length).toBeGreaterThan(0);
      const outputs = working.outputs.map((field) => field.name);
      expect(Object.keys(result.run.output).filter((name) => !outputs.includes(name))).toEqual([]);
    },
  );

  test.each(workings.list().map((working) => [working.id, working] as const))('%s takes any rubbish without throwing', (id, working) => {
    const rubbish = fc.oneof(
      fc.string(),
      fc.double(),
      fc.constant(null),
      fc.array(fc.anything(), { maxLength: 3 }),
      fc.integer(),
      fc.object({ maxDepth: 1 }),
    );
    fc.assert(
      fc.property(
        fc.record(Object.fromEntries(working.inputs.map((field: Field) => [field.name, rubbish])), { requiredKeys: [] }),
        (input) => {
          const result = workings.run(id, input);
          if (result?.ok) return;
          // What was given is quoted, an unknown column's name too, and can be anything.
          for (const issue of result?.issues ?? [])
            expect(
              wording(issue)
                .slice((issue.label ?? issue.field).length)
                .replace(/".*"/su, ''),
            ).not.toMatch(/: undefined|allowed is $|\(\)|; use $/u);
        },
      ),
      { numRuns: 200, examples: [[{ stages: [{ '()': '' }] }], [{ angle: '0()' }]] },
    );
  });

  test('an id used twice is a programmer’s mistake', () => {
    expect(() => new Registry([convert, convert])).toThrow('used twice');
  });
});

describe('units.convert', () => {
  /** Common practice figures of the trade. */
  test.each([
    ['24 lbf·ft', 'N·m', 32.54],
    ['12 N·m', 'lbf·ft', 8.851],
    ['25 lb·ft', 'N·m', 33.9],
  ])('%s in %s', (figure, to, expected) => {
    expect(output('units.convert', { figure, to })['converted']).toBeCloseTo(expected, 2);
  });

  test('a thread, a bare number and another quantity are refused', () => {
    expect(refused('units.convert', { figure: '1/2-20 UNF', to: 'mm' })).toContain('names a thread');
    expect(refused('units.convert', { figure: '12', to: 'mm' })).toContain('is not a figure');
    expect(refused('units.convert', { figure: '30 kPa', to: 'N·m' })).toContain('cannot be shown in N·m');
    expect(refused('units.convert', { figure: '3 mm', to: 'parsec' })).toContain('is not one of');
  });
});

describe('torque.adapter', () => {
  test('a crowfoot square to the wrench changes nothing, straight out lowers, folded back raises the setting', () => {
    const setting = (angle: number): number =>
      Number(output('torque.adapter', { torque: 100, wrench: 400, adapter: 50, angle })['setting']);
    expect(setting(90)).toBeCloseTo(100, 9);
    expect(setting(0)).toBeCloseTo((100 * 400) / 450, 9);
    expect(setting(180)).toBeCloseTo((100 * 400) / 350, 9);
  });

  test('there and back, at every angle', () => {
    const lengths = fc.record({
      wrench: fc.double({ min: 150, max: 1000, noNaN: true }),
      adapter: fc.double({ min: 0, max: 120, noNaN: true }),
      angle: fc.double({ min: 0, max: 180, noNaN: true }),
    });
    fc.assert(
      fc.property(lengths, fc.double({ min: 1, max: 500, noNaN: true }), (arm, torque) => {
        const { setting } = output('torque.adapter', { ...arm, torque });
        expect(output('torque.adapter', { ...arm, ask: 'at-fastener', torque: setting as number })['atFastener']).toBeCloseTo(torque, 6);
      }),
    );
  });

  test('an extension bar changes nothing, and says so', () => {
    const result = workings.run('torque.adapter', { torque: 80, wrench: 400, bar: 250 });
    expect(result?.ok && result.run.output['setting']).toBe(80);
    expect(result?.ok && result.run.steps.at(-1)?.say).toContain('changes nothing');
  });

  test.each([
    [{ torque: '30 kPa', wrench: 400 }, 'is a pressure'],
    [{ torque: -5, wrench: 400 }, 'too small'],
    [{ torque: 50, wrench: '40 m' }, 'too large'],
    [{ torque: 50, wrench: 200, adapter: 199, angle: 180 }, 'reaches past the grip'],
    [{ torque: 50, wrench: 'long' }, 'is not a figure'],
  ])('%j is refused', (input, words) => {
    expect(refused('torque.adapter', input)).toContain(words);
  });
});

describe('torque.pattern', () => {
  test('star order: each once, and never two neighbours running, for 5 to 64', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 64 }), (count) => {
        const order = starOrder(count);
        expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, place) => place));
        for (let turn = 1; turn < count; turn += 1) {
          const apart = Math.abs(order[turn]! - order[turn - 1]!);
          expect(Math.min(apart, count - apart)).toBeGreaterThan(1);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('three go round, four go crosswise', () => {
    expect(starOrder(3)).toEqual([0, 1, 2]);
    expect(starOrder(4)).toEqual([0, 2, 1, 3]);
  });

  /** ASME PCC-1 (from memory): 20–30 %, 50–70 %, 100 %, then a circular pass at 100 %. */
  test('passes of ASME PCC-1', () => {
    const passes = output('torque.pattern', { count: 10, torque: 100 })['passes'] as { share: number; torque: number; way: string }[];
    const [first, second, third, check] = passes;
    expect(first?.share).toBeGreaterThanOrEqual(0.2);
    expect(first?.share).toBeLessThanOrEqual(0.3);
    expect(second?.share).toBeGreaterThanOrEqual(0.5);
    expect(second?.share).toBeLessThanOrEqual(0.7);
    expect(third?.torque).toBe(100);
    expect(check).toMatchObject({ share: 1, torque: 100, way: 'round, until none turns' });
  });

  test('grid, rows and free layouts go from the middle outwards, each once', () => {
    const grid = output('torque.pattern', { layout: 'grid', rows: 3, columns: 5 })['order'] as number[];
    expect(grid[0]).toBe(8);
    expect(new Set(grid).size).toBe(15);
    expect([1, 5, 11, 15]).toContain(grid.at(-1));
    const free = output('torque.pattern', { layout: 'free', points: circlePoints(7).map(({ x, y }) => ({ x: x * 50, y: y * 50 })) })[
      'order'
    ] as number[];
    expect(new Set(free).size).toBe(7);
  });

  test.each([
    [{ count: 0 }, 'too small'],
    [{ count: 401 }, 'too large'],
    [{ count: 6.5 }, 'not a whole number'],
    [{ shares: [0.6, 0.3, 1] }, 'does not rise'],
    [{ shares: [0.3, 0.6] }, 'does not rise'],
    [{ layout: 'spiral' }, 'is not one of'],
    [{ layout: 'free' }, 'is missing'],
    [
      {
        layout: 'free',
        points: [
          { x: 1, y: 2 },
          { x: 'left', y: 3 },
        ],
      },
      'row 2',
    ],
  ])('%j is refused', (input, words) => {
    expect(refused('torque.pattern', input)).toContain(words);
  });
});

describe('bearing.nut', () => {
  const hub = { playNow: 0.21, from: 0.03, to: 0.13, pitch: 1.5, slots: 6, openings: [0, 90, 180, 270] };

  /** TMC RP 618 (from memory): a sixth of a turn on 12 threads per inch; 0.001 to 0.005 in. */
  test('1/6 turn on 12 tpi is 0.353 mm', () => {
    const result = output('bearing.nut', {
      playNow: '0.4 mm',
      from: '0.001 in',
      to: '0.005 in',
      pitch: '12 tpi',
      slots: 6,
      tryAngle: '60 deg',
    });
    expect(result['tryTravel']).toBeCloseTo(0.353, 3);
    expect(result['tryTravel']).toBeCloseTo(25.4 / 12 / 6, 12);
  });

  test('one slot of six over crossed holes is 30°, and leaves 0.085 mm', () => {
    expect(output('bearing.nut', hub)).toMatchObject({ positions: 12, angle: 30, verdict: 'in', slotsMoved: 1 });
    expect(output('bearing.nut', hub)['play']).toBeCloseTo(0.085, 9);
  });

  test.each([
    [8, [0, 90, 180, 270], 8],
    [6, [0, 90, 180, 270], 12],
    [6, [0, 180], 6],
    [10, [0, 90, 180, 270], 20],
    [5, [0], 5],
    [5, [0, 90], 10],
  ])('%i slots over %j lock at %i positions', (slots, openings, positions) => {
    expect(output('bearing.nut', { ...hub, slots, openings })['positions']).toBe(positions);
  });

  test('what it says, it leaves: play falls by pitch over 360 a degree, and the best is the best', () => {
    const cases = fc.record({
      playNow: fc.double({ min: 0.01, max: 0.8, noNaN: true }),
      pitch: fc.double({ min: 0.5, max: 3, noNaN: true }),
      slots: fc.integer({ min: 2, max: 12 }).map((half) => 2 * half),
      ahead: fc.double({ min: 0, max: 60, noNaN: true }),
    });
    fc.assert(
      fc.property(cases, (input) => {
        const result = output('bearing.nut', { ...hub, ...input });
        expect(result['play']).toBeCloseTo(input.playNow - (input.pitch * Number(result['angle'])) / 360, 9);
        const turns = result['turns'] as { play: number; inside: boolean }[];
        expect(result['verdict']).toBe(turns.some((turn) => turn.inside) ? 'in' : 'out');
        const aim = (hub.from + hub.to) / 2;
        for (const turn of turns.filter((candidate) => candidate.inside))
          expect(Math.abs(turn.play - aim)).toBeGreaterThanOrEqual(Math.abs(Number(result['play']) - aim) - 1e-9);
      }),
    );
  });

  test('a position on the very end of the window is inside it', () => {
    expect(output('bearing.nut', { playNow: 0.3, from: 0.1, to: 0.1, pitch: 1.2, slots: 6 })).toMatchObject({
      angle: 60,
      play: 0.1,
      verdict: 'in',
    });
  });

  test('with no slot inside, the nearest that is still play', () => {
    const result = output('bearing.nut', { playNow: 0.4, from: 0.05, to: 0.06, pitch: 3, slots: 4 });
    expect(result['verdict']).toBe('out');
    expect(Number(result['play'])).toBeGreaterThanOrEqual(0);
  });

  test.each([
    [{ ...hub, playNow: 0 }, 'too small'],
    [{ ...hub, playNow: -0.1 }, 'too small'],
    [{ ...hub, slots: 0 }, 'too small'],
    [{ ...hub, playNow: 4 }, 'the bearings are not seated yet'],
    [{ ...hub, to: 0.01 }, 'below the lower end'],
    [{ ...hub, aim: 0.2 }, 'outside the window'],
    [{ ...hub, pitch: '1/2-20 UNF' }, 'names a thread'],
    [{ ...hub, openings: [] }, 'at least 1'],
    // A pin right through comes out at a slot only where the slots are even.
    [{ ...hub, slots: 5, openings: [0, 180] }, 'needs a slot on both sides'],
    [{ ...hub, slots: 9 }, 'needs a slot on both sides'],
  ])('%j is refused', (input, words) => {
    expect(refused('bearing.nut', input)).toContain(words);
  });
});

describe('measure.verdict', () => {
  test('the normal distribution against jstat', () => {
    for (let z = -8; z <= 8; z += 0.25) expect(Math.abs(normalCdf(z) - jstat.normal.cdf(z, 0, 1))).toBeLessThan(1e-9);
  });

  /** ISO 14253-1:2017 (from memory): guard 1.65 u, 1.80 u at a tolerance of 4 u, none left under about 3.9 u. */
  test.each([
    [40, 1.65],
    [4, 1.8],
  ])('guard at a tolerance of %i u', (width, factor) => {
    // The standard prints two digits.
    expect(Math.abs(guardOverU({ lower: 0, upper: width }, 1) - factor)).toBeLessThan(0.006);
  });

  test('no acceptance zone under about 3.9 u', () => {
    const bestChance = (width: number): number => chanceInside(width / 2, 1, { lower: 0, upper: width });
    expect(bestChance(3.9)).toBeLessThan(0.95);
    expect(bestChance(3.95)).toBeGreaterThan(0.95);
  });

  const journal = { lower: '49.980 mm', upper: '50.000 mm', toolU: 0.001 };
  test.each([
    [['49.990 mm'], 'in'],
    [['50.0005 mm'], 'unsure'],
    [['49.9995 mm'], 'unsure'],
    [['50.005 mm'], 'out'],
    [['49.970 mm'], 'out'],
  ])('%j is %s', (readings, verdict) => {
    expect(output('measure.verdict', { ...journal, readings })['verdict']).toBe(verdict);
  });

  test('what is said to settle it does settle it', () => {
    const cases = fc.record({
      mean: fc.double({ min: 49.975, max: 50.005, noNaN: true }),
      toolU: fc.double({ min: 1e-4, max: 0.004, noNaN: true }),
    });
    fc.assert(
      fc.property(cases, ({ mean, toolU }) => {
        const first = output('measure.verdict', { ...journal, readings: [mean], toolU });
        fc.pre(first['verdict'] === 'unsure' && first['betterU'] !== undefined);
        expect(output('measure.verdict', { ...journal, readings: [mean], toolU: first['betterU'] as number })['verdict']).not.toBe(
          'unsure',
        );
      }),
    );
  });

  test('repeats settle it when the spread is what makes it unsure', () => {
    const first = output('measure.verdict', { lower: 10, readings: [10.002], toolU: 0.0002, toolS: 0.004 });
    expect(first['verdict']).toBe('unsure');
    const repeats = Number(first['repeats']);
    expect(repeats).toBeGreaterThan(1);
    const again = output('measure.verdict', {
      lower: 10,
      readings: Array.from({ length: repeats }, (_, index) => 10.002 + (index % 2 ? 0.0001 : -0.0001)),
      toolU: 0.0002,
      toolS: 0.004,
    });
    expect(again['verdict']).toBe('in');
  });

  test('the older rule keeps two uncertainties off', () => {
    expect(output('measure.verdict', { ...journal, readings: [49.9982], rule: '95' })['verdict']).toBe('in');
    expect(output('measure.verdict', { ...journal, readings: [49.9982], rule: '2u' })['verdict']).toBe('unsure');
  });

  test.each([
    [{ readings: ['50 mm'], toolU: 0.001 }, 'lower limit, an upper limit'],
    [{ ...journal, readings: [] }, 'at least 1'],
    [{ ...journal, readings: ['5 N·m'] }, 'is a torque'],
    [{ ...journal, readings: ['1/2-20 UNF'] }, 'names a thread'],
    [{ lower: 2, upper: 1, readings: [1], toolU: 0 }, 'below the lower end'],
    [{ ...journal, readings: [Number.NaN] }, 'not a finite number'],
  ])('%j is refused', (input, words) => {
    expect(refused('measure.verdict', input)).toContain(words);
  });
});

describe('thread.areas', () => {
  /** ISO 898-1, stress areas of its table; ASME B1.1 for the unified one. */
  test.each([
    ['M6', 20.1],
    ['M8', 36.6],
    ['M10', 58.0],
    ['M12', 84.3],
    ['M12x1.25', 92.1],
    ['M16', 157],
    ['M24', 353],
  ])('%s carries on %d mm²', (thread, expected) => {
    // The table gives three figures.
    expect(Number(output('thread.areas', { thread })['stressArea'])).toBeCloseTo(expected, expected < 100 ? 1 : 0);
  });

  test('1/2-20 UNF carries on 0.1599 in² (ASME B1.1)', () => {
    // The table cuts after four digits.
    expect(Math.abs(Number(output('thread.areas', { thread: '1/2-20 UNF' })['stressAreaIn']) - 0.1599)).toBeLessThan(1e-4);
  });

  test.each(['G 1/4', 'M', 'M12x9', 'a bolt', '1/2-20 kPa'])('%s is refused', (thread) => {
    expect(refused('thread.areas', { thread })).toContain('names no 60° thread');
  });
});

describe('thread.identify', () => {
  /** Major diameter limits 6g of ISO 965-2, from memory of the table. */
  test.each([
    [6, 1, 5.794, 5.974],
    [8, 1.25, 7.76, 7.972],
    [10, 1.5, 9.732, 9.968],
    [12, 1.75, 11.701, 11.966],
    [24, 3, 23.577, 23.952],
  ])('M%dx%d is good from %d to %d mm outside', (diameter, pitch, from, to) => {
    const window = sizeWindow({ diameter, pitch, tapered: false, flank: 30 }, true);
    expect(Math.abs(window.from - from)).toBeLessThan(0.011);
    expect(Math.abs(window.to - to)).toBeLessThan(0.011);
  });

  test('every thread of the tables, measured as it should be, is named or among those that fit', () => {
    for (const thread of THREADS)
      for (const side of ['male', 'female']) {
        const window = sizeWindow(thread, side === 'male');
        const { candidates } = output('thread.identify', {
          side,
          diameter: (window.from + window.to) / 2,
          pitch: thread.pitch,
          taper: thread.tapered ? 'tapered' : 'none',
        });
        expect((candidates as { thread: string }[]).map((candidate) => candidate.thread)).toContain(thread.name);
      }
  });

  test('what cannot be told apart is said, with what would tell it', () => {
    const half = output('thread.identify', { diameter: '12.65 mm', pitch: '20 tpi' });
    expect(half['thread']).toBe('1/2-20 UNF');
    const either = output('thread.identify', { diameter: '20.9 mm', pitch: '14 tpi', diameterU: 0.3 });
    expect(either['sure']).toBe('several');
    expect(either['apart']).toMatch(/tapered/u);
    expect(output('thread.identify', { diameter: '11 mm', pitch: '0.6 mm' })['sure']).toBe('none');
  });

  test('hexagon and drill come with the name', () => {
    const { candidates } = output('thread.identify', { diameter: '9.8 mm', pitch: '1.5 mm' });
    expect((candidates as object[])[0]).toMatchObject({ thread: 'M10', hex: '16 or 17', drill: 8.5, restore: 'die M10' });
  });
});

describe('torque.breakaway', () => {
  /** Common practice: a tensioner must take at least 22 lbf·ft; at 13 it is 9 short; a click wrench gives a bracket. */
  test('at 13 it is 9 lbf·ft short', () => {
    const result = output('torque.breakaway', { least: '22 lbf·ft', moved: '13 lbf·ft' });
    expect(result['verdict']).toBe('out');
    expect(Number(result['short']) / 1.3558179483314).toBeCloseTo(9, 9);
  });

  test.each([
    ['25 lbf·ft', '28 lbf·ft', 'in'],
    ['13 lbf·ft', '18 lbf·ft', 'out'],
    ['20 lbf·ft', '25 lbf·ft', 'unsure'],
  ])('held at %s, let go at %s: %s', (held, letGo, expected) => {
    expect(output('torque.breakaway', { how: 'clicks', least: '22 lbf·ft', held, letGo })['verdict']).toBe(expected);
  });

  test('a wrench that only ever clicked holds at least that', () => {
    expect(output('torque.breakaway', { how: 'clicks', least: 20, held: 30 })['verdict']).toBe('in');
    expect(refused('torque.breakaway', { how: 'clicks', least: 20, held: 30, letGo: 25 })).toContain('below');
    expect(refused('torque.breakaway', { least: 20 })).toContain('Moved at: is missing');
  });
});

describe('gear.ratio', () => {
  test('39 and 11 teeth are 3.545, and hunt (common practice)', () => {
    const result = output('gear.ratio', { stages: [{ driver: 11, driven: 39, mesh: 'bevel' }] });
    expect(result['size']).toBeCloseTo(3.545, 3);
    expect(result['hunting']).toBe('hunting');
    expect(result['meetsAgain']).toBe(39);
  });

  test('an idler turns the sense round and leaves the size', () => {
    const pair = { driver: 20, driven: 40, mesh: 'external' };
    const plain = output('gear.ratio', { stages: [pair] });
    const idle = output('gear.ratio', {
      stages: [
        { driver: 20, driven: 31, mesh: 'external' },
        { driver: 31, driven: 40, mesh: 'external' },
      ],
    });
    expect(plain['ratio']).toBeCloseTo(-2, 12);
    expect(idle['ratio']).toBeCloseTo(2, 12);
  });

  test('a planetary set obeys Willis whichever is held', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 60 }), fc.integer({ min: 61, max: 200 }), (sun, ring) => {
        const of = (held: string): number => Number(output('gear.ratio', { kind: 'planetary', sun, ring, held })['ratio']);
        // n_S + (R/S)·n_R = (1 + R/S)·n_C, solved for each that is held.
        expect(of('ring')).toBeCloseTo(1 - of('carrier'), 9);
        expect(1 / of('ring') + 1 / of('sun')).toBeCloseTo(1, 9);
      }),
    );
  });

  test('bad rows are named', () => {
    expect(refused('gear.ratio', { stages: [{ driver: 0, driven: 39, mesh: 'bevel' }] })).toMatch(/driver.*too small/u);
    expect(refused('gear.ratio', { stages: [{ driver: 11, driven: 39, mesh: 'rope' }] })).toContain('external, internal, bevel, chain');
    expect(refused('gear.ratio', { kind: 'planetary', sun: 60, ring: 20 })).toContain('more than the sun');
  });
});

describe('identify.variant', () => {
  const { example } = workings.describe('identify.variant')!;

  /** Common practice: 5¼ in between through bolts is the larger, 4¾ in the smaller; leads split the smaller ones. */
  test('the larger alternator is named at once, the smaller ones need their leads', () => {
    expect(output('identify.variant', { ...example, found: [{ feature: 'case length', is: '152 mm', u: '0.5 mm' }] })['variant']).toBe(
      'larger',
    );
    const smaller = output('identify.variant', example);
    expect(smaller['variant']).toBeUndefined();
    expect(smaller['ask']).toBe('rear windows');
    const found = [...(example['found'] as object[]), { feature: 'rear windows', is: 'Eleven', u: 'word' }];
    expect(output('identify.variant', { ...example, found })['variant']).toBe('smaller, late');
  });

  test('two variants that nothing tells apart are said so', () => {
    const variants = ['a', 'b'].map((name) => ({ variant: name, feature: 'colour', is: 'red', within: 'word' }));
    const result = output('identify.variant', { variants });
    expect(result['alike']).toBe('a and b');
    expect(result['ask']).toBeUndefined();
  });

  test('chances make one, and a question never adds doubt', () => {
    const tells = fc.dictionary(fc.constantFrom('f', 'g', 'h'), fc.integer({ min: 0, max: 5 }), { minKeys: 1 });
    fc.assert(
      fc.property(fc.array(tells, { minLength: 2, maxLength: 8 }), fc.integer({ min: 0, max: 5 }), (sets, seen) => {
        const candidates = sets.map((own, index) => ({
          id: String(index),
          tells: new Map(Object.entries(own).map(([feature, figure]) => [feature, { figure, within: 0.1 }])),
        }));
        const found = new Map([['f', { figure: seen, u: 0.2 }]]);
        expect(rankCandidates(candidates, found).reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 9);
        for (const { bits } of rankQuestions(candidates, found, () => 0.2)) expect(bits).toBeGreaterThan(0);
      }),
    );
  });

  test('a figure that is none is refused with its row', () => {
    const bad = [{ variant: 'a', feature: 'size', is: 'large', within: '1 mm' }];
    expect(refused('identify.variant', { variants: bad })).toContain('"large" is not a figure');
    const twice = [1, 2].map(() => ({ variant: 'a', feature: 'size', is: '3 mm', within: '1 mm' }));
    expect(refused('identify.variant', { variants: twice })).toContain('said twice');
  });
});

describe('causes', () => {
  test('a finding moves the causes by its factor, and all make one', () => {
    const [first, second] = rankCauses([
      { id: 'brushes', weight: 2, signs: [{ check: 'length', speaks: 'strongly for' }] },
      { id: 'belt', weight: 2, signs: [] },
    ]);
    expect(first).toMatchObject({ id: 'brushes', before: 0.5 });
    expect(first!.chance / second!.chance).toBeCloseTo(8, 9);
    expect(first!.chance + second!.chance).toBeCloseTo(1, 9);
  });
});

describe('torque at yield', () => {
  /** VDI 2230-1 table A1, class 8.8, friction 0.12, 90 % of yield; from memory. */
  test.each([
    ['M8', 24.6],
    ['M10', 48],
    ['M12', 84],
    ['M16', 206],
  ])('%s of class 8.8 takes %d N·m within 3 %%', (name, expected) => {
    const torque = torqueAtYield(parseThread(name)!, '8.8', 0.12, 0.9)!;
    expect(Math.abs(torque / expected - 1)).toBeLessThan(0.03);
  });
});
