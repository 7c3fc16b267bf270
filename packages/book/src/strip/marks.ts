import { type AnyKeptEntry, isKind } from '../entries/kept.js';

/** A mark that was made, and must line up again. */
export interface Mark {
  /** The entry that says so: a line of the ledger, or the mark itself. */
  readonly entryId: string;
  readonly what: string;
  readonly mark: string;
  readonly part?: string;
  readonly met: boolean;
}

/** Every mark of a job, and whether it was met again. */
export function marksOf(live: readonly AnyKeptEntry[]): readonly Mark[] {
  const met = new Set(live.filter(isKind('mark-met')).map(({ payload }) => payload.mark));
  return live.flatMap((entry): Mark[] => {
    if (entry.kind !== 'mark' && entry.kind !== 'came-off') return [];
    const { mark, part } = entry.payload;
    if (mark === undefined) return [];
    const what = entry.kind === 'mark' ? entry.payload.what : entry.payload.name;
    return [{ entryId: entry.id, what, mark, ...(part === undefined ? {} : { part }), met: met.has(entry.id) }];
  });
}
