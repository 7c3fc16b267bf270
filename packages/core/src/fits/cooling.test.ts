import { expect, test } from '@jest/globals';
import { coolingAfter } from './cooling.js';

const ring = { temperature: 110, bench: 20, grips: 65, left: 60 };

test('it cools from what it was to where it grips in the time that it has', () => {
  expect(coolingAfter(ring, 0)).toEqual({ now: 110, rest: 60 });
  expect(coolingAfter(ring, 60).now).toBeCloseTo(65, 9);
  expect(coolingAfter(ring, 60).rest).toBe(0);
  // Half way over the bench in 60 s (90 to 45 K): a quarter after 120 s.
  expect(coolingAfter(ring, 120).now).toBeCloseTo(42.5, 9);
  expect(coolingAfter(ring, -5)).toEqual(coolingAfter(ring, 0));
});

test('stepped through by Newton it comes to the same', () => {
  const constant = 60 / Math.log(2);
  let now = 110;
  for (let step = 0; step < 30_000; step += 1) now -= ((now - 20) / constant) * 0.001;
  expect(coolingAfter(ring, 30).now).toBeCloseTo(now, 2);
});
