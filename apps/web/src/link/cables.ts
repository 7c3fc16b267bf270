import { readStored } from '../kit/prefs.ts';

/** What this tablet remembers of the cables of instruments. */
export const CABLES = 'cables';

let isResumed = false;

/** Listens again to the instruments that hang on this tablet by a cable; a tablet without any reads nothing for it. */
export function resumeCables(): void {
  if (isResumed || readStored(CABLES) === undefined) return;
  isResumed = true;
  void import('./serial.ts').then(({ resume }) => resume());
}
