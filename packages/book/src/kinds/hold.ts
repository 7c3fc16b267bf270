import { HOLD_REASONS, type HoldReason } from '@jubb/sheet';
import { IsIn, IsOptional } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** Made in the shop, bought or lent, or something else takes its place. */
export const TOOL_COMES = ['made', 'bought', 'something else serves'] as const;

export class HoldPayload {
  @IsIn(HOLD_REASONS) reason: HoldReason;
  @Words(300) words: string;
  /** How a tool that is lacking comes. */
  @IsOptional() @IsIn(TOOL_COMES) comes?: (typeof TOOL_COMES)[number];
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
  check: ({ payload: { reason, comes } }) =>
    comes !== undefined && reason !== 'tool'
      ? [{ field: 'payload.comes', given: comes, allowed: 'is said of a tool that is lacking' }]
      : [],
  words: ({ payload: { reason, words, comes } }) => `On hold for ${reason}: ${words}${comes ? ` (${comes})` : ''}`,
});
