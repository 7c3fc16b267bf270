import { CONTACT_ALONG, CONTACT_UP, type ContactSpots } from '@jubb/core';
import { IsIn, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { readContact } from '../measured/working-for.js';
import { patternWords } from '../runs/gear-words.js';
import { judged } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { BENCH } from './roles.js';

/** Where the marking compound is worn off, of the gears whose backlash is a setting. */
export class PatternPayload {
  @Ref() setting: string;
  @IsIn(CONTACT_ALONG) driveAlong: ContactSpots['driveAlong'];
  @IsIn(CONTACT_UP) driveUp: ContactSpots['driveUp'];
  @IsIn(CONTACT_ALONG) coastAlong: ContactSpots['coastAlong'];
  @IsIn(CONTACT_UP) coastUp: ContactSpots['coastUp'];
  /** What brings it from an end to the middle, mm, as the moves before it showed. */
  @IsOptional() @IsNumber() @Min(0.02) @Max(0.5) pinionStep?: number;
  @IsOptional() @IsNumber() @Min(0.02) @Max(0.5) ringStep?: number;
  /** Who says that it stays so although it is not good, and why. */
  @IsOptional() @Words(300) left?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    pattern: PatternPayload;
  }
}

export const pattern: Kind<'pattern'> = defineKind({
  id: 'pattern',
  version: 1,
  payload: PatternPayload,
  who: BENCH,
  points: { setting: 'settings' },
  working: ({ setting: _, left: __, ...seen }) => readContact(seen),
  words: (entry) =>
    `Contact pattern: ${patternWords(entry.payload)}${judged(entry)}${entry.payload.left === undefined ? '' : `, left so: ${entry.payload.left}`}`,
  report: [{ section: 'pattern' }],
});
