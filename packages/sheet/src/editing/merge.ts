import type { SheetFile } from '../model/file.js';
import { SHEET_LISTS, lineName, type SheetList } from '../model/lists.js';

export interface Clash {
  readonly list: SheetList | 'sheet';
  readonly ref: string;
  readonly name: string;
}

export interface Merged {
  readonly file: SheetFile;
  /** Lines that both changed, each in another way; mine stands in `file`. */
  readonly clashes: readonly Clash[];
}

type Line = Readonly<Record<string, unknown>> & { readonly ref: string };

/**
 * What two editors made of the same draft, brought together line by line: a line that only one of
 * them touched is taken from that one; a line that both touched is a clash.
 */
export function mergeSheets(before: SheetFile, mine: SheetFile, theirs: SheetFile): Merged {
  const clashes: Clash[] = [];
  const out: Record<string, unknown> = {};
  const names = new Set([...Object.keys(mine), ...Object.keys(theirs)]);
  for (const name of names) {
    const [was, my, their] = [before, mine, theirs].map((sheet) => (sheet as unknown as Record<string, unknown>)[name]);
    const list = SHEET_LISTS.find((known) => known === name);
    if (list) {
      const lines = mergeLines(list, linesIn(was), linesIn(my), linesIn(their), clashes);
      if (lines.length > 0 || my !== undefined) out[name] = lines;
      continue;
    }
    const chosen = same(my, was) ? their : my;
    if (!same(my, was) && !same(their, was) && !same(my, their)) clashes.push({ list: 'sheet', ref: '', name });
    if (chosen !== undefined) out[name] = chosen;
  }
  return { file: out as unknown as SheetFile, clashes };
}

function mergeLines(
  list: SheetList,
  before: readonly Line[],
  mine: readonly Line[],
  theirs: readonly Line[],
  clashes: Clash[],
): readonly Line[] {
  const byRef = (lines: readonly Line[]): ReadonlyMap<string, Line> => new Map(lines.map((line) => [line.ref, line]));
  const [was, my, their] = [byRef(before), byRef(mine), byRef(theirs)];
  const pick = (ref: string): Line | undefined => {
    const [old, one, other] = [was.get(ref), my.get(ref), their.get(ref)];
    if (same(one, old)) return other;
    if (!same(other, old) && !same(one, other)) clashes.push({ list, ref, name: lineName(one ?? other ?? { ref }) });
    return one;
  };
  // My order, unless only the other one moved something.
  const iMoved = !same(orderOf(mine, was), orderOf(before, my));
  const order = iMoved ? mine : theirs;
  const placed = order.map(({ ref }) => ref);
  for (const lines of [mine, theirs])
    for (const [index, { ref }] of lines.entries()) {
      if (placed.includes(ref)) continue;
      const previous = lines[index - 1];
      placed.splice(previous ? placed.indexOf(previous.ref) + 1 : 0, 0, ref);
    }
  return placed.flatMap((ref) => pick(ref) ?? []);
}

function orderOf(lines: readonly Line[], among: ReadonlyMap<string, unknown>): readonly string[] {
  return lines.map(({ ref }) => ref).filter((ref) => among.has(ref));
}

function linesIn(held: unknown): readonly Line[] {
  return Array.isArray(held) ? (held as readonly Line[]) : [];
}

function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));
}

/** Fields in one order, so that two that say the same are the same. */
function sorted(held: unknown): unknown {
  if (Array.isArray(held)) return held.map(sorted);
  if (typeof held !== 'object' || held === null) return held;
  return Object.fromEntries(
    Object.entries(held)
      .toSorted(([a], [b]) => (a < b ? -1 : 1))
      .map(([name, inner]) => [name, sorted(inner)]),
  );
}
