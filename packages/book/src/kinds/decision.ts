import { CAUSE_SORTS, FATES, partName, type CauseSort, type Fate } from '@jubb/sheet';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsOptional, Max, Min, ValidateNested } from 'class-validator';
import { failedWords, joined } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
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
  @IsOptional() @ValidateNested() @Type(() => FailedBy) cause?: FailedBy;
}

declare module '../entries/kept.js' {
  interface Payloads {
    decision: DecisionPayload;
  }
}

export const decision: Kind<'decision'> = defineKind({
  id: 'decision',
  version: 1,
  payload: DecisionPayload,
  who: WRITERS,
  points: { part: 'parts' },
  tellsOfNew: true,
  words: ({ payload: { quantity, part, fate, reason, cause } }, sheet) =>
    joined(`${quantity} × ${partName(sheet, part)}: ${fate}`, reason, cause && `cause ${failedWords(cause)}`),
});
