import { ANSWERS, type CustomerAnswer } from '@jubb/sheet';
import { IsIn, IsInt, IsOptional, Min } from 'class-validator';
import { joined } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';
import { TRUSTED } from './roles.js';

/** What the customer said to a quote, by the link that was sent. */
export class AnsweredPayload {
  @IsInt() @Min(1) quote: number;
  @IsIn(ANSWERS) answer: CustomerAnswer;
  @IsOptional() @Words(60) option?: string;
  @IsOptional() @Words(1000) words?: string;
  /** What it comes to with tax, in minor units. */
  @IsOptional() @IsInt() @Min(0) grossMinor?: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    answered: AnsweredPayload;
  }
}

export const answered: Kind<'answered'> = defineKind({
  id: 'answered',
  version: 1,
  payload: AnsweredPayload,
  who: TRUSTED,
  words: ({ payload: { quote, answer, option, words } }) => joined(`Quote ${quote}, the customer: ${answer}`, option, words),
  report: [{ section: 'customer' }],
});
