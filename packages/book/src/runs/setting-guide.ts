import { type Family, type Setting, baseOf, settingQuantity } from '@jubb/sheet';
import type { AnyKeptEntry } from '../entries/kept.js';
import { packsIn } from '../parts/out-of-stores.js';
import type { ShimLine } from '../parts/stock.js';
import { workedWith, type SettingRun } from './setting-run.js';
import { packPieces, type WorkingRun } from '@jubb/core';

/** The workings that help to set something by its kind and method, the likeliest first; none where it is set by hand alone. */
export function workingsForSetting({ kind, method }: Pick<Setting, 'kind' | 'method'>, family: Family): readonly string[] {
  if (method === 'witness' || method === 'slipping-bolt' || method === 'set-screw' || method === 'castle-nut') return [];
  switch (kind) {
    case 'preload':
      return method === 'crush-sleeve' ? ['bearing.crush-sleeve', 'bearing.rolling-torque'] : ['bearing.rolling-torque', 'bearing.shim'];
    case 'backlash':
      return ['gear.backlash', 'gear.pinion-depth'];
    case 'air-gap':
      return ['compressor.air-gap'];
    case 'pack-clearance':
      return ['clutch.pack'];
    case 'end-play':
    case 'depth':
      if (method === 'cone-and-locknut') return ['bearing.cone-and-locknut'];
      if (method === 'locknut') return ['bearing.nut', 'bearing.thermal'];
      if (method === 'selective-ring') return ['shaft.end-play-shim', 'gearbox.snap-ring'];
      if (method === 'shims')
        return family.startsWith('drive axle') ? ['bearing.shim', 'gear.pinion-depth'] : ['bearing.shim', 'bearing.thermal'];
      return [];
    case 'compression':
      return [];
  }
}

/** Where the workings that pick shims say which go in: of all packs of the setting, every piece. */
const PACKS: Readonly<Record<string, readonly string[]>> = {
  'bearing.shim': ['pack'],
  'compressor.air-gap': ['pack'],
  'gear.backlash': ['teethPack', 'otherPack'],
};

/** A pack is written to the micrometre: a shim of inches differs by less than that. */
const WRITTEN_MM = 0.001;

/** A shim that goes in, and where it lies; nothing where no shelf has that thickness. */
export interface ShimWanted {
  readonly thickness: number;
  readonly count: number;
  /** Pieces of them that do not lie in the unit yet. */
  readonly fresh: number;
  readonly line: ShimLine | undefined;
}

/** Backlash is shifted from side to side with the shims that set the carrier's preload: those are not taken out of stores again. */
export function lyingFor(working: string, setting: string, live: readonly AnyKeptEntry[]): ReadonlyMap<string, number> {
  const lying = new Map<string, number>();
  if (working !== 'gear.backlash') return lying;
  for (const [ref, pack] of packsIn(live))
    if (ref !== setting) for (const { item, count } of pack) lying.set(item, (lying.get(item) ?? 0) + count);
  return lying;
}

/** The shims that an answer puts in, each with the stock line that has most of it free; `lying` lie in the unit by another setting. */
export function shimsWanted(
  { working, output }: Pick<WorkingRun, 'working' | 'output'>,
  shims: readonly ShimLine[],
  lying: ReadonlyMap<string, number> = new Map(),
): readonly ShimWanted[] {
  const pieces = (PACKS[working] ?? []).flatMap((name) => (typeof output[name] === 'string' ? packPieces(output[name]) : []));
  return [...new Set(pieces.map(({ thickness }) => thickness))].map((thickness) => {
    const count = pieces.reduce((sum, one) => sum + (one.thickness === thickness ? one.count : 0), 0);
    const lines = shims.filter((one) => Math.abs(one.thicknessMm - thickness) < WRITTEN_MM);
    const inThere = lines.reduce((sum, { id }) => sum + (lying.get(id) ?? 0), 0);
    const [line] = lines.toSorted((one, other) => freeOf(other) - freeOf(one));
    return { thickness, count, fresh: Math.max(0, count - inThere), line };
  });
}

function freeOf({ onHand, reserved }: ShimLine): number {
  return onHand - reserved;
}

/** What can be put in: free on the shelf, and what lies in there already, which comes back when another pack goes in. */
function shelfOf({ worked }: SettingRun, shims: readonly ShimLine[]): readonly { readonly thickness: number; readonly count: number }[] {
  const lying = worked.findLast(({ payload }) => payload.taken !== undefined)?.payload.taken ?? [];
  const counts = new Map<number, number>();
  for (const line of shims) {
    const count = Math.floor(freeOf(line)) + lying.reduce((sum, one) => sum + (one.item === line.id ? one.count : 0), 0);
    if (count >= 1) counts.set(line.thicknessMm, (counts.get(line.thicknessMm) ?? 0) + count);
  }
  return [...counts].map(([thickness, count]) => ({ thickness, count }));
}

type Preset = Readonly<Record<string, unknown>>;

/**
 * What a working of a setting can be given without asking: the sheet's window, the last readings
 * and what was in while they were taken, and the shims that are free on the shelf.
 */
export function presetFor(working: string, run: SettingRun, shims: readonly ShimLine[]): Preset {
  const { setting, tries } = run;
  const { window } = run;
  const unit = settingQuantity(setting) === 'torque' ? 'N·m' : 'mm';
  const ends = { from: `${window.from} ${unit}`, to: `${window.to} ${unit}` };
  const aim = setting.aim ? { aim: `${baseOf(setting.aim.figure, 'length')} mm` } : {};
  const last = tries.at(-1);
  const readings = last?.entry.payload.readings ?? [];
  const free = shelfOf(run, shims);
  const shelf = free.length > 0 ? { shelf: free } : {};
  const before = workedWith(run, working)?.working?.output;
  switch (working) {
    case 'bearing.shim':
      return unit === 'mm'
        ? {
            ...ends,
            ...aim,
            ...shelf,
            ...(last ? { measured: `${last.play} mm` } : {}),
            ...(typeof before?.['thickness'] === 'number' ? { trial: `${before['thickness']} mm` } : {}),
          }
        : shelf;
    case 'compressor.air-gap':
      return {
        ...ends,
        ...shelf,
        ...(readings.length > 0 ? { gaps: readings } : {}),
        ...(typeof before?.['thickness'] === 'number' ? { shims: `${before['thickness']} mm` } : {}),
      };
    case 'gear.backlash':
      return { ...ends, ...shelf, ...(readings.length > 0 ? { readings } : {}) };
    case 'shaft.end-play-shim':
      return {
        ...ends,
        ...(readings.length > 0 ? { gaps: readings } : {}),
        ...(typeof before?.['washer'] === 'number' ? { trial: `${before['washer']} mm` } : {}),
      };
    case 'clutch.pack':
      return {
        ...(readings.length > 0 ? { gaps: readings } : {}),
        ...(typeof before?.['plate'] === 'number' ? { plateNow: `${before['plate']} mm` } : {}),
      };
    case 'bearing.crush-sleeve':
    case 'bearing.cone-and-locknut':
      return ends;
    case 'bearing.rolling-torque':
      return settingQuantity(setting) === 'torque' ? ends : {};
    case 'bearing.nut':
      return { ...ends, ...(last && last.play > 0 ? { playNow: `${last.play} mm` } : {}) };
    default:
      return {};
  }
}
