import { parseQuantity } from './parse.js';
import { plain, unitsOf, type Quantity } from './units.js';

/** What a meter shows when nothing passes. */
const OPEN = /^(?:ol|0l|o\.l\.?|open|inf(?:inite|inity)?|∞|-{2,})(?:\s*(?:m|k|meg)?\s*(?:Ω|Ω|ohms?|v|mv))?$/iu;

/** A reading of a meter that may show 'OL': infinity then, NaN for what is no figure. */
export function readOpen(text: string, quantity: Quantity): number {
  const typed = text.trim();
  if (OPEN.test(typed)) return Number.POSITIVE_INFINITY;
  const parsed = parseQuantity(typed, quantity, quantity);
  return parsed.ok ? parsed.quantity.base : Number.NaN;
}

/** What a meter's open circuit is written as, letter by letter. */
const OPEN_WORDS = ['ol', 'o.l.', 'open', 'infinite', 'infinity'];
/** A figure, or the beginning of one. */
const FIGURE = /^[+\-−–]?\s*(?:\d[\d.,/\s]*(?:(?<=\d)e[+-]?\d*)?|[.,]\d*|\d*)\s*$/iu;

/**
 * Whether a text may be the beginning of a figure of a quantity, with its unit or the word for an open circuit behind it:
 * "0.3", "0.3 t" of a length, "O" of a resistance. A letter that makes it false can be meant for something else.
 */
export function mayBegin(text: string, quantity: Quantity): boolean {
  const typed = text.trim();
  if (FIGURE.test(typed)) return true;
  if (
    (isMeters(quantity) && OPEN_WORDS.some((word) => word.startsWith(typed.toLowerCase()))) ||
    readOpen(typed, quantity) === Number.POSITIVE_INFINITY
  )
    return true;
  const names = unitsOf(quantity).flatMap(({ symbol, aliases = [] }) => [symbol, ...aliases].map((name) => plain(name).toLowerCase()));
  // A unit may begin with a figure of its own, "1/min": wherever the number may end, the rest is asked.
  return Array.from(typed, (_, end) => end).some((end) => {
    const [figure, rest] = [typed.slice(0, end), plain(typed.slice(end)).toLowerCase()];
    return /\d/u.test(figure) && FIGURE.test(figure) && rest !== '' && names.some((name) => name.startsWith(rest));
  });
}

/** Quantities that a meter may show as open. */
function isMeters(quantity: Quantity): boolean {
  return quantity === 'resistance' || quantity === 'voltage' || quantity === 'current';
}
