import { formatQuantity } from '@jubb/core';
import { find, settingQuantity, settingWindow, type Setting, type SettingMethod } from '@jubb/sheet';
import { IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import { readingsText } from '../measured/reading-line.js';
import { adviseNut, judgeWindow, mean } from '../measured/working-for.js';
import { BEARINGS, type Bearings } from '../runs/setting-run.js';
import { judged } from '../words.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Figures, Ref } from './fields.js';
import { BENCH } from './roles.js';

const MOMENTS = ['now', 'locked', 'proved'] as const;

/** A reading of a setting: a play or a preload. */
export class EndPlayPayload {
  @Ref() setting: string;
  /** Whose window it is judged by, where used bearings have one of their own. */
  @IsOptional() @IsIn(BEARINGS) bearings?: Bearings;
  @IsIn(MOMENTS) moment: (typeof MOMENTS)[number];
  /** mm, or N·m for a preload. */
  @Figures(0, 500) readings: number[];
  @IsString() @MaxLength(10) unit: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'end-play': EndPlayPayload;
  }
}

/** What was never set proves nothing, whatever it reads. */
const setFirst: Rule<'end-play'> = ({ payload: { setting, moment } }, { live, sheet }) => {
  const isSetHere = sheet.steps.some(({ record, stage }) => record.kind === 'setting' && record.setting === setting && stage === 'build');
  const isSet = live.some((entry) => entry.kind === 'end-play' && entry.payload.setting === setting && entry.payload.moment !== 'proved');
  return moment !== 'proved' || !isSetHere || isSet
    ? undefined
    : wrong({ field: 'payload.moment', given: moment, allowed: 'is not said of what was not set yet: set it first' });
};

export const endPlay: Kind<'end-play'> = defineKind({
  id: 'end-play',
  version: 1,
  payload: EndPlayPayload,
  who: BENCH,
  points: { setting: 'settings' },
  reads: ({ setting: ref }, sheet) => {
    const setting = find(sheet.settings, ref);
    return setting && settingQuantity(setting);
  },
  figures: ({ readings }) => readings,
  act: true,
  needs: [setFirst],
  working({ setting: ref, readings, moment, bearings }, sheet, tool) {
    const setting = find(sheet.settings, ref);
    if (!setting) return null;
    return moment === 'now'
      ? adviseNut(setting, mean(readings))
      : judgeWindow(settingQuantity(setting), readings, settingWindow(setting, bearings), tool);
  },
  earlier: true,
  words(entry, sheet) {
    const { setting: ref, readings, moment, bearings } = entry.payload;
    const setting = find(sheet.settings, ref);
    const figure = setting ? formatQuantity(mean(readings), settingQuantity(setting), undefined, settingWindow(setting, bearings)) : '';
    const whose = bearings === 'used' ? ' (window of used bearings)' : '';
    return `${setting?.name ?? ref} ${figure}, ${momentWords(moment, setting)}${judged(entry)}${whose}`;
  },
  report: [{ section: 'setting', cells: ({ payload }, sheet) => [readingsOf(payload, find(sheet.settings, payload.setting))] }],
});

function readingsOf({ readings, unit }: EndPlayPayload, setting: Setting | undefined): string {
  return setting ? readingsText(readings, settingQuantity(setting), unit) : '';
}

/** When a setting was read, in the words of what it is set by. */
function momentWords(moment: EndPlayPayload['moment'], setting: Setting | undefined): string {
  const byNut = setting !== undefined && SET_BY_NUT.has(setting.method);
  if (moment === 'proved') return 'proved';
  if (moment === 'now') return byNut ? 'before the nut is locked' : 'before it is fixed';
  return byNut ? 'with the nut locked' : 'as set';
}

const SET_BY_NUT: ReadonlySet<SettingMethod> = new Set(['castle-nut', 'locknut', 'cone-and-locknut', 'crush-sleeve']);
