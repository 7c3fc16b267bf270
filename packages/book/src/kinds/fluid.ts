import { find } from '@jubb/sheet';
import { IsNumber, IsString, Max, MaxLength, Min } from 'class-validator';
import { filled } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref } from './fields.js';

export class FluidPayload {
  @Ref() fluid: string;
  /** Nothing where it was filled until it showed. */
  @IsNumber() @Min(0) @Max(1000, { message: 'must be at most 1000' }) amount: number;
  @IsString() @MaxLength(10) unit: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    fluid: FluidPayload;
  }
}

export const fluid: Kind<'fluid'> = defineKind({
  id: 'fluid',
  version: 1,
  payload: FluidPayload,
  points: { fluid: 'fluids' },
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
