import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { POLICIES, STAGES, TOOL_KINDS, TRUSTS, type Policy, type Stage, type ToolKind, type Trust } from '../words.js';
import { IsFigure } from '../validators.js';

/**
 * The sheet file: all that is known about a model. Quantities stay as their author typed them
 * ("108 N·m"); `resolve.ts` turns them into base units where they are used.
 */
export const SHEET_FORMAT = 'jubb-sheet/1';

const REF = /^[a-z0-9]+(-[a-z0-9]+)*$/u;

/** A short name in small letters by which other lines point here. */
function Ref(): PropertyDecorator {
  return Matches(REF, { message: 'must be small letters, digits and single hyphens, such as "wheel-nuts"' });
}

function Name(longest = 200): PropertyDecorator {
  return (target, property) => {
    IsString()(target, property);
    MinLength(1, { message: 'must not be empty' })(target, property);
    MaxLength(longest)(target, property);
  };
}

function Rows(of: () => new () => object, most = 400): PropertyDecorator {
  return (target, property) => {
    IsArray()(target, property);
    ArrayMaxSize(most)(target, property);
    ValidateNested({ each: true })(target, property);
    Type(of)(target, property);
  };
}

function Nested(of: () => new () => object): PropertyDecorator {
  return (target, property) => {
    ValidateNested()(target, property);
    Type(of)(target, property);
  };
}

export class Sourced {
  @IsIn(TRUSTS) trust: Trust;
  /** Ref of a document of the sheet, or words. */
  @Name() source: string;
  @IsOptional() @Name(40) page?: string;
}

export class TorqueValue extends Sourced {
  @IsFigure('torque') figure: string;
  /** Either way, as a share of the figure. */
  @IsOptional() @IsFigure('ratio') tolerance?: string;
}

export class LengthValue extends Sourced {
  @IsFigure('length') figure: string;
}

export class AmountValue extends Sourced {
  @IsFigure(['mass', 'volume']) figure: string;
}

/** A window; an end left out is open. */
export class Span extends Sourced {
  @IsOptional() @IsString() @MaxLength(40) from?: string;
  @IsOptional() @IsString() @MaxLength(40) to?: string;
}

export class SheetDocument {
  @Ref() ref: string;
  @Name() title: string;
  @IsOptional() @Name(80) edition?: string;
}

export class Part {
  @Ref() ref: string;
  @Name() name: string;
  @IsOptional() @Name(60) number?: string;
  @IsInt() @Min(1) @Max(1000) quantity: number;
  @IsIn(POLICIES) policy: Policy;
  @IsOptional() @IsFigure('mass') mass?: string;
  @IsOptional() @Name(500) note?: string;
}

export class Pattern {
  @IsIn(['circle', 'two-rows']) layout: 'circle' | 'two-rows';
  /** Share of the full torque in each pass, rising to 1. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(8)
  @IsNumber({}, { each: true })
  @Min(0.01, { each: true })
  @Max(1, { each: true })
  passes: number[];
  /** A last pass round the joint at the full torque, until none turns. */
  @IsBoolean() checkPass: boolean;
}

export class Joint {
  @Ref() ref: string;
  @Name() name: string;
  /** Part ref of the fasteners. */
  @Ref() part: string;
  @IsInt() @Min(1) @Max(400) count: number;
  @Name(40) thread: string;
  @IsOptional() @Name(20) propertyClass?: string;
  @IsIn(['right', 'left']) hand: 'right' | 'left';
  @Name(40) drive: string;
  @Name(60) condition: string;
  @IsBoolean() renewEachTime: boolean;
  @Nested(() => TorqueValue) torque: TorqueValue;
  @Nested(() => Pattern) pattern: Pattern;
}

export class CastleNut {
  @Name(40) thread: string;
  @IsFigure('pitch') pitch: string;
  @IsInt() @Min(1) @Max(72) slots: number;
  /** Pin-hole openings round the spindle in degrees, counted against the tightening direction. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(12)
  @IsNumber({}, { each: true })
  @Min(0, { each: true })
  @Max(359.999, { each: true })
  openings: number[];
  @Nested(() => TorqueValue) seat: TorqueValue;
  @IsFigure('angle') backOff: string;
}

export class Setting {
  @Ref() ref: string;
  @Name() name: string;
  @Equals('end-play') kind: 'end-play';
  @Equals('castle-nut') method: 'castle-nut';
  @Nested(() => Span) window: Span;
  @IsOptional() @Nested(() => LengthValue) aim?: LengthValue;
  @Nested(() => CastleNut) nut: CastleNut;
  @IsIn(TOOL_KINDS) tool: ToolKind;
  @IsInt() @Min(1) @Max(20) repeats: number;
  @IsOptional() @Name(1000) how?: string;
}

export class Seal {
  @Ref() ref: string;
  @Ref() part: string;
  @IsIn(['lip-seal', 'o-ring', 'gasket']) kind: 'lip-seal' | 'o-ring' | 'gasket';
  @Name(60) size: string;
  @Name(40) material: string;
  @Name(200) direction: string;
  @Nested(() => Span) depth: Span;
  @IsIn(TOOL_KINDS) tool: ToolKind;
  @Name(100) lubricant: string;
  @IsArray() @ArrayMaxSize(20) @IsString({ each: true }) @MaxLength(300, { each: true }) protect: string[];
}

export class Look {
  @Ref() ref: string;
  @Name() words: string;
  @IsIn(['in', 'out', 'unsure']) verdict: 'in' | 'out' | 'unsure';
}

export class Limit {
  @Ref() ref: string;
  @Name() name: string;
  /** Part that it condemns when it is out; none when it only tells of the unit. */
  @IsOptional() @Ref() part?: string;
  @IsIn(['size', 'look']) kind: 'size' | 'look';
  @IsOptional() @IsIn(['length', 'torque', 'angle', 'mass']) quantity?: 'length' | 'torque' | 'angle' | 'mass';
  @IsOptional() @Nested(() => Span) asNew?: Span;
  @IsOptional() @Nested(() => Span) service?: Span;
  @IsOptional() @IsIn(TOOL_KINDS) tool?: ToolKind;
  @IsOptional() @IsInt() @Min(1) @Max(20) repeats?: number;
  @IsOptional() @Rows(() => Look, 20) looks?: Look[];
  @Name(1000) how: string;
  @Name(500) whenOut: string;
}

export class Fluid {
  @Ref() ref: string;
  @Name() name: string;
  @Name(100) grade: string;
  @Nested(() => AmountValue) amount: AmountValue;
  @IsOptional() @IsFigure('ratio') tolerance?: string;
  @Name(500) rule: string;
}

export class Caution {
  @Ref() ref: string;
  @Name(600) text: string;
  @IsOptional() @Name(200) wear?: string;
}

export class Counted {
  @Ref() part: string;
  @IsInt() @Min(1) @Max(1000) count: number;
  @IsOptional() @Name(100) place?: string;
}

export const RECORD_KINDS = [
  'tick',
  'arrival',
  'count',
  'reading',
  'look',
  'decide',
  'reconcile',
  'fluid',
  'seal',
  'setting',
  'torque',
  'proof',
  'sign',
  'hand-over',
] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

export class StepRecord {
  @IsIn(RECORD_KINDS) kind: RecordKind;
  @IsOptional() @Ref() limit?: string;
  @IsOptional() @Ref() joint?: string;
  @IsOptional() @Ref() setting?: string;
  @IsOptional() @Ref() seal?: string;
  @IsOptional() @Ref() fluid?: string;
  @IsOptional() @Rows(() => Counted, 60) counts?: Counted[];
}

export class OpensEnd {
  @Name() what: string;
  @Name(100) place: string;
  /** Ref of the step that closes it. */
  @Ref() closedBy: string;
}

export class Step {
  @Ref() ref: string;
  @IsIn(STAGES) stage: Stage;
  @Name(120) title: string;
  @Name(1000) act: string;
  @IsOptional() @Name(600) why?: string;
  @IsOptional() @Name(400) expect?: string;
  @IsOptional() @Name(400) stopWhen?: string;
  @IsOptional() @IsArray() @ArrayMaxSize(20) @IsString({ each: true }) @MaxLength(120, { each: true }) needs?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(10) @Matches(REF, { each: true }) cautions?: string[];
  @Nested(() => StepRecord) record: StepRecord;
  @IsOptional() @Nested(() => OpensEnd) opens?: OpensEnd;
}

export class CustomerNote {
  @Ref() ref: string;
  @Name(500) text: string;
}

export class SheetFile {
  @Equals(SHEET_FORMAT, { message: `must be "${SHEET_FORMAT}"` }) format: typeof SHEET_FORMAT;
  @Ref() key: string;
  @Name() title: string;
  @Name(80) family: string;
  @Name(80) make: string;
  @Name(80) model: string;
  @Name(120) machine: string;
  @IsOptional() @Name(2000) notes?: string;
  @Rows(() => SheetDocument, 40) documents: SheetDocument[];
  @ArrayMinSize(1) @Rows(() => Part) parts: Part[];
  @Rows(() => Joint) joints: Joint[];
  @Rows(() => Setting) settings: Setting[];
  @Rows(() => Seal) seals: Seal[];
  @Rows(() => Limit) limits: Limit[];
  @Rows(() => Fluid) fluids: Fluid[];
  @Rows(() => Caution) cautions: Caution[];
  @ArrayMinSize(1) @Rows(() => Step) steps: Step[];
  @Rows(() => CustomerNote, 20) customerNotes: CustomerNote[];
}
