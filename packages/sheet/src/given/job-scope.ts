import 'reflect-metadata';
import { RowsOf } from './rows.js';
import { Matches, IsIn, IsOptional, IsArray, ArrayMaxSize, IsString, MaxLength } from 'class-validator';
import { JOB_PLACES, type JobPlace } from '../words.js';
import { TextLine } from './line.js';
const SHEET_REF = /^[a-z0-9]+(-[a-z0-9]+)*$/u;

/** A feature that was looked at to tell which variant it is. */
export class IdentifiedBy {
  @Matches(SHEET_REF) feature: string;
  @TextLine('what was found?', 80) found: string;
}

/** A part to have before the first screw. */
export class PartFirst {
  @Matches(SHEET_REF) part: string;
  @IsIn(['reserve', 'order', 'wait']) how: 'reserve' | 'order' | 'wait';
}

/** What of the sheet the job is about. */
export class JobScope {
  @IsOptional() @Matches(SHEET_REF) variant?: string;
  @IsArray() @ArrayMaxSize(20) @Matches(SHEET_REF, { each: true }) tasks: string[];
  @IsArray() @ArrayMaxSize(8) @IsString({ each: true }) @MaxLength(40, { each: true }) sides: string[];
  @IsIn(JOB_PLACES) place: JobPlace;
  /** Complaints of the sheet that were picked. */
  @IsArray() @ArrayMaxSize(20) @Matches(SHEET_REF, { each: true }) picks: string[];
  @RowsOf(() => IdentifiedBy, 30) identified: IdentifiedBy[];
  @RowsOf(() => PartFirst, 60) partsFirst: PartFirst[];
  /** What the first estimate rests on. */
  @IsOptional() @IsString() @MaxLength(500) estimateFrom?: string;
}
