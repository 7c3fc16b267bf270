import type { JobHead, OwedLine, QuoteView } from '@jubb/book';
import { TextLine, Version } from '@jubb/sheet/given';
import { IsEmail, IsOptional, IsString, IsUUID, MaxLength } from 'class-validator';

/** A customer as they are to be from now on. */
export class CustomerBody {
  @Version() version: number;
  @TextLine('what are they called?', 80) name: string;
  @IsOptional() @IsString() @MaxLength(40, { message: 'is too long; at most 40 letters are kept' }) phone?: string;
  @IsOptional() @IsEmail({}, { message: 'must be an e-mail address, such as workshop@example.com' }) @MaxLength(120) email?: string;
  @IsOptional() @IsString() @MaxLength(300, { message: 'is too long; at most 300 letters are kept' }) address?: string;
}

/** Two customers that are one: which of them stays. */
export class MergeBody {
  @IsUUID() into: string;
}

/** Whose a machine is from now on. */
export class OwnerBody {
  @IsUUID() customerId: string;
}

/** In which machine a unit is from now on. */
export class PlacedBody {
  @IsUUID() machineId: string;
}

export interface CustomerLine {
  readonly id: string;
  readonly name: string;
  readonly phone: string | null;
  readonly machines: readonly {
    readonly id: string;
    readonly name: string;
    readonly serial: string;
    readonly units: readonly { readonly id: string; readonly name: string; readonly serial: string }[];
  }[];
}

/** A job of a customer, in a line. */
export type CustomerJob = Pick<JobHead, 'id' | 'number' | 'stage' | 'complaint' | 'bookedAt' | 'closedAt' | 'unit' | 'machine'>;

/** A quote with its letter, and the job it is of. */
export interface CustomerQuote extends QuoteView {
  readonly jobNumber: number;
}

/** A customer with all that is kept about them: what they are reached by, what was done, what they were offered and said, what is owed. */
export interface CustomerView extends CustomerLine {
  readonly email: string | null;
  readonly address: string | null;
  readonly version: number;
  readonly owed: readonly OwedLine[];
  /** The newest first, so many at most. */
  readonly jobs: readonly CustomerJob[];
  /** The newest first, so many at most. */
  readonly quotes: readonly CustomerQuote[];
}
