import { randomUUID } from 'node:crypto';
import type { RequestHandler, Response } from 'express';

/** What a process says of each request. */
export interface RequestLine {
  readonly at: string;
  readonly id: string;
  readonly who: string | null;
  readonly method: string;
  /** The route, not the address: an address may hold a link's secret, or what somebody looked for. */
  readonly route: string;
  readonly status: number;
  readonly ms: number;
}

/** What an answer that is the server's fault names, so that its line is found. */
export function ticketOf(response: Response): string {
  return (response.locals as { id?: string }).id ?? randomUUID();
}

/** One line of JSON for each request; nothing of what was in it. Whether the server is there is asked all day, and not told. */
export function requestLog(write: (line: string) => void): RequestHandler {
  return (request, response, next) => {
    const began = performance.now();
    const id = randomUUID();
    (response.locals as { id?: string }).id = id;
    const { method, path } = request;
    response.once('close', () => {
      const route = (request.route as { path?: unknown } | undefined)?.path;
      if (path === '/v1/health') return;
      const line: RequestLine = {
        at: new Date().toISOString(),
        id,
        who: request.session?.person?.login ?? null,
        method,
        route: typeof route === 'string' ? route : 'none',
        status: response.statusCode,
        ms: Math.round((performance.now() - began) * 10) / 10,
      };
      write(`${JSON.stringify(line)}\n`);
    });
    next();
  };
}
