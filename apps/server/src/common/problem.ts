import type { Refusal } from '@jubb/book';
import { PROBLEMS, problemTitle, type FieldProblem, type Problem, type ProblemCode } from '@jubb/wire';

interface Said {
  readonly detail?: string;
  readonly errors?: readonly FieldProblem[];
  /** What stands in its way: for a change that came second, what it is now. */
  readonly current?: unknown;
  /** What the gaps of its sentence are filled with. */
  readonly named?: Readonly<Record<string, string | number>>;
}

/** An answer other than the one asked for, as RFC 9457 problem details. */
export class ProblemError extends Error {
  readonly problem: Problem;

  constructor(code: ProblemCode, { named, ...rest }: Said = {}) {
    const title = problemTitle(code, named);
    super(rest.detail ?? title);
    this.problem = { type: `urn:jubb:${code}`, code, title, status: PROBLEMS[code].status, ...rest };
  }
}

export function notFound(what: string): ProblemError {
  return new ProblemError('not-found', { named: { what } });
}

export function badInput(errors: readonly FieldProblem[]): ProblemError {
  return new ProblemError('bad-input', { errors });
}

/** Somebody else changed it since it was read: what it is now goes with the refusal. */
export function changedSince(what: string, current: unknown): ProblemError {
  return new ProblemError('changed', { named: { what }, current });
}

/** What the book refuses, as an answer. */
export function refused({ code, errors, ...rest }: Refusal): ProblemError {
  return new ProblemError(code, { ...(errors.length > 0 ? { errors } : {}), ...rest });
}
