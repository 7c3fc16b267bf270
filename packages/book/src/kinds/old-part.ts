import { OLD_FATES, type OldFate } from '@jubb/sheet';
import { IsBoolean, IsIn, IsOptional } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';

/** Where an old part goes; it is not let go before the new one was held against it. */
export class OldPartPayload {
  @IsOptional() @Ref() part?: string;
  @Words(200) name: string;
  @IsIn(OLD_FATES) fate: OldFate;
  /** The new one was held against it: size, holes, teeth, length. */
  @IsBoolean() compared: boolean;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'old-part': OldPartPayload;
  }
}

export const oldPart: Kind<'old-part'> = defineKind({
  id: 'old-part',
  version: 1,
  payload: OldPartPayload,
  points: { part: 'parts' },
  check: ({ payload: { fate, compared, name } }) =>
    fate === 'hold' || compared
      ? []
      : [{ field: 'payload.fate', allowed: `must be "hold" until the new ${name} was held against the old one`, given: fate }],
  words: ({ payload: { name, fate, compared } }) => `Old ${name}: ${fate}${compared ? ', held against the new one' : ''}`,
});
