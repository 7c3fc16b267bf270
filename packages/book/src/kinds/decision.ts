import { PartOf } from '@jubb/sheet/given';
import { CAUSE_SORTS, FATES, find, partName, type CauseSort, type Fate } from '@jubb/sheet';
import { IsIn, IsInt, IsOptional, Max, Min } from 'class-validator';
import { isForemansWord } from '../foremans-word.js';
import { failedWords, joined } from '../words.js';
import { defineKind, type Kind, type Rule } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { WRITERS } from './roles.js';

/** Why a part failed, and what shows it: what the magnet held, a colour, where it is worn. */
export class FailedBy {
  @IsIn(CAUSE_SORTS) sort: CauseSort;
  @IsOptional() @Words(300) words?: string;
}

export class DecisionPayload {
  @Ref() part: string;
  @IsIn(FATES) fate: Fate;
  @IsInt() @Min(1) @Max(1000) quantity: number;
  @IsOptional() @Words(500) reason?: string;
  @IsOptional() @PartOf(() => FailedBy) cause?: FailedBy;
}

declare module '../entries/kept.js' {
  interface Payloads {
    decision: DecisionPayload;
  }
}

const renewedEachTime: Rule<'decision'> = ({ payload: { part: ref, fate } }, { sheet, role }) => {
  const part = find(sheet.parts, ref);
  return part && isForemansWord(part, fate) && role !== 'foreman'
    ? { code: 'not-yours', errors: [], detail: `Renewed each time by the sheet; that it goes back is the foreman’s word: ${part.name}` }
    : undefined;
};

export const decision: Kind<'decision'> = defineKind({
  id: 'decision',
  version: 1,
  payload: DecisionPayload,
  who: WRITERS,
  points: { part: 'parts' },
  tellsOfNew: true,
  check({ payload: { part: ref, fate, quantity } }, sheet) {
    const part = find(sheet.parts, ref);
    // What the sheet renews each time is renewed as a whole: one old ring among new ones is the one that leaks.
    return part?.policy === 'renew' && fate === 'renew' && quantity < part.quantity
      ? [{ field: 'payload.quantity', given: String(quantity), allowed: `must be ${part.quantity}: all of them are renewed each time` }]
      : [];
  },
  needs: [renewedEachTime],
  words: ({ payload: { quantity, part, fate, reason, cause } }, sheet) =>
    joined(`${quantity} × ${partName(sheet, part)}: ${fate}`, reason, cause && `cause ${failedWords(cause)}`),
});
