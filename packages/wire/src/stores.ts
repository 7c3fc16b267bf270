import 'reflect-metadata';
import { IsEmail, Min, Max, IsInt, IsIn, IsOptional, IsString, MaxLength, IsUUID, IsBoolean } from 'class-validator';
import { MATERIAL_IDS, type Material } from '@jubb/core';
import type { StockLine, OrderState } from '@jubb/book';
import {
  STOCK_KINDS,
  type StockKind,
  STOCK_UNITS,
  type StockUnit,
  MOVES,
  type Move,
  SUPPLIER_FAULTS,
  type SupplierFault,
} from '@jubb/sheet';
import { Decimals, TextLine, Version, Day, Instant, RowsOf } from '@jubb/sheet/given';

/** No shop has more of anything. */
const MOST_PIECES = 1_000_000;
const MOST_PRICE = 100_000_000;

function Amount(least: number): PropertyDecorator {
  return (target, property) => {
    Decimals(3, 'must be a number with at most three decimals')(target, property);
    Min(least, { message: `must not be under ${least}` })(target, property);
    Max(MOST_PIECES, { message: `must be at most ${MOST_PIECES}` })(target, property);
  };
}

function Price(): PropertyDecorator {
  return (target, property) => {
    IsInt({ message: 'must be an amount of money with at most two decimals' })(target, property);
    Min(0, { message: 'must not be under 0' })(target, property);
    Max(MOST_PRICE, { message: 'is too large' })(target, property);
  };
}

export class StockItemBody {
  @TextLine('the number it is ordered by', 60) number: string;
  @TextLine('what is it?', 200) name: string;
  @IsIn(STOCK_KINDS) kind: StockKind;
  @IsIn(STOCK_UNITS) unit: StockUnit;
  /** As one would look for it: "10 x 2.5", "0.10", "M8 x 25". */
  @IsOptional() @IsString() @MaxLength(60) size?: string;
  @IsOptional() @IsString() @MaxLength(80) designation?: string;
  @IsOptional() @IsString() @MaxLength(60) location?: string;
  /** Of a seal or ring: its rubber, and how hard it is, Shore A. */
  @IsOptional() @IsIn(MATERIAL_IDS, { message: `must be one of: ${MATERIAL_IDS.join(', ')}` }) material?: Material;
  @IsOptional()
  @IsInt({ message: 'must be a whole number' })
  @Min(20, { message: 'must be at least 20 Shore A' })
  @Max(100, { message: 'must be at most 100 Shore A' })
  shore?: number;
  @Amount(0) minimum: number;
  /** What a unit of it is sold at, in minor units. */
  @Price() priceMinor: number;
}

/** A line as it is to be from now on. */
export class StockChangeBody extends StockItemBody {
  @Version() version: number;
}

export class MoveBody {
  /** Made by the client: sent twice, it is one movement. */
  @IsUUID('7') id: string;
  @IsIn(MOVES) kind: Move;
  @Amount(0) quantity: number;
  /** The job that it is for; needed to reserve and to release. */
  @IsOptional() @IsUUID() jobId?: string;
  @IsOptional() @IsString() @MaxLength(60) batch?: string;
  @IsOptional() @Day() expires?: string;
  /** The day that rubber was cured: how long it lies well follows from its material. */
  @IsOptional() @Day() cured?: string;
  @IsOptional() @IsString() @MaxLength(300) words?: string;
  @Instant() takenAt: string;
}

/** Whether the count of an apprentice becomes what is there. */
export class SettleCountBody {
  @IsBoolean() take: boolean;
}

export class WantedLine {
  @IsUUID('7') id: string;
  @TextLine('from whom?', 80) supplier: string;
  @TextLine('which number?', 60) number: string;
  @IsInt({ message: 'must be a whole number' })
  @Min(1, { message: 'must be at least 1' })
  @Max(10_000, { message: 'must be at most 10000' })
  quantity: number;
  @IsOptional() @IsUUID() jobId?: string;
  /** Of a number that a supplier by hand is not known to have: what it is, and what one costs. */
  @IsOptional() @TextLine('what is it?', 200) name?: string;
  @IsOptional()
  @IsInt({ message: 'must be an amount of money' })
  @Min(0, { message: 'must not be under 0' })
  @Max(MOST_PRICE)
  priceMinor?: number;
}

/** What is to be had, of one supplier or several: all of it is put on their orders, or none. */
export class WantBody {
  @RowsOf(() => WantedLine, 200, 1) lines: WantedLine[];
}

export class DeliveredLine {
  @IsUUID() lineId: string;
  /** What stands on the bag. */
  @TextLine('what stands on the bag?', 60) number: string;
  @IsInt({ message: 'must be a whole number' }) @Min(0, { message: 'must not be under 0' }) @Max(10_000) quantity: number;
  /** Why more is taken in than was ordered. */
  @IsOptional() @IsString() @MaxLength(200) why?: string;
}

export class GoodsInBody {
  @IsUUID('7') id: string;
  @RowsOf(() => DeliveredLine, 200, 1) lines: DeliveredLine[];
}

/** How one reaches a supplier who is written to and called, and how long it takes. */
class Reached {
  @IsOptional() @IsEmail({}, { message: 'must be an e-mail address' }) @MaxLength(200) email?: string;
  @IsOptional() @IsString() @MaxLength(60) phone?: string;
  @IsOptional() @IsString() @MaxLength(60) account?: string;
  @IsInt({ message: 'must be whole days' })
  @Min(0, { message: 'must not be under 0' })
  @Max(365, { message: 'must be at most 365' })
  leadDays: number;
}

export class SupplierBody extends Reached {
  @TextLine('who is it?', 80) name: string;
}

/** Their name stays: it is on every order. */
export class SupplierChangeBody extends Reached {
  @Version() version: number;
  @IsBoolean() isGone: boolean;
}

/** A line of a supplier's catalogue, as it is kept by hand. */
export class OfferBody {
  @TextLine('which number?', 60) number: string;
  @TextLine('what is it?', 200) name: string;
  @IsInt({ message: 'must be an amount of money' }) @Min(0, { message: 'must not be under 0' }) @Max(MOST_PRICE) priceMinor: number;
}

export class ConfirmedLine {
  @IsUUID() lineId: string;
  /** So many come; none where it is sold out. */
  @IsInt({ message: 'must be a whole number' }) @Min(0, { message: 'must not be under 0' }) @Max(10_000) confirmed: number;
  @IsInt({ message: 'must be an amount of money' }) @Min(0, { message: 'must not be under 0' }) @Max(MOST_PRICE) priceMinor: number;
  @IsOptional() @Day() due?: string;
}

/** What a supplier by hand said to an order. */
export class ConfirmBody {
  @RowsOf(() => ConfirmedLine, 200, 1) lines: ConfirmedLine[];
}

export class FaultBody {
  @IsIn(SUPPLIER_FAULTS) fault: SupplierFault;
}

export class AcceptBody {
  /** As it was confirmed; or it is taken off the order. */
  @IsBoolean() asConfirmed: boolean;
}

export interface StockMovement {
  readonly id: string;
  readonly kind: Move;
  readonly quantity: number;
  readonly onHandAfter: number;
  readonly jobNumber: number | null;
  readonly batch: string | null;
  readonly words: string | null;
  readonly person: string;
  readonly takenAt: string;
}

export interface StockView extends StockLine {
  /** Newest first. */
  readonly movements: readonly StockMovement[];
  readonly batches: readonly { readonly batch: string; readonly expires: string | null; readonly onHand: number }[];
  /** Counts that wait for a signature. */
  readonly counts: readonly {
    readonly id: string;
    readonly quantity: number;
    readonly person: string;
    readonly words: string | null;
    readonly takenAt: string;
  }[];
  readonly reservations: readonly { readonly jobId: string; readonly jobNumber: number; readonly quantity: number }[];
}

export interface OrderLine {
  readonly id: string;
  readonly number: string;
  readonly name: string;
  readonly quantity: number;
  readonly priceMinor: number;
  readonly jobId: string | null;
  readonly jobNumber: number | null;
  readonly confirmed: number | null;
  readonly due: string | null;
  readonly received: number;
  /** Pieces of another number that came in its place and went back. */
  readonly returned: number;
}

export interface OrderView {
  readonly id: string;
  readonly number: number;
  readonly supplier: string;
  readonly state: OrderState;
  readonly sentAt: string | null;
  /** It goes out and comes in by hand: with how they are reached, and our number with them. */
  readonly byHand: boolean;
  readonly email: string | null;
  readonly phone: string | null;
  readonly account: string | null;
  readonly leadDays: number;
  readonly lines: readonly OrderLine[];
  /** What the van brought and nobody has put away yet, as the note that came with it has it. */
  readonly notes: readonly { readonly lineId: string; readonly number: string; readonly quantity: number }[];
}

export interface SupplierView {
  readonly name: string;
  readonly fault: SupplierFault;
  readonly items: number;
  /** Written to and called; otherwise the stand-in plays them. */
  readonly byHand: boolean;
  readonly email: string | null;
  readonly phone: string | null;
  readonly account: string | null;
  readonly leadDays: number;
  readonly isGone: boolean;
  readonly version: number;
}
