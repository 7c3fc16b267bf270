import { Instant } from '@jubb/sheet/given';
import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import * as payloads from '../kinds/payloads.js';

/** Kind of entry → class of its payload. The only list of kinds there is. */
export const ENTRY_PAYLOADS = {
  finding: payloads.FindingPayload,
  'came-off': payloads.CameOffPayload,
  mark: payloads.MarkPayload,
  'mark-met': payloads.MarkMetPayload,
  'went-in': payloads.WentInPayload,
  wait: payloads.WaitPayload,
  'wait-over': payloads.WaitOverPayload,
  tick: payloads.TickPayload,
  'caution-read': payloads.CautionReadPayload,
  reading: payloads.ReadingPayload,
  look: payloads.LookPayload,
  worked: payloads.WorkedPayload,
  decision: payloads.DecisionPayload,
  answered: payloads.AnsweredPayload,
  counted: payloads.CountedPayload,
  fluid: payloads.FluidPayload,
  'seal-fitted': payloads.SealFittedPayload,
  nut: payloads.NutPayload,
  'end-play': payloads.EndPlayPayload,
  accepted: payloads.AcceptedPayload,
  pattern: payloads.PatternPayload,
  'gear-moved': payloads.GearMovedPayload,
  pull: payloads.PullPayload,
  fitted: payloads.FittedPayload,
  photo: payloads.PhotoPayload,
  clip: payloads.ClipPayload,
  moved: payloads.MovedPayload,
  'put-back': payloads.PutBackPayload,
  intent: payloads.IntentPayload,
  'old-part': payloads.OldPartPayload,
  'old-seal-out': payloads.OldSealOutPayload,
  'replacement-here': payloads.ReplacementHerePayload,
  'came-out': payloads.CameOutPayload,
  hold: payloads.HoldPayload,
  'hold-off': payloads.HoldOffPayload,
  'open-end': payloads.OpenEndPayload,
  'open-end-closed': payloads.OpenEndClosedPayload,
  strike: payloads.StrikePayload,
  note: payloads.NotePayload,
  'next-time': payloads.NextTimePayload,
  'value-taken': payloads.ValueTakenPayload,
  'value-found': payloads.ValueFoundPayload,
  owed: payloads.OwedPayload,
  'owed-settled': payloads.OwedSettledPayload,
  pinned: payloads.PinnedPayload,
  way: payloads.WayPayload,
  stage: payloads.StagePayload,
  sign: payloads.SignPayload,
  'handed-over': payloads.HandedOverPayload,
} as const;

export type EntryKind = keyof typeof ENTRY_PAYLOADS;
export type PayloadOf<K extends EntryKind> = InstanceType<(typeof ENTRY_PAYLOADS)[K]>;
export const ENTRY_KINDS = Object.keys(ENTRY_PAYLOADS) as readonly EntryKind[];

/** An entry as a client posts it. */
export class NewEntry {
  /** Made by the client, UUID version 7: posting it twice keeps it once. */
  @IsUUID('7') id: string;
  @IsIn(ENTRY_KINDS) kind: EntryKind;
  @IsObject() payload: object;
  @IsOptional() @IsString() @MaxLength(80) @Matches(/^[a-z0-9-]+$/u) step?: string;
  @IsOptional() @IsUUID() toolId?: string;
  @IsOptional() @IsUUID() strikes?: string;
  /** The client's clock when it was recorded. */
  @Instant() takenAt: string;
}

export class PostEntries {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => NewEntry)
  entries: NewEntry[];
  /** Who made them, when it is not who is at the tablet now: somebody who logged in there before. */
  @IsOptional() @IsUUID() personId?: string;
}
