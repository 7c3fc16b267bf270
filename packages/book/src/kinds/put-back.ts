import { nm } from '../words.js';
import { IsNumber, IsOptional, IsUUID, Max, Min } from 'class-validator';
import type { KeptEntry } from '../entries/kept.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Pieces } from './fields.js';

/** A wrench is right within 4 % (ISO 6789-1); small figures are rounded as they are set. */
const NEAR = 0.04;
const NEAR_NM = 0.3;

/** What was moved is where it was. */
export class PutBackPayload {
  @IsUUID() moved: string;
  /** Screws that went back in, counted again, and what they were pulled to, N·m. */
  @IsOptional() @Pieces() screws?: number;
  @IsOptional() @IsNumber() @Min(0.1) @Max(5000) torque?: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'put-back': PutBackPayload;
  }
}

/** Every screw that was counted out is counted back, and pulled to what was written down. */
const isWhole: Rule<'put-back'> = ({ payload }, held) => {
  const { payload: out } = held.entry(payload.moved) as KeptEntry<'moved'>;
  if (out.screws !== undefined && payload.screws !== out.screws)
    return wrong({
      field: 'payload.screws',
      ...(payload.screws === undefined ? {} : { given: String(payload.screws) }),
      allowed: `must be ${out.screws}: so many were counted out of ${out.what}`,
    });
  if (out.torque === undefined) return undefined;
  if (payload.torque !== undefined && Math.abs(payload.torque - out.torque) <= Math.max(NEAR_NM, out.torque * NEAR)) return undefined;
  return wrong({
    field: 'payload.torque',
    ...(payload.torque === undefined ? {} : { given: nm(payload.torque) }),
    allowed: `must be ${nm(out.torque)}, as it is written down for ${out.what}`,
  });
};

export const putBack: Kind<'put-back'> = defineKind({
  id: 'put-back',
  version: 1,
  payload: PutBackPayload,
  binds: { moved: { to: ['moved'], allowed: 'is nothing that was moved on this job' } },
  needs: [isWhole],
  reads: ({ torque }) => (torque === undefined ? undefined : 'torque'),
  figures: ({ torque }) => (torque === undefined ? [] : [torque]),
  words: ({ payload: { screws, torque } }) =>
    ['Back where it was', screws === undefined ? '' : `${screws} screws`, torque === undefined ? '' : nm(torque)]
      .filter(Boolean)
      .join(', '),
});
