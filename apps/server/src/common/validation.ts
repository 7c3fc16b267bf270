import { flattenErrors } from '@jubb/contract';
import { ValidationPipe } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidatorOptions } from 'class-validator';
import { badInput, type ProblemError } from './problem.js';
import type { FieldProblem } from '@jubb/contract';

/** Unknown fields are refused, not dropped. */
const OPTIONS = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true } satisfies ValidatorOptions;

export function validationPipe(): ValidationPipe {
  return new ValidationPipe({
    ...OPTIONS,
    transform: true,
    exceptionFactory: (errors): ProblemError => badInput(fieldProblems(flattenErrors(errors))),
  });
}

/** Checks a plain object against one of the contract's classes. */
export function validated<T extends object>(
  type: new () => T,
  plain: object,
  at: string,
): { readonly body: T; readonly errors: readonly FieldProblem[] } {
  const body = plainToInstance(type, plain);
  return { body, errors: fieldProblems(flattenErrors(validateSync(body, OPTIONS), at)) };
}

export function fieldProblems(issues: readonly { path: string; message: string; given?: string; line?: number }[]): FieldProblem[] {
  return issues.map(({ path, message, given, line }) => ({
    field: path,
    allowed: message,
    ...(given === undefined ? {} : { given }),
    ...(line === undefined ? {} : { line }),
  }));
}
