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

/** What a row of a table came to, checked as its form is; what could not be read is said as it was typed, not as what it then lacks. */
export function checkRow(type: new () => object, body: object, unread: readonly FieldProblem[]): void {
  const fields = new Set(unread.map(({ field }) => field));
  const wrongs = [...unread, ...fieldProblems(validated(type, body).issues).filter(({ field }) => !fields.has(field))];
  if (wrongs.length > 0) throw badInput(wrongs);
}
