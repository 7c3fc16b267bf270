import { beforeAll, describe, expect, test } from '@jest/globals';
import highs from 'highs';
import fc from 'fast-check';
import { seeded } from './random.js';
import { bestPacks, bestPair, type Pack, type Size } from './shim-pack.js';

let solver: Awaited<ReturnType<typeof highs>>;
beforeAll(async () => {
  solver = await highs();
});

const piecesOf = ({ pieces }: Pack): number => pieces.reduce((sum, { count }) => sum + count, 0);
/** Of a piece against a micrometre of error: eight pieces and two stacks are still less than one. */
const WEIGHT = 0.01;

const microns = (mm: number): number => Math.round(mm * 1000);

/** Least error, then fewest pieces, by a solver that knows nothing of ours: one stack or two from one shelf. */
function solved(wanted: readonly number[], shelf: readonly Size[], most: number): { error: number; pieces: number } {
  const stacks = wanted.map((_, stack) => stack);
  const each = (write: (size: number) => string): string => shelf.map((_, size) => write(size)).join(' + ');
  const answer = solver.solve(
    [
      'Minimize',
      `${stacks.map((stack) => `e${stack} + ${each((size) => `${WEIGHT} x${stack}_${size}`)}`).join(' + ')}`,
      'Subject To',
      ...stacks.flatMap((stack) => [
        `${each((size) => `${microns(shelf[size]!.thickness)} x${stack}_${size}`)} - e${stack} <= ${microns(wanted[stack]!)}`,
        `${each((size) => `${microns(shelf[size]!.thickness)} x${stack}_${size}`)} + e${stack} >= ${microns(wanted[stack]!)}`,
        `${each((size) => `x${stack}_${size}`)} <= ${most}`,
      ]),
      ...shelf.map(({ count }, size) => `${stacks.map((stack) => `x${stack}_${size}`).join(' + ')} <= ${count}`),
      'General',
      stacks.flatMap((stack) => shelf.map((_, size) => `x${stack}_${size}`)).join(' '),
      'End',
    ].join('\n'),
    { mip_rel_gap: 0, mip_abs_gap: 0, primal_feasibility_tolerance: 1e-9 },
  );
  const columns = answer.Columns as Record<string, { Primal: number }>;
  const pieces = Object.entries(columns).reduce((sum, [name, { Primal }]) => (name.startsWith('x') ? sum + Math.round(Primal) : sum), 0);
  const error = stacks.reduce(
    (sum, stack) =>
      sum +
      Math.abs(
        wanted[stack]! -
          shelf.reduce((total, { thickness }, size) => total + thickness * Math.round(columns[`x${stack}_${size}`]!.Primal), 0),
      ),
    0,
  );
  return { error, pieces };
}

function shelfFrom(random: () => number, sizes: number): Size[] {
  const thicknesses = new Set<number>();
  while (thicknesses.size < sizes) thicknesses.add(Math.round(50 + random() * 1450) / 1000);
  return [...thicknesses].map((thickness) => ({ thickness, count: Math.floor(random() * 4) }));
}

describe('one pack', () => {
  test('is the optimum of HiGHS, in error and in pieces, on random shelves', () => {
    for (let seed = 1; seed <= 60; seed += 1) {
      const random = seeded(seed);
      // A small box, and a full one in which nearly every sum is there.
      const shelf = shelfFrom(random, seed % 4 === 0 ? 60 : 8);
      const wanted = Math.round(random() * 4000) / 1000;
      const most = 1 + Math.floor(random() * 6);
      const [best] = bestPacks(wanted, shelf, most, 1);
      const theirs = solved([wanted], shelf, most);
      expect(Math.abs(best!.thickness - wanted)).toBeCloseTo(theirs.error, 6);
      expect(piecesOf(best!)).toBe(theirs.pieces);
    }
  });

  test('is made of what is there, and the packs come in the order of their error', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 8 }), (seed, most) => {
        const random = seeded(seed);
        const shelf = shelfFrom(random, 30);
        const wanted = random() * 5;
        const packs = bestPacks(wanted, shelf, most, 5);
        for (const pack of packs) {
          expect(piecesOf(pack)).toBeLessThanOrEqual(most);
          for (const { size, count } of pack.pieces) expect(count).toBeLessThanOrEqual(shelf[size]!.count);
          const sum = pack.pieces.reduce((total, { size, count }) => total + shelf[size]!.thickness * count, 0);
          expect(pack.thickness).toBeCloseTo(sum, 9);
        }
        const off = packs.map(({ thickness }) => Math.abs(thickness - wanted));
        expect(off).toEqual(off.toSorted((one, other) => one - other));
      }),
      { numRuns: 60 },
    );
  });

  test('nothing wanted is no shim, nothing there is none either', () => {
    expect(bestPacks(0, [{ thickness: 1, count: 3 }], 4, 1)[0]).toEqual({ pieces: [], thickness: 0 });
    expect(bestPacks(2, [{ thickness: 1, count: 0 }], 4, 1)[0]).toEqual({ pieces: [], thickness: 0 });
  });
});

describe('two packs from one shelf', () => {
  test('are the optimum of HiGHS where both want the same shims', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const random = seeded(seed);
      const shelf = shelfFrom(random, 6).map((size) => ({ ...size, count: 1 + (size.count % 2) }));
      const wanted = Math.round(800 + random() * 800) / 1000;
      const both = [wanted, wanted + Math.round(random() * 100) / 1000] as const;
      const pair = bestPair(both, shelf, 3)!;
      const theirs = solved(both, shelf, 3);
      expect(Math.abs(pair.first.thickness - both[0]) + Math.abs(pair.second.thickness - both[1])).toBeCloseTo(theirs.error, 6);
      expect(piecesOf(pair.first) + piecesOf(pair.second)).toBe(theirs.pieces);
      shelf.forEach(({ count }, size) => {
        const used = [pair.first, pair.second].reduce((sum, { pieces }) => sum + (pieces.find((one) => one.size === size)?.count ?? 0), 0);
        expect(used).toBeLessThanOrEqual(count);
      });
    }
  });
});

describe('a box too large to look at whole', () => {
  /** 300 thicknesses, eight of each, a goal that takes eight: 1.3 billion sums. The best so far is within two micrometres. */
  test.each([
    [1, 0.00871, 28],
    [0.1, 0.01231, 30],
    [0.05, 0.0033, 7.12345],
  ])('from %d mm in steps of %d to %d mm', (least, step, wanted) => {
    const shelf = Array.from({ length: 300 }, (_, at) => ({ thickness: Math.round((least + at * step) * 1e4) / 1e4, count: 8 }));
    const packs = bestPacks(wanted, shelf, 8, 6);
    expect(packs).toHaveLength(6);
    expect(Math.abs(packs[0]!.thickness - wanted)).toBeLessThan(0.002);
    for (const pack of packs) {
      expect(piecesOf(pack)).toBeLessThanOrEqual(8);
      for (const { size, count } of pack.pieces) expect(count).toBeLessThanOrEqual(shelf[size]!.count);
      expect(pack.pieces.reduce((sum, { size, count }) => sum + count * shelf[size]!.thickness, 0)).toBeCloseTo(pack.thickness, 9);
    }
  });
});
