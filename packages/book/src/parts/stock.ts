import type { StockKind, StockUnit } from '@jubb/sheet';
export interface StockLine {
  readonly id: string;
  readonly number: string;
  readonly name: string;
  readonly kind: StockKind;
  readonly unit: StockUnit;
  readonly size: string | null;
  readonly designation: string | null;
  readonly location: string;
  /** Of a seal or ring. */
  readonly material: string | null;
  readonly shore: number | null;
  readonly minimum: number;
  readonly priceMinor: number;
  readonly onHand: number;
  readonly reserved: number;
  /** Of what stands above, but for what lies there and what is kept. */
  readonly version: number;
}

/** A shim by its thickness. */
export interface ShimLine extends StockLine {
  readonly thicknessMm: number;
}

/** A seal or ring that lies on a shelf, by its size. */
export interface SealLine extends StockLine {
  readonly size: string;
  /** Free, and in date. */
  readonly usable: number;
  /** The day on which the first of those is past its own. */
  readonly until: string | null;
}

/** What a supplier has of a number. */
export interface SupplierOffer {
  readonly supplier: string;
  readonly number: string;
  readonly name: string;
  readonly priceMinor: number;
  /** From so many pieces on, each costs this. */
  readonly breaks: readonly { readonly from: number; readonly priceMinor: number }[];
  readonly leadDays: number;
  readonly leadSpread: number;
  readonly available: boolean;
  readonly supersededBy: string | null;
}

export type OrderState = 'open' | 'sent' | 'differs' | 'confirmed' | 'delivered';

/** What a job has to have, with where it is. */
export interface JobPartsView {
  readonly stock: readonly (StockLine & { readonly reservedHere: number; readonly issuedHere: number })[];
  readonly offers: readonly SupplierOffer[];
  readonly ordered: readonly {
    readonly number: string;
    readonly quantity: number;
    readonly received: number;
    readonly state: OrderState;
    readonly due: string | null;
  }[];
}

/** What of a line lies there past its day, and how much of it is in date; `today` is like 2026-11-25. */
export function inDate(
  {
    onHand,
    batches,
  }: { readonly onHand: number; readonly batches: readonly { readonly expires: string | null; readonly onHand: number }[] },
  today: string,
): { readonly past: number; readonly good: number } {
  const past = batches.reduce((sum, batch) => (batch.expires !== null && batch.expires < today ? sum + Math.max(0, batch.onHand) : sum), 0);
  return { past, good: Math.max(0, onHand - past) };
}
