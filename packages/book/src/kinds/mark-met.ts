import { IsUUID } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';

/** The mark lines up again: made by the line of the ledger, or by the entry of the mark. */
export class MarkMetPayload {
  @IsUUID() mark: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'mark-met': MarkMetPayload;
  }
}

export const markMet: Kind<'mark-met'> = defineKind({
  id: 'mark-met',
  version: 1,
  payload: MarkMetPayload,
  binds: { mark: { to: ['mark', 'came-off'], allowed: 'is not a mark of this job' } },
  words: () => 'Mark met',
});
