import { IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import { IsFigure } from '../given/figures.js';
import { TRUSTS, type Trust } from '../words.js';
import { Name } from './fields.js';

/** Figures of a sheet, as their author typed them, each with where it is from. */

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

export class AngleValue extends Sourced {
  @IsFigure('angle') figure: string;
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
