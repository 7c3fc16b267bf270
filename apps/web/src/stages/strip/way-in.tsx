import { isMoreThan, movedBy, screwWords, wayInAfter, wayInLeft, MOVED_WORDS, WRITERS } from '@jubb/book';
import { ENDPOINTS, type WayInView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { Wrong } from '../../kit/pieces.tsx';
import { ask } from '../../link/client.ts';
import { queryClient } from '../../link/queries.ts';
import { isTrial } from '../../job/trial-id.ts';
import { useHere } from '../../job/use-job.ts';
import { wayInKey } from './way-in-key.ts';

/** What is in the way on this machine, in the order in which it comes away: one key for each. And what this job adds to it. */
export function WayIn(): ReactElement | null {
  const { job, state, person, keep } = useHere();
  const { machine } = job;
  const { data } = useQuery({
    enabled: !isTrial(job.id),
    queryKey: wayInKey(machine.id),
    // It changes seldom, and is there without a link.
    staleTime: 600_000,
    queryFn: () => ask(ENDPOINTS.machines.wayIn, { id: machine.id }),
  });
  const moved = state.live.filter((entry) => entry.kind === 'moved');
  if (!data || state.handedOver) return null;
  const lines = data.version > 0 ? data.lines : (data.like?.lines ?? []);
  const left = state.stage === 'book-in' || state.stage === 'strip' ? wayInLeft(lines, moved) : [];
  const minutes = lines.reduce((sum, line) => sum + (line.minutes ?? 0), 0);
  const isNews = isMoreThan(moved, data.lines) && WRITERS.includes(person.role);
  if (left.length === 0 && !isNews) return null;
  return (
    <section>
      <h2>Way in</h2>
      {left.length > 0 ? (
        <>
          <p className="soft mb-1">
            {data.version > 0
              ? `${machine.name}, kept by ${data.editedBy ?? ''}`
              : `As on another ${machine.name} (${data.like?.serial ?? ''})`}
            {minutes > 0 ? `, about ${minutes} min` : ''}. <Link to={`/machines/${machine.id}/way-in`}>Change it</Link>
          </p>
          <ol className="mb-1 ps-3">
            {left.map((line) => {
              const held = screwWords(line);
              return (
                <li key={line.what} className="mb-1">
                  <b>{line.what}</b>, {MOVED_WORDS[line.how]}
                  {held ? `; ${held}` : ''}
                  {line.routing ? <span className="soft">; runs {line.routing}</span> : null}{' '}
                  <Button
                    variant="quiet"
                    aria-label={`It is out of the way: ${line.what}`}
                    onClick={() => keep({ kind: 'moved', payload: movedBy(line) })}
                  >
                    It is out
                  </Button>
                </li>
              );
            })}
          </ol>
        </>
      ) : null}
      {isNews ? <KeepWayIn of={data} /> : null}
    </section>
  );
}

/** What this job met in the way becomes the machine's own sheet. */
function KeepWayIn({ of: { machine, lines, version } }: { readonly of: WayInView }): ReactElement {
  const { state } = useHere();
  const [error, setError] = useState<unknown>();
  const [isBusy, setBusy] = useState(false);
  const moved = state.live.filter((entry) => entry.kind === 'moved');
  const send = async (): Promise<void> => {
    setBusy(true);
    setError(undefined);
    try {
      const body = { version, lines: [...wayInAfter(moved, lines)] };
      queryClient.setQueryData(wayInKey(machine.id), await ask(ENDPOINTS.machines.keepWayIn, { id: machine.id, body }));
    } catch (refusal) {
      setError(refusal);
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <p className="mb-1">
        This job moved what {version > 0 ? 'the way in of this machine does not know' : 'nobody wrote down for this machine yet'}.{' '}
        <Button variant="quiet" className="p-0" disabled={isBusy} onClick={() => void send()}>
          Keep it for its next unit
        </Button>
      </p>
      <Wrong error={error} />
    </>
  );
}
