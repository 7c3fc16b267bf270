import 'reflect-metadata';
import { IsIn, IsOptional, IsInt, Min, Max, IsArray, ArrayMaxSize, ArrayUnique, IsString, MaxLength } from 'class-validator';
import type { QuoteView, QuoteState, QuoteBody, QuoteAnswer } from '@jubb/book';
import { ANSWERS, type CustomerAnswer } from '@jubb/sheet';

export class AnswerBody {
  @IsIn(ANSWERS) answer: CustomerAnswer;
  /** Which option, by its place; needed for a yes. */
  @IsOptional() @IsInt() @Min(0) @Max(2) option?: number;
  /** Lines that are left out, by their place; only those that may be. */
  @IsArray() @ArrayMaxSize(200) @ArrayUnique() @IsInt({ each: true }) @Min(0, { each: true }) without: number[];
  @IsOptional() @IsString() @MaxLength(1000, { message: 'is too long; at most 1000 letters are kept' }) words?: string;
}

/** The quotes of a job, and the link of the one that was sent just now: it is shown this once, and kept nowhere. */
export interface SentQuote {
  readonly quotes: readonly QuoteView[];
  readonly link: string | null;
}

/** What the customer sees behind the link. */
export interface OfferView {
  readonly number: number;
  readonly shop: string;
  /** SHA-256 of the shop's picture. */
  readonly logo: string | null;
  readonly currency: string;
  readonly unit: string;
  readonly machine: string;
  readonly customer: string;
  readonly state: QuoteState;
  readonly body: Omit<QuoteBody, 'id' | 'to'>;
  readonly answer: QuoteAnswer | null;
}

/** A message as the stand-in for post and telephone holds it. */
/** A quote that the customer has not said yes or no to. */
export interface AnswerDue {
  readonly quoteId: string;
  readonly number: number;
  readonly jobId: string;
  readonly jobNumber: number;
  readonly unit: string;
  readonly customer: string;
  readonly phone: string | null;
  readonly sentAt: string;
  readonly validUntil: string;
  /** What the customer asked, where that is the answer so far. */
  readonly asked: string | null;
}

export interface MessageView {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly sentAt: string;
}
