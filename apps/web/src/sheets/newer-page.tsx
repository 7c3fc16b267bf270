import type { JobView } from '@jubb/book';
import { baseRef, pointersOf, rowsOf, type Difference, type SheetFile } from '@jubb/sheet';
import { useMemo, type ReactElement } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import Button from 'react-bootstrap/Button';
import { useDifferences } from './queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { DifferenceList } from './difference-list.tsx';
import { useJob, type JobHere } from '../job/use-job.ts';
import './sheets.scss';

/** A newer revision of the sheet of a job: what it changes for the work still ahead. The job stays with its own until somebody says so. */
export function NewerPage(): ReactElement {
  const { id = '' } = useParams();
  const { here, error } = useJob(id);
  if (!here) return error ? <Wrong error={error} /> : <Loading what="the job" />;
  const { newer } = here.job.sheet;
  if (!newer)
    return (
      <p>
        Revision {here.job.sheet.revision} is the newest. <Link to={`/jobs/${id}`}>Back to the job</Link>
      </p>
    );
  return <Newer here={here} newer={newer} />;
}

function Newer({ here, newer }: { readonly here: JobHere; readonly newer: NonNullable<JobView['sheet']['newer']> }): ReactElement {
  const { job, sheet, state, person, keep } = here;
  const go = useNavigate();
  const { data: differences, error } = useDifferences(newer.revisionId, job.sheet.revisionId);
  const ahead = useMemo(() => {
    const done = new Set(state.steps.filter((one) => one.done).map(({ step }) => baseRef(step)));
    const touched = refsAhead(sheet, done);
    return (differences ?? []).filter(({ list, ref }) => (list === 'steps' ? !done.has(ref) : touched.has(ref) || list === 'cautions'));
  }, [differences, state.steps, sheet]);
  if (!differences) return error ? <Wrong error={error} /> : <Loading what="what is different" />;
  const mayMove = person.role === 'mechanic' || person.role === 'foreman';
  return (
    <>
      <Title
        sub={`This job goes by revision ${job.sheet.revision}. Revision ${newer.revision} is approved since. Nothing changes here by itself.`}
      >
        {`Job ${job.number}: a newer sheet`}
      </Title>
      <h2>What it changes for the work ahead</h2>
      {ahead.length > 0 ? <DifferenceList differences={ahead} /> : <p>Nothing of the steps still to do.</p>}
      {differences.length > ahead.length ? (
        <details className="mb-3">
          <summary>{differences.length - ahead.length} more, of what is done already or not on this job</summary>
          <DifferenceList differences={differences.filter((one) => !ahead.includes(one))} />
        </details>
      ) : null}
      <div className="keys">
        {mayMove && !state.handedOver ? (
          <Button
            variant="plain"
            onClick={() => {
              keep({ kind: 'pinned', payload: { revisionId: newer.revisionId, revision: newer.revision } });
              void go(`/jobs/${job.id}`);
            }}
          >
            Go on by revision {newer.revision}
          </Button>
        ) : null}
        <Link className="btn btn-primary" to={`/jobs/${job.id}`}>
          Stay with revision {job.sheet.revision}
        </Link>
      </div>
    </>
  );
}

/** Lines that the steps still to do point to. */
function refsAhead(sheet: SheetFile, done: ReadonlySet<string>): ReadonlySet<Difference['ref']> {
  const refs = new Set<string>();
  for (const step of sheet.steps) {
    if (done.has(baseRef(step))) continue;
    for (const { field, lists, ref } of pointersOf('steps', step)) {
      if (!field.startsWith('record.')) continue;
      const line = lists
        .flatMap((list) => rowsOf(sheet, list) as readonly { readonly ref: string; readonly base?: string }[])
        .find((one) => one.ref === ref);
      if (line) refs.add(baseRef(line));
    }
  }
  return refs;
}
