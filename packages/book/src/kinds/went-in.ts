import { IsUUID } from 'class-validator';
import { isKind } from '../entries/kept.js';
import { newPartShort, newPartWords } from '../parts/new-parts.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Pieces, Words } from './fields.js';
import { BENCH } from './roles.js';

/** Pieces of a line of the ledger that are in again. */
export class WentInPayload {
  /** The line, and what it names. */
  @IsUUID() line: string;
  @Words(200) name: string;
  @Pieces() count: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'went-in': WentInPayload;
  }
}

/** No more goes in than came off, also when two put it in at once. */
const noMoreThanCameOff: Rule<'went-in'> = ({ payload: { line, count } }, { live }) => {
  const off = live.filter(isKind('came-off')).find(({ id }) => id === line)?.payload.count ?? 0;
  const inNow = live.filter(isKind('went-in')).reduce((sum, { payload }) => (payload.line === line ? sum + payload.count : sum), 0);
  return inNow + count > off
    ? wrong({
        field: 'payload.count',
        given: String(count),
        allowed: `must be at most ${off - inNow}: ${off} came off, ${inNow} are in again`,
      })
    : undefined;
};

const newOnesHere: Rule<'went-in'> = ({ payload: { line, count } }, { live, sheet }) => {
  const part = live.filter(isKind('came-off')).find(({ id }) => id === line)?.payload.part;
  const short = newPartShort(sheet, part, count, live);
  return short
    ? wrong({ field: 'payload.line', allowed: `is renewed, and the new one was not said to be here: ${newPartWords(sheet, short)}` })
    : undefined;
};

export const wentIn: Kind<'went-in'> = defineKind({
  id: 'went-in',
  version: 1,
  payload: WentInPayload,
  who: BENCH,
  binds: { line: { to: ['came-off'], allowed: 'is no line of this job’s ledger' } },
  needs: [noMoreThanCameOff, newOnesHere],
  words: ({ payload }) => `${payload.count} × ${payload.name} in again`,
});
