import { find, type SheetFile } from '@jubb/sheet';
import { IsInt, IsOptional, Max, Min } from 'class-validator';
import { defineKind, type Given, type Kind, type Wrong } from './define-kind.js';
import { Words } from './fields.js';

/** A step was done. */
export class TickPayload {
  @IsOptional() @Words(1000) note?: string;
  /** Of a coat: so many of what must stay bare were seen to be masked. */
  @IsOptional() @IsInt() @Min(0) @Max(12) masked?: number;
  /** Of a coat: it is put off, and this is what the customer said to it. */
  @IsOptional() @Words(300) later?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    tick: TickPayload;
  }
}

/** A coat goes on once all of it is masked, or is put off; nothing else is. */
function coated({ payload: { masked, later }, step }: Given<'tick'>, sheet: SheetFile): readonly Wrong[] {
  const coat = find(sheet.steps, step ?? '')?.coat;
  if (!coat) return later === undefined ? [] : [{ field: 'payload.later', given: later, allowed: 'is said of a coat that is put off' }];
  if (later !== undefined || masked === coat.masked.length) return [];
  const allowed = `must be ${coat.masked.length}: ${coat.masked.join(', ')}`;
  return [{ field: 'payload.masked', ...(masked === undefined ? {} : { given: String(masked) }), allowed }];
}

export const tick: Kind<'tick'> = defineKind({
  id: 'tick',
  version: 1,
  payload: TickPayload,
  act: true,
  check: coated,
  words: ({ payload: { note, later }, step }, sheet) =>
    [find(sheet.steps, step ?? '')?.title ?? 'Done', later === undefined ? note : `later; the customer: ${later}`]
      .filter(Boolean)
      .join(': '),
});
