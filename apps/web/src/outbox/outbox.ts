import type { AnyKeptEntry, JobView, Problem } from '@jubb/contract/job';
import type { EntryKind } from '@jubb/contract/job';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { v7 as uuid } from 'uuid';
import { LinkDown, Refusal, call } from '../api/client.ts';
import { jobKey, mergeEntries, queryClient } from '../api/queries.ts';

/** What is recorded, before it has a number and a hash. */
export interface Draft {
  readonly kind: EntryKind;
  readonly payload: object;
  readonly step?: string;
  readonly toolId?: string;
  readonly strikes?: string;
}

export interface Held extends Draft {
  readonly id: string;
  readonly jobId: string;
  readonly personId: string;
  readonly takenAt: string;
  /** Why the server would not take it; it is kept until a person decides. */
  readonly refused?: Problem;
}

interface OutboxDb extends DBSchema {
  held: { key: string; value: Held };
}

const RETRY_MS = [500, 1000, 2000, 5000];
const MOST_IN_BATCH = 50;

/**
 * Entries are on the tablet before they are anywhere else: kept in IndexedDB, shown at once, sent
 * in order, each once. A lost link only makes them wait.
 */
class Outbox {
  #held: readonly Held[] = [];
  #db: Promise<IDBPDatabase<OutboxDb>> | undefined;
  #personId: string | undefined;
  #sending = false;
  #failures = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;
  readonly #listeners = new Set<() => void>();

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly snapshot = (): readonly Held[] => this.#held;
  /** The last try to send did not get through. */
  readonly isStuck = (): boolean => this.#failures > 0;

  /** Begins for a person: what an earlier page left behind is sent first. */
  async begin(personId: string): Promise<void> {
    this.#personId = personId;
    const stored = await (await this.#open()).getAll('held');
    const known = new Set(this.#held.map((held) => held.id));
    // Ids of version 7 sort by the time they were made.
    this.#set([...this.#held, ...stored.filter((held) => !known.has(held.id))].toSorted((a, b) => (a.id < b.id ? -1 : 1)));
    void this.#send();
  }

  /** Keeps drafts for a job; resolves when they are safe on this device. */
  async add(jobId: string, drafts: readonly Draft[]): Promise<void> {
    const personId = this.#personId;
    if (personId === undefined) throw new Error('nobody is logged in');
    const held = drafts.map((draft): Held => ({ ...draft, id: uuid(), jobId, personId, takenAt: new Date().toISOString() }));
    this.#set([...this.#held, ...held]);
    const transaction = (await this.#open()).transaction('held', 'readwrite');
    await Promise.all([...held.map((one) => transaction.store.put(one)), transaction.done]);
    void this.#send();
  }

  /** Takes a refused entry out for good, or gives it another try. */
  async settle(id: string, what: 'drop' | 'retry'): Promise<void> {
    const one = this.#held.find((held) => held.id === id);
    if (!one) return;
    if (what === 'drop') {
      this.#set(this.#held.filter((held) => held.id !== id));
      await (await this.#open()).delete('held', id);
      return;
    }
    const { refused, ...fresh } = one;
    await this.#replace(fresh);
    void this.#send();
  }

  readonly wake = (): void => {
    this.#failures = 0;
    void this.#send();
  };

  async #send(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    clearTimeout(this.#timer);
    try {
      for (let batch = this.#nextBatch(); batch.length > 0; batch = this.#nextBatch()) await this.#sendBatch(batch);
      this.#failures = 0;
      this.#tell();
    } catch (error) {
      if (!(error instanceof LinkDown)) throw error;
      const pause = RETRY_MS[Math.min(this.#failures, RETRY_MS.length - 1)] ?? 5000;
      this.#failures += 1;
      this.#tell();
      this.#timer = setTimeout(() => void this.#send(), pause);
    } finally {
      this.#sending = false;
    }
  }

  /** The oldest entries of one job that this person made and nobody refused. */
  #nextBatch(): readonly Held[] {
    const ready = this.#held.filter((held) => held.personId === this.#personId && !held.refused);
    return ready.filter((held) => held.jobId === ready[0]?.jobId).slice(0, MOST_IN_BATCH);
  }

  async #sendBatch(batch: readonly Held[]): Promise<void> {
    const [first] = batch;
    if (!first) return;
    try {
      const entries = batch.map(({ id, kind, payload, step, toolId, strikes, takenAt }) => ({
        id,
        kind,
        payload,
        step,
        toolId,
        strikes,
        takenAt,
      }));
      const kept = await call<AnyKeptEntry[]>('POST', `/jobs/${first.jobId}/entries`, { entries });
      mergeKept(first.jobId, kept);
      const ids = new Set(batch.map((held) => held.id));
      this.#set(this.#held.filter((held) => !ids.has(held.id)));
      const transaction = (await this.#open()).transaction('held', 'readwrite');
      await Promise.all([...[...ids].map((id) => transaction.store.delete(id)), transaction.done]);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      if (error.problem.status === 401 || error.problem.status === 429) throw new LinkDown(error.message);
      // All or none: the refused one is found by sending them singly.
      if (batch.length > 1) for (const held of batch) await this.#sendBatch([held]);
      else await this.#replace({ ...first, refused: error.problem });
    }
  }

  async #replace(held: Held): Promise<void> {
    this.#set(this.#held.map((other) => (other.id === held.id ? held : other)));
    await (await this.#open()).put('held', held);
  }

  #set(held: readonly Held[]): void {
    this.#held = held;
    this.#tell();
  }

  #tell(): void {
    for (const listener of this.#listeners) listener();
  }

  #open(): Promise<IDBPDatabase<OutboxDb>> {
    this.#db ??= openDB<OutboxDb>('jubb', 1, { upgrade: (db) => void db.createObjectStore('held', { keyPath: 'id' }) });
    return this.#db;
  }
}

export const outbox = new Outbox();

/** Puts entries that the server has kept into the job on the screen. */
function mergeKept(jobId: string, kept: readonly AnyKeptEntry[]): void {
  queryClient.setQueryData<JobView>(jobKey(jobId), (job) => job && { ...job, entries: mergeEntries(job.entries, kept) });
}
