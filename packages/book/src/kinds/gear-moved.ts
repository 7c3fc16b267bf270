import { find } from '@jubb/sheet';
import { ArrayMaxSize, ArrayUnique, IsArray, IsIn, IsNumber, IsString, Max, Min, NotEquals } from 'class-validator';
import { gearMovedWords } from '../runs/gear-words.js';
import { capital } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref } from './fields.js';
import { BENCH } from './roles.js';

const MESHING = ['pinion', 'ring'] as const;

/** A gear that was moved to mend its pattern: what was set with it is set anew. */
export class GearMovedPayload {
  /** Backlash of the gears. */
  @Ref() setting: string;
  @IsIn(MESHING) gear: (typeof MESHING)[number];
  /** mm: of the pinion deeper, of the ring to the pinion; minus is the other way. */
  @IsNumber() @Min(-2) @Max(2) @NotEquals(0, { message: 'must not be 0: nothing was moved' }) by: number;
  /** Joints that were undone for it: they are pulled again. */
  @IsArray() @ArrayMaxSize(20) @ArrayUnique() @IsString({ each: true }) undone: string[];
}

declare module '../entries/kept.js' {
  interface Payloads {
    'gear-moved': GearMovedPayload;
  }
}

export const gearMoved: Kind<'gear-moved'> = defineKind({
  id: 'gear-moved',
  version: 1,
  payload: GearMovedPayload,
  who: BENCH,
  points: { setting: 'settings', undone: 'joints' },
  tellsOfNew: true,
  earlier: true,
  words({ payload }, sheet) {
    const undone = payload.undone.map((ref) => find(sheet.joints, ref)?.name ?? ref);
    return `${capital(gearMovedWords(payload))}${undone.length > 0 ? `; undone for it: ${undone.join(', ')}` : ''}`;
  },
  report: [{ section: 'setting' }, { section: 'pattern' }],
});
