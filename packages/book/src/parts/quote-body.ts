import 'reflect-metadata';
import {
  IsIn,
  Min,
  Max,
  IsInt,
  IsOptional,
  IsString,
  MaxLength,
  IsBoolean,
  IsArray,
  ArrayMaxSize,
  IsNumber,
  Matches,
  IsUUID,
} from 'class-validator';
import { QUOTE_LINE_SORTS, type QuoteLineSort, type CustomerAnswer } from '@jubb/sheet';
import { TextLine, Decimals, Day, RowsOf } from '@jubb/sheet/given';
export class QuoteLine {
  @IsIn(QUOTE_LINE_SORTS) sort: QuoteLineSort;
  @TextLine('what is it?', 300) what: string;
  @Decimals(3, 'must be a number with at most three decimals')
  @Min(0, { message: 'must not be under 0' })
  @Max(100_000, { message: 'must be at most 100000' })
  quantity: number;
  /** Of one piece or hour, in minor units. */
  @IsInt({ message: 'must be an amount of money with at most two decimals' })
  @Min(0, { message: 'must not be under 0' })
  @Max(100_000_000, { message: 'is too large' })
  unitMinor: number;
  /** The number of a part: by it a price that rises later is seen. */
  @IsOptional() @IsString() @MaxLength(60) number?: string;
  /** The customer may leave it out. */
  @IsOptional() @IsBoolean() optional?: boolean;
  /** Leaving it out can hurt somebody: it is recorded that this was told. */
  @IsOptional() @IsBoolean() safety?: boolean;
}

export class QuoteOption {
  @TextLine('what is this option called?', 60) name: string;
  @IsOptional() @IsString() @MaxLength(500) words?: string;
  @RowsOf(() => QuoteLine, 200, 1, 'needs at least one line')
  lines: QuoteLine[];
}

/** What was found, with its strip where it was measured. */
export class QuoteFinding {
  @TextLine('what was found?', 300) words: string;
  @IsIn(['in', 'out', 'unsure', 'told']) verdict: 'in' | 'out' | 'unsure' | 'told';
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsNumber({}, { each: true }) readings?: number[];
  @IsOptional() @IsNumber() from?: number;
  @IsOptional() @IsNumber() to?: number;
  @IsOptional() @IsString() @MaxLength(10) unit?: string;
}

/** A photo of the job that the customer is shown. */
export class QuotePicture {
  @Matches(/^[0-9a-f]{64}$/u, { message: 'must be the SHA-256 of a photo' }) file: string;
  @TextLine('what does it show?', 200) words: string;
  @IsInt() @Min(1) @Max(10_000) width: number;
  @IsInt() @Min(1) @Max(10_000) height: number;
}

export class QuoteBody {
  @IsUUID('7') id: string;
  /** Where the link is sent. */
  @TextLine('where does it go?', 120) to: string;
  @IsOptional() @IsString() @MaxLength(2000) words?: string;
  @Day() validUntil: string;
  @IsNumber({}, { message: 'must be a share, such as 0.2' })
  @Min(0, { message: 'must not be under 0 %' })
  @Max(1, { message: 'must be at most 100 %' })
  taxShare: number;
  @RowsOf(() => QuoteFinding, 100) findings: QuoteFinding[];
  @IsOptional()
  @RowsOf(() => QuotePicture, 12)
  pictures?: QuotePicture[];
  @RowsOf(() => QuoteOption, 3, 1, 'needs at least one option')
  options: QuoteOption[];
}

export type QuoteState = 'sent' | 'yes' | 'no' | 'ask' | 'replaced';

export interface QuoteAnswer {
  readonly answer: CustomerAnswer;
  readonly option?: number;
  readonly without: readonly number[];
  readonly words?: string;
  readonly at: string;
}

export interface QuoteView {
  readonly id: string;
  readonly number: number;
  readonly jobId: string;
  readonly state: QuoteState;
  readonly body: Omit<QuoteBody, 'id'>;
  readonly sentAt: string;
  readonly sentBy: string;
  readonly answer: QuoteAnswer | null;
}
