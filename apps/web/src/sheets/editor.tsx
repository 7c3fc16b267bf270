import { CSV_LISTS, readCsv, type PlainLine } from '@jubb/contract/sheet';
import { LIST_NAMES, SHEET_LISTS, type Finding, type SheetFile, type SheetList, type SheetView, type Step } from '@jubb/contract/job';
import { useLayoutEffect, useRef, useState, type ReactElement } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { call, upload } from '../api/client.ts';
import { queryClient, useSession, useSheet } from '../api/queries.ts';
import { useProposals, useRevisions } from './queries.ts';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { readTextFile } from '../kit/text-file.ts';
import { BenchPreview } from './bench-preview.tsx';
import { Completeness } from './completeness.tsx';
import { FindingList } from './finding-list.tsx';
import { LineGrid } from './line-grid.tsx';
import { LineText } from './line-text.tsx';
import { StepOrder } from './step-order.tsx';
import { useReview } from './use-review.ts';
import { useSheetDraft, type Keeping, type SheetDraft } from './use-sheet-draft.ts';
import './sheets.scss';

const KEEPING: Readonly<Record<Keeping, string>> = {
  kept: 'Kept',
  keeping: 'Keeping …',
  held: 'No link: kept on this device',
  refused: 'Not kept',
  clash: 'Waits for your word',
};

/** Work on a draft: tables, order of the steps, the checker beside it. */
export function SheetEditor(): ReactElement {
  const { id = '' } = useParams();
  const { data: sheet, error } = useSheet(id);
  if (!sheet) return error ? <Wrong error={error} /> : <Loading what="the draft" />;
  if (sheet.status !== 'draft')
    return (
      <p>
        Revision {sheet.revision} is {sheet.status}. <Link to={`/sheets/${id}`}>Change it in a draft</Link> instead.
      </p>
    );
  return <Editing key={id} sheet={sheet} />;
}

type Tab = SheetList | 'head';

function Editing({ sheet }: { readonly sheet: SheetView }): ReactElement {
  const { list: at } = useParams();
  const [params] = useSearchParams();
  const go = useNavigate();
  const draft = useSheetDraft(sheet);
  const { file } = draft;
  const review = useReview(file);
  const tab: Tab = SHEET_LISTS.find((list) => list === at) ?? 'head';
  const [active, setActive] = useState<string | undefined>(params.get('line') ?? undefined);
  const { data: revisions = [] } = useRevisions(sheet.revisionId);
  const approved = revisions.find(({ status }) => status === 'approved');
  const open = (next: Tab, line?: string): void => {
    setActive(line);
    void go(`/sheets/${sheet.revisionId}/edit${next === 'head' ? '' : `/${next}`}`, { replace: true });
  };
  const stops = review?.findings.filter(({ severity }) => severity === 'stop').length ?? 0;
  // On a wide screen it stands beside the tables; else it opens above them.
  const [wide] = useState(() => window.matchMedia('(min-width: 1500px)').matches);
  useUndoKeys(draft);
  return (
    <div className="editor">
      <div className="d-flex flex-wrap gap-3 align-items-start">
        <Title sub={`Draft of revision ${sheet.revision}. Jobs go on by theirs until it is approved, and after it too.`}>
          {file.title}
        </Title>
        <span className={`ms-auto keeping keeping-${draft.keeping}`} role="status">
          {KEEPING[draft.keeping]}
        </span>
      </div>
      <div className="keys mt-0 mb-2">
        <button type="button" className="btn btn-plain" disabled={!draft.undo} onClick={draft.undo}>
          Undo
        </button>
        <button type="button" className="btn btn-plain" disabled={!draft.redo} onClick={draft.redo}>
          Again
        </button>
        {approved ? (
          <Link className="btn btn-plain" to={`/sheets/${sheet.revisionId}/differences/${approved.revisionId}`}>
            Differences
          </Link>
        ) : null}
        <Approve sheet={sheet} stops={stops} ready={draft.keeping === 'kept'} />
      </div>
      <Wrong error={draft.refusal} />
      <Together draft={draft} />
      <div className="editor-columns">
        <nav aria-label="Lists of the sheet">
          <Lists file={file} tab={tab} findings={review?.findings ?? []} onOpen={open} />
        </nav>
        <details className="checker" open={wide || undefined}>
          <summary>
            Checker:{' '}
            {review
              ? stops > 0
                ? `${stops} to mend first`
                : review.findings.length > 0
                  ? `${review.findings.length} to look at`
                  : 'nothing missing'
              : '…'}
          </summary>
          <Completeness parts={review?.complete ?? []} long />
          <h2 className="mt-3">To mend</h2>
          <FindingList findings={review?.findings} onJump={({ list, ref }) => (list === 'sheet' ? open('head') : open(list, ref))} />
          <Proposed sheet={sheet} onJump={open} />
        </details>
        <section aria-label={tab === 'head' ? 'The sheet itself' : LIST_NAMES[tab]}>
          {tab === 'head' ? <Head draft={draft} /> : <ListEditor key={tab} list={tab} draft={draft} active={active} onActive={setActive} />}
        </section>
      </div>
    </div>
  );
}

/** Undo and redo, but in a field, which has its own. */
function useUndoKeys(draft: SheetDraft): void {
  const latest = useRef(draft);
  useLayoutEffect(() => {
    latest.current = draft;
  });
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      // A cell that nothing is typed into yet is the page's.
      const isField = /^(INPUT|TEXTAREA)$/u.test(target.tagName) && target.dataset['idle'] === undefined;
      if (!(event.ctrlKey || event.metaKey) || isField) return;
      const key = event.key.toLowerCase();
      const act = key === 'y' || (key === 'z' && event.shiftKey) ? latest.current.redo : key === 'z' ? latest.current.undo : undefined;
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

interface ListsProps {
  readonly file: SheetFile;
  readonly tab: Tab;
  readonly findings: readonly Finding[];
  readonly onOpen: (tab: Tab) => void;
}

function Lists({ file, tab, findings, onOpen }: ListsProps): ReactElement {
  const entries: readonly (readonly [Tab, string, number | undefined])[] = [
    ['head', 'The sheet itself', undefined],
    ...SHEET_LISTS.map((list) => [list, LIST_NAMES[list], (file[list] ?? []).length] as const),
  ];
  return (
    <ul className="editor-lists">
      {entries.map(([key, name, count]) => {
        const stops = findings.filter(
          ({ list, severity }) => severity !== 'note' && (key === 'head' ? list === 'sheet' : list === key),
        ).length;
        return (
          <li key={key}>
            <button type="button" className={key === tab ? 'on' : ''} aria-current={key === tab} onClick={() => onOpen(key)}>
              {name} <span className="fig">{count}</span>
              {stops > 0 ? (
                <span className="fig v-out" title={`${stops} to mend`}>
                  {' '}
                  ▲{stops}
                </span>
              ) : null}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

const HEAD = [
  ['title', 'Title'],
  ['make', 'Make'],
  ['model', 'Model'],
  ['machine', 'Machine'],
  ['mass', 'Mass'],
  ['serialPlace', 'Where its serial is'],
  ['notes', 'Notes'],
] as const satisfies readonly (readonly [keyof SheetFile, string])[];

function Head({ draft }: { readonly draft: SheetDraft }): ReactElement {
  const { file, change } = draft;
  const put = (field: (typeof HEAD)[number][0], text: string): void => {
    const { [field]: _, ...rest } = file;
    change((text === '' && !['title', 'make', 'model', 'machine'].includes(field) ? rest : { ...file, [field]: text }) as SheetFile);
  };
  return (
    <>
      {HEAD.map(([field, label]) => (
        <div key={field} className="mb-2">
          <label className="form-label" htmlFor={`head-${field}`}>
            {label}
          </label>
          {field === 'notes' ? (
            <textarea
              id={`head-${field}`}
              className="form-control"
              rows={3}
              value={file[field] ?? ''}
              onChange={(event) => put(field, event.target.value)}
            />
          ) : (
            <input
              id={`head-${field}`}
              className="form-control"
              autoComplete="off"
              value={file[field] ?? ''}
              onChange={(event) => put(field, event.target.value)}
            />
          )}
        </div>
      ))}
      <div className="mb-2">
        <label className="form-label" htmlFor="head-sides">
          Sides, parted by semicolons
        </label>
        <input
          id="head-sides"
          className="form-control"
          autoComplete="off"
          defaultValue={(file.sides ?? []).join('; ')}
          onBlur={({ target }) => {
            const sides = target.value
              .split(';')
              .map((side) => side.trim())
              .filter(Boolean);
            if (sides.join(';') !== (file.sides ?? []).join(';')) change({ ...file, sides });
          }}
        />
      </div>
    </>
  );
}

interface ListEditorProps {
  readonly list: SheetList;
  readonly draft: SheetDraft;
  readonly active: string | undefined;
  readonly onActive: (ref: string | undefined) => void;
}

const GRID_HIGH = 420;

function ListEditor({ list, draft, active, onActive }: ListEditorProps): ReactElement {
  const { file, change } = draft;
  const lines = (file[list] ?? []) as unknown as readonly PlainLine[];
  const put = (next: readonly PlainLine[]): void => change({ ...file, [list]: next } as unknown as SheetFile);
  const chosen = lines.find((line) => line['ref'] === active) ?? (list === 'steps' ? lines[0] : undefined);
  const replace = (line: object): void => put(lines.map((one) => (one === chosen ? (line as PlainLine) : one)));
  return (
    <>
      <div className="d-flex flex-wrap align-items-center gap-2">
        <h2 className="me-auto">{LIST_NAMES[list]}</h2>
        <CsvIn list={list} lines={lines} onLines={put} />
      </div>
      {list === 'steps' ? (
        <div className="step-columns">
          <StepOrder
            steps={file.steps}
            chosen={chosen?.['ref'] as string | undefined}
            onChoose={onActive}
            onOrder={(steps) => change({ ...file, steps: [...steps] })}
          />
          <div>
            {chosen ? <BenchPreview file={file} step={chosen as unknown as Step} /> : null}
            {chosen ? <LineText key={String(chosen['ref'])} line={chosen} onChange={replace} /> : null}
          </div>
        </div>
      ) : null}
      <LineGrid
        list={list}
        lines={lines}
        height={list === 'steps' ? GRID_HIGH - 100 : GRID_HIGH}
        onChange={put}
        onActive={(ref) => {
          if (ref !== undefined) onActive(ref);
        }}
      />
      {chosen && list === 'documents' ? <PaperIn onPaper={(paper) => replace({ ...chosen, paper })} /> : null}
      {chosen && list !== 'steps' ? <LineText key={String(chosen['ref'])} line={chosen} onChange={replace} /> : null}
    </>
  );
}

/** The shop's own PDF of a document, so that its pages can be pinned to steps. */
function PaperIn({ onPaper }: { readonly onPaper: (id: string) => void }): ReactElement {
  const [error, setError] = useState<unknown>();
  const bringIn = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setError(undefined);
    try {
      onPaper((await upload<{ id: string }>(`/papers?name=${encodeURIComponent(file.name)}`, file)).id);
    } catch (refusal) {
      setError(refusal);
    }
  };
  return (
    <div className="mb-2">
      <label className="btn btn-plain" htmlFor="paper-file">
        Bring in its PDF
      </label>
      <input
        id="paper-file"
        className="visually-hidden"
        type="file"
        accept="application/pdf"
        onChange={(event) => void bringIn(event.target.files?.[0])}
      />
      <Wrong error={error} />
    </div>
  );
}

interface CsvInProps {
  readonly list: SheetList;
  readonly lines: readonly PlainLine[];
  readonly onLines: (lines: readonly PlainLine[]) => void;
}

/** A CSV file into the list: what it changes is said before it is taken, and it can be undone. */
function CsvIn({ list, lines, onLines }: CsvInProps): ReactElement | null {
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const [looked, setLooked] = useState<readonly PlainLine[]>();
  if (!CSV_LISTS.some((one) => one === list)) return null;
  const look = async (chosen: File | undefined): Promise<void> => {
    setLooked(undefined);
    setWrong([]);
    if (!chosen) return;
    try {
      const read = readCsv(await readTextFile(chosen), list, lines);
      if (read.ok) setLooked(read.lines);
      else setWrong(read.issues.map((issue) => `Line ${issue.line}: ${issue.message}`));
    } catch (error) {
      setWrong([error instanceof Error ? error.message : String(error)]);
    }
  };
  const refs = new Set(lines.map((line) => line['ref']));
  const fresh = looked?.filter((line) => !refs.has(line['ref'])).length ?? 0;
  const gone = lines.filter((line) => !looked?.some((one) => one['ref'] === line['ref'])).length;
  const changed = looked?.filter((line) => refs.has(line['ref']) && !lines.includes(line)).length ?? 0;
  return (
    <div>
      <label className="btn btn-plain" htmlFor={`csv-${list}`}>
        Bring in CSV
      </label>
      <input
        id={`csv-${list}`}
        className="visually-hidden"
        type="file"
        accept=".csv,text/csv"
        onChange={(event) => {
          void look(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {wrong.length > 0 ? (
        <div className="care" role="alert">
          <b>Not read</b>
          {wrong.map((line) => (
            <div key={line}>{line}</div>
          ))}
        </div>
      ) : null}
      {looked ? (
        <div className="sheet-box">
          {looked.length} lines: {fresh} new, {changed} changed, {gone} taken out.
          <div className="keys">
            <button
              type="button"
              className="btn btn-primary"
              onClick={() => {
                onLines(looked);
                setLooked(undefined);
              }}
            >
              Take them in
            </button>
            <button type="button" className="btn btn-plain" onClick={() => setLooked(undefined)}>
              Leave it
            </button>
          </div>
        </div>
      ) : null}
    </div>
  );
}

/** What jobs say should be otherwise next time, beside the line it is about. */
function Proposed({
  sheet,
  onJump,
}: {
  readonly sheet: SheetView;
  readonly onJump: (tab: Tab, line?: string) => void;
}): ReactElement | null {
  const { data: proposals = [] } = useProposals(sheet.revisionId);
  const [refusal, setRefusal] = useState<unknown>();
  if (proposals.length === 0) return null;
  const settle = async (entryId: string, how: 'taken' | 'left'): Promise<void> => {
    try {
      await call('POST', `/sheets/proposals/${entryId}/settle`, { how });
      await queryClient.invalidateQueries({ queryKey: ['sheets', sheet.revisionId, 'proposals'] });
    } catch (error) {
      setRefusal(error);
    }
  };
  return (
    <>
      <h2 className="mt-3">Next time, from jobs</h2>
      <Wrong error={refusal} />
      <ul className="findings">
        {proposals.map((proposal) => {
          const list = SHEET_LISTS.find((one) => one === proposal.list) ?? 'steps';
          return (
            <li key={proposal.entryId}>
              {proposal.text}{' '}
              {proposal.line ? (
                <button type="button" className="btn btn-quiet p-0" onClick={() => onJump(list, proposal.line ?? undefined)}>
                  {proposal.line}
                  {proposal.figure ? `: ${proposal.figure}` : ''}
                </button>
              ) : null}{' '}
              <span className="soft">
                job {proposal.jobNumber}, {proposal.person}
              </span>
              <div className="keys mt-1">
                <button type="button" className="btn btn-plain" onClick={() => void settle(proposal.entryId, 'taken')}>
                  It is in the draft
                </button>
                <button type="button" className="btn btn-plain" onClick={() => void settle(proposal.entryId, 'left')}>
                  Leave it
                </button>
              </div>
            </li>
          );
        })}
      </ul>
    </>
  );
}

/** What somebody else changed at the same time: said, and where both changed a line, asked. */
function Together({ draft }: { readonly draft: SheetDraft }): ReactElement | null {
  const { clashes, joined, settle } = draft;
  if (clashes.length > 0)
    return (
      <Care title="Both changed">
        {joined} changed these lines while you did. Which one stands?
        {clashes.map((clash) => (
          <div key={`${clash.list}${clash.ref}${clash.name}`} className="keys mt-1 align-items-center">
            <b>{clash.name}</b>
            <button type="button" className="btn btn-plain" onClick={() => settle(clash, 'mine')}>
              Mine
            </button>
            <button type="button" className="btn btn-plain" onClick={() => settle(clash, 'theirs')}>
              Theirs
            </button>
          </div>
        ))}
      </Care>
    );
  return joined ? <p role="status">Brought together with what {joined} changed meanwhile.</p> : null;
}

function Approve({
  sheet,
  stops,
  ready,
}: {
  readonly sheet: SheetView;
  readonly stops: number;
  readonly ready: boolean;
}): ReactElement | null {
  const { data: session } = useSession();
  const [refusal, setRefusal] = useState<unknown>();
  const go = useNavigate();
  if (session?.person.role !== 'foreman') return null;
  const approve = async (): Promise<void> => {
    setRefusal(undefined);
    try {
      await call('POST', `/sheets/${sheet.revisionId}/approve`);
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go(`/sheets/${sheet.revisionId}`);
    } catch (error) {
      setRefusal(error);
    }
  };
  const drop = async (): Promise<void> => {
    try {
      await call('DELETE', `/sheets/${sheet.revisionId}`);
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go('/sheets');
    } catch (error) {
      setRefusal(error);
    }
  };
  return (
    <>
      <button type="button" className="btn btn-primary" disabled={!ready} onClick={() => void approve()}>
        {stops > 0 ? `Approve it (${stops} to mend first)` : 'Approve it'}
      </button>
      <button type="button" className="btn btn-plain" onClick={() => void drop()}>
        Throw the draft away
      </button>
      <Wrong error={refusal} />
    </>
  );
}
