import type { AnyKeptEntry } from '@jubb/book';

/** So many jobs are worked at in one shop at once, and then some. */
const MOST_JOBS = 500;

/** What a job says of its new parts, and up to which of its entries it was looked at. */
export interface NewParts {
  readonly entries: readonly AnyKeptEntry[];
  readonly upTo: number;
}

/**
 * What each job says of its new parts, as this process last read it. It may be old: whatever is kept by it is kept only
 * if the database finds nothing newer.
 */
export class NewPartsMemory {
  readonly #jobs = new Map<string, NewParts>();

  of(jobId: string): NewParts | undefined {
    return this.#jobs.get(jobId);
  }

  keep(jobId: string, newParts: NewParts): void {
    if (this.#jobs.size >= MOST_JOBS && !this.#jobs.has(jobId)) this.#jobs.clear();
    this.#jobs.set(jobId, newParts);
  }

  forget(jobId: string): void {
    this.#jobs.delete(jobId);
  }
}
