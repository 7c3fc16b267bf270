import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import highs from 'highs';
import { Matrix, solve } from 'ml-matrix';
// jstat has no types of its own.
// @ts-expect-error untyped module
import jstat from 'jstat';
import { contradiction } from './contradiction.js';
import { fTail, incompleteBeta, logGamma, studentQuantile } from '../math/beta.js';
import { maximise } from '../math/simplex.js';
import { output, refused } from '../working/run.test-kit.js';

const solver = await highs();

/** A linear programme in CPLEX LP format, answered by HiGHS. */
function byHighs(lines: readonly string[]): number {
  return (solver.solve(lines.join('\n')) as { ObjectiveValue: number }).ObjectiveValue;
}

/** "+ 0.5 a - 2 b": exponents are written out, as the format wants them. */
function terms(factors: readonly (readonly [number, string])[]): string {
  return factors.map(([factor, name]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor).toFixed(12)} ${name}`).join(' ');
}

describe('the mathematics beneath', () => {
  test('beta, F and Student against jstat', () => {
    for (const a of [0.5, 1, 3.5, 20])
      for (const b of [0.5, 2, 11])
        for (const x of [0.01, 0.3, 0.5, 0.77, 0.99]) expect(incompleteBeta(x, a, b)).toBeCloseTo(jstat.ibeta(x, a, b) as number, 7);
    expect(logGamma(7.3)).toBeCloseTo(jstat.gammaln(7.3) as number, 10);
    for (const f of [0.2, 1, 4.1]) expect(fTail(f, 4, 12)).toBeCloseTo(1 - (jstat.centralF.cdf(f, 4, 12) as number), 7);
    for (const freedom of [3, 6, 30]) expect(studentQuantile(0.8, freedom)).toBeCloseTo(jstat.studentt.inv(0.8, freedom) as number, 6);
  });

  test('the simplex method against HiGHS', () => {
    const figure = fc.integer({ min: 0, max: 20 });
    const programme = fc.record({
      c: fc.array(figure, { minLength: 3, maxLength: 3 }),
      a: fc.array(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 3, maxLength: 3 }), { minLength: 2, maxLength: 5 }),
      b: fc.array(figure, { minLength: 5, maxLength: 5 }),
    });
    fc.assert(
      fc.property(programme, ({ c, a, b }) => {
        const names = ['x', 'y', 'z'];
        const theirs = byHighs([
          'Maximize',
          terms(c.map((factor, index) => [factor, names[index]!])),
          'Subject To',
          ...a.map((row, index) => `r${index}: ${terms(row.map((factor, column) => [factor, names[column]!]))} <= ${b[index]}`),
          'End',
        ]);
        const ours = maximise(c, a, b.slice(0, a.length))!;
        expect(ours.best).toBeCloseTo(theirs, 6);
        // Strong duality: what the rows are worth is what was reached.
        expect(ours.dual.reduce((sum, worth, row) => sum + worth * b[row]!, 0)).toBeCloseTo(ours.best, 6);
      }),
      { numRuns: 60 },
    );
  });
});

describe('measure.bore', () => {
  const { readings, limits } = {
    readings: [
      { depth: 80, along: '85.002 mm', across: '85.001 mm' },
      { depth: 10, along: 85.012, across: 85.004 },
      { depth: 45, along: 85.01, across: 85.005 },
    ],
    limits: { upper: 85.03, mostOutOfRound: 0.015, mostTaper: 0.02, toolU: 0.001 },
  };

  test('out-of-round at its worst depth, taper in its worse direction, whatever the order of the lines', () => {
    const found = output('measure.bore', { readings, ...limits });
    expect(found['outOfRound']).toBeCloseTo(0.008, 9);
    expect(found['taper']).toBeCloseTo(0.01, 9);
    expect(found).toMatchObject({ verdict: 'in', largest: 85.012, shape: 'Cone, wider at the first depth.' });
    expect(output('measure.bore', { readings, ...limits, mostTaper: 0.0095 })['verdict']).toBe('unsure');
    expect(output('measure.bore', { readings, ...limits, upper: 85.0 })['verdict']).toBe('out');
  });

  test('a line that lacks a direction is named, and so is a reading in kilopascals', () => {
    expect(refused('measure.bore', { readings: [{ depth: 1, along: 85 }] })).toContain('row 1, across: is missing');
    expect(refused('measure.bore', { readings: [{ depth: 1, along: 85, across: '85 kPa' }] })).toContain('is a pressure');
  });

  test('readings in inches beside millimetres are the same bore', () => {
    const mixed = readings.map((row) => ({ ...row, along: typeof row.along === 'number' ? `${row.along / 25.4} in` : row.along }));
    expect(output('measure.bore', { readings: mixed, ...limits })['taper']).toBeCloseTo(0.01, 6);
  });
});

describe('measure.runout', () => {
  const turn = (n: number, of: (angle: number) => number): number[] =>
    Array.from({ length: n }, (_, index) => of((2 * Math.PI * index) / n));

  test('a pure offset reads twice its eccentricity and nothing is left', () => {
    const found = output('measure.runout', { readings: turn(12, (angle) => 0.05 * Math.cos(angle - Math.PI / 2)), most: 0.2 });
    expect(found['tir']).toBeCloseTo(0.1, 9);
    expect(found['eccentricity']).toBeCloseTo(0.05, 9);
    expect(found['highAt']).toBeCloseTo(90, 6);
    expect(found['residual']).toBeCloseTo(0, 9);
    expect(found['what']).toContain('Off centre');
  });

  test('what is left over is the rest about the mean, and each of two readings has its own uncertainty', () => {
    // Off the middle of the dial by 0.4: no part of it is run-out.
    const found = output('measure.runout', { readings: turn(12, (angle) => 0.4 + 0.05 * Math.cos(angle)) });
    expect(found['residual']).toBeCloseTo(0, 9);
    expect(found['verdict']).toBeUndefined();
    // 0.1 against 0.115: one reading of 0.0075 standard uncertainty is two of them away, the difference of two only 1.4.
    const judged = (toolU: number): unknown =>
      output('measure.runout', { readings: turn(12, (angle) => 0.05 * Math.cos(angle)), most: 0.115, toolU })['verdict'];
    expect(judged(0.0075)).toBe('unsure');
    expect(judged(0.006)).toBe('in');
  });

  test('an oval is not off centre', () => {
    const found = output('measure.runout', { readings: turn(16, (angle) => 0.03 * Math.cos(2 * angle)) });
    expect(found['eccentricity']).toBeCloseTo(0, 9);
    expect(found['what']).toContain('Out of shape');
  });

  test('the harmonic is the least-squares one of ml-matrix', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 4, maxLength: 40 }), (readings) => {
        const n = readings.length;
        const design = new Matrix(
          readings.map((_, index) => [1, Math.cos((2 * Math.PI * index) / n), Math.sin((2 * Math.PI * index) / n)]),
        );
        const [, a, b] = solve(design, Matrix.columnVector(readings)).to1DArray();
        expect(output('measure.runout', { readings })['eccentricity']).toBeCloseTo(Math.hypot(a!, b!), 9);
      }),
      { numRuns: 50 },
    );
  });
});

describe('measure.flatness', () => {
  test('a saddle of 0.1 mm is 0.1 mm out of flat; a tilted plane is flat', () => {
    const saddle = [
      { x: 0, y: 0, z: 0 },
      { x: 100, y: 0, z: 0.1 },
      { x: 100, y: 100, z: 0 },
      { x: 0, y: 100, z: 0.1 },
    ];
    expect(output('measure.flatness', { points: saddle })['flatness']).toBeCloseTo(0.1, 9);
    const tilted = saddle.map(({ x, y }) => ({ x, y, z: 0.001 * x - 0.002 * y + 3 }));
    expect(output('measure.flatness', { points: tilted, most: 0.02 })).toMatchObject({ verdict: 'in' });
  });

  test('minimum zone against HiGHS, mean plane against ml-matrix, and never more than it', () => {
    const point = fc.record({
      x: fc.integer({ min: 0, max: 400 }),
      y: fc.integer({ min: 0, max: 300 }),
      z: fc.integer({ min: -100, max: 100 }),
    });
    fc.assert(
      fc.property(fc.array(point, { minLength: 5, maxLength: 25 }), (raw) => {
        const points = raw.map(({ x, y, z }) => ({ x, y, z: z / 1000 }));
        const [p, q] = [points[0]!, points[1]!];
        fc.pre(points.some(({ x, y }) => Math.abs((q.x - p.x) * (y - p.y) - (q.y - p.y) * (x - p.x)) > 100));
        const found = output('measure.flatness', { points });
        const half = byHighs([
          'Minimize',
          't',
          'Subject To',
          ...points.flatMap(({ x, y, z }, index) => [
            `u${index}: ${terms([
              [x, 'a'],
              [y, 'b'],
              [1, 'c'],
              [1, 't'],
            ])} >= ${(z * 1000).toFixed(9)}`,
            `v${index}: ${terms([
              [-x, 'a'],
              [-y, 'b'],
              [-1, 'c'],
              [1, 't'],
            ])} >= ${(-z * 1000).toFixed(9)}`,
          ]),
          'Bounds',
          'a free',
          'b free',
          'c free',
          'End',
        ]);
        expect(found['flatness']).toBeCloseTo((2 * half) / 1000, 6);
        const plane = solve(new Matrix(points.map(({ x, y }) => [x, y, 1])), Matrix.columnVector(points.map(({ z }) => z))).to1DArray();
        const left = points.map(({ x, y, z }) => z - plane[0]! * x - plane[1]! * y - plane[2]!);
        expect(found['leastSquares']).toBeCloseTo(Math.max(...left) - Math.min(...left), 6);
        expect(Number(found['flatness'])).toBeLessThanOrEqual(Number(found['leastSquares']) + 1e-9);
      }),
      { numRuns: 60 },
    );
  });

  test('points in one line make no plane', () => {
    expect(refused('measure.flatness', { points: [1, 2, 3, 4].map((x) => ({ x, y: 2 * x, z: 0 })) })).toContain('in one line');
  });
});

describe('measure.at-20', () => {
  test('aluminium at 60 °C by a steel tool at 20 °C', () => {
    expect(output('measure.at-20', { read: 100.05, partT: 60, part: 'aluminium' })['size']).toBeCloseTo(100.05 / (1 + 23e-6 * 40), 9);
  });

  test('part and tool of one metal and one temperature need no correction', () => {
    expect(output('measure.at-20', { read: 80, partT: 45, toolT: 45 })['change']).toBeCloseTo(0, 12);
  });
});

describe('tool.check', () => {
  /** ISO 6789-1 (from memory): 4 %, and 6 % up to 10 N·m and for beams. */
  test.each([
    ['click', 100, 97, 'in'],
    ['click', 100, 95, 'out'],
    ['beam', 100, 96, 'in'],
    ['click', 8, 7.62, 'in'],
    ['click', 100, 96.2, 'unsure'],
  ])('%s set at %d that gives %d is %s', (type, set, gave, verdict) => {
    expect(output('tool.check', { type, points: [{ set, true: gave }] })['verdict']).toBe(verdict);
  });

  test('a checker that reads nothing is refused', () => {
    expect(refused('tool.check', { points: [{ set: 10, true: 0 }] })).toContain('row 1, by the checker');
  });
});

describe('measure.gauge-rr', () => {
  /** Sum of squares explained by a design, by ml-matrix. */
  function explained(design: number[][], y: readonly number[]): number {
    const x = new Matrix(design);
    const fitted = x.mmul(solve(x, Matrix.columnVector([...y]), true)).to1DArray();
    const mean = y.reduce((sum, one) => sum + one, 0) / y.length;
    return fitted.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  }

  const dummy = (of: number, among: number): number[] => Array.from({ length: among }, (_, index) => (index === of ? 1 : 0));

  test('its analysis of variance is that of nested least-squares models', () => {
    const size = fc.record({
      parts: fc.integer({ min: 3, max: 6 }),
      people: fc.integer({ min: 2, max: 3 }),
      trials: fc.integer({ min: 2, max: 3 }),
    });
    fc.assert(
      fc.property(
        size,
        fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 54, maxLength: 54 }),
        ({ parts, people, trials }, noise) => {
          const cells = Array.from({ length: parts * people * trials }, (_, index) => {
            const part = index % parts;
            const person = Math.floor(index / parts) % people;
            return { part, person, reading: 10 + part * 0.05 + person * 0.002 + noise[index]! / 1e5 };
          });
          const table = output('measure.gauge-rr', {
            readings: cells.map(({ part, person, reading }) => ({ part: `p${part}`, person: `m${person}`, reading })),
          })['table'] as { of: string; squares: number }[];
          const y = cells.map(({ reading }) => reading);
          const byPart = explained(
            cells.map(({ part }) => dummy(part, parts)),
            y,
          );
          const byPerson = explained(
            cells.map(({ person }) => dummy(person, people)),
            y,
          );
          const byCell = explained(
            cells.map(({ part, person }) => dummy(part * people + person, parts * people)),
            y,
          );
          const of = (name: string): number => table.find((row) => row.of === name)!.squares;
          expect(of('parts')).toBeCloseTo(byPart, 8);
          expect(of('people')).toBeCloseTo(byPerson, 8);
          expect(of('people × parts')).toBeCloseTo(byCell - byPart - byPerson, 8);
        },
      ),
      { numRuns: 30 },
    );
  });

  test('a tool without spread tells all apart; a grid with a hole is refused by person and part', () => {
    const grid = ['a', 'b'].flatMap((person) =>
      [1, 2, 3].flatMap((part) => [0, 1].map(() => ({ person, part: String(part), reading: part }))),
    );
    expect(output('measure.gauge-rr', { readings: grid })).toMatchObject({ standing: 'good', sigma: 0 });
    expect(refused('measure.gauge-rr', { readings: grid.slice(1) })).toContain('a, part 1: 1');
    expect(
      refused('measure.gauge-rr', {
        readings: grid.filter(({ person }) => person === 'a').concat(grid.filter(({ person }) => person === 'a')),
      }),
    ).toContain('1 person');
  });
});

describe('a reading that contradicts its brothers', () => {
  const journal = { from: 34.98, to: 35, spread: 0.001, isLength: true };
  const others = [34.985, 34.986];

  test.each([
    [34.984, undefined],
    // Within the width of the window from the others it is wear, not a slip.
    [34.97, undefined],
    [34.485, { slip: 'half turn', meant: 34.985 }],
    [35.486, { slip: 'half turn', meant: 34.986 }],
    [349.85, { slip: 'decimal', meant: 34.985 }],
    [3.4986, { slip: 'decimal', meant: 34.986 }],
    [34.985 / 25.4, { slip: 'unit', meant: 34.985 }],
    [34.7, { slip: 'apart' }],
  ])('%d is asked about as %j', (reading, expected) => {
    const found = contradiction(reading, { ...journal, others });
    expect(found?.slip).toBe(expected?.slip);
    if (expected && 'meant' in expected) expect(found?.meant).toBeCloseTo(expected.meant, 6);
  });

  test('the first reading is asked about only for a gross slip', () => {
    expect(contradiction(34.9, { ...journal, others: [] })).toBeUndefined();
    expect(contradiction(349.8, { ...journal, others: [] })?.slip).toBe('decimal');
  });

  test('a dial that went the other way', () => {
    expect(contradiction(-0.31, { others: [0.31, 0.3], from: 0, to: 0.12, spread: 0.003, isLength: true })).toMatchObject({
      slip: 'sign',
      meant: 0.31,
    });
  });
});

describe('studies and checks of tools', () => {
  const study = (size: (part: number, person: number, trial: number) => number): object[] =>
    [0, 1, 2, 3, 4].flatMap((part) =>
      ['a', 'b'].flatMap((person, at) => [0, 1].map((trial) => ({ person, part: String(part), reading: size(part, at, trial) }))),
    );

  test('parts that do not differ say nothing good of a tool, and a tool must suit the tolerance, too', () => {
    expect(output('measure.gauge-rr', { readings: study(() => 10) })).toMatchObject({ standing: 'not-good', share: 1 });
    expect(output('measure.gauge-rr', { readings: study((_part, at, trial) => 10 + 0.001 * (at + trial)) })['standing']).toBe('not-good');
    const good = study((part, at, trial) => 10 + part + 0.001 * ((part * 7 + at * 3 + trial * 5) % 4));
    expect(output('measure.gauge-rr', { readings: good })['standing']).toBe('good');
    // Six sigmas of it against the tolerance.
    const found = output('measure.gauge-rr', { readings: good, tolerance: 0.01 }) as Record<string, number | string>;
    expect(found['ofTolerance']).toBeCloseTo((6 * Number(found['sigma'])) / 0.01, 9);
    expect(found['standing']).toBe('not-good');
  });

  /** ISO 6789-1: the class goes by the largest torque of the tool, 6 % to 10 N·m and 4 % over; from memory. */
  test('5 % off at the bottom of a 100 N·m wrench is out, on a 10 N·m one it is in', () => {
    const point = { set: 8, true: 8 / 1.05 };
    expect(output('tool.check', { points: [point], largest: 100, checkerU: 0.001 })['verdict']).toBe('out');
    expect(output('tool.check', { points: [point, { set: 100, true: 100 }], checkerU: 0.001 })['verdict']).toBe('out');
    expect(output('tool.check', { points: [point], largest: 10, checkerU: 0.001 })['verdict']).toBe('in');
    expect(refused('tool.check', { points: [{ set: 30, true: 30 }], largest: 10 })).toContain('the largest torque of the tool');
  });

  test('an uncertainty of a temperature is a difference: 1.8 °F is 1 K, and 1 K is no −272 °C', () => {
    const at = (temperatureU: unknown): unknown => output('measure.at-20', { read: 100, partT: 40, temperatureU })['u'];
    expect(at('1 K')).toBe(at(1));
    expect(at('1.8 °F')).toBeCloseTo(Number(at(1)), 12);
    expect(at('1 °C')).toBe(at(1));
  });
});
