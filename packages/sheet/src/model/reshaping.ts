import { IsIn, IsOptional } from 'class-validator';
import { RESHAPED, type ReshapedList } from './choices.js';
import { Name, Ref, Refs, Rows } from './fields.js';

/** One field of one line, as it is instead. */
export class Change {
  @IsIn(RESHAPED) list: ReshapedList;
  @Ref() line: string;
  /** Path within the line: "hand", "window.from", "record.counts.wheel-nut.count". */
  @Name(100) field: string;
  /** As a cell of the table of that list would hold it; left out, the field is not there. */
  @IsOptional() @Name(1000) is?: string;
}

/** What a variant, or a way of doing a step, makes of the sheet. */
export class Reshaping {
  /** Steps and parts that are there with this alone, or with another of its kind that brings them too. */
  @IsOptional() @Refs() brings?: string[];
  /** Steps and parts that are not there with this. */
  @IsOptional() @Refs() drops?: string[];
  @IsOptional() @Rows(() => Change, 60) changes?: Change[];
}
