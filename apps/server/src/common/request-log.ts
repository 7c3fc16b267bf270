import type { onResponseHookHandler } from 'fastify';
import { HEALTH, pathOf } from './door.js';

/** What a process says of each request. */
export interface RequestLine {
  readonly at: string;
  /** What an answer that is the server's fault names, so that its line is found. */
  readonly id: string;
  readonly who: string | null;
  readonly method: string;
  /** The route, not the address: an address may hold a link's secret, or what somebody looked for. */
  readonly route: string;
  readonly status: number;
  readonly ms: number;
}

/** One line of JSON for each request; nothing of what was in it. Whether the server is there is asked all day, and not told. */
export function requestLog(write: (line: string) => void): onResponseHookHandler {
  return (request, reply, done) => {
    const path = pathOf(request);
    if (path.startsWith('/api') && path !== HEALTH) {
      const line: RequestLine = {
        at: new Date().toISOString(),
        id: request.id,
        who: request.session?.person?.login ?? null,
        method: request.method,
        route: request.routeOptions.url ?? 'none',
        status: reply.statusCode,
        ms: Math.round(reply.elapsedTime * 10) / 10,
      };
      write(`${JSON.stringify(line)}\n`);
    }
    done();
  };
}

const GATHER_MS = 100;

/** Writes lines together some times a second, since each write is a call of the system and wakes who reads it; the last ones when the process ends. */
export function gathered(write: (lines: string) => void): (line: string) => void {
  let lines = '';
  const writeAll = (): void => {
    if (lines !== '') write(lines);
    lines = '';
  };
  process.once('exit', writeAll);
  return (line) => {
    if (lines === '') setTimeout(writeAll, GATHER_MS).unref();
    lines += line;
  };
}
