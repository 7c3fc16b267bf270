import { IsOptional } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** What it waited for is there. */
export class HoldOffPayload {
  @IsOptional() @Words(300) words?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'hold-off': HoldOffPayload;
  }
}

export const holdOff: Kind<'hold-off'> = defineKind({
  id: 'hold-off',
  version: 1,
  payload: HoldOffPayload,
  changes: ['list'],
  words: ({ payload }) => ['Taken up again', payload.words].filter(Boolean).join(': '),
});
