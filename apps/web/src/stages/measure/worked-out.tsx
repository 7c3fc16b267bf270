import { workings } from '@jubb/core';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { useHere } from '../../job/use-job.ts';

interface WorkedOutProps {
  readonly ids: readonly string[];
  /** Ref of the seal that is going in: what its line says need not be typed. */
  readonly seal?: string | undefined;
}

/** Workings that are at hand for this unit at this stage. */
export function WorkedOut({ ids, seal }: WorkedOutProps): ReactElement | null {
  const { job, state } = useHere();
  if (ids.length === 0 || state.handedOver) return null;
  return (
    <p className="keys" role="group" aria-label={seal === undefined ? 'Work out' : 'Work out at this seal'}>
      {seal === undefined ? null : <b className="align-self-center">At this seal</b>}
      {ids.map((id) => (
        <Link key={id} className="btn btn-plain" to={`/jobs/${job.id}/work/${id}${seal === undefined ? '' : `?seal=${seal}`}`}>
          {workings.describe(id)?.title}
        </Link>
      ))}
    </p>
  );
}
