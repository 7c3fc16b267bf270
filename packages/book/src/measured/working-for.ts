import {
  type LimitQuantity,
  type Tool,
  type Pull,
  type Limit,
  type Setting,
  baseOf,
  limitQuantity,
  limitWindow,
  settingWindow,
} from '@jubb/sheet';
import type { PayloadOf, UsedWorking } from '../entries/kept.js';
import { gridFigure, isGrid } from './measured.js';
import {
  bearingNut,
  gearContact,
  measureAt20,
  measureVerdict,
  torqueAdapter,
  torqueBreakaway,
  type ContactSpots,
  type Quantity,
  type ResultOf,
} from '@jubb/core';

/** What the pattern on the teeth says of its gears. */
export function readContact(seen: ContactSpots & Pick<PayloadOf<'pattern'>, 'pinionStep' | 'ringStep'>): UsedWorking | null {
  return used(gearContact.run(seen));
}

type Warm = NonNullable<PayloadOf<'reading'>['warm']>;
type Found = Pick<PayloadOf<'reading'>, 'readings' | 'bracket' | 'warm'>;

interface WarmReadings {
  readonly readings: readonly number[];
  readonly warm?: Warm | null | undefined;
}

/** Readings as they would be at 20 °C, and what the temperature leaves open, 1u in mm. */
export function at20({ readings, warm }: WarmReadings): { readonly readings: readonly number[]; readonly u: number } {
  if (!warm) return { readings, u: 0 };
  const corrected = readings.map((read) => measureAt20.run({ read, partT: warm.partT, part: warm.metal }));
  return {
    // What is no size has no temperature.
    readings: corrected.map((result, place) => (result.ok ? result.run.output.size : readings[place]!)),
    u: Math.max(0, ...corrected.map((result) => (result.ok ? result.run.output.u : 0))),
  };
}

export function judgeLimit(limit: Limit, found: Found, tool: Tool | undefined): UsedWorking | null {
  if (limit.pulled) return judgeHeld(limit.pulled, limit, found, tool);
  const window = limitWindow(limit);
  const { readings, u } = at20(found);
  const warmTool = tool && u > 0 ? { ...tool, u: Math.hypot(tool.u, u) } : tool;
  if (!isGrid(limit, readings)) return judgeWindow(limitQuantity(limit), readings, window, warmTool);
  const isSpan = limit.grid?.of === 'span';
  // A span is the difference of two readings.
  const wider = warmTool && isSpan ? { ...warmTool, u: warmTool.u * Math.SQRT2, s: warmTool.s * Math.SQRT2 } : warmTool;
  return judgeWindow(limitQuantity(limit), [gridFigure(limit, readings, window)], window, wider);
}

/** The one figure that stands for the readings of a limit: what is judged of a grid, else their mean. */
export function readingFigure(limit: Limit, found: WarmReadings): number {
  const { readings } = at20(found);
  return isGrid(limit, readings) ? gridFigure(limit, readings, limitWindow(limit)) : mean(readings);
}

/** What something held before it moved, against the least that it must hold. */
function judgeHeld(direction: Pull, limit: Limit, { readings, bracket }: Found, tool: Tool | undefined): UsedWorking | null {
  const moved = mean(readings);
  const { from: least } = limitWindow(limit);
  if (least === undefined) return null;
  return used(
    torqueBreakaway.run({
      direction,
      least,
      ...(bracket ? { how: 'clicks', ...bracket } : { how: 'moved', moved }),
      ...(tool && moved > 0 ? { wrenchU: Math.min(MOST_WRENCH_U, Math.hypot(tool.u, tool.s) / moved) } : {}),
    }),
  );
}

/** A wrench that is worse tells nothing. */
const MOST_WRENCH_U = 0.2;

interface Ends {
  readonly from?: number | undefined;
  readonly to?: number | undefined;
}

/** Quantities of which there is none less than nothing: of a length a play, a run-out, a wear. */
const FROM_NOTHING: ReadonlySet<string> = new Set<Quantity>(['length', 'torque', 'mass', 'unbalance', 'resistance', 'volume', 'time']);

/**
 * Whether the lower end of a window is none: a play that reads 0 in a window from 0 is in, however coarse
 * the dial. A reading below it, of a seal that stands proud, shows that there is less, and the end is one.
 */
function isNoEnd(quantity: string, { from, to }: Ends, readings: readonly number[]): boolean {
  return from === 0 && to !== undefined && FROM_NOTHING.has(quantity) && readings.every((read) => read >= 0);
}

/** Readings against a window, with what the tool leaves open. */
export function judgeWindow(
  quantity: LimitQuantity,
  readings: readonly number[],
  window: Ends,
  tool: Tool | undefined,
): UsedWorking | null {
  return used(
    measureVerdict.run({
      quantity,
      readings,
      ...(window.from === undefined || isNoEnd(quantity, window, readings) ? {} : { lower: window.from }),
      ...(window.to === undefined ? {} : { upper: window.to }),
      toolU: tool?.u ?? 0,
      toolS: tool?.s ?? 0,
    }),
  );
}

/** What to do with the nut from this dial reading. */
export function adviseNut(setting: Setting, playNow: number): UsedWorking | null {
  const { nut } = setting;
  if (!nut) return null;
  return used(
    bearingNut.run({
      playNow,
      ...settingWindow(setting),
      ...(setting.aim ? { aim: baseOf(setting.aim.figure, 'length') } : {}),
      pitch: baseOf(nut.pitch, 'pitch'),
      slots: nut.slots,
      openings: nut.openings,
    }),
  );
}

type Arm = Pick<PayloadOf<'pull'>, 'torque' | 'wrenchLength' | 'adapterLength' | 'adapterAngle'>;

export function wrenchSetting({ torque, wrenchLength, adapterLength, adapterAngle }: Arm): UsedWorking | null {
  return used(torqueAdapter.run({ torque, wrench: wrenchLength, adapter: adapterLength, angle: adapterAngle }));
}

function used(result: ResultOf<UsedWorking['input'], UsedWorking['output']>): UsedWorking | null {
  return result.ok ? { id: result.run.working, input: result.run.input, output: result.run.output } : null;
}

export function mean(figures: readonly number[]): number {
  return figures.reduce((sum, figure) => sum + figure, 0) / figures.length;
}
