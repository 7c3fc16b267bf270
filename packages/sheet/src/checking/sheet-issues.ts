import { validated, type FieldIssue } from '../given/validation.js';
import { SHEET_FORMAT, SheetFile } from '../model/file.js';
import { checkSheet } from './check.js';
import { reshapeIssues } from './reshape-issues.js';

/** What is wrong with a sheet as a plain object: format, then shape, then what the shape cannot say. */
export function sheetIssues(plain: Readonly<Record<string, unknown>>): readonly FieldIssue[] {
  return checkedSheet(plain).issues;
}

/** The sheet, or what is wrong with it; its shape is gone through once. */
export function checkedSheet(plain: Readonly<Record<string, unknown>>): {
  readonly issues: readonly FieldIssue[];
  readonly sheet?: SheetFile;
} {
  const format = checkFormat(plain['format']);
  if (format) return { issues: [format] };
  const nothing = nothingAt(plain);
  if (nothing !== undefined) return { issues: [{ path: nothing, message: 'is nothing: say it, or leave it out' }] };
  const { body: sheet, issues: shape } = validated(SheetFile, plain);
  const sound = shape.length > 0 ? shape : checkSheet(sheet);
  const issues = sound.length > 0 ? sound : reshapeIssues(sheet);
  return issues.length > 0 ? { issues } : { issues, sheet };
}

/** Path of the first field that is there and says nothing; a field that is left out is another matter. */
function nothingAt(plain: unknown, at = ''): string | undefined {
  if (plain === null) return at;
  if (typeof plain !== 'object') return undefined;
  for (const [name, held] of Object.entries(plain as object)) {
    const path = Array.isArray(plain) ? `${at}[${name}]` : at === '' ? name : `${at}.${name}`;
    const found = nothingAt(held, path);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** What is wrong with the format that a file names. */
export function checkFormat(format: unknown): FieldIssue | undefined {
  if (format === SHEET_FORMAT) return undefined;
  const given = typeof format === 'string' ? format : String(JSON.stringify(format) ?? 'nothing');
  const version = /^jubb-sheet\/(\d+)$/u.exec(given)?.[1];
  const mine = Number(SHEET_FORMAT.split('/')[1]);
  if (version === undefined) return { path: 'format', given, message: `is not a sheet format; "${SHEET_FORMAT}" is due` };
  return Number(version) < mine
    ? { path: 'format', given, message: `is an older format than "${SHEET_FORMAT}"; export the sheet again from the shop it came from` }
    : { path: 'format', given, message: `is newer than "${SHEET_FORMAT}", the newest this Jubb reads; bring Jubb up to date first` };
}
