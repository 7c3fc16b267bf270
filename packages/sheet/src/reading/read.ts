import type { LocatedIssue, Locate, PlainRead } from './plain.js';
import { checkedSheet } from '../checking/sheet-issues.js';
import type { SheetFile } from '../model/file.js';
import { readYaml } from './yaml.js';
import { findNodeAtLocation, getNodeValue, parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';

/** The longest file that is read, in bytes. */
export const LONGEST_FILE = 4_000_000;

export type SheetRead =
  | {
      readonly ok: true;
      readonly sheet: SheetFile;
      /** The same as a plain object, with nothing but what the file says. */
      readonly plain: SheetFile;
      /** The file itself, where it is YAML: its comments are kept for the way out. */
      readonly yaml?: string;
    }
  | { readonly ok: false; readonly issues: readonly LocatedIssue[] };

const MOST_ISSUES = 50;

/** Reads a sheet file, JSON or YAML. Every issue carries its line, and nothing of a bad file is used. */
export function readSheetFile(text: string): SheetRead {
  const refuse = (...issues: LocatedIssue[]): SheetRead => ({ ok: false, issues: issues.slice(0, MOST_ISSUES) });
  if (text.length > LONGEST_FILE)
    return refuse({ path: '', line: 1, message: `the file has ${text.length} letters; at most ${LONGEST_FILE} are read` });
  const isJson = /^\uFEFF?\s*[[{"]/u.test(text);
  const read = isJson ? readJson(text) : readYaml(text);
  if (!read.ok) return refuse(read.issue);
  const { plain, lineOf } = read;
  if (typeof plain !== 'object' || plain === null || Array.isArray(plain))
    return refuse({ path: '', line: 1, message: 'is not a sheet file: named fields are due, "format" the first' });
  const { issues, sheet } = checkedSheet(plain as Record<string, unknown>);
  if (!sheet) return refuse(...issues.map((issue) => ({ ...issue, line: lineIn(lineOf, issue.path) })));
  return { ok: true, sheet, plain: plain as SheetFile, ...(isJson ? {} : { yaml: text }) };
}

function readJson(text: string): PlainRead {
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors, { disallowComments: true, allowTrailingComma: false });
  const [first] = errors;
  if (first || !tree) {
    const offset = first?.offset ?? 0;
    const cutOff = offset + (first?.length ?? 0) >= text.trimEnd().length;
    const reason = first ? printParseErrorCode(first.error) : 'Empty';
    return {
      ok: false,
      issue: {
        path: '',
        line: lineAt(text, offset),
        message: cutOff ? 'the file ends in the middle: it has been cut off' : `is not JSON here (${reason})`,
      },
    };
  }
  return {
    ok: true,
    plain: getNodeValue(tree) as unknown,
    lineOf: (path) => {
      const node: Node | undefined = findNodeAtLocation(tree, [...path]);
      return node && lineAt(text, node.offset);
    },
  };
}

/** "joints[2].torque.figure" as its parts. */
export function pathParts(path: string): readonly (string | number)[] {
  return path
    .split(/[.[\]]+/u)
    .filter(Boolean)
    .map((part) => (/^\d+$/u.test(part) ? Number(part) : part));
}

/** A missing field has no place of its own: its nearest parent has. */
function lineIn(lineOf: Locate, path: string): number {
  const parts = pathParts(path);
  for (let length = parts.length; length > 0; length -= 1) {
    const line = lineOf(parts.slice(0, length));
    if (line !== undefined) return line;
  }
  return 1;
}

export function lineAt(text: string, offset: number): number {
  let line = 1;
  for (let at = text.indexOf('\n'); at >= 0 && at < offset; at = text.indexOf('\n', at + 1)) line += 1;
  return line;
}
