import type { AnyKeptEntry } from '@jubb/book';

/** So many jobs are worked at in one shop at once, and then some. */
const MOST_JOBS = 500;

/**
 * What each job says of its new parts, as this process last read it. It may be old: whatever is kept by it is kept only
 * if the database finds nothing newer.
 */
export class NewPartsMemory {
  readonly #jobs = new Map<string, readonly AnyKeptEntry[]>();

  of(jobId: string): readonly AnyKeptEntry[] | undefined {
    return this.#jobs.get(jobId);
  }

  keep(jobId: string, entries: readonly AnyKeptEntry[]): void {
    if (this.#jobs.size >= MOST_JOBS) this.#jobs.clear();
    this.#jobs.set(jobId, entries);
  }

  forget(jobId: string): void {
    this.#jobs.delete(jobId);
  }
}
