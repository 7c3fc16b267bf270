import type { Bench } from './benches.js';
import { myToday, withTold } from './today.js';
import type { TodayClock, TodayLine, TodayView } from './views.js';
import { describe, expect, test } from '@jest/globals';

const NOON = Date.parse('2031-03-01T12:00:00Z');

function line(number: number, change: Partial<TodayLine> = {}): TodayLine {
  return {
    jobId: `job-${number}`,
    number,
    seq: 5,
    version: 1,
    unit: 'Hub',
    machine: 'Tractor',
    customer: 'Valdorn',
    stage: 'strip',
    next: 'Wheel off',
    left: 3,
    hold: null,
    promise: `2031-03-0${number}T15:00:00.000Z`,
    openEnds: [],
    waits: null,
    also: [],
    toSettle: [],
    last: null,
    ...change,
  };
}
const clock = (number: number, entryId: string): TodayClock => ({
  jobId: `job-${number}`,
  number,
  entryId,
  what: 'Sealant',
  until: '2031-03-01T12:30:00.000Z',
  then: null,
});
const day = (...lines: readonly TodayLine[]): TodayView => ({ lines, clocks: [], owed: [], owedMore: 0, crib: [], notices: [] });
const numbers = (lines: readonly TodayLine[]): readonly number[] => lines.map(({ number }) => number);

describe('Today as one person sees it', () => {
  test('what takes a machine that is for somebody else, or out of use, waits; where a unit stands is said', () => {
    const bench = (rest: Partial<Bench>): Bench => ({
      ...{ id: 'b', name: 'Press, 20 t', kind: 'press', hours: null, who: [], out: null, version: 1, jobs: [] },
      ...rest,
    });
    const view = day(line(1, { bench: 'press' }), line(2));
    const seen = (...benches: readonly Bench[]): readonly unknown[] => {
      const { now, waiting } = myToday(view, 'me', NOON, benches);
      return [numbers(now), numbers(waiting), waiting[0]?.waits?.words];
    };
    expect(seen()).toEqual([[1, 2], [], undefined]);
    expect(seen(bench({ who: [{ id: 'me', name: 'Me' }] }))).toEqual([[1, 2], [], undefined]);
    expect(seen(bench({ who: [{ id: 'mira', name: 'Mira' }] }))).toEqual([[2], [1], expect.stringContaining('is used by Mira')]);
    expect(seen(bench({ out: 'ram leaks' }))).toEqual([[2], [1], expect.stringContaining('out of use: Press, 20 t, ram leaks')]);
    const stands = bench({ kind: 'bench', name: 'Bench 2', jobs: [{ id: 'job-2', number: 2, unit: 'Hub' }] });
    expect(myToday(view, 'me', NOON, [stands]).now.map(({ at }) => at)).toEqual([null, 'Bench 2']);
  });

  test('what is in my hands comes first, the rest by its promise; what cannot go on waits', () => {
    const view = day(
      line(1),
      line(2, { waits: { words: 'parts' } }),
      line(3, { last: { personId: 'me', name: 'Ilka', at: '2031-02-20T08:00:00Z' } }),
      line(4, { waits: { words: 'sealant' }, also: ['Clean the hub'] }),
    );
    expect(numbers(myToday(view, 'me', NOON).now)).toEqual([3, 1, 4]);
    expect(numbers(myToday(view, 'me', NOON).waiting)).toEqual([2]);
    expect(numbers(myToday(view, 'another', NOON).now)).toEqual([1, 3, 4]);
  });

  test('somebody else is at it for a quarter of an hour after they recorded something', () => {
    const withLast = (at: string): string | null | undefined =>
      myToday(day(line(1, { last: { personId: 'bram', name: 'Bram', at } })), 'me', NOON).now[0]?.with;
    expect(withLast('2031-03-01T11:46:00Z')).toBe('Bram');
    expect(withLast('2031-03-01T11:44:00Z')).toBeNull();
  });
});

describe('what is told of it', () => {
  test('changes its jobs and their clocks, puts new ones where their promise is, and takes those away that are gone', () => {
    const view = { ...day(line(1), line(3), line(5)), clocks: [clock(1, 'a'), clock(3, 'b')] };
    const told = withTold(view, {
      type: 'today',
      lines: [line(3, { seq: 6, next: 'Seal out' }), line(4)],
      clocks: [clock(3, 'c')],
      gone: ['job-1'],
    });
    expect(numbers(told.lines)).toEqual([3, 4, 5]);
    expect(told.lines[0]?.next).toBe('Seal out');
    expect(told.clocks.map(({ entryId }) => entryId)).toEqual(['c']);
  });

  test('late it changes nothing: neither its line nor its clocks', () => {
    const view = { ...day(line(1, { seq: 9, next: 'Seal out' })), clocks: [clock(1, 'a')] };
    expect(withTold(view, { type: 'today', lines: [line(1, { seq: 8 })], clocks: [], gone: [] })).toEqual(view);
    const changed = { ...day(line(1, { version: 3, promise: '2031-03-09T15:00:00.000Z' })) };
    expect(withTold(changed, { type: 'today', lines: [line(1, { version: 2 })], clocks: [], gone: [] })).toEqual(changed);
  });
});
