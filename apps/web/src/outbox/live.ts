import { useEffect, useSyncExternalStore } from 'react';
import { jobKey, refresh } from '../api/queries.ts';
import { outbox, type Held } from './outbox.ts';
import { openStream } from './stream.ts';

let isLive = false;
const listeners = new Set<() => void>();

function setLive(live: boolean): void {
  if (live === isLive) return;
  isLive = live;
  for (const listener of listeners) listener();
}

/** Other people's changes, as they happen; on a new link everything is asked for again. */
export function useServerEvents(): void {
  useEffect(() => {
    const close = openStream({
      onEvent: (event) => {
        // A job is told of a newer revision of its sheet, too.
        if (event.type === 'sheet') {
          void refresh({ queryKey: ['sheets'] });
          void refresh({ queryKey: ['job'] });
        }
        if (event.jobId) void refresh({ queryKey: jobKey(event.jobId) });
        void refresh({ queryKey: ['today'] });
        if (event.type === 'job') void refresh({ queryKey: ['jobs'] });
      },
      onLive: (live) => {
        if (live && !isLive) void refresh({ predicate: (query) => query.queryKey[0] !== 'session' });
        setLive(live);
        if (live) outbox.wake();
      },
      onRefused: () => void refresh({ queryKey: ['session'] }),
    });
    window.addEventListener('online', outbox.wake);
    return () => {
      close();
      window.removeEventListener('online', outbox.wake);
    };
  }, []);
}

export function useHeld(): readonly Held[] {
  return useSyncExternalStore(outbox.subscribe, outbox.snapshot);
}

/** "live", or what is held and why. */
export function useLinkWords(): string {
  const live = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => isLive,
  );
  const held = useHeld();
  const stuck = useSyncExternalStore(outbox.subscribe, outbox.isStuck);
  const refused = held.filter((entry) => entry.refused).length;
  const waiting = held.length - refused;
  const words = waiting === 0 ? (live ? 'live' : 'no link') : `${waiting} held, ${live && !stuck ? 'sending' : 'no link'}`;
  return refused > 0 ? `${words}, ${refused} refused` : words;
}
