import {
  type SettingMethod,
  type Setting,
  type SheetFile,
  type Step,
  baseOf,
  settingQuantity,
  settingWindow,
  type Stage,
} from '@jubb/sheet';
import type { AnyKeptEntry, KeptEntry, PayloadOf, UsedWorking } from '../entries/kept.js';
import { adviseNut, mean } from '../measured/working-for.js';
import { verdictOf } from '../measured/verdict.js';
import { gearMovedWords } from './gear-words.js';
import { isClosedSince, isProvedWhole, leftOf, lessWords } from './proof.js';
import { workings, formatQuantity, quantityOf } from '@jubb/core';

export type SettingPhase = 'seat' | 'read' | 'turn' | 'act' | 'read-locked' | 'set';

/** What a method is set by where no figure says how far: its act, and whether it is read before that, too. */
const BY_ACT: Partial<Record<SettingMethod, { readonly act: PayloadOf<'nut'>['act']; readonly readsFirst: boolean }>> = {
  'slipping-bolt': { act: 'clicked', readsFirst: false },
  witness: { act: 'lined-up', readsFirst: false },
  locknut: { act: 'locked', readsFirst: true },
};

/** The act that a method is set by, if it is set by one. */
export function actOf({ method }: Pick<Setting, 'method'>): PayloadOf<'nut'>['act'] | undefined {
  return BY_ACT[method]?.act;
}

export const BEARINGS = ['new', 'used'] as const;
export type Bearings = (typeof BEARINGS)[number];

export interface SettingTry {
  readonly entry: KeptEntry<'end-play'>;
  readonly play: number;
  readonly verdict: string | undefined;
  /** Why the foreman lets it stand although it is unsure. */
  readonly accepted?: string;
  /** What was done to the nut before this reading. */
  readonly before: string;
}

export interface SettingRun {
  readonly setting: Setting;
  readonly phase: SettingPhase;
  /** Whose window holds, and that window in mm or N·m. */
  readonly bearings: Bearings;
  readonly window: { readonly from: number; readonly to: number };
  readonly tries: readonly SettingTry[];
  /** The last that was judged: a try, or the whole that proves it. */
  readonly last: SettingTry | undefined;
  /** The last reading, mm, and what to do with the nut from it. */
  readonly playNow: number | undefined;
  readonly advice: UsedWorking | null;
  /** Workings that were used to set it, in their order. */
  readonly worked: readonly KeptEntry<'worked'>[];
  readonly proved: SettingTry | undefined;
  /** How often its act was done. */
  readonly acts: number;
  /** What it should read before it is locked, from what locking changed the last time; none before that is known. */
  readonly readFirst: number | undefined;
}

const BEFORE_BUILD: ReadonlySet<Stage> = new Set(['book-in', 'strip', 'measure', 'decide']);

/** A step that reads a setting as it was found; what it reads sets nothing. */
export function readsAsFound({ stage }: Pick<Step, 'stage'>): boolean {
  return BEFORE_BUILD.has(stage);
}

/** Entries without the readings of a setting as it was found. */
export function sinceBuild(sheet: Pick<SheetFile, 'steps'>, entries: readonly AnyKeptEntry[]): readonly AnyKeptEntry[] {
  const found = new Set(sheet.steps.filter(readsAsFound).map(({ ref }) => ref));
  return entries.filter(({ kind, step }) => kind !== 'end-play' || step === null || !found.has(step));
}

/** Where the setting of a nut stands: seat, read, turn, read again, until a reading is in. */
export function settingRun(setting: Setting, entries: readonly AnyKeptEntry[], decided: Bearings = 'new'): SettingRun {
  // Only a castle nut is turned by figures; whatever else is set by its method, and read.
  const byNut = setting.method === 'castle-nut';
  const byAct = BY_ACT[setting.method];
  const start: SettingPhase = byNut ? 'seat' : byAct ? (byAct.readsFirst ? 'read' : 'act') : 'read-locked';
  let phase: SettingPhase = start;
  let bearings = decided;
  let acts = 0;
  let before = 'as put together';
  let playNow: number | undefined;
  let proved: SettingTry | undefined;
  const tries: SettingTry[] = [];
  let last: SettingTry | undefined;
  const worked: KeptEntry<'worked'>[] = [];
  for (const entry of entries) {
    if (entry.kind === 'nut' && entry.payload.setting === setting.ref) {
      phase = entry.payload.act === 'seated' ? 'read' : 'read-locked';
      before = didToNut(entry.payload, setting);
      acts += 1;
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
    if (entry.kind === 'gear-moved' && goesWith(setting, entry.payload)) {
      phase = start;
      before = gearMovedWords(entry.payload);
      proved = undefined;
    }
    if (entry.kind === 'accepted' && entry.payload.setting === setting.ref && last && mayAccept(last)) {
      const accepted: SettingTry = { ...last, accepted: entry.payload.why };
      if (tries.at(-1) === last) tries[tries.length - 1] = accepted;
      if (proved === last) proved = accepted;
      last = accepted;
      phase = 'set';
    }
    if (entry.kind === 'end-play' && entry.payload.setting === setting.ref) {
      const isWhole = entry.payload.moment === 'proved' && isProvedWhole(setting);
      const play = mean(entry.payload.readings);
      if (!isWhole) playNow = play;
      bearings = entry.payload.bearings ?? bearings;
      const verdict = verdictOf(entry);
      // What is read before the locknut holds it was set by hand, whatever was done to it before.
      const did = entry.payload.moment === 'now' && byAct ? 'set, not locked yet' : before;
      const current: SettingTry = isWhole
        ? { entry, play: leftOf(entry.payload), verdict, before: lessWords(setting, entry.payload) }
        : { entry, play, verdict, before: did };
      last = current;
      // What the whole takes to turn is no try of the setting.
      if (!isWhole) tries.push(current);
      if (entry.payload.moment === 'now') phase = byAct ? 'act' : 'turn';
      else if (verdict === 'in') phase = 'set';
      else if (verdict === 'unsure') phase = 'read-locked';
      else phase = byNut ? 'turn' : start;
      if (entry.payload.moment === 'proved') proved = current;
    }
  }
  const advice = phase === 'turn' && playNow !== undefined ? adviseNut(setting, playNow) : null;
  // No advice means no play to measure from: back to the start.
  if (phase === 'turn' && advice === null) phase = start;
  const window = settingWindow(setting, bearings);
  const byClosing = setting.proof?.by === 'closing';
  if (byClosing) proved = phase === 'set' && last && isClosedSince(setting, last.entry, entries) ? last : undefined;
  const readFirst = byAct?.readsFirst ? readBefore(setting, window, tries) : undefined;
  return { setting, phase, bearings, window, tries, last, playNow, advice, proved, worked, acts, readFirst };
}

/** Whether a foreman may let a reading stand: it is unsure, and the setting is as it stays. */
export function mayAccept({ entry, verdict, accepted }: SettingTry): boolean {
  return verdict === 'unsure' && accepted === undefined && entry.payload.moment !== 'now';
}

/** A gear that moves takes its backlash with it; for the pinion its bearings are apart, and every preload with them. */
function goesWith({ ref, kind }: Setting, { setting, gear }: PayloadOf<'gear-moved'>): boolean {
  return ref === setting || (gear === 'pinion' && kind === 'preload');
}

/** The aim less what locking changed between the last two readings, before it and after it. */
function readBefore(setting: Setting, { from, to }: SettingRun['window'], tries: readonly SettingTry[]): number | undefined {
  const locked = tries.findLastIndex(({ entry }) => entry.payload.moment === 'locked');
  const [before, after] = [tries[locked - 1], tries[locked]];
  if (!before || !after || before.entry.payload.moment !== 'now') return undefined;
  const aim = setting.aim ? baseOf(setting.aim.figure, settingQuantity(setting)) : (from + to) / 2;
  return Math.max(0, aim - (after.play - before.play));
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

function didToNut({ act, angle, torque }: PayloadOf<'nut'>, { nut }: Setting): string {
  switch (act) {
    case 'seated':
      return `seated ${torque ?? ''} N·m, back ${nut?.backOff ?? ''}`;
    case 'turned':
      return turned(angle);
    case 'clicked':
      return 'clicked';
    case 'lined-up':
      return 'at its mark';
    case 'locked':
      return 'locked';
  }
}

function turned(angle: number): string {
  if (angle === 0) return 'left where it was';
  return angle > 0 ? `on ${angle}°` : `back ${-angle}°`;
}
