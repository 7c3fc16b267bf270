import { expect, test } from '@jest/globals';
import { scopeSheet } from '@jubb/sheet';
import { demoSheet } from './book.test-kit.js';
import { likelyCauses } from './causes.js';
import type { AnyKeptEntry } from './entries/kept.js';

function reading(limit: string, verdict: string): AnyKeptEntry {
  return {
    kind: 'reading',
    payload: { limit, readings: [1], unit: 'V' },
    working: { id: 'measure.verdict', input: {}, output: { verdict } },
  } as unknown as AnyKeptEntry;
}

test('causes reorder as readings come', () => {
  const sheet = demoSheet('quennet-ga-alternator');
  const before = likelyCauses(sheet, ['no-charge', 'whines-or-growls'], []);
  expect(before.checks.map(({ limit }) => limit.ref)).toContain('ripple');
  const after = likelyCauses(sheet, ['no-charge', 'whines-or-growls'], [reading('ripple', 'out'), reading('rotor-through-brushes', 'in')]);
  expect(after.lines[0]?.cause.name).toBe('diode open or shorted');
  expect(after.lines[0]?.because).toEqual([{ check: 'ripple', speaks: 'strongly for' }]);
  expect(after.checks.map(({ limit }) => limit.ref)).not.toContain('ripple');
});

test('a good side does not speak for the bad one, in whatever order they were read', () => {
  const alternator = demoSheet('quennet-ga-alternator');
  const sides = ['Left', 'Right'];
  const sheet = scopeSheet({ ...alternator, sides }, { sides }).file;
  const ripple = sheet.limits.find(({ base }) => base === 'ripple')!;
  const speaks = (...read: AnyKeptEntry[]): unknown =>
    likelyCauses(sheet, ['no-charge', 'whines-or-growls'], read).lines.find(({ cause }) => cause.name === 'diode open or shorted')?.because;
  const bad = [{ check: ripple.base, speaks: 'strongly for' }];
  expect(speaks(reading('ripple--left', 'out'), reading('ripple--right', 'in'))).toEqual(bad);
  expect(speaks(reading('ripple--right', 'in'), reading('ripple--left', 'out'))).toEqual(bad);
  // Read again at the same side, the last counts.
  expect(speaks(reading('ripple--left', 'out'), reading('ripple--left', 'in'))).not.toEqual(bad);
});
