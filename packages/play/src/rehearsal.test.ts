import { expect, test } from '@jest/globals';
import { scopeSheet, type SheetFile, type Tool } from '@jubb/sheet';
import { readSheetFile } from '@jubb/sheet/editing';
import { readFileSync } from 'node:fs';
import { rehearse } from './rehearsal.js';
import { PERFECT_CRIB } from './tools.js';

function library(name: string, tasks: string[]): SheetFile {
  const read = readSheetFile(readFileSync(new URL(`../../../apps/server/demo/sheets/${name}.yaml`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(`${name} does not read`);
  return scopeSheet(read.sheet, { tasks }).file;
}
const axle = library('ostrel-d44-drive-axle', ['whole-axle']);
const lineOf = (ref: string) => rehearse(axle, PERFECT_CRIB).steps.find((step) => step.ref === ref)!;

test('says what is kept at each step, what must be ready and from when, who looks, and what can be read no more', () => {
  const { steps, stuck, newParts } = rehearse(axle, PERFECT_CRIB);
  expect(stuck).toBeUndefined();
  // What only another variant brings is no step of this one.
  const brought = new Set(axle.variants?.flatMap(({ brings = [] }) => brings));
  expect(brought.size).toBeGreaterThan(0);
  expect(steps.map(({ ref }) => ref)).toEqual(axle.steps.map(({ ref }) => ref).filter((ref) => !brought.has(ref)));
  expect(steps.every(({ kept, ref }) => kept.length > 0 || ref === '')).toBe(true);
  expect(lineOf('head-bearing-on-with-its-shim')).toMatchObject({
    ready: 'head bearing into the oven at 100 °C, never over 120 °C: 20 min, from “Count what goes back” on',
    waits: '20 min: head bearing to cool on the pinion, hot',
  });
  expect(lineOf('contact-pattern-as-set').holds).toBe('foreman looks at the pattern before the cover goes on');
  expect(lineOf('cover-on').hides).toEqual(['Backlash, at four places can be read no more']);
  expect(lineOf('caps-on').kept.length).toBeLessThanOrEqual(7);
  expect(newParts).toContainEqual({ name: 'Crush sleeve', number: 'OD4-226', pieces: 1 });
});

test('says what the crib lacks: a kind of tool, one that is too coarse, a pipe and a press', () => {
  const lacking = (tools: readonly Tool[]): readonly string[] => rehearse(axle, tools).lacking;
  expect(lacking([])).toContain('no beam wrench in the crib');
  expect(lacking([])).toContainEqual(expect.stringMatching(/^Head bearing on the pinion, to come off: none of the crib/u));
  const pipe = { tag: 'H4', name: 'Tube 35 × 42', kind: 'tube', low: 35, high: 42, length: 140 } as unknown as Tool;
  const whole = [...PERFECT_CRIB, pipe];
  expect(lacking(whole)).toEqual([]);
  const press = { tag: 'Y2', name: 'Arbor press', kind: 'press', low: 0, high: 2000 } as unknown as Tool;
  expect(lacking([...whole, press])).toContainEqual(expect.stringMatching(/The press has: "2 kN" is too small/u));
  const coarse = whole.map((tool) => (tool.kind === 'dial-indicator' ? { ...tool, u: 0.2 } : tool));
  expect(lacking(coarse)).toContainEqual(expect.stringMatching(/^Backlash/u));
});
