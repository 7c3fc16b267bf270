import type { Problem, ProblemCode } from '@jubb/wire';
import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { QueryFailedError } from 'typeorm';
import { ProblemError, notFound } from './problem.js';

/** What the database says, by its own code. */
const DATABASE_SAYS: Readonly<Record<string, () => ProblemError>> = {
  JB001: () => new ProblemError('entries-stay'),
  JB404: () => notFound('job'),
  JB409: () => new ProblemError('entry-id-taken', { errors: [{ field: 'id', allowed: 'must be one that no other entry has' }] }),
  JB410: () => new ProblemError('handed-over'),
  '22003': () => new ProblemError('too-large-figure'),
  '23505': () => new ProblemError('there-already'),
  '23503': () => new ProblemError('points-nowhere'),
  '53100': () => new ProblemError('disk-full'),
  // One that is still the copy of another, and keeps nothing before it is promoted.
  '25006': () => new ProblemError('database-silent'),
  '57014': () => new ProblemError('too-long'),
  '57P01': () => new ProblemError('database-silent'),
  '57P03': () => new ProblemError('database-silent'),
  ECONNREFUSED: () => new ProblemError('database-silent'),
  ECONNRESET: () => new ProblemError('database-silent'),
};

/** The one place where errors become answers. Nothing of a stack or a query leaves the house. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  readonly #log = new Logger('problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const reply = http.getResponse<FastifyReply>();
    const problem = this.#toProblem(error, http.getRequest<FastifyRequest>().id);
    if (reply.raw.headersSent) reply.raw.end();
    else answerWith(reply, problem);
  }

  #toProblem(error: unknown, ticket: string): Problem {
    if (error instanceof ProblemError) return error.problem;
    const known =
      DATABASE_SAYS[databaseCode(error) ?? '']?.() ?? (isConnectionLoss(error) ? new ProblemError('database-silent') : undefined);
    if (known) return known.problem;
    const refusal = clientError(
      error instanceof HttpException ? error.getStatus() : (error as { statusCode?: unknown } | null)?.statusCode,
    );
    if (refusal) return refusal.problem;
    this.#log.error(`${ticket} ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
    return new ProblemError('broken', { detail: `Ticket ${ticket}` }).problem;
  }
}

/** A problem as the answer to a request. */
export function answerWith(reply: FastifyReply, problem: Problem): void {
  void reply.code(problem.status).type('application/problem+json').send(JSON.stringify(problem));
}

function databaseCode(error: unknown): string | undefined {
  const inner = error instanceof QueryFailedError ? (error.driverError as unknown) : error;
  const code = typeof inner === 'object' && inner !== null ? (inner as { code?: unknown }).code : undefined;
  return typeof code === 'string' ? code : undefined;
}

function isConnectionLoss(error: unknown): boolean {
  return (
    error instanceof Error &&
    /connection terminated|connection ended|not queryable|timeout exceeded when trying to connect|query read timeout/iu.test(error.message)
  );
}

/** What Nest and the body parser refuse by themselves: an address that is none, bad JSON, a body too large. */
function clientError(status: unknown): ProblemError | undefined {
  if (typeof status !== 'number' || status < 400 || status >= 500) return undefined;
  const codes: Readonly<Record<number, ProblemCode>> = { 400: 'not-json', 404: 'no-such-address', 413: 'too-large' };
  return new ProblemError(codes[status] ?? 'unreadable');
}
