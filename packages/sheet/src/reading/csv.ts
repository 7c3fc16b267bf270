import type { SheetFile } from '../model/file.js';
import { LIST_NAMES, type SheetList } from '../model/lists.js';
import { readCell, writeCell, type PlainLine } from '../lines/cells.js';
import { COLUMNS, type Column } from '../lines/columns.js';
import type { LocatedIssue } from './plain.js';
import { LONGEST_FILE } from './read.js';
import Papa from 'papaparse';

/** Lists that go out and come in as a table of their own. */
export const CSV_LISTS = ['parts', 'joints', 'limits'] as const satisfies readonly SheetList[];
export type CsvList = (typeof CSV_LISTS)[number];

/** A cell that a spreadsheet would run as a formula, with the marks that were put before it. */
const FORMULA = /^'*[=+\-@\t\r]/u;
const MOST_ISSUES = 50;

/** A list as CSV (RFC 4180) with a heading. A cell that could be a formula is marked as text. */
export function writeCsv(sheet: SheetFile, list: SheetList): string {
  const columns = COLUMNS[list];
  const lines = (sheet[list] ?? []) as readonly object[];
  const rows = lines.map((line) => columns.map((column) => guarded(readCell(line as PlainLine, column))));
  return Papa.unparse({ fields: columns.map(heading), data: rows }, { newline: '\r\n' });
}

/** A table with its head as CSV; a cell that could be a formula is marked as text. */
export function tableCsv([head = [], ...rows]: readonly (readonly string[])[]): string {
  return Papa.unparse({ fields: [...head], data: rows.map((row) => row.map(guarded)) }, { newline: '\r\n' });
}

function heading({ path }: Column): string {
  return path;
}

function guarded(cell: string): string {
  return FORMULA.test(cell) ? `'${cell}` : cell;
}

function unguarded(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;
}

export type CsvRead =
  { readonly ok: true; readonly lines: readonly PlainLine[] } | { readonly ok: false; readonly issues: readonly LocatedIssue[] };

/** A table as a spreadsheet writes or copies it: commas, semicolons or tabs; its head, and rows of as many cells. Empty lines are none. */
export function readTable(text: string): { readonly head: readonly string[]; readonly rows: readonly (readonly string[])[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/u, ''), { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t'] });
  const [head = [], ...rows] = data;
  return {
    head: head.map((cell) => cell.trim()),
    rows: rows.map((cells) => head.map((_, at) => unguarded(cells[at] ?? '').trim())),
  };
}

/**
 * Lines of a list from CSV: commas, semicolons or tabs, decimal comma or point, as a spreadsheet
 * writes them. What a line has beyond the columns stays as it was in `before`, by its ref. The
 * shape of a cell is checked here; the sheet as a whole is checked by whoever takes the lines in.
 */
export function readCsv(text: string, list: SheetList, before: readonly object[]): CsvRead {
  if (text.length > LONGEST_FILE)
    return { ok: false, issues: [{ path: list, line: 1, message: `has ${text.length} letters; at most ${LONGEST_FILE} are read` }] };
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/u, ''), { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t'] });
  const issues: LocatedIssue[] = parsed.errors
    .filter(({ code }) => code !== 'UndetectableDelimiter')
    .map(({ row, message }) => ({ path: list, line: (row ?? 0) + 1, message }));
  const [head = [], ...rows] = parsed.data;
  const columns = head.map((cell) => columnNamed(list, cell));
  head.forEach((cell, index) => {
    if (!columns[index])
      issues.push({
        path: list,
        line: 1,
        given: cell,
        message: `is not a column of ${LIST_NAMES[list].toLowerCase()}; the columns are: ${COLUMNS[list].map(heading).join(', ')}`,
      });
  });
  if (!columns.some((column) => column?.path === 'ref'))
    issues.push({ path: list, line: 1, message: 'has no column "ref", by which a line is known' });
  if (issues.length > 0) return { ok: false, issues: issues.slice(0, MOST_ISSUES) };
  const known = new Map(before.map((line) => [(line as { ref?: string }).ref, line as PlainLine]));
  const refAt = columns.findIndex((column) => column?.path === 'ref');
  const lines = rows.map((cells, row) => {
    let line: PlainLine = known.get(unguarded(cells[refAt] ?? '').trim()) ?? {};
    for (const [index, cell] of cells.entries()) {
      const column = columns[index];
      if (!column) continue;
      const written = writeCell(line, column, unguarded(cell));
      if (written.ok) line = written.line;
      else issues.push({ path: `${list}[${row}].${column.path}`, given: cell, line: row + 2, message: written.message });
    }
    return line;
  });
  return issues.length > 0 ? { ok: false, issues: issues.slice(0, MOST_ISSUES) } : { ok: true, lines };
}

/** A heading is the path of a column, or its label where only one column has it. */
export function columnNamed(list: SheetList, name: string): Column | undefined {
  const wanted = name.trim().toLowerCase();
  const columns = COLUMNS[list];
  const byLabel = columns.filter(({ label }) => label.toLowerCase() === wanted);
  return columns.find(({ path }) => path.toLowerCase() === wanted) ?? (byLabel.length === 1 ? byLabel[0] : undefined);
}
