import { ENDPOINTS, type SheetView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { addressOf, ask } from '../link/client.ts';
import { queryClient, useSession, useSheet } from '../link/queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { dayWords } from '../kit/days.ts';
import { Completeness } from './completeness.tsx';
import { FindingList } from './finding-list.tsx';
import { Played } from './played.tsx';
import { Proposals } from './proposals.tsx';
import { useRevisions } from './queries.ts';
import { Identity } from './sheet-identity.tsx';
import { Figures, Parts } from './sheet-figures.tsx';
import { Work } from './sheet-work.tsx';
import { useReview } from './use-review.ts';
import './sheets.scss';

/** A sheet to read: what it has, how its variants are told, its figures with where they come from, the work in order. */
export function SheetPage(): ReactElement {
  const { id = '' } = useParams();
  const { data: sheet, error } = useSheet(id);
  const go = useNavigate();
  const review = useReview(sheet?.file);
  if (!sheet) return error ? <Wrong error={error} /> : <Loading what="the sheet" />;
  const { file } = sheet;
  const stops = review?.findings.filter(({ severity }) => severity === 'stop').length ?? 0;
  const jump = ({ list, ref }: { readonly list: string; readonly ref: string }): void =>
    void go(`/sheets/${id}/edit${list === 'sheet' ? '' : `/${list}?line=${ref}`}`);
  return (
    <>
      <Title
        sub={
          <>
            {file.family}. {file.machine}. Revision {sheet.revision}, <span className="trust">{sheet.status}</span>{' '}
            {sheet.approvedBy && sheet.approvedAt ? `by ${sheet.approvedBy}, ${dayWords(sheet.approvedAt)}` : ''}
            {sheet.jobs > 0 ? `. ${sheet.jobs === 1 ? 'One job goes' : `${sheet.jobs} jobs go`} by it now.` : ''}
          </>
        }
      >
        {file.title}
      </Title>
      <Acts sheet={sheet} stops={stops} />
      {file.notes ? <p className="notes">{file.notes}</p> : null}
      <div className="sheet-columns">
        <div>
          <Identity file={file} />
          <Figures file={file} />
          <Parts file={file} />
          <Work file={file} />
        </div>
        <aside aria-label="About the sheet">
          <h2>What it has</h2>
          <Completeness parts={review?.complete ?? sheet.complete} long />
          <h2 className="mt-3">What the checker says</h2>
          <FindingList findings={review?.findings} onJump={sheet.status === 'draft' ? jump : undefined} />
          <h2 className="mt-3">Played through</h2>
          <Played file={review && stops === 0 ? file : undefined} onJump={sheet.status === 'draft' ? jump : undefined} />
          <Proposals sheet={sheet} />
          <Revisions sheet={sheet} />
        </aside>
      </div>
    </>
  );
}

function Acts({ sheet, stops }: { readonly sheet: SheetView; readonly stops: number }): ReactElement {
  const { data: session } = useSession();
  const [refusal, setRefusal] = useState<unknown>();
  const go = useNavigate();
  const id = sheet.revisionId;
  const isForeman = session?.person.role === 'foreman';
  const mayWrite = isForeman || session?.person.role === 'mechanic';
  const act = async (work: () => Promise<void>): Promise<void> => {
    setRefusal(undefined);
    try {
      await work();
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
    } catch (problem) {
      setRefusal(problem);
    }
  };
  const edit = (): Promise<void> =>
    act(async () => {
      const { revisionId } = await ask(ENDPOINTS.sheets.beginDraft, { id });
      void go(`/sheets/${revisionId}/edit`);
    });
  return (
    <>
      <Wrong error={refusal} />
      <div className="keys mb-3">
        {sheet.status === 'draft' && isForeman ? (
          <Button variant="primary" onClick={() => void act(() => ask(ENDPOINTS.sheets.approve, { id }))}>
            {stops > 0 ? `Approve it (${stops} to mend first)` : 'Approve it'}
          </Button>
        ) : null}
        {mayWrite ? (
          <Button variant="plain" onClick={() => void edit()}>
            {sheet.status === 'draft' ? 'Go on with the draft' : 'Change it in a draft'}
          </Button>
        ) : null}
        {sheet.status === 'approved' && isForeman ? (
          <Button variant="plain" onClick={() => void act(() => ask(ENDPOINTS.sheets.withdraw, { id }))}>
            Withdraw it
          </Button>
        ) : null}
        <Link className="btn btn-plain" to={`/sheets/${id}/rehearsal`}>
          Rehearse it
        </Link>
        <a className="btn btn-plain" href={addressOf(ENDPOINTS.sheets.json, { id })}>
          JSON
        </a>
        <a className="btn btn-plain" href={addressOf(ENDPOINTS.sheets.yaml, { id })}>
          YAML
        </a>
        {(['parts', 'joints', 'limits'] as const).map((list) => (
          <a key={list} className="btn btn-plain" href={addressOf(ENDPOINTS.sheets.csv, { id, list })}>
            CSV {list}
          </a>
        ))}
      </div>
    </>
  );
}

function Revisions({ sheet }: { readonly sheet: SheetView }): ReactElement | null {
  const { data: revisions = [] } = useRevisions(sheet.revisionId);
  if (revisions.length < 2) return null;
  return (
    <>
      <h2 className="mt-3">Revisions</h2>
      <Table>
        <tbody>
          {revisions.map((one) => (
            <tr key={one.revisionId}>
              <td className="fig fs-5">{one.revision}</td>
              <td>
                {one.revisionId === sheet.revisionId ? 'this one' : <Link to={`/sheets/${one.revisionId}`}>{one.status}</Link>}
                <div className="soft">{one.approvedAt ? `${one.approvedBy ?? ''}, ${dayWords(one.approvedAt)}` : 'not approved'}</div>
              </td>
              <td>
                {one.revisionId === sheet.revisionId ? null : (
                  <Link to={`/sheets/${later(sheet, one)}/differences/${earlier(sheet, one)}`}>differences</Link>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}

interface Numbered {
  readonly revisionId: string;
  readonly revision: number;
}

function later(a: Numbered, b: Numbered): string {
  return a.revision > b.revision ? a.revisionId : b.revisionId;
}

function earlier(a: Numbered, b: Numbered): string {
  return a.revision > b.revision ? b.revisionId : a.revisionId;
}
