import { refOf, lineName, type SheetList, type Stage } from '@jubb/sheet';
import { COLUMNS, newLine, readCell, writeCell, type Column, type PlainLine } from '@jubb/sheet/editing';
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type ReactElement } from 'react';
import { DataSheetGrid, type CellProps, type Column as GridColumn, type DataSheetGridRef } from 'react-datasheet-grid';
import Button from 'react-bootstrap/Button';
import 'react-datasheet-grid/dist/style.css';
import { Care } from '../kit/pieces.tsx';

/** A line as the grid holds it: its cells as text, and the line they were read from. */
interface Row {
  readonly line: PlainLine;
  readonly cells: Readonly<Record<string, string>>;
  /** What was typed into a cell and cannot be read, by its path. */
  readonly wrong: Readonly<Record<string, string>>;
}

interface LineGridProps {
  readonly list: SheetList;
  readonly lines: readonly PlainLine[];
  readonly height: number;
  readonly onChange: (lines: readonly PlainLine[]) => void;
  readonly onActive: (ref: string | undefined) => void;
  /** A cell to go to, each time it is another object. */
  readonly at?: GridPlace | undefined;
}

export interface GridPlace {
  readonly ref: string;
  /** Path of the field within the line. */
  readonly path: string;
}

const LETTER_PX = 8.5;
const ROW_HIGH = 40;

/** Rows by their line, so that a line that did not change is the same row. */
const known = new WeakMap<PlainLine, Map<SheetList, Row>>();

function rowOf(line: PlainLine, list: SheetList): Row {
  const lists = known.get(line) ?? new Map<SheetList, Row>();
  known.set(line, lists);
  const found = lists.get(list);
  if (found) return found;
  const row = { line, cells: Object.fromEntries(COLUMNS[list].map((column) => [column.path, readCell(line, column)])), wrong: {} };
  lists.set(list, row);
  return row;
}

/** A list of the sheet as a table: keys, copy and paste as in a spreadsheet. What cannot be read stays as typed, and says why. */
export function LineGrid({ list, lines, height, onChange, onActive, at }: LineGridProps): ReactElement {
  // Rows with a cell that cannot be read live here only: the sheet never holds them.
  const [wrongRows, setWrongRows] = useState<ReadonlyMap<PlainLine, Row>>(new Map());
  const [hint, setHint] = useState<Column>();
  const grid = useRef<DataSheetGridRef>(null);
  const below = useRef<HTMLDivElement>(null);
  // Tab goes from cell to cell; Escape is the way out of the table.
  const leave = (event: KeyboardEvent): void => {
    if (event.key !== 'Escape' || !hint || below.current?.querySelector('input:focus:not([data-idle])')) return;
    grid.current?.setActiveCell(null);
    below.current?.querySelector<HTMLElement>('.dsg-add-row button')?.focus();
  };
  const latest = useRef(leave);
  useLayoutEffect(() => {
    latest.current = leave;
  });
  useLayoutEffect(() => {
    // What can be scrolled can be reached by Tab.
    const box = below.current?.querySelector('.dsg-container');
    box?.setAttribute('tabindex', '0');
    box?.setAttribute('role', 'group');
    box?.setAttribute('aria-label', 'Table');
    const onKey = (event: KeyboardEvent): void => latest.current(event);
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  const there = useRef(lines);
  useLayoutEffect(() => {
    there.current = lines;
  });
  useEffect(() => {
    if (!at) return;
    const row = there.current.findIndex((line) => line['ref'] === at.ref);
    const col = COLUMNS[list].findIndex(({ path }) => path === at.path || path.startsWith(`${at.path}.`));
    if (row >= 0) grid.current?.setActiveCell({ row, col: Math.max(0, col) });
  }, [at, list]);
  const rows = useMemo(() => lines.map((line) => wrongRows.get(line) ?? rowOf(line, list)), [lines, wrongRows, list]);
  const columns = useMemo(() => COLUMNS[list].map((column) => gridColumn(column)), [list]);
  const take = (next: Row[]): void => {
    const wrong = new Map<PlainLine, Row>();
    const refs = new Set<string>();
    const taken = next.map((row) => {
      const read = row === rowOf(row.line, list) ? row : reread(row, list);
      const line = withRef(namedNow(row.line, read.line, list), list, refs);
      if (Object.keys(read.wrong).length > 0) wrong.set(line, { ...read, line });
      return line;
    });
    setWrongRows(wrong);
    onChange(taken);
    // One that is called otherwise now stays the one in hand.
    const renamed = taken.find(({ ref }, index) => next[index]?.line['ref'] !== undefined && next[index].line['ref'] !== ref);
    if (renamed) onActive(renamed['ref'] as string);
  };
  const problems = [...wrongRows.values()].flatMap(({ line, wrong }) =>
    Object.values(wrong).map((message) => `${String(line['ref'])}: ${message}`),
  );
  return (
    <div ref={below}>
      <DataSheetGrid<Row>
        ref={grid}
        value={rows}
        columns={columns}
        height={height}
        rowHeight={ROW_HIGH}
        headerRowHeight={ROW_HIGH}
        createRow={() => ({ ...rowOf({ ...newLine(list, lines.at(-1)?.['stage'] as Stage | undefined) }, list) })}
        gutterColumn={GUTTER}
        stickyRightColumn={REMOVE}
        duplicateRow={({ rowData }) => ({ line: rowData.line, cells: { ...rowData.cells, ref: '' }, wrong: {} })}
        onChange={take}
        onActiveCellChange={({ cell }) => {
          setHint(cell ? COLUMNS[list][cell.col] : undefined);
          // The grid may still hold the lines of before: a line may have been named since.
          onActive(cell ? (there.current[cell.row]?.['ref'] as string | undefined) : undefined);
        }}
        addRowsComponent={AddRow}
      />
      <p className="soft grid-hint" aria-live="polite">
        {hint
          ? hintWords(hint)
          : 'Arrows move, Enter or a letter writes, Ctrl-C and Ctrl-V copy and paste with a spreadsheet, Esc leaves the table.'}
      </p>
      {problems.length > 0 ? (
        <Care title="Not read" role="alert">
          {problems.slice(0, 6).map((problem) => (
            <div key={problem}>{problem}</div>
          ))}
          {problems.length > 6 ? <div>and {problems.length - 6} more</div> : null}
        </Care>
      ) : null}
    </div>
  );
}

/** The line and what it is called stay in sight, however far the table is moved. */
const GUTTER = {
  basis: 190,
  minWidth: 190,
  component: ({ rowData, rowIndex }: CellProps<Row, unknown>): ReactElement => (
    <span className="grid-name" title={lineName(rowData.line)}>
      <span className="fig">{rowIndex + 1}</span> {lineName(rowData.line)}
    </span>
  ),
};

const REMOVE = {
  basis: 84,
  minWidth: 84,
  component: ({ rowData, rowIndex, deleteRow }: CellProps<Row, unknown>): ReactElement => (
    <Button
      variant="quiet"
      className="grid-remove"
      aria-label={`Remove line ${rowIndex + 1}, ${lineName(rowData.line)}`}
      onClick={deleteRow}
    >
      Remove
    </Button>
  ),
};

function hintWords({ label, kind, choices }: Column): string {
  switch (kind) {
    case 'choice':
      return `${label}: ${(choices ?? []).join(', ')}`;
    case 'yes-no':
      return `${label}: yes or no`;
    case 'numbers':
      return `${label}: numbers parted by semicolons`;
    case 'refs':
      return `${label}: refs parted by semicolons`;
    case 'lines':
      return `${label}: lines parted by " / "`;
    case 'stages':
      return `${label}: 15 N·m; angle 70°; flush until level with the face`;
    default:
      return label;
  }
}

/** The line that a row's cells say. A cell that cannot be read leaves the line as it was there. */
function reread(row: Row, list: SheetList): Row {
  const before = rowOf(row.line, list).cells;
  let { line } = row;
  const wrong: Record<string, string> = {};
  for (const column of COLUMNS[list]) {
    const typed = row.cells[column.path] ?? '';
    if (typed === before[column.path]) continue;
    const written = writeCell(line, column, typed);
    if (written.ok) ({ line } = written);
    else wrong[column.path] = written.message;
  }
  return { line, cells: row.cells, wrong };
}

/** A line that was begun without a name had to be called something: now that it has one it is called by that. */
function namedNow(before: PlainLine, line: PlainLine, list: SheetList): PlainLine {
  const wasCalled = new RegExp(`^${stem(list)}(?:-\\d+)?$`, 'u').test(String(before['ref']));
  const isNamed = (one: PlainLine): boolean => Boolean(one['name'] ?? one['title']);
  return wasCalled && line['ref'] === before['ref'] && !isNamed(before) && isNamed(line) ? { ...line, ref: '' } : line;
}

function stem(list: SheetList): string {
  return list.replace(/s$/u, '').toLowerCase();
}

/** Every line has a ref of its own: one that is missing or used twice gets the next free one. */
function withRef(line: PlainLine, list: SheetList, used: Set<string>): PlainLine {
  const given = typeof line['ref'] === 'string' ? line['ref'] : '';
  const base = given !== '' ? given : refOf(String(line['name'] ?? line['title'] ?? line['part'] ?? '')) || stem(list);
  let ref = base;
  for (let number = 2; used.has(ref); number += 1) ref = `${base}-${number}`;
  used.add(ref);
  return ref === given ? line : { ref, ...Object.fromEntries(Object.entries(line).filter(([name]) => name !== 'ref')) };
}

function gridColumn(column: Column): Partial<GridColumn<Row, Column, string>> {
  const write = (rowData: Row, text: string): Row => ({ ...rowData, cells: { ...rowData.cells, [column.path]: text } });
  return {
    id: column.path,
    title: column.label,
    columnData: column,
    component: TextCell,
    minWidth: Math.max(column.label.length + 3, column.wide ?? (column.kind === 'whole' || column.kind === 'yes-no' ? 8 : 13)) * LETTER_PX,
    cellClassName: ({ rowData }) => (rowData.wrong[column.path] ? 'cell-wrong' : undefined),
    copyValue: ({ rowData }) => rowData.cells[column.path] ?? '',
    pasteValue: ({ rowData, value }) => write(rowData, String(value).trim()),
    deleteValue: ({ rowData }) => write(rowData, ''),
    isCellEmpty: ({ rowData }) => (rowData.cells[column.path] ?? '') === '',
    keepFocus: false,
  };
}

/** A cell: its text, and in the active one a field that is there before the first letter is typed. */
function TextCell({ rowData, setRowData, columnData, active, focus, stopEditing }: CellProps<Row, Column>): ReactElement {
  const text = rowData.cells[columnData.path] ?? '';
  if (!active) return <span className="cell-text">{text}</span>;
  return (
    <CellField
      label={columnData.label}
      text={text}
      editing={focus}
      onDone={(next) => {
        if (next !== text) setRowData({ ...rowData, cells: { ...rowData.cells, [columnData.path]: next } });
      }}
      onLeave={() => stopEditing({ nextRow: false })}
    />
  );
}

interface CellFieldProps {
  readonly label: string;
  readonly text: string;
  readonly editing: boolean;
  readonly onDone: (text: string) => void;
  readonly onLeave: () => void;
}

function CellField({ label, text, editing, onDone, onLeave }: CellFieldProps): ReactElement {
  const field = useRef<HTMLInputElement>(null);
  // Nothing until something is typed: a letter then takes the place of what stood there.
  const [typed, setTyped] = useState<string>();
  const latest = useRef({ typed, onDone });
  useLayoutEffect(() => {
    latest.current = { typed, onDone };
  });
  // The grid takes the field away when the cell is left: what was typed is taken then.
  useLayoutEffect(() => {
    field.current?.focus({ preventScroll: true });
    return () => {
      const { typed: written, onDone: take } = latest.current;
      if (written !== undefined) take(written);
    };
  }, []);
  useLayoutEffect(() => {
    // The grid may notice the first letter only after it was written: it must not be written over.
    if (editing && latest.current.typed === undefined) field.current?.select();
  }, [editing]);
  const idle = !editing && typed === undefined;
  const forget = (): void => {
    setTyped(undefined);
    latest.current = { ...latest.current, typed: undefined };
  };
  return (
    <>
      {idle ? <span className="cell-text">{text}</span> : null}
      <input
        ref={field}
        className={idle ? 'dsg-input cell-idle' : 'dsg-input'}
        data-idle={idle || undefined}
        aria-label={label}
        value={typed ?? (editing ? text : '')}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (idle) return;
          // Taken here, not when the grid gets to it: an Escape right behind it must not undo it.
          if (event.key === 'Enter' && typed !== undefined) {
            onDone(typed);
            forget();
          }
          if (event.key === 'Escape') {
            forget();
            onLeave();
          }
        }}
      />
    </>
  );
}

function AddRow({ addRows }: { readonly addRows: (count?: number) => void }): ReactElement {
  return (
    <div className="dsg-add-row">
      <Button variant="plain" onClick={() => addRows(1)}>
        One more line
      </Button>
    </div>
  );
}
