import type { Offer } from '@jubb/core';
import type { JobPartsView, SupplierOffer } from '../dto/stores.js';
import type { KitOffer, Need } from './needs.js';

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
  readonly ordered: number;
  readonly due: string | null;
  readonly offers: readonly SupplierOffer[];
  /** Pieces that are neither kept, nor out, nor on order. */
  readonly open: number;
}

export interface Parts {
  readonly lines: readonly PartLine[];
  readonly kits: readonly KitOffer[];
  readonly view: JobPartsView;
}

/** Each need with where it stands: on the shelf, kept, out, on order by itself or in a kit. */
export function partLines(needs: readonly Need[], kits: readonly KitOffer[], view: JobPartsView): readonly PartLine[] {
  return needs.map((need, place) => lineOf(need, place, kits, view));
}

function lineOf(need: Need, place: number, kits: readonly KitOffer[], { stock, offers, ordered }: JobPartsView): PartLine {
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
  const byKit = kits.reduce((sum, { number, brings }) => {
    const inIt = brings.find((one) => one.need === place)?.pieces ?? 0;
    const line = stock.find((one) => one.number === number);
    return sum + inIt * ((line?.reservedHere ?? 0) + (line?.issuedHere ?? 0));
  }, 0);
  return {
    need,
    shelf,
    others,
    kept: kept + byKit,
    out,
    ordered: onWay,
    due: own.find(({ due }) => due !== null)?.due ?? ownKits[0]?.order.due ?? null,
    offers: offers.filter(({ number }) => number === need.number),
    open: Math.max(0, need.pieces - kept - byKit - out - onWay),
  };
}

/** What can be bought for the open needs: each number from whoever has it cheapest, singles and kits. */
export function coverOffers({ lines, kits, view }: Parts): readonly (Offer & { readonly supplier: string; readonly number: string })[] {
  const cheapest = (number: string | null): SupplierOffer | undefined =>
    view.offers
      .filter((offer) => offer.number === number && offer.available && offer.supersededBy === null)
      .toSorted((one, other) => one.priceMinor - other.priceMinor)[0];
  const singles = lines.flatMap(({ need, open }, place) => {
    const offer = open > 0 ? cheapest(need.number) : undefined;
    return offer
      ? [
          {
            id: offer.number,
            number: offer.number,
            supplier: offer.supplier,
            price: offer.priceMinor,
            brings: [{ need: place, pieces: 1 }],
          },
        ]
      : [];
  });
  const packs = kits.flatMap(({ number, brings }) => {
    const offer = cheapest(number);
    return offer ? [{ id: offer.number, number: offer.number, supplier: offer.supplier, price: offer.priceMinor, brings }] : [];
  });
  return [...singles, ...packs];
}
