/** The last act that can be taken back for a while, instead of being asked about beforehand. Entries are struck, never undone. */
export interface Undoable {
  /** What was done: "ADB-101 is off the order". */
  readonly words: string;
  readonly undo: () => Promise<unknown>;
}

let last: Undoable | undefined;
const listeners = new Set<() => void>();

function put(next: Undoable | undefined): void {
  last = next;
  for (const listener of listeners) listener();
}

/** Only the last one: what was done before it stands. */
export function offerUndo(words: string, undo: () => Promise<unknown>): void {
  put({ words, undo });
}

export function letStand(): void {
  put(undefined);
}

export const lastUndoable = (): Undoable | undefined => last;

export function onUndoable(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
