import type { SheetFile, Step } from '@jubb/sheet';
import { readSheetFile } from '@jubb/sheet/editing';
import type { AnyKeptEntry } from '../entries/kept.js';
import { shaped } from '../shape.js';
import { jobState } from '../state.js';
import { countsOf } from './counts.js';
import { forerunners } from './traps.js';
import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';

const FOLDER = new URL('../../../../apps/server/demo/sheets/', import.meta.url);

function library(name: string): SheetFile {
  const read = readSheetFile(readFileSync(new URL(name, FOLDER), 'utf8'));
  if (!read.ok) throw new Error(`${name} does not read`);
  return read.sheet;
}

/** The entries that do a step of the strip, whatever it records. */
function doing(sheet: SheetFile, step: Step): readonly AnyKeptEntry[] {
  const { ref, record } = step;
  const entry = (kind: string, payload: object, number = 0): AnyKeptEntry =>
    ({ id: `${ref}-${kind}-${number}`, kind, payload, step: ref, strikes: null, working: null }) as unknown as AnyKeptEntry;
  const so = step.expect === undefined ? [] : [entry('as-expected', { so: true })];
  const seen = step.holdPoint ? [entry('hold-met', { seen: 'as it should be' })] : [];
  if (record.kind === 'count')
    return [
      ...countsOf(sheet, step).map(({ part, ...counted }, number) => entry('came-off', { part, name: part, ...counted }, number)),
      ...so,
      ...seen,
    ];
  return [
    entry(record.kind === 'arrival' ? 'finding' : record.kind, {
      limit: record.limit,
      fluid: record.fluid,
      readings: [0],
      look: sheet.limits.find((one) => one.ref === record.limit)?.looks?.[0]?.ref,
    }),
    ...so,
    ...seen,
  ];
}

describe('what comes first', () => {
  test.each(readdirSync(FOLDER))('%s: its strip in its own order meets no trap, and a step out of its turn does', (name) => {
    // As a job goes by it that knows nothing else: of its first variant, by the shop's own ways.
    const sheet = shaped(library(name), []);
    const strip = sheet.steps.filter(({ stage }) => stage === 'book-in' || stage === 'strip');
    let entries: readonly AnyKeptEntry[] = [];
    for (const step of strip) {
      expect([
        step.ref,
        forerunners(jobState(sheet, entries), step).filter(({ step: ref }) => strip.some((one) => one.ref === ref)),
      ]).toEqual([step.ref, []]);
      entries = [...entries, ...doing(sheet, step)];
    }
    const bound = strip.filter(({ after = [], needsOff = [] }) => after.length + needsOff.length > 0);
    // The sheet of the first release has none.
    if (name.endsWith('.yaml')) expect(bound.length).toBeGreaterThan(1);
    for (const step of bound) expect(forerunners(jobState(sheet, []), step)).not.toEqual([]);
  });

  test('a strip in any order that meets no trap, gone back up, never meets one either', () => {
    // Of one build alone: nobody has to say which it is.
    const sheet = { ...library('askvale-rx10-refrigerant-compressor.yaml'), variants: [] };
    const strip = sheet.steps.filter(({ stage }) => stage === 'strip');
    fc.assert(
      fc.property(fc.array(fc.nat(1000), { minLength: strip.length, maxLength: strip.length }), (choices) => {
        const order: Step[] = [];
        let entries: readonly AnyKeptEntry[] = [];
        for (const choice of choices) {
          const state = jobState(sheet, entries);
          const free = strip.filter(
            (step) => !order.includes(step) && forerunners(state, step).every(({ step: ref }) => !strip.some((one) => one.ref === ref)),
          );
          const next = free[choice % free.length]!;
          order.push(next);
          entries = [...entries, ...doing(sheet, next)];
        }
        // Gone back up, whatever was in the way of a step goes on after what it was in the way of.
        const up = order.toReversed();
        for (const step of order)
          for (const part of step.needsOff ?? []) {
            const frees = up.findIndex(({ record }) => record.counts?.some((counted) => counted.part === part));
            expect(frees).toBeGreaterThan(up.indexOf(step));
          }
        // Whatever the order, all of it came off, and counted back before the build it all adds up.
        const off = jobState(sheet, entries);
        expect(off.ledger.length).toBe(strip.flatMap(({ record }) => record.counts ?? []).length);
        expect(off.steps.filter(({ step, done }) => step.stage === 'strip' && !done)).toEqual([]);
        const back = off.reconcile.map(
          ({ key, part, name, expected }) =>
            ({
              id: `back ${key}`,
              kind: 'counted',
              payload: { part, name, count: expected },
              step: null,
              strikes: null,
              working: null,
            }) as unknown as AnyKeptEntry,
        );
        expect(jobState(sheet, [...entries, ...back]).reconcile.filter(({ expected, counted }) => expected !== counted)).toEqual([]);
      }),
      { numRuns: 30 },
    );
  });
});
