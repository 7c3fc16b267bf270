import {
  columnVisibilityFeature,
  createSortedRowModel,
  rowSelectionFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
  type ColumnDef,
  type RowData,
} from '@tanstack/react-table';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Columns3, Download } from 'lucide-react';
import { useCallback, useMemo, useState, type ReactElement, type ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import Table from 'react-bootstrap/Table';
import { download } from './download.ts';
import { Tick } from './tick.tsx';
import { readStored, writeStored } from './prefs.ts';
import './data-table.scss';

/** A column: what it is sorted by and written as, and how it is shown. */
export interface Column<T> {
  readonly id: string;
  readonly head: string;
  readonly value: (row: T) => string | number;
  readonly cell?: (row: T) => ReactNode;
  /** Of its head and its cells; and of its cells alone, such as their figures. */
  readonly className?: string;
  readonly cellClass?: string;
}

interface DataTableProps<T> {
  /** Name of the table: its columns are remembered under it, and its file is called so. */
  readonly name: string;
  readonly columns: readonly Column<T>[];
  readonly rows: readonly T[];
  readonly rowKey: (row: T) => string;
  /** A short list inside something else: sorted, without the keys below it. */
  readonly isBare?: boolean;
}

const features = tableFeatures({
  rowSortingFeature,
  columnVisibilityFeature,
  rowSelectionFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
});

/** So many rows are drawn at once; of more, those that are near the window. */
const ALL_DRAWN = 60;
const ROW_PX = 48;

/** A list of the shop: sorted by its heads, columns as one wants them, what is shown or picked as CSV; long ones are virtual. */
export function DataTable<T extends RowData>({ name, columns, rows, rowKey, isBare = false }: DataTableProps<T>): ReactElement {
  const hiddenKey = `columns.${name}`;
  const [hidden, setHidden] = useState<readonly string[]>(() => JSON.parse(readStored(hiddenKey) ?? '[]') as string[]);
  const [picking, setPicking] = useState(false);
  const defs = useMemo(
    () =>
      columns.map((column): ColumnDef<typeof features, T> => ({
        id: column.id,
        accessorFn: column.value,
        header: column.head,
        sortFn: rows.some((row) => typeof column.value(row) === 'string') ? 'alphanumeric' : 'basic',
        sortDescFirst: false,
      })),
    [columns, rows],
  );
  const visibility = useMemo(() => Object.fromEntries(hidden.map((id) => [id, false])), [hidden]);
  const table = useTable({
    features,
    columns: defs,
    data: rows,
    getRowId: rowKey,
    state: { columnVisibility: visibility },
    onColumnVisibilityChange: () => undefined,
  });
  const sorted = table.getRowModel().rows;
  const picked = sorted.filter((row) => row.getIsSelected());
  const shownColumns = columns.filter(({ id }) => !hidden.includes(id));
  const toggle = (id: string): void => {
    const next = hidden.includes(id) ? hidden.filter((one) => one !== id) : [...hidden, id];
    setHidden(next);
    writeStored(hiddenKey, next.length === 0 ? undefined : JSON.stringify(next));
  };
  const save = async (): Promise<void> => {
    const { tableCsv } = await import('@jubb/sheet/editing');
    const chosen = picked.length > 0 ? picked : sorted;
    const lines = chosen.map(({ original }) => shownColumns.map(({ value }) => String(value(original))));
    download(`${name}.csv`, tableCsv([shownColumns.map(({ head }) => head), ...lines]), 'text/csv');
  };
  // Where the rows begin on the page: what stands above them is not theirs.
  const [top, setTop] = useState(0);
  const measureTop = useCallback((body: HTMLElement | null) => setTop((before) => body?.offsetTop ?? before), []);
  const isLong = sorted.length > ALL_DRAWN;
  const virtual = useWindowVirtualizer({
    count: sorted.length,
    estimateSize: () => ROW_PX,
    getItemKey: (index) => sorted[index]?.id ?? index,
    overscan: 12,
    scrollMargin: top,
    enabled: isLong,
  });
  const items = isLong ? virtual.getVirtualItems() : [];
  const drawn = isLong
    ? items.flatMap(({ index }) => (sorted[index] ? [{ row: sorted[index], index }] : []))
    : sorted.map((row, index) => ({ row, index }));
  const above = isLong ? (items[0]?.start ?? 0) - virtual.options.scrollMargin : 0;
  const below = isLong ? virtual.getTotalSize() - (items.at(-1)?.end ?? 0) + virtual.options.scrollMargin : 0;
  const span = shownColumns.length + (picking ? 1 : 0);
  return (
    <>
      <Table className="data-table" aria-rowcount={sorted.length + 1}>
        <thead>
          <tr>
            {picking ? (
              <th scope="col">
                <span className="visually-hidden">Picked</span>
              </th>
            ) : null}
            {table.getHeaderGroups().flatMap(({ headers }) =>
              headers.map((header) => {
                const order = header.column.getIsSorted();
                const Sign = order === 'desc' ? ArrowDown : ArrowUp;
                return (
                  <th
                    key={header.id}
                    scope="col"
                    aria-sort={order === 'asc' ? 'ascending' : order === 'desc' ? 'descending' : 'none'}
                    className={columns.find(({ id }) => id === header.id)?.className}
                  >
                    <Button variant="head" onClick={header.column.getToggleSortingHandler()}>
                      <table.FlexRender header={header} />
                      {order ? <Sign size={16} aria-hidden="true" /> : null}
                    </Button>
                  </th>
                );
              }),
            )}
          </tr>
        </thead>
        <tbody ref={measureTop}>
          {above > 0 ? <Gap height={above} span={span} /> : null}
          {drawn.map(({ row, index }) => (
            <tr key={row.id} data-index={index} aria-rowindex={index + 2} ref={isLong ? virtual.measureElement : undefined}>
              {picking ? (
                <td className="cell-pick">
                  <Tick checked={row.getIsSelected()} onChange={row.getToggleSelectedHandler()}>
                    <span className="visually-hidden">Pick {String(columns[0]?.value(row.original))}</span>
                  </Tick>
                </td>
              ) : null}
              {/* Drawn here, not by the table: its own cells are made anew with each list, and the focus in them would be lost. */}
              {row.getVisibleCells().map((cell) => {
                const column = columns.find(({ id }) => id === cell.column.id);
                return (
                  <td
                    key={cell.id}
                    data-head={column?.head}
                    className={[column?.className, column?.cellClass].filter(Boolean).join(' ') || undefined}
                  >
                    {column?.cell ? column.cell(row.original) : column?.value(row.original)}
                  </td>
                );
              })}
            </tr>
          ))}
          {below > 0 ? <Gap height={below} span={span} /> : null}
        </tbody>
      </Table>
      {isBare ? null : (
        <div className="table-keys no-print">
          <span className="soft">
            {rows.length} {rows.length === 1 ? 'line' : 'lines'}
            {picking ? `, ${picked.length} picked` : ''}
          </span>
          <Dropdown autoClose="outside" drop="up">
            <Dropdown.Toggle variant="quiet">
              <Columns3 size={18} aria-hidden="true" /> Columns
            </Dropdown.Toggle>
            <Dropdown.Menu>
              {columns.slice(1).map(({ id, head }) => (
                <Tick key={id} className="px-3" checked={!hidden.includes(id)} onChange={() => toggle(id)}>
                  {head}
                </Tick>
              ))}
            </Dropdown.Menu>
          </Dropdown>
          <Button
            variant="quiet"
            aria-pressed={picking}
            onClick={() => {
              if (picking) table.resetRowSelection(true);
              setPicking(!picking);
            }}
          >
            {picking ? 'Pick none' : 'Pick lines'}
          </Button>
          <Button variant="quiet" onClick={() => void save()}>
            <Download size={18} aria-hidden="true" /> CSV of {picked.length > 0 ? 'these' : 'all shown'}
          </Button>
        </div>
      )}
    </>
  );
}

/** Room of the rows that are not drawn. */
function Gap({ height, span }: { readonly height: number; readonly span: number }): ReactElement {
  return (
    <tr aria-hidden="true">
      <td colSpan={span} style={{ height, padding: 0, border: 0 }} />
    </tr>
  );
}
