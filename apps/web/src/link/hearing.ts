import type { LiveLine } from '@jubb/wire';

type Listener = (line: LiveLine) => void;
const listeners = new Set<Listener>();

/** Lines of instruments as the stream brings them. */
export function hear(lines: readonly LiveLine[]): void {
  for (const line of lines) for (const listener of listeners) listener(line);
}

export function onLine(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
