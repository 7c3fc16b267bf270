import { jobState, stopsHandOver, type AnyKeptEntry } from '@jubb/book';
import { reshapes, scopeSheet, type SheetFile, type Step, type Tool, type Way } from '@jubb/sheet';
import { readSheetFile } from '@jubb/sheet/editing';
import { readFileSync, readdirSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { demoTools, moreTools } from './demo-crib.js';
import { workAt, type JobPlan, type ShapingAct } from './demo-work.js';

const FOLDER = new URL('../../demo/sheets/', import.meta.url);
const files = readdirSync(FOLDER).map((name) => {
  const read = readSheetFile(readFileSync(new URL(name, FOLDER), 'utf8'));
  if (!read.ok) throw new Error(`${name}: ${JSON.stringify(read.issues[0])}`);
  return [name, read.sheet] as const;
});
const tools = [...demoTools(), ...moreTools()].map((tool): Tool => ({ ...tool, id: tool.tag, calibrationDue: null }));

const sound: JobPlan = {
  seed: 7,
  unit: { limits: {}, looks: {}, finding: 'Nothing to be seen', backedOff: 0.2, receivedBy: 'Somebody', foreman: 'Oswin Tarrell' },
  crew: { hand: { id: 'ilka', role: 'mechanic' }, foreman: { id: 'oswin', role: 'foreman' }, counter: { id: 'perla', role: 'counter' } },
  pace: 1,
};

/** Ways other than the shop's own that change the sheet, each once. */
function ways(sheet: SheetFile): readonly (readonly [Step, Way])[] {
  return sheet.steps.flatMap((step) =>
    (step.ways ?? []).filter((way) => !way.shopDefault && reshapes(way)).map((way) => [step, way] as const),
  );
}

const plays = files.flatMap(([name, file]) => {
  const tasks = file.tasks?.map(({ ref }) => ref) ?? [''];
  const variants = file.variants?.map(({ ref }) => ref) ?? [undefined];
  return tasks.flatMap((task) =>
    variants.flatMap((variant) => {
      const sheet = scopeSheet(file, { tasks: task === '' ? [] : [task], ...(variant === undefined ? {} : { variant }) }).file;
      const others = ways(sheet).map(([step, way]): readonly [string, readonly ShapingAct[]] => [
        `${step.ref}: ${way.ref}`,
        [{ kind: 'way', step: step.ref, payload: { way: way.ref, ...(way.departs ? { agreed: { foreman: 'O', customer: 'yes' } } : {}) } }],
      ]);
      return [['as the shop does it', []] as const, ...others].map(
        ([how, begins]) => [`${name}, ${task}, ${variant ?? ''}, ${how}`, sheet, begins] as const,
      );
    }),
  );
});

test('there are many ways through the library', () => {
  expect(plays.length).toBeGreaterThan(180);
});

test.each(plays)('%s: from book-in to hand-over, with nothing left over', (_, sheet, begins) => {
  const made = workAt(sheet, { ...sound, begins }, tools);
  const entries = made.map(
    (entry, at) => ({ step: null, toolId: null, seq: at + 1, ...entry, takenAt: '2026-11-27T08:00:00.000Z' }) as unknown as AnyKeptEntry,
  );
  const state = jobState(sheet, entries);
  expect(stopsHandOver(state)).toEqual([]);
  expect(state.misfits).toEqual([]);
  expect(state.handedOver).toBeDefined();
});
