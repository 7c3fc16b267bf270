import { TZDate } from '@date-fns/tz';
import { format } from 'date-fns';
import { clockIn, dayIn, dayWordsIn, daysBetween, daysOn, instantIn, weekdayIn } from './days.js';
import { describe, expect, test } from '@jest/globals';

const [WEST, EAST] = ['America/St_Johns', 'Asia/Kathmandu'];

describe('days of the shop', () => {
  test.each([
    [WEST, '2027-03-01T02:00:00Z', '2027-02-28', '22:30'],
    [EAST, '2027-02-28T20:00:00Z', '2027-03-01', '01:45'],
    ['UTC', '2027-02-28T23:59:59.999Z', '2027-02-28', '23:59'],
  ])('in %s %s is %s, %s', (zone, instant, day, clock) => {
    expect(dayIn(zone, instant)).toBe(day);
    expect(clockIn(zone, instant)).toBe(clock);
    expect(instantIn(zone, day, clock).slice(0, 16)).toBe(instant.slice(0, 16));
  });

  test.each([WEST, EAST, 'UTC'])('a day by itself is that day in %s', (zone) => {
    expect(dayWordsIn(zone, '2027-03-01')).toBe('1 Mar');
    expect(dayWordsIn(zone, '2027-03-01', true)).toBe('1 Mar 2027');
    expect(weekdayIn(zone, '2027-03-01')).toBe('Mon');
    expect(dayIn(zone, '2027-03-01')).toBe('2027-03-01');
  });

  test('days, months and clocks are written as date-fns writes them', () => {
    for (let day = 0; day < 400; day += 1) {
      const instant = Date.parse('2027-12-20T23:47:11Z') + day * 25 * 3600 * 1000;
      for (const zone of [WEST, EAST, 'UTC']) {
        const there = new TZDate(instant, zone);
        expect([
          dayIn(zone, instant),
          clockIn(zone, instant),
          dayWordsIn(zone, instant),
          dayWordsIn(zone, instant, true),
          weekdayIn(zone, instant),
        ]).toEqual(['yyyy-MM-dd', 'HH:mm', 'd MMM', 'd MMM yyyy', 'EEE'].map((wanted) => format(there, wanted)));
      }
    }
  });

  test('over a change of the clocks a day is a day of the calendar', () => {
    // Clocks go forward on 14 March 2027 in St. John's.
    expect(daysOn(WEST, '2027-03-13T15:00:00Z', 1)).toBe('2027-03-14');
    expect(daysBetween(WEST, '2027-03-13T15:00:00Z', '2027-03-15T02:00:00Z')).toBe(1);
    expect(daysBetween(WEST, '2027-03-13T15:00:00Z', '2027-03-15')).toBe(2);
    expect(dayIn(WEST, instantIn(WEST, '2027-03-14', '02:30'))).toBe('2027-03-14');
  });
});
