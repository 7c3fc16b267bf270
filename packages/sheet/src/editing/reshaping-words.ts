import { COLUMNS } from '../lines/columns.js';
import type { SheetFile } from '../model/file.js';
import { lineName, rowsOf, type Line } from '../model/lists.js';
import type { Change, Reshaping } from '../model/reshaping.js';
import { find } from '../model/resolve.js';
import { withoutSide } from '../model/scope.js';

/** What a variant or a way makes of a sheet, a line each, as it is said at the bench: "Pinion preload: Window to 4 N·m". */
export function reshapingWords(sheet: SheetFile, { brings = [], drops = [], changes = [] }: Reshaping): readonly string[] {
  const named = (ref: string): string => nameOf(find<Line>(sheet.parts, ref) ?? find<Line>(sheet.steps, ref), ref);
  const all = (refs: readonly string[]): string => [...new Set(refs.map(named))].join(', ');
  return [
    ...(brings.length > 0 ? [`With: ${all(brings)}`] : []),
    ...(drops.length > 0 ? [`Without: ${all(drops)}`] : []),
    ...changes.map((change) => changeWords(sheet, change)),
  ];
}

/** Fields that have columns of their own within, and may be changed as a whole. */
const WHOLE: Readonly<Record<string, string>> = { lead: 'What is readied', wait: 'Wait' };

function changeWords(sheet: SheetFile, { list, line: ref, field, is = 'nothing' }: Change): string {
  const line = find<Line>(rowsOf(sheet, list), ref);
  const counted = /^record\.counts\.(?<part>.+)\.count$/u.exec(field)?.groups?.['part'];
  if (counted !== undefined) return `${nameOf(line, ref)}: ${is} × ${nameOf(find<Line>(sheet.parts, withoutSide(counted)), counted)}`;
  const label = COLUMNS[list].find(({ path }) => path === field)?.label ?? WHOLE[field] ?? field;
  return `${nameOf(line, ref)}: ${label} ${is}`;
}

function nameOf(line: Line | undefined, ref: string): string {
  return line ? lineName(line) : ref;
}
