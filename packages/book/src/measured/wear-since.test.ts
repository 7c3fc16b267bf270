import { expect, test } from '@jest/globals';
import type { Limit } from '@jubb/sheet';
import { wearSince } from './wear-since.js';

const sourced = { trust: 'published' as const, source: 'wm' };
const limit = { kind: 'size', service: { from: '39.95 mm', to: '40 mm', ...sourced } } as unknown as Limit;
const at = (figure: number, day: string): { figure: number; at: string } => ({ figure, at: `2026-${day}T08:00:00.000Z` });

test.each([
  // 0.01 mm in 100 days, 0.03 mm to the lower end.
  ['worn towards the lower end', at(39.99, '01-01'), at(39.98, '04-11'), { moved: -0.01, daysLeft: 300 }],
  ['grown towards the upper end', at(39.96, '01-01'), at(39.98, '04-11'), { moved: 0.02, daysLeft: 100 }],
  ['past it already', at(39.96, '01-01'), at(39.94, '04-11'), { moved: -0.02, daysLeft: undefined }],
])('%s', (_, before, now, { moved, daysLeft }) => {
  const wear = wearSince(limit, before, now)!;
  expect(wear.moved).toBeCloseTo(moved, 6);
  if (daysLeft === undefined) expect(wear.daysLeft).toBeUndefined();
  else expect(wear.daysLeft).toBeCloseTo(daysLeft, 3);
});

test.each([
  ['the same day', at(39.99, '01-01'), { figure: 39.98, at: '2026-01-01T20:00:00.000Z' }],
  ['nothing moved', at(39.99, '01-01'), at(39.99, '04-11')],
])('nothing is told where it is %s', (_, before, now) => {
  expect(wearSince(limit, before, now)).toBeUndefined();
});
