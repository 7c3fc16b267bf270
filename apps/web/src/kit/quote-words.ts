import type { QuoteState } from '@jubb/book';

/** How a quote stands, in words. */
export const QUOTE_WORDS: Readonly<Record<QuoteState, string>> = {
  sent: 'with the customer',
  yes: 'yes',
  no: 'no',
  ask: 'the customer asks',
  replaced: 'replaced',
};

export const QUOTE_CLASS: Readonly<Record<QuoteState, string>> = {
  sent: 'brass',
  yes: 'v-in',
  no: 'v-out',
  ask: 'brass',
  replaced: 'soft',
};
