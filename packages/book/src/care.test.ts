import { expect, test } from '@jest/globals';
import { careDue, type CareView } from './care.js';

const NOW = Date.parse('2027-03-10T08:00:00Z');
const line = (what: CareView['what'], at: string, isGood = true): CareView => ({
  what,
  at,
  isGood,
  words: 'the disk of the backups is full',
});

test('a foreman is told of what nobody saw to, and of nothing else', () => {
  const backup = line('backup', '2027-03-10T02:00:00Z');
  const rehearsal = line('rehearsal', '2027-03-01T02:00:00Z');
  expect(careDue([backup, rehearsal], NOW)).toEqual([]);
  expect(careDue([], NOW)).toEqual([expect.stringContaining('No backup is made')]);
  expect(careDue([backup], NOW)).toEqual([expect.stringContaining('ever brought back')]);
  expect(careDue([line('backup', '2027-03-07T02:00:00Z'), rehearsal], NOW)).toEqual(['The last backup is 3 days old.']);
  expect(careDue([line('backup', '2027-03-10T02:00:00Z', false), rehearsal], NOW)).toEqual([
    'The last backup failed: the disk of the backups is full',
  ]);
  expect(careDue([backup, line('rehearsal', '2027-01-20T02:00:00Z')], NOW)).toEqual([expect.stringContaining('49 days ago')]);
  expect(careDue([backup, line('rehearsal', '2027-03-09T02:00:00Z', false)], NOW)).toEqual([expect.stringContaining('not whole')]);
});
