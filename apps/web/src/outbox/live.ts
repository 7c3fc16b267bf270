import type { ServerEvent } from '@jubb/contract/job';
import { useEffect, useSyncExternalStore } from 'react';
import { queryClient } from '../api/queries.ts';
import { outbox, type Held } from './outbox.ts';

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
    const source = new EventSource('/api/v1/stream');
    source.onopen = () => {
      if (!isLive) void queryClient.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
      setLive(true);
      outbox.wake();
    };
    source.onerror = () => setLive(false);
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const event = JSON.parse(data) as ServerEvent;
      if (event.type === 'sheet') void queryClient.invalidateQueries({ queryKey: ['sheets'] });
      if (event.jobId) void queryClient.invalidateQueries({ queryKey: ['job', event.jobId] });
      void queryClient.invalidateQueries({ queryKey: ['today'] });
      if (event.type === 'job') void queryClient.invalidateQueries({ queryKey: ['jobs'] });
    };
    const online = (): void => outbox.wake();
    window.addEventListener('online', online);
    return () => {
      source.close();
      window.removeEventListener('online', online);
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
  const refused = held.filter((entry) => entry.refused).length;
  const waiting = held.length - refused;
  const words = waiting === 0 ? (live ? 'live' : 'no link') : `${waiting} held, ${live ? 'sending' : 'no link'}`;
  return refused > 0 ? `${words}, ${refused} refused` : words;
}
