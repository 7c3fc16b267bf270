import { Day } from '@jubb/sheet/given';
import { IsNumber, IsOptional, Max, Min } from 'class-validator';
import { owedWords } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** Put off with the customer's knowledge: it greets the next booking of the machine. */
export class OwedPayload {
  @Words(300) what: string;
  /** What the customer said to it: as much as an answer to a quote may say. */
  @Words(1000) told: string;
  /** When it comes due: a day, a reading of the hour meter, or both. */
  @IsOptional() @Day() due?: string;
  @IsOptional() @IsNumber() @Min(0) @Max(1_000_000, { message: 'must be at most 1000000' }) hours?: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    owed: OwedPayload;
  }
}

export const owed: Kind<'owed'> = defineKind({
  id: 'owed',
  version: 1,
  payload: OwedPayload,
  words: ({ payload }) => `Owed: ${owedWords(payload)}`,
});
