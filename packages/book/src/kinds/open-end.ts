import { OPEN_END_KINDS, type OpenEndKind } from '@jubb/sheet';
import { IsIn, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { joined, turnsWords } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';

export class OpenEndPayload {
  @Words(200) what: string;
  @IsOptional() @Words(100) place?: string;
  @Words(200) closes: string;
  @IsOptional() @IsIn(OPEN_END_KINDS) kind?: OpenEndKind;
  /** Turns of an adjuster from its stop, as found; tightening is plus. */
  @IsOptional() @IsNumber() @Min(-200) @Max(200) turns?: number;
  /** The step whose doing closes it; none: it is closed by hand. */
  @IsOptional() @Ref() closedBy?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'open-end': OpenEndPayload;
  }
}

export const openEnd: Kind<'open-end'> = defineKind({
  id: 'open-end',
  version: 1,
  payload: OpenEndPayload,
  points: { closedBy: 'steps' },
  words: ({ payload: { what, place, turns, closes } }) =>
    `Open end: ${joined(what, place, turns === undefined ? undefined : turnsWords(turns))}; closed by ${closes}`,
});
