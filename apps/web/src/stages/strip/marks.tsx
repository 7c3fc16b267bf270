import type { Mark } from '@jubb/book';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Pictures } from '../../job/pictures.tsx';
import type { JobActs } from '../../job/asks.ts';
import { useHere } from '../../job/use-job.ts';

/** Marks that were made and do not line up again yet. */
export function OpenMarks({ photo }: Pick<JobActs, 'photo'>): ReactElement | null {
  const { state, keep } = useHere();
  const open = state.marks.filter(({ met }) => !met);
  if (open.length === 0) return null;
  const met = ({ entryId }: Mark): void => keep({ kind: 'mark-met', payload: { mark: entryId } });
  const isBuilding = state.stage === 'build' || state.stage === 'prove';
  return (
    <section>
      <h2>Marks</h2>
      <ul className="list-unstyled mb-1">
        {open.map((mark) => (
          <li key={mark.entryId} className="mb-1">
            <b className="brass">{mark.mark}</b>, {mark.what}{' '}
            {isBuilding ? (
              <Button variant="quiet" onClick={() => met(mark)}>
                It lines up
              </Button>
            ) : null}
            {state.handedOver ? null : (
              <Button
                variant="quiet"
                aria-label={`Photo of the mark, ${mark.what}`}
                onClick={() => photo(state.live.find(({ id }) => id === mark.entryId))}
              >
                Photo
              </Button>
            )}
            <Pictures of={(entry) => entry.kind === 'photo' && entry.payload.of === mark.entryId} />
          </li>
        ))}
      </ul>
    </section>
  );
}
