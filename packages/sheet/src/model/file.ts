import { MEDIUM_IDS, type MediumId } from '@jubb/core';
import { IsFigure } from '../given/figures.js';
import { JOB_PLACES, POLICIES, STAGES, TOOL_KINDS, type Family, type JobPlace, type Policy, type Stage, type ToolKind } from '../words.js';
import {
  DOINGS,
  FASTENING_KINDS,
  FEMALE_MATERIALS,
  FILL_RULES,
  GRID_OF,
  HAZARDS,
  HOLD_BY,
  LAYOUTS,
  LIMIT_KINDS,
  PULLS,
  type Pull,
  LIMIT_QUANTITIES,
  LOOK_PICTURES,
  ORIENTATIONS,
  PRESSED_ON,
  GOES_BY,
  RECORD_KINDS,
  SURFACES,
  type GoesBy,
  type Surface,
  SEAL_AFTER,
  SEAL_KINDS,
  SETTING_KINDS,
  SETTING_METHODS,
  STAGE_KINDS,
  STEP_BENCHES,
  WARMED,
  type Doing,
  type FasteningKind,
  type GridOf,
  type Hazard,
  type HoldBy,
  type Layout,
  type LimitQuantity,
  type LookPicture,
  type Orientation,
  type PressedOn,
  type RecordKind,
  type SealAfter,
  type SealKind,
  type SettingKind,
  type SettingMethod,
  type StageKind,
  type StepBench,
  type Warmed,
} from './choices.js';
import { Coat } from './coat.js';
import { ComingOff } from './coming-off.js';
import { Lines, Name, Nested, Ref, Refs, Rows } from './fields.js';
import { Reshaping } from './reshaping.js';
import { Proof } from './proof.js';
import { Lead, Wait } from './timing.js';
import { AmountValue, AngleValue, LengthValue, Span, TorqueValue } from './values.js';
import 'reflect-metadata';
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
  IsUUID,
  Matches,
  Max,
  Min,
} from 'class-validator';

/**
 * The sheet file: all that is known about a model. Quantities stay as their author typed them
 * ("108 N·m"); `resolve.ts` turns them into base units where they are used.
 */
export const SHEET_FORMAT = 'jubb-sheet/1';

/** A line that a job has several times: once for each side, or for each of what the unit has several of. */
export class Sided {
  /** What it is of each of: two heads, three planets. */
  @IsOptional() @Ref() each?: string;
  /** Which side. No file says so: the scope of the job puts it there, and the two below. */
  side?: string;
  /** Which of the several. */
  instance?: string;
  /** Its ref as the sheet has it. */
  base?: string;
}

/** What a unit has several of, alike, each with its own readings, pulls and marks: heads, rods, planets, wheels. */
export class Several {
  @Ref() ref: string;
  /** One of them: "head". */
  @Name(40) name: string;
  /** What tells them apart: "front head", "rear head". */
  @ArrayMinSize(2) @Lines(12, 40) names: string[];
}

/** Fasteners of one length within a joint. */
export class FastenerLength {
  @IsFigure('length') length: string;
  @IsInt() @Min(1) @Max(120) count: number;
  @IsOptional() @Name(200) where?: string;
}

export class SheetDocument {
  @Ref() ref: string;
  @Name() title: string;
  @IsOptional() @Name(80) edition?: string;
  /** The shop's own PDF of it, as it is kept here. */
  @IsOptional() @IsUUID() paper?: string;
}

/** A part that another number has taken the place of. */
export class Superseded {
  @Name(60) number: string;
  @Name(60) by: string;
}

export class Part extends Sided {
  @Ref() ref: string;
  @Name() name: string;
  @IsOptional() @Name(60) number?: string;
  /** Numbers that were, each with what took its place; the last of a chain is the one to order. */
  @IsOptional() @Rows(() => Superseded, 20) superseded?: Superseded[];
  /** What it is by its standard: a bearing, ring or seal designation. */
  @IsOptional() @Name(80) designation?: string;
  @IsInt() @Min(1) @Max(1000) quantity: number;
  @IsIn(POLICIES) policy: Policy;
  @IsOptional() @IsFigure('mass') mass?: string;
  /** Which one it is shows only when the unit is open: what to look for then. */
  @IsOptional() @Name(300) knownWhenOpen?: string;
  /** Pieces of it that come loose and must be the same number on each side. */
  @IsOptional() @IsBoolean() equalSides?: boolean;
  /** There must be as many of it as of this other part: balls left and right, brushes, springs. */
  @IsOptional() @Ref() asManyAs?: string;
  @IsOptional() @Name(500) note?: string;
}

/** Parts bought together under one number. */
export class Kit {
  @Ref() ref: string;
  @Name() name: string;
  @IsOptional() @Name(60) number?: string;
  @ArrayMinSize(1) @Refs() parts: string[];
}

/** Where a fastener stands on the plate; the whole joint fits a square of 1000. */
export class Place {
  @IsNumber() @Min(0) @Max(1000) x: number;
  @IsNumber() @Min(0) @Max(1000) y: number;
}

export class Pattern {
  @IsIn(LAYOUTS) layout: Layout;
  /** Fasteners of one row of a grid. */
  @IsOptional() @IsInt() @Min(1) @Max(60) columns?: number;
  /** Places of a free layout, one for each fastener. */
  @IsOptional() @Rows(() => Place) positions?: Place[];
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

/** One round of a staged joint: to a torque, by an angle, or until something is seen or felt. */
export class JointStage {
  @IsIn(STAGE_KINDS) kind: StageKind;
  @IsOptional() @Nested(() => TorqueValue) torque?: TorqueValue;
  @IsOptional() @Nested(() => AngleValue) angle?: AngleValue;
  /** What is seen or felt when it is done. */
  @IsOptional() @Name(200) until?: string;
}

export class Joint extends Sided {
  @Ref() ref: string;
  @Name() name: string;
  /** Part ref of the fasteners. */
  @Ref() part: string;
  @IsInt() @Min(1) @Max(120) count: number;
  @Name(40) thread: string;
  @IsOptional() @Name(20) propertyClass?: string;
  @IsIn(['right', 'left']) hand: 'right' | 'left';
  @Name(40) drive: string;
  @Name(60) condition: string;
  /** The same as a choice: what decides whether it is pulled wet, and how fast. */
  @IsOptional() @IsIn(SURFACES) surface?: Surface;
  @IsBoolean() renewEachTime: boolean;
  /** What the thread is cut into, where that is the weaker side. */
  @IsOptional() @IsIn(FEMALE_MATERIALS) into?: (typeof FEMALE_MATERIALS)[number];
  /** Length of full thread in that; 0.8 of the diameter where nothing is said. */
  @IsOptional() @IsFigure('length') engaged?: string;
  /** Lengths where they differ, longest first, with how many of each. */
  @IsOptional() @Rows(() => FastenerLength, 20) lengths?: FastenerLength[];
  /** Run-down torque of a locking nut or patch; added to the figure. */
  @IsOptional() @Nested(() => TorqueValue) prevailing?: TorqueValue;
  /** None: the book has no number for it. A staged joint has its last torque here. */
  @IsOptional() @Nested(() => TorqueValue) torque?: TorqueValue;
  /** Rounds in their order, where shares of one torque do not say it. */
  @IsOptional() @Rows(() => JointStage, 8) stages?: JointStage[];
  @Nested(() => Pattern) pattern: Pattern;
  @IsOptional() @Name(500) note?: string;
}

/** What holds without a tightened thread, and how one knows that it is home. */
export class Fastening extends Sided {
  @Ref() ref: string;
  @Name() name: string;
  @IsIn(FASTENING_KINDS) kind: FasteningKind;
  @IsOptional() @Ref() part?: string;
  @IsInt() @Min(1) @Max(120) count: number;
  @Name(400) seated: string;
  @IsOptional() @Name(100) tool?: string;
  /** A used one does not hold again: its new one is here before the step that seats it. */
  @IsOptional() @IsBoolean() renewEachTime?: boolean;
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

export class Setting extends Sided {
  @Ref() ref: string;
  @Name() name: string;
  @IsIn(SETTING_KINDS) kind: SettingKind;
  @IsIn(SETTING_METHODS) method: SettingMethod;
  /** A preload's window is a rolling torque; every other one a length. */
  @Nested(() => Span) window: Span;
  /** Where used bearings have a window of their own. */
  @IsOptional() @Nested(() => Span) windowUsed?: Span;
  /** The bearings that are new or used: which of the two windows holds. */
  @IsOptional() @Refs(8) bearings?: string[];
  /** Joints that lie over it: another shim or washer takes their pulls back. */
  @IsOptional() @Refs(8) under?: string[];
  /** How it is proved where the closed unit hides it. None: it is read again when all is closed. */
  @IsOptional() @Nested(() => Proof) proof?: Proof;
  @IsOptional() @Nested(() => LengthValue) aim?: LengthValue;
  /** Needed by the method castle-nut. */
  @IsOptional() @Nested(() => CastleNut) nut?: CastleNut;
  @IsIn(TOOL_KINDS) tool: ToolKind;
  @IsInt() @Min(1) @Max(20) repeats: number;
  @IsOptional() @Name(1000) how?: string;
}

/** A ring on its shaft or in its housing: what holds it there, and how it goes home. */
export class Fit extends Sided {
  @Ref() ref: string;
  @Name() name: string;
  /** What goes on or in. */
  @Ref() part: string;
  /** Diameter and length of the seat. */
  @IsFigure('length') seat: string;
  @IsFigure('length') long: string;
  /** Outside of the outer one of the two. */
  @IsFigure('length') outside: string;
  /** Interference that is wanted, minus is play; or the two zones that say it, "K7/k6". */
  @IsOptional() @Nested(() => Span) wanted?: Span;
  @IsOptional()
  @Matches(/^[A-Z]{1,2}\d{1,2}\/[a-z]{1,2}\d{1,2}$/u, { message: 'must be two zones of ISO 286, such as "K7/k6"' })
  zones?: string;
  @IsIn(PRESSED_ON) pressedOn: PressedOn;
  @IsIn(WARMED) warmed: Warmed;
  /** Never warmer than this. */
  @IsOptional() @IsFigure('temperature') most?: string;
  @IsOptional() @Name(500) how?: string;
  /** How it comes off again. */
  @IsOptional() @Nested(() => ComingOff) off?: ComingOff;
}

export class Seal extends Sided {
  @Ref() ref: string;
  @Ref() part: string;
  @IsIn(SEAL_KINDS) kind: SealKind;
  @Name(60) size: string;
  @Name(40) material: string;
  @Name(200) direction: string;
  /** How it lies, as a drawing of its section. */
  @IsOptional() @IsIn(ORIENTATIONS) picture?: Orientation;
  /** Below the face; none for a ring that has no depth to read. */
  @IsOptional() @Nested(() => Span) depth?: Span;
  /** The face that the depth is read from, in the words of the unit: "face of the hub". */
  @IsOptional() @Name(80) depthFrom?: string;
  @IsOptional() @IsIn(TOOL_KINDS) tool?: ToolKind;
  @Name(100) lubricant: string;
  /** What it is wet with in the unit, as "Does this rubber stand this fluid?" names it. */
  @IsOptional() @IsIn(MEDIUM_IDS) medium?: MediumId;
  /** What covers edge, thread, splines or keyway while it goes on, and comes off again: "tape over the splines". */
  @IsOptional() @Name(120) guard?: string;
  /** What is looked at once it is in. */
  @IsOptional() @IsArray() @ArrayMaxSize(3) @IsIn(SEAL_AFTER, { each: true }) after?: SealAfter[];
  @Lines(20, 300) protect: string[];
}

export class Look {
  @Ref() ref: string;
  @Name() words: string;
  @IsIn(['in', 'out', 'unsure']) verdict: 'in' | 'out' | 'unsure';
  @IsOptional() @IsIn(LOOK_PICTURES) picture?: LookPicture;
}

/** Where a size is taken: rows along it, columns round it. */
export class Grid {
  @IsInt() @Min(1) @Max(12) rows: number;
  @IsInt() @Min(1) @Max(36) columns: number;
  /** A run-out, a flatness, a variation is the span of its readings. */
  @IsOptional() @IsIn(GRID_OF) of?: GridOf;
}

export class Limit extends Sided {
  @Ref() ref: string;
  @Name() name: string;
  /** Part that it condemns when it is out; none when it only tells of the unit. */
  @IsOptional() @Ref() part?: string;
  @IsIn(LIMIT_KINDS) kind: (typeof LIMIT_KINDS)[number];
  @IsOptional() @IsIn(LIMIT_QUANTITIES) quantity?: LimitQuantity;
  /** Which way it is pulled until it moves: what it held is judged against the least it must hold. */
  @IsOptional() @IsIn(PULLS) pulled?: Pull;
  /** Between which points a meter is held. */
  @IsOptional() @Name(200) between?: string;
  @IsOptional() @Nested(() => Grid) grid?: Grid;
  @IsOptional() @Nested(() => Span) asNew?: Span;
  @IsOptional() @Nested(() => Span) service?: Span;
  @IsOptional() @IsIn(TOOL_KINDS) tool?: ToolKind;
  @IsOptional() @IsInt() @Min(1) @Max(20) repeats?: number;
  @IsOptional() @Rows(() => Look, 20) looks?: Look[];
  @Name(1000) how: string;
  @Name(500) whenOut: string;
}

export class Fluid extends Sided {
  @Ref() ref: string;
  @Name() name: string;
  @Name(100) grade: string;
  @IsOptional() @IsIn(FILL_RULES) fill?: (typeof FILL_RULES)[number];
  /** None where it is filled until it shows. */
  @IsOptional() @Nested(() => AmountValue) amount?: AmountValue;
  @IsOptional() @IsFigure('ratio') tolerance?: string;
  @Name(500) rule: string;
}

/** From one step until another is done. */
export class Stretch {
  @Ref() from: string;
  @Ref() until: string;
}

export class Caution {
  @Ref() ref: string;
  @Name(600) text: string;
  @IsOptional() @Name(200) wear?: string;
  /** Dangers it speaks of. */
  @IsOptional() @IsArray() @ArrayMaxSize(10) @IsIn(HAZARDS, { each: true }) hazards?: Hazard[];
  /** In force from one step until another is done. */
  @IsOptional() @Nested(() => Stretch) holds?: Stretch;
  /** What the law leaves to licensed people. */
  @IsOptional() @Name(300) licensed?: string;
}

export class Counted {
  @Ref() part: string;
  @IsInt() @Min(1) @Max(1000) count: number;
  @IsOptional() @Name(100) place?: string;
  /** The stack it lies in, on one axis with others; the order of the counts is that of the stack. */
  @IsOptional() @Name(60) stack?: string;
  /** Which way it sits: "bevel up", "lip towards the rotor". */
  @IsOptional() @Name(100) direction?: string;
  /** It has but one right position: what is marked before it is pulled. */
  @IsOptional() @Name(200) mark?: string;
  /** The mark falls due half-way: pull, stop, mark, go on. */
  @IsOptional() @IsBoolean() halfWay?: boolean;
  /** One holds while another marks or pulls. */
  @IsOptional() @IsBoolean() twoPeople?: boolean;
}

export class StepRecord {
  @IsIn(RECORD_KINDS) kind: RecordKind;
  @IsOptional() @Ref() limit?: string;
  @IsOptional() @Ref() joint?: string;
  @IsOptional() @Ref() setting?: string;
  @IsOptional() @Ref() seal?: string;
  @IsOptional() @Ref() fluid?: string;
  @IsOptional() @Ref() fit?: string;
  @IsOptional() @Rows(() => Counted, 60) counts?: Counted[];
}

export class OpensEnd {
  @Name() what: string;
  @Name(100) place: string;
  /** Ref of the step that closes it. */
  @Ref() closedBy: string;
}

/** One accepted method for a step, and what it makes of the job; which one was used is kept. */
export class Way extends Reshaping {
  @Ref() ref: string;
  @Name(120) name: string;
  @Name(500) reason: string;
  @IsOptional() @Name(300) needs?: string;
  @IsOptional() @Name(300) limits?: string;
  @IsOptional() @Name(200) cost?: string;
  /** Of a fit: how it goes home by it. */
  @IsOptional() @IsIn(GOES_BY) by?: GoesBy;
  /** Departs from the maker: foreman and customer agree, and it is printed. */
  @IsOptional() @IsBoolean() departs?: boolean;
  /** What it puts on the unit is there the next time too: the next job on the unit begins with it, until another way is picked. */
  @IsOptional() @IsBoolean() stays?: boolean;
  /** The shop's own choice unless somebody picks another. */
  @IsOptional() @IsBoolean() shopDefault?: boolean;
}

export class HoldPoint {
  @IsIn(HOLD_BY) who: HoldBy;
  @Name(300) what: string;
}

/** The shop's own page, pinned to a step. */
export class PinnedPage {
  @Ref() document: string;
  @IsInt() @Min(1) @Max(5000) page: number;
}

export class Step extends Sided {
  @Ref() ref: string;
  @IsIn(STAGES) stage: Stage;
  @Name(120) title: string;
  @IsOptional() @IsIn(DOINGS) doing?: Doing;
  /** Tasks it belongs to; none: it is done whatever the job picks. */
  @IsOptional() @Refs() tasks?: string[];
  /** Steps that must be done before it. */
  @IsOptional() @Refs() after?: string[];
  /** Parts that it takes off, so that later steps can get at them. */
  @IsOptional() @Refs() frees?: string[];
  /** Fits that come apart at it. */
  @IsOptional() @Refs(8) letsGo?: string[];
  /** Features of the variants that are seen at it: which one it is, is said there. */
  @IsOptional() @Refs(6) shows?: string[];
  /** Done only where the unit stays in its machine, or only where it came in by itself. */
  @IsOptional() @IsIn(JOB_PLACES) only?: JobPlace;
  /** Parts that must be off already. */
  @IsOptional() @Refs() needsOff?: string[];
  @IsOptional() @IsIn(STEP_BENCHES) bench?: StepBench;
  /** Parts that go in with it, besides those of its joint, seal or fit. */
  @IsOptional() @Refs() putsIn?: string[];
  /** Cannot be done any more once this step is. */
  @IsOptional() @Ref() tooLateAfter?: string;
  /** Cannot be undone: its replacement part is here first. */
  @IsOptional() @IsBoolean() noWayBack?: boolean;
  @Name(1000) act: string;
  @IsOptional() @Name(600) why?: string;
  @IsOptional() @Name(400) expect?: string;
  @IsOptional() @Name(400) stopWhen?: string;
  /** What to try when it will not come, in order; the last rung is to stop and ask. */
  @IsOptional() @Lines(8, 300) ladder?: string[];
  @IsOptional() @Lines(10, 300) leaveAlone?: string[];
  @IsOptional() @Lines(10, 200) wrongTools?: string[];
  @IsOptional() @Lines(20, 120) needs?: string[];
  @IsOptional() @Refs(10) cautions?: string[];
  @IsOptional() @Nested(() => Wait) wait?: Wait;
  /** What must be ready when it begins, and takes its time before. */
  @IsOptional() @Nested(() => Lead) lead?: Lead;
  /** What it is painted, primed or varnished with. */
  @IsOptional() @Nested(() => Coat) coat?: Coat;
  /** Fastenings that are seen to be home at it, each piece of them. */
  @IsOptional() @Refs(12) seats?: string[];
  @IsOptional() @Nested(() => HoldPoint) holdPoint?: HoldPoint;
  @IsOptional() @Ref() routing?: string;
  @IsOptional() @Nested(() => PinnedPage) pinned?: PinnedPage;
  @IsOptional() @Rows(() => Way, 8) ways?: Way[];
  @Nested(() => StepRecord) record: StepRecord;
  @IsOptional() @Nested(() => OpensEnd) opens?: OpensEnd;
}

export class CustomerNote {
  @Ref() ref: string;
  @Name(500) text: string;
}

/** What a job may pick to be done. */
export class Task {
  @Ref() ref: string;
  @Name(120) name: string;
  /** The whole unit: picked unless something narrower is. */
  @IsOptional() @IsBoolean() whole?: boolean;
  @IsOptional() @IsFigure('time') time?: string;
}

/** This makes that necessary. */
export class Obligation {
  @Ref() ref: string;
  @Name(200) name: string;
  /** Steps or parts: one of them done, or renewed, opens it. */
  @ArrayMinSize(1) @Refs() madeBy: string[];
  @Ref() closedBy: string;
  @Name(400) why: string;
}

/** What is cheap to do now, with the labour to come back for it. */
export class WhileOpen {
  @Ref() ref: string;
  /** The step that exposes it. */
  @Ref() step: string;
  @IsOptional() @Ref() part?: string;
  @Name(300) work: string;
  @Name(400) why: string;
  @IsOptional() @IsFigure('time') comeBack?: string;
}

/** A line of a routing picture, through its points in order; the whole fits a square of 1000. */
export class RoutingLine {
  @Name(80) label: string;
  @ArrayMinSize(2) @Rows(() => Place, 40) points: Place[];
}

export class Routing {
  @Ref() ref: string;
  @Name(120) name: string;
  @ArrayMinSize(1) @Rows(() => RoutingLine, 20) lines: RoutingLine[];
}

/** A feature that tells variants apart. Sheets of a family share the refs. */
export class Feature {
  @Ref() ref: string;
  /** The question, as it is asked at the counter. */
  @Name(200) ask: string;
  /** What is measured; none when it is picked by looking. */
  @IsOptional() @IsIn(['length', 'mass', 'count', 'angle', 'resistance']) quantity?: 'length' | 'mass' | 'count' | 'angle' | 'resistance';
  @IsOptional() @Name(300) how?: string;
}

export class Tell {
  @Ref() feature: string;
  /** A figure with its unit, or the words that are picked. */
  @Name(80) is: string;
  /** Either way, for a figure. */
  @IsOptional() @Name(40) within?: string;
}

export class Variant extends Reshaping {
  @Ref() ref: string;
  @Name(120) name: string;
  @Rows(() => Tell, 30) tells: Tell[];
  /** What is different on this one. */
  @IsOptional() @Name(500) differs?: string;
}

/** What a customer may complain of. */
export class Complaint {
  @Ref() ref: string;
  @Name(80) name: string;
}

/** How often this cause stands behind a complaint: 1 seldom, 3 often. */
export class Blame {
  @Ref() complaint: string;
  @IsInt() @Min(1) @Max(3) weight: number;
}

/** How a check speaks for or against a cause. */
export class Sign {
  /** Limit ref. */
  @Ref() limit: string;
  /** Verdict of the limit that this is about. */
  @IsIn(['in', 'out']) when: 'in' | 'out';
  @IsIn(['for', 'strongly for', 'against', 'strongly against']) speaks: 'for' | 'strongly for' | 'against' | 'strongly against';
}

export class Cause {
  @Ref() ref: string;
  @Name(120) name: string;
  @ArrayMinSize(1) @Rows(() => Blame, 20) blames: Blame[];
  @IsOptional() @Rows(() => Sign, 20) signs?: Sign[];
  /** Tasks that mend it. */
  @IsOptional() @Refs() tasks?: string[];
  /** Parts it likely takes. */
  @IsOptional() @Refs() parts?: string[];
}

export class SheetFile {
  /** The variant that a job was booked in as. No file says so: the scope of the job puts it there. */
  build?: string;
  /** Where that job is done. From the scope, too. */
  place?: JobPlace;
  @Equals(SHEET_FORMAT, { message: `must be "${SHEET_FORMAT}"` }) format: typeof SHEET_FORMAT;
  @Ref() key: string;
  @Name() title: string;
  @Name(80) family: Family;
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
  @IsOptional() @IsFigure('mass') mass?: string;
  /** Sides or places that a machine has it on; picked ones are columns of one job. */
  @IsOptional() @Lines(8, 40) sides?: string[];
  /** Where its serial or tag is found. */
  @IsOptional() @Name(200) serialPlace?: string;
  @IsOptional() @Rows(() => Several, 10) several?: Several[];
  @IsOptional() @Rows(() => Kit, 20) kits?: Kit[];
  @IsOptional() @Rows(() => Fit, 60) fits?: Fit[];
  @IsOptional() @Rows(() => Fastening, 60) fastenings?: Fastening[];
  @IsOptional() @Rows(() => Task, 20) tasks?: Task[];
  @IsOptional() @Rows(() => Obligation, 30) obligations?: Obligation[];
  @IsOptional() @Rows(() => WhileOpen, 30) whileOpen?: WhileOpen[];
  @IsOptional() @Rows(() => Routing, 10) routings?: Routing[];
  @IsOptional() @Rows(() => Feature, 30) features?: Feature[];
  @IsOptional() @Rows(() => Variant, 20) variants?: Variant[];
  @IsOptional() @Rows(() => Complaint, 20) complaints?: Complaint[];
  @IsOptional() @Rows(() => Cause, 40) causes?: Cause[];
}
