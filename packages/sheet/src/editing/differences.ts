import type { SheetFile } from '../model/file.js';
import { LIST_NAMES, SHEET_LISTS, lineName, type SheetList } from '../model/lists.js';
import { COLUMNS } from '../lines/columns.js';

export interface FieldChange {
  readonly path: string;
  /** "Torque", "Window to". */
  readonly label: string;
  readonly from: string;
  readonly to: string;
}

export interface Difference {
  readonly list: SheetList | 'sheet';
  readonly ref: string;
  readonly name: string;
  readonly kind: 'added' | 'removed' | 'changed' | 'moved';
  readonly changes: readonly FieldChange[];
  /** As it is said at the bench: "Cover screws: torque 30 N·m → 34 N·m". */
  readonly say: string;
}

/** What the second sheet says otherwise than the first, line by line, in the order a person reads them. */
export function sheetDifferences(before: SheetFile, after: SheetFile): readonly Difference[] {
  const head = changesOf(withoutLists(before), withoutLists(after), 'sheet');
  const ofHead: Difference[] =
    head.length > 0
      ? [{ list: 'sheet', ref: '', name: 'The sheet itself', kind: 'changed', changes: head, say: sayChanges('The sheet itself', head) }]
      : [];
  return [...ofHead, ...SHEET_LISTS.flatMap((list) => listDifferences(list, linesOf(before, list), linesOf(after, list)))];
}

type Line = Readonly<Record<string, unknown>> & { readonly ref: string };

/** The lines of a list by which a difference can be told; a draft may hold anything in its place. */
function linesOf(sheet: SheetFile, list: SheetList): readonly Line[] {
  const lines: unknown = sheet[list];
  if (!Array.isArray(lines)) return [];
  return (lines as readonly unknown[]).filter((line): line is Line => typeof (line as Partial<Line> | null)?.ref === 'string');
}

function listDifferences(list: SheetList, before: readonly Line[], after: readonly Line[]): readonly Difference[] {
  const was = new Map(before.map((line) => [line.ref, line]));
  const is = new Map(after.map((line) => [line.ref, line]));
  const what = LIST_NAMES[list].toLowerCase();
  const whole = (line: Line, kind: 'added' | 'removed'): Difference => ({
    list,
    ref: line.ref,
    name: lineName(line),
    kind,
    changes: [],
    say: `${lineName(line)}: ${kind === 'added' ? 'new among' : 'gone from'} the ${what}`,
  });
  const changed = after.flatMap((line): Difference[] => {
    const old = was.get(line.ref);
    if (!old) return [whole(line, 'added')];
    const changes = changesOf(old, line, list);
    const name = lineName(line);
    return changes.length > 0 ? [{ list, ref: line.ref, name, kind: 'changed', changes, say: sayChanges(name, changes) }] : [];
  });
  const gone = before.filter((line) => !is.has(line.ref)).map((line) => whole(line, 'removed'));
  return [...changed, ...gone, ...(list === 'steps' ? moved(before, after) : [])];
}

/** Steps that stand elsewhere among those that both sheets have: the fewest that explain the new order. */
function moved(before: readonly Line[], after: readonly Line[]): readonly Difference[] {
  const order = new Map(before.map((line, index) => [line.ref, index]));
  const kept = after.filter((line) => order.has(line.ref));
  const inPlace = longestRising(kept.map((line) => order.get(line.ref) ?? 0));
  return kept.flatMap((line, index): Difference[] => {
    if (inPlace.has(index)) return [];
    const earlier = after[after.indexOf(line) - 1];
    const where = earlier ? `after "${lineName(earlier)}"` : 'first';
    return [{ list: 'steps', ref: line.ref, name: lineName(line), kind: 'moved', changes: [], say: `${lineName(line)}: now ${where}` }];
  });
}

/** Places of a longest rising subsequence. */
function longestRising(figures: readonly number[]): ReadonlySet<number> {
  const best: number[] = [];
  const from: (number | undefined)[] = [];
  figures.forEach((figure, index) => {
    let length = 1;
    for (let earlier = 0; earlier < index; earlier += 1) {
      if ((figures[earlier] ?? 0) >= figure || (best[earlier] ?? 0) + 1 <= length) continue;
      length = (best[earlier] ?? 0) + 1;
      from[index] = earlier;
    }
    best[index] = length;
  });
  const chosen = new Set<number>();
  let at: number | undefined = best.length > 0 ? best.indexOf(Math.max(...best)) : undefined;
  while (at !== undefined) {
    chosen.add(at);
    at = from[at];
  }
  return chosen;
}

function withoutLists(sheet: SheetFile): Readonly<Record<string, unknown>> {
  return Object.fromEntries(Object.entries(sheet).filter(([name]) => !SHEET_LISTS.some((list) => list === name)));
}

/** Fields that differ, the deepest only, with the words a column has for them. */
function changesOf(before: object, after: object, list: SheetList | 'sheet'): readonly FieldChange[] {
  const [was, is] = [flat(before), flat(after)];
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((path) => {
    const [from = '', to = ''] = [was.get(path), is.get(path)];
    return from === to ? [] : [{ path, label: labelOf(path, list), from, to }];
  });
}

function labelOf(path: string, list: SheetList | 'sheet'): string {
  const column = list === 'sheet' ? undefined : COLUMNS[list].find((candidate) => candidate.path === path);
  return (column?.label ?? path.replace(/\.figure$/u, '').replaceAll('.', ' ')).toLowerCase();
}

/** "torque.figure" → "30 N·m"; a list of words or numbers is one field. */
function flat(held: unknown, path = '', into = new Map<string, string>()): ReadonlyMap<string, string> {
  if (Array.isArray(held) && held.every((item) => typeof item !== 'object')) into.set(path, held.join('; '));
  else if (typeof held === 'object' && held !== null) {
    for (const [name, inner] of Object.entries(held)) {
      // A line within a line is known by its ref, so that one more does not shift the rest.
      const own = Array.isArray(held) ? (inner as { ref?: unknown } | null)?.ref : undefined;
      const ref = Array.isArray(held) ? (typeof own === 'string' ? own : String(Number(name) + 1)) : name;
      if (inner !== undefined) flat(inner, path === '' ? ref : `${path}.${ref}`, into);
    }
  } else if (path !== 'ref') into.set(path, String(held));
  return into;
}

function sayChanges(name: string, changes: readonly FieldChange[]): string {
  return `${name}: ${changes.map(({ label, from, to }) => changeWords(label, from, to)).join('; ')}`;
}

function changeWords(label: string, from: string, to: string): string {
  if (from === '') return `${label} now ${to}`;
  if (to === '') return `${label} taken out (was ${from})`;
  return `${label} ${shared(from, to)}`;
}

/** "30 N·m", "34 N·m" → "30 → 34 N·m". */
function shared(from: string, to: string): string {
  const unit = /^\S+( .{1,8})$/u.exec(to)?.[1];
  return unit !== undefined && from.endsWith(unit) && /^[\d.,+-]/u.test(from)
    ? `${from.slice(0, -unit.length)} → ${to}`
    : `${from} → ${to}`;
}
