import { useCallback, useState } from 'react';

/** One request at a time from a form or a key, and what became of it. */
export function useSend(): {
  readonly busy: boolean;
  readonly error: unknown;
  readonly send: (work: () => Promise<unknown>) => Promise<boolean>;
} {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>();
  const send = useCallback(async (work: () => Promise<unknown>): Promise<boolean> => {
    setBusy(true);
    setError(undefined);
    try {
      await work();
      return true;
    } catch (problem) {
      setError(problem);
      return false;
    } finally {
      setBusy(false);
    }
  }, []);
  return { busy, error, send };
}
