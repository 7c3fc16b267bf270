import { expect, test } from '@jest/globals';
import { beforeAfter, notTriedAgain } from './before-after.js';
import { book, demoSheet, reportOf, type BookLine } from './book.test-kit.js';
import { checkOnJob } from './entries/check.js';
import { jobState, stopsSigning } from './state.js';

const axle = demoSheet('ostrel-d44-drive-axle');
const noise: BookLine = { kind: 'tried', payload: { what: 'noise', how: 'howls from 30 km/h on', conditions: 'warm, on drive' } };
const prove: BookLine = { kind: 'stage', payload: { stage: 'prove' } };
const again = (result: string, more: object = {}): BookLine => ({ kind: 'tried-again', payload: { before: 'entry 0', result, ...more } });
function refused(line: BookLine, ...before: readonly BookLine[]): string {
  const given = { id: 'new', strikes: null, takenAt: '2026-11-29T08:00:00.000Z', step: null, ...line } as never;
  return checkOnJob([given], book(axle, ...before), axle, { role: 'mechanic', personId: 'ilka' })?.errors[0]?.allowed ?? '';
}
const stops = (...lines: readonly BookLine[]): boolean =>
  stopsSigning(jobState(axle, book(axle, ...lines))).includes('Not tried again: noise, howls from 30 km/h on');

test('a job that came in for a noise is not signed without its after', () => {
  expect(stops()).toBe(false);
  expect(stops(noise, prove)).toBe(true);
  expect(stops(noise, prove, again('gone'))).toBe(false);
  // The same noise is an answer too: what is done about it is another matter.
  expect(stops(noise, prove, again('same'))).toBe(false);
});

test('it is tried again once, when the unit is proved, and about a trial of this job', () => {
  expect(refused(again('gone'), noise)).toBe('is tried again when it is proved; the job is not there yet');
  expect(refused(again('gone'), noise, prove)).toBe('');
  expect(refused(again('gone'), noise, prove, again('less'))).toBe('was tried again already, or struck');
  expect(refused({ kind: 'tried-again', payload: { before: 'entry 1', result: 'gone' } }, noise, prove)).toBe('is no trial of this job');
});

test('the report has both side by side', () => {
  const entries = book(axle, noise, prove, again('less', { how: 'a hum at 50 km/h' }));
  expect(beforeAfter(entries)).toMatchObject([{ after: { payload: { result: 'less' } } }]);
  expect(notTriedAgain(entries)).toEqual([]);
  const { sections } = reportOf(axle, entries);
  const table = sections.find(({ title }) => title === 'What it was brought for, before and after')!.table!;
  expect(table.rows[0]!.cells.slice(0, 3)).toEqual(['noise', 'howls from 30 km/h on, warm, on drive', 'less, a hum at 50 km/h']);
});
