import { find, partName } from '@jubb/sheet';
import { IsBoolean, IsIn, IsOptional } from 'class-validator';
import { isKind } from '../entries/kept.js';
import { looksAt } from '../looks-due.js';
import { SEAL_SIGHTS, sightName, sightWords, sightsAfter, sightsBefore, type SealSight } from '../runs/seal-run.js';
import { joined } from '../words.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { ofAnother } from './places.js';
import { BENCH } from './roles.js';

/** One look at a seal: its place, the new one, what covers the way in, or what shows once it is in. */
export class SealSeenPayload {
  @Ref() seal: string;
  @IsIn(SEAL_SIGHTS) what: SealSight;
  @IsBoolean() fine: boolean;
  /** What is wrong where it is not. */
  @IsOptional() @Words(300) words?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'seal-seen': SealSeenPayload;
  }
}

/** A place is bare once the old one is out of it; what shows when it is in, shows when it is in. */
const inItsTime: Rule<'seal-seen'> = ({ payload: { seal, what, fine }, step }, held) => {
  if (what === 'place') {
    const out = held.live.filter(isKind('old-seal-out')).findLast(({ payload }) => payload.seal === seal);
    return out?.payload.whole
      ? undefined
      : wrong({ field: 'payload.what', given: what, allowed: 'is not bare until the old one is ticked out whole' });
  }
  if (what === 'new' || what === 'guard-on') return undefined;
  const isDue = looksAt(held.state().steps, step).some((look) => look.what === 'seal' && look.seal.ref === seal && look.sight === what);
  return isDue || !fine
    ? undefined
    : wrong({ field: 'payload.what', given: what, allowed: 'is looked at once the new one is in, and once' });
};

export const sealSeen: Kind<'seal-seen'> = defineKind({
  id: 'seal-seen',
  version: 1,
  payload: SealSeenPayload,
  who: BENCH,
  points: { seal: 'seals' },
  check({ payload: { seal: ref, what, fine, words }, step }, sheet) {
    const seal = find(sheet.seals, ref);
    const sights = seal ? [...sightsBefore(seal), ...sightsAfter(seal)] : [];
    return [
      ...(!seal || sights.includes(what)
        ? []
        : [{ field: 'payload.what', allowed: `is not looked at here: ${sights.join(', ')}`, given: what }]),
      ...(fine || words !== undefined ? [] : [{ field: 'payload.words', allowed: 'is missing: what is wrong with it?' }]),
      ...ofAnother('seal', ref, step, sheet),
    ];
  },
  needs: [inItsTime],
  words({ payload: { seal: ref, what, fine, words } }, sheet) {
    const seal = find(sheet.seals, ref);
    const name = seal ? partName(sheet, seal.part) : ref;
    return fine
      ? `${name}: ${seal ? sightWords(seal, what) : what}`
      : joined(`${name}, ${seal ? sightName(seal, what) : what}: not right`, words);
  },
  report: [
    {
      section: 'home',
      // Where it went in, and what covered the way, is the bench's own business while it is right.
      when: ({ payload: { what, fine } }) => !fine || (what !== 'place' && what !== 'guard-on'),
      cells({ payload: { seal: ref, what, fine, words } }, sheet) {
        const seal = find(sheet.seals, ref);
        return [
          seal ? `${partName(sheet, seal.part)}, ${sightName(seal, what)}` : ref,
          fine ? (seal ? sightWords(seal, what) : '') : `not so: ${words ?? ''}`,
        ];
      },
    },
  ],
});
