import { formatQuantity } from '@jubb/core';
import { IsIn, IsNumber, IsUUID, Max, Min } from 'class-validator';
import type { KeptEntry } from '../entries/kept.js';
import { UPSET_READ_AS, type UpsetReadAs } from '../in-the-way.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Words } from './fields.js';

/** Read again because something had been out of the way: a level, the air, a tension, a line. */
export class SetAgainPayload {
  /** The entry of what was moved. */
  @IsUUID() moved: string;
  /** As it stands there. */
  @Words(200) what: string;
  @IsIn(UPSET_READ_AS) readAs: UpsetReadAs;
  /** What was read, in base units. */
  @IsNumber() @Min(-1e6) @Max(1e6) figure: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'set-again': SetAgainPayload;
  }
}

/** Only what it upsets is read, and only once it is back: before that it tells nothing. */
const isDue: Rule<'set-again'> = ({ payload: { moved, readAs } }, held) => {
  const { makes, what } = (held.entry(moved) as KeptEntry<'moved'>).payload;
  if (!makes) return wrong({ field: 'payload.moved', given: what, allowed: 'upsets nothing that is read again' });
  if (makes.readAs !== readAs) return wrong({ field: 'payload.readAs', given: readAs, allowed: `must be ${makes.readAs}` });
  return held.live.some((entry) => entry.kind === 'put-back' && entry.payload.moved === moved)
    ? undefined
    : wrong({ field: 'payload.moved', given: what, allowed: 'is not back yet: read it once it is' });
};

export const setAgain: Kind<'set-again'> = defineKind({
  id: 'set-again',
  version: 1,
  payload: SetAgainPayload,
  binds: { moved: { to: ['moved'], allowed: 'is nothing that was moved on this job' } },
  needs: [isDue],
  reads: ({ readAs }) => readAs,
  figures: ({ figure }) => [figure],
  words: ({ payload: { what, figure, readAs } }) => `Read again: ${what}, ${formatQuantity(figure, readAs)}`,
  report: [{ section: 'set-again' }],
});
