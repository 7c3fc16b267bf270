import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import highs from 'highs';
import { output, refused } from '../working/run.test-kit.js';
import { workings } from '../workings.js';
import { cheapestCover, type Offer } from './kits.js';

const solver = await highs();

/** The same cover as a whole-number programme of HiGHS; undefined when there is none. */
function byHighs(needs: readonly number[], offers: readonly Offer[]): number | undefined {
  const rows = needs.flatMap((pieces, need) => {
    const bring = offers.flatMap(({ brings }, index) => brings.filter((one) => one.need === need).map((one) => `${one.pieces} x${index}`));
    if (pieces <= 0) return [];
    return [bring.length === 0 ? undefined : `n${need}: ${bring.join(' + ')} >= ${pieces}`];
  });
  if (rows.includes(undefined)) return undefined;
  if (rows.length === 0) return 0;
  const solved = solver.solve(
    [
      'Minimize',
      offers.map(({ price }, index) => `${price} x${index}`).join(' + '),
      'Subject To',
      ...rows,
      'Bounds',
      ...offers.map(({ most }, index) => `0 <= x${index}${most === undefined ? '' : ` <= ${most}`}`),
      'General',
      offers.map((_, index) => `x${index}`).join(' '),
      'End',
    ].join('\n'),
  ) as { Status: string; ObjectiveValue: number };
  return solved.Status === 'Optimal' ? solved.ObjectiveValue : undefined;
}

describe('the cheapest cover', () => {
  test('a kit when it is cheaper than its parts, singles when it is not', () => {
    const singles: Offer[] = [300, 400, 250].map((price, need) => ({ id: `single ${need}`, price, brings: [{ need, pieces: 1 }] }));
    const kit: Offer = { id: 'kit', price: 800, brings: [0, 1, 2].map((need) => ({ need, pieces: 1 })) };
    expect(cheapestCover([1, 1, 1], [...singles, kit])).toMatchObject({ price: 800, buy: [{ id: 'kit', times: 1 }] });
    expect(cheapestCover([1, 1, 0], [...singles, kit])?.price).toBe(700);
    expect(cheapestCover([1, 1, 1], singles.slice(1))).toBeUndefined();
    expect(cheapestCover([0, 0], [])).toMatchObject({ price: 0, buy: [] });
  });

  test('exact against HiGHS, with counts and with kits that are nearly sold out', () => {
    const offer = fc.record({
      price: fc.integer({ min: 1, max: 400 }),
      most: fc.option(fc.integer({ min: 0, max: 2 }), { nil: undefined }),
      brings: fc.uniqueArray(fc.record({ need: fc.integer({ min: 0, max: 7 }), pieces: fc.integer({ min: 1, max: 4 }) }), {
        selector: ({ need }) => need,
        minLength: 1,
        maxLength: 5,
      }),
    });
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 6 }), { minLength: 8, maxLength: 8 }),
        fc.array(offer, { minLength: 4, maxLength: 14 }),
        (needs, drawn) => {
          const offers = drawn.map((one, index) => ({ ...one, id: String(index) }));
          const ours = cheapestCover(needs, offers);
          const theirs = byHighs(needs, offers);
          expect(ours?.price).toBe(theirs === undefined ? undefined : Math.round(theirs));
          if (!ours) return;
          const brought = needs.map((_, need) =>
            ours.buy.reduce(
              (sum, { id, times }) => sum + times * (offers[Number(id)]!.brings.find((one) => one.need === need)?.pieces ?? 0),
              0,
            ),
          );
          needs.forEach((pieces, need) => expect(brought[need]).toBeGreaterThanOrEqual(pieces));
          for (const { id, times } of ours.buy) expect(times).toBeLessThanOrEqual(offers[Number(id)]!.most ?? Number.POSITIVE_INFINITY);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('decide.repair', () => {
  const { example } = workings.describe('decide.repair')!;
  const options = example['options'] as { option: string; cost: number; seasons: number }[];

  test('renewal reward: cost for each expected season', () => {
    const found = output('decide.repair', example);
    // 620 + 0.05·250 + 4·20 over 4 seasons.
    expect(
      (found['ranked'] as { option: string; perSeason: number }[]).find(({ option }) => option === 'as planned')?.perSeason,
    ).toBeCloseTo(178.125, 9);
  });

  test('at its break-even life an option costs what the best other does', () => {
    const ranked = output('decide.repair', example)['ranked'] as { option: string; perSeason: number; breakEven: number }[];
    const best = ranked[0]!;
    const moved = options.map((row) => (row.option === best.option ? { ...row, seasons: best.breakEven } : row));
    const again = output('decide.repair', { ...example, options: moved })['ranked'] as typeof ranked;
    expect(again[0]!.perSeason).toBeCloseTo(again[1]!.perSeason, 9);
  });

  test('the answer changes with the life and with the price', () => {
    const { best } = output('decide.repair', example) as { best: string };
    const dearer = options.map((row) => (row.option === best ? { ...row, cost: row.cost * 2 } : row));
    const shorter = options.map((row) => (row.option === best ? { ...row, seasons: row.seasons / 3 } : row));
    expect(output('decide.repair', { ...example, options: dearer })['best']).not.toBe(best);
    expect(output('decide.repair', { ...example, options: shorter })['best']).not.toBe(best);
  });

  test.each([
    [{ seasons: 0 }, 'row 1, seasons'],
    [{ comeback: 1.2 }, 'most allowed is 100 %'],
    [{ cost: -5 }, 'row 1, cost'],
    [{ option: options[1]!.option }, 'is said twice'],
  ])('%j is refused', (change, words) => {
    expect(refused('decide.repair', { ...example, options: [{ ...options[0], ...change }, ...options.slice(1)] })).toContain(words);
  });
});

describe('for nothing', () => {
  const row = (option: string, cost: number, seasons: number): object => ({
    option,
    cost,
    seasons,
    spread: 0,
    comeback: 0,
    comebackCost: 0,
    down: 0,
  });
  test('what costs nothing is best, and the other never breaks even', () => {
    const found = output('decide.repair', { options: [row('warranty', 0, 2), row('new', 500, 6)] });
    expect(found['best']).toBe('warranty');
    expect(found['ranked']).toEqual([
      expect.objectContaining({ option: 'warranty', breakEven: 0 }),
      expect.not.objectContaining({ breakEven: expect.anything() }),
    ]);
    expect(output('decide.repair', { options: [row('a', 0, 2), row('b', 0, 6)] })['changes']).toContain('cost nothing');
  });
});
