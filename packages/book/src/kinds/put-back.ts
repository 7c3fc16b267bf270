import { IsUUID } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';

/** What was moved is where it was. */
export class PutBackPayload {
  @IsUUID() moved: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'put-back': PutBackPayload;
  }
}

export const putBack: Kind<'put-back'> = defineKind({
  id: 'put-back',
  version: 1,
  payload: PutBackPayload,
  binds: { moved: { to: ['moved'], allowed: 'is nothing that was moved on this job' } },
  words: () => 'Back where it was',
});
