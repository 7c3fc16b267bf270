import { LIST_NAMES, SHEET_LISTS, type Finding, type SheetFile, type SheetList, type Step } from '@jubb/sheet';
import { soundCopy, type PlainLine } from '@jubb/sheet/editing';
import type { SheetView } from '@jubb/wire';
import { useLayoutEffect, useRef, useState, type ReactElement } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import Button from 'react-bootstrap/Button';
import { useSheet } from '../link/queries.ts';
import { useRevisions } from './queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { Approve, Together } from './approve.tsx';
import { BenchPreview } from '../stages/bench/bench-preview.tsx';
import { PaperIn } from '../kit/paper-in.tsx';
import { CsvIn } from './bring-in.tsx';
import { Completeness } from './completeness.tsx';
import { FindingList } from './finding-list.tsx';
import { LineFields } from './line-fields.tsx';
import { Played } from './played.tsx';
import { LineGrid, type GridPlace } from './line-grid.tsx';
import { LineText } from './line-text.tsx';
import { Proposed } from './proposals.tsx';
import { SheetHead } from './sheet-head.tsx';
import { StepOrder } from './step-order.tsx';
import { useReview } from './use-review.ts';
import type { Keeping } from './draft-work.ts';
import { useSheetDraft, type SheetDraft } from './use-sheet-draft.ts';
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
  const [place, setPlace] = useState<GridPlace>();
  const open = (next: Tab, line?: string, path = ''): void => {
    setActive(line);
    setPlace(line === undefined ? undefined : { ref: line, path });
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
        <Button variant="plain" disabled={!draft.undo} onClick={draft.undo}>
          Undo
        </Button>
        <Button variant="plain" disabled={!draft.redo} onClick={draft.redo}>
          Again
        </Button>
        {approved ? (
          <Link className="btn btn-plain" to={`/sheets/${sheet.revisionId}/differences/${approved.revisionId}`}>
            Differences
          </Link>
        ) : null}
        <Approve sheet={sheet} file={file} stops={stops} ready={draft.keeping === 'kept'} />
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
          <h2 className="mt-3">Played through</h2>
          <Played file={review && stops === 0 ? (file as unknown as SheetFile) : undefined} onJump={({ list, ref }) => open(list, ref)} />
          <h2 className="mt-3">To mend</h2>
          <FindingList
            findings={review?.findings}
            onJump={({ list, ref, path }) => (list === 'sheet' ? open(listOf(path)) : open(list, ref, path.replace(/^\w+\[\d+\]\.?/u, '')))}
          />
        </details>
        <section aria-label={tab === 'head' ? 'The sheet itself' : LIST_NAMES[tab]}>
          <Proposed sheet={sheet} draft={draft} list={tab === 'head' ? undefined : tab} onJump={open} />
          {tab === 'head' ? (
            <SheetHead draft={draft} />
          ) : (
            <ListEditor key={tab} list={tab} draft={draft} active={active} place={place} onActive={setActive} />
          )}
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
          ({ list, path, severity }) => severity !== 'note' && (list === 'sheet' ? listOf(path) : list) === key,
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

/** Where something that is said of the whole sheet is mended: its list, or its own fields. */
function listOf(path: string): Tab {
  return SHEET_LISTS.find((list) => path === list) ?? 'head';
}

interface ListEditorProps {
  readonly list: SheetList;
  readonly draft: SheetDraft;
  readonly active: string | undefined;
  readonly place: GridPlace | undefined;
  readonly onActive: (ref: string | undefined) => void;
}

/** A step as the bench will ask it, in spite of what is not right elsewhere in the draft. */
function StepShown({ file, step }: { readonly file: SheetFile; readonly step: Step }): ReactElement {
  const sound = (): ReactElement => {
    const copy = soundCopy(file).sheet;
    const same = copy?.steps.find(({ ref }) => ref === step.ref);
    if (!copy || !same || (step as Partial<Step>).record === undefined) return <NotYet />;
    return (
      <ErrorBoundary FallbackComponent={NotYet} resetKeys={[file, step]}>
        <BenchPreview file={copy} step={same} />
      </ErrorBoundary>
    );
  };
  return (
    <ErrorBoundary fallbackRender={sound} resetKeys={[file, step]}>
      <BenchPreview file={file} step={step} />
    </ErrorBoundary>
  );
}

/** A step that cannot be shown yet, for something in it that the checker names. */
function NotYet(): ReactElement {
  return <p className="care">This step cannot be shown as the bench will ask it yet. The checker names what is to be mended first.</p>;
}

const GRID_HIGH = 420;

function ListEditor({ list, draft, active, place, onActive }: ListEditorProps): ReactElement {
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
            {chosen ? <StepShown file={file} step={chosen as unknown as Step} /> : null}
            {chosen ? (
              <LineFields key={`fields-${String(chosen['ref'])}`} file={file} list={list} line={chosen} onChange={replace} />
            ) : null}
            {chosen ? <LineText key={String(chosen['ref'])} list={list} line={chosen} onChange={replace} /> : null}
          </div>
        </div>
      ) : null}
      <LineGrid
        list={list}
        lines={lines}
        height={list === 'steps' ? GRID_HIGH - 100 : GRID_HIGH}
        at={place}
        onChange={put}
        onActive={(ref) => {
          if (ref !== undefined) onActive(ref);
        }}
      />
      {chosen && list === 'documents' ? (
        <PaperIn words="Bring in its PDF" onPaper={(paper) => replace({ ...chosen, paper: paper.id })} />
      ) : null}
      {chosen && list !== 'steps' ? (
        <LineFields key={`fields-${String(chosen['ref'])}`} file={file} list={list} line={chosen} onChange={replace} />
      ) : null}
      {chosen && list !== 'steps' ? <LineText key={String(chosen['ref'])} list={list} line={chosen} onChange={replace} /> : null}
    </>
  );
}
