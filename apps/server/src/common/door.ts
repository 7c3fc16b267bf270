import express, { type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import { badInput } from './problem.js';

const SHEETS = /^\/v1\/sheets(?:\/|$)/u;

/** What a body may weigh: of somebody who is not logged in, of a sheet, of a tablet's entries, of anything else. */
const NOBODY = '16kb';
const LIMITS: readonly (readonly [RegExp, string])[] = [
  [SHEETS, '5mb'],
  [/^\/v1\/jobs\/[^/]+\/entries$/u, '1mb'],
  [/^/u, '256kb'],
];

/** No object of the wire has more fields, no list more lines, and nothing is nested deeper: what is checked afterwards is small. */
const MOST = { fields: 300, lines: 2000, deep: 30, values: 60_000 };
/** A table of a sheet takes a whole spreadsheet. */
const MOST_OF_SHEET = { ...MOST, lines: 20_000, values: 100_000 };

/** JSON of a size that whoever sends it may send; the session is known by then. */
export function readJson(): RequestHandler {
  const readers = new Map([...LIMITS.map(([, limit]) => limit), NOBODY].map((limit) => [limit, express.json({ limit })]));
  return (request, response, next) => {
    const limit = request.session?.person ? LIMITS.find(([path]) => path.test(request.path))![1] : NOBODY;
    readers.get(limit)!(request, response, next);
  };
}

/** Refuses at the door what no field can hold: half characters and NUL, and more than anybody ever means. */
export function door(request: Request, _response: Response, next: NextFunction): void {
  const most = SHEETS.test(request.path) ? MOST_OF_SHEET : MOST;
  const problem =
    problemOf(request.query, 'query', MOST) ??
    (isPlain(request.body) ? problemOf(request.body, '', most) : undefined) ??
    pathProblem(request.path);
  next(problem ? badInput([problem]) : undefined);
}

interface DoorProblem {
  readonly field: string;
  readonly allowed: string;
  readonly given?: string;
}

function isPlain(body: unknown): boolean {
  return typeof body === 'object' && body !== null && !Buffer.isBuffer(body);
}

function pathProblem(path: string): DoorProblem | undefined {
  try {
    return isSound(decodeURIComponent(path)) ? undefined : { field: 'address', allowed: UNSOUND };
  } catch {
    return { field: 'address', allowed: 'is not written as an address is' };
  }
}

const UNSOUND = 'must not hold half a character or a NUL';

/** Every text is one that the database and every program can hold. */
function isSound(text: string): boolean {
  return !text.includes('\u0000') && text.isWellFormed();
}

/** The first thing that is wrong anywhere in it; each value is looked at once. */
function problemOf(root: unknown, name: string, most: typeof MOST): DoorProblem | undefined {
  const open: { readonly value: unknown; readonly at: string; readonly depth: number }[] = [{ value: root, at: name, depth: 0 }];
  let seen = 0;
  for (let one = open.pop(); one; one = open.pop()) {
    const { value, at, depth } = one;
    const field = at === '' ? 'body' : at;
    seen += 1;
    if (seen > most.values) return { field: 'body', allowed: `is too much at once: at most ${most.values} values are taken` };
    if (typeof value === 'string' && !isSound(value)) return { field, allowed: UNSOUND };
    if (typeof value !== 'object' || value === null) continue;
    if (depth >= most.deep) return { field, allowed: `is nested too deep: at most ${most.deep} levels are taken` };
    if (Array.isArray(value)) {
      if (value.length > most.lines)
        return { field, given: `${value.length} lines`, allowed: `has too many lines: at most ${most.lines} are taken` };
      for (let index = value.length - 1; index >= 0; index -= 1)
        open.push({ value: value[index] as unknown, at: `${at}[${index}]`, depth: depth + 1 });
      continue;
    }
    const keys = Object.keys(value);
    if (keys.length > most.fields)
      return { field, given: `${keys.length} fields`, allowed: `has too many fields: at most ${most.fields} are taken` };
    for (const key of keys.reverse()) {
      if (!isSound(key)) return { field, allowed: UNSOUND };
      open.push({ value: (value as Record<string, unknown>)[key], at: at === '' ? key : `${at}.${key}`, depth: depth + 1 });
    }
  }
  return undefined;
}
