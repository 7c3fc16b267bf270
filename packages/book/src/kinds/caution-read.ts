import { find } from '@jubb/sheet';
import { defineKind, type Kind } from './define-kind.js';
import { Ref } from './fields.js';

export class CautionReadPayload {
  @Ref() caution: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'caution-read': CautionReadPayload;
  }
}

export const cautionRead: Kind<'caution-read'> = defineKind({
  id: 'caution-read',
  version: 1,
  payload: CautionReadPayload,
  points: { caution: 'cautions' },
  byTheWay: true,
  words: ({ payload }, sheet) => `Caution read: ${find(sheet.cautions, payload.caution)?.text ?? payload.caution}`,
});
