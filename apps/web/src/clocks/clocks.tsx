import { Suspense, lazy, type ReactElement } from 'react';
import { useClocks } from './use-clocks.ts';

// Most pages have none running.
const Ringing = lazy(async () => ({ default: (await import('./ringing.tsx')).Ringing }));

/** Clocks of all jobs, on whatever page one is. */
export function Clocks(): ReactElement | null {
  const clocks = useClocks();
  if (clocks.length === 0) return null;
  return (
    <Suspense>
      <Ringing clocks={clocks} />
    </Suspense>
  );
}
