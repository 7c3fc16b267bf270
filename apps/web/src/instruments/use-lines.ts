import type { LiveLine } from '@jubb/contract/job';
import { useEffect, useRef, useState } from 'react';
import { useSession } from '../api/queries.ts';
import { onLine } from './hearing.ts';

/** Passing lines are shown for so long after the last. */
const FRESH_MS = 3000;

/**
 * Hears the instruments that are paired with this tablet: what passes is given back while it is
 * fresh, what somebody sent on purpose is handed over, once.
 */
export function useLines(isHearing: boolean, onTaken: (line: LiveLine) => void): LiveLine | undefined {
  const { data: session } = useSession();
  const tabletId = session?.tablet?.id;
  const [passing, setPassing] = useState<LiveLine>();
  const latest = useRef(onTaken);
  useEffect(() => {
    latest.current = onTaken;
  });
  useEffect(() => {
    if (tabletId === undefined || !isHearing) return;
    let fade: ReturnType<typeof setTimeout> | undefined;
    const stop = onLine((line) => {
      if (line.tabletId !== tabletId) return;
      setPassing(line);
      clearTimeout(fade);
      fade = setTimeout(() => setPassing(undefined), FRESH_MS);
      if (line.taken) latest.current(line);
    });
    return () => {
      stop();
      clearTimeout(fade);
    };
  }, [tabletId, isHearing]);
  return passing;
}
