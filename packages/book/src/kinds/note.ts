import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

export class NotePayload {
  @Words(2000) text: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    note: NotePayload;
  }
}

export const note: Kind<'note'> = defineKind({
  id: 'note',
  version: 1,
  payload: NotePayload,
  words: ({ payload }) => payload.text,
});
