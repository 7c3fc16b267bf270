import type { HoldPoint, SheetFile, Step } from '@jubb/sheet';
import { isKind, type AnyKeptEntry } from './entries/kept.js';
import { isWork } from './no-work.js';

/** Who did what stands at a step. */
export function workersAt(live: readonly AnyKeptEntry[], step: string): readonly string[] {
  return [...new Set(live.flatMap((entry) => (entry.step === step && isWork(entry.kind) ? [entry.personId] : [])))];
}

/** Whether somebody looked at a step since the last that was done at it. */
export function isLookedAt(own: readonly AnyKeptEntry[]): boolean {
  const last = own.findLastIndex(({ kind }) => isWork(kind));
  return own.findLastIndex(isKind('hold-met')) > last;
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
