import type { FieldProblem, Problem } from '@jubb/wire';
import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Response } from 'express';
import { QueryFailedError } from 'typeorm';
import { ProblemError } from './problem.js';
import { ticketOf } from './request-log.js';

/** What the database says, as a status and a sentence, and the field that is to be mended. */
const DATABASE_WORDS: Readonly<Record<string, readonly [status: number, title: string, error?: FieldProblem]>> = {
  JB001: [409, 'Entries are never changed or removed; strike them'],
  JB404: [404, 'There is no such job'],
  JB409: [409, 'An entry with this id was kept before with other content', { field: 'id', allowed: 'must be one that no other entry has' }],
  JB410: [409, 'The job is handed over: nothing can be added to it'],
  '22003': [400, 'A figure in this is larger than can be kept'],
  '23505': [409, 'This is there already'],
  '23503': [409, 'This points to something that is not there'],
  '53100': [507, 'The disk of the server is full: nothing can be kept until there is room; what is kept can be read'],
  '57014': [503, 'This took too long; try again in a moment'],
  '57P01': [503, 'The database does not answer; try again in a moment'],
  '57P03': [503, 'The database does not answer; try again in a moment'],
  ECONNREFUSED: [503, 'The database does not answer; try again in a moment'],
  ECONNRESET: [503, 'The database does not answer; try again in a moment'],
};

/** The one place where errors become answers. Nothing of a stack or a query leaves the house. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  readonly #log = new Logger('problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    const problem = this.#toProblem(error, response);
    if (response.headersSent) {
      response.end();
      return;
    }
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  }

  #toProblem(error: unknown, response: Response): Problem {
    if (error instanceof ProblemError) return error.problem;
    if (error instanceof HttpException) {
      const status = error.getStatus();
      return { type: 'about:blank', title: status === 404 ? 'There is nothing at this address' : error.message, status };
    }
    const code = databaseCode(error);
    const known = code === undefined ? undefined : DATABASE_WORDS[code];
    if (known) {
      const [status, title, field] = known;
      return { type: 'about:blank', title, status, ...(field ? { errors: [field] } : {}) };
    }
    if (isConnectionLoss(error)) return { type: 'about:blank', title: 'The database does not answer; try again in a moment', status: 503 };
    const parser = clientError(error);
    if (parser) return { type: 'about:blank', title: parser.title, status: parser.status };
    const ticket = ticketOf(response);
    this.#log.error(`${ticket} ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
    return { type: 'about:blank', title: 'Something went wrong here, not with what you sent', status: 500, detail: `Ticket ${ticket}` };
  }
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

/** Errors of the body parser carry their status: bad JSON, a body too large. */
function clientError(error: unknown): { status: number; title: string } | undefined {
  const status = typeof error === 'object' && error !== null ? (error as { status?: unknown }).status : undefined;
  if (typeof status !== 'number' || status < 400 || status >= 500) return undefined;
  if (status === 413) return { status, title: 'This is too large to be taken in' };
  return { status, title: status === 400 ? 'This is not JSON' : 'This cannot be read' };
}
