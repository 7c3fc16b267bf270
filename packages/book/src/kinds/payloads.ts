import {
  PART_METALS,
  type PartMetal,
  ANSWERS,
  CAUSE_SORTS,
  FATES,
  FINDING_SORTS,
  HOLD_REASONS,
  LONGEST_CLIP_S,
  METALS,
  MOVED_HOW,
  OLD_FATES,
  OPEN_END_KINDS,
  STAGES,
  VALUE_LISTS,
  type CauseSort,
  type CustomerAnswer,
  type Fate,
  type FindingSort,
  type HoldReason,
  type Metal,
  type MovedHow,
  type OldFate,
  type OpenEndKind,
  type Stage,
  type ValueList,
} from '@jubb/sheet';
import { Day } from '@jubb/sheet/given';
import { Figures, FileRef, Pieces, Ref, Words } from './fields.js';
import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayUnique,
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';

export * from './build-payloads.js';

/** One class for each kind of entry: what its payload may hold. Lengths in mm, torques in N·m, angles in degrees, amounts in kg or L. */

export class FindingPayload {
  @Words(2000) text: string;
  @IsOptional() @Words(200) place?: string;
  /** Damage as it was found, or a sign that somebody was in there before. */
  @IsOptional() @IsIn(FINDING_SORTS) sort?: FindingSort;
  /** Nothing to be found is a finding too. */
  @IsOptional() @IsBoolean() nothing?: boolean;
}

/** A place on a photo, in thousandths of its width and height from the upper left. */
export class Spot {
  @IsNumber() @Min(0) @Max(1000) x: number;
  @IsNumber() @Min(0) @Max(1000) y: number;
}

export class CameOffPayload {
  @IsOptional() @Ref() part?: string;
  @Words(200) name: string;
  @Pieces() count: number;
  @IsOptional() @Words(100) place?: string;
  @IsOptional() @Words(60) tray?: string;
  /** Thread and length, or a length alone, where several differ: "M8 x 25". */
  @IsOptional() @Words(60) size?: string;
  /** Which way it sat: "bevel up", "lip in". */
  @IsOptional() @Words(100) direction?: string;
  /** What was marked before it came off: it is met again in the build. */
  @IsOptional() @Words(200) mark?: string;
  /** What it looked like. */
  @IsOptional() @Words(200) condition?: string;
  /** The stack that it lay in, on one axis with others. */
  @IsOptional() @Words(60) stack?: string;
  /** Line of the assembly that came off whole, and that this came out of when it was opened. */
  @IsOptional() @IsUUID() inside?: string;
  /** Fasteners of a joint: the places that they came out of, from 0. */
  @IsOptional() @Ref() joint?: string;
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(120)
  @ArrayUnique()
  @IsInt({ each: true })
  @Min(0, { each: true })
  places?: number[];
  /** The photo on which it was shown where each of them was. */
  @IsOptional() @IsUUID() photo?: string;
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(120)
  @ValidateNested({ each: true })
  @Type(() => Spot)
  spots?: Spot[];
}

/** A mark on something that stays where it is, or that comes off later: pull, stop, mark, go on. */
export class MarkPayload {
  @Words(200) what: string;
  @Words(200) mark: string;
  @IsOptional() @Ref() part?: string;
  /** Who held while it was made. */
  @IsOptional() @Words(100) with?: string;
}

/** The mark lines up again: made by the line of the ledger, or by the entry of the mark. */
export class MarkMetPayload {
  @IsUUID() mark: string;
}

/** Pieces of a line of the ledger that are in again. */
export class WentInPayload {
  /** The line, and what it names. */
  @IsUUID() line: string;
  @Words(200) name: string;
  @Pieces() count: number;
}

const LONGEST_WAIT_S = 14 * 24 * 3600;

/** A clock that runs from when it was taken: a soak, a cure, a cool-down. */
export class WaitPayload {
  @Words(200) what: string;
  @IsInt() @Min(1) @Max(LONGEST_WAIT_S) seconds: number;
}

/** Somebody heard it ring. */
export class WaitOverPayload {
  @IsUUID() wait: string;
}

export class TickPayload {
  @IsOptional() @Words(1000) note?: string;
}

export class CautionReadPayload {
  @Ref() caution: string;
}

/** A click wrench gives no figure but a bracket, N·m: nothing moved up to here, it let go from there on. */
export class Bracket {
  @IsNumber() @Min(0) @Max(20000) held: number;
  /** None when it never moved. */
  @IsOptional() @IsNumber() @Min(0) @Max(20000) letGo?: number;
}

/** A part that was not at 20 °C when it was measured. */
export class Warm {
  /** °C, right through. */
  @IsNumber({}, { message: 'must be a temperature' })
  @Min(-40, { message: 'must be at least -40 °C' })
  @Max(150, { message: 'must be at most 150 °C' })
  partT: number;
  @IsIn(PART_METALS) metal: PartMetal;
}

export class ReadingPayload {
  @Ref() limit: string;
  /** Up to what is taken for an open circuit, Ω. */
  @Figures(-20000, 1e9) readings: number[];
  /** Unit symbol in which it was typed. */
  @IsString() @MaxLength(10) unit: string;
  /** Of what a click wrench found; the reading is then the end of the bracket that it let go at, or held. */
  @IsOptional() @ValidateNested() @Type(() => Bracket) bracket?: Bracket;
  /** It is judged as it would be at 20 °C. */
  @IsOptional() @ValidateNested() @Type(() => Warm) warm?: Warm;
  /** The tool was set to zero, or checked on its setting piece, before. */
  @IsOptional() @IsBoolean() zeroed?: boolean;
}

export class LookPayload {
  @Ref() limit: string;
  @Ref() look: string;
  @IsOptional() @Words(1000) note?: string;
}

/** Why a part failed, and what shows it: what the magnet held, a colour, where it is worn. */
export class FailedBy {
  @IsIn(CAUSE_SORTS) sort: CauseSort;
  @IsOptional() @Words(300) words?: string;
}

export class DecisionPayload {
  @Ref() part: string;
  @IsIn(FATES) fate: Fate;
  @IsInt() @Min(1) @Max(1000) quantity: number;
  @IsOptional() @Words(500) reason?: string;
  @IsOptional() @ValidateNested() @Type(() => FailedBy) cause?: FailedBy;
}

/** Pieces of a stock line that go in. */
export class Taken {
  @IsUUID() item: string;
  @Pieces() count: number;
}

/** A working that was used on the job: what went in is kept, the server works it out again and keeps the result. */
export class WorkedPayload {
  @Matches(/^[a-z]+\.[a-z0-9-]+$/u, { message: 'must be the id of a working' }) working: string;
  @IsObject() input: object;
  /** What it is about: a verdict of "out" proposes to renew it. */
  @IsOptional() @Ref() part?: string;
  /** The setting that is set by it, the fit that it is about, or the joint whose torque it is. */
  @IsOptional() @Ref() setting?: string;
  @IsOptional() @Ref() fit?: string;
  @IsOptional() @Ref() joint?: string;
  /** Shims out of stores that lie in at the setting from now on: all of the pack. */
  @IsOptional() @IsArray() @ArrayMaxSize(20) @ValidateNested({ each: true }) @Type(() => Taken) taken?: Taken[];
}

/** What the customer said to a quote, by the link that was sent. */
export class AnsweredPayload {
  @IsInt() @Min(1) quote: number;
  @IsIn(ANSWERS) answer: CustomerAnswer;
  @IsOptional() @Words(60) option?: string;
  @IsOptional() @Words(1000) words?: string;
  /** What it comes to with tax, in minor units. */
  @IsOptional() @IsInt() @Min(0) grossMinor?: number;
}

/** How many of a part lie on the bench before the build, old and new together. */
export class CountedPayload {
  @IsOptional() @Ref() part?: string;
  @Words(200) name: string;
  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'must not be under 0' })
  @Max(1000, { message: 'must be at most 1000' })
  count: number;
}

export class FluidPayload {
  @Ref() fluid: string;
  /** Nothing where it was filled until it showed. */
  @IsNumber() @Min(0) @Max(1000, { message: 'must be at most 1000' }) amount: number;
  @IsString() @MaxLength(10) unit: string;
}

export class OpenEndPayload {
  @Words(200) what: string;
  @IsOptional() @Words(100) place?: string;
  @Words(200) closes: string;
  @IsOptional() @IsIn(OPEN_END_KINDS) kind?: OpenEndKind;
  /** Turns of an adjuster from its stop, as found; tightening is plus. */
  @IsOptional() @IsNumber() @Min(-200) @Max(200) turns?: number;
  /** The step whose doing closes it; none: it is closed by hand. */
  @IsOptional() @Ref() closedBy?: string;
}

/** Moved to get at the unit: it goes back where it was. */
export class MovedPayload {
  @Words(200) what: string;
  @IsIn(MOVED_HOW) how: MovedHow;
  /** How it runs, of a belt, a hose or a wire: over what, behind what. */
  @IsOptional() @Words(300) routing?: string;
}

export class PutBackPayload {
  @IsUUID() moved: string;
}

/** A picture, and what it is of: an entry that it stands beside, or words. */
export class PhotoPayload {
  @FileRef() file: string;
  @IsInt() @Min(1) @Max(10_000) width: number;
  @IsInt() @Min(1) @Max(10_000) height: number;
  @IsOptional() @Words(300) words?: string;
  @IsOptional() @IsUUID() of?: string;
}

/** Something said, or seen and heard, for some seconds. */
export class ClipPayload {
  @FileRef() file: string;
  @IsIn(['audio', 'video']) sort: 'audio' | 'video';
  @IsNumber() @Min(0.1) @Max(LONGEST_CLIP_S + 1, { message: `must be at most ${LONGEST_CLIP_S} s` }) seconds: number;
  @Words(200) words: string;
}

/** Where an old part goes; it is not let go before the new one was held against it. */
export class OldPartPayload {
  @IsOptional() @Ref() part?: string;
  @Words(200) name: string;
  @IsIn(OLD_FATES) fate: OldFate;
  /** The new one was held against it: size, holes, teeth, length. */
  @IsBoolean() compared: boolean;
}

/** Whether a part is to be kept or may be spoilt changes how it comes off. */
export class IntentPayload {
  @Ref() part: string;
  @IsIn(['keep', 'sacrifice']) intent: 'keep' | 'sacrifice';
}

/** The old seal or ring is out of its place, whole, or pieces of it are still in there. */
export class OldSealOutPayload {
  @Ref() seal: string;
  @IsBoolean() whole: boolean;
  @IsOptional() @Words(300) words?: string;
}

/** What takes the place of a part lies here: before an act that cannot be undone, and before anything new goes in. */
export class ReplacementHerePayload {
  @Words(300) seen: string;
  /** Of which part, and how many; nothing where it is said of the step as a whole. */
  @IsOptional() @Ref() part?: string;
  @IsOptional() @Pieces() count?: number;
  /** The stock line that they are taken out of by this. */
  @IsOptional() @IsUUID() item?: string;
}

/** A fluid that came out: how much, what it looked like. */
export class CameOutPayload {
  @Words(100) name: string;
  /** L; nothing where it was not caught. */
  @IsOptional() @IsNumber() @Min(0) @Max(1000) litres?: number;
  @IsOptional() @Words(100) colour?: string;
  /** What the magnet and the pan show. */
  @IsOptional() @IsIn(METALS) metal?: Metal;
}

export class HoldPayload {
  @IsIn(HOLD_REASONS) reason: HoldReason;
  @Words(300) words: string;
}

/** What it waited for is there. */
export class HoldOffPayload {
  @IsOptional() @Words(300) words?: string;
}

export class OpenEndClosedPayload {
  @IsUUID() opened: string;
}

export class StrikePayload {
  @Words(300) reason: string;
}

export class NotePayload {
  @Words(2000) text: string;
}

/** A trap met, or a value that worked: a proposal for the sheet, beside the line it is about. */
export class NextTimePayload {
  @Words(1000) text: string;
  /** List and line of the sheet. */
  @IsOptional() @Words(40) list?: string;
  @IsOptional() @Ref() line?: string;
  /** Field of the line, and the figure that worked. */
  @IsOptional() @Words(60) field?: string;
  @IsOptional() @Words(60) figure?: string;
}

/** A value that is only somebody's word, or none where one is meant to be, and is used all the same. */
export class ValueTakenPayload {
  @IsIn(VALUE_LISTS) list: ValueList;
  @Ref() line: string;
}

export class FoundFigure {
  /** Path within the line: "torque.figure". */
  @Words(60) field: string;
  @Words(60) figure: string;
}

/** The right figures of such a value, found while the job goes on: for this job at once, for the sheet a proposal. */
export class ValueFoundPayload {
  @IsIn(VALUE_LISTS) list: ValueList;
  @Ref() line: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'needs at least one figure' })
  @ArrayMaxSize(4)
  @ValidateNested({ each: true })
  @Type(() => FoundFigure)
  figures: FoundFigure[];
  /** Where it stands, or who says so. */
  @Words(200) source: string;
  /** Worked out here, and nobody's word. */
  @IsOptional() @IsBoolean() calculated?: boolean;
}

/** Put off with the customer's knowledge: it greets the next booking of the machine. */
export class OwedPayload {
  @Words(300) what: string;
  /** What the customer said to it: as much as an answer to a quote may say. */
  @Words(1000) told: string;
  /** When it comes due: a day, a reading of the hour meter, or both. */
  @IsOptional() @Day() due?: string;
  @IsOptional() @IsNumber() @Min(0) @Max(1_000_000, { message: 'must be at most 1000000' }) hours?: number;
}

/** What was owed is done, or the customer does not want it any more. */
export class OwedSettledPayload {
  /** Entry that it was owed by, of this job or of an earlier one of the machine. */
  @IsUUID() owed: string;
  @IsIn(['done', 'dropped']) how: 'done' | 'dropped';
  @IsOptional() @Words(300) reason?: string;
}

/** The job goes on by another revision of its sheet. */
export class PinnedPayload {
  @IsUUID() revisionId: string;
  @IsInt() @Min(1) revision: number;
}

/** Who agreed to a way that departs from the maker. */
export class Agreed {
  @Words(100) foreman: string;
  /** What the customer said. */
  @Words(300) customer: string;
}

/** Which way was gone, where a step offers several. */
export class WayPayload {
  @Ref() way: string;
  @IsOptional() @ValidateNested() @Type(() => Agreed) agreed?: Agreed;
}

export class StagePayload {
  @IsIn(STAGES) stage: Stage;
  /** Why it is taken on with something before it open. */
  @IsOptional() @Words(300) why?: string;
}

export class SignPayload {
  @IsString() @MinLength(2) @MaxLength(100) name: string;
}

export class HandedOverPayload {
  @IsString() @MinLength(2, { message: 'is missing: who takes it?' }) @MaxLength(100) receivedBy: string;
  @IsBoolean() cautionsTold: boolean;
}
