import { IsIn, IsOptional } from 'class-validator';
import { IsFigure } from '../given/figures.js';
import { TOOL_KINDS, type ToolKind } from '../words.js';
import { PROVED_BY, type ProvedBy } from './choices.js';
import { Name, Nested, Ref, Rows } from './fields.js';
import { Span } from './values.js';

/** What else is in a reading of the whole: a setting's last reading, or a drag that was read beforehand. */
export class ProofShare {
  @IsOptional() @Ref() setting?: string;
  @IsOptional() @Ref() limit?: string;
  /** How much less of it is felt where the whole is turned: the carrier at its pinion. */
  @IsOptional() @IsFigure('ratio') ratio?: string;
}

/** How a setting is proved that nobody can read once the unit is closed. */
export class Proof {
  @IsIn(PROVED_BY) by: ProvedBy;
  /** The step that hides it: the last reading before that is the proof. */
  @IsOptional() @Ref() closes?: string;
  /** What is turned in its place: "whole axle at the pinion". */
  @IsOptional() @Name(120) reads?: string;
  /** What is taken off the whole. */
  @IsOptional() @Rows(() => ProofShare, 6) less?: ProofShare[];
  /** Torque that is left then; the window of the setting where none is given. */
  @IsOptional() @Nested(() => Span) window?: Span;
  @IsOptional() @IsIn(TOOL_KINDS) tool?: ToolKind;
}
