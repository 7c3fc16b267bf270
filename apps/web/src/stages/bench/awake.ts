import { useEffect } from 'react';

/** Keeps the screen on while bench view is open; a browser that cannot, or may not just now, lets it go dark. */
export function useAwake(): void {
  useEffect(() => {
    if (!('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let isGone = false;
    const hold = async (): Promise<void> => {
      if (document.visibilityState !== 'visible') return;
      lock = await navigator.wakeLock.request('screen').catch(() => undefined);
      if (isGone) void lock?.release();
    };
    const seen = (): void => void hold();
    seen();
    // A page that was out of sight has lost its lock.
    document.addEventListener('visibilitychange', seen);
    return () => {
      isGone = true;
      document.removeEventListener('visibilitychange', seen);
      void lock?.release();
    };
  }, []);
}
