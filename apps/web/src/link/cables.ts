import { readStored } from '../kit/prefs.ts';
import { CABLES } from './cables-kept.ts';

let isResumed = false;

/** Listens again to the instruments that hang on this tablet by a cable; a tablet without any reads nothing for it. */
export function resumeCables(): void {
  if (isResumed || readStored(CABLES) === undefined) return;
  isResumed = true;
  void import('./serial.ts').then(({ resume }) => resume());
}
