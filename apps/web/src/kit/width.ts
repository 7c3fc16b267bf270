import { useSyncExternalStore } from 'react';

function subscribe(listener: () => void): () => void {
  window.addEventListener('resize', listener);
  return () => window.removeEventListener('resize', listener);
}

/** How wide the window is, CSS px. */
export function useWidth(): number {
  return useSyncExternalStore(subscribe, () => window.innerWidth);
}
