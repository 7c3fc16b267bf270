import type { TodayClock } from '@jubb/book';
import { useEffect, type ReactElement } from 'react';
import { Link } from 'react-router';
import Button from 'react-bootstrap/Button';
import { beep } from '../kit/beep.ts';
import { outbox } from '../link/outbox.ts';
import { leftWords, useNow } from './use-clocks.ts';
import './clocks.scss';

const TONE_HZ = 880;
const BEEP_S = 0.25;
const EVERY_MS = 4000;

/** How long each clock has to go, and the ring when one is over. */
export function Ringing({ clocks }: { readonly clocks: readonly TodayClock[] }): ReactElement {
  const now = useNow(1000);
  const over = clocks.filter(({ until }) => Date.parse(until) <= now);
  const rings = over.length > 0;
  useEffect(() => {
    if (!rings) return;
    const ring = (): void => beep(TONE_HZ, BEEP_S);
    ring();
    const again = setInterval(ring, EVERY_MS);
    return () => clearInterval(again);
  }, [rings]);
  return (
    <aside className="clocks" aria-label="Clocks">
      {over.map(({ entryId, jobId, number, what, then }) => (
        <div key={entryId} className="clock over" role="alert">
          <b>{number}</b> {what}: it is time
          <Button variant="primary" onClick={() => void outbox.add(jobId, [{ kind: 'wait-over', payload: { wait: entryId } }])}>
            Heard
          </Button>
          {then ? (
            <Link className="btn btn-plain" to={`/jobs/${jobId}/${then.stage}?step=${then.step}`}>
              Open: {then.title}
            </Link>
          ) : null}
        </div>
      ))}
      {clocks
        .filter((clock) => !over.includes(clock))
        .map(({ entryId, number, what, until, hot }) => (
          <div key={entryId} className={`clock ${hot ? 'hot' : ''}`} role="timer" aria-label={`${number}, ${what}`}>
            <b>{number}</b> {what} {hot ? <b className="v-out">hot, do not touch</b> : null}{' '}
            <b className="fig">{leftWords(Date.parse(until) - now)}</b>
          </div>
        ))}
    </aside>
  );
}
