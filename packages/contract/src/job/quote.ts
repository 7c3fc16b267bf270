import type { QuoteBody, QuoteOption } from '../dto/quotes.js';

export interface QuoteTotal {
  readonly net: number;
  readonly tax: number;
  readonly gross: number;
}

/** What an option comes to, in minor units: each line rounded, the tax on the sum; lines left out by their place. */
export function quoteTotal(
  option: Pick<QuoteOption, 'lines'>,
  taxShare: QuoteBody['taxShare'],
  without: readonly number[] = [],
): QuoteTotal {
  const net = option.lines.reduce(
    (sum, { quantity, unitMinor }, place) => (without.includes(place) ? sum : sum + Math.round(quantity * unitMinor)),
    0,
  );
  const tax = Math.round(net * taxShare);
  return { net, tax, gross: net + tax };
}
