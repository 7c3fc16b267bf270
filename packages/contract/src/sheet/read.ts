import { findNodeAtLocation, getNodeValue, parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';
import { validated, type FieldIssue } from '../validation.js';
import { checkSheet } from './check.js';
import { SHEET_FORMAT, SheetFile } from './file.js';

export interface LocatedIssue extends FieldIssue {
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
    const cutOff = offset + (first?.length ?? 0) >= text.trimEnd().length;
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

  const { body: sheet, issues: shape } = validated(SheetFile, plain);
  const issues = shape.length > 0 ? shape : checkSheet(sheet);
  if (issues.length > 0) return refuse(...issues.map((issue) => ({ ...issue, line: lineOf(tree, issue.path, text) })));
  return { ok: true, sheet };
}

function checkFormat(format: unknown): FieldIssue | undefined {
  if (format === SHEET_FORMAT) return undefined;
  const given = typeof format === 'string' ? format : String(JSON.stringify(format) ?? 'nothing');
  const version = /^jubb-sheet\/(\d+)$/u.exec(given)?.[1];
  const mine = Number(SHEET_FORMAT.split('/')[1]);
  if (version === undefined) return { path: 'format', given, message: `is not a sheet format; "${SHEET_FORMAT}" is due` };
  return Number(version) < mine
    ? { path: 'format', given, message: `is an older format than "${SHEET_FORMAT}"; export the sheet again from the shop it came from` }
    : { path: 'format', given, message: `is newer than "${SHEET_FORMAT}", the newest this Jubb reads; bring Jubb up to date first` };
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
