import { find, partName } from '@jubb/sheet';
import { IsBoolean, IsIn, IsOptional } from 'class-validator';
import { SEAL_FAILURES, SEAL_FAILURE_WORDS, type SealFailure } from '../runs/seal-run.js';
import { joined } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';

/** The old seal or ring is out of its place, whole, or pieces of it are still in there. */
export class OldSealOutPayload {
  @Ref() seal: string;
  @IsBoolean() whole: boolean;
  /** Why it leaked, as it shows. */
  @IsOptional() @IsIn(SEAL_FAILURES) why?: SealFailure;
  @IsOptional() @Words(300) words?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'old-seal-out': OldSealOutPayload;
  }
}

export const oldSealOut: Kind<'old-seal-out'> = defineKind({
  id: 'old-seal-out',
  version: 1,
  payload: OldSealOutPayload,
  points: { seal: 'seals' },
  words({ payload: { seal: ref, whole, why, words } }, sheet) {
    const seal = find(sheet.seals, ref);
    return joined(
      `Old ${seal ? partName(sheet, seal.part) : ref}: ${whole ? 'out, whole' : 'not all of it is out'}`,
      why && SEAL_FAILURE_WORDS[why],
      words,
    );
  },
});
