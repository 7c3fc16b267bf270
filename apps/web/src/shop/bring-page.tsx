import {
  ENDPOINTS,
  LIST_COLUMNS,
  LISTS,
  MOST_ROWS,
  columnsOf,
  type BroughtRow,
  type Cells,
  type ListColumn,
  type ListName,
} from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { download } from '../kit/download.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useSend } from '../kit/use-send.ts';
import { ask } from '../link/client.ts';
import { refresh, useSession } from '../link/queries.ts';
import { ShopPlaces } from './shop-places.tsx';

const LIST_WORDS: Readonly<Record<ListName, string>> = {
  people: 'people who work here',
  benches: 'benches and machines',
  customers: 'customers and their machines',
  tools: 'tools of the crib',
  stores: 'lines of the stores',
  prices: 'prices of suppliers',
};
/** Where the page keeps what it knows of them. */
const KEPT_AS: Readonly<Record<ListName, string>> = {
  people: 'people',
  benches: 'benches',
  customers: 'customers',
  tools: 'tools',
  stores: 'stores',
  prices: 'stores',
};
const ACT_WORDS: Readonly<Record<BroughtRow['act'], string>> = { made: 'new', changed: 'changes', same: 'as it is', refused: 'not taken' };
const DONE_WORDS: Readonly<Record<BroughtRow['act'], string>> = {
  made: 'new',
  changed: 'changed',
  same: 'as it was',
  refused: 'not taken',
};
const ACT_CLASS: Readonly<Record<BroughtRow['act'], string>> = { made: 'v-in', changed: 'v-unsure', same: 'soft', refused: 'v-out' };

/** A list of the shop out of a spreadsheet: pasted or as a file, looked at row by row before anything is taken. */
export function BringPage(): ReactElement {
  const { data: session } = useSession();
  const [search, setSearch] = useSearchParams();
  const list = LISTS.find((one) => one === search.get('list')) ?? 'people';
  return (
    <>
      <Title sub="Out of a spreadsheet, pasted or as a CSV file. Nothing is taken before you have seen what becomes of each row.">
        Bring in a list
      </Title>
      <ShopPlaces />
      {session?.person.role === 'foreman' ? (
        <Bring key={list} list={list} onList={(next) => setSearch({ list: next })} />
      ) : (
        <p>The foreman sees to it.</p>
      )}
    </>
  );
}

function Bring({ list, onList }: { readonly list: ListName; readonly onList: (list: ListName) => void }): ReactElement {
  const [text, setText] = useTable(list);
  const [isSeen, setSeen] = useState(false);
  const [done, setDone] = useState<readonly BroughtRow[]>();
  const { busy, error, send } = useSend();
  const { data: table } = useRead(text);
  const columns: readonly ListColumn[] = LIST_COLUMNS[list];
  const matched = table && columnsOf(list, table.head);
  const rows = table && matched ? cellsOf(table.rows, matched.names) : [];
  const isFit = matched !== undefined && matched.missing.length === 0 && rows.length > 0 && rows.length <= MOST_ROWS;
  const seen = useQuery({
    queryKey: ['bring', list, text],
    enabled: isSeen && isFit && done === undefined,
    staleTime: 0,
    gcTime: 0,
    retry: false,
    queryFn: () => ask(ENDPOINTS.shop.bring, { body: { list, rows: [...rows], preview: true } }),
  });
  const change = (next: string): void => {
    setText(next);
    setSeen(false);
    setDone(undefined);
  };
  const take = (): void =>
    void send(async () => {
      const brought = await ask(ENDPOINTS.shop.bring, { body: { list, rows: [...rows], preview: false } });
      setDone(brought.rows);
      await refresh({ queryKey: [KEPT_AS[list]] });
      // What was refused stays to be mended; the rest is in.
      const left = brought.rows.flatMap(({ act }, at) => (act === 'refused' ? [at] : []));
      if (left.length === 0) setText(undefined);
    });
  const shown = done ?? seen.data?.rows;
  return (
    <>
      <div className="two">
        <div>
          <FormLabel htmlFor="bring-list">What is it a list of</FormLabel>
          <FormSelect id="bring-list" value={list} onChange={(event) => onList(event.target.value as ListName)}>
            {LISTS.map((one) => (
              <option key={one} value={one}>
                {LIST_WORDS[one]}
              </option>
            ))}
          </FormSelect>
          <FormLabel htmlFor="bring-text" className="mt-3">
            The table, with its headings
          </FormLabel>
          <FormControl
            id="bring-text"
            as="textarea"
            rows={8}
            className="fig"
            spellCheck={false}
            placeholder="Copied out of a spreadsheet"
            value={text}
            onChange={(event) => change(event.target.value)}
          />
          <FormLabel htmlFor="bring-file" className="mt-2">
            or a CSV file
          </FormLabel>
          <FormControl
            id="bring-file"
            type="file"
            accept=".csv,text/csv,text/plain"
            onChange={(event) => {
              const file = (event.target as HTMLInputElement).files?.[0];
              if (file) void file.text().then(change);
            }}
          />
        </div>
        <div>
          <h2>Its columns</h2>
          <p className="soft">In any order; decimal comma or point. What a row leaves empty stays as it is.</p>
          <dl className="facts">
            {columns.map(({ name, label, needed, example }) => (
              <div key={name} style={{ display: 'contents' }}>
                <dt>
                  {label} {needed ? <span className="brass">needed</span> : null}
                </dt>
                <dd className="fig">{example}</dd>
              </div>
            ))}
          </dl>
          <Button variant="plain" className="mt-3" onClick={() => void emptyTable(list)}>
            An empty table to fill in
          </Button>
        </div>
      </div>
      {table && matched ? <Matched unknown={matched.unknown} missing={matched.missing} rows={rows.length} /> : null}
      <p className="keys mt-3">
        {shown === undefined ? (
          <Button variant="primary" disabled={!isFit} onClick={() => setSeen(true)}>
            See what becomes of {rows.length === 1 ? 'the row' : `${rows.length} rows`}
          </Button>
        ) : done === undefined ? (
          <Button variant="primary" disabled={busy || counted(shown, 'made') + counted(shown, 'changed') === 0} onClick={take}>
            Take {counted(shown, 'made')} new and {counted(shown, 'changed')} changed
          </Button>
        ) : null}
      </p>
      {isSeen && seen.isLoading ? <Loading what="what becomes of each row" /> : null}
      <Wrong error={error ?? seen.error} />
      {shown ? <Outcome rows={shown} isDone={done !== undefined} columns={columns} /> : null}
    </>
  );
}

/** What is typed is remembered, but for a list with passwords in it: those stay on no tablet. */
function useTable(list: ListName): readonly [string, (next: string | undefined) => void] {
  const [kept, keep] = useDraft(`bring.${list}`, '');
  const [typed, type] = useState('');
  return list === 'people' ? [typed, (next = '') => type(next)] : [kept, keep];
}

/** The reader of tables comes when there is one. */
function useRead(text: string): { readonly data: { head: readonly string[]; rows: readonly (readonly string[])[] } | undefined } {
  return useQuery({
    queryKey: ['bring-table', text],
    enabled: text.trim() !== '',
    gcTime: 0,
    queryFn: async () => (await import('@jubb/sheet/editing')).readTable(text),
  });
}

function cellsOf(rows: readonly (readonly string[])[], names: readonly (string | undefined)[]): readonly Cells[] {
  return rows.map((cells) =>
    Object.fromEntries(names.flatMap((name, at) => (name === undefined || !cells[at] ? [] : [[name, cells[at]] as const]))),
  );
}

async function emptyTable(list: ListName): Promise<void> {
  const { tableCsv } = await import('@jubb/sheet/editing');
  const columns: readonly ListColumn[] = LIST_COLUMNS[list];
  download(`${list}.csv`, tableCsv([columns.map(({ label }) => label), columns.map(({ example }) => example)]), 'text/csv');
}

const counted = (rows: readonly BroughtRow[], act: BroughtRow['act']): number => rows.filter((row) => row.act === act).length;

interface MatchedProps {
  readonly unknown: readonly string[];
  readonly missing: readonly string[];
  readonly rows: number;
}

function Matched({ unknown, missing, rows }: MatchedProps): ReactElement | null {
  if (rows > MOST_ROWS)
    return (
      <p className="v-out mt-2 mb-0">
        {rows} rows: at most {MOST_ROWS} at a time. Split the table.
      </p>
    );
  return (
    <>
      {missing.length > 0 ? (
        <p className="v-out mt-2 mb-0">No column is called: {missing.join(', ')}. The first line is its headings.</p>
      ) : null}
      {unknown.length > 0 ? <p className="v-unsure mt-2 mb-0">Not used, for no column is called so: {unknown.join(', ')}.</p> : null}
    </>
  );
}

interface OutcomeProps {
  readonly rows: readonly BroughtRow[];
  readonly isDone: boolean;
  readonly columns: readonly ListColumn[];
}

function Outcome({ rows, isDone, columns }: OutcomeProps): ReactElement {
  const words = isDone ? DONE_WORDS : ACT_WORDS;
  const label = (field: string): string => columns.find(({ name }) => name === field)?.label ?? field;
  const numbered = rows.map((row, at) => ({ ...row, at: at + 1 }));
  const shown: readonly Column<(typeof numbered)[number]>[] = [
    { id: 'at', head: 'Row', cellClass: 'fig', value: ({ at }) => at },
    { id: 'subject', head: 'Which', cellClass: 'fig fs-5', value: ({ subject }) => subject },
    {
      id: 'act',
      head: isDone ? 'Was' : 'Would be',
      value: ({ act }) => words[act],
      cell: ({ act }) => <b className={ACT_CLASS[act]}>{words[act]}</b>,
    },
    {
      id: 'why',
      head: 'Because',
      value: ({ wrongs }) =>
        wrongs.map(({ field, given, allowed }) => `${label(field)}${given === undefined ? '' : ` "${given}"`} ${allowed}`).join('; '),
    },
  ];
  return (
    <section aria-label={isDone ? 'What became of each row' : 'What would become of each row'}>
      <h2>
        {counted(rows, 'made')} new, {counted(rows, 'changed')} {isDone ? 'changed' : 'change'}, {counted(rows, 'same')} {words.same},{' '}
        {counted(rows, 'refused')} not taken
      </h2>
      <DataTable name="brought" columns={shown} rows={numbered} rowKey={({ at }) => String(at)} isBare />
    </section>
  );
}
