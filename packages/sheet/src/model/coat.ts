import { IsIn } from 'class-validator';
import { COATS, type CoatThinned } from './choices.js';
import { Lines, Name } from './fields.js';

/** Paint, primer or varnish that a step puts on; its drying clock is the wait of the step. */
export class Coat {
  /** What it is, and how it goes on: "zinc primer, by brush". */
  @Name(120) what: string;
  @IsIn(COATS) thinned: CoatThinned;
  /** What must stay bare, each looked at before the tin is opened. */
  @Lines(12, 120) masked: string[];
}
