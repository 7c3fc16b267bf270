import { find, type SheetFile } from '@jubb/sheet';
import { Equals, IsNumber, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import { amountAsked } from '../measured/plausible.js';
import { filled } from '../words.js';
import { defineKind, type Kind, type Wrong } from './define-kind.js';
import { Ref } from './fields.js';
import { ofAnother } from './places.js';

export class FluidPayload {
  @Ref() fluid: string;
  /** Nothing where it was filled until it showed. */
  @IsNumber() @Min(0) @Max(1000, { message: 'must be at most 1000' }) amount: number;
  @IsString() @MaxLength(10) unit: string;
  /** It is further off than the sheet allows, and so all the same. */
  @IsOptional() @Equals(true) sure?: true;
}

declare module '../entries/kept.js' {
  interface Payloads {
    fluid: FluidPayload;
  }
}

/** Half of it, or ten times as much, is asked before it is kept. */
function farOff({ fluid: ref, amount, sure }: FluidPayload, sheet: SheetFile): readonly Wrong[] {
  const line = find(sheet.fluids, ref);
  const asked = line && amountAsked(line);
  if (!line?.amount || !asked || sure || (amount >= asked.from && amount <= asked.to)) return [];
  const allowed = `is more than ${asked.tolerance} off what the sheet says, ${line.amount.figure}: say that it is so`;
  return [{ field: 'payload.amount', given: String(amount), allowed }];
}

export const fluid: Kind<'fluid'> = defineKind({
  id: 'fluid',
  version: 1,
  payload: FluidPayload,
  points: { fluid: 'fluids' },
  check: ({ payload, step }, sheet) => [...farOff(payload, sheet), ...ofAnother('fluid', payload.fluid, step, sheet)],
  words: ({ payload }, sheet) => `${find(sheet.fluids, payload.fluid)?.name ?? payload.fluid}: ${filled(payload)}`,
  report: [
    {
      section: 'seals',
      cells({ payload }, sheet) {
        const filledIn = find(sheet.fluids, payload.fluid);
        return [`${filledIn?.name ?? payload.fluid}, ${filledIn?.grade ?? ''}`, filled(payload), ''];
      },
    },
  ],
});
