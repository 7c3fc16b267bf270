import { find } from '@jubb/sheet';
import { IsBoolean, IsInt, Max, Min } from 'class-validator';
import { isOnHold, ladderAt, ladderOf } from '../ladder.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Words } from './fields.js';
import { BENCH } from './roles.js';

/** One rung of the ladder for what will not come: what was tried, and whether it came. */
export class RungPayload {
  /** What will not come: a part, a neighbour that is only moved. */
  @Words(120) what: string;
  /** From 1, in their order. */
  @IsInt() @Min(1) @Max(20) rung: number;
  @Words(300) tried: string;
  @IsBoolean() came: boolean;
}

declare module '../entries/kept.js' {
  interface Payloads {
    rung: RungPayload;
  }
}

/** A rung is not jumped: the gentler one is tried first. */
const inTurn: Rule<'rung'> = ({ payload: { what, rung }, step }, { live, sheet }) => {
  const next = ladderAt(sheet, live, step, what).tried.length + 1;
  return rung === next
    ? undefined
    : wrong({ field: 'payload.rung', given: String(rung), allowed: `${next} is the one to try now: a gentler one comes before a rougher` });
};

/** Past the last one somebody is asked: the job stands on hold with it. */
const lastAsks: Rule<'rung'> = ({ payload: { rung, came }, step }, { live, sheet }) =>
  came || rung < ladderOf(find(sheet.steps, step ?? undefined)).length || isOnHold(live)
    ? undefined
    : wrong({ field: 'payload.rung', given: String(rung), allowed: 'is the last one: put the job on hold with it, and ask' });

export const rung: Kind<'rung'> = defineKind({
  id: 'rung',
  version: 1,
  payload: RungPayload,
  who: BENCH,
  needs: [inTurn, lastAsks],
  carries: ({ payload: { what, rung: at }, step }, live) =>
    live.some((later) => later.kind === 'rung' && later.step === step && later.payload.what === what && later.payload.rung > at)
      ? 'has later rungs standing on it: strike the last one first'
      : undefined,
  words: ({ payload: { what, rung: at, tried, came } }) => `${what} will not come, rung ${at}: ${tried}; ${came ? 'it came' : 'it stays'}`,
  report: [{ section: 'stuck' }],
});
