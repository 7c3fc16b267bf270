import { partName } from '@jubb/sheet';
import { looksAt } from '../looks-due.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { BENCH } from './roles.js';

/** What goes in one way only was seen to lie that way. */
export class WayRoundPayload {
  @Ref() part: string;
  /** As it lies, in the words of the sheet: "bevel outwards". */
  @Words(100) lies: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'way-round': WayRoundPayload;
  }
}

const isDue: Rule<'way-round'> = ({ payload: { part, lies }, step }, held) =>
  looksAt(held.state().steps, step).some((look) => look.what === 'way-round' && look.part === part && look.lies === lies)
    ? undefined
    : wrong({ field: 'payload.lies', given: lies, allowed: 'is not asked of it at this step, or was seen already' });

export const wayRound: Kind<'way-round'> = defineKind({
  id: 'way-round',
  version: 1,
  payload: WayRoundPayload,
  who: BENCH,
  points: { part: 'parts' },
  needs: [isDue],
  words: ({ payload: { part, lies } }, sheet) => `${partName(sheet, part)} lies as it must: ${lies}`,
  report: [{ section: 'home', cells: ({ payload: { part, lies } }, sheet) => [partName(sheet, part), lies] }],
});
