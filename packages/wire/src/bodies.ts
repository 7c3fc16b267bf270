import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  IsString,
  MinLength,
  MaxLength,
  IsUUID,
  Matches,
  IsOptional,
  IsInt,
  Min,
  Max,
  IsNumber,
  IsBoolean,
  IsIn,
  IsTimeZone,
  ValidateNested,
  IsObject,
} from 'class-validator';
import { TextLine, Instant, JobScope, Version, PartOf } from '@jubb/sheet/given';
import { LoginName, NewPassword } from './people.js';

/** What clients send, other than entries. One class serves the form and the server. */

const CODE = /^\d{6}$/u;

export class LoginBody {
  @IsString() @MinLength(1, { message: 'is missing: your log-in name' }) @MaxLength(60) login: string;
  @IsString() @MinLength(1, { message: 'is missing' }) @MaxLength(200) password: string;
  /** Of a second factor, where the person has one. */
  @IsOptional() @Matches(CODE, { message: 'must be six digits' }) code?: string;
}

/** A second factor begins once a code of its secret shows that the telephone has it. */
export class SecondBody {
  @Matches(/^[A-Z2-7]{32}$/u, { message: 'is not one that Jubb made' }) secret: string;
  @Matches(CODE, { message: 'must be six digits' }) code: string;
  @IsString() @MinLength(1, { message: 'is missing' }) @MaxLength(200) password: string;
}

export class SecondOffBody {
  @IsString() @MinLength(1, { message: 'is missing' }) @MaxLength(200) password: string;
}

const PIN = /^(?:\d{4}|\d{6})$/u;

/** Taking over a tablet that knows this person already. */
export class SwapBody {
  @IsUUID() personId: string;
  @Matches(PIN, { message: 'must be four or six digits' }) pin: string;
}

export class PinBody {
  @Matches(PIN, { message: 'must be four or six digits' }) pin: string;
  @IsString() @MinLength(1, { message: 'is missing' }) @MaxLength(200) password: string;
}

export class TabletBody {
  @TextLine('what is this tablet called?', 60) name: string;
}

/** The tablet that an instrument sends to; null: to none. */
export class PairBody {
  @IsOptional() @IsUUID() tabletId?: string | null;
}

/** A tool of the crib that sends by itself from now on. */
export class InstrumentBody {
  @IsUUID(undefined, { message: 'is missing: which tool is it?' }) toolId: string;
  /** A wrench that lets go, and has no figure to send. */
  @IsBoolean() clicks: boolean;
}

/** One line that an instrument sends. Its quantity is its tool's; any unit of that will do. */
export class InstrumentLine {
  /** Counts up with every line: the same line sent again, because its answer was lost, is not taken again. */
  @IsInt() @Min(0) @Max(Number.MAX_SAFE_INTEGER) n: number;
  /** Anew each time its counter begins again, so that no line is ever taken for one of the run before. */
  @IsOptional() @IsString() @MaxLength(40) run?: string;
  /** Nothing for a click, which has no figure. */
  @IsOptional() @IsNumber() value?: number;
  @IsString() @MaxLength(10) unit: string;
  /** Somebody pressed its key, or the pull is over. */
  @IsOptional() @IsBoolean() taken?: boolean;
  /** Degrees turned since snug. */
  @IsOptional() @IsNumber() @Min(-3600) @Max(3600) angle?: number;
  @IsOptional() @IsIn(['ok', 'low']) battery?: 'ok' | 'low';
}

/** A shop that nobody works in yet: its name, and its first foreman. */
export class FirstRunBody {
  @TextLine('what is the shop called?') shop: string;
  @IsTimeZone({ message: 'is not a time zone, such as Europe/Vienna' }) zone: string;
  @Matches(/^[A-Z]{3}$/u, { message: 'is not a currency, such as EUR' }) currency: string;
  @TextLine('who is the foreman?') name: string;
  @LoginName() login: string;
  @NewPassword() password: string;
}

export class BookInCustomer {
  @IsOptional() @IsUUID() id?: string;
  @TextLine('whose is it?') name: string;
  @IsOptional() @IsString() @MaxLength(40, { message: 'is too long; at most 40 letters are kept' }) phone?: string;
}

export class BookInMachine {
  @IsOptional() @IsUUID() id?: string;
  @TextLine('what machine is it off?') name: string;
  /** The number on its plate, where it has one. */
  @IsOptional() @IsString() @MaxLength(60, { message: 'is too long; at most 60 letters are kept' }) serial?: string;
}

export class BookInUnit {
  @IsOptional() @IsUUID() id?: string;
  @TextLine('which unit, and which side?') name: string;
  /** What stands on it; without one the number of its first job is its tag. */
  @IsOptional() @IsString() @MaxLength(60, { message: 'is too long; at most 60 letters are kept' }) serial?: string;
}

const MOST_MINOR = 1_000_000_000;

export class BookInBody {
  /** Made by the client: booking in twice with one id is one job. */
  @IsUUID('7') id: string;
  @IsObject({ message: 'is missing: whose is it?' }) @ValidateNested() @Type(() => BookInCustomer) customer: BookInCustomer;
  /** What the unit is off; nothing for one that came over the counter. */
  @IsOptional() @PartOf(() => BookInMachine) machine?: BookInMachine;
  @IsObject({ message: 'is missing: which unit?' }) @ValidateNested() @Type(() => BookInUnit) unit: BookInUnit;
  @IsUUID(undefined, { message: 'is missing: pick the sheet of this unit' }) sheetRevisionId: string;
  @TextLine('what does the customer say?', 2000) complaint: string;
  @Instant() promise: string;
  /** Money in minor units of the shop's currency. */
  @IsInt({ message: 'must be an amount of money' })
  @Min(0, { message: 'must not be under 0' })
  @Max(MOST_MINOR, { message: 'is too large' })
  estimateMinor: number;
  @IsOptional() @PartOf(() => JobScope) scope?: JobScope;
}

export class PatchJobBody {
  @Version() version: number;
  @IsOptional() @TextLine('what does the customer say?', 2000) complaint?: string;
  @IsOptional() @Instant() promise?: string;
  @IsOptional()
  @IsInt({ message: 'must be an amount of money' })
  @Min(0, { message: 'must not be under 0' })
  @Max(MOST_MINOR, { message: 'is too large' })
  estimateMinor?: number;
}

export class ImportSheetBody {
  /** The sheet file as text, so that errors can name its line. */
  @IsString({ message: 'is missing: the sheet file' }) @MaxLength(4_000_000) text: string;
  /** Only say what it would change. */
  @IsOptional() @IsBoolean() look?: boolean;
  /** The version of the draft that it takes the place of, as it was looked at. */
  @IsOptional() @Version() over?: number;
}

/** A draft as an editor leaves it. It may be incomplete: what is wrong with it is found, not refused. */
export class SaveDraftBody {
  @Version() version: number;
  @IsObject() file: object;
}

/** A draft that was thrown away, as it was. */
export class DraftBackBody {
  @IsObject() file: object;
}

/** A sheet for a model that the shop does not know yet. */
export class NewSheetBody {
  /** A kind of unit that there are sheets of, or one of the shop's own. */
  @TextLine('what kind of unit is it?', 80) family: string;
  @TextLine('who made it?', 80) make: string;
  @TextLine('which model is it?', 80) model: string;
  @TextLine('what machine is it off?') machine: string;
}

export class SettleBody {
  @IsIn(['taken', 'left']) how: 'taken' | 'left';
}
