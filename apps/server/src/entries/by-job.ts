import { readUp, type AnyKeptEntry } from '@jubb/book';

/** Entries of several jobs by their job, each in the order given, as they are read today. */
export function entriesByJob(entries: readonly AnyKeptEntry[]): ReadonlyMap<string, readonly AnyKeptEntry[]> {
  const map = new Map<string, AnyKeptEntry[]>();
  for (const entry of entries) {
    const list = map.get(entry.jobId);
    if (list) list.push(readUp(entry));
    else map.set(entry.jobId, [readUp(entry)]);
  }
  return map;
}
