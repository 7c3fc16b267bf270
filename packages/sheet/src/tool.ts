import { type Quantity, type Window, judge, formatQuantity } from '@jubb/core';
import { PUSHING_KINDS, type CribKind, type PushingKind } from './words.js';

/** A tool of the crib, as entries and workings need it. Lengths in mm, torque in N·m, mass in kg. */
export interface Tool {
  readonly id: string;
  readonly tag: string;
  readonly name: string;
  readonly kind: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly low: number;
  readonly high: number;
  readonly resolution: number;
  /** Standard uncertainty (k = 1), resolution included. */
  readonly u: number;
  /** Pooled spread of single readings. */
  readonly s: number;
  /** Drive centre to grip of a wrench, drive centre to jaw of a crowfoot. */
  readonly length: number | null;
  readonly calibrationDue: string | null;
  /** Since when it is out of use for good, like 2026-11-25. */
  readonly retired?: string | null;
}

/** What a tool is to read or pull: of which quantity, and about how much, in base units. */
export interface ToolSize {
  readonly quantity: Quantity;
  readonly base: number;
}

/** What a kind of tool reads, the usual first; what pushes is known by its sizes. */
export const TOOL_READS: Readonly<Record<CribKind, readonly [Quantity, ...Quantity[]]>> = {
  'torque-wrench': ['torque'],
  crowfoot: ['length'],
  'dial-indicator': ['length'],
  micrometer: ['length'],
  calliper: ['length'],
  'depth-gauge': ['length'],
  scale: ['mass'],
  'bore-gauge': ['length'],
  'feeler-gauge': ['length'],
  'beam-wrench': ['torque'],
  'spring-balance': ['force', 'torque'],
  'pressure-gauge': ['pressure'],
  multimeter: ['voltage'],
  'load-stand': ['current'],
  'balance-stand': ['unbalance'],
  protractor: ['angle'],
  thermometer: ['temperature'],
  stopwatch: ['time'],
  rule: ['length'],
  driver: ['length'],
  tube: ['length'],
  socket: ['length'],
};

/** Whether a tool pushes, and reads nothing: its ends are its inside and its outside. */
export function isPushing(kind: string): kind is PushingKind {
  return PUSHING_KINDS.some((one) => one === kind);
}

/** How good a tool is, as a certificate or its maker says it: no reading is further off than this, base units. */
export function limitOfError({ u, resolution }: Pick<Tool, 'u' | 'resolution'>): number {
  return Math.sqrt(3 * Math.max(0, u ** 2 - resolution ** 2 / 12));
}

/**
 * Standard uncertainty of a tool of which a limit of error is all that is known, base units: both it and the last digit
 * are taken as evenly spread (JCGM 100, 4.3.7).
 */
export function uncertaintyWithin(limit: number, resolution: number): number {
  return Math.hypot(limit / Math.sqrt(3), resolution / Math.sqrt(12));
}

/** What a kind reads beyond its own quantity: a meter is switched over. */
const ALSO: Readonly<Record<string, readonly Quantity[]>> = { multimeter: ['voltage', 'resistance', 'current'] };

/** All quantities that a tool reads. */
export function quantitiesOf({ kind, quantity }: Pick<Tool, 'kind' | 'quantity'>): readonly Quantity[] {
  return ALSO[kind] ?? [quantity];
}

/** Why a tool is not offered on a day, whatever it is for; nothing where it is. `today` is like 2026-11-25. */
export function outOfUse({ retired, calibrationDue }: Pick<Tool, 'retired' | 'calibrationDue'>, today: string): string | undefined {
  if (retired) return `was put out of use ${retired}`;
  return calibrationDue !== null && calibrationDue < today ? `check was due ${calibrationDue}` : undefined;
}

/** Why a tool will not do, or nothing. A tool whose ends are the same has no range to keep to. `today` is like 2026-11-25. */
export function toolRefusal(tool: Tool, size: ToolSize | undefined, today: string): string | undefined {
  const out = outOfUse(tool, today);
  if (out !== undefined) return out;
  if (size === undefined || tool.high <= tool.low) return undefined;
  if (tool.quantity !== size.quantity) return `reads a ${tool.quantity}`;
  return size.base < tool.low || size.base > tool.high ? `reads ${tool.low} to ${tool.high} only` : undefined;
}

/** What is to be read, of a limit or a setting: its window, by which kind of tool, how often. */
export interface ToRead {
  readonly window: Window;
  readonly quantity: Quantity;
  readonly kind: string;
  readonly repeats: number;
}

/**
 * Why no tool of the kind could ever call a size inside the window in, so that what is read stays unsure; nothing
 * where one could. A window with an open end, or from nothing, has no width to be too narrow.
 */
export function tooCoarse({ window: { from, to }, quantity, kind, repeats }: ToRead, tools: readonly Tool[]): string | undefined {
  const finest = tools
    .filter((tool) => tool.kind === kind && !tool.retired && quantitiesOf(tool).includes(quantity))
    .toSorted((one, other) => one.u - other.u)[0];
  if (!finest) return `no ${kind} in the crib reads a ${quantity}`;
  if (from === undefined || to === undefined || from <= 0) return undefined;
  const u = Math.hypot(finest.u, finest.s / Math.sqrt(repeats));
  if (judge((from + to) / 2, u, { lower: from, upper: to }) === 'in') return undefined;
  return `no ${kind} in the crib is fine enough: ${finest.tag} is good to ${formatQuantity(2 * u, quantity)}, the window is ${formatQuantity(to - from, quantity)} wide, and whatever is read stays unsure`;
}
