import type { PartLine, Parts } from './part-lines.js';
import type { QuoteBody, QuoteLine, QuoteOption, QuoteView } from './quote-body.js';

export interface QuoteTotal {
  readonly net: number;
  readonly tax: number;
  readonly gross: number;
}

/** What a line of a quote comes to, in minor units. */
export function lineMinor({ quantity, unitMinor }: Pick<QuoteLine, 'quantity' | 'unitMinor'>): number {
  return Math.round(quantity * unitMinor);
}

/** What an option comes to, in minor units: each line rounded, the tax on the sum; lines left out by their place. */
export function quoteTotal(
  option: Pick<QuoteOption, 'lines'>,
  taxShare: QuoteBody['taxShare'],
  without: readonly number[] = [],
): QuoteTotal {
  const net = option.lines.reduce((sum, line, place) => (without.includes(place) ? sum : sum + lineMinor(line)), 0);
  const tax = Math.round(net * taxShare);
  return { net, tax, gross: net + tax };
}

/**
 * What a piece is sold at today, in minor units: as its shelf says, else what the cheapest supplier asks and the
 * shop's margin; nothing where nobody has said a price.
 */
export function soldAt({ need, shelf, others, offers }: PartLine, marginShare: number): number | undefined {
  const shelved = shelf ?? others[0];
  // A shelf on which no price was written stands at nothing.
  const shelfPrice = shelved && shelved.priceMinor > 0 ? shelved.priceMinor : undefined;
  const bought = Math.min(
    ...offers.filter(({ number, available }) => number === need.number && available).map(({ priceMinor }) => priceMinor),
  );
  const asked = Number.isFinite(bought) ? Math.round(bought * (1 + marginShare)) : undefined;
  // What must be bought anew is not sold under what it costs now.
  if (shelved && shelfPrice !== undefined && shelved.onHand - shelved.reserved + shelved.reservedHere > 0) return shelfPrice;
  return asked === undefined ? shelfPrice : Math.max(shelfPrice ?? 0, asked);
}

export interface Risen {
  readonly number: string;
  readonly what: string;
  readonly wasMinor: number;
  readonly nowMinor: number;
}

/** Parts of what the customer said yes to that are dearer by now: the customer is asked again. */
export function risenSince({ state, body, answer }: QuoteView, { lines }: Parts, marginShare: number): readonly Risen[] {
  const option = state === 'yes' && answer?.option !== undefined ? body.options[answer.option] : undefined;
  return (option?.lines ?? []).flatMap(({ number, what, unitMinor }, place) => {
    if (number === undefined || answer?.without.includes(place)) return [];
    const line = lines.find(({ need }) => need.number === number);
    // What is kept or out for the job was had at its price.
    if (!line || (line.open === 0 && line.ordered === 0)) return [];
    const nowMinor = soldAt(line, marginShare);
    return nowMinor !== undefined && nowMinor > unitMinor ? [{ number, what, wasMinor: unitMinor, nowMinor }] : [];
  });
}
