import { plainToInstance } from 'class-transformer';
import { getMetadataStorage, validateSync, type ValidationError, type ValidatorOptions } from 'class-validator';

/** What is wrong with a field of a body or a line of a file, by its path. */
export interface FieldIssue {
  readonly path: string;
  readonly message: string;
  readonly given?: string;
}

/** Unknown fields are refused, not dropped. */
export const STRICT = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true } satisfies ValidatorOptions;

rememberRules();

/**
 * A class that is checked once has its rules for good, and there are no groups of them here; class-validator (0.15) gathers
 * them anew from all classes for every object that it looks at, which took a third of the time of a request's check.
 */
function rememberRules(): void {
  const storage = getMetadataStorage();
  const gather = storage.getTargetValidationMetadatas.bind(storage);
  const known = new WeakMap<object, ReturnType<typeof gather>>();
  storage.getTargetValidationMetadatas = (target, ...options) => {
    const rules = known.get(target) ?? gather(target, ...options);
    known.set(target, rules);
    return rules;
  };
}

/** Checks a plain object against one of the classes: the same for form, file and request. */
export function validated<T extends object>(
  type: new () => T,
  plain: object,
  at = '',
): { readonly body: T; readonly issues: readonly FieldIssue[] } {
  const body = plainToInstance(type, plain);
  return { body, issues: flattenErrors(validateSync(body, STRICT), at) };
}

/** Checks of what a field is at all. */
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
  'isDay',
  'isInstant',
  'isFigure',
]);

/** What is not there at all is told before what it is not, and that before its size. */
function rankOf(code: string): number {
  return code === 'isDefined' ? 0 : KIND_CHECKS.has(code) ? 1 : 2;
}

/** Validation errors as path and message, the deepest only. */
export function flattenErrors(errors: readonly ValidationError[], above = ''): readonly FieldIssue[] {
  return errors.flatMap((error) => {
    const inList = /^\d+$/u.test(error.property);
    const path = inList ? `${above}[${error.property}]` : [above, error.property].filter(Boolean).join('.');
    const complaints = Object.entries(error.constraints ?? {}).toSorted(([a], [b]) => rankOf(a) - rankOf(b));
    const own = complaints.map(([code, message]): FieldIssue => ({
      path,
      message: code === 'whitelistValidation' ? 'is not known here' : plainWords(withoutName(message, error.property), error.value),
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

/** Sentences of class-validator that speak of types, as a shop would say them. */
const PLAIN: readonly (readonly [RegExp, string])[] = [
  [/^(?:each value in .*? )?must be a string$/u, 'must be words'],
  [/^(?:each value in .*? )?must be one of the following values: /u, 'must be one of: '],
  [/^must be an integer number$/u, 'must be a whole number'],
  [/^(?:each value in .*? )?must be a number conforming to the specified constraints$/u, 'must be a number'],
  [/^must be a boolean value$/u, 'must be yes or no'],
  [/^must be an array$/u, 'must be a list'],
  [/^(?:each value in .*? )?must be shorter than or equal to (\d+) characters$/u, 'must have at most $1 letters'],
  [/^(?:each value in .*? )?must be longer than or equal to (\d+) characters$/u, 'must have at least $1 letters'],
  [/^(?:each value in .*? )?must not be less than (\S+)$/u, 'must be $1 or more'],
  [/^(?:each value in .*? )?must not be greater than (\S+)$/u, 'must be $1 or less'],
  [/^must contain at least (\d+) elements$/u, 'needs at least $1'],
  [/^must contain no more than (\d+) elements$/u, 'takes at most $1'],
  [/^(is not a (?:day|moment), such as .*)$/u, '$1'],
  [/^must be a UUID$/u, 'must be an id (a UUID)'],
];

/** What stands nowhere is missing, whatever it should have been; where there is a choice, it is told. */
function plainWords(message: string, given: unknown): string {
  const [known, words] = PLAIN.find(([pattern]) => pattern.test(message)) ?? [];
  const plain = known && words !== undefined ? message.replace(known, words) : message;
  if (given !== undefined && given !== null && given !== '') return plain;
  if (/^(is|are) missing/u.test(plain)) return plain;
  const figure = /^must be text: (.*)$/u.exec(plain)?.[1];
  if (figure !== undefined) return `is missing: ${figure}`;
  const choice = /^must be (one of: .*)$/u.exec(plain)?.[1];
  return known || plain.startsWith('must be small letters') ? (choice ? `is missing; ${choice}` : 'is missing') : plain;
}

const LONGEST_QUOTE = 60;

function brief(received: unknown): string {
  const text = typeof received === 'string' ? received : (JSON.stringify(received) ?? String(received));
  const letters = [...text];
  return letters.length <= LONGEST_QUOTE ? text : `${letters.slice(0, LONGEST_QUOTE).join('')}…`;
}
