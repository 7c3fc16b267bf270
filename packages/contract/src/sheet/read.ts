import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { findNodeAtLocation, getNodeValue, parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';
import { checkSheet, type SheetIssue } from './check.js';
import { SHEET_FORMAT, SheetFile } from './file.js';

export interface LocatedIssue extends SheetIssue {
  /** Line of the file, from 1. */
  readonly line: number;
}

export type SheetRead = { readonly ok: true; readonly sheet: SheetFile } | { readonly ok: false; readonly issues: readonly LocatedIssue[] };

const LONGEST_FILE = 4_000_000;
const MOST_ISSUES = 50;

/** Reads a sheet file. Every issue carries its line, and nothing of a bad file is used. */
export function readSheetFile(text: string): SheetRead {
  const refuse = (...issues: LocatedIssue[]): SheetRead => ({ ok: false, issues: issues.slice(0, MOST_ISSUES) });
  if (text.length > LONGEST_FILE)
    return refuse({ path: '', line: 1, message: `the file has ${text.length} letters; at most ${LONGEST_FILE} are read` });
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors, { disallowComments: true, allowTrailingComma: false });
  const [first] = errors;
  if (first || !tree) {
    const offset = first?.offset ?? 0;
    const cutOff = offset >= text.trimEnd().length;
    const reason = first ? printParseErrorCode(first.error) : 'Empty';
    return refuse({
      path: '',
      line: lineAt(text, offset),
      message: cutOff ? 'the file ends in the middle: it has been cut off' : `is not JSON here (${reason})`,
    });
  }
  if (tree.type !== 'object') return refuse({ path: '', line: 1, message: 'is not a sheet file: an object is due' });
  const plain = getNodeValue(tree) as Record<string, unknown>;
  const format = checkFormat(plain['format']);
  if (format) return refuse({ ...format, line: lineOf(tree, 'format', text) });

  const sheet = plainToInstance(SheetFile, plain);
  const shape = validateSync(sheet, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  const issues = shape.length > 0 ? flattenErrors(shape) : checkSheet(sheet);
  if (issues.length > 0) return refuse(...issues.map((issue) => ({ ...issue, line: lineOf(tree, issue.path, text) })));
  return { ok: true, sheet };
}

function checkFormat(format: unknown): SheetIssue | undefined {
  if (format === SHEET_FORMAT) return undefined;
  const given = typeof format === 'string' ? format : String(JSON.stringify(format) ?? 'nothing');
  const version = /^jubb-sheet\/(\d+)$/u.exec(given)?.[1];
  const mine = Number(SHEET_FORMAT.split('/')[1]);
  if (version === undefined) return { path: 'format', given, message: `is not a sheet format; "${SHEET_FORMAT}" is due` };
  return Number(version) < mine
    ? { path: 'format', given, message: `is an older format than "${SHEET_FORMAT}"; export the sheet again from the shop it came from` }
    : { path: 'format', given, message: `is newer than "${SHEET_FORMAT}", the newest this Jubb reads; bring Jubb up to date first` };
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
export function flattenErrors(errors: readonly ValidationError[], above = ''): readonly SheetIssue[] {
  return errors.flatMap((error) => {
    const inList = /^\d+$/u.test(error.property);
    const path = inList ? `${above}[${error.property}]` : [above, error.property].filter(Boolean).join('.');
    const complaints = Object.entries(error.constraints ?? {}).toSorted(
      ([a], [b]) => Number(KIND_CHECKS.has(b)) - Number(KIND_CHECKS.has(a)),
    );
    const own = complaints.map(([code, message]): SheetIssue => ({
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

function lineOf(tree: Node, path: string, text: string): number {
  const segments = path
    .split(/[.[\]]+/u)
    .filter(Boolean)
    .map((part) => (/^\d+$/u.test(part) ? Number(part) : part));
  // A missing field has no place of its own: its nearest parent has.
  for (let length = segments.length; length > 0; length -= 1) {
    const node = findNodeAtLocation(tree, segments.slice(0, length));
    if (node) return lineAt(text, node.offset);
  }
  return 1;
}

function lineAt(text: string, offset: number): number {
  return text.slice(0, offset).split('\n').length;
}
