import { formatQuantity, type Window } from '@jubb/core';
import {
  baseOf,
  find,
  settingWindow,
  windowOf,
  type LimitQuantity,
  type Setting,
  type SheetFile,
  type Step,
  settingQuantity,
} from '@jubb/sheet';
import { isKind, type AnyKeptEntry, type EntryKind } from '../entries/kept.js';
import { mean, readingFigure } from '../measured/working-for.js';
import { isWork } from '../no-work.js';

/** What a reading of the whole holds besides the setting: as it was read last, or not read yet. */
export interface Share {
  readonly setting?: string;
  readonly limit?: string;
  readonly name: string;
  /** N·m where the whole is turned. */
  readonly torque: number | undefined;
  readonly ratio: number;
}

/** The whole as it was turned, N·m, and what else of it is known. */
export interface WholeReading {
  readonly readings: readonly number[];
  readonly less?: readonly { readonly torque: number }[];
}

/** What the proof of a setting reads, and the window that it is judged by. */
export function proofReads(
  setting: Setting,
  bearings: 'new' | 'used' = 'new',
): { readonly quantity: LimitQuantity; readonly window: Window } {
  const { proof } = setting;
  if (proof?.by === 'whole')
    return { quantity: 'torque', window: proof.window ? windowOf(proof.window, 'torque') : settingWindow(setting, bearings) };
  return { quantity: settingQuantity(setting), window: settingWindow(setting, bearings) };
}

/** Whether it is proved by turning the whole. */
export function isProvedWhole({ proof }: Pick<Setting, 'proof'>): boolean {
  return proof?.by === 'whole';
}

/** What else is in the whole, each by its last reading before. */
export function sharesOf({ proof }: Setting, sheet: SheetFile, live: readonly AnyKeptEntry[]): readonly Share[] {
  return (proof?.less ?? []).map(({ setting, limit: limitRef, ratio: given }) => {
    const ratio = given === undefined ? 1 : baseOf(given, 'ratio');
    const limit = find(sheet.limits, limitRef);
    const read = limit
      ? live.filter(isKind('reading')).findLast(({ payload }) => payload.limit === limit.ref)
      : live.filter(isKind('end-play')).findLast(({ payload }) => payload.setting === setting && payload.moment !== 'proved');
    const whole = read && (read.kind === 'reading' && limit ? readingFigure(limit, read.payload) : mean(read.payload.readings));
    return {
      ...(setting === undefined ? {} : { setting }),
      ...(limitRef === undefined ? {} : { limit: limitRef }),
      name: (limit ?? find(sheet.settings, setting))?.name ?? '',
      torque: whole === undefined ? undefined : whole / ratio,
      ratio,
    };
  });
}

/** What is left of a reading of the whole, N·m. */
export function leftOf({ readings, less = [] }: WholeReading): number {
  return mean(readings) - less.reduce((sum, { torque }) => sum + torque, 0);
}

/** "whole axle at the pinion 3.10 N·m, less 2.60 N·m of what else turns". */
export function lessWords({ proof, name }: Pick<Setting, 'proof' | 'name'>, payload: WholeReading): string {
  const whole = mean(payload.readings);
  const torque = (base: number): string => formatQuantity(base, 'torque');
  return `${proof?.reads ?? name} ${torque(whole)}, less ${torque(whole - leftOf(payload))} of what else turns`;
}

/** Whether a setting is set on this job, and not only known. */
export function isSetHere({ steps }: Pick<SheetFile, 'steps'>, setting: string): boolean {
  return steps.some(({ record, stage }) => record.kind === 'setting' && record.setting === setting && stage === 'build');
}

/** Settings of this job that nobody reads any more once a step is done. */
export function hiddenBy(sheet: Pick<SheetFile, 'settings' | 'steps'>, { ref }: Pick<Step, 'ref'>): readonly Setting[] {
  return sheet.settings.filter((one) => one.proof?.by === 'closing' && one.proof.closes === ref && isSetHere(sheet, one.ref));
}

/** Whether a kind of entry at a step may hide a setting. */
export function mayHide(sheet: SheetFile, step: Step | undefined, kind: EntryKind): boolean {
  return step !== undefined && isWork(kind) && hiddenBy(sheet, step).length > 0;
}

/** Whether the step that hides a setting was done since an entry. */
export function isClosedSince({ proof }: Setting, entry: AnyKeptEntry, live: readonly AnyKeptEntry[]): boolean {
  const at = live.findIndex(({ id }) => id === entry.id);
  return live.findLastIndex(({ step, kind }) => step === proof?.closes && isWork(kind)) > at;
}
