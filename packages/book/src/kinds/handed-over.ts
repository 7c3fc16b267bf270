import { IsBoolean, IsString, MaxLength, MinLength } from 'class-validator';
import { stopsHandOver } from '../state.js';
import { defineKind, type Kind, type Rule } from './define-kind.js';
import { TRUSTED } from './roles.js';

export class HandedOverPayload {
  @IsString() @MinLength(2, { message: 'is missing: who takes it?' }) @MaxLength(100) receivedBy: string;
  @IsBoolean() cautionsTold: boolean;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'handed-over': HandedOverPayload;
  }
}

const nothingOpen: Rule<'handed-over'> = (_, held) => {
  const stops = stopsHandOver(held.state());
  return stops.length > 0 ? { code: 'not-to-be-handed-over', errors: stops.map((stop) => ({ field: 'job', allowed: stop })) } : undefined;
};

export const handedOver: Kind<'handed-over'> = defineKind({
  id: 'handed-over',
  version: 1,
  payload: HandedOverPayload,
  who: TRUSTED,
  needs: [nothingOpen],
  changes: ['stage'],
  words: ({ payload }) => `Handed over to ${payload.receivedBy}`,
});
