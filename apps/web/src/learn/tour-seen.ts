import { readStored, writeStored } from '../kit/prefs.ts';

const KEY = 'tour';

/** Whether somebody took the tour on this device, or did not want it. */
export function isTourOver(): boolean {
  return readStored(KEY) !== undefined;
}

export function endTour(): void {
  writeStored(KEY, 'over');
}
