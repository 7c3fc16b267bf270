import { find, type HoldPoint, type SheetFile } from '@jubb/sheet';
import { IsOptional } from 'class-validator';
import { workersAt } from '../hold-points.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Words } from './fields.js';

/** What somebody saw at a hold point of a step: made by who looked, not by who did the work. */
export class HoldMetPayload {
  @Words(300) seen: string;
  /** The customer, who has no PIN here. */
  @IsOptional() @Words(100) customer?: string;
  /** Of the certified person: number, and who gave it. */
  @IsOptional() @Words(100) certificate?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'hold-met': HoldMetPayload;
  }
}

/** Four eyes are two people: who did the work does not sign for having looked at it. */
const byAnother: Rule<'hold-met'> = ({ step: ref }, { live, sheet, role, personId }) => {
  const hold = find(sheet.steps, ref ?? undefined)?.holdPoint;
  if (!hold || hold.who === 'customer') return undefined;
  if (hold.who === 'foreman' && role !== 'foreman') return { code: 'not-yours', errors: [], detail: `It takes the foreman: ${hold.what}` };
  if (workersAt(live, ref!).includes(personId))
    return wrong({ field: 'step', given: ref!, allowed: `is looked at by somebody else than who did it: ${hold.what}` });
  return undefined;
};

/** Looked at before it is done, nothing was seen. */
const onceDone: Rule<'hold-met'> = ({ step: ref }, held) =>
  held.state().steps.some(({ step, holds }) => step.ref === ref && holds)
    ? undefined
    : wrong({ field: 'step', given: ref ?? '', allowed: 'is not done yet, or looked at already' });

export const holdMet: Kind<'hold-met'> = defineKind({
  id: 'hold-met',
  version: 1,
  payload: HoldMetPayload,
  check({ payload, step }, sheet) {
    const hold = holdAt(sheet, step);
    if (!hold) return [{ field: 'step', allowed: 'has no hold point', ...(step === null ? {} : { given: step }) }];
    if (hold.who === 'customer' && payload.customer === undefined)
      return [{ field: 'payload.customer', allowed: 'is missing: the customer looks at it, and by name' }];
    if (hold.who === 'certified person' && payload.certificate === undefined)
      return [{ field: 'payload.certificate', allowed: 'is missing: number of the certificate, and who gave it' }];
    return [];
  },
  needs: [byAnother, onceDone],
  words({ payload: { seen, customer, certificate }, step }, sheet) {
    const hold = holdAt(sheet, step);
    const who = customer ?? (certificate === undefined ? undefined : `certificate ${certificate}`);
    return [`Looked at${hold ? ` by the ${hold.who}` : ''}: ${seen}`, who].filter(Boolean).join('; ');
  },
  report: [{ section: 'held' }],
});

function holdAt(sheet: SheetFile, step: string | null): HoldPoint | undefined {
  return find(sheet.steps, step ?? undefined)?.holdPoint;
}
