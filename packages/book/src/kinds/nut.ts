import { IsIn, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { nm } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref } from './fields.js';
import { BENCH } from './roles.js';

/** Seated and backed off; turned to a slot; clicked home; at its mark again; held by its locknut. */
const NUT_ACTS = ['seated', 'turned', 'clicked', 'lined-up', 'locked'] as const;

export class NutPayload {
  @Ref() setting: string;
  @IsIn(NUT_ACTS) act: (typeof NUT_ACTS)[number];
  /** Tightening is plus. */
  @IsNumber() @Min(-720) @Max(720) angle: number;
  @IsOptional() @IsNumber() @Min(0) @Max(2000) torque?: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    nut: NutPayload;
  }
}

export const nut: Kind<'nut'> = defineKind({
  id: 'nut',
  version: 1,
  payload: NutPayload,
  who: BENCH,
  points: { setting: 'settings' },
  act: true,
  earlier: true,
  words({ payload: { act, angle, torque = 0 } }) {
    switch (act) {
      case 'seated':
        return `Nut seated at ${nm(torque)}, backed off ${-angle}°`;
      case 'clicked':
        return 'Bolt pulled until it clicked';
      case 'lined-up':
        return 'Set to its mark again';
      case 'locked':
        return 'Locknut tight against it';
      case 'turned':
        return turnedWords(angle);
    }
  },
  report: [{ section: 'setting' }],
});

function turnedWords(angle: number): string {
  if (angle === 0) return 'Nut left where it was and locked';
  return angle > 0 ? `Nut tightened ${angle}° and locked` : `Nut loosened ${-angle}° and locked`;
}
