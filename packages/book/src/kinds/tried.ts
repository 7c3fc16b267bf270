import { IsOptional } from 'class-validator';
import { joined } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** What it was brought for, tried before anything is touched: noise, rock, slip, drip, warmth. It is tried again when it is proved. */
export class TriedPayload {
  @Words(60) what: string;
  /** As it was: "howls from 30 km/h on, on drive". */
  @Words(300) how: string;
  /** Under what conditions, so that it can be tried the same way again. */
  @IsOptional() @Words(200) conditions?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    tried: TriedPayload;
  }
}

export const tried: Kind<'tried'> = defineKind({
  id: 'tried',
  version: 1,
  payload: TriedPayload,
  words: ({ payload: { what, how, conditions } }) => `Tried before: ${joined(`${what}, ${how}`, conditions)}`,
  report: [{ section: 'found' }],
});
