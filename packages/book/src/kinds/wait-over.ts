import { IsUUID } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';

/** Somebody heard it ring. */
export class WaitOverPayload {
  @IsUUID() wait: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'wait-over': WaitOverPayload;
  }
}

export const waitOver: Kind<'wait-over'> = defineKind({
  id: 'wait-over',
  version: 1,
  payload: WaitOverPayload,
  binds: { wait: { to: ['wait'], allowed: 'is no wait of this job' } },
  byTheWay: true,
  words: () => 'The wait is over',
});
