import { ENDPOINTS, type ImportView, type SheetLine } from '@jubb/wire';
import { useDeferredValue, useMemo, useRef, useState, type ReactElement } from 'react';
import { Link, useNavigate } from 'react-router';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import FormSelect from 'react-bootstrap/FormSelect';
import Button from 'react-bootstrap/Button';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { addressOf, ask } from '../link/client.ts';
import { queryClient, useSession, useSheets } from '../link/queries.ts';
import { useFamilies, useSheetsHolding } from './queries.ts';
import { ThrownAway } from './thrown.tsx';
import { dayWords } from '../kit/days.ts';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { readTextFile } from '../kit/text-file.ts';
import { Completeness } from './completeness.tsx';
import { DifferenceList } from './difference-list.tsx';
import './sheets.scss';

/** Rows drawn at once; the rest come by a key. */
const PAGE = 60;

/** The shop's memory: every sheet, found by make, model, family, part number, thread or words. */
export function Library(): ReactElement {
  const { data: sheets, error } = useSheets();
  const { data: session } = useSession();
  const [find, setFind] = useDraft('sheets.find', '');
  const [family, setFamily] = useDraft('sheets.family', '');
  const [shown, setShown] = useState(PAGE);
  const wanted = useDeferredValue(find);
  const { data: holding = [] } = useSheetsHolding(wanted);
  const lines = useMemo(() => searchable(sheets ?? []), [sheets]);
  const hits = useMemo(() => search(lines, wanted, family), [lines, wanted, family]);
  const inText = useMemo(() => {
    const known = new Set(hits.map(({ revisionId }) => revisionId));
    const found = new Set(wanted.trim().length > 2 ? holding : []);
    return (sheets ?? []).filter(
      ({ revisionId, family: own }) => found.has(revisionId) && !known.has(revisionId) && (family === '' || own === family),
    );
  }, [sheets, hits, holding, wanted, family]);
  const families = useFamilies().filter((one) => sheets?.some((sheet) => sheet.family === one));
  const mayBegin = session?.person.role !== 'apprentice';
  return (
    <>
      <Title sub="All that is known about a model. A job is pinned to the revision it began with.">Sheets</Title>
      <ThrownAway />
      <div className="d-flex flex-wrap gap-3 align-items-end mb-3">
        <div className="find-sheets">
          <FormLabel htmlFor="find-sheet">Make, model, part number, thread, words</FormLabel>
          <FormControl
            id="find-sheet"
            type="search"
            autoComplete="off"
            value={find}
            onChange={(event) => {
              setFind(event.target.value);
              setShown(PAGE);
            }}
          />
        </div>
        <div>
          <FormLabel htmlFor="find-family">Family</FormLabel>
          <FormSelect id="find-family" value={family} onChange={(event) => setFamily(event.target.value)}>
            <option value="">every family</option>
            {families.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </FormSelect>
        </div>
        {mayBegin ? (
          <Link className="btn btn-plain" to="/sheets/new">
            New sheet
          </Link>
        ) : null}
        {mayBegin ? <ImportSheet /> : null}
      </div>
      <Wrong error={error} />
      {!sheets && !error ? <Loading what="the sheets" /> : null}
      {sheets?.length === 0 ? <p>No sheets yet. Begin a new one or bring in a sheet file, and have the foreman approve it.</p> : null}
      {sheets && sheets.length > 0 && hits.length + inText.length === 0 ? (
        <p>
          Nothing here holds “{find}”{family === '' ? '' : ` in ${family}`}. Fewer words find more.
        </p>
      ) : null}
      {hits.length > 0 ? <SheetTable sheets={hits.slice(0, shown)} /> : null}
      {hits.length > shown ? (
        <Button variant="plain" onClick={() => setShown(shown + PAGE)}>
          {hits.length - shown} more
        </Button>
      ) : null}
      {inText.length > 0 ? (
        <>
          <h2 className="mt-4">Found in the steps and cautions</h2>
          <SheetTable sheets={inText} />
        </>
      ) : null}
      <p className="soft mt-3">
        The format of a sheet file is published as <a href={addressOf(ENDPOINTS.sheets.schema)}>JSON Schema</a>; YAML holds the same.
      </p>
    </>
  );
}

type Searchable = SheetLine & { readonly all: string };

function searchable(sheets: readonly SheetLine[]): readonly Searchable[] {
  return sheets.map((sheet) => ({
    ...sheet,
    all: `${sheet.title} ${sheet.make} ${sheet.model} ${sheet.family} ${sheet.machine} ${sheet.key}`.toLowerCase() + ` ${sheet.words}`,
  }));
}

/** Sheets that hold every word, those that begin with the first of them before the rest. */
function search(sheets: readonly Searchable[], find: string, family: string): readonly Searchable[] {
  const words = find.toLowerCase().split(/\s+/u).filter(Boolean);
  const hits = sheets.filter((sheet) => (family === '' || sheet.family === family) && words.every((word) => sheet.all.includes(word)));
  const [first] = words;
  if (first === undefined) return hits;
  return hits.toSorted((a, b) => Number(b.all.startsWith(first)) - Number(a.all.startsWith(first)));
}

const COLUMNS: readonly Column<SheetLine>[] = [
  {
    id: 'title',
    head: 'Sheet',
    value: ({ title }) => title,
    cell: (sheet) => (
      <>
        <Link to={sheet.status === 'draft' ? `/sheets/${sheet.revisionId}/edit` : `/sheets/${sheet.revisionId}`}>{sheet.title}</Link>
        <div className="soft">{sheet.machine}</div>
      </>
    ),
  },
  { id: 'family', head: 'Family', className: 'hide-narrow', value: ({ family }) => family },
  {
    id: 'complete',
    head: 'What it has',
    className: 'hide-narrow',
    value: ({ complete }) => complete.filter(({ have, of }) => have >= of).length,
    cell: ({ complete }) => <Completeness parts={complete} />,
  },
  { id: 'revision', head: 'Revision', cellClass: 'fig fs-5', value: ({ revision }) => revision },
  { id: 'status', head: 'State', value: ({ status }) => status, cell: ({ status }) => <span className="trust">{status}</span> },
];

function SheetTable({ sheets }: { readonly sheets: readonly SheetLine[] }): ReactElement {
  return <DataTable name="sheets" columns={COLUMNS} rows={sheets} rowKey={({ revisionId }) => revisionId} />;
}

/** A file is looked at before it is kept: what it would change stands there first. */
function ImportSheet(): ReactElement {
  const file = useRef<HTMLInputElement>(null);
  const go = useNavigate();
  const [error, setError] = useState<unknown>();
  const [looked, setLooked] = useState<{ readonly text: string; readonly view: ImportView }>();
  const [busy, setBusy] = useState(false);
  const trying = async (work: () => Promise<void>): Promise<void> => {
    setError(undefined);
    setBusy(true);
    try {
      await work();
    } catch (refusal) {
      setError(refusal);
    } finally {
      setBusy(false);
    }
  };
  const look = (): Promise<void> =>
    trying(async () => {
      setLooked(undefined);
      const chosen = file.current?.files?.[0];
      if (!chosen) return;
      try {
        const text = await readTextFile(chosen);
        setLooked({ text, view: await ask(ENDPOINTS.sheets.importFile, { body: { text, look: true } }) });
      } finally {
        if (file.current) file.current.value = '';
      }
    });
  const draftThere = looked?.view.against?.draft;
  const bringIn = (): Promise<void> =>
    trying(async () => {
      if (!looked) return;
      const { revisionId } = await ask(ENDPOINTS.sheets.importFile, {
        body: {
          text: looked.text,
          ...(draftThere ? { over: draftThere.version } : {}),
        },
      });
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      if (revisionId) void go(`/sheets/${revisionId}`);
    });
  return (
    <section className="file-pick">
      <label className="btn btn-plain" htmlFor="sheet-file">
        Bring in a sheet file
      </label>
      <input
        id="sheet-file"
        ref={file}
        className="visually-hidden"
        type="file"
        accept=".json,.yaml,.yml,application/json,application/yaml"
        disabled={busy}
        onChange={() => void look()}
      />
      {busy ? <Loading what="what it changes" /> : null}
      <Wrong error={error} />
      {looked ? (
        <div className="sheet-box">
          <h2>{looked.view.title}</h2>
          <p>
            {looked.view.against
              ? `It becomes the draft of revision ${looked.view.revision}. Against revision ${looked.view.against.revision} (${looked.view.against.status}):`
              : 'It is new here, and becomes a draft.'}
          </p>
          {draftThere ? (
            <Care title="A draft is under work">
              {draftThere.editedBy} changed it last, {dayWords(draftThere.editedAt)}. The file takes its place, with what is listed here.
            </Care>
          ) : null}
          {looked.view.against ? <DifferenceList differences={looked.view.differences} /> : null}
          <div className="keys">
            <Button variant="primary" disabled={busy} onClick={() => void bringIn()}>
              {draftThere ? 'Put it in place of that draft' : 'Bring it in'}
            </Button>
            <Button variant="plain" onClick={() => setLooked(undefined)}>
              Leave it
            </Button>
          </div>
        </div>
      ) : null}
    </section>
  );
}
