import { workings } from '@jubb/core';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { useHere } from '../../job/use-job.ts';

/** Workings that are at hand for this unit at this stage. */
export function WorkedOut({ ids }: { readonly ids: readonly string[] }): ReactElement | null {
  const { job, state } = useHere();
  if (ids.length === 0 || state.handedOver) return null;
  return (
    <p className="keys" role="group" aria-label="Work out">
      {ids.map((id) => (
        <Link key={id} className="btn btn-plain" to={`/jobs/${job.id}/work/${id}`}>
          {workings.describe(id)?.title}
        </Link>
      ))}
    </p>
  );
}
