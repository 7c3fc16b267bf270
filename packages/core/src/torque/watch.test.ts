import { describe, expect, test } from '@jest/globals';
import { StandIn, standInFor } from '../instruments/stand-in.js';
import { watchPull, type Fastener, type PullWanted, type Sight } from './watch.js';

const WRENCH = { kind: 'torque-wrench', quantity: 'torque', unit: 'N·m', low: 40, high: 200, resolution: 0.1, s: 0.4 } as const;
const WANTED = 108;
const ASKED: PullWanted = { torque: WANTED, share: 0.06, isCheck: false };
const SEEDS = 60;

/** What is seen of such a fastener while the lines come in, one after the other: the first sight of each of many pulls. */
function sights(fastener: Fastener, asked: Partial<PullWanted> = {}): readonly (Sight | undefined)[] {
  return Array.from({ length: SEEDS }, (_, seed) => {
    const lines = new StandIn(standInFor(WRENCH, false), seed + 1).pull({ snug: 11, stiffness: 2.2, wanted: WANTED, fastener }, []);
    const points = lines.map(({ angle = 0, value = 0 }) => ({ angle, torque: value }));
    const wanted = { ...ASKED, ...asked };
    return points.map((_point, at) => watchPull(points.slice(0, at + 1), wanted)).find((sight) => sight !== undefined);
  });
}

describe('what a pull shows as it happens', () => {
  test('a good one shows nothing, with brothers and without', () => {
    expect(new Set(sights('good'))).toEqual(new Set([undefined]));
    expect(new Set(sights('good', { middle: 44 }))).toEqual(new Set([undefined]));
  });

  test.each([
    ['stripped', 'turns without load'],
    ['already tight', 'already tight'],
  ] as const)('%s is seen without brothers', (fastener, sight) => {
    expect(new Set(sights(fastener))).toEqual(new Set([sight]));
  });

  test('one that stops early needs brothers to be told from a stiff joint', () => {
    expect(new Set(sights('bottomed'))).toEqual(new Set([undefined]));
    expect(new Set(sights('bottomed', { middle: 44 }))).toEqual(new Set(['stops early']));
  });

  test('a thread that gives way is seen before the hand would have turned on', () => {
    expect(new Set(sights('gives way', { middle: 44 }))).toEqual(new Set(['gives way']));
  });

  test('a tight one is what a check round wants', () => {
    expect(new Set(sights('already tight', { isCheck: true, middle: 44 }))).toEqual(new Set([undefined]));
  });

  test('over the window, at once', () => {
    expect(watchPull([{ angle: 50, torque: 116 }], ASKED)).toBe('over');
    expect(watchPull([{ angle: 50, torque: 114 }], ASKED)).toBeUndefined();
  });

  test('a wrench that is let off does not turn on: nothing gives way', () => {
    expect(
      watchPull(
        [
          { angle: 40, torque: 100 },
          { angle: 40, torque: 20 },
        ],
        ASKED,
      ),
    ).toBeUndefined();
  });
});
