import { IsString, MaxLength, MinLength } from 'class-validator';
import { stopsSigning } from '../state.js';
import { defineKind, type Kind, type Rule } from './define-kind.js';

export class SignPayload {
  @IsString() @MinLength(2) @MaxLength(100) name: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    sign: SignPayload;
  }
}

const once: Rule<'sign'> = (_, { live }) =>
  live.some(({ kind }) => kind === 'sign')
    ? { code: 'signed-already', errors: [{ field: 'job', allowed: 'has its signature; strike that one first' }] }
    : undefined;

const nothingOpen: Rule<'sign'> = (_, held) => {
  const stops = stopsSigning(held.state());
  return stops.length > 0 ? { code: 'not-to-be-signed', errors: stops.map((stop) => ({ field: 'job', allowed: stop })) } : undefined;
};

export const sign: Kind<'sign'> = defineKind({
  id: 'sign',
  version: 1,
  payload: SignPayload,
  who: ['foreman'],
  needs: [once, nothingOpen],
  words: ({ payload }) => `Signed: ${payload.name}`,
});
