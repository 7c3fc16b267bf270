import { unitsOf, type Quantity } from '../quantity/units.js';

/** What is wrong with one field, as data; `wording` turns it into a sentence. */
export interface Issue {
  readonly code: keyof typeof WORDING;
  readonly field: string;
  readonly label?: string;
  readonly received?: string;
  readonly quantity?: Quantity;
  readonly found?: Quantity;
  /** The bound that was crossed, in words with its unit. */
  readonly bound?: string;
  readonly unit?: string;
}

type Say = (issue: Issue) => string;

const given = (issue: Issue): string => `"${issue.received ?? ''}"`;
/** Names of the commonest units in brackets; nothing for a plain number, which has none. */
const examples = (issue: Issue): string => {
  const symbols = issue.quantity
    ? unitsOf(issue.quantity)
        .slice(0, 4)
        .map((unit) => unit.symbol)
        .filter(Boolean)
    : [];
  return symbols.length > 0 ? ` (${symbols.join(', ')})` : '';
};
const withArticle = (quantity: Quantity | undefined): string =>
  quantity === undefined ? 'a figure' : `${/^[aeiou]/u.test(quantity) ? 'an' : 'a'} ${quantity}`;

/** One sentence per code: what was given, and what would be right. */
const WORDING = {
  required: (issue) => `is missing${issue.quantity ? `; give ${withArticle(issue.quantity)}` : ''}`,
  'not-a-figure': (issue) =>
    `${given(issue)} is not a figure; give a number${examples(issue) ? ` with or without its unit${examples(issue)}` : ''}`,
  'ambiguous-number': (issue) => `${given(issue)} has more than one decimal sign; use one comma or one point`,
  'is-a-thread': (issue) => `${given(issue)} names a thread; ${withArticle(issue.quantity)} is asked${examples(issue)}`,
  'unknown-unit': (issue) => `"${issue.unit ?? ''}" is not a unit of ${issue.quantity ?? 'this'}${examples(issue)}`,
  'unit-missing': (issue) => `${given(issue)} has no unit; say which is meant${examples(issue)}`,
  'wrong-quantity': (issue) => `${given(issue)} is ${withArticle(issue.found)}; ${withArticle(issue.quantity)} is asked${examples(issue)}`,
  'not-finite': (issue) => `${given(issue)} is not a finite number`,
  'too-small': (issue) => `${given(issue)} is too small; the least allowed is ${issue.bound ?? ''}`,
  'too-large': (issue) => `${given(issue)} is too large; the most allowed is ${issue.bound ?? ''}`,
  'not-whole': (issue) => `${given(issue)} is not a whole number`,
  'not-a-choice': (issue) => `${given(issue)} is not one of: ${issue.bound ?? ''}`,
  'not-text': (issue) => `${given(issue)} is not text`,
  'not-a-list': (issue) => `${given(issue)} is not a list`,
  'too-few': (issue) => `has ${issue.received ?? 'too few'}; at least ${issue.bound ?? ''} are needed`,
  'too-many': (issue) => `has ${issue.received ?? 'too many'}; at most ${issue.bound ?? ''} are allowed`,
  'unknown-field': (issue) => `is not known here; the fields are: ${issue.bound ?? ''}`,
  'not-an-object': (issue) => `${given(issue)} is not a set of named inputs`,
  'window-upside-down': (issue) => `${given(issue)} is below the lower end ${issue.bound ?? ''}`,
  'limit-missing': () => 'needs a lower limit, an upper limit, or both',
  'aim-outside': (issue) => `${given(issue)} is outside the window ${issue.bound ?? ''}`,
  'adapter-folds-past': (issue) => `${given(issue)} folded back reaches past the grip; it must stay under ${issue.bound ?? ''}`,
  'shares-not-rising': (issue) => `${given(issue)} does not rise to 100 %; each pass is at least the one before it and the last is 100 %`,
  'points-in-line': () => 'lie in one line; three that do not are needed for a plane',
  'grid-has-hole': (issue) =>
    `${given(issue)} where ${issue.bound ?? ''} are needed: every person measures every part equally often, twice or more`,
  'not-a-meter-reading': (issue) =>
    `${given(issue)} is not what a meter shows; give ${withArticle(issue.quantity)}${examples(issue)} or OL for open`,
  'under-its-leads': (issue) => `${given(issue)} is less than its leads alone, ${issue.bound ?? ''}`,
  'limit-is-new': (issue) => `${given(issue)} is the size when new; nothing could ever wear`,
  'said-twice': (issue) => `${given(issue)} is said twice`,
  'not-a-thread': (issue) => `${given(issue)} names no 60° thread; write it as M12x1.25, 1/2-20 UNF or #10-32`,
  'outside-method': (issue) => `${given(issue)} is outside what this method holds for: ${issue.bound ?? ''}`,
  'cannot-be': (issue) => `${given(issue)} cannot be: ${issue.bound ?? ''}`,
  'none-will-do': (issue) => `none of ${issue.received ?? 'them'} will do: ${issue.bound ?? ''}`,
  overflows: () => 'these figures together are outside of what can be worked out: look for one with its decimal sign or unit gone wrong',
  'does-not-convert': (issue) => `${given(issue)} cannot be shown in ${issue.bound ?? ''}: the two measure different things`,
} satisfies Record<string, Say>;

/** The issue as a sentence, beginning with the field's label. */
export function wording(issue: Issue): string {
  const say: Say = WORDING[issue.code];
  return `${issue.label ?? issue.field}: ${say(issue)}`;
}

export type Result<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly issues: readonly Issue[] };

export function ok<T>(value: T): Result<T> {
  return { ok: true, value };
}

export function refuse(...issues: readonly Issue[]): { readonly ok: false; readonly issues: readonly Issue[] } {
  return { ok: false, issues };
}
