/** What the first screen has to know of photos and clips; the rest comes with the first of them. */

let waiting = 0;
const listeners = new Set<() => void>();
const arrivals = new Set<(sha: string) => void>();

export const filesWaiting = (): number => waiting;

export function setFilesWaiting(count: number): void {
  waiting = count;
  for (const listener of listeners) listener();
}

export function subscribeFiles(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Hears of files that the server has got whole. */
export function onArrival(listener: (sha: string) => void): () => void {
  arrivals.add(listener);
  return () => arrivals.delete(listener);
}

export function arrived(sha: string): void {
  for (const listener of arrivals) listener(sha);
}
