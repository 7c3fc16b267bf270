import { SIGHTS, type Sight } from '@jubb/core';
import { find } from '@jubb/sheet';
import { Equals, IsIn, IsInt, IsNumber, IsOptional, IsUUID, Max, Min } from 'class-validator';
import { wrenchSetting } from '../measured/working-for.js';
import { passTorque, placeNumbers } from '../runs/joint-run.js';
import { nm, pulledTo, settingOf } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { placeWrong } from './places.js';
import { BENCH } from './roles.js';

export class PullPayload {
  @Ref() joint: string;
  @IsInt() @Min(1) @Max(40) pass: number;
  /** From 0, clockwise from twelve o'clock. */
  @IsInt() @Min(0) @Max(399) place: number;
  /** Wanted at the fastener; nothing for a round by hand, by eye or by angle. */
  @IsNumber() @Min(0) @Max(20000) torque: number;
  @IsIn(['clicked', 'turned', 'trouble']) result: 'clicked' | 'turned' | 'trouble';
  /** What the wrench says itself: its peak at the fastener, N·m, and its turn from snug, degrees. */
  @IsOptional() @IsNumber() @Min(0) @Max(40000) peak?: number;
  @IsOptional() @IsNumber() @Min(0) @Max(3600) angle?: number;
  /** What its curve showed, where it was kept all the same. */
  @IsOptional() @IsIn(SIGHTS) sight?: Sight;
  /** Drive centre to grip, mm; with the adapter's length and angle it gives the wrench setting. */
  @IsNumber() @Min(20) @Max(3000) wrenchLength: number;
  @IsOptional() @IsUUID() adapterId?: string;
  @IsNumber() @Min(0) @Max(1000) adapterLength: number;
  @IsNumber() @Min(0) @Max(180) adapterAngle: number;
  @IsOptional() @Words(500) note?: string;
  /** With old fasteners and no locker, to read a setting under it: uses nothing up, proves nothing. */
  @IsOptional() @Equals(true) trial?: true;
}

declare module '../entries/kept.js' {
  interface Payloads {
    pull: PullPayload;
  }
}

/** How near a torque must be to what its pass wants: what rounding makes of it, as a share and in N·m. */
const NEAR = 0.005;
const NEAR_NM = 0.06;

export const pull: Kind<'pull'> = defineKind({
  id: 'pull',
  version: 1,
  payload: PullPayload,
  who: BENCH,
  points: { joint: 'joints' },
  reads: () => 'torque',
  figures: (payload) => (payload.torque > 0 ? [settingOf(payload)] : []),
  act: true,
  check({ payload }, sheet) {
    const joint = find(sheet.joints, payload.joint);
    if (joint && payload.place >= joint.count) return [placeWrong('place', joint, String(payload.place))];
    // By hand for want of a wrench, with the reason, is what it says.
    const isSaid = payload.result === 'trouble' || (payload.torque === 0 && payload.note !== undefined);
    const wanted = joint && !isSaid ? passTorque(joint, payload.pass) : undefined;
    if (wanted === undefined || Math.abs(payload.torque - wanted) <= NEAR_NM + wanted * NEAR) return [];
    const allowed = `must be ${nm(wanted)} in pass ${payload.pass}: a slip of the unit, or of another pass?`;
    return [{ field: 'payload.torque', given: nm(payload.torque), allowed }];
  },
  working: wrenchSetting,
  earlier: true,
  words({ payload }, sheet) {
    const { joint: ref, pass, place, torque, result, note, sight, trial } = payload;
    const joint = find(sheet.joints, ref);
    const number = joint ? placeNumbers(joint)[place] : undefined;
    const seen = sight && result !== 'trouble' ? `, its curve showed: ${sight}` : '';
    const how = `${pulledTo(payload, joint)}${torque > 0 ? `, wrench at ${nm(settingOf(payload))}` : ''}${seen}`;
    return `${joint?.name ?? ref}, pass ${pass}, number ${number ?? ''}: ${how}, ${result}${note ? ` (${note})` : ''}${trial ? '; a trial, which proves nothing' : ''}`;
  },
  report: [
    {
      section: 'pulls',
      cells({ payload }, sheet) {
        const joint = find(sheet.joints, payload.joint);
        return [
          String(payload.pass),
          String((joint ? placeNumbers(joint) : [])[payload.place] ?? ''),
          String(payload.place + 1),
          pulledTo(payload, joint),
          payload.torque > 0 ? nm(settingOf(payload)) : '',
          [payload.trial && 'trial', payload.result, payload.note].filter(Boolean).join(': '),
        ];
      },
    },
  ],
});
