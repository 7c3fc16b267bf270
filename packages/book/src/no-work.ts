import type { EntryKind } from './entries/kept.js';

/** What is kept at a step and is no work on it. */
const NO_WORK: ReadonlySet<EntryKind> = new Set<EntryKind>([
  'hold-met',
  'seated',
  'seal-seen',
  'let-go',
  'intent',
  'way-round',
  'as-expected',
  'rung',
  'photo',
  'clip',
  'note',
  'next-time',
  'finding',
  'tried',
  'tried-again',
  'caution-read',
  'wait',
  'wait-over',
  'replacement-here',
  'value-taken',
  'hold',
  'hold-off',
  'mark-met',
  'variant',
]);

/** Whether an entry at a step is work on it. */
export function isWork(kind: EntryKind): boolean {
  return !NO_WORK.has(kind);
}
