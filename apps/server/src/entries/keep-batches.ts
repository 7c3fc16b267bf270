import type { AnyKeptEntry } from '@jubb/book';
import type { DataSource } from 'typeorm';
import { ask } from '../database/data-source.js';
import { KEEP_BATCHES } from './entries.sql.js';
import type { EntryContent } from './entry-hash.js';

/** Entries of one job that were sent together. */
export interface Batch {
  readonly jobId: string;
  readonly personId: string;
  readonly entries: readonly (EntryContent & { readonly contentHash: string })[];
  /** Kept only if nothing of the kinds came after this entry of the job. */
  readonly upTo?: number;
}

type Kept = readonly AnyKeptEntry[] | undefined;
type Row = AnyKeptEntry & { readonly batch: number; readonly code: string | null };

interface Waiting {
  readonly batch: Batch;
  readonly tell: (kept: Kept) => void;
  readonly fail: (error: unknown) => void;
}

/** So many are on their way to the database at once; what comes in the meantime goes together, at most so much. */
const MOST_ASKED = 2;
const MOST_TOGETHER = 64;

/** Keeps what many tablets send in the same moment in one round trip and one commit. */
export class KeepBatches {
  #waiting: Waiting[] = [];
  #asked = 0;

  constructor(
    private readonly dataSource: DataSource,
    private readonly kinds: readonly string[],
  ) {}

  /** What was kept; undefined where it is to be asked for alone, which says why, or waits for its job. */
  keep(batch: Batch): Promise<Kept> {
    return new Promise((tell, fail) => {
      this.#waiting.push({ batch, tell, fail });
      if (this.#asked < MOST_ASKED) this.#askNext();
    });
  }

  #askNext(): void {
    const together = this.#waiting.splice(0, MOST_TOGETHER);
    if (together.length === 0) return;
    this.#asked += 1;
    void this.#ask(together).then(() => {
      this.#asked -= 1;
      this.#askNext();
    });
  }

  async #ask(together: readonly Waiting[]): Promise<void> {
    const kept = together.map((): AnyKeptEntry[] => []);
    try {
      const batches = JSON.stringify(together.map(({ batch }) => batch));
      for (const { batch, code, ...entry } of await ask<Row>(this.dataSource.manager, KEEP_BATCHES, batches, this.kinds))
        if (code === null) kept[batch - 1]!.push(entry as AnyKeptEntry);
    } catch (error) {
      // A database that is silent is so for each of them; what lies at one of them, it hears when it asks alone.
      if (!liesInWhatWasSent(error)) {
        for (const { fail } of together) fail(error);
        return;
      }
    }
    for (const [at, { tell }] of together.entries()) tell(kept[at]!.length > 0 ? kept[at] : undefined);
  }
}

/** Data and constraints: classes 22 and 23 of the database's codes (PostgreSQL manual, appendix A). */
function liesInWhatWasSent(error: unknown): boolean {
  return /^2[23]/u.test(String((error as { code?: unknown } | null)?.code));
}
