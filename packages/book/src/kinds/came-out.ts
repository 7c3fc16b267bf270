import { METALS, type Metal } from '@jubb/sheet';
import { IsIn, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { cameOutWords } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** A fluid that came out: how much, what it looked like. */
export class CameOutPayload {
  @Words(100) name: string;
  /** L; nothing where it was not caught. */
  @IsOptional() @IsNumber() @Min(0) @Max(1000) litres?: number;
  @IsOptional() @Words(100) colour?: string;
  /** What the magnet and the pan show. */
  @IsOptional() @IsIn(METALS) metal?: Metal;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'came-out': CameOutPayload;
  }
}

export const cameOut: Kind<'came-out'> = defineKind({
  id: 'came-out',
  version: 1,
  payload: CameOutPayload,
  words: ({ payload }) => cameOutWords(payload),
  report: [{ section: 'found' }],
});
