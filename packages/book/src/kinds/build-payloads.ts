import { Figures, Ref, Words } from './fields.js';
import 'reflect-metadata';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Max,
  MaxLength,
  Min,
  NotEquals,
} from 'class-validator';
import { CONTACT_ALONG, CONTACT_UP, SIGHTS, type ContactSpots, type Sight } from '@jubb/core';

/** What is kept while a unit is built: fits, seals, settings, gears, joints. Units as in the other payloads. */

export const FITTED_BY = ['press', 'heat', 'hand'] as const;

/** A fit that went home: how, with what, and what shows that it is there. */
export class FittedPayload {
  @Ref() fit: string;
  @IsIn(FITTED_BY) by: (typeof FITTED_BY)[number];
  /** Driver, tube, plate; and what stood under it. Offered again the next time. */
  @Words(100) driver: string;
  @IsOptional() @Words(100) support?: string;
  /** Most that the press showed, N; how warm it was, °C. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e7) force?: number;
  @IsOptional() @IsNumber() @Min(-200) @Max(400) temperature?: number;
  /** What showed that it is home: the change of note, a feeler that does not go under. */
  @Words(200) home: string;
  /** Why it went in although its fit is not what is wanted. */
  @IsOptional() @Words(300) note?: string;
}

export class SealFittedPayload {
  @Ref() seal: string;
  @IsBoolean() directionSeen: boolean;
  @IsBoolean() lubricated: boolean;
  /** Nothing for a ring that has no depth to read. */
  @Figures(-100, 500, 0) depths: number[];
  @IsString() @MaxLength(10) unit: string;
}

/** Seated and backed off; turned to a slot; clicked home; at its mark again; held by its locknut. */
export const NUT_ACTS = ['seated', 'turned', 'clicked', 'lined-up', 'locked'] as const;

export class NutPayload {
  @Ref() setting: string;
  @IsIn(NUT_ACTS) act: (typeof NUT_ACTS)[number];
  /** Tightening is plus. */
  @IsNumber() @Min(-720) @Max(720) angle: number;
  @IsOptional() @IsNumber() @Min(0) @Max(2000) torque?: number;
}

export const MOMENTS = ['now', 'locked', 'proved'] as const;

export const BEARINGS = ['new', 'used'] as const;

export class EndPlayPayload {
  @Ref() setting: string;
  /** Whose window it is judged by, where used bearings have one of their own. */
  @IsOptional() @IsIn(BEARINGS) bearings?: (typeof BEARINGS)[number];
  @IsIn(MOMENTS) moment: (typeof MOMENTS)[number];
  /** mm, or N·m for a preload. */
  @Figures(0, 500) readings: number[];
  @IsString() @MaxLength(10) unit: string;
}

/** An unsure reading of a setting that the foreman lets stand, and why; the report prints it. */
export class AcceptedPayload {
  @Ref() setting: string;
  @Words(300) why: string;
}

/** Where the marking compound is worn off, of the gears whose backlash is a setting. */
export class PatternPayload {
  @Ref() setting: string;
  @IsIn(CONTACT_ALONG) driveAlong: ContactSpots['driveAlong'];
  @IsIn(CONTACT_UP) driveUp: ContactSpots['driveUp'];
  @IsIn(CONTACT_ALONG) coastAlong: ContactSpots['coastAlong'];
  @IsIn(CONTACT_UP) coastUp: ContactSpots['coastUp'];
  /** What brings it from an end to the middle, mm, as the moves before it showed. */
  @IsOptional() @IsNumber() @Min(0.02) @Max(0.5) pinionStep?: number;
  @IsOptional() @IsNumber() @Min(0.02) @Max(0.5) ringStep?: number;
  /** Who says that it stays so although it is not good, and why. */
  @IsOptional() @Words(300) left?: string;
}

export const MESHING = ['pinion', 'ring'] as const;

/** A gear that was moved to mend its pattern: what was set with it is set anew. */
export class GearMovedPayload {
  /** Backlash of the gears. */
  @Ref() setting: string;
  @IsIn(MESHING) gear: (typeof MESHING)[number];
  /** mm: of the pinion deeper, of the ring to the pinion; minus is the other way. */
  @IsNumber() @Min(-2) @Max(2) @NotEquals(0, { message: 'must not be 0: nothing was moved' }) by: number;
  /** Joints that were undone for it: they are pulled again. */
  @IsArray() @ArrayMaxSize(20) @ArrayUnique() @IsString({ each: true }) undone: string[];
}

export class PullPayload {
  @Ref() joint: string;
  @IsInt() @Min(1) @Max(40) pass: number;
  /** From 0, clockwise from twelve o'clock. */
  @IsInt() @Min(0) @Max(399) place: number;
  /** Wanted at the fastener; nothing for a round by hand, by eye or by angle. */
  @IsNumber() @Min(0) @Max(20000) torque: number;
  @IsIn(['clicked', 'turned', 'trouble']) result: 'clicked' | 'turned' | 'trouble';
  /** What the wrench says itself: its peak at the fastener, N·m, and its turn from snug, degrees. */
  @IsOptional() @IsNumber() @Min(0) @Max(40000) peak?: number;
  @IsOptional() @IsNumber() @Min(0) @Max(3600) angle?: number;
  /** What its curve showed, where it was kept all the same. */
  @IsOptional() @IsIn(SIGHTS) sight?: Sight;
  /** Drive centre to grip, mm; with the adapter's length and angle it gives the wrench setting. */
  @IsNumber() @Min(20) @Max(3000) wrenchLength: number;
  @IsOptional() @IsUUID() adapterId?: string;
  @IsNumber() @Min(0) @Max(1000) adapterLength: number;
  @IsNumber() @Min(0) @Max(180) adapterAngle: number;
  @IsOptional() @Words(500) note?: string;
}
