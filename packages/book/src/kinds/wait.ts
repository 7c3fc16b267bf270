import { formatQuantity } from '@jubb/core';
import { Equals, IsInt, IsOptional, Max, Min } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

const LONGEST_WAIT_S = 14 * 24 * 3600;

/** A clock that runs from when it was taken: a soak, a cure, a cool-down. */
export class WaitPayload {
  @Words(200) what: string;
  @IsInt() @Min(1) @Max(LONGEST_WAIT_S) seconds: number;
  /** Hot so long: not to be touched. */
  @IsOptional() @Equals(true) hot?: true;
}

declare module '../entries/kept.js' {
  interface Payloads {
    wait: WaitPayload;
  }
}

export const wait: Kind<'wait'> = defineKind({
  id: 'wait',
  version: 1,
  payload: WaitPayload,
  byTheWay: true,
  words: ({ payload: { what, seconds, hot } }) =>
    `${hot ? 'Hot, do not touch' : 'Clock'}: ${what}, ${formatQuantity(seconds, 'time', seconds < 3600 ? 'min' : 'h')}`,
});
