import { Reckoned, jobState, shaped, workingFor, type AnyKeptEntry, type JobState, type ShapingEntry } from '@jubb/book';
import { seeded } from '@jubb/core';
import { STAGES, type SheetFile, type Step, type Tool } from '@jubb/sheet';
import { actsAt, type DemoEntry, type DemoUnit } from './mechanic.js';
import { PERFECT_CRIB } from './tools.js';

/** A step that does not end is a fault of the sheet. */
const MOST_ROUNDS = 40;
const TODAY = '2026-01-01';
const AT = `${TODAY}T08:00:00.000Z`;

/** A unit with nothing wrong. */
const SOUND: DemoUnit = {
  limits: {},
  looks: {},
  finding: 'Nothing to be seen',
  backedOff: 0.2,
  receivedBy: 'the customer',
  foreman: 'the foreman',
};

/** A job as it was played through, and where it stuck, if it did. */
export interface Played {
  readonly entries: readonly AnyKeptEntry[];
  readonly state: JobState;
  readonly stuck?: { readonly step: Step; readonly why: string };
}

export interface PlayWith {
  readonly begins?: readonly ShapingEntry[];
  readonly tools?: readonly Tool[];
  readonly unit?: DemoUnit;
  readonly seed?: number;
}

/** Works a job through by its sheet, from book-in to hand-over, as a mechanic would who slips nowhere. Nothing of it is kept. */
export function playThrough(given: SheetFile, { begins = [], tools = PERFECT_CRIB, unit = SOUND, seed = 7 }: PlayWith = {}): Played {
  const sheet = shaped(given, begins);
  const random = seeded(seed);
  const byId = new Map(tools.map((tool) => [tool.id, tool]));
  const entries: AnyKeptEntry[] = [];
  const keep = (act: DemoEntry | ShapingEntry): string => {
    const { kind, payload, toolId } = act as DemoEntry;
    const id = `played ${entries.length + 1}`;
    const working = workingFor(kind, payload, sheet, byId.get(toolId ?? ''));
    const line = { step: null, toolId: null, strikes: null, personId: 'mechanic', takenAt: AT, keptAt: AT, ...act };
    entries.push({ ...line, id, seq: entries.length + 1, working } as unknown as AnyKeptEntry);
    return id;
  };
  begins.forEach(keep);
  for (const stage of STAGES) {
    if (stage !== 'book-in') keep({ kind: 'stage', payload: { stage } });
    for (const step of sheet.steps.filter((one) => one.stage === stage)) {
      const stuck = playStep(given, step, entries, keep, { tools, unit, random });
      if (stuck !== undefined) return { entries, state: jobState(given, entries), stuck: { step, why: stuck } };
      if (!step.wait) continue;
      const { what, hot } = step.wait;
      const wait = keep({ kind: 'wait', payload: { what, seconds: 1, ...(hot ? { hot } : {}) }, step: step.ref });
      keep({ kind: 'wait-over', payload: { wait }, step: step.ref });
    }
  }
  return { entries, state: jobState(given, entries) };
}

interface AtHand {
  readonly tools: readonly Tool[];
  readonly unit: DemoUnit;
  readonly random: () => number;
}

/** Why a step does not end; nothing where it does. */
function playStep(
  given: SheetFile,
  step: Step,
  entries: readonly AnyKeptEntry[],
  keep: (act: DemoEntry) => string,
  { tools, unit, random }: AtHand,
): string | undefined {
  for (let round = 0; round <= MOST_ROUNDS; round += 1) {
    const state = new Reckoned(given, entries);
    const stands = state.step(step);
    if (stands.done) return undefined;
    if (round === MOST_ROUNDS) return stands.problem ?? 'it does not end';
    try {
      actsAt(state, stands, { unit, tools, random, at: AT, today: TODAY }).acts.forEach(keep);
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  }
  return undefined;
}
