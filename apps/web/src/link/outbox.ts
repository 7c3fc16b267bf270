import { ENDPOINTS, type AskedWith } from '@jubb/wire';
import type { AnyKeptEntry, JobView } from '@jubb/book';
import { v7 as uuid } from 'uuid';
import { LinkDown, Refusal, ServerFails, ask, nowIso } from './client.ts';
import { jobKey, mergeEntries, queryClient } from './queries.ts';
import { after } from '../kit/after.ts';
import { afterPaint } from './after-paint.ts';
import { store, type Draft, type Held } from './store.ts';

const RETRY_MS = [500, 1000, 2000, 5000];
const MOST_IN_BATCH = 50;
/** After so many failures at one entry alone it is set aside for a person, and the others go on. */
const MOST_FAILURES = 4;

/** What the outbox asks of the world: the network, the device's store, ids and the time. A test gives others. */
export interface OutboxNeeds {
  readonly store: typeof store;
  readonly send: (jobId: string, entries: NewEntries, personId: string) => Promise<readonly AnyKeptEntry[]>;
  /** What the server has kept. */
  readonly kept: (jobId: string, entries: readonly AnyKeptEntry[]) => void;
  readonly id: () => string;
  /** ISO. */
  readonly now: () => string;
  /** Once what was done so far is on the screen. */
  readonly soon: (work: () => void) => void;
  readonly after: typeof after;
  /** Photos and clips that wait, too. */
  readonly files: () => Promise<void>;
}

type NewEntries = AskedWith<typeof ENDPOINTS.jobs.post>['body']['entries'];

const WORLD: OutboxNeeds = {
  store,
  send: (id, entries, personId) => ask(ENDPOINTS.jobs.post, { id, body: { entries, personId } }),
  kept: mergeKept,
  id: uuid,
  now: nowIso,
  soon: afterPaint,
  after,
  files: async () => (await import('./files.ts')).files.begin(),
};

/**
 * Entries are on the tablet before they are anywhere else: kept in IndexedDB, shown at once, sent
 * in order, each once. A lost link only makes them wait.
 */
export class Outbox {
  readonly #needs: OutboxNeeds;
  #held: readonly Held[] = [];
  #personId: string | undefined;
  /** Whose entries may be sent: all who proved themselves at this tablet since the last log-in. */
  #makers: ReadonlySet<string> = new Set();
  /** Entries that this device had no room for: they are on the screen only. */
  #homeless: ReadonlySet<string> = new Set();
  #sending = false;
  #failures = 0;
  /** How often the server failed at an entry that was sent alone. */
  readonly #failedAt = new Map<string, number>();
  #cancel: (() => void) | undefined;
  readonly #listeners = new Set<() => void>();

  constructor(needs: Partial<OutboxNeeds> = {}) {
    this.#needs = { ...WORLD, ...needs };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly snapshot = (): readonly Held[] => this.#held;
  /** The last try to send did not get through. */
  readonly isStuck = (): boolean => this.#failures > 0;

  /** Whether an entry can be sent now: its maker proved themselves at this tablet. */
  isSendable({ personId }: Held): boolean {
    return this.#makers.has(personId);
  }

  /** How many entries are not safe on this device, since it is full. */
  readonly unsafe = (): number => this.#homeless.size;

  /** Begins for a person, with all who are known at this tablet: what an earlier page left behind is sent first. */
  async begin(personId: string, makers: readonly string[]): Promise<void> {
    this.#personId = personId;
    this.#makers = new Set([personId, ...makers]);
    const stored = await (await this.#needs.store()).getAll('held');
    const known = new Set(this.#held.map((held) => held.id));
    // Ids of version 7 sort by the time they were made.
    this.#set([...this.#held, ...stored.filter((held) => !known.has(held.id))].toSorted((a, b) => (a.id < b.id ? -1 : 1)));
    void this.#send();
    if ((await (await this.#needs.store()).count('files')) > 0) await this.#needs.files();
  }

  /** Keeps drafts for a job, by who is here or somebody beside them; resolves when they are safe on this device. */
  async add(jobId: string, drafts: readonly Draft[], personId = this.#personId): Promise<void> {
    if (personId === undefined) throw new Error('nobody is logged in');
    const held = drafts.map((draft): Held => ({ ...draft, id: this.#needs.id(), jobId, personId, takenAt: this.#needs.now() }));
    this.#set([...this.#held, ...held]);
    try {
      const transaction = (await this.#needs.store()).transaction('held', 'readwrite');
      const puts = held.map((one) => transaction.store.put(one));
      // Committed at once: a page that is left in this moment does not take it along.
      transaction.commit();
      await Promise.all([...puts, transaction.done]);
    } catch {
      // No room, or no storage at all: it is said, and they are sent from here as long as the page is open.
      this.#homeless = new Set([...this.#homeless, ...held.map(({ id }) => id)]);
      this.#tell();
    }
    this.#needs.soon(() => void this.#send());
  }

  /** Takes a refused entry out for good, or gives it another try. */
  async settle(id: string, what: 'drop' | 'retry'): Promise<void> {
    const one = this.#held.find((held) => held.id === id);
    if (!one) return;
    if (what === 'drop') {
      this.#set(this.#held.filter((held) => held.id !== id));
      await (await this.#needs.store()).delete('held', id);
      return;
    }
    // Under its own id for ever: it may be kept already, and another one would make two of it.
    const { refused: _refused, ...fresh } = one;
    await this.#replace(id, fresh);
    void this.#send();
  }

  readonly wake = (): void => {
    this.#failures = 0;
    void this.#send();
  };

  async #send(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    this.#cancel?.();
    try {
      for (let batch = this.#nextBatch(); batch.length > 0; batch = this.#nextBatch()) await this.#sendBatch(batch);
      this.#failures = 0;
      this.#tell();
    } catch (error) {
      // Whatever it was, a store that was closed or a slip of ours: what is held here is tried again.
      if (!(error instanceof LinkDown)) console.error('The outbox tries again after', error);
      const pause = RETRY_MS[Math.min(this.#failures, RETRY_MS.length - 1)] ?? 5000;
      this.#failures += 1;
      this.#tell();
      this.#cancel = this.#needs.after(() => void this.#send(), pause);
    } finally {
      this.#sending = false;
    }
  }

  /** The oldest entries that one known person made on one job and nobody refused. */
  #nextBatch(): readonly Held[] {
    const ready = this.#held.filter((held, at) => this.isSendable(held) && !held.refused && !this.#waitsForEyes(held, at));
    const [first] = ready;
    return ready.filter((held) => held.jobId === first?.jobId && held.personId === first.personId).slice(0, MOST_IN_BATCH);
  }

  /** Whether what was made before it, by somebody who looked at the work, is still to be proved: the server would not have it before. */
  #waitsForEyes({ jobId }: Held, at: number): boolean {
    return this.#held
      .slice(0, at)
      .some((other) => other.jobId === jobId && other.kind === 'hold-met' && !other.refused && !this.isSendable(other));
  }

  async #sendBatch(batch: readonly Held[]): Promise<void> {
    const [first] = batch;
    if (!first) return;
    try {
      const entries = batch.map(({ id, kind, version, payload, step, toolId, strikes, takenAt }) => ({
        id,
        kind,
        version,
        payload,
        step,
        toolId,
        strikes,
        takenAt,
      }));
      this.#needs.kept(first.jobId, await this.#needs.send(first.jobId, entries, first.personId));
      const ids = new Set(batch.map((held) => held.id));
      this.#set(this.#held.filter((held) => !ids.has(held.id)));
      this.#homeless = new Set([...this.#homeless].filter((id) => !ids.has(id)));
      const transaction = (await this.#needs.store()).transaction('held', 'readwrite');
      await Promise.all([...[...ids].map((id) => transaction.store.delete(id)), transaction.done]);
    } catch (error) {
      if (error instanceof ServerFails) return this.#failed(batch, error);
      if (!(error instanceof Refusal)) throw error;
      if (error.problem.status === 401 || error.problem.status === 429) throw new LinkDown(error.message);
      // All or none: the refused one is found by sending them singly.
      if (batch.length > 1) for (const held of batch) await this.#sendBatch([held]);
      else await this.#replace(first.id, { ...first, refused: error.problem });
    }
  }

  /** Sent singly, so that the one at which the server fails is found; that one is set aside after some tries. */
  async #failed(batch: readonly Held[], error: ServerFails): Promise<void> {
    const [first, ...others] = batch;
    if (!first) return;
    if (others.length > 0) {
      for (const held of batch) await this.#sendBatch([held]);
      return;
    }
    const failures = (this.#failedAt.get(first.id) ?? 0) + 1;
    this.#failedAt.set(first.id, failures);
    if (failures < MOST_FAILURES) throw error;
    this.#failedAt.delete(first.id);
    const title = `The server failed at this ${failures} times: ${error.message}`;
    await this.#replace(first.id, { ...first, refused: { type: 'about:blank', code: 'broken', title, status: 500 } });
  }

  async #replace(id: string, held: Held): Promise<void> {
    this.#set(this.#held.map((other) => (other.id === id ? held : other)));
    const transaction = (await this.#needs.store()).transaction('held', 'readwrite');
    if (held.id !== id) await transaction.store.delete(id);
    await Promise.all([transaction.store.put(held), transaction.done]);
  }

  #set(held: readonly Held[]): void {
    this.#held = held;
    this.#tell();
  }

  #tell(): void {
    for (const listener of this.#listeners) listener();
  }
}

export const outbox = new Outbox();

/** Puts entries that the server has kept into the job on the screen. */
function mergeKept(jobId: string, kept: readonly AnyKeptEntry[]): void {
  queryClient.setQueryData<JobView>(jobKey(jobId), (job) => job && { ...job, entries: mergeEntries(job.entries, kept) });
}
