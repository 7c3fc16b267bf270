import { partName } from '@jubb/sheet';
import { IsOptional, IsUUID } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Pieces, Ref, Words } from './fields.js';

/** What takes the place of a part lies here: before an act that cannot be undone, and before anything new goes in. */
export class ReplacementHerePayload {
  @Words(300) seen: string;
  /** Of which part, and how many; nothing where it is said of the step as a whole. */
  @IsOptional() @Ref() part?: string;
  @IsOptional() @Pieces() count?: number;
  /** The stock line that they are taken out of by this. */
  @IsOptional() @IsUUID() item?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'replacement-here': ReplacementHerePayload;
  }
}

export const replacementHere: Kind<'replacement-here'> = defineKind({
  id: 'replacement-here',
  version: 1,
  payload: ReplacementHerePayload,
  points: { part: 'parts' },
  tellsOfNew: true,
  takesStock: (payload) => 'item' in payload,
  words: ({ payload: { part, count = 1, seen } }, sheet) =>
    part === undefined ? `The new one is here: ${seen}` : `New, in hand: ${count} × ${partName(sheet, part)}, ${seen}`,
});
