import { describe, expect, test } from '@jest/globals';
import { book, demoSheet, reportOf, type BookLine } from '../book.test-kit.js';
import type { KeptEntry } from '../entries/kept.js';
import { jobState, stopsSigning } from '../state.js';
import { isMoreThan, movedBy, wayInAfter, wayInFor, wayInLeft, wayInOf } from './way-in.js';

const sheet = demoSheet('quennet-ga-alternator');
const coolant = { upsets: 'level', what: 'coolant, cold, over the mark', readAs: 'length', from: 0, to: 20 } as const;
const hose: BookLine = { kind: 'moved', payload: { what: 'Coolant hose', how: 'off', makes: coolant } };
const back: BookLine = { kind: 'put-back', payload: { moved: 'entry 0', screws: 2 } };
const read = (figure: number): BookLine => ({
  kind: 'set-again',
  payload: { moved: 'entry 0', what: coolant.what, readAs: 'length', figure },
});
const upsetBy = (...lines: readonly BookLine[]): ReturnType<typeof jobState>['upset'] => jobState(sheet, book(sheet, ...lines)).upset;

describe('what a thing that was out of the way upsets', () => {
  test('stays open until it is read, is right, and nothing was off again since', () => {
    expect(upsetBy(hose)).toEqual([{ entryId: 'entry 0', moved: 'Coolant hose', makes: coolant, isBack: false }]);
    expect(upsetBy(hose, back)).toMatchObject([{ isBack: true }]);
    expect(upsetBy(hose, back, read(-5))).toMatchObject([{ found: -5 }]);
    expect(upsetBy(hose, back, read(-5), read(20))).toEqual([]);
    expect(upsetBy(hose, back, read(5), read(21))).toMatchObject([{ found: 21 }]);
    // Read before it was back, it tells nothing; put back anew, it is read anew.
    expect(upsetBy(hose, read(5), back)).toMatchObject([{ isBack: true }]);
    expect(upsetBy(hose, back, read(5), back)).toHaveLength(1);
    expect(upsetBy({ kind: 'moved', payload: { what: 'Guard', how: 'off' } })).toEqual([]);
  });

  test('stops the signature, and what was read stands in the report', () => {
    const words = 'Not right again after Coolant hose was out of the way: coolant, cold, over the mark';
    expect(stopsSigning(jobState(sheet, book(sheet, hose, back)))).toContain(words);
    const entries = book(sheet, hose, back, read(12));
    expect(stopsSigning(jobState(sheet, entries))).not.toContain(words);
    const section = reportOf(sheet, entries).sections.find(({ title }) => title === 'Read again after it was out of the way');
    expect(section?.table?.rows[0]?.cells[0]).toBe('Read again: coolant, cold, over the mark, 12 mm');
  });
});

describe('a machine’s way in', () => {
  const at = (minutes: number, what: string, more: object = {}): KeptEntry<'moved'> =>
    ({
      kind: 'moved',
      takenAt: new Date(Date.UTC(2026, 10, 2, 9, minutes)).toISOString(),
      payload: { what, how: 'off', ...more },
    }) as unknown as KeptEntry<'moved'>;
  const moved = [at(0, 'Guard', { screws: 4, size: 'M8 × 20' }), at(12, 'Belt', { routing: 'under the idler' }), at(12 + 61, 'Bracket')];

  test('is what came out of the way, in its order, each with the minutes after the one before', () => {
    expect(wayInOf(moved)).toEqual([
      { what: 'Guard', how: 'off', screws: 4, size: 'M8 × 20' },
      { what: 'Belt', how: 'off', routing: 'under the idler', minutes: 12 },
      // After more than an hour it was something else that took the time.
      { what: 'Bracket', how: 'off' },
    ]);
  });

  test('learns from a job: its order, and what it adds; what was not in the way then stays', () => {
    const lines = [...wayInOf(moved), { what: 'Wheel', how: 'off', unit: 'Rear axle' } as const];
    expect(wayInAfter([at(0, 'Fan shroud'), at(5, 'Belt')], lines, 'Alternator')).toEqual([
      // What is new is in the way of this unit; of the others nobody knows.
      { what: 'Fan shroud', how: 'off', unit: 'Alternator' },
      { what: 'Belt', how: 'off', routing: 'under the idler', minutes: 5 },
      lines[0],
      lines[2],
      lines[3],
    ]);
    expect(wayInFor(lines, 'Alternator').map(({ what }) => what)).toEqual(['Guard', 'Belt', 'Bracket']);
    expect(wayInFor(lines, 'Rear axle')).toEqual(lines);
    expect(movedBy({ ...lines[1]!, unit: 'Rear axle' })).toEqual({ what: 'Belt', how: 'off', routing: 'under the idler' });
  });

  test('offers what is not out yet, and knows when a job knows more', () => {
    const lines = wayInOf(moved);
    expect(wayInLeft(lines, [at(0, ' guard ')]).map(({ what }) => what)).toEqual(['Belt', 'Bracket']);
    expect(isMoreThan(moved, lines)).toBe(false);
    expect(isMoreThan([at(0, 'Fan shroud')], lines)).toBe(true);
  });
});
