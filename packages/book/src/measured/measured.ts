import { type Tool, type Limit, limitQuantity, limitWindow, windowOf, toolRefusal } from '@jubb/sheet';
import type { UsedWorking } from '../entries/kept.js';
import { workings, wording, type Issue, type Quantity, type Window } from '@jubb/core';

/** Wanted: the tolerance is at least so many expanded uncertainties (k = 2) wide. */
const WANTED_RATIO = 4;

/** Readings of a limit with places, in rows: the deepest first, each row once round. */
export function gridPlaces({ grid }: Pick<Limit, 'grid'>): number | undefined {
  return grid && grid.rows * grid.columns;
}

/** Whether the readings are the places of the limit's grid, and not repeats in one place. */
export function isGrid(limit: Limit, readings: readonly number[]): boolean {
  return gridPlaces(limit) === readings.length && readings.length > 1;
}

/** What of a grid of readings is judged: its span, or the reading that is nearest its limit or furthest past it. */
export function gridFigure({ grid }: Pick<Limit, 'grid'>, readings: readonly number[], window: Window): number {
  return grid?.of === 'span' ? Math.max(...readings) - Math.min(...readings) : worstPlace(readings, window);
}

/** Of readings at several places the one that is nearest its limit, or furthest past it. */
export function worstPlace(readings: readonly number[], { from, to }: Window): number {
  const [least, most] = [Math.min(...readings), Math.max(...readings)];
  const over = to === undefined ? Number.NEGATIVE_INFINITY : most - to;
  const under = from === undefined ? Number.NEGATIVE_INFINITY : from - least;
  return over >= under ? most : least;
}

/** What the readings of a whole grid tell beyond the verdict: out-of-round and taper of a bore, run-out by its high spot. */
export function gridWorking(limit: Limit, readings: readonly number[]): { readonly id: string; readonly input: object } | undefined {
  const { grid } = limit;
  if (!grid || !isGrid(limit, readings) || limitQuantity(limit) !== 'length') return undefined;
  if (grid.of === 'span' && grid.rows === 1 && grid.columns >= 4) return { id: 'measure.runout', input: { readings } };
  if (grid.of === 'span' || grid.columns !== 2) return undefined;
  const rows = Array.from({ length: grid.rows }, (_, row) => ({ depth: row + 1, along: readings[row * 2], across: readings[row * 2 + 1] }));
  return { id: 'measure.bore', input: { readings: rows } };
}

export interface ToolFit {
  /** Tolerance over expanded uncertainty; none where nothing says how wide the tolerance is. */
  readonly ratio: number | undefined;
  readonly enough: boolean;
}

/** Whether a tool is fine enough: its expanded uncertainty a quarter of the tolerance at most. */
export function toolFit(limit: Limit, tool: Pick<Tool, 'u'>): ToolFit {
  const width = toleranceOf(limit);
  if (width === undefined || tool.u === 0) return { ratio: undefined, enough: true };
  const ratio = width / (2 * tool.u);
  // A quarter is a quarter, whatever binary fractions make of it.
  return { ratio, enough: ratio >= WANTED_RATIO * (1 - 1e-9) };
}

/** The finest tool of the kind that will do at all. */
export function finestTool(limit: Limit, tools: readonly Tool[], quantity: Quantity, today: string): Tool | undefined {
  const { from, to } = limitWindow(limit);
  const base = from ?? to;
  return tools
    .filter((tool) => tool.quantity === quantity && !toolRefusal(tool, base === undefined ? undefined : { quantity, base }, today))
    .toSorted((one, other) => one.u - other.u)[0];
}

/** Width of the service window; of one with an open end, the wear from new to it. */
function toleranceOf(limit: Limit): number | undefined {
  const { from, to } = limitWindow(limit);
  if (from !== undefined && to !== undefined) return to - from;
  const fresh = limit.asNew ? windowOf(limit.asNew, limitQuantity(limit)) : {};
  if (to !== undefined) return fresh.to === undefined ? to : Math.abs(to - fresh.to);
  return from !== undefined && fresh.from !== undefined ? Math.abs(fresh.from - from) : undefined;
}

/** A working run for a job; its issues as sentences when it refuses. */
export function workOut(
  id: string,
  input: object,
): { readonly used: UsedWorking } | { readonly issues: readonly (Issue & { readonly words: string })[] } {
  const result = workings.run(id, input);
  if (!result)
    return {
      issues: [{ code: 'not-a-choice', field: 'working', received: id, bound: 'the workings', words: `there is no working "${id}"` }],
    };
  if (!result.ok) return { issues: result.issues.map((issue) => ({ ...issue, words: wording(issue) })) };
  return { used: { id: result.run.working, input: result.run.input, output: result.run.output } };
}
