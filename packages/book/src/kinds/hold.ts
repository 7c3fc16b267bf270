import { HOLD_REASONS, type HoldReason } from '@jubb/sheet';
import { IsIn } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

export class HoldPayload {
  @IsIn(HOLD_REASONS) reason: HoldReason;
  @Words(300) words: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    hold: HoldPayload;
  }
}

export const hold: Kind<'hold'> = defineKind({
  id: 'hold',
  version: 1,
  payload: HoldPayload,
  changes: ['list'],
  words: ({ payload }) => `On hold for ${payload.reason}: ${payload.words}`,
});
