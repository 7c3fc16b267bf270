import type { SheetFile } from '../../model/file.js';
import { rowsOf, type SheetList } from '../../model/lists.js';

/** How much a finding weighs: a sheet with a stop is not approved; care wants a look; a note is only said. */
export type Severity = 'stop' | 'care' | 'note';

export interface Finding {
  readonly severity: Severity;
  readonly list: SheetList | 'sheet';
  /** Line that it is about; empty for the sheet itself. */
  readonly ref: string;
  /** Path within the sheet, to jump to. */
  readonly path: string;
  readonly say: string;
  /** What would mend it. */
  readonly mend: string;
}

export type Rule = (sheet: SheetFile) => Iterable<Finding>;

export function finding(
  severity: Severity,
  list: SheetList,
  sheet: SheetFile,
  ref: string,
  field: string,
  say: string,
  mend: string,
): Finding {
  const index = (rowsOf(sheet, list) as readonly { ref: string }[]).findIndex((line) => line.ref === ref);
  return { severity, list, ref, path: `${list}[${index}]${field === '' ? '' : `.${field}`}`, say, mend };
}

export function ofSheet(severity: Severity, path: string, say: string, mend: string): Finding {
  return { severity, list: 'sheet', ref: '', path, say, mend };
}

export function nameIn(sheet: SheetFile, list: SheetList, ref: string): string {
  const line = (rowsOf(sheet, list) as readonly { ref: string; name?: string }[]).find((candidate) => candidate.ref === ref);
  return line?.name ?? ref;
}
