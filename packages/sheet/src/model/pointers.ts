import { SHEET_LISTS, rowsOf, type SheetList } from './lists.js';
import { RESHAPED } from './choices.js';
import type { SheetFile } from './file.js';

/** Where a line points, by its path within the line; `[]` stands behind what is a list. */
type Pointers = Readonly<Record<string, readonly SheetList[]>>;

/** What a variant or a way may bring or drop. */
const BROUGHT: readonly SheetList[] = ['steps', 'parts'];

const SEVERAL: readonly SheetList[] = ['several'];

/** Every field of a sheet that names another line, and the lists that the line may be in. The one place that knows. */
const POINTERS: Readonly<Partial<Record<SheetList, Pointers>>> = {
  variants: { 'tells[].feature': ['features'], 'brings[]': BROUGHT, 'drops[]': BROUGHT, 'changes[].line': RESHAPED },
  causes: { 'blames[].complaint': ['complaints'], 'signs[].limit': ['limits'], 'tasks[]': ['tasks'], 'parts[]': ['parts'] },
  parts: { asManyAs: ['parts'], each: SEVERAL },
  kits: { 'parts[]': ['parts'] },
  joints: { part: ['parts'], each: SEVERAL },
  fastenings: { part: ['parts'], each: SEVERAL },
  settings: {
    'bearings[]': ['parts'],
    'under[]': ['joints'],
    'proof.closes': ['steps'],
    'proof.less[].setting': ['settings'],
    'proof.less[].limit': ['limits'],
    each: SEVERAL,
  },
  fits: { part: ['parts'], 'off.with[]': ['fits'], each: SEVERAL },
  seals: { part: ['parts'], each: SEVERAL },
  limits: { part: ['parts'], each: SEVERAL },
  fluids: { each: SEVERAL },
  cautions: { 'holds.from': ['steps'], 'holds.until': ['steps'] },
  obligations: { 'madeBy[]': ['steps', 'parts'], closedBy: ['steps'] },
  whileOpen: { step: ['steps'], part: ['parts'] },
  steps: {
    each: SEVERAL,
    'cautions[]': ['cautions'],
    'record.limit': ['limits'],
    'record.joint': ['joints'],
    'record.setting': ['settings'],
    'record.seal': ['seals'],
    'record.fit': ['fits'],
    'record.fluid': ['fluids'],
    'record.counts[].part': ['parts'],
    'opens.closedBy': ['steps'],
    'tasks[]': ['tasks'],
    'after[]': ['steps'],
    'frees[]': ['parts'],
    'letsGo[]': ['fits'],
    'shows[]': ['features'],
    'putsIn[]': ['parts'],
    'seats[]': ['fastenings'],
    'lead.from': ['steps'],
    tooLateAfter: ['steps'],
    'needsOff[]': ['parts'],
    routing: ['routings'],
    'pinned.document': ['documents'],
    'ways[].brings[]': BROUGHT,
    'ways[].drops[]': BROUGHT,
    'ways[].changes[].line': RESHAPED,
  },
};

/** The same, with each path taken apart once. */
const PATHS: ReadonlyMap<
  string,
  readonly { readonly field: string; readonly lists: readonly SheetList[]; readonly parts: readonly string[] }[]
> = new Map(
  Object.entries(POINTERS).map(([list, pointers]) => [
    list,
    Object.entries(pointers).map(([field, lists]) => ({ field, lists, parts: field.split(/(?=\[\])|\./u) })),
  ]),
);

export interface Pointer {
  /** The field as it is declared: "record.counts[].part". */
  readonly field: string;
  /** Where it stands: "record.counts[2].part". */
  readonly path: string;
  readonly ref: string;
  readonly lists: readonly SheetList[];
}

/** Everything that a line of a list points to. */
export function pointersOf(list: SheetList, line: object): readonly Pointer[] {
  const found: Pointer[] = [];
  mapPointers(list, line, (pointer) => {
    found.push(pointer);
    return pointer.ref;
  });
  return found;
}

/** A copy of a line that points to what `to` answers. */
export function mapPointers<L extends object>(list: SheetList, line: L, to: (pointer: Pointer) => string): L {
  return (PATHS.get(list) ?? []).reduce<L>(
    (at, { field, lists, parts }) => mapAt(at, parts, '', (ref, path) => to({ field, path, ref, lists })) as L,
    line,
  );
}

/** What is turned into nothing is gone: the field, or the whole row of a list that has it. What does not change is not copied. */
function mapAt(
  held: unknown,
  parts: readonly string[],
  at: string,
  to: (ref: string, path: string) => string | undefined,
  depth = 0,
): unknown {
  const name = parts[depth];
  if (name === undefined) return typeof held === 'string' ? to(held, at) : held;
  if (name === '[]') {
    if (!Array.isArray(held)) return held;
    const rows: readonly unknown[] = held;
    const items = rows.map((item, index) => mapAt(item, parts, `${at}[${index}]`, to, depth + 1));
    if (items.every((item, index) => item === rows[index])) return rows;
    return items.filter((item, index) => item !== undefined && !hasLost(rows[index], item, parts[depth + 1]));
  }
  if (typeof held !== 'object' || held === null || !(name in held)) return held;
  const inner = (held as Readonly<Record<string, unknown>>)[name];
  const mapped = mapAt(inner, parts, at === '' ? name : `${at}.${name}`, to, depth + 1);
  if (mapped === inner) return held;
  const { [name]: _, ...others } = held as Readonly<Record<string, unknown>>;
  return mapped === undefined ? others : { ...held, [name]: mapped };
}

function hasLost(before: unknown, after: unknown, name: string | undefined): boolean {
  return name !== undefined && typeof after === 'object' && after !== null && !(name in after) && name in (before as object);
}

/** A copy of a line without what points to something that is gone: out of a list the one of it, and the row that stands for it. */
export function withoutPointers<L extends object>(list: SheetList, line: L, isGone: (pointer: Pointer) => boolean): L {
  return (PATHS.get(list) ?? []).reduce<L>(
    (at, { field, lists, parts }) => mapAt(at, parts, '', (ref, path) => (isGone({ field, path, ref, lists }) ? undefined : ref)) as L,
    line,
  );
}

/** A copy of a line whose lists of refs hold, in the place of one, all that `to` answers; what is no list is left as it is. */
export function spreadPointers<L extends object>(
  list: SheetList,
  line: L,
  to: (ref: string, lists: readonly SheetList[]) => readonly string[],
): L {
  const spread = Object.entries(POINTERS[list] ?? {}).flatMap(([field, lists]) => {
    const name = /^(\w+)\[\]$/u.exec(field)?.[1];
    const held = name === undefined ? undefined : (line as Readonly<Record<string, unknown>>)[name];
    return name !== undefined && Array.isArray(held) ? [[name, held.flatMap((ref: string) => to(ref, lists))] as const] : [];
  });
  return spread.length > 0 ? { ...line, ...Object.fromEntries(spread) } : line;
}

/** Fields of the lines of a list that point into another one, without what is before the last dot: "joint". */
export function pointersInto(list: SheetList, into: SheetList): readonly string[] {
  return Object.entries(POINTERS[list] ?? {}).flatMap(([field, lists]) => (lists.includes(into) ? [field] : []));
}

/** Every pointer of a sheet, with the place that it stands at: "steps[3].record.joint". */
export function everyPointer(sheet: SheetFile): readonly (Pointer & { readonly list: SheetList; readonly index: number })[] {
  return SHEET_LISTS.flatMap((list) =>
    rowsOf(sheet, list).flatMap((line, index) =>
      pointersOf(list, line).map((pointer) => ({ ...pointer, list, index, path: `${list}[${index}].${pointer.path}` })),
    ),
  );
}

/** Declared pointers of a sheet by list and field, for whoever checks that none is missing: "steps.record.joint". */
export const DECLARED_POINTERS: readonly string[] = Object.entries(POINTERS).flatMap(([list, pointers]) =>
  Object.keys(pointers).map((field) => `${list}.${field}`),
);
