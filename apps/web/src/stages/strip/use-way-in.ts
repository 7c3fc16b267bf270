import { isMoreThan, wayInFor, wayInLeft, WRITERS, type WayInLine } from '@jubb/book';
import { ENDPOINTS, type WayInView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { ask } from '../../link/client.ts';
import { isTrial } from '../../job/trial-id.ts';
import { useHere } from '../../job/use-job.ts';

/** What is kept of a machine's way in on this device goes by this. */
export const wayInKey = (machineId: string): readonly string[] => ['way-in', machineId];

export interface WayInHere {
  readonly view: WayInView;
  /** What is still in the way; nothing once it is taken apart. */
  readonly left: readonly WayInLine[];
  /** This job moved what it does not know, and whoever is here may write it down. */
  readonly isNews: boolean;
}

/** The way in of the machine of this job; nothing while it is not known here. */
export function useWayIn(): WayInHere | undefined {
  const { job, state, person } = useHere();
  const { machine } = job;
  const { data: view } = useQuery({
    enabled: !isTrial(job.id),
    queryKey: wayInKey(machine.id),
    // It changes seldom, and is there without a link.
    staleTime: 600_000,
    queryFn: () => ask(ENDPOINTS.machines.wayIn, { id: machine.id }),
  });
  if (!view || state.handedOver) return undefined;
  const moved = state.live.filter((entry) => entry.kind === 'moved');
  const { name } = job.unit;
  const lines = wayInFor(view.version > 0 ? view.lines : (view.like?.lines ?? []), name);
  return {
    view,
    left: state.stage === 'book-in' || state.stage === 'strip' ? wayInLeft(lines, moved) : [],
    isNews: isMoreThan(moved, wayInFor(view.lines, name)) && WRITERS.includes(person.role),
  };
}
