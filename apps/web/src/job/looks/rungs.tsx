import type { Ladder } from '@jubb/book';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import ListGroup from 'react-bootstrap/ListGroup';
import { timeWords } from '../../kit/days.ts';
import { LineField } from '../../kit/line-field.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../use-job.ts';
import './rungs.scss';

interface RungsProps {
  readonly ladder: Ladder;
  /** It came, or somebody is asked. */
  readonly onEnd?: () => void;
}

/** The ladder for what will not come: what was tried, and the rung to try now. The last one puts the job on hold. */
export function Rungs({ ladder, onEnd }: RungsProps): ReactElement {
  const { job, keep, personName } = useHere();
  const { step, what, rungs, tried, next, asks } = ladder;
  const [asked, setAsked] = useDraft(`${job.id}.${step ?? ''}.ask-about.${what}`, '');
  const at = step === null ? {} : { step };
  const keepRung = (came: boolean): void => {
    const rung = { kind: 'rung' as const, payload: { what, rung: tried.length + 1, tried: next ?? '', came }, ...at };
    if (came || !asks) {
      keep(rung);
      if (came) onEnd?.();
      return;
    }
    const words = asked.trim();
    if (words === '') return;
    keep({ kind: 'hold', payload: { reason: 'help', words: `${what} will not come: ${words}` }, ...at }, rung);
    setAsked(undefined);
    onEnd?.();
  };
  return (
    <div className="rungs">
      <ListGroup as="ol" numbered variant="flush" className="mb-2">
        {rungs.map((rung, index) => {
          const done = tried[index];
          return (
            <ListGroup.Item
              as="li"
              key={rung}
              className={index === tried.length ? 'rung now' : 'rung soft'}
              {...(index === tried.length ? { 'aria-current': 'step' as const } : {})}
            >
              {done?.payload.tried ?? rung}
              {done ? ` · tried, ${personName(done.personId).split(' ')[0] ?? ''} ${timeWords(done.takenAt)}` : ''}
            </ListGroup.Item>
          );
        })}
      </ListGroup>
      {next === undefined ? (
        <p className="mb-0">All of it was tried, and somebody is asked.</p>
      ) : asks ? (
        <>
          <LineField label="Who is asked, and what" longest={200} text={asked} onText={setAsked} onEnter={() => keepRung(false)} />
          <div className="keys mt-2">
            <Button variant="plain" disabled={asked.trim() === ''} onClick={() => keepRung(false)}>
              On hold, and ask
            </Button>
            <Button variant="plain" onClick={() => keepRung(true)}>
              It came
            </Button>
          </div>
        </>
      ) : (
        <div className="keys">
          <Button variant="plain" onClick={() => keepRung(true)}>
            It came
          </Button>
          <Button variant="plain" onClick={() => keepRung(false)}>
            Tried, it stays
          </Button>
        </div>
      )}
    </div>
  );
}
