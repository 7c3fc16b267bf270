import type { ShimLine } from '../dto/stores.js';
import type { Family } from '../words.js';
import type { Setting } from '../sheet/file.js';
import { baseOf, settingQuantity } from '../sheet/resolve.js';
import { workedWith, type SettingRun } from './setting-run.js';

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
  const free = shims.filter(({ onHand, reserved }) => onHand - reserved >= 1);
  const shelf =
    free.length > 0
      ? { shelf: free.map(({ thicknessMm, onHand, reserved }) => ({ thickness: thicknessMm, count: Math.floor(onHand - reserved) })) }
      : {};
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
