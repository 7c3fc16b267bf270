import { IsNumber, IsOptional, Max, Min } from 'class-validator';
import { IsFigure } from '../given/figures.js';
import { Name, Refs } from './fields.js';

/** The way out of a fit, where it is not the way in backwards. */
export class ComingOff {
  /** Largest diameter that has to pass through what carries it; the seat where none is given. */
  @IsOptional() @IsFigure('length') passes?: string;
  /** How far, until it is free; the length of the fit where none is given. */
  @IsOptional() @IsFigure('length') way?: string;
  /** Fits that let go at the same push. */
  @IsOptional() @Refs(6) with?: string[];
  /** Never warmer than this to let it go. */
  @IsOptional() @IsFigure('temperature') heatMost?: string;
  /** Coming off; where the surfaces are known to be otherwise than dry and fretted. */
  @IsOptional() @IsNumber() @Min(0.05) @Max(0.6) friction?: number;
  @IsOptional() @Name(400) how?: string;
}
