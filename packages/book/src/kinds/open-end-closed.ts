import { IsUUID } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';

export class OpenEndClosedPayload {
  @IsUUID() opened: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'open-end-closed': OpenEndClosedPayload;
  }
}

export const openEndClosed: Kind<'open-end-closed'> = defineKind({
  id: 'open-end-closed',
  version: 1,
  payload: OpenEndClosedPayload,
  binds: { opened: { to: ['open-end'], allowed: 'is not an open end of this job' } },
  words: () => 'Open end closed',
});
