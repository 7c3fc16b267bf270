import { jobState, workingFor, type AnyKeptEntry } from '@jubb/book';
import { dayIn, find, type SheetFile, type Tool } from '@jubb/sheet';
import { readSheetFile } from '@jubb/sheet/editing';
import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { demoTools } from './demo-crib.js';
import { nextEntries, type DemoUnit } from '@jubb/play';

const FOLDER = new URL('../../demo/sheets/', import.meta.url);
const tools = demoTools().map((tool): Tool => ({ ...tool, id: tool.tag, quantity: tool.quantity as Tool['quantity'] }));
const UNIT: DemoUnit = {
  limits: {},
  looks: {},
  finding: 'Dirty, nothing broken',
  backedOff: 0.21,
  receivedBy: 'Ragna Ollwick',
  foreman: 'Oswin Tarrell',
};

/** Entries of a job on a sheet worked from the first step until there is nothing more to do. */
function workThrough(sheet: SheetFile): readonly AnyKeptEntry[] {
  const kept: AnyKeptEntry[] = [];
  for (;;) {
    const before = jobState(sheet, kept);
    const acts = nextEntries(before, {
      unit: UNIT,
      tools,
      random: () => 0.5,
      at: new Date().toISOString(),
      today: dayIn('UTC', Date.now()),
    });
    if (acts.length === 0) return kept;
    if (kept.length > 1500) throw new Error(`no end: ${JSON.stringify(acts)}`);
    for (const act of acts) {
      const tool = find(
        tools.map((one) => ({ ...one, ref: one.id })),
        act.toolId ?? undefined,
      );
      const working = workingFor(act.kind, act.payload, sheet, tool);
      const takenAt = new Date().toISOString();
      kept.push({
        id: String(kept.length),
        strikes: null,
        step: null,
        toolId: null,
        personId: 'ilka',
        takenAt,
        ...act,
        working,
      } as AnyKeptEntry);
    }
  }
}

describe('a mechanic with the crib of the demo', () => {
  test.each(readdirSync(FOLDER))('works by %s to the hand-over, and nothing stays open', (name) => {
    const read = readSheetFile(readFileSync(new URL(name, FOLDER), 'utf8'));
    if (!read.ok) throw new Error(`${name} does not read`);
    const entries = workThrough(read.sheet);
    const state = jobState(read.sheet, entries);
    expect(state.steps.filter(({ done }) => !done).map(({ step }) => step.ref)).toEqual([]);
    expect(state.openEnds).toEqual([]);
    expect(state.handedOver?.payload.receivedBy).toBe('Ragna Ollwick');
    // A unit with nothing wrong is not told that it has something wrong.
    expect(state.decisions.filter(({ proposed, part }) => proposed === 'renew' && part.policy !== 'renew')).toEqual([]);
  });
});
