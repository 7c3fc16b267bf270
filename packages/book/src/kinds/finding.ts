import { FINDING_SORTS, type FindingSort } from '@jubb/sheet';
import { IsBoolean, IsIn, IsOptional } from 'class-validator';
import { capital, joined } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

export class FindingPayload {
  @Words(2000) text: string;
  @IsOptional() @Words(200) place?: string;
  /** Damage as it was found, or a sign that somebody was in there before. */
  @IsOptional() @IsIn(FINDING_SORTS) sort?: FindingSort;
  /** Nothing to be found is a finding too. */
  @IsOptional() @IsBoolean() nothing?: boolean;
}

declare module '../entries/kept.js' {
  interface Payloads {
    finding: FindingPayload;
  }
}

export const finding: Kind<'finding'> = defineKind({
  id: 'finding',
  version: 1,
  payload: FindingPayload,
  words({ payload: { text, place, sort, nothing } }) {
    if (nothing) return `Looked over: ${text}`;
    const found = joined(text, place);
    return sort === undefined ? found : `${capital(sort)}: ${found}`;
  },
  report: [{ section: 'found' }],
});
