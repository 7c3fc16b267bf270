import { find } from '@jubb/sheet';
import { IsBoolean, IsOptional } from 'class-validator';
import { looksAt } from '../looks-due.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Words } from './fields.js';

/** Whether a step went as its sheet expects: by feel, sound, or what was seen. */
export class AsExpectedPayload {
  @IsBoolean() so: boolean;
  /** What it was like where it was not so. */
  @IsOptional() @Words(300) instead?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'as-expected': AsExpectedPayload;
  }
}

const isDue: Rule<'as-expected'> = ({ step }, held) =>
  looksAt(held.state().steps, step).some(({ what }) => what === 'expected')
    ? undefined
    : wrong({ field: 'step', given: step ?? '', allowed: 'is not done yet, or was said to be as expected already' });

export const asExpected: Kind<'as-expected'> = defineKind({
  id: 'as-expected',
  version: 1,
  payload: AsExpectedPayload,
  check({ payload: { so, instead }, step }, sheet) {
    if (find(sheet.steps, step ?? undefined)?.expect === undefined)
      return [{ field: 'step', allowed: 'expects nothing', ...(step === null ? {} : { given: step }) }];
    return so || instead !== undefined ? [] : [{ field: 'payload.instead', allowed: 'is missing: what was it like?' }];
  },
  needs: [isDue],
  words({ payload: { so, instead }, step }, sheet) {
    const expect = find(sheet.steps, step ?? undefined)?.expect;
    if (so) return ['As expected', expect].filter(Boolean).join(': ');
    return `Not as expected${expect === undefined ? '' : ` (${expect})`}: ${instead ?? ''}`;
  },
  report: [
    {
      section: 'home',
      cells({ payload: { so, instead }, step: ref }, sheet) {
        const step = find(sheet.steps, ref ?? undefined);
        return [step?.title ?? '', so ? (step?.expect ?? '') : `not so: ${instead ?? ''}`];
      },
    },
  ],
});
