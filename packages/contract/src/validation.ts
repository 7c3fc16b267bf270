import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidationError, type ValidatorOptions } from 'class-validator';

/** What is wrong with a field of a body or a line of a file, by its path. */
export interface FieldIssue {
  readonly path: string;
  readonly message: string;
  readonly given?: string;
}

/** Unknown fields are refused, not dropped. */
export const STRICT = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true } satisfies ValidatorOptions;

/** Checks a plain object against one of the contract's classes: the same for form, file and request. */
export function validated<T extends object>(
  type: new () => T,
  plain: object,
  at = '',
): { readonly body: T; readonly issues: readonly FieldIssue[] } {
  const body = plainToInstance(type, plain);
  return { body, issues: flattenErrors(validateSync(body, STRICT), at) };
}

/** Checks of what a field is at all; their complaint comes before those of its size. */
const KIND_CHECKS = new Set([
  'isString',
  'isInt',
  'isNumber',
  'isArray',
  'isBoolean',
  'isObject',
  'isUuid',
  'isIn',
  'equals',
  'isDateString',
  'isFigure',
]);

/** Validation errors as path and message, the deepest only. */
export function flattenErrors(errors: readonly ValidationError[], above = ''): readonly FieldIssue[] {
  return errors.flatMap((error) => {
    const inList = /^\d+$/u.test(error.property);
    const path = inList ? `${above}[${error.property}]` : [above, error.property].filter(Boolean).join('.');
    const complaints = Object.entries(error.constraints ?? {}).toSorted(
      ([a], [b]) => Number(KIND_CHECKS.has(b)) - Number(KIND_CHECKS.has(a)),
    );
    const own = complaints.map(([code, message]): FieldIssue => ({
      path,
      message: code === 'whitelistValidation' ? 'is not known here' : withoutName(message, error.property),
      ...(error.value === undefined ? {} : { given: brief(error.value) }),
    }));
    // One line per field: the first complaint is the one to mend.
    return [...own.slice(0, 1), ...flattenErrors(error.children ?? [], path)];
  });
}

/** class-validator begins its sentences with the property; the path says that already. */
function withoutName(message: string, property: string): string {
  return message.startsWith(`${property} `) ? message.slice(property.length + 1) : message;
}

const LONGEST_QUOTE = 60;

function brief(received: unknown): string {
  const text = typeof received === 'string' ? received : (JSON.stringify(received) ?? String(received));
  const letters = [...text];
  return letters.length <= LONGEST_QUOTE ? text : `${letters.slice(0, LONGEST_QUOTE).join('')}…`;
}
