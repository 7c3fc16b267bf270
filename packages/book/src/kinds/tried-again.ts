import { IsIn, IsOptional, IsUUID } from 'class-validator';
import { TRIED_AGAIN, notTriedAgain, type TriedAgain } from '../before-after.js';
import { joined } from '../words.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Words } from './fields.js';
import { BENCH } from './roles.js';

/** The same trial after the work, under the same conditions. */
export class TriedAgainPayload {
  /** The entry of the trial before. */
  @IsUUID() before: string;
  @IsIn(TRIED_AGAIN) result: TriedAgain;
  @IsOptional() @Words(300) how?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'tried-again': TriedAgainPayload;
  }
}

/** Once for each, and only when it is put together. */
const isDue: Rule<'tried-again'> = ({ payload: { before } }, held) => {
  const { stage } = held.state();
  if (stage !== 'prove' && stage !== 'hand-over')
    return wrong({ field: 'payload.before', allowed: 'is tried again when it is proved; the job is not there yet' });
  return notTriedAgain(held.live).some(({ id }) => id === before)
    ? undefined
    : wrong({ field: 'payload.before', given: before, allowed: 'was tried again already, or struck' });
};

export const triedAgain: Kind<'tried-again'> = defineKind({
  id: 'tried-again',
  version: 1,
  payload: TriedAgainPayload,
  who: BENCH,
  binds: { before: { to: ['tried'], allowed: 'is no trial of this job' } },
  needs: [isDue],
  words: ({ payload: { result, how } }) => `Tried again: ${joined(result, how)}`,
});
