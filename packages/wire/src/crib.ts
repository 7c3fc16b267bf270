import { QUANTITIES, type Quantity } from '@jubb/core';
import { CRIB_KINDS, type CribKind, type Tool } from '@jubb/sheet';
import { TextLine, Version, Day, RowsOf } from '@jubb/sheet/given';
import 'reflect-metadata';
import { IsIn, IsInt, IsNumber, IsOptional, IsString, IsUUID, Matches, Max, MaxLength, Min } from 'class-validator';

/** A tool as it lies in the crib; figures in base units. */
export class ToolBody {
  @Matches(/^[\p{L}\p{N}][\p{L}\p{N} .-]{0,11}$/u, { message: 'must be 1 to 12 letters and digits, as it stands on the tool' }) tag: string;
  @TextLine('what is it?', 80) name: string;
  @IsIn(CRIB_KINDS, { message: 'is missing: what kind of tool?' }) kind: CribKind;
  @IsIn(QUANTITIES) quantity: Quantity;
  @IsString() @MaxLength(12) unit: string;
  /** Ends of its range, both nothing where it has none; of what pushes its inside and its outside, mm. */
  @ToolFigure(-1e6) low: number;
  @ToolFigure(-1e6) high: number;
  /** The smallest step that it shows. */
  @ToolFigure(0) resolution: number;
  /** No reading of it is further off: by its certificate, or its maker. */
  @ToolFigure(0) within: number;
  /** Drive centre to grip of a wrench, drive centre to jaw of a crowfoot; of what pushes, how far it reaches. */
  @IsOptional() @ToolFigure(1) length?: number;
  /** When its next check is due; nothing where it needs none. */
  @IsOptional() @Day() due?: string;
  @IsOptional()
  @IsInt({ message: 'must be a whole number of days' })
  @Min(1, { message: 'must be at least a day' })
  @Max(3650, { message: 'must be at most ten years' })
  everyDays?: number;
}

export class ToolChangeBody extends ToolBody {
  @Version() version: number;
}

function ToolFigure(least: number): PropertyDecorator {
  return (target, property) => {
    IsNumber({}, { message: 'must be a figure, with its unit or in the one picked' })(target, property);
    Min(least, { message: `must not be under ${least}` })(target, property);
    Max(1e6, { message: 'is too large' })(target, property);
  };
}

/** One point of a check, in base units: what the tool said, and what was true. */
export class CheckPoint {
  @IsNumber({}, { message: 'must be a number' }) @Min(-1e6) @Max(1e6) shown: number;
  @IsNumber({}, { message: 'must be a number' }) @Min(-1e6) @Max(1e6) true: number;
}

/** A check of a tool against something better. */
export class ToolCheckBody {
  @IsUUID('7') id: string;
  @IsIn(['good', 'out'], { message: 'is missing: good or out?' }) verdict: 'good' | 'out';
  @RowsOf(() => CheckPoint, 60) points: CheckPoint[];
  /** What it was held against, and its paper. */
  @TextLine('held against what?', 200) against: string;
  @IsOptional() @IsString() @MaxLength(80) certificate?: string;
  /** Its certificate, brought in as a PDF. */
  @IsOptional() @IsUUID() paperId?: string;
  /** When the next one is due; none for a tool that needs none. */
  @IsOptional() @Day() due?: string;
  @IsOptional() @IsInt() @Min(1) @Max(3650) everyDays?: number;
}

/** Out of use for good, and why: worn out, broken, sold; without a reason it is in use again. */
export class RetireBody {
  @Version() version: number;
  @IsOptional() @TextLine('why? Worn out, broken, sold', 200) why?: string | null;
}

/** Its photo; none takes it off. */
export class ToolPictureBody {
  @Version() version: number;
  @IsOptional() @Matches(/^[0-9a-f]{64}$/u, { message: 'must be a SHA-256, 64 hexadecimal digits' }) file?: string | null;
}

/** Who has it; nobody when it lies in the crib. */
export class LendBody {
  @Version() version: number;
  @IsOptional() @IsUUID() personId?: string | null;
}

export class StudyReading {
  @TextLine('who?', 60) person: string;
  @TextLine('which part?', 60) part: string;
  @IsNumber({}, { message: 'must be a number' }) @Min(-1e6) @Max(1e6) reading: number;
}

/** A gauge study: several people, several parts, each measured more than once. */
export class StudyBody {
  @IsUUID('7') id: string;
  @RowsOf(() => StudyReading, 1000, 8) readings: StudyReading[];
}

export interface ToolCheck {
  readonly id: string;
  readonly verdict: 'good' | 'out';
  readonly points: readonly CheckPoint[];
  readonly against: string;
  readonly certificate: string | null;
  readonly paperId: string | null;
  readonly due: string | null;
  readonly person: string;
  readonly at: string;
}

/** An entry that was made with a tool since it was last known to be good. */
export interface TouchedEntry {
  readonly entryId: string;
  readonly jobId: string;
  readonly jobNumber: number;
  readonly closedAt: string | null;
  readonly kind: string;
  readonly step: string | null;
  readonly at: string;
}

export interface ToolView extends Tool {
  readonly version: number;
  readonly retiredWhy: string | null;
  readonly picture: string | null;
  readonly everyDays: number | null;
  readonly holder: { readonly id: string; readonly name: string; readonly since: string } | null;
  /** Newest first. */
  readonly checks: readonly ToolCheck[];
  readonly studies: readonly {
    readonly id: string;
    readonly at: string;
    readonly person: string;
    readonly sigma: number;
    readonly share: number;
    readonly categories: number;
  }[];
  /** What it touched since its last good check, when the newest check found it out; else nothing. */
  readonly touched: readonly TouchedEntry[];
}
