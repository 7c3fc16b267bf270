import type { ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import { JobProvider, useJob } from './use-job.ts';
import { Loading, Wrong } from '../kit/pieces.tsx';

/** A page about one job: the job around it, and the way back. */
export function JobFrame({ children }: { readonly children: ReactElement }): ReactElement {
  const { id = '' } = useParams();
  const { here, error } = useJob(id);
  if (!here) return error ? <Wrong error={error} /> : <Loading what="the job" />;
  return (
    <JobProvider value={here}>
      <p className="mb-1">
        <Link to={`/jobs/${id}/decide`}>
          Job {here.job.number}, {here.job.unit.name}
        </Link>{' '}
        · <Link to={`/jobs/${id}/parts`}>Parts</Link> · <Link to={`/jobs/${id}/worth`}>Worth it?</Link> ·{' '}
        <Link to={`/jobs/${id}/quote`}>Quote</Link>
      </p>
      {children}
    </JobProvider>
  );
}
