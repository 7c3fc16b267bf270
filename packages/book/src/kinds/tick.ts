import { find } from '@jubb/sheet';
import { IsOptional } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** A step was done. */
export class TickPayload {
  @IsOptional() @Words(1000) note?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    tick: TickPayload;
  }
}

export const tick: Kind<'tick'> = defineKind({
  id: 'tick',
  version: 1,
  payload: TickPayload,
  act: true,
  words: ({ payload, step }, sheet) => [find(sheet.steps, step ?? '')?.title ?? 'Done', payload.note].filter(Boolean).join(': '),
});
