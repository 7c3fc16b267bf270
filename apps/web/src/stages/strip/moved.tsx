import { MOVED_WORDS, screwWords, type Moved } from '@jubb/book';
import { formatQuantity } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Pictures } from '../../job/pictures.tsx';
import type { JobActs } from '../../job/asks.ts';
import { useHere } from '../../job/use-job.ts';
import { BackAgain } from './back-again.tsx';
import { Upset } from './upset.tsx';
import { WayIn } from './way-in.tsx';

/** What had to be moved to get at the unit, the last first: it goes back in that order. Before it what is still in the way, after it what it upset. */
export function MovedAside({ photo }: Pick<JobActs, 'photo'>): ReactElement | null {
  const { state, keep } = useHere();
  const [asked, setAsked] = useState<Moved>();
  const putBack = (one: Moved): void => {
    if (one.screws === undefined && one.torque === undefined) keep({ kind: 'put-back', payload: { moved: one.entryId } });
    else setAsked(one);
  };
  return (
    <>
      <WayIn />
      {state.moved.length > 0 ? (
        <section>
          <h2>Moved to get at it</h2>
          <ul className="list-unstyled mb-1">
            {state.moved.map((one) => {
              const { entryId, what, how, routing, plug } = one;
              const entry = state.live.find(({ id }) => id === entryId);
              const held = heldWords(one);
              return (
                <li key={entryId} className="mb-2">
                  <b className="brass">{what}</b>, {MOVED_WORDS[how]}
                  {held ? <span>; {held}</span> : null}
                  {routing ? <span className="soft">; runs {routing}</span> : null}
                  {plug ? <span className="soft">; closed with {plug}</span> : null}{' '}
                  <Button variant="quiet" aria-label={`It is back: ${what}`} onClick={() => putBack(one)}>
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
      ) : null}
      <Upset />
      {asked ? <BackAgain of={asked} onClose={() => setAsked(undefined)} /> : null}
    </>
  );
}

/** "6 × M8 × 25, 25 N·m"; nothing where nobody wrote it down. */
function heldWords(one: Moved): string {
  return [screwWords(one), one.torque === undefined ? '' : formatQuantity(one.torque, 'torque')].filter(Boolean).join(', ');
}
