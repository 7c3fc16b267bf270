import { useEffect, useSyncExternalStore } from 'react';
import { entriesTold, jobKey, refresh, todayTold } from './queries.ts';
import { CLOCK_SLACK_MS, aheadMs } from './client.ts';
import { arrived, filesWaiting, subscribeFiles } from './arrivals.ts';
import { outbox } from './outbox.ts';
import type { Held } from './store.ts';
import { hear } from './hearing.ts';
import { openStream } from './stream.ts';

let isLive = false;
const listeners = new Set<() => void>();

function setLive(live: boolean): void {
  if (live === isLive) return;
  isLive = live;
  for (const listener of listeners) listener();
}

/** The answer to a tablet's own entries comes about as soon as the event that tells of them. */
const ANSWER_MS = 250;

/** Other people's changes, as they happen; on a new link everything is asked for again. */
export function useServerEvents(): void {
  useEffect(() => {
    const close = openStream({
      onEvent: (event) => {
        // A job is told of a newer revision of its sheet, too.
        if (event.type === 'sheet') {
          void refresh({ queryKey: ['sheets'] });
          void refresh({ queryKey: ['job'] });
          void refresh({ queryKey: ['today'] });
        }
        if (event.type === 'lines') return hear(event.lines);
        if (event.type === 'instruments') return void refresh({ queryKey: ['instruments'] });
        if (event.type === 'notices') return void refresh({ queryKey: ['today'] });
        if (event.type === 'stores') return void refresh({ queryKey: ['stores'] });
        if (event.type === 'file') return arrived(event.file);
        if (event.type === 'today') return todayTold(event);
        if (event.type === 'entries') setTimeout(() => void entriesTold(event.jobId, event.seq), ANSWER_MS);
        if (event.type === 'job') {
          void refresh({ queryKey: jobKey(event.jobId) });
          void refresh({ queryKey: ['jobs'] });
        }
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
  const orphans = held.filter((entry) => !entry.refused && !outbox.isSendable(entry)).length;
  const waiting = held.length - refused - orphans;
  const unsafe = useSyncExternalStore(outbox.subscribe, outbox.unsafe);
  const pictures = useSyncExternalStore(subscribeFiles, filesWaiting);
  const ahead = aheadMs();
  const warnings = [
    orphans > 0 ? `${orphans} held until their maker logs in` : '',
    unsafe > 0 ? `this tablet is full: ${unsafe} on the screen only, keep the page open` : '',
    Math.abs(ahead) > CLOCK_SLACK_MS ? `this tablet’s clock is ${offWords(ahead)}` : '',
    pictures > 0 ? `${pictures} ${pictures === 1 ? 'file' : 'files'} to send` : '',
  ].filter(Boolean);
  const words = waiting === 0 ? (live ? 'live' : 'no link') : `${waiting} held, ${live && !stuck ? 'sending' : 'no link'}`;
  return [words, ...(refused > 0 ? [`${refused} refused`] : []), ...warnings].join(', ');
}

/** "25 h fast": how far a clock is off, as one would set it. */
export function offWords(aheadMs: number): string {
  const minutes = Math.round(Math.abs(aheadMs) / 60_000);
  return `${minutes < 120 ? `${minutes} min` : `${Math.round(minutes / 60)} h`} ${aheadMs > 0 ? 'fast' : 'slow'}`;
}
