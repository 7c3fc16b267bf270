import { pathOf, type AnswerOf, type AskedWith, type Endpoint, type FieldProblem, type Method, type Problem } from '@jubb/wire';

/** What the server refused, with its field problems. */
export class Refusal extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.detail ? `${problem.title}. ${problem.detail}` : problem.title);
    this.problem = problem;
  }

  get fields(): readonly FieldProblem[] {
    return this.problem.errors ?? [];
  }
}

/** What somebody else made of it meanwhile, when that is why it was refused. */
export function meanwhile<T>(error: unknown): T | undefined {
  return error instanceof Refusal && error.problem.status === 409 ? (error.problem.current as T | undefined) : undefined;
}

/** The server could not be reached, or is not well: try again later. */
export class LinkDown extends Error {}

/** The server is there, and fails at just this: the same again may fail the same way. */
export class ServerFails extends LinkDown {}

let csrf = '';
const CLOCK = 'jubb.clock-ahead';
/** How far this device's clock is before the server's, ms; the server's tells whole seconds. Known without a link, too. */
let clockAhead = Number(localStorage.getItem(CLOCK) ?? 0) || 0;
/** What a slow link may make of a right clock. */
export const CLOCK_SLACK_MS = 2 * 60_000;

export const aheadMs = (): number => clockAhead;

/** Now, ISO, by the shop's clock where this device's is wrong. */
export function nowIso(): string {
  return new Date(Date.now() - (Math.abs(clockAhead) > CLOCK_SLACK_MS ? clockAhead : 0)).toISOString();
}

function keepClock(ahead: number): void {
  clockAhead = ahead;
  try {
    if (Math.abs(ahead) > CLOCK_SLACK_MS) localStorage.setItem(CLOCK, String(ahead));
    else localStorage.removeItem(CLOCK);
  } catch {
    // A full or forbidden store: it is told again with the next answer.
  }
}

export function setToken(token: string): void {
  csrf = token;
}

type Given<E extends Endpoint> = Record<never, never> extends AskedWith<E> ? [given?: AskedWith<E>] : [given: AskedWith<E>];

/** Asks the server at one of its endpoints, with the parts of its path, its query and its body by their names. */
export function ask<E extends Endpoint>(endpoint: E, ...[given]: Given<E>): Promise<AnswerOf<E>> {
  const { body } = (given ?? {}) as { readonly body?: unknown };
  return send(
    endpoint.method,
    pathOf(endpoint, given ?? {}),
    body === undefined ? {} : { type: 'application/json', body: JSON.stringify(body) },
  );
}

/** Sends a file, or a part of one, as it is. */
export function upload<E extends Endpoint>(endpoint: E, given: AskedWith<E>, type: string, body: Blob | string): Promise<AnswerOf<E>> {
  return send(endpoint.method, pathOf(endpoint, given), { type, body });
}

/** Where a page finds what an endpoint answers: of a picture, a download, a stream. */
export function addressOf<E extends Endpoint>(endpoint: E, ...[given]: Given<E>): string {
  return `/api/v1${pathOf(endpoint, given ?? {})}`;
}

async function send<T>(method: Method, path: string, { type, body }: { readonly type?: string; readonly body?: BodyInit }): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api/v1${path}`, {
      method,
      headers: {
        ...(type === undefined ? {} : { 'content-type': type }),
        ...(method === 'GET' ? {} : { 'x-jubb-csrf': csrf || 'none' }),
      },
      ...(body === undefined ? {} : { body }),
    });
  } catch {
    throw new LinkDown('The server cannot be reached');
  }
  const told = Date.parse(response.headers.get('date') ?? '');
  // An answer that a service worker kept is as old as it is.
  if (method !== 'GET' && !Number.isNaN(told)) keepClock(Date.now() - told);
  if (response.status === 204) return undefined as T;
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok) return answer as T;
  if (response.status === 500) throw new ServerFails((answer as Problem | undefined)?.title ?? 'The server fails at this');
  if (response.status > 500) throw new LinkDown((answer as Problem | undefined)?.title ?? 'The server is not well');
  const unknown: Problem = { type: 'about:blank', code: 'unreadable', title: 'The server refused this', status: response.status };
  throw new Refusal((answer as Problem | undefined) ?? unknown);
}
