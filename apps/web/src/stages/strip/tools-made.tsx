import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Pictures } from '../../job/pictures.tsx';
import type { JobActs } from '../../job/asks.ts';
import { useHere } from '../../job/use-job.ts';

/** Tools that were made on this job: a picture of each says more than its sizes. */
export function ToolsMade({ photo }: Pick<JobActs, 'photo'>): ReactElement | null {
  const { state } = useHere();
  const made = state.live.filter((entry) => entry.kind === 'tool-made');
  if (made.length === 0 || state.handedOver) return null;
  return (
    <section>
      <h2>Tools made</h2>
      <ul className="list-unstyled mb-1">
        {made.map((entry) => {
          const { name, use } = entry.payload;
          return (
            <li key={entry.id} className="mb-2">
              <b>{name}</b> <span className="soft">{use}</span>{' '}
              <Button variant="quiet" aria-label={`Photo of the ${name}`} onClick={() => photo(entry)}>
                Photo
              </Button>
              <Pictures of={(other) => other.kind === 'photo' && other.payload.of === entry.id} />
            </li>
          );
        })}
      </ul>
    </section>
  );
}
