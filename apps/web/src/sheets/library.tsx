import { ENDPOINTS, type ImportView, type SheetLine } from '@jubb/wire';
import { useDeferredValue, useMemo, useRef, useState, type ReactElement } from 'react';
import { Link, useNavigate } from 'react-router';
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
          <label className="form-label" htmlFor="find-sheet">
            Make, model, part number, thread, words
          </label>
          <input
            id="find-sheet"
            type="search"
            className="form-control"
            autoComplete="off"
            value={find}
            onChange={(event) => {
              setFind(event.target.value);
              setShown(PAGE);
            }}
          />
        </div>
        <div>
          <label className="form-label" htmlFor="find-family">
            Family
          </label>
          <select id="find-family" className="form-select" value={family} onChange={(event) => setFamily(event.target.value)}>
            <option value="">every family</option>
            {families.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
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
        <button type="button" className="btn btn-plain" onClick={() => setShown(shown + PAGE)}>
          {hits.length - shown} more
        </button>
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

function SheetTable({ sheets }: { readonly sheets: readonly SheetLine[] }): ReactElement {
  return (
    <table className="table">
      <thead>
        <tr>
          <th scope="col">Sheet</th>
          <th scope="col" className="hide-narrow">
            Family
          </th>
          <th scope="col" className="hide-narrow">
            What it has
          </th>
          <th scope="col">Revision</th>
          <th scope="col">State</th>
        </tr>
      </thead>
      <tbody>
        {sheets.map((sheet) => (
          <tr key={sheet.revisionId}>
            <td>
              <Link to={sheet.status === 'draft' ? `/sheets/${sheet.revisionId}/edit` : `/sheets/${sheet.revisionId}`}>{sheet.title}</Link>
              <div className="soft">{sheet.machine}</div>
            </td>
            <td className="hide-narrow">{sheet.family}</td>
            <td className="hide-narrow">
              <Completeness parts={sheet.complete} />
            </td>
            <td className="fig fs-5">{sheet.revision}</td>
            <td>
              <span className="trust">{sheet.status}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
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
            <button type="button" className="btn btn-primary" disabled={busy} onClick={() => void bringIn()}>
              {draftThere ? 'Put it in place of that draft' : 'Bring it in'}
            </button>
            <button type="button" className="btn btn-plain" onClick={() => setLooked(undefined)}>
              Leave it
            </button>
          </div>
        </div>
      ) : null}
    </section>
  );
}
