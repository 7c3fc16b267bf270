import { refOf, lineName, rowsOf, type SheetFile, type SheetList } from '@jubb/sheet';
import { NESTED, fieldAt, readCell, withField, writeCell, type NestedField, type PlainLine } from '@jubb/sheet/editing';
import { useId, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';

type Columns = NestedField['columns'];

interface LineFieldsProps {
  readonly file: SheetFile;
  readonly list: SheetList;
  readonly line: PlainLine;
  readonly onChange: (line: PlainLine) => void;
}

/** What a line has besides the cells of its table: counts, open ends, weights, looks, dangers, each as a small table. */
export function LineFields({ file, list, line, onChange }: LineFieldsProps): ReactElement {
  const fields = (NESTED[list] ?? []).filter(({ path, when }) => (when?.(line) ?? true) || fieldAt(line, path) !== undefined);
  return (
    <>
      {fields.map((field) => {
        const change = (next: unknown): void => onChange(withField(line, field.path, next));
        return (
          <fieldset key={field.path} className="line-fields">
            <legend>{field.label}</legend>
            {field.kind === 'picks' ? (
              <Picks field={field} held={fieldAt(line, field.path)} onChange={change} />
            ) : field.kind === 'group' ? (
              <Group file={file} columns={field.columns} held={fieldAt(line, field.path)} onChange={change} />
            ) : (
              <Rows file={file} field={field} held={fieldAt(line, field.path)} onChange={change} />
            )}
          </fieldset>
        );
      })}
    </>
  );
}

interface HeldProps {
  readonly held: unknown;
  readonly onChange: (next: unknown) => void;
}

function Picks({ field: { picks = [] }, held: of, onChange }: HeldProps & { readonly field: NestedField }): ReactElement {
  const id = useId();
  const picked = Array.isArray(of) ? (of as readonly string[]) : [];
  return (
    <>
      {picks.map((pick) => (
        <Form.Check
          key={pick}
          inline
          id={`${id}-${pick}`}
          label={pick}
          checked={picked.includes(pick)}
          onChange={({ target }) => {
            const next = picks.filter((one) => (one === pick ? target.checked : picked.includes(one)));
            onChange(next.length > 0 ? next : undefined);
          }}
        />
      ))}
    </>
  );
}

function Group({ file, columns, held: of, onChange }: HeldProps & { readonly file: SheetFile; readonly columns: Columns }): ReactElement {
  const group = isObject(of) ? of : {};
  return (
    <div className="row g-2">
      {columns.map((column) => (
        <div key={column.path} className="col-12 col-md-4">
          <Cell
            file={file}
            line={group}
            column={column}
            shows
            onLine={(next) => onChange(Object.keys(next).length > 0 ? next : undefined)}
          />
        </div>
      ))}
    </div>
  );
}

function Rows({ file, field, held: of, onChange }: HeldProps & { readonly file: SheetFile; readonly field: NestedField }): ReactElement {
  const rows = Array.isArray(of) ? (of as readonly unknown[]).map((row) => (isObject(row) ? row : {})) : [];
  const { columns, label, fresh = {} } = field;
  // A row that was just begun is written into at once.
  const [begun, setBegun] = useState<number>();
  const withRefs = (next: readonly PlainLine[]): void =>
    onChange(
      next.length === 0 ? undefined : columns[0]?.path === 'ref' ? next.map((row, at) => ({ ...row, ref: rowRef(row, at, next) })) : next,
    );
  return (
    <>
      {rows.length > 0 ? (
        <div className="table-wide">
          <Table size="sm" className="mb-1">
            <thead>
              <tr>
                {columns.map((column) => (
                  <th key={column.path} scope="col">
                    {column.label}
                  </th>
                ))}
                <th />
              </tr>
            </thead>
            <tbody>
              {rows.map((row, at) => (
                <tr key={at}>
                  {columns.map((column) => (
                    <td key={column.path}>
                      <Cell
                        file={file}
                        line={row}
                        column={column}
                        row={at + 1}
                        isFirst={at === begun && column === columns[0]}
                        onLine={(next) => withRefs(rows.map((one, index) => (index === at ? next : one)))}
                      />
                    </td>
                  ))}
                  <td>
                    <Button
                      variant="quiet"
                      aria-label={`${label}: remove row ${at + 1}`}
                      onClick={() => withRefs(rows.filter((_, index) => index !== at))}
                    >
                      Remove
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </div>
      ) : null}
      <Button
        variant="plain"
        aria-label={`${label}: one more`}
        onClick={() => {
          setBegun(rows.length);
          withRefs([...rows, fresh]);
        }}
      >
        One more
      </Button>
    </>
  );
}

interface CellProps {
  readonly file: SheetFile;
  readonly line: PlainLine;
  readonly column: Columns[number];
  readonly row?: number;
  /** Its heading stands with it. */
  readonly shows?: boolean;
  /** The cursor goes there when it appears. */
  readonly isFirst?: boolean;
  readonly onLine: (line: PlainLine) => void;
}

/** One field: words as typed are taken when it is left; a pick at once. */
function Cell({ file, line, column, row, shows = false, isFirst = false, onLine }: CellProps): ReactElement {
  const id = useId();
  const text = readCell(line, column);
  const [typed, setTyped] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const label = row === undefined ? column.label : `${column.label}, row ${row}`;
  const take = (next: string): void => {
    const written = writeCell(line, column, next);
    setProblem(written.ok ? undefined : written.message);
    if (!written.ok) return;
    setTyped(undefined);
    if (next !== text) onLine(written.line);
  };
  const lines = column.from ? (rowsOf(file, column.from) as readonly { readonly ref: string }[]) : undefined;
  const options: readonly (readonly [string, string])[] | undefined =
    lines?.map((one) => [one.ref, lineName(one)] as const) ??
    column.choices?.map((one) => [one, one] as const) ??
    (column.kind === 'yes-no'
      ? [
          ['yes', 'yes'],
          ['no', 'no'],
        ]
      : undefined);
  const isLost = options !== undefined && text !== '' && !options.some(([value]) => value === text);
  return (
    <>
      {shows ? <Form.Label htmlFor={id}>{column.label}</Form.Label> : null}
      {options ? (
        <Form.Select
          autoFocus={isFirst}
          id={id}
          aria-label={shows ? undefined : label}
          value={text}
          isInvalid={isLost}
          onChange={({ target }) => take(target.value)}
        >
          <option value="" />
          {isLost ? <option value={text}>{text} (not on this sheet)</option> : null}
          {options.map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </Form.Select>
      ) : (
        <Form.Control
          autoFocus={isFirst}
          id={id}
          aria-label={shows ? undefined : label}
          autoComplete="off"
          value={typed ?? text}
          isInvalid={problem !== undefined}
          onChange={({ target }) => setTyped(target.value)}
          onBlur={() => {
            if (typed !== undefined) take(typed);
          }}
        />
      )}
      {problem ? <div className="v-out">{problem}</div> : null}
    </>
  );
}

/** A row that is pointed at has a short name of its own. */
function rowRef(row: PlainLine, at: number, rows: readonly PlainLine[]): string {
  const given = row['ref'];
  if (typeof given === 'string' && given !== '') return given;
  const base = refOf(String(row['name'] ?? row['words'] ?? 'row'), 30);
  return rows.some((other) => other['ref'] === base) || base === '' ? `${base || 'row'}-${at + 1}` : base;
}

function isObject(of: unknown): of is PlainLine {
  return typeof of === 'object' && of !== null && !Array.isArray(of);
}
