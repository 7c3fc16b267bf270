import { TOOL_KINDS } from '@jubb/sheet';
import { sheetIssues } from '@jubb/sheet/file';
import { expect, test } from '@jest/globals';
import { TOUR_SHEET, TOUR_TOOLS } from './tour-sheet.ts';

test('the sheet of the tour holds together as any other', () => {
  expect(sheetIssues(TOUR_SHEET as unknown as Record<string, unknown>)).toEqual([]);
});

test('its tools are of kinds that a crib knows', () => {
  for (const { kind } of TOUR_TOOLS) expect(TOOL_KINDS).toContain(kind);
});
