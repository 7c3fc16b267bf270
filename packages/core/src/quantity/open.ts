import { parseQuantity } from './parse.js';
import type { Quantity } from './units.js';

/** What a meter shows when nothing passes. */
const OPEN = /^(?:ol|0l|o\.l\.?|open|inf(?:inite|inity)?|∞|-{2,})(?:\s*(?:m|k|meg)?\s*(?:Ω|Ω|ohms?|v|mv))?$/iu;

/** A reading of a meter that may show 'OL': infinity then, NaN for what is no figure. */
export function readOpen(text: string, quantity: Quantity): number {
  const typed = text.trim();
  if (OPEN.test(typed)) return Number.POSITIVE_INFINITY;
  const parsed = parseQuantity(typed, quantity, quantity);
  return parsed.ok ? parsed.quantity.base : Number.NaN;
}
