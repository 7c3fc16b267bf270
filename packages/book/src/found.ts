import {
  type SheetList,
  type JointStage,
  type Limit,
  type Setting,
  type SheetFile,
  type Step,
  amountQuantity,
  find,
  limitQuantity,
  partName,
  pointersOf,
  VALUE_LISTS,
  settingQuantity,
  sourcedIn,
  type ValueList,
} from '@jubb/sheet';
import { readCell, writeCell, type PlainLine, type Column } from '@jubb/sheet/editing';
import type { AnyKeptEntry, PayloadOf } from './entries/kept.js';
import type { Quantity } from '@jubb/core';

/** A figure of a line that can be found on a job. */
export interface DoubtFigure {
  /** Path within the line: "torque.figure", "stages.1.angle.figure". */
  readonly field: string;
  readonly label: string;
  readonly quantity: Quantity;
  /** As it stands; empty where there is none. */
  readonly figure: string;
}

/** A value that a step is about to use, and that nobody stands for yet: only somebody's word, or none at all. */
export interface Doubt {
  readonly list: ValueList;
  readonly line: string;
  readonly name: string;
  readonly figures: readonly DoubtFigure[];
  /** Whose word it is. */
  readonly source: string;
}

function figuresOf(list: ValueList, line: PlainLine): readonly DoubtFigure[] {
  const one = (field: string, label: string, quantity: Quantity): DoubtFigure => ({
    field,
    label,
    quantity,
    figure: readCell(line, asColumn(field, label)),
  });
  switch (list) {
    case 'joints': {
      const rounds = ((line['stages'] ?? []) as readonly JointStage[]).flatMap((stage, index) =>
        (['torque', 'angle'] as const)
          .filter((of) => stage[of])
          .map((of) => one(`stages.${index}.${of}.figure`, `Round ${index + 1}, ${of}`, of)),
      );
      return rounds.length > 0 ? rounds : [one('torque.figure', 'Torque', 'torque')];
    }
    case 'settings': {
      const quantity = settingQuantity(line as unknown as Setting);
      return [one('window.from', 'From', quantity), one('window.to', 'To', quantity)];
    }
    case 'seals':
      return [one('depth.from', 'Depth from', 'length'), one('depth.to', 'Depth to', 'length')];
    case 'limits': {
      const quantity = limitQuantity(line as unknown as Limit);
      return [one('service.from', 'From', quantity), one('service.to', 'To', quantity)];
    }
    case 'fluids':
      return [one('amount.figure', 'Amount', amountQuantity(readCell(line, asColumn('amount.figure'))))];
  }
}

function asColumn(path: string, label = path): Column {
  return { path, label, kind: 'text' };
}

/** The lines with figures that a step works by. */
function valuesAt(step: Step): readonly { readonly list: ValueList; readonly line: string }[] {
  return pointersOf('steps', step)
    .filter(({ field }) => field.startsWith('record.'))
    .flatMap(({ lists, ref }) =>
      lists.flatMap((list) => VALUE_LISTS.filter((one) => one === list).map((one) => ({ list: one, line: ref }))),
    );
}

/** Where a better figure for a step would stand on the sheet: the figure itself where there is but one, else its line. */
export function proposedFor(sheet: SheetFile, step: Step): { readonly list: SheetList; readonly line: string; readonly field?: string } {
  const [value] = valuesAt(step);
  if (!value) return { list: 'steps', line: step.ref };
  const line = find<{ readonly ref: string }>(sheet[value.list], value.line);
  const [figure, ...others] = line ? figuresOf(value.list, { ...line }) : [];
  return figure && others.length === 0 ? { ...value, field: figure.field } : value;
}

/** What nobody stands for at a step, unless somebody on this job took it as it is or found the right one. */
export function doubtAt(sheet: SheetFile, live: readonly AnyKeptEntry[], step: Step): Doubt | undefined {
  for (const { list, line } of valuesAt(step)) {
    const doubt = doubtOf(sheet, list, line);
    if (!doubt) continue;
    const stands = live.some(
      ({ kind, payload }) => (kind === 'value-taken' || kind === 'value-found') && payload.list === list && payload.line === line,
    );
    if (!stands) return doubt;
  }
  return undefined;
}

/** What of a line of the sheet is only somebody's word, or missing where a number is meant to be. */
export function doubtOf(sheet: SheetFile, list: ValueList, ref: string): Doubt | undefined {
  const line = find<{ readonly ref: string; readonly name?: string; readonly part?: string }>(sheet[list], ref);
  if (!line) return undefined;
  const plain = line as unknown as PlainLine;
  const word = sourcedIn(line).find(({ trust }) => trust === 'unverified');
  const isMissing = list === 'joints' && plain['torque'] === undefined && plain['stages'] === undefined;
  if (!word && !isMissing) return undefined;
  return {
    list,
    line: ref,
    name: line.name ?? partName(sheet, line.part ?? ref),
    figures: figuresOf(list, plain),
    source: word?.source ?? '',
  };
}

/** A line with figures written into it, and where they come from beside them; a field it does not have is passed over. */
export function withFigures(
  list: ValueList,
  line: PlainLine,
  figures: PayloadOf<'value-found'>['figures'],
  origin: { readonly trust: 'unverified' | 'shop' | 'calculated'; readonly source: string },
): PlainLine {
  const known = new Set(figuresOf(list, line).map(({ field }) => field));
  const written = figures
    .filter(({ field }) => known.has(field))
    .reduce((at, { field, figure }) => {
      const value = field.slice(0, field.lastIndexOf('.'));
      return [
        [field, figure] as const,
        [`${value}.trust`, origin.trust] as const,
        [`${value}.source`, origin.source] as const,
        // The page was that of the figure before.
        [`${value}.page`, ''] as const,
      ].reduce((to, [path, text]) => put(to, path, text), at);
    }, line);
  return list === 'joints' && line['torque'] !== undefined ? withLastTorque(written) : written;
}

function put(line: PlainLine, path: string, text: string): PlainLine {
  const written = writeCell(line, asColumn(path), text);
  return written.ok ? written.line : line;
}

/** A staged joint has the torque of its last round as its own. */
function withLastTorque(line: PlainLine): PlainLine {
  const last = ((line['stages'] ?? []) as readonly JointStage[]).findLast(({ torque }) => torque)?.torque;
  return last ? { ...line, torque: { ...(line['torque'] as object), ...last } } : line;
}

/** The sheet with a figure that was found on this job, in its place; nothing else of it changes. */
export function withOneFound(sheet: SheetFile, { list, line: ref, figures, source, calculated }: PayloadOf<'value-found'>): SheetFile {
  const lines = sheet[list] as unknown as readonly PlainLine[];
  const origin = calculated
    ? ({ trust: 'calculated', source } as const)
    : ({ trust: 'unverified', source: `found on this job: ${source}` } as const);
  return { ...sheet, [list]: lines.map((line) => (line['ref'] === ref ? withFigures(list, line, figures, origin) : line)) } as SheetFile;
}

/** Figures of a line as they were found, in words: "Torque 12 N·m". */
export function figuresWords(list: ValueList, line: PlainLine, figures: PayloadOf<'value-found'>['figures']): string {
  const known = figuresOf(list, line);
  return figures.map(({ field, figure }) => `${known.find((one) => one.field === field)?.label ?? field} ${figure}`).join(', ');
}
