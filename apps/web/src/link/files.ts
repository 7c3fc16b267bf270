import { ENDPOINTS, type FileState } from '@jubb/wire';
import { LinkDown, Refusal, addressOf, ask, upload } from './client.ts';
import { setFilesWaiting } from './arrivals.ts';
import { after } from '../kit/after.ts';
import { store, type HeldFile } from './store.ts';

const PART = 256 * 1024;
const RETRY_MS = 4000;

/** What the box asks of the world: the network, the device's store, the time. A test gives others. */
export interface FileNeeds {
  readonly store: typeof store;
  /** What the server has of a file. */
  readonly state: (sha: string) => Promise<FileState>;
  /** Sends the part that begins at `at`, of `total` bytes in all; answers what the server has by then. */
  readonly keep: (sha: string, at: number, total: number, part: Blob) => Promise<FileState>;
  /** How many wait. */
  readonly waiting: (count: number) => void;
  readonly after: typeof after;
}

const WORLD: FileNeeds = {
  store,
  state: (sha) => ask(ENDPOINTS.files.state, { sha }),
  keep: (sha, at, total, part) => upload(ENDPOINTS.files.keep, { sha, at, total }, 'application/octet-stream', part),
  waiting: setFilesWaiting,
  after,
};

/**
 * Photos and clips on their way: kept on this device until the server has all of them, sent in
 * parts so that a broken link goes on where it stopped. Entries do not wait for them.
 */
export class FileBox {
  readonly #needs: FileNeeds;
  #held: readonly HeldFile[] = [];
  #sending = false;
  #cancel: (() => void) | undefined;
  readonly #urls = new Map<string, string>();
  readonly #listeners = new Set<() => void>();

  constructor(needs: FileNeeds = WORLD) {
    this.#needs = needs;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly snapshot = (): readonly HeldFile[] => this.#held;

  /** Address of a file: on this device while it is held here. */
  url(sha: string): string {
    const held = this.#held.find((file) => file.sha === sha);
    if (!held) return addressOf(ENDPOINTS.files.read, { sha });
    const known = this.#urls.get(sha) ?? URL.createObjectURL(held.blob);
    this.#urls.set(sha, known);
    return known;
  }

  async begin(): Promise<void> {
    const stored = await (await this.#needs.store()).getAll('files');
    const known = new Set(this.#held.map(({ sha }) => sha));
    this.#set([...this.#held, ...stored.filter(({ sha }) => !known.has(sha))]);
    void this.send();
  }

  /** Keeps a file; resolves when it is safe on this device, rejects when the device is full. */
  async add(sha: string, blob: Blob): Promise<void> {
    if (this.#held.some((file) => file.sha === sha)) return;
    await (await this.#needs.store()).put('files', { sha, blob });
    this.#set([...this.#held, { sha, blob }]);
    void this.send();
  }

  async send(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    this.#cancel?.();
    try {
      for (let next = this.#next(); next; next = this.#next()) await this.#sendOne(next);
    } catch (error) {
      if (!(error instanceof LinkDown)) console.error('Files are tried again after', error);
      this.#cancel = this.#needs.after(() => void this.send(), RETRY_MS);
    } finally {
      this.#sending = false;
    }
  }

  #next(): HeldFile | undefined {
    return this.#held.find((file) => !file.refused);
  }

  async #sendOne({ sha, blob }: HeldFile): Promise<void> {
    try {
      let state = await this.#needs.state(sha);
      while (!state.whole) state = await this.#needs.keep(sha, state.have, blob.size, blob.slice(state.have, state.have + PART));
      await (await this.#needs.store()).delete('files', sha);
      this.#set(this.#held.filter((file) => file.sha !== sha));
      this.#forgetUrl(sha);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      // Another tablet sends the same one, or nobody is logged in: asked again after a while.
      if ([401, 409, 429].includes(error.problem.status)) throw new LinkDown(error.message);
      const refused = { sha, blob, refused: error.problem };
      await (await this.#needs.store()).put('files', refused);
      this.#set(this.#held.map((file) => (file.sha === sha ? refused : file)));
    }
  }

  #forgetUrl(sha: string): void {
    URL.revokeObjectURL(this.#urls.get(sha) ?? '');
    this.#urls.delete(sha);
  }

  #set(held: readonly HeldFile[]): void {
    this.#held = held;
    this.#needs.waiting(held.filter((file) => !file.refused).length);
    for (const listener of this.#listeners) listener();
  }
}

export const files = new FileBox();
