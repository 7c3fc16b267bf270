import type { AnyKeptEntry } from '../entry/kept.js';
import { isKind } from '../entry/kept.js';
import type { ValueFoundPayload } from '../entry/payloads.js';
import { readCell, writeCell, type PlainLine } from '../sheet/cells.js';
import type { Column } from '../sheet/columns.js';
import type { SheetFile, Step } from '../sheet/file.js';
import { find, partName } from '../sheet/resolve.js';
import { sourcedIn } from '../sheet/sourced.js';
import type { ValueList } from '../words.js';

/** A value that a step is about to use, and that nobody stands for yet: only somebody's word, or none at all. */
export interface Doubt {
  readonly list: ValueList;
  readonly line: string;
  readonly name: string;
  /** The figures as they stand; empty where there are none. */
  readonly figures: readonly { readonly field: string; readonly label: string; readonly figure: string }[];
  /** Whose word it is. */
  readonly source: string;
}

const text = (path: string, label: string): Column => ({ path, label, kind: 'text' });
const STAGES: Column = { path: 'stages', label: 'Stages', kind: 'stages' };

/** The figures of a line, one column each. */
function columnsOf(list: ValueList, line: PlainLine): readonly Column[] {
  switch (list) {
    case 'joints':
      return line['stages'] === undefined ? [text('torque.figure', 'Torque')] : [STAGES];
    case 'settings':
      return [text('window.from', 'From'), text('window.to', 'To')];
    case 'seals':
      return [text('depth.from', 'Depth from'), text('depth.to', 'Depth to')];
    case 'limits':
      return [text('service.from', 'From'), text('service.to', 'To')];
    case 'fluids':
      return [text('amount.figure', 'Amount')];
  }
}

const LIST_OF = { joint: 'joints', setting: 'settings', seal: 'seals', limit: 'limits', fluid: 'fluids' } as const;

/** What nobody stands for at a step, unless somebody on this job took it as it is or found the right one. */
export function doubtAt(sheet: SheetFile, live: readonly AnyKeptEntry[], step: Step): Doubt | undefined {
  for (const [field, list] of Object.entries(LIST_OF) as [keyof typeof LIST_OF, ValueList][]) {
    const ref = step.record[field];
    const doubt = ref === undefined ? undefined : doubtOf(sheet, list, ref);
    if (!doubt) continue;
    const stands = live.some(
      (entry) =>
        (entry.kind === 'value-taken' || entry.kind === 'value-found') && entry.payload.list === list && entry.payload.line === ref,
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
    figures: columnsOf(list, plain).map((column) => ({ field: column.path, label: column.label, figure: readCell(plain, column) })),
    source: word?.source ?? '',
  };
}

/** A line with figures written into it, and where they come from beside them. */
export function withFigures(
  list: ValueList,
  line: PlainLine,
  figures: ValueFoundPayload['figures'],
  origin: { readonly trust: 'unverified' | 'shop'; readonly source: string },
): PlainLine {
  const columns = columnsOf(list, line);
  return figures.reduce((at, { field, figure }) => {
    const column = columns.find(({ path }) => path === field);
    if (!column) return at;
    const written = writeCell(at, column, figure);
    if (!written.ok) return at;
    return column.kind === 'stages' ? stagesFrom(written.line, origin) : valueFrom(written.line, field.split('.')[0] ?? '', origin);
  }, line);
}

type Origin = Parameters<typeof withFigures>[3];

function valueFrom(line: PlainLine, name: string, origin: Origin): PlainLine {
  const { page: _, ...value } = (line[name] ?? {}) as Record<string, unknown>;
  return { ...line, [name]: { ...value, ...origin } };
}

function stagesFrom(line: PlainLine, origin: Origin): PlainLine {
  const stages = (line['stages'] ?? []) as readonly PlainLine[];
  return {
    ...line,
    stages: stages.map((stage) => ['torque', 'angle'].reduce((at, name) => (name in at ? valueFrom(at, name, origin) : at), stage)),
  };
}

/** The sheet with the figures that were found on this job, in their places; nothing else of it changes. */
export function withFound(sheet: SheetFile, live: readonly AnyKeptEntry[]): SheetFile {
  return live.filter(isKind('value-found')).reduce((at, { payload }) => withOneFound(at, payload), sheet);
}

export function withOneFound(sheet: SheetFile, { list, line: ref, figures, source }: ValueFoundPayload): SheetFile {
  const lines = sheet[list] as unknown as readonly PlainLine[];
  const origin = { trust: 'unverified', source: `found on this job: ${source}` } as const;
  return { ...sheet, [list]: lines.map((line) => (line['ref'] === ref ? withFigures(list, line, figures, origin) : line)) } as SheetFile;
}

/** A figure as it was found, in words: "Torque 12 N·m". */
export function figuresWords(list: ValueList, figures: ValueFoundPayload['figures']): string {
  const columns = [...columnsOf(list, {}), STAGES];
  return figures.map(({ field, figure }) => `${columns.find(({ path }) => path === field)?.label ?? field} ${figure}`).join(', ');
}
