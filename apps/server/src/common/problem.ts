import type { FieldProblem, Problem } from '@jubb/wire';

/** An answer other than the one asked for, as RFC 9457 problem details. */
export class ProblemError extends Error {
  readonly problem: Problem;

  constructor(status: number, title: string, rest: { detail?: string; errors?: readonly FieldProblem[]; current?: unknown } = {}) {
    super(rest.detail ?? title);
    this.problem = { type: 'about:blank', title, status, ...rest };
  }
}

export function notFound(what: string): ProblemError {
  return new ProblemError(404, `There is no such ${what}`);
}

export function badInput(errors: readonly FieldProblem[]): ProblemError {
  return new ProblemError(400, 'Something in this cannot be kept', { errors });
}

/** Somebody else changed it since it was read: what it is now goes with the refusal. */
export function changedSince(what: string, current: unknown): ProblemError {
  return new ProblemError(409, `Somebody changed this ${what} while you had it open`, { current });
}
