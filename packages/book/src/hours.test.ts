import { expect, test } from '@jest/globals';
import { closedWhy, nextOpenDay, openOn, type ShopHours } from './hours.js';

const EARLY = { from: '07:00', to: '16:30' };
const SHORT = { from: '07:00', to: '12:00' };
const SHOP: ShopHours = {
  week: [EARLY, EARLY, EARLY, EARLY, SHORT, null, null],
  closed: [
    { day: '2027-12-24', why: 'holiday' },
    { day: '2027-12-27', why: 'stocktaking' },
  ],
};

// 2027-12-24 is a Friday (ISO 8601 calendar, by hand: 2027-01-01 is one too, and 51 weeks later comes the day before).
test.each([
  ['2027-12-23', EARLY, undefined],
  ['2027-12-17', SHORT, undefined],
  ['2027-12-24', null, 'holiday'],
  ['2027-12-25', null, 'Saturday'],
  ['2027-12-26', null, 'Sunday'],
  ['2027-12-27', null, 'stocktaking'],
  ['2028-02-29', EARLY, undefined],
])('on %s', (day, hours, why) => {
  expect(openOn(SHOP, day)).toEqual(hours);
  expect(closedWhy(SHOP, day)).toBe(why);
});

test('the next open day may be the day itself, and lies past weekends and holidays', () => {
  expect(nextOpenDay(SHOP, '2027-12-23')).toBe('2027-12-23');
  expect(nextOpenDay(SHOP, '2027-12-24')).toBe('2027-12-28');
  expect(nextOpenDay({ week: [null, null, null, null, null, null, null], closed: [] }, '2027-12-24')).toBeUndefined();
});
