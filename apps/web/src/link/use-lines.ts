import type { LiveLine } from '@jubb/wire';
import { useEffect, useRef, useState } from 'react';
import { useSession } from './queries.ts';
import { onLine } from './hearing.ts';

/** Passing lines are shown for so long after the last. */
const FRESH_MS = 3000;

/**
 * Hears the instruments that are paired with this tablet: what passes is given back while it is
 * fresh, what somebody sent on purpose is handed over, once. Several lines may pass between two
 * pictures: who needs each of them takes it by `onEach`.
 */
export function useLines(isHearing: boolean, onTaken: (line: LiveLine) => void, onEach?: (line: LiveLine) => void): LiveLine | undefined {
  const { data: session } = useSession();
  const tabletId = session?.tablet?.id;
  const [passing, setPassing] = useState<LiveLine>();
  const latest = useRef({ onTaken, onEach });
  useEffect(() => {
    latest.current = { onTaken, onEach };
  });
  useEffect(() => {
    if (tabletId === undefined || !isHearing) return;
    let fade: ReturnType<typeof setTimeout> | undefined;
    const stop = onLine((line) => {
      if (line.tabletId !== tabletId) return;
      setPassing(line);
      clearTimeout(fade);
      fade = setTimeout(() => setPassing(undefined), FRESH_MS);
      latest.current.onEach?.(line);
      if (line.taken) latest.current.onTaken(line);
    });
    return () => {
      stop();
      clearTimeout(fade);
    };
  }, [tabletId, isHearing]);
  return passing;
}
