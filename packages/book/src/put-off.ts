import { isKind, type AnyKeptEntry } from './entries/kept.js';

/** Whether the coat of a step was put off: nothing dries then, and it is owed. */
export function isPutOff(live: readonly AnyKeptEntry[], step: string): boolean {
  return live.filter(isKind('tick')).findLast((entry) => entry.step === step)?.payload.later !== undefined;
}
