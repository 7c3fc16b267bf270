import type { SheetFile } from '@jubb/sheet';
import { mergeSheets, type Clash } from '@jubb/sheet/editing';
import { ENDPOINTS, type SheetView } from '@jubb/wire';
import { LinkDown, ask, meanwhile } from '../link/client.ts';
import { queryClient } from '../link/queries.ts';
import { after } from '../kit/after.ts';
import { readStored, writeStored } from '../kit/prefs.ts';

const PAUSE_MS = 900;
const RETRY_MS = 5000;
const MOST_UNDO = 100;

export type Keeping = 'kept' | 'keeping' | 'held' | 'refused' | 'clash';

/** What of a sheet's view a draft begins with. */
export type DraftStart = Pick<SheetView, 'revisionId' | 'version' | 'file'>;

interface Local {
  readonly file: SheetFile;
  /** What the server had when these changes began, and its version. */
  readonly base: SheetFile;
  readonly version: number;
}

/** A draft as it stands. */
export interface DraftState extends Local {
  readonly keeping: Keeping;
  readonly refusal: unknown;
  /** Lines that somebody else changed at the same time, in another way. */
  readonly clashes: readonly Clash[];
  /** Whose changes were brought together with these, until it is read. */
  readonly joined: string | undefined;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

/** What a draft asks of the world: the network, this device, the time. A test gives others. */
export interface DraftNeeds {
  /** Keeps it at the server as the version after `version`. */
  readonly save: (id: string, version: number, file: SheetFile) => Promise<{ readonly version: number }>;
  readonly saved: () => void;
  readonly read: (name: string) => string | undefined;
  readonly write: (name: string, text: string | undefined) => void;
  readonly after: typeof after;
}

const WORLD: DraftNeeds = {
  save: (id, version, file) => ask(ENDPOINTS.sheets.save, { id, body: { version, file } }),
  saved: () => void queryClient.invalidateQueries({ queryKey: ['sheets'] }),
  read: readStored,
  write: writeStored,
  after,
};

/**
 * A draft as it is worked on here: each change is on this device at once and at the server a moment
 * later. When somebody else was first, the two are brought together line by line; a line that both
 * changed waits for a word.
 */
export class DraftWork {
  readonly #id: string;
  readonly #needs: DraftNeeds;
  #local: Local;
  #past: readonly SheetFile[] = [];
  #future: readonly SheetFile[] = [];
  #trouble: 'held' | 'refused' | undefined;
  #refusal: unknown;
  #clashes: readonly Clash[] = [];
  #theirs: SheetFile | undefined;
  #joined: string | undefined;
  #cancel: (() => void) | undefined;
  #isSaving = false;
  #state: DraftState;
  readonly #listeners = new Set<() => void>();

  constructor({ revisionId, file, version }: DraftStart, needs: DraftNeeds = WORLD) {
    this.#id = revisionId;
    this.#needs = needs;
    const held = needs.read(this.#name);
    this.#local = held === undefined ? { file, base: file, version } : (JSON.parse(held) as Local);
    this.#state = this.#stateNow();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    // What was held on this device from before is kept as soon as somebody looks at it.
    this.#saveAfter(PAUSE_MS);
    return () => {
      this.#listeners.delete(listener);
      if (this.#listeners.size === 0) this.#cancel?.();
    };
  };

  readonly snapshot = (): DraftState => this.#state;

  /** What the server has: it comes in by itself while nothing here waits to be kept. */
  heard({ version, file }: DraftStart): void {
    if (version > this.#local.version && !this.#isDirty) this.#put({ file, base: file, version });
  }

  /** A change that was made of `seen`: what came in since is not lost by it. */
  change(seen: SheetFile, next: SheetFile): void {
    const now = this.#local.file;
    this.#past = [...this.#past, now].slice(-MOST_UNDO);
    this.#future = [];
    this.#joined = undefined;
    this.#set(now === seen ? next : mergeSheets(seen, next, now).file);
  }

  undo(): void {
    const before = this.#past.at(-1);
    if (!before) return;
    this.#future = [this.#local.file, ...this.#future];
    this.#past = this.#past.slice(0, -1);
    this.#set(before);
  }

  redo(): void {
    const [next, ...rest] = this.#future;
    if (!next) return;
    this.#past = [...this.#past, this.#local.file];
    this.#future = rest;
    this.#set(next);
  }

  /** Says whose of two lines it is to be. */
  settle(clash: Clash, whose: 'mine' | 'theirs'): void {
    this.#clashes = this.#clashes.filter((one) => one !== clash);
    this.#set(whose === 'theirs' && this.#theirs ? takeLine(this.#local.file, this.#theirs, clash) : this.#local.file);
  }

  get #name(): string {
    return `draft.sheet.${this.#id}`;
  }

  get #isDirty(): boolean {
    return this.#local.file !== this.#local.base;
  }

  #set(file: SheetFile): void {
    this.#put({ ...this.#local, file });
    this.#saveAfter(PAUSE_MS);
  }

  #put(next: Local): void {
    this.#local = next;
    this.#needs.write(this.#name, this.#isDirty ? JSON.stringify(next) : undefined);
    this.#tell();
  }

  #saveAfter(ms: number): void {
    this.#cancel?.();
    if (this.#isDirty && this.#clashes.length === 0) this.#cancel = this.#needs.after(() => void this.#save(), ms);
  }

  async #save(): Promise<void> {
    // What is changed while a save is under way is saved after it.
    if (this.#isSaving) return;
    this.#isSaving = true;
    const sent = this.#local;
    let again = PAUSE_MS;
    try {
      const { version } = await this.#needs.save(this.#id, sent.version, sent.file);
      this.#refusal = undefined;
      this.#trouble = undefined;
      this.#put({ file: this.#local.file, base: sent.file, version });
      this.#needs.saved();
    } catch (error) {
      again = this.#failed(sent, error);
    }
    this.#isSaving = false;
    if (Number.isFinite(again)) this.#saveAfter(again);
  }

  /** What to make of it, and after how long it is tried again, ms. */
  #failed(sent: Local, error: unknown): number {
    if (error instanceof LinkDown) {
      this.#trouble = 'held';
      this.#tell();
      return RETRY_MS;
    }
    const current = meanwhile<SheetView>(error);
    if (!current) {
      this.#trouble = 'refused';
      this.#refusal = error;
      this.#tell();
      // The same again is refused again; what is changed is tried.
      return this.#local.file === sent.file ? Number.POSITIVE_INFINITY : PAUSE_MS;
    }
    const merged = mergeSheets(sent.base, this.#local.file, current.file);
    this.#theirs = current.file;
    this.#clashes = merged.clashes;
    this.#joined = current.editedBy ?? 'somebody';
    this.#put({ file: merged.file, base: current.file, version: current.version });
    return PAUSE_MS;
  }

  #stateNow(): DraftState {
    return {
      ...this.#local,
      keeping: this.#clashes.length > 0 ? 'clash' : this.#isDirty ? (this.#trouble ?? 'keeping') : 'kept',
      refusal: this.#refusal,
      clashes: this.#clashes,
      joined: this.#joined,
      canUndo: this.#past.length > 0,
      canRedo: this.#future.length > 0,
    };
  }

  #tell(): void {
    this.#state = this.#stateNow();
    for (const listener of this.#listeners) listener();
  }
}

/** Their version of one line, or of one field of the sheet itself. */
function takeLine(mine: SheetFile, theirs: SheetFile, { list, ref, name }: Clash): SheetFile {
  if (list === 'sheet') return { ...mine, [name]: (theirs as unknown as Record<string, unknown>)[name] } as SheetFile;
  const their = ((theirs[list] ?? []) as readonly { readonly ref: string }[]).find((line) => line.ref === ref);
  const lines = (mine[list] ?? []) as readonly { readonly ref: string }[];
  const next = their ? lines.map((line) => (line.ref === ref ? their : line)) : lines.filter((line) => line.ref !== ref);
  return { ...mine, [list]: next } as unknown as SheetFile;
}
