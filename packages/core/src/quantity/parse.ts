import { baseUnit, findUnits, toBase, unitsOf, type Quantity, type Unit } from './units.js';
import type { Issue } from '../working/issues.js';

export interface ParsedQuantity {
  /** In the base unit of the quantity. */
  readonly base: number;
  /** As typed, in `unit`. */
  readonly typed: number;
  readonly unit: Unit;
  /** False where no unit was typed and `unit` is the one that was meant. */
  readonly unitTyped: boolean;
}

export type Parsed = { readonly ok: true; readonly quantity: ParsedQuantity } | { readonly ok: false; readonly issue: Issue };

const THREAD =
  /^\s*(?:M\s*\d+(?:[.,]\d+)?\s*[x×]\s*\d|M\s*\d+\b|(?:#?\d+|\d+\/\d+|\d+\s+\d+\/\d+)\s*-\s*\d+\s*(?:UNR?C|UNR?F|UN|UNEF|BSF|BSW|NPT)?\b)/iu;
const NUMBER = /^([+\-−–]?)\s*(?:(\d+)\s+(\d+)\/(\d+)|(\d+)\/(\d+)|(\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE]([+-]?\d+))?)\s*/u;

/** The longest text that is read as a quantity; anything longer is not a figure. */
const LONGEST = 40;

/**
 * Reads a figure with or without its unit: "22 lbf·ft", "0,35 mm", "4 thou", "1 1/4 in".
 * A comma and a point both mean the decimal sign; the two together are refused, never guessed.
 *
 * @param text what was typed
 * @param quantity what is asked for
 * @param field name of the field, for the issue
 * @param assumed symbol of the unit meant when none is typed; the base unit when absent
 */
export function parseQuantity(text: string, quantity: Quantity, field: string, assumed?: string): Parsed {
  const given = text.trim();
  const fail = (code: Issue['code'], extra: Partial<Issue> = {}): Parsed => ({
    ok: false,
    issue: { code, field, received: shorten(given), quantity, ...extra },
  });
  if (given === '') return fail('required');
  if (given.length > LONGEST) return fail('not-a-figure');
  const number = readNumber(given);
  if (number === 'ambiguous') return fail('ambiguous-number');
  if (THREAD.test(given)) return fail('is-a-thread');
  if (!number) return fail('not-a-figure');

  const unitText = given.slice(number.length).trim();
  const fallback = assumed === undefined ? undefined : unitsOf(quantity).find((unit) => unit.symbol === assumed);
  const candidates = unitText === '' ? [fallback ?? baseUnit(quantity)] : findUnits(unitText);
  const unit = candidates.find((candidate) => candidate.quantity === quantity);
  if (!unit) {
    const [other] = candidates;
    return other ? fail('wrong-quantity', { found: other.quantity }) : fail('unknown-unit', { unit: shorten(unitText) });
  }
  const base = toBase(number.value, unit);
  if (!Number.isFinite(base)) return fail('not-finite');
  return { ok: true, quantity: { base, typed: number.value, unit, unitTyped: unitText !== '' } };
}

function readNumber(text: string): { value: number; length: number } | 'ambiguous' | undefined {
  if (/^[+\-−–]?\s*\d[\d.,]*[.,]\d*[.,]/u.test(text)) return 'ambiguous';
  const match = NUMBER.exec(text);
  if (!match) return undefined;
  const [all, sign, whole, over, under, topOnly, bottomOnly, decimal, exponent] = match;
  let size: number;
  if (whole !== undefined) size = Number(whole) + Number(over) / Number(under);
  else if (topOnly !== undefined) size = Number(topOnly) / Number(bottomOnly);
  else size = Number(`${(decimal ?? '').replace(',', '.')}e${exponent ?? '0'}`);
  if (Number.isNaN(size)) return undefined;
  const negative = sign !== '' && sign !== '+';
  return { value: negative ? -size : size, length: all.length };
}

/** What a refusal may quote of what was typed. */
export function shorten(text: string): string {
  const letters = [...text];
  return letters.length <= LONGEST ? text : `${letters.slice(0, LONGEST).join('')}…`;
}
