import { VALUE_LISTS, type ValueList } from '@jubb/sheet';
import { IsIn } from 'class-validator';
import { doubtOf } from '../found.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref } from './fields.js';
import { WRITERS } from './roles.js';

/** A value that is only somebody's word, or none where one is meant to be, and is used all the same. */
export class ValueTakenPayload {
  @IsIn(VALUE_LISTS) list: ValueList;
  @Ref() line: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'value-taken': ValueTakenPayload;
  }
}

export const valueTaken: Kind<'value-taken'> = defineKind({
  id: 'value-taken',
  version: 1,
  payload: ValueTakenPayload,
  who: WRITERS,
  words: ({ payload: { list, line } }, sheet) => `Used as it stands: ${doubtOf(sheet, list, line)?.name ?? line}, only somebody’s word`,
  report: [{ section: 'no-number' }],
});
