import { IsInt, IsOptional, Max, Min } from 'class-validator';
import type { KeptEntry } from '../entries/kept.js';
import { InTheWay } from '../in-the-way.js';

/** A line of the short sheet of a machine: what is in the way of its units, in the order in which it comes away. */
export class WayInLine extends InTheWay {
  /** How long it takes, about. */
  @IsOptional() @IsInt() @Min(1) @Max(600) minutes?: number;
}

/** More than this between two acts was something else: another job, a night. */
const MOST_MINUTES = 60;

/** What was moved on a job as a way in for the next one: in its order, with how long after the one before each was out. */
export function wayInOf(moved: readonly KeptEntry<'moved'>[]): readonly WayInLine[] {
  // What was out twice came away first when it was out first.
  const first = moved.filter(({ payload }, at) => moved.findIndex((one) => named(one.payload.what) === named(payload.what)) === at);
  return first.map(({ payload, takenAt }, at) => {
    const before = first[at - 1];
    const minutes = before && Math.round((Date.parse(takenAt) - Date.parse(before.takenAt)) / 60_000);
    return { ...payload, ...(minutes !== undefined && minutes >= 1 && minutes <= MOST_MINUTES ? { minutes } : {}) };
  });
}

/** Lines of a way in that were not moved on this job yet. */
export function wayInLeft(lines: readonly WayInLine[], moved: readonly KeptEntry<'moved'>[]): readonly WayInLine[] {
  const out = new Set(moved.map(({ payload: { what } }) => named(what)));
  return lines.filter(({ what }) => !out.has(named(what)));
}

/** A way in after a job: as it was met there, and after it what was not in the way this time. */
export function wayInAfter(moved: readonly KeptEntry<'moved'>[], lines: readonly WayInLine[]): readonly WayInLine[] {
  const known = new Map(lines.map((line) => [named(line.what), line]));
  const met = wayInOf(moved).map((line) => ({ ...known.get(named(line.what)), ...line }));
  return [...met, ...wayInLeft(lines, moved)];
}

/** Whether a job moved something that a way in does not know. */
export function isMoreThan(moved: readonly KeptEntry<'moved'>[], lines: readonly WayInLine[]): boolean {
  const known = new Set(lines.map(({ what }) => named(what)));
  return moved.some(({ payload: { what } }) => !known.has(named(what)));
}

/** What a line of a way in keeps once it is moved. */
export function movedBy({ minutes: _minutes, ...line }: WayInLine): InTheWay {
  return line;
}

const named = (what: string): string => what.trim().toLowerCase();
