import { checkSheet, find, VALUE_LISTS, type SheetFile, type ValueList } from '@jubb/sheet';
import { readSheetFigure, RowsOf } from '@jubb/sheet/given';
import { IsBoolean, IsIn, IsOptional } from 'class-validator';
import { doubtOf, figuresWords, withOneFound } from '../found.js';
import { defineKind, type Kind, type Wrong } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { WRITERS } from './roles.js';

export class FoundFigure {
  /** Path within the line: "torque.figure". */
  @Words(60) field: string;
  @Words(60) figure: string;
}

/** The right figures of such a value, found while the job goes on: for this job at once, for the sheet a proposal. */
export class ValueFoundPayload {
  @IsIn(VALUE_LISTS) list: ValueList;
  @Ref() line: string;
  @RowsOf(() => FoundFigure, 4, 1, 'needs at least one figure')
  figures: FoundFigure[];
  /** Where it stands, or who says so. */
  @Words(200) source: string;
  /** Worked out here, and nobody's word. */
  @IsOptional() @IsBoolean() calculated?: boolean;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'value-found': ValueFoundPayload;
  }
}

export const valueFound: Kind<'value-found'> = defineKind({
  id: 'value-found',
  version: 1,
  payload: ValueFoundPayload,
  who: WRITERS,
  check: ({ payload }, sheet) => foundWrong(payload, sheet),
  changes: ['sheet'],
  proposes: true,
  words({ payload: { list, line, figures, source } }, sheet) {
    const held = find<{ readonly ref: string }>(sheet[list], line);
    return `Found: ${doubtOf(sheet, list, line)?.name ?? line}, ${figuresWords(list, { ...held }, figures)} (${source})`;
  },
  report: [{ section: 'no-number' }],
});

/** A figure found on a job is for a line that nobody stands for yet, and the sheet must hold together with it. */
function foundWrong(found: ValueFoundPayload, sheet: SheetFile): readonly Wrong[] {
  const doubt = doubtOf(sheet, found.list, found.line);
  if (!doubt) {
    const allowed = 'has its figures from a named source, or is not on the sheet; propose another by "next time"';
    return [{ field: 'payload.line', allowed, given: found.line }];
  }
  const fields = doubt.figures.map(({ field }) => field);
  const unknown = found.figures.find(({ field }) => !fields.includes(field));
  if (unknown)
    return [{ field: 'payload.figures', allowed: `is no figure of this line; it has: ${fields.join(', ')}`, given: unknown.field }];
  const figures = found.figures.flatMap(({ field, figure }): Wrong[] => {
    const { quantity } = doubt.figures.find((one) => one.field === field)!;
    // The end of a window may be nothing.
    const read = readSheetFigure(figure, quantity, /\.(?:from|to)$/u.test(field));
    return read.ok ? [] : [{ field: 'payload.figures', allowed: read.message, given: figure }];
  });
  const before = new Set(checkSheet(sheet).map(({ path, message }) => `${path} ${message}`));
  const [issue] = checkSheet(withOneFound(sheet, found)).filter(({ path, message }) => !before.has(`${path} ${message}`));
  if (figures.length > 0 || !issue) return figures;
  return [{ field: 'payload.figures', allowed: issue.message, ...(issue.given === undefined ? {} : { given: issue.given }) }];
}
