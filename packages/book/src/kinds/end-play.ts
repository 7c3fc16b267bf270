import { RowsOf } from '@jubb/sheet/given';
import { formatQuantity } from '@jubb/core';
import { baseOf, find, settingQuantity, settingWindow, type Setting, type SettingMethod, type Tool } from '@jubb/sheet';
import type { UsedWorking } from '../entries/kept.js';
import { IsIn, IsNumber, IsOptional, IsString, MaxLength, Min } from 'class-validator';
import { readingsText } from '../measured/reading-line.js';
import { adviseNut, judgeWindow, mean } from '../measured/working-for.js';
import { isClosedSince, isProvedWhole, isSetHere, leftOf, lessWords, proofReads, sharesOf } from '../runs/proof.js';
import { BEARINGS, type Bearings } from '../runs/setting-run.js';
import { judged } from '../words.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Figures, Ref } from './fields.js';
import { BENCH } from './roles.js';

const MOMENTS = ['now', 'locked', 'proved'] as const;

/** What is in a reading of the whole besides the setting that it proves. */
export class LessPayload {
  @IsOptional() @Ref() setting?: string;
  @IsOptional() @Ref() limit?: string;
  /** N·m where the whole is turned. */
  @IsNumber() @Min(0) torque: number;
}

/** A reading of a setting: a play or a preload. */
export class EndPlayPayload {
  @Ref() setting: string;
  /** Whose window it is judged by, where used bearings have one of their own. */
  @IsOptional() @IsIn(BEARINGS) bearings?: Bearings;
  @IsIn(MOMENTS) moment: (typeof MOMENTS)[number];
  /** mm, or N·m for a preload. */
  @Figures(0, 500) readings: number[];
  @IsString() @MaxLength(10) unit: string;
  /** Of the whole that proves it: what is taken off, as it was read before. */
  @IsOptional() @RowsOf(() => LessPayload, 6) less?: LessPayload[];
}

declare module '../entries/kept.js' {
  interface Payloads {
    'end-play': EndPlayPayload;
  }
}

/** What was never set proves nothing, whatever it reads. */
const setFirst: Rule<'end-play'> = ({ payload: { setting, moment } }, { live, sheet }) => {
  const isSet = live.some((entry) => entry.kind === 'end-play' && entry.payload.setting === setting && entry.payload.moment !== 'proved');
  return moment !== 'proved' || !isSetHere(sheet, setting) || isSet
    ? undefined
    : wrong({ field: 'payload.moment', given: moment, allowed: 'is not said of what was not set yet: set it first' });
};

/** A share that was written down and one that was read are the same. */
const SAME_NM = 1e-6;

/** What the whole is less is what was read of it on this job, all of it and nothing else. */
const lessAsRead: Rule<'end-play'> = ({ payload: { setting: ref, moment, less = [] } }, { live, sheet }) => {
  const setting = find(sheet.settings, ref);
  if (!setting) return undefined;
  const wanted = moment === 'proved' && isProvedWhole(setting) ? sharesOf(setting, sheet, live) : [];
  const unread = wanted.find(({ torque }) => torque === undefined);
  if (unread) return wrong({ field: 'payload.less', allowed: `is not known yet: ${unread.name} was not read; read it first` });
  const isSo =
    less.length === wanted.length &&
    wanted.every((share, at) => {
      const { setting: ofSetting, limit, torque = NaN } = less[at]!;
      return ofSetting === share.setting && limit === share.limit && Math.abs(torque - share.torque!) < SAME_NM;
    });
  if (isSo) return undefined;
  const as = wanted.map(({ name, torque = 0 }) => `${name} ${formatQuantity(torque, 'torque')}`).join(', ');
  return wrong({
    field: 'payload.less',
    allowed: wanted.length === 0 ? 'goes with a proof by the whole only' : `is what was read here: ${as}`,
  });
};

/** What is closed is read no more, unless it was moved and is open again. */
const notHidden: Rule<'end-play'> = ({ payload: { setting: ref }, step }, held) => {
  const run = held.state().settings.find(({ setting }) => setting.ref === ref);
  if (run?.setting.proof?.by !== 'closing' || !run.last || run.phase !== 'set' || step === null) return undefined;
  if (!isClosedSince(run.setting, run.last.entry, held.live)) return undefined;
  const closing = find(held.sheet.steps, run.setting.proof.closes)?.title ?? '';
  return wrong({ field: 'step', given: step, allowed: `is hidden since “${closing}”: strike that first where it is open again` });
};

export const endPlay: Kind<'end-play'> = defineKind({
  id: 'end-play',
  version: 1,
  payload: EndPlayPayload,
  who: BENCH,
  points: { setting: 'settings' },
  reads: ({ setting: ref, moment }, sheet) => {
    const setting = find(sheet.settings, ref);
    return setting && (moment === 'proved' ? proofReads(setting).quantity : settingQuantity(setting));
  },
  figures: ({ readings }) => readings,
  act: true,
  needs: [setFirst, lessAsRead, notHidden],
  working({ setting: ref, readings, moment, bearings, less }, sheet, tool) {
    const setting = find(sheet.settings, ref);
    if (!setting) return null;
    if (moment === 'proved' && isProvedWhole(setting))
      return judgeWhole(setting, readings, less ?? [], proofReads(setting, bearings), tool);
    return moment === 'now'
      ? adviseNut(setting, mean(readings))
      : judgeWindow(settingQuantity(setting), readings, settingWindow(setting, bearings), tool);
  },
  earlier: true,
  words(entry, sheet) {
    const { setting: ref, readings, moment, bearings } = entry.payload;
    const setting = find(sheet.settings, ref);
    const figure = setting ? formatQuantity(mean(readings), settingQuantity(setting), undefined, settingWindow(setting, bearings)) : '';
    if (moment === 'proved' && setting && isProvedWhole(setting)) {
      const left = formatQuantity(leftOf(entry.payload), 'torque', undefined, proofReads(setting, bearings).window);
      return `${setting.name}, proved by the whole: ${lessWords(setting, entry.payload)}: ${left}${judged(entry)}`;
    }
    const whose = bearings === 'used' ? ' (window of used bearings)' : '';
    return `${setting?.name ?? ref} ${figure}, ${momentWords(moment, setting)}${judged(entry)}${whose}`;
  },
  report: [{ section: 'setting', cells: ({ payload }, sheet) => [readingsOf(payload, find(sheet.settings, payload.setting))] }],
});

/** The whole less what else turns, against the window of what is left; each share was read with as much doubt as the whole. */
function judgeWhole(
  setting: Setting,
  readings: readonly number[],
  less: readonly LessPayload[],
  { quantity, window }: ReturnType<typeof proofReads>,
  tool: Tool | undefined,
): UsedWorking | null {
  const off = less.reduce((sum, { torque }) => sum + torque, 0);
  const times = Math.hypot(1, ...(setting.proof?.less ?? []).map(({ ratio }) => (ratio === undefined ? 1 : 1 / baseOf(ratio, 'ratio'))));
  const wider = tool && { ...tool, u: tool.u * times };
  return judgeWindow(
    quantity,
    readings.map((reading) => reading - off),
    window,
    wider,
  );
}

function readingsOf({ readings, unit, moment }: EndPlayPayload, setting: Setting | undefined): string {
  if (!setting) return '';
  return readingsText(readings, moment === 'proved' ? proofReads(setting).quantity : settingQuantity(setting), unit);
}

/** When a setting was read, in the words of what it is set by. */
function momentWords(moment: EndPlayPayload['moment'], setting: Setting | undefined): string {
  const byNut = setting !== undefined && SET_BY_NUT.has(setting.method);
  if (moment === 'proved') return 'proved';
  if (moment === 'now') return byNut ? 'before the nut is locked' : 'before it is fixed';
  return byNut ? 'with the nut locked' : 'as set';
}

const SET_BY_NUT: ReadonlySet<SettingMethod> = new Set(['castle-nut', 'locknut', 'cone-and-locknut', 'crush-sleeve']);
