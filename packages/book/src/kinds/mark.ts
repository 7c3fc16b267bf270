import { IsOptional } from 'class-validator';
import { joined } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';

/** A mark on something that stays where it is, or that comes off later: pull, stop, mark, go on. */
export class MarkPayload {
  @Words(200) what: string;
  @Words(200) mark: string;
  @IsOptional() @Ref() part?: string;
  /** Who held while it was made. */
  @IsOptional() @Words(100) with?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    mark: MarkPayload;
  }
}

export const mark: Kind<'mark'> = defineKind({
  id: 'mark',
  version: 1,
  payload: MarkPayload,
  points: { part: 'parts' },
  words: ({ payload }) => joined(`Marked: ${payload.what}, ${payload.mark}`, payload.with && `with ${payload.with}`),
});
