import type { TodayTold } from '@jubb/book';
import type { LiveLine, PageEvent } from '@jubb/wire';
import type { QueryFilters } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { entriesTold, jobKey, refresh, todayTold } from './queries.ts';
import { CLOCK_SLACK_MS, aheadMs } from './client.ts';
import { arrived, filesWaiting, subscribeFiles } from './arrivals.ts';
import { outbox } from './outbox.ts';
import type { Held } from './store.ts';
import { hear } from './hearing.ts';
import { openStream } from './stream.ts';
import { resumeCables } from './cables.ts';

let isLive = false;
/** Nobody listened for a moment, as between the bench and the other pages: what was told then is not known here. */
let hasMissed = false;
const listeners = new Set<() => void>();

function setLive(live: boolean): void {
  if (live === isLive) return;
  isLive = live;
  for (const listener of listeners) listener();
}

/** The answer to a tablet's own entries comes about as soon as the event that tells of them. */
const ANSWER_MS = 250;

/** What the page does with what it is told. */
export interface Told {
  readonly refresh: (which: QueryFilters) => void;
  readonly lines: (lines: readonly LiveLine[]) => void;
  readonly file: (sha: string) => void;
  readonly today: (told: TodayTold) => void;
  readonly entries: (jobId: string, seq: number) => void;
}

const PAGE: Told = {
  refresh: (which) => void refresh(which),
  lines: hear,
  file: arrived,
  today: todayTold,
  entries: (jobId, seq) => void setTimeout(() => void entriesTold(jobId, seq), ANSWER_MS),
};

/** Takes in what somebody else changed: put into what the page has where the event brings it, asked for again where not. */
export function takeIn(event: PageEvent, page: Told = PAGE): void {
  switch (event.type) {
    case 'lines':
      return page.lines(event.lines);
    case 'file':
      return page.file(event.file);
    case 'today':
      return page.today(event);
    case 'entries':
      return page.entries(event.jobId, event.seq);
    case 'benches':
    case 'instruments':
    case 'stores':
      return page.refresh({ queryKey: [event.type] });
    case 'notices':
      return page.refresh({ queryKey: ['today'] });
    case 'sheet':
      // A job is told of a newer revision of its sheet, too.
      for (const key of ['sheets', 'job', 'today']) page.refresh({ queryKey: [key] });
      return;
    case 'job':
      page.refresh({ queryKey: jobKey(event.jobId) });
      page.refresh({ queryKey: ['jobs'] });
      return;
  }
}

/** Other people's changes, as they happen; on a new link everything is asked for again. */
export function useServerEvents(): void {
  useEffect(() => {
    resumeCables();
    const close = openStream({
      onEvent: (event) => takeIn(event),
      onLive: (live) => {
        if (live && (!isLive || hasMissed)) void refresh({ predicate: (query) => query.queryKey[0] !== 'session' });
        hasMissed &&= !live;
        setLive(live);
        if (live) outbox.wake();
      },
      onRefused: () => void refresh({ queryKey: ['session'] }),
    });
    window.addEventListener('online', outbox.wake);
    return () => {
      close();
      hasMissed = true;
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
  const unsafe = useSyncExternalStore(outbox.subscribe, outbox.unsafe);
  const pictures = useSyncExternalStore(subscribeFiles, filesWaiting);
  const refused = held.filter((entry) => entry.refused).length;
  const orphans = held.filter((entry) => !entry.refused && !outbox.isSendable(entry)).length;
  return linkWords({ live, stuck, held: held.length, refused, orphans, unsafe, pictures, aheadMs: aheadMs() });
}

interface LinkState {
  readonly live: boolean;
  /** The last try to send did not get through. */
  readonly stuck: boolean;
  /** Entries that are not at the server; of them those it refused, and those whose maker is not known here. */
  readonly held: number;
  readonly refused: number;
  readonly orphans: number;
  /** Entries that are on the screen only. */
  readonly unsafe: number;
  readonly pictures: number;
  /** How far this device's clock is before the server's. */
  readonly aheadMs: number;
}

/** "live", or what is held and why. */
export function linkWords({ live, stuck, held, refused, orphans, unsafe, pictures, aheadMs: ahead }: LinkState): string {
  const waiting = held - refused - orphans;
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
