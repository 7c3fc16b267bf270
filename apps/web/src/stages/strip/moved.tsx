import { MOVED_WORDS } from '@jubb/book';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Pictures } from '../../job/pictures.tsx';
import type { JobActs } from '../../job/asks.ts';
import { useHere } from '../../job/use-job.ts';

/** What had to be moved to get at the unit, the last first: it goes back in that order. */
export function MovedAside({ photo }: Pick<JobActs, 'photo'>): ReactElement | null {
  const { state, keep } = useHere();
  if (state.moved.length === 0) return null;
  return (
    <section>
      <h2>Moved to get at it</h2>
      <ul className="list-unstyled mb-1">
        {state.moved.map(({ entryId, what, how, routing }) => {
          const entry = state.live.find(({ id }) => id === entryId);
          return (
            <li key={entryId} className="mb-2">
              <b className="brass">{what}</b>, {MOVED_WORDS[how]}
              {routing ? <span className="soft">; runs {routing}</span> : null}{' '}
              <Button
                variant="quiet"
                aria-label={`It is back: ${what}`}
                onClick={() => keep({ kind: 'put-back', payload: { moved: entryId } })}
              >
                It is back
              </Button>
              <Button variant="quiet" aria-label={`Photo of how the ${what} runs`} onClick={() => photo(entry)}>
                Photo
              </Button>
              <Pictures of={(other) => other.kind === 'photo' && other.payload.of === entryId} />
            </li>
          );
        })}
      </ul>
    </section>
  );
}
