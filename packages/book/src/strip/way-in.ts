import { IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import type { KeptEntry } from '../entries/kept.js';
import { InTheWay } from '../in-the-way.js';

/** A line of the short sheet of a machine: what is in the way of its units, in the order in which it comes away. */
export class WayInLine extends InTheWay {
  /** How long it takes, about. */
  @IsOptional() @IsInt() @Min(1) @Max(600) minutes?: number;
  /** The unit that it is in the way of, by its name; every unit of the machine where nothing is said. */
  @IsOptional() @IsString() @MaxLength(200) unit?: string;
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

/** What of a machine's way in is in the way of this unit. */
export function wayInFor(lines: readonly WayInLine[], unit: string): readonly WayInLine[] {
  return lines.filter((line) => line.unit === undefined || line.unit === unit);
}

/** Lines of a way in that were not moved on this job yet. */
export function wayInLeft(lines: readonly WayInLine[], moved: readonly KeptEntry<'moved'>[]): readonly WayInLine[] {
  const out = new Set(moved.map(({ payload: { what } }) => named(what)));
  return lines.filter(({ what }) => !out.has(named(what)));
}

/** A machine's way in after a job on one of its units: as it was met there, after it what was not in the way this time, and that of the others. */
export function wayInAfter(moved: readonly KeptEntry<'moved'>[], lines: readonly WayInLine[], unit: string): readonly WayInLine[] {
  const own = wayInFor(lines, unit);
  const known = new Map(own.map((line) => [named(line.what), line]));
  const met = wayInOf(moved).map((line): WayInLine => {
    const before = known.get(named(line.what));
    return before ? { ...before, ...line } : { ...line, unit };
  });
  return [...met, ...wayInLeft(own, moved), ...lines.filter((line) => !own.includes(line))];
}

/** Whether a job moved something that a way in does not know. */
export function isMoreThan(moved: readonly KeptEntry<'moved'>[], lines: readonly WayInLine[]): boolean {
  const known = new Set(lines.map(({ what }) => named(what)));
  return moved.some(({ payload: { what } }) => !known.has(named(what)));
}

/** What a line of a way in keeps once it is moved. */
export function movedBy({ minutes: _minutes, unit: _unit, ...line }: WayInLine): InTheWay {
  return line;
}

const named = (what: string): string => what.trim().toLowerCase();
