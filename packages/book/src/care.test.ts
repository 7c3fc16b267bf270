import { expect, test } from '@jest/globals';
import { careDue as due, type CareView } from './care.js';

const NOW = Date.parse('2027-03-10T08:00:00Z');
const line = (what: CareView['what'], at: string, isGood = true): CareView => ({
  what,
  at,
  isGood,
  words: 'the disk of the backups is full',
});

const careDue = (care: readonly CareView[], now: number): readonly string[] => due(care, now, 'sudo jubb');

test('a foreman is told of what nobody saw to, and of nothing else', () => {
  const backup = line('backup', '2027-03-10T02:00:00Z');
  const rehearsal = line('rehearsal', '2027-03-01T02:00:00Z');
  expect(careDue([backup, rehearsal], NOW)).toEqual([]);
  expect(careDue([], NOW)).toEqual([expect.stringMatching(/No backup is made .* sudo jubb backup, with a folder/u)]);
  expect(careDue([backup], NOW)).toEqual([expect.stringContaining('ever brought back')]);
  expect(careDue([line('backup', '2027-03-07T02:00:00Z'), rehearsal], NOW)).toEqual(['The last backup is 3 days old.']);
  expect(careDue([line('backup', '2027-03-10T02:00:00Z', false), rehearsal], NOW)).toEqual([
    'The last backup failed: the disk of the backups is full',
  ]);
  expect(careDue([backup, line('rehearsal', '2027-01-20T02:00:00Z')], NOW)).toEqual([expect.stringContaining('49 days ago')]);
  expect(careDue([backup, line('rehearsal', '2027-03-09T02:00:00Z', false)], NOW)).toEqual([expect.stringContaining('not whole')]);
});

test('what does not hold together is said first, backup or none; one walk that is missed is no news', () => {
  const backup = line('backup', '2027-03-10T02:00:00Z');
  const rehearsal = line('rehearsal', '2027-03-01T02:00:00Z');
  const walk = (at: string, isGood = true): CareView => ({
    what: 'walk',
    at,
    isGood,
    words: '1 × shelves with less than nothing on them: B-12',
  });
  expect(careDue([backup, rehearsal, walk('2027-03-08T03:00:00Z')], NOW)).toEqual([]);
  expect(careDue([backup, rehearsal, walk('2027-03-06T03:00:00Z')], NOW)).toEqual([expect.stringContaining('for 4 days')]);
  expect(careDue([walk('2027-03-10T03:00:00Z', false)], NOW)).toEqual([
    expect.stringContaining('less than nothing on them: B-12'),
    expect.stringContaining('No backup is made'),
  ]);
});
