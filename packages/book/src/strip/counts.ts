import { type Counted, type Part, type SheetFile, type Step, find, partName, baseRef } from '@jubb/sheet';
import type { KeptEntry } from '../entries/kept.js';

type Line = KeptEntry<'came-off'>;

export interface ReconcileLine {
  readonly key: string;
  readonly part?: string;
  readonly name: string;
  readonly expected: number;
  readonly counted: number | undefined;
}

/** One thing counted twice, by two who did not know of each other: a person says which of them stands. */
export interface Conflict {
  readonly key: string;
  readonly name: string;
  readonly entries: readonly (Line | KeptEntry<'counted'>)[];
}

/** One count that a step asks for. */
export interface CountOf extends Counted {
  /** Length, where the fasteners of a joint are not all of one. */
  readonly size?: string;
}

/** What a step counts: fasteners of several lengths each length by itself, the longest first. */
export function countsOf(sheet: SheetFile, step: Step): readonly CountOf[] {
  return (step.record.counts ?? []).flatMap((counted): readonly CountOf[] => {
    const lengths = sheet.joints.find(({ part }) => part === counted.part)?.lengths ?? [];
    if (lengths.length < 2 || sum(lengths.map(({ count }) => count)) !== counted.count) return [counted];
    return lengths.map(({ length, count, where }) => ({
      ...counted,
      count,
      size: length,
      ...(where === undefined ? {} : { place: where }),
    }));
  });
}

/** How many of a count came off at its step; where a part is counted by place or by length, those of its own. */
export function countedOff(step: Step, { part, place, size }: CountOf, ledger: readonly Line[]): number {
  const byPlace = (step.record.counts ?? []).filter((other) => other.part === part).length > 1;
  const lines = ledger.filter(
    ({ step: at, payload }) =>
      // Another step may count the same part: what came off there is not this one's.
      (at === null || at === step.ref) &&
      payload.part === part &&
      (!byPlace || payload.place === place) &&
      (size === undefined || payload.size === size),
  );
  return sum(lines.map(({ payload }) => payload.count));
}

/** What must be equal and is not: a part on each of its sides, or a part and its like. */
export function unequal(sheet: SheetFile, ref: string, ledger: readonly Line[]): string | undefined {
  const lines = (of: string): readonly Line[] => ledger.filter(({ payload }) => payload.part === of);
  const total = (of: string): number => sum(lines(of).map(({ payload }) => payload.count));
  const part = find(sheet.parts, ref);
  const pairs = sheet.parts.filter((other) => other.asManyAs === ref).map((other) => other.ref);
  const other = [part?.asManyAs, ...pairs].find((of) => of !== undefined && total(of) > 0 && total(of) !== total(ref));
  if (other !== undefined && total(ref) > 0)
    return `${total(ref)} ${partName(sheet, ref)} and ${total(other)} ${partName(sheet, other)}: there must be as many of each`;
  const places = new Map<string, number>();
  for (const { payload } of lines(ref)) places.set(payload.place ?? '', (places.get(payload.place ?? '') ?? 0) + payload.count);
  if (!part?.equalSides || places.size < 2 || new Set(places.values()).size === 1) return undefined;
  const sides = [...places].map(([place, count]) => `${count} from ${place === '' ? 'elsewhere' : place}`);
  return `${part.name}: ${sides.join(', ')}; there must be as many on each side`;
}

export function sum(figures: readonly number[]): number {
  return figures.reduce((total, figure) => total + figure, 0);
}

const keyOf = (line: { readonly part?: string; readonly name: string }): string => line.part ?? `free:${line.name}`;

export function reconcileCounts(
  sheet: SheetFile,
  ledger: readonly Line[],
  counts: readonly KeptEntry<'counted'>[],
): readonly ReconcileLine[] {
  const lines = new Map<string, ReconcileLine>();
  for (const { payload } of ledger) {
    const key = keyOf(payload);
    const expected = (lines.get(key)?.expected ?? 0) + payload.count;
    const counted = counts.filter((entry) => keyOf(entry.payload) === key).at(-1)?.payload.count;
    const name = payload.part === undefined ? payload.name : partName(sheet, payload.part);
    lines.set(key, { key, ...(payload.part === undefined ? {} : { part: payload.part }), name, expected, counted });
  }
  return [...lines.values()];
}

/** An entry that reached the server so long after it was made was held on a tablet that knew of nobody else's. */
const HELD_MS = 10_000;

/** Whether the second was made by somebody who did not know of the first. */
function isUnaware(first: Line | KeptEntry<'counted'>, second: Line | KeptEntry<'counted'>): boolean {
  return second.takenAt < first.keptAt || Date.parse(second.keptAt) - Date.parse(second.takenAt) > HELD_MS;
}

/**
 * What was counted twice, by two who did not know of each other: one count of a step from two
 * tablets, or two counts before the build by two people that differ.
 */
export function conflictsOf(ledger: readonly Line[], counts: readonly KeptEntry<'counted'>[]): readonly Conflict[] {
  const asked = ledger.filter(({ step, payload }) => step !== null && payload.part !== undefined);
  return [
    ...twice(asked, ({ step, payload: { part, place, size } }) => [step, part, place, size].join('\n'), isUnaware),
    ...twice(counts, ({ payload }) => keyOf(payload), isOtherCount),
  ];
}

function isOtherCount(first: KeptEntry<'counted'>, second: KeptEntry<'counted'>): boolean {
  return first.personId !== second.personId && first.payload.count !== second.payload.count && isUnaware(first, second);
}

function twice<E extends Line | KeptEntry<'counted'>>(
  entries: readonly E[],
  key: (entry: E) => string,
  isAgain: (first: E, second: E) => boolean,
): readonly Conflict[] {
  const firsts = new Map<string, E[]>();
  for (const entry of entries) {
    const known = firsts.get(key(entry));
    if (!known) firsts.set(key(entry), [entry]);
    else if (isAgain(known[0]!, entry)) known.push(entry);
  }
  return [...firsts]
    .filter(([, same]) => same.length > 1)
    .map(([same, both]) => ({ key: same, name: both[0]!.payload.name, entries: both }));
}

/** What came off each side, of the parts that every side has: a row a part, a column a side. */
export interface SideCounts {
  readonly name: string;
  readonly counts: readonly number[];
}

export function countsBySide(sheet: SheetFile, sides: readonly string[], ledger: readonly Line[]): readonly SideCounts[] {
  const total = ({ ref }: Part): number => sum(ledger.filter(({ payload }) => payload.part === ref).map(({ payload }) => payload.count));
  const sided = sheet.parts.filter(({ side }) => side !== undefined);
  return [...new Set(sided.map(baseRef))]
    .map((base) => sided.filter((part) => baseRef(part) === base))
    .map((parts) => ({
      name: partName(sheet, parts[0]!.ref).replace(`, ${parts[0]!.side ?? ''}`, ''),
      counts: sides.map((side) => sum(parts.filter((part) => part.side === side).map(total))),
    }))
    .filter(({ counts }) => counts.some((count) => count > 0));
}

/** The ledger with each count once: of those that were counted twice, the line that was there first. */
export function countedOnce(ledger: readonly Line[], conflicts: readonly Conflict[]): readonly Line[] {
  const later = new Set(conflicts.flatMap(({ entries }) => entries.slice(1).map(({ id }) => id)));
  return ledger.filter(({ id }) => !later.has(id));
}

/** "Balls was counted twice: 9 and 10; strike what is wrong". */
export function twiceWords({ name, entries }: Conflict): string {
  return `${name} was counted twice: ${entries.map(({ payload }) => payload.count).join(' and ')}; strike what is wrong`;
}
