import type { KitOffer, Need } from './needs.js';
import type { JobPartsView, SupplierOffer } from './stock.js';
import type { Offer } from '@jubb/core';

type Shelf = JobPartsView['stock'][number];

/** A need with where it stands. */
export interface PartLine {
  readonly need: Need;
  /** The line of its own number, where there is one. */
  readonly shelf: Shelf | undefined;
  /** Other lines that fit: the same ring, bearing or fluid by its designation. */
  readonly others: readonly Shelf[];
  readonly kept: number;
  readonly out: number;
  /** Pieces that were said to be in hand, wherever they came from. */
  readonly here: number;
  readonly ordered: number;
  readonly due: string | null;
  readonly offers: readonly SupplierOffer[];
  /** Pieces that are neither in hand, nor kept, nor out, nor on order. */
  readonly open: number;
}

export interface Parts {
  readonly lines: readonly PartLine[];
  readonly kits: readonly KitOffer[];
  readonly view: JobPartsView;
}

/** Pieces of a part that are said to be in hand. */
type HereOf = (part: string) => number;

/** Each need with where it stands: in hand, on the shelf, kept, out, on order by itself or in a kit. */
export function partLines(
  needs: readonly Need[],
  kits: readonly KitOffer[],
  view: JobPartsView,
  hereOf: HereOf = () => 0,
): readonly PartLine[] {
  return needs.map((need, place) => lineOf(need, place, kits, view, hereOf));
}

function lineOf(need: Need, place: number, kits: readonly KitOffer[], { stock, offers, ordered }: JobPartsView, hereOf: HereOf): PartLine {
  const shelf = stock.find(({ number }) => number === need.number);
  const others = stock.filter(
    (line) => line !== shelf && line.unit === need.unit && need.designation !== null && line.designation === need.designation,
  );
  const all = shelf ? [shelf, ...others] : others;
  const kept = all.reduce((sum, { reservedHere }) => sum + reservedHere, 0);
  const out = all.reduce((sum, { issuedHere }) => sum + issuedHere, 0);
  const own = ordered.filter(({ number }) => number === need.number);
  // A kit on order brings its pieces, too.
  const ownKits = kits.flatMap(({ number, brings }) => {
    const inIt = brings.find((one) => one.need === place)?.pieces ?? 0;
    return ordered.filter((order) => inIt > 0 && order.number === number).map((order) => ({ order, inIt }));
  });
  const onWay =
    own.reduce((sum, { quantity, received }) => sum + quantity - received, 0) +
    ownKits.reduce((sum, { order, inIt }) => sum + inIt * (order.quantity - order.received), 0);
  const byKit = (of: (line: Shelf) => number): number =>
    kits.reduce((sum, { number, brings }) => {
      const inIt = brings.find((one) => one.need === place)?.pieces ?? 0;
      const line = stock.find((one) => one.number === number);
      return sum + (line ? inIt * of(line) : 0);
    }, 0);
  const keptAll = kept + byKit(({ reservedHere }) => reservedHere);
  const outAll = out + byKit(({ issuedHere }) => issuedHere);
  const here = need.parts.reduce((sum, part) => sum + hereOf(part), 0);
  return {
    need,
    shelf,
    others,
    kept: keptAll,
    out: outAll,
    here,
    ordered: onWay,
    due: own.find(({ due }) => due !== null)?.due ?? ownKits[0]?.order.due ?? null,
    offers: offers.filter(({ number }) => number === need.number),
    open: Math.max(0, need.pieces - keptAll - Math.max(outAll, here) - onWay),
  };
}

/** What lies on a line and is kept for no job. */
export function freeOf({ onHand, reserved }: Pick<Shelf, 'onHand' | 'reserved'>): number {
  return Math.max(0, onHand - reserved);
}

/** What can be kept for the job of what a line needs, or be taken of what is kept, and from which shelf; undefined where there is none. */
export function movable(line: PartLine, kind: 'reserve' | 'issue'): { readonly shelf: Shelf; readonly quantity: number } | undefined {
  const has = (one: Shelf): number => (kind === 'reserve' ? Math.min(line.open, freeOf(one)) : one.reservedHere);
  const shelf = [...(line.shelf ? [line.shelf] : []), ...line.others].find((one) => has(one) > 0);
  return shelf && { shelf, quantity: has(shelf) };
}

/** Pieces that no shelf of this shop has free either: what lies on one is not missing, it only has to be kept. */
export function lackingOf({ open, shelf, others }: PartLine): number {
  return Math.max(0, open - [...(shelf ? [shelf] : []), ...others].reduce((sum, one) => sum + freeOf(one), 0));
}

/** What needs cost, piece by piece and each by itself, in minor units: what a kit or a price break is held against. */
export function singlesMinor(needs: readonly number[], offers: readonly Buy[]): number {
  const priceOf = (place: number): number =>
    offers.find(({ brings, pieces }) => pieces === 1 && brings.length === 1 && brings[0]!.need === place)?.price ?? 0;
  return needs.reduce((sum, open, place) => sum + open * priceOf(place), 0);
}

/** So many pieces of a number from one supplier, bought together. */
export interface Buy extends Offer {
  readonly supplier: string;
  readonly number: string;
  readonly pieces: number;
  /** Of one piece at that number of pieces, in minor units. */
  readonly eachMinor: number;
}

/** What a piece costs when so many are bought. */
function eachAt({ priceMinor, breaks }: SupplierOffer, pieces: number): number {
  return breaks.filter(({ from }) => from <= pieces).toSorted((one, other) => other.from - one.from)[0]?.priceMinor ?? priceMinor;
}

/**
 * What can be bought for the open needs: singles and kits, and from a price break on so many of
 * them together. Each count from the first break to what is open is an offer of its own, so that
 * the cheapest cover of the offers is the cheapest at the suppliers' prices.
 */
export function coverOffers({ lines, kits, view }: Parts): readonly Buy[] {
  const buysOf = (number: string | null, brings: Offer['brings'], most: number): readonly Buy[] => {
    const able = view.offers.filter((offer) => offer.number === number && offer.available && offer.supersededBy === null);
    const counts = new Set([1, ...able.flatMap(({ breaks }) => breaks.flatMap(({ from }) => range(from, most).concat(from)))]);
    return [...counts].flatMap((pieces) => {
      const offer = able.toSorted((one, other) => eachAt(one, pieces) - eachAt(other, pieces))[0];
      if (!offer) return [];
      const eachMinor = eachAt(offer, pieces);
      return [
        {
          id: pieces === 1 ? offer.number : `${offer.number} × ${pieces}`,
          number: offer.number,
          supplier: offer.supplier,
          pieces,
          eachMinor,
          price: eachMinor * pieces,
          brings: brings.map((one) => ({ ...one, pieces: one.pieces * pieces })),
        },
      ];
    });
  };
  const singles = lines.flatMap(({ need, open }, place) =>
    open > 0 ? buysOf(need.number, [{ need: place, pieces: 1 }], Math.ceil(open)) : [],
  );
  return [...singles, ...kits.flatMap(({ number, brings }) => buysOf(number, brings, 1))];
}

function range(from: number, to: number): number[] {
  return Array.from({ length: Math.max(0, to - from + 1) }, (_, index) => from + index);
}
