import { IsIn, IsOptional, IsUUID } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** What was owed is done, or the customer does not want it any more. */
export class OwedSettledPayload {
  /** Entry that it was owed by, of this job or of an earlier one of the machine. */
  @IsUUID() owed: string;
  @IsIn(['done', 'dropped']) how: 'done' | 'dropped';
  @IsOptional() @Words(300) reason?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'owed-settled': OwedSettledPayload;
  }
}

export const owedSettled: Kind<'owed-settled'> = defineKind({
  id: 'owed-settled',
  version: 1,
  payload: OwedSettledPayload,
  outside: 'still-owed',
  words: ({ payload: { how, reason } }) => `Owed no more: ${how === 'done' ? 'done' : (reason ?? 'dropped')}`,
});
