import { find } from '@jubb/sheet';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { BENCH } from './roles.js';

/** Which variant the unit turned out to be, once it could be told, and what told it. */
export class VariantPayload {
  @Ref() variant: string;
  @Words() seen: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    variant: VariantPayload;
  }
}

export const variant: Kind<'variant'> = defineKind({
  id: 'variant',
  version: 1,
  payload: VariantPayload,
  who: BENCH,
  check({ payload: { variant: given } }, { variants = [] }) {
    if (find(variants, given)) return [];
    const names = variants.map(({ ref }) => ref).join(', ');
    return [
      { field: 'payload.variant', given, allowed: names ? `is none of this sheet; it has: ${names}` : 'is none: the sheet has but one' },
    ];
  },
  changes: ['sheet', 'list'],
  words: ({ payload: { variant: ref, seen } }, { variants = [] }) => `It is ${find(variants, ref)?.name ?? ref}: ${seen}`,
  report: [{ section: 'found' }],
});
