import { ENDPOINTS } from '@jubb/wire';
import { LinkDown, Refusal, addressOf, ask, upload } from './client.ts';
import { setFilesWaiting } from './arrivals.ts';
import { store, type HeldFile } from './store.ts';

const PART = 256 * 1024;
const RETRY_MS = 4000;

/**
 * Photos and clips on their way: kept on this device until the server has all of them, sent in
 * parts so that a broken link goes on where it stopped. Entries do not wait for them.
 */
class FileBox {
  #held: readonly HeldFile[] = [];
  #sending = false;
  #timer: ReturnType<typeof setTimeout> | undefined;
  readonly #urls = new Map<string, string>();
  readonly #listeners = new Set<() => void>();

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
    const stored = await (await store()).getAll('files');
    const known = new Set(this.#held.map(({ sha }) => sha));
    this.#set([...this.#held, ...stored.filter(({ sha }) => !known.has(sha))]);
    void this.send();
  }

  /** Keeps a file; resolves when it is safe on this device, rejects when the device is full. */
  async add(sha: string, blob: Blob): Promise<void> {
    if (this.#held.some((file) => file.sha === sha)) return;
    await (await store()).put('files', { sha, blob });
    this.#set([...this.#held, { sha, blob }]);
    void this.send();
  }

  async send(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    clearTimeout(this.#timer);
    try {
      for (let next = this.#next(); next; next = this.#next()) await this.#sendOne(next);
    } catch (error) {
      if (!(error instanceof LinkDown)) console.error('Files are tried again after', error);
      this.#timer = setTimeout(() => void this.send(), RETRY_MS);
    } finally {
      this.#sending = false;
    }
  }

  #next(): HeldFile | undefined {
    return this.#held.find((file) => !file.refused);
  }

  async #sendOne({ sha, blob }: HeldFile): Promise<void> {
    try {
      let state = await ask(ENDPOINTS.files.state, { sha });
      while (!state.whole) {
        const at = { sha, at: state.have, total: blob.size };
        state = await upload(ENDPOINTS.files.keep, at, 'application/octet-stream', blob.slice(state.have, state.have + PART));
      }
      await (await store()).delete('files', sha);
      this.#set(this.#held.filter((file) => file.sha !== sha));
      this.#forgetUrl(sha);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      // Another tablet sends the same one, or nobody is logged in: asked again after a while.
      if ([401, 409, 429].includes(error.problem.status)) throw new LinkDown(error.message);
      const refused = { sha, blob, refused: error.problem };
      await (await store()).put('files', refused);
      this.#set(this.#held.map((file) => (file.sha === sha ? refused : file)));
    }
  }

  #forgetUrl(sha: string): void {
    URL.revokeObjectURL(this.#urls.get(sha) ?? '');
    this.#urls.delete(sha);
  }

  #set(held: readonly HeldFile[]): void {
    this.#held = held;
    setFilesWaiting(held.filter((file) => !file.refused).length);
    for (const listener of this.#listeners) listener();
  }
}

export const files = new FileBox();
