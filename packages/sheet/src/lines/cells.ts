import type { JointStage } from '../model/file.js';
import type { Column } from './columns.js';

/** A line of a sheet as a plain object. */
export type PlainLine = Readonly<Record<string, unknown>>;

/** What a line holds at a path: "torque.figure". */
export function fieldAt(line: PlainLine, path: string): unknown {
  return path.split('.').reduce<unknown>((at, name) => (holds(at) ? at[name] : undefined), line);
}

/** The line with something else at a path; nothing takes the field out, and the object around it when that is empty then. */
export function withField(line: PlainLine, path: string, held: unknown): PlainLine {
  return put(line, path.split('.'), held);
}

/** What a cell shows; an absent field is an empty cell. */
export function readCell(line: PlainLine, { path, kind }: Column): string {
  const held = fieldAt(line, path);
  if (held === undefined || held === null) return '';
  switch (kind) {
    case 'yes-no':
      return held === true ? 'yes' : 'no';
    case 'numbers':
      return (held as readonly number[]).join('; ');
    case 'refs':
      return (held as readonly string[]).join('; ');
    case 'lines':
      return (held as readonly string[]).join(' / ');
    case 'stages':
      return (held as readonly JointStage[]).map(stageCell).join('; ');
    default:
      return String(held as string | number);
  }
}

export type CellWrite = { readonly ok: true; readonly line: PlainLine } | { readonly ok: false; readonly message: string };

/**
 * The line with a cell written: an empty cell takes the field out, and the object around it when
 * nothing is left in it but what says where a value comes from.
 */
export function writeCell(line: PlainLine, column: Column, typed: string): CellWrite {
  const text = typed.trim();
  // Words that a line must have, and may have none of, stay an empty list.
  const none = column.kind === 'lines' && Array.isArray(fieldAt(line, column.path)) ? [] : undefined;
  const read = text === '' ? { ok: true as const, held: none } : parseCell(text, column, line);
  return read.ok ? { ok: true, line: withField(line, column.path, read.held) } : read;
}

type Parsed = { readonly ok: true; readonly held: unknown } | { readonly ok: false; readonly message: string };

function parseCell(text: string, { kind, choices, label }: Column, line: PlainLine): Parsed {
  const no = (message: string): Parsed => ({ ok: false, message: `${label}: "${text}" ${message}` });
  switch (kind) {
    case 'whole': {
      return /^[+-]?\d+$/u.test(text) ? { ok: true, held: Number(text) } : no('is not a whole number');
    }
    case 'number': {
      const figure = Number(text.replace(',', '.'));
      return Number.isFinite(figure) ? { ok: true, held: figure } : no('is not a number');
    }
    case 'yes-no': {
      if (/^(yes|y|true|1|x)$/iu.test(text)) return { ok: true, held: true };
      return /^(no|n|false|0)$/iu.test(text) ? { ok: true, held: false } : no('is neither yes nor no');
    }
    case 'choice': {
      const chosen = choices?.find((known) => known.toLowerCase() === text.toLowerCase());
      return chosen === undefined ? no(`is not one of: ${(choices ?? []).join(', ')}`) : { ok: true, held: chosen };
    }
    case 'numbers': {
      const figures = split(text, /;/u).map((part) => Number(part.replace(',', '.')));
      return figures.every(Number.isFinite) ? { ok: true, held: figures } : no('is not a list of numbers parted by semicolons');
    }
    case 'refs':
      return { ok: true, held: split(text, /[;,\s]+/u) };
    case 'lines':
      return { ok: true, held: split(text, / \/ |\n/u) };
    case 'stages': {
      const old = isObject(line) ? ((line['stages'] as readonly JointStage[] | undefined) ?? []) : [];
      const stages = split(text, /;/u).map((part, index) => parseStage(part, old[index]));
      const bad = stages.find((stage) => typeof stage === 'string');
      return bad === undefined ? { ok: true, held: stages } : no(`: ${bad}`);
    }
    case 'text':
      return { ok: true, held: text };
  }
}

function split(text: string, at: RegExp): readonly string[] {
  return text
    .split(at)
    .map((part) => part.trim())
    .filter((part) => part !== '');
}

/** "15 N·m", "angle 70°", "hand-snug", "flush until level with the face". */
function stageCell({ kind, torque, angle, until }: JointStage): string {
  const words = kind === 'torque' ? [torque?.figure] : [kind, angle?.figure];
  return [...words, until === undefined ? undefined : `until ${until}`].filter((part) => part !== undefined).join(' ');
}

/** A stage from its cell. Where its value comes from is kept from the stage that stood there. */
function parseStage(cell: string, old: JointStage | undefined): object | string {
  const [, before = '', until] = /^(.*?)(?:\s*\buntil\s+(.*))?$/su.exec(cell) ?? [];
  const [, word, figure = ''] = /^([a-z-]+)?\s*(.*)$/su.exec(before.trim()) ?? [];
  const origin = (part: 'torque' | 'angle'): object => {
    const { trust = 'unverified', source = 'typed in', page } = old?.[part] ?? {};
    const { tolerance } = (part === 'torque' ? old?.torque : undefined) ?? {};
    return { ...(tolerance === undefined ? {} : { tolerance }), trust, source, ...(page === undefined ? {} : { page }) };
  };
  const tail = until === undefined ? {} : { until };
  if (word === undefined) return { kind: 'torque', torque: { figure, ...origin('torque') }, ...tail };
  if (figure === '') return { kind: word, ...tail };
  return { kind: word, angle: { figure, ...origin('angle') }, ...tail };
}

function put(line: PlainLine, [name = '', ...rest]: readonly string[], held: unknown): PlainLine {
  const { [name]: old, ...others } = line;
  const inner = rest.length === 0 ? held : Array.isArray(old) ? putInto(old, rest, held) : put(isObject(old) ? old : {}, rest, held);
  const gone = inner === undefined || (rest.length > 0 && isObject(inner) && Object.keys(inner).length === 0);
  if (gone) return others;
  // A field that was there keeps its place, so that a change shows as that change alone.
  return Object.hasOwn(line, name) ? { ...line, [name]: inner } : { ...others, [name]: inner };
}

/** One of a list, by its number from 0; the others stay. */
function putInto(list: readonly PlainLine[], [number = '', ...rest]: readonly string[], held: unknown): readonly PlainLine[] {
  return list.map((one, index) => (index === Number(number) ? put(one, rest, held) : one));
}

function holds(held: unknown): held is Readonly<Record<string, unknown>> {
  return typeof held === 'object' && held !== null;
}

function isObject(held: unknown): held is Readonly<Record<string, unknown>> {
  return holds(held) && !Array.isArray(held);
}
