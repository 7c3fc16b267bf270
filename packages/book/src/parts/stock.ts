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
