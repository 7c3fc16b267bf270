import type { TodayClock } from '@jubb/book';
import { useEffect, useState } from 'react';
import { useToday } from '../link/queries.ts';
import { useHeld } from '../link/live.ts';

/** The time of day, again with every tick. */
export function useNow(everyMs: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(tick);
  }, [everyMs]);
  return now;
}

/** Every clock that runs in the shop, those begun or stopped here without a link too. */
export function useClocks(): readonly TodayClock[] {
  const { data: today } = useToday();
  const held = useHeld();
  const over = new Set(held.flatMap(({ kind, payload }) => (kind === 'wait-over' ? [(payload as { wait: string }).wait] : [])));
  const begun = held.flatMap(({ id, jobId, kind, payload, takenAt }): readonly TodayClock[] => {
    if (kind !== 'wait') return [];
    const { what, seconds, hot } = payload as { what: string; seconds: number; hot?: true };
    const number = [...(today?.now ?? []), ...(today?.waiting ?? [])].find((line) => line.jobId === jobId)?.number ?? 0;
    return [
      {
        jobId,
        number,
        entryId: id,
        what,
        until: new Date(Date.parse(takenAt) + seconds * 1000).toISOString(),
        then: null,
        ...(hot ? { hot } : {}),
      },
    ];
  });
  const known = new Set(begun.map(({ entryId }) => entryId));
  return [...begun, ...(today?.clocks ?? []).filter(({ entryId }) => !known.has(entryId))].filter(({ entryId }) => !over.has(entryId));
}

/** "1:05:09", "4:07". */
export function leftWords(leftMs: number): string {
  const seconds = Math.max(0, Math.ceil(leftMs / 1000));
  const two = (figure: number): string => String(figure).padStart(2, '0');
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
}
