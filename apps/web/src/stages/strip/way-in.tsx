import { movedBy, screwWords, wayInAfter, MOVED_WORDS } from '@jubb/book';
import { ENDPOINTS, type WayInView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { Wrong } from '../../kit/pieces.tsx';
import { ask } from '../../link/client.ts';
import { queryClient } from '../../link/queries.ts';
import { useHere } from '../../job/use-job.ts';
import { useWayIn, wayInKey } from './use-way-in.ts';

/** What is in the way on this machine, in the order in which it comes away: one key for each. And what this job adds to it. */
export function WayIn(): ReactElement | null {
  const { keep } = useHere();
  const here = useWayIn();
  if (!here) return null;
  const { view, left, isNews } = here;
  const { machine } = view;
  const minutes = left.reduce((sum, line) => sum + (line.minutes ?? 0), 0);
  if (left.length === 0 && !isNews) return null;
  return (
    <section>
      <h2>Way in</h2>
      {left.length > 0 ? (
        <>
          <p className="soft mb-1">
            {view.version > 0
              ? `${machine.name}, kept by ${view.editedBy ?? ''}`
              : `As on another ${machine.name} (${view.like?.serial ?? ''})`}
            {minutes > 0 ? `, about ${minutes} min` : ''}. <Link to={`/machines/${machine.id}/way-in`}>Change it</Link>
          </p>
          <ol className="mb-1 ps-3">
            {left.map((line, at) => {
              const held = screwWords(line);
              return (
                <li key={`${at} ${line.what}`} className="mb-1">
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
      {isNews ? <KeepWayIn of={view} /> : null}
    </section>
  );
}

/** What this job met in the way becomes the machine's own sheet. */
function KeepWayIn({ of: { machine, lines, version } }: { readonly of: WayInView }): ReactElement {
  const { job, state } = useHere();
  const [error, setError] = useState<unknown>();
  const [isBusy, setBusy] = useState(false);
  const moved = state.live.filter((entry) => entry.kind === 'moved');
  const send = async (): Promise<void> => {
    setBusy(true);
    setError(undefined);
    try {
      const body = { version, lines: [...wayInAfter(moved, lines, job.unit.name)] };
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
