import type { AnyKeptEntry, KeptEntry, UsedWorking } from '../entry/kept.js';
import type { Setting } from '../sheet/file.js';
import { workings, formatQuantity, quantityOf } from '@jubb/core';
import { adviseNut, mean } from './working-for.js';

export type SettingPhase = 'seat' | 'read' | 'turn' | 'read-locked' | 'set';

export interface SettingTry {
  readonly entry: KeptEntry<'end-play'>;
  readonly play: number;
  readonly verdict: string | undefined;
  /** What was done to the nut before this reading. */
  readonly before: string;
}

export interface SettingRun {
  readonly setting: Setting;
  readonly phase: SettingPhase;
  readonly tries: readonly SettingTry[];
  /** The last reading, mm, and what to do with the nut from it. */
  readonly playNow: number | undefined;
  readonly advice: UsedWorking | null;
  /** Workings that were used to set it, in their order. */
  readonly worked: readonly KeptEntry<'worked'>[];
  readonly proved: SettingTry | undefined;
}

/** Where the setting of a nut stands: seat, read, turn, read again, until a reading is in. */
export function settingRun(setting: Setting, entries: readonly AnyKeptEntry[]): SettingRun {
  // Only a castle nut is turned by figures; whatever else is set by its method, and read.
  const byNut = setting.method === 'castle-nut';
  const start: SettingPhase = byNut ? 'seat' : 'read-locked';
  let phase: SettingPhase = start;
  let before = 'as found';
  let playNow: number | undefined;
  let proved: SettingTry | undefined;
  const tries: SettingTry[] = [];
  const worked: KeptEntry<'worked'>[] = [];
  for (const entry of entries) {
    if (entry.kind === 'nut' && entry.payload.setting === setting.ref) {
      phase = entry.payload.act === 'seated' ? 'read' : 'read-locked';
      before =
        entry.payload.act === 'seated'
          ? `seated ${entry.payload.torque ?? ''} N·m, back ${setting.nut?.backOff ?? ''}`
          : turned(entry.payload.angle);
      // A nut that moves takes its proof with it.
      proved = undefined;
    }
    if (entry.kind === 'worked' && entry.payload.setting === setting.ref) {
      worked.push(entry);
      before = didWords(entry);
      // What was put in or turned takes the proof, and the setting, with it.
      proved = undefined;
      if (phase === 'set') phase = 'read-locked';
    }
    if (entry.kind === 'end-play' && entry.payload.setting === setting.ref) {
      playNow = mean(entry.payload.readings);
      const verdict = verdictOf(entry);
      const current = { entry, play: playNow, verdict, before };
      tries.push(current);
      if (entry.payload.moment === 'now') phase = 'turn';
      else if (verdict === 'in') phase = 'set';
      else phase = verdict === 'out' && byNut ? 'turn' : 'read-locked';
      if (entry.payload.moment === 'proved') proved = current;
    }
  }
  const advice = phase === 'turn' && playNow !== undefined ? adviseNut(setting, playNow) : null;
  // No advice means no play to measure from: back to the start.
  if (phase === 'turn' && advice === null) phase = start;
  return { setting, phase, tries, playNow, advice, proved, worked };
}

/** The last use of a working for a setting. */
export function workedWith({ worked }: SettingRun, working: string): KeptEntry<'worked'> | undefined {
  return worked.findLast(({ payload }) => payload.working === working);
}

/** What was done by a working, by the first thing it answers: "put in 1 + 0.1 mm". */
export function didWords({ payload, working }: Pick<KeptEntry<'worked'>, 'payload' | 'working'>): string {
  const described = workings.describe(payload.working);
  const field = described?.outputs.find(({ kind, name }) => (kind === 'text' || kind === 'number') && working?.output[name] !== undefined);
  if (!described || !field || !working) return described?.title ?? payload.working;
  const answer = working.output[field.name];
  const written =
    field.kind === 'number' ? formatQuantity(Number(answer), quantityOf(field.quantity, working.input, described.inputs)) : String(answer);
  return `${field.label.charAt(0).toLowerCase()}${field.label.slice(1)} ${written}`;
}

function turned(angle: number): string {
  if (angle === 0) return 'left where it was';
  return angle > 0 ? `on ${angle}°` : `back ${-angle}°`;
}

/** The verdict kept with an entry that was judged; what a nut is advised is no verdict on the reading. */
export function verdictOf({ working }: { readonly working: UsedWorking | null }): 'in' | 'out' | 'unsure' | undefined {
  const verdict = working?.id === 'bearing.nut' ? undefined : working?.output['verdict'];
  return verdict === 'in' || verdict === 'out' || verdict === 'unsure' ? verdict : undefined;
}
