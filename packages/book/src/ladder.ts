import { find, type SheetFile, type Step } from '@jubb/sheet';
import { isKind, type AnyKeptEntry, type KeptEntry } from './entries/kept.js';

/** What is tried where a sheet has no ladder of its own, the gentle before the rough. Common practice. */
export const GENERAL_LADDER: readonly string[] = [
  'Look again: a clip, pin, screw, lip or dowel that still holds it',
  'Penetrating oil on the seam, and ten minutes for it',
  'A touch tighter first, then looser; light taps all round to wake it',
  'Heat on the outer part, where rubber, grease and bearing allow it',
  'Stop and ask, before anything is cut, drilled or pried',
];

/** The rungs for what will not come at a step. */
export function ladderOf(step: Pick<Step, 'ladder'> | undefined): readonly string[] {
  return step?.ladder?.length ? step.ladder : GENERAL_LADDER;
}

/** How far up somebody is with something that will not come. */
export interface Ladder {
  readonly step: string | null;
  readonly what: string;
  readonly rungs: readonly string[];
  readonly tried: readonly KeptEntry<'rung'>[];
  /** The rung to try now; none when it came, or when all were tried. */
  readonly next: string | undefined;
  /** The next rung is the last: it asks somebody. */
  readonly asks: boolean;
}

/** Where the ladder stands for something at a step. Once it came, the same thing begins anew. */
export function ladderAt(sheet: SheetFile, live: readonly AnyKeptEntry[], step: string | null, what: string): Ladder {
  const rungs = ladderOf(find(sheet.steps, step ?? undefined));
  const all = live.filter(isKind('rung')).filter((entry) => entry.step === step && entry.payload.what === what);
  const tried = all.slice(all.findLastIndex(({ payload }) => payload.came) + 1);
  return { step, what, rungs, tried, next: rungs[tried.length], asks: tried.length === rungs.length - 1 };
}

/** Everything that has not come yet, the last one begun first. */
export function laddersOpen(sheet: SheetFile, live: readonly AnyKeptEntry[]): readonly Ladder[] {
  const about = new Map(live.filter(isKind('rung')).map(({ step, payload: { what } }) => [JSON.stringify([step, what]), { step, what }]));
  return [...about.values()]
    .map(({ step, what }) => ladderAt(sheet, live, step, what))
    .filter(({ tried }) => tried.length > 0)
    .toReversed();
}

/** Whether a job stands on hold, by its entries. */
export function isOnHold(live: readonly AnyKeptEntry[]): boolean {
  return live.findLast(({ kind }) => kind === 'hold' || kind === 'hold-off')?.kind === 'hold';
}
