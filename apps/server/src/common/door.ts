import type { FastifyInstance, FastifyReply, FastifyRequest, HookHandlerDoneFunction } from 'fastify';
import { ProblemError, badInput } from './problem.js';

const SHEETS = /^\/api\/v1\/sheets(?:\/|$)/u;
const KB = 1024;
const MB = 1024 * KB;

type Limits = readonly (readonly [RegExp, number])[];

/** What JSON may weigh: of somebody who is not logged in, of a sheet, of a tablet's entries, of anything else. */
const OF_NOBODY = 16 * KB;
const JSON_LIMITS: Limits = [
  [SHEETS, 5 * MB],
  [/^\/api\/v1\/jobs\/[^/]+\/entries$/u, MB],
  [/^/u, 256 * KB],
];
/** Files and lines of instruments, which are taken as they are. */
const RAW_LIMITS: Limits = [
  [/^\/api\/v1\/papers$/u, 20 * MB],
  [/^\/api\/v1\/files\/[^/]+$/u, 600 * KB],
  [/^\/api\/v1\/instruments\/[^/]+\/lines$/u, 200 * KB],
  [/^/u, 0],
];
const JSON_TYPE = 'application/json';
const FILE_TYPES = ['application/pdf', 'application/octet-stream'];
const LINES_TYPE = 'application/x-ndjson';

const limitOf = (limits: Limits, path: string): number => limits.find(([pattern]) => pattern.test(path))![1];

/** Asked all day by whoever watches the server, and told without a session. */
export const HEALTH = '/api/v1/health';

/** The address without its question. */
export function pathOf({ url }: { readonly url: string }): string {
  const end = url.indexOf('?');
  return end < 0 ? url : url.slice(0, end);
}

/** What is read of a body, and how much of it: JSON and files, by their addresses; anything else is left lying. */
export function readBodies(fastify: FastifyInstance): void {
  const parseJson = fastify.getDefaultJsonParser('error', 'error');
  fastify.removeAllContentTypeParsers();
  fastify.addContentTypeParser(JSON_TYPE, { parseAs: 'buffer' }, (request, bytes, done) => {
    if (bytes.length > limitOf(JSON_LIMITS, pathOf(request))) done(new ProblemError('too-large'));
    else if (bytes.length === 0) done(null);
    else void parseJson(request, bytes.toString(), done);
  });
  fastify.addContentTypeParser([...FILE_TYPES, LINES_TYPE], { parseAs: 'buffer' }, (_request, bytes, done) => done(null, bytes));
  fastify.addContentTypeParser('*', (_request, payload, done) => {
    payload.resume();
    done(null);
  });
  fastify.addHook('onRoute', (route) => {
    route.bodyLimit = Math.max(limitOf(JSON_LIMITS, route.url), limitOf(RAW_LIMITS, route.url));
  });
}

/** Of nobody little is read, and no file at all; the session is known by then. */
export function readLittleOfNobody(request: FastifyRequest, _reply: FastifyReply, _payload: unknown, next: HookHandlerDoneFunction): void {
  const type = request.headers['content-type'];
  // Instruments have a key of their own, and no session.
  if (type === undefined || request.session.person || type.startsWith(LINES_TYPE)) return next();
  if (FILE_TYPES.some((one) => type.startsWith(one))) return next(new ProblemError('log-in-first'));
  const isEndless = request.headers['transfer-encoding'] !== undefined;
  const length = isEndless ? Infinity : Number(request.headers['content-length'] ?? 0);
  next(length > OF_NOBODY ? new ProblemError('too-large') : undefined);
}

/** Of a body that is refused so much is let run out, and so long, before the answer goes. */
const MOST_REFUSED = 64 * MB;
const LONGEST_REFUSED_MS = 20_000;

/** What is still coming of a refused body runs out first: whoever sends it would be cut off, and never read why. */
export function letRunOut(
  { raw }: FastifyRequest,
  reply: FastifyReply,
  payload: unknown,
  next: (error: null, payload: unknown) => void,
): void {
  const hasBody = raw.headers['transfer-encoding'] !== undefined || Number(raw.headers['content-length'] ?? 0) > 0;
  if (reply.statusCode < 400 || !hasBody || raw.complete || raw.destroyed) return next(null, payload);
  let read = 0;
  const count = (chunk: Buffer): void => {
    read += chunk.length;
    if (read > MOST_REFUSED) over();
  };
  const over = (): void => {
    clearTimeout(longest);
    raw.off('data', count).off('end', over).off('close', over);
    next(null, payload);
  };
  const longest = setTimeout(over, LONGEST_REFUSED_MS);
  raw.on('data', count).once('end', over).once('close', over).resume();
}

/** No object of the wire has more fields, no list more lines, and nothing is nested deeper: what is checked afterwards is small. */
const MOST = { fields: 300, lines: 2000, deep: 30, values: 60_000 };
/** A table of a sheet takes a whole spreadsheet. */
const MOST_OF_SHEET = { ...MOST, lines: 20_000, values: 100_000 };

/** Refuses at the door what no field can hold: half characters and NUL, and more than anybody ever means. */
export function door(request: FastifyRequest, _reply: FastifyReply, next: HookHandlerDoneFunction): void {
  const path = pathOf(request);
  const most = SHEETS.test(path) ? MOST_OF_SHEET : MOST;
  const problem =
    problemOf(request.query, 'query', MOST) ?? (isPlain(request.body) ? problemOf(request.body, '', most) : undefined) ?? pathProblem(path);
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
