import { IsInt, IsUUID, Min } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { WRITERS } from './roles.js';

/** The job goes on by another revision of its sheet. */
export class PinnedPayload {
  @IsUUID() revisionId: string;
  @IsInt() @Min(1) revision: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    pinned: PinnedPayload;
  }
}

export const pinned: Kind<'pinned'> = defineKind({
  id: 'pinned',
  version: 1,
  payload: PinnedPayload,
  who: WRITERS,
  outside: 'approved-revision',
  changes: ['sheet'],
  words: ({ payload }) => `Goes on by revision ${payload.revision} of the sheet`,
});
