import type { HoldPoint, SheetFile, Step } from '@jubb/sheet';
import { isKind, type AnyKeptEntry, type EntryKind } from './entries/kept.js';

/** What is kept at a step and is no work on it. */
const NO_WORK: ReadonlySet<EntryKind> = new Set<EntryKind>([
  'hold-met',
  'photo',
  'clip',
  'note',
  'next-time',
  'finding',
  'caution-read',
  'wait',
  'wait-over',
  'replacement-here',
  'value-taken',
  'hold',
  'hold-off',
  'mark-met',
]);

/** Who did what stands at a step. */
export function workersAt(live: readonly AnyKeptEntry[], step: string): readonly string[] {
  return [...new Set(live.flatMap((entry) => (entry.step === step && !NO_WORK.has(entry.kind) ? [entry.personId] : [])))];
}

/** Whether somebody looked at a step since the last that was done at it. */
export function isLookedAt(own: readonly AnyKeptEntry[]): boolean {
  const last = own.findLastIndex(({ kind }) => !NO_WORK.has(kind));
  return own.findLastIndex(isKind('hold-met')) > last;
}

/** Whether an entry does something at a step that an earlier one may hold up. */
export function waitsAtHolds(kind: EntryKind): boolean {
  return !NO_WORK.has(kind);
}

/** Steps with a hold point that come before a step. */
export function holdsBefore({ steps }: SheetFile, ref: string | null | undefined): readonly Step[] {
  const at = steps.findIndex((step) => step.ref === ref);
  return steps.slice(0, Math.max(0, at)).filter(({ holdPoint }) => holdPoint !== undefined);
}

/** "the second person looks at both pins". */
export function holdWords({ who, what }: HoldPoint): string {
  return `the ${who} ${what}`;
}
