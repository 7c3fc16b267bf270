import { type Family, type Part, type Setting, type SettingMethod, baseOf, settingQuantity } from '@jubb/sheet';
import type { AnyKeptEntry } from '../entries/kept.js';
import { packsIn } from '../parts/out-of-stores.js';
import type { ShimLine } from '../parts/stock.js';
import { workedWith, type SettingRun } from './setting-run.js';
import { packPieces, workings, type Known, type Serves, type WorkingRun } from '@jubb/core';

/** Set by a nut that is led step by step, or by hand and eye alone: no working is offered. */
const BY_HAND: ReadonlySet<SettingMethod> = new Set(['witness', 'slipping-bolt', 'set-screw', 'castle-nut']);

type SetBy = Pick<Setting, 'kind' | 'method'>;

function serves({ families, butNot = [], kinds, methods }: Serves, { kind, method }: SetBy, family: Family): boolean {
  const isOf = (list: readonly string[] | undefined, one: string): boolean => list === undefined || list.includes(one);
  return isOf(kinds, kind) && isOf(methods, method) && isOf(families, family) && !butNot.includes(family);
}

/** The workings that help to set something by its kind and method, the likeliest first; none where it is set by hand alone. */
export function workingsForSetting(setting: SetBy, family: Family): readonly string[] {
  if (BY_HAND.has(setting.method)) return [];
  return workings.serving('setting', (one) => serves(one, setting, family));
}

/** Workings that a family is judged by beyond its limits, or put together with. */
export function workingsAt(at: 'measure' | 'build', family: Family): readonly string[] {
  return workings.serving(at, ({ families, butNot = [] }) => (families?.includes(family) ?? true) && !butNot.includes(family));
}

/** The part of a sheet that a working is likely about. */
export function partAbout(working: string, parts: readonly Part[]): Part | undefined {
  const words = workings.servesOf(working).find(({ about }) => about)?.about;
  return words && parts.find(({ name }) => words.test(name));
}

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
  if (!workings.servesOf(working).some(({ shifts }) => shifts)) return lying;
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
  const pieces = (workings.servesOf(working).find(({ packs }) => packs)?.packs ?? []).flatMap((name) =>
    typeof output[name] === 'string' ? packPieces(output[name]) : [],
  );
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
  const { setting, window, tries } = run;
  const preset =
    workings.servesOf(working).find((one) => one.at === 'setting' && (one.kinds?.includes(setting.kind) ?? true))?.preset ?? {};
  const unit = settingQuantity(setting) === 'torque' ? 'N·m' : 'mm';
  const last = tries.at(-1);
  const readings = last?.entry.payload.readings ?? [];
  const shelf = shelfOf(run, shims);
  const before = workedWith(run, working)?.working?.output;
  const known: Readonly<Record<Exclude<Known, `before.${string}` | `seal.${string}`>, unknown>> = {
    from: `${window.from} ${unit}`,
    to: `${window.to} ${unit}`,
    aim: setting.aim && `${baseOf(setting.aim.figure, 'length')} mm`,
    // A play of nothing tells a nut nothing: there is none to measure from.
    last: last && (setting.method !== 'locknut' || last.play > 0) ? `${last.play} ${unit}` : undefined,
    readings: readings.length > 0 ? readings : undefined,
    shelf: shelf.length > 0 ? shelf : undefined,
  };
  const given = Object.entries(preset).map(([field, from]) => {
    if (!from.startsWith('before.')) return [field, known[from as keyof typeof known]] as const;
    const was = before?.[from.slice('before.'.length)];
    return [field, typeof was === 'number' ? `${was} mm` : undefined] as const;
  });
  return Object.fromEntries(given.filter(([, value]) => value !== undefined));
}
