import { expect, test } from '@jest/globals';
import type { SheetFile } from '@jubb/sheet';
import { bookHours, labourHours, labourMinor } from './labour.js';

const tasks = [
  { ref: 'seals', name: 'Seals', time: '90 min' },
  { ref: 'bearings', name: 'Bearings', time: '2 h' },
  { ref: 'all', name: 'All of it', time: '5 h', whole: true },
  { ref: 'look', name: 'Only look' },
] as unknown as NonNullable<SheetFile['tasks']>;

test.each([
  [{ tasks: ['seals'], sides: [] }, 1.5],
  [{ tasks: ['seals', 'bearings'], sides: [] }, 3.5],
  [{ tasks: ['seals', 'bearings'], sides: ['left', 'right'] }, 7],
  // The whole takes the narrower in.
  [{ tasks: ['seals', 'all'], sides: ['left'] }, 5],
  [{ tasks: [], sides: [] }, 5],
  [null, 5],
  [{ tasks: ['look'], sides: [] }, undefined],
])('of %j the book says %s h', (scope, hours) => {
  expect(bookHours({ tasks }, scope)).toBe(hours);
});

test('it is quoted to the quarter of an hour, and an hour where the book is silent', () => {
  expect(labourHours({ tasks: [{ ...tasks[0]!, time: '100 min' }] }, { tasks: ['seals'], sides: [] })).toBe(1.75);
  expect(labourHours({ tasks }, { tasks: ['look'], sides: [] })).toBe(1);
  expect(labourHours({}, null)).toBe(1);
  expect(labourMinor(1.75, 6801)).toBe(11_902);
});
