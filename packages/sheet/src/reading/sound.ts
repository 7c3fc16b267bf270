import { blankField } from '../lines/new-line.js';
import { validated, type FieldIssue } from '../given/validation.js';
import { SheetFile } from '../model/file.js';
import { LIST_NAMES, SHEET_LISTS, lineName, type SheetList } from '../model/lists.js';
import { NESTED } from '../lines/nested.js';
import { COLUMNS } from '../lines/columns.js';
import { pathParts } from './read.js';

type Plain = Record<string, unknown>;

/** Fields of the sheet that must say something, until they do. */
const HEAD: readonly string[] = ['title', 'family', 'make', 'model', 'machine'];

/**
 * A draft with what has not the shape of a sheet taken out of a copy, so that all the rest of it can be looked at too;
 * nothing where that does not help. `issues` are all that was taken out.
 */
export function soundCopy(plain: object): { readonly sheet: SheetFile | undefined; readonly issues: readonly FieldIssue[] } {
  const copy = withoutNothing(structuredClone(plain)) as Plain;
  const { body, issues } = validated(SheetFile, copy);
  if (issues.length === 0) return { sheet: body, issues };
  for (const { path } of issues) mend(copy, pathParts(path));
  for (let left = validated(SheetFile, copy); ; left = validated(SheetFile, copy)) {
    if (left.issues.length === 0) return { sheet: left.body, issues };
    const lines = left.issues.map(({ path }) => pathParts(path)).filter(([list, index]) => isList(list) && typeof index === 'number');
    // What is left is of whole lists, such as one that is empty and must not be: the rest can be looked at.
    if (lines.length === 0) return { sheet: left.issues.every(({ path }) => isList(path)) ? left.body : undefined, issues };
    // A line that cannot be made whole is left out.
    for (const list of SHEET_LISTS) {
      const gone = new Set(lines.flatMap(([name, index]) => (name === list ? [index] : [])));
      if (gone.size > 0) copy[list] = (copy[list] as unknown[]).filter((_, index) => !gone.has(index));
    }
  }
}

/** Fields that are there and say nothing are taken as left out. */
function withoutNothing(plain: unknown): unknown {
  if (Array.isArray(plain)) return plain.map(withoutNothing);
  if (typeof plain !== 'object' || plain === null) return plain;
  return Object.fromEntries(Object.entries(plain).flatMap(([name, held]) => (held === null ? [] : [[name, withoutNothing(held)]])));
}

function isList(name: unknown): name is SheetList {
  return (SHEET_LISTS as readonly unknown[]).includes(name);
}

/** Takes out what does not fit, or puts in its place what says nothing. */
function mend(copy: Plain, [first, second, third]: readonly (string | number)[]): void {
  const name = String(first);
  if (!isList(first)) {
    if (HEAD.includes(name)) copy[name] = '…';
    else Reflect.deleteProperty(copy, name);
    return;
  }
  const held = copy[first];
  if (!Array.isArray(held)) {
    copy[first] = [];
    return;
  }
  if (second === undefined) copy[first] = held.filter((one) => typeof one === 'object' && one !== null && !Array.isArray(one));
  const line = typeof second === 'number' ? (held[second] as Plain | undefined) : undefined;
  if (typeof line !== 'object' || line === null || typeof third !== 'string') return;
  const blank = blankField(first, third);
  // A pointer that says nothing still has to be shaped like one.
  if (blank === '…')
    line[third] = POINTERS.has(`${first}.${third}`) ? 'to-be-said' : third === 'name' || third === 'title' ? (line['ref'] ?? blank) : blank;
  else if (blank === undefined) Reflect.deleteProperty(line, third);
  else line[third] = structuredClone(blank);
}

const POINTERS: ReadonlySet<string> = new Set(['joints.part', 'fits.part', 'seals.part', 'obligations.closedBy', 'whileOpen.step']);

/** Where a field stands, as a shop would point at it: “Joints, line 3 ‘Wheel nuts’, Torque”. */
export function placeWords(plain: object, path: string): string {
  const [first, index, ...rest] = pathParts(path);
  if (!isList(first)) return HEAD_NAMES[String(first)] ?? fieldWords(pathParts(path));
  if (typeof index !== 'number') return LIST_NAMES[first];
  const lines = (plain as Plain)[first];
  const line: unknown = Array.isArray(lines) ? (lines as unknown[])[index] : undefined;
  const name = typeof line === 'object' && line !== null ? lineName(line) : '';
  const place = `${LIST_NAMES[first]}, line ${index + 1}${name === '' ? '' : ` “${name}”`}`;
  return rest.length === 0 ? place : `${place}, ${columnWords(first, rest)}`;
}

const HEAD_NAMES: Readonly<Record<string, string>> = {
  format: 'Format',
  title: 'Title',
  family: 'Family',
  make: 'Make',
  model: 'Model',
  machine: 'Machine',
  mass: 'Mass',
  notes: 'Notes',
  sides: 'Sides',
  serialPlace: 'Where its serial is',
};

/** The heading of the column, or of the small table and its column, that a field of a line stands under. */
function columnWords(list: SheetList, rest: readonly (string | number)[]): string {
  const path = rest.filter((part) => typeof part === 'string').join('.');
  const column = COLUMNS[list].find((one) => one.path === path);
  if (column) return column.label;
  const nested = NESTED[list]?.find((one) => path === one.path || path.startsWith(`${one.path}.`));
  if (!nested) return COLUMNS[list].find((one) => one.path.startsWith(`${path}.`))?.label ?? fieldWords(rest);
  const inner = path.slice(nested.path.length + 1);
  const row = rest.find((part) => typeof part === 'number');
  const label = nested.columns.find((one) => one.path === inner)?.label;
  return [nested.label, row === undefined ? undefined : `row ${Number(row) + 1}`, label].filter((part) => part !== undefined).join(', ');
}

function fieldWords(parts: readonly (string | number)[]): string {
  const last = parts.filter((part) => typeof part === 'string').at(-1) ?? '';
  return last.replace(/[A-Z]/gu, (letter) => ` ${letter.toLowerCase()}`);
}
