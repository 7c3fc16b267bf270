import { isKind, type AnyKeptEntry, type KeptEntry } from './entries/kept.js';

/** What became of what it was brought for. */
export const TRIED_AGAIN = ['gone', 'less', 'same', 'worse'] as const;
export type TriedAgain = (typeof TRIED_AGAIN)[number];

/** A trial before the work, and the same one after it. */
export interface BeforeAfter {
  readonly before: KeptEntry<'tried'>;
  readonly after: KeptEntry<'tried-again'> | undefined;
}

/** What was tried when it came, each with how it was at the end. */
export function beforeAfter(live: readonly AnyKeptEntry[]): readonly BeforeAfter[] {
  const again = live.filter(isKind('tried-again'));
  return live.filter(isKind('tried')).map((before) => ({ before, after: again.findLast(({ payload }) => payload.before === before.id) }));
}

/** Trials that nobody made again. */
export function notTriedAgain(live: readonly AnyKeptEntry[]): readonly KeptEntry<'tried'>[] {
  return beforeAfter(live).flatMap(({ before, after }) => (after ? [] : [before]));
}
