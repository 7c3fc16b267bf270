import { IsBoolean, IsIn, IsOptional } from 'class-validator';
import { IsFigure } from '../given/figures.js';
import { READY, type Ready } from './choices.js';
import { Name, Ref } from './fields.js';

/** A clock that begins when its step is done. */
export class Wait {
  @IsFigure('time') time: string;
  @Name(200) what: string;
  /** It is hot so long, and not to be touched. */
  @IsOptional() @IsBoolean() hot?: boolean;
}

/** Work ahead of a step: what must be warm, soaked, skinned or cold when it begins. */
export class Lead {
  @IsIn(READY) state: Ready;
  /** What is done, as it is said to who does it: "front bearing into the oven at 90 °C". */
  @Name(200) what: string;
  /** The least that it takes. */
  @IsFigure('time') time: string;
  /** After so long it is no use any more, and begun anew: a bead, a soak, a heat. */
  @IsOptional() @IsFigure('time') most?: string;
  /** It cannot begin before this step is done; none: any time on the job. */
  @IsOptional() @Ref() from?: string;
}
