import type { FieldIssue } from '@jubb/sheet';
import { STRICT, validated } from '@jubb/sheet/given';
import type { FieldProblem } from '@jubb/wire';
import { ValidationPipe, type ArgumentMetadata } from '@nestjs/common';
import { badInput } from './problem.js';

/** Bodies are checked as forms and files are, by the same function; the rest of a request as Nest does it. */
export class RequestPipe extends ValidationPipe {
  constructor() {
    super({ ...STRICT, transform: true });
  }

  override transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    const { type, metatype } = metadata;
    if (type !== 'body' || metatype === undefined || metatype === Object) return super.transform(value, metadata);
    const isPlain = typeof value === 'object' && value !== null && !Array.isArray(value) && !Buffer.isBuffer(value);
    const { body, issues } = validated(metatype as new () => object, isPlain ? value : {});
    return issues.length > 0 ? Promise.reject(badInput(fieldProblems(issues))) : Promise.resolve(body);
  }
}

export function fieldProblems(issues: readonly (FieldIssue & { readonly line?: number })[]): FieldProblem[] {
  return issues.map(({ path, message, given, line }) => ({
    field: path,
    allowed: message,
    ...(given === undefined ? {} : { given }),
    ...(line === undefined ? {} : { line }),
  }));
}
