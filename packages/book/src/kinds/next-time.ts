import { IsOptional } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';

/** A trap met, or a value that worked: a proposal for the sheet, beside the line it is about. */
export class NextTimePayload {
  @Words(1000) text: string;
  /** List and line of the sheet. */
  @IsOptional() @Words(40) list?: string;
  @IsOptional() @Ref() line?: string;
  /** Field of the line, and the figure that worked. */
  @IsOptional() @Words(60) field?: string;
  @IsOptional() @Words(60) figure?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'next-time': NextTimePayload;
  }
}

export const nextTime: Kind<'next-time'> = defineKind({
  id: 'next-time',
  version: 1,
  payload: NextTimePayload,
  proposes: true,
  words: ({ payload }) => `Next time: ${payload.text}`,
});
