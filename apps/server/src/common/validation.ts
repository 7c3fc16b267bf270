import type { FieldIssue } from '@jubb/sheet';
import { STRICT, flattenErrors } from '@jubb/sheet/given';
import type { FieldProblem } from '@jubb/wire';
import { ValidationPipe } from '@nestjs/common';
import { badInput, type ProblemError } from './problem.js';

export function validationPipe(): ValidationPipe {
  return new ValidationPipe({
    ...STRICT,
    transform: true,
    exceptionFactory: (errors): ProblemError => badInput(fieldProblems(flattenErrors(errors))),
  });
}

export function fieldProblems(issues: readonly (FieldIssue & { readonly line?: number })[]): FieldProblem[] {
  return issues.map(({ path, message, given, line }) => ({
    field: path,
    allowed: message,
    ...(given === undefined ? {} : { given }),
    ...(line === undefined ? {} : { line }),
  }));
}
