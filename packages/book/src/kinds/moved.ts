import { MOVED_HOW, type MovedHow } from '@jubb/sheet';
import { IsIn, IsOptional } from 'class-validator';
import { capital, joined, MOVED_WORDS } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** Moved to get at the unit: it goes back where it was. */
export class MovedPayload {
  @Words(200) what: string;
  @IsIn(MOVED_HOW) how: MovedHow;
  /** How it runs, of a belt, a hose or a wire: over what, behind what. */
  @IsOptional() @Words(300) routing?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    moved: MovedPayload;
  }
}

export const moved: Kind<'moved'> = defineKind({
  id: 'moved',
  version: 1,
  payload: MovedPayload,
  words: ({ payload: { how, what, routing } }) => joined(`${capital(MOVED_WORDS[how])}: ${what}`, routing),
});
