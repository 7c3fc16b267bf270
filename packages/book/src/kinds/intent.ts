import { partName } from '@jubb/sheet';
import { IsIn } from 'class-validator';
import { INTENT_WORDS } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref } from './fields.js';

/** Whether a part is to be kept or may be spoilt changes how it comes off. */
export class IntentPayload {
  @Ref() part: string;
  @IsIn(['keep', 'sacrifice']) intent: 'keep' | 'sacrifice';
}

declare module '../entries/kept.js' {
  interface Payloads {
    intent: IntentPayload;
  }
}

export const intent: Kind<'intent'> = defineKind({
  id: 'intent',
  version: 1,
  payload: IntentPayload,
  points: { part: 'parts' },
  words: ({ payload }, sheet) => `${partName(sheet, payload.part)}: ${INTENT_WORDS[payload.intent]}`,
});
