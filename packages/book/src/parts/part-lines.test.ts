import { expect, test } from '@jest/globals';
import { freeOf, lackingOf, movable, singlesMinor, type Buy, type PartLine } from './part-lines.js';
import { orderMinor, toCome } from './order.js';

const shelf = (id: string, onHand: number, reserved: number, reservedHere = 0): NonNullable<PartLine['shelf']> =>
  ({ id, onHand, reserved, reservedHere }) as NonNullable<PartLine['shelf']>;
const line = (open: number, own: PartLine['shelf'], others: PartLine['others'] = []): PartLine =>
  ({ open, shelf: own, others }) as unknown as PartLine;

test('what is kept for others is not free, and never less than nothing', () => {
  expect([freeOf({ onHand: 5, reserved: 2 }), freeOf({ onHand: 1, reserved: 3 })]).toEqual([3, 0]);
});

test('kept is what is needed and free, of the own line before another that fits', () => {
  expect(movable(line(4, shelf('own', 3, 1), [shelf('other', 9, 0)]), 'reserve')).toMatchObject({ shelf: { id: 'own' }, quantity: 2 });
  expect(movable(line(4, shelf('own', 3, 3), [shelf('other', 9, 0)]), 'reserve')).toMatchObject({ shelf: { id: 'other' }, quantity: 4 });
  expect(movable(line(0, shelf('own', 3, 0)), 'reserve')).toBeUndefined();
  expect(movable(line(4, undefined), 'reserve')).toBeUndefined();
});

test('taken is what is kept for this job', () => {
  expect(movable(line(0, shelf('own', 3, 3), [shelf('other', 2, 2, 2)]), 'issue')).toMatchObject({ shelf: { id: 'other' }, quantity: 2 });
  expect(movable(line(4, shelf('own', 9, 0)), 'issue')).toBeUndefined();
});

test('lacking is what no shelf has free', () => {
  expect(lackingOf(line(5, shelf('own', 2, 0), [shelf('other', 2, 1)]))).toBe(2);
  expect(lackingOf(line(1, shelf('own', 9, 0)))).toBe(0);
});

test('piece by piece costs what each costs by itself, whatever is cheaper together', () => {
  const buy = (need: number, pieces: number, price: number): Buy =>
    ({ pieces, price, brings: [{ need, count: pieces }] }) as unknown as Buy;
  expect(singlesMinor([2, 1], [buy(0, 10, 500), buy(0, 1, 100), buy(1, 1, 900)])).toBe(1100);
});

test('an order costs what its lines cost; of what came too much nothing is to come', () => {
  expect(
    orderMinor([
      { quantity: 3, priceMinor: 120 },
      { quantity: 1, priceMinor: 5 },
    ]),
  ).toBe(365);
  expect([toCome({ quantity: 5, received: 2 }), toCome({ quantity: 2, received: 5 })]).toEqual([3, 0]);
});
