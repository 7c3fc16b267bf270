import { InTheWay, screwWords } from '../in-the-way.js';
import { capital, joined, MOVED_WORDS } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';

/** Moved to get at the unit: it goes back where it was. */
export class MovedPayload extends InTheWay {}

declare module '../entries/kept.js' {
  interface Payloads {
    moved: MovedPayload;
  }
}

export const moved: Kind<'moved'> = defineKind({
  id: 'moved',
  version: 1,
  payload: MovedPayload,
  check: ({ payload: { makes } }) =>
    makes?.from !== undefined && makes.to !== undefined && makes.from > makes.to
      ? [{ field: 'payload.makes.to', given: String(makes.to), allowed: `must be at least ${makes.from}, where it begins` }]
      : [],
  words: ({ payload: { how, what, routing, ...held } }) => joined(`${capital(MOVED_WORDS[how])}: ${what}`, screwWords(held), routing),
});
