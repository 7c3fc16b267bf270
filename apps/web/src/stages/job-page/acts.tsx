import { kindOf, type AnyKeptEntry } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import { Suspense, lazy, useState, type ReactElement } from 'react';
import { useNavigate } from 'react-router';
import { usePhotoKey } from '../../capture/photo-key.tsx';
import { Dialog } from '../../kit/dialog.ts';
import { FreeLine } from '../strip/free-line.tsx';
import { LastOff } from '../strip/ledger.tsx';
import { InTheWay } from '../strip/in-the-way.tsx';
import { useWayIn } from '../strip/use-way-in.ts';
import { AskLine } from '../../kit/ask-line.tsx';
import { useKeys } from '../../kit/keys.ts';
import { useUnits } from '../../kit/units.ts';
import { asksAt, strikeAsk, type AskName, type Asking, type JobActs } from '../../job/asks.ts';
import { Stuck } from '../../job/looks/stuck.tsx';
import { useHere } from '../../job/use-job.ts';

// Not every day has something said.
const Talk = lazy(async () => ({ default: (await import('../../capture/talk.tsx')).Talk }));

/** What can be done anywhere on a job by one key. */
export function useJobActs(step: Step | undefined): JobActs {
  const { job, state, person, keep } = useHere();
  const units = useUnits();
  const go = useNavigate();
  const [asking, setAsking] = useState<Asking>();
  const [photoOf, setPhotoOf] = useState<AnyKeptEntry>();
  const wayIn = useWayIn();
  const at = step ? { step: step.ref } : {};
  const camera = usePhotoKey((picture) => {
    const of = photoOf ? { of: photoOf.id } : step ? { words: step.title } : {};
    keep({ kind: 'photo', payload: { ...picture, ...of }, ...at });
  });
  const photo = (of?: AnyKeptEntry): void => {
    setPhotoOf(of);
    camera.open();
  };
  const last = state.live.findLast(({ personId, kind }) => personId === person.id && !kindOf(kind).byTheWay);
  const strikeLast = (): void => {
    if (last && !state.handedOver) setAsking({ what: 'strike', entry: last });
  };
  const hold = (): void => (job.hold ? keep({ kind: 'hold-off', payload: {} }) : setAsking({ what: 'hold' }));
  // What is known to be in the way, or is out of it, is shown before more is asked.
  const knowsOfWay = (wayIn?.left.length ?? 0) + state.moved.length + state.upset.length > 0;
  const ask = (asked: Asking): void => setAsking(asked.what === 'moved' && knowsOfWay ? { what: 'in-the-way' } : asked);
  const key = (what: AskName | 'line' | 'talk' | 'stuck') => (): void => ask({ what });
  useKeys(
    state.handedOver
      ? {}
      : {
          note: key('note'),
          'open-end': key('open-end'),
          'next-time': key('next-time'),
          owed: key('owed'),
          mark: key('mark'),
          stuck: key('stuck'),
          line: key('line'),
          finding: key('finding'),
          'came-out': key('came-out'),
          moved: key('moved'),
          'tool-made': key('tool-made'),
          talk: key('talk'),
          photo: () => photo(),
          hold,
          strike: strikeLast,
        },
  );
  const close = (): void => setAsking(undefined);
  return {
    ask,
    strikeLast,
    photo,
    hold,
    dialog: (
      <>
        {camera.element}
        {asking ? dialogOf(asking) : null}
      </>
    ),
  };

  function dialogOf(what: Asking): ReactElement {
    if (what.what === 'line')
      return (
        <Dialog show centered size="lg" animation={false} onHide={close} aria-label="A line of your own" restoreFocus>
          <Dialog.Body>
            <FreeLine focus onLeave={close} />
            <LastOff />
          </Dialog.Body>
        </Dialog>
      );
    if (what.what === 'in-the-way') return <InTheWay photo={photo} onOther={() => setAsking({ what: 'moved' })} onClose={close} />;
    if (what.what === 'stuck') return <Stuck step={step} onClose={close} />;
    if (what.what === 'talk')
      return (
        <Suspense>
          <Talk
            about={step?.title ?? job.unit.name}
            onClose={close}
            onKeep={(clip) => {
              keep({ kind: 'clip', payload: clip, ...at });
              close();
            }}
          />
        </Suspense>
      );
    const { title, act, choice, fields, drafts } =
      what.what === 'strike' ? strikeAsk(what.entry, state) : asksAt(state, step, units.symbol)[what.what];
    return (
      <AskLine
        key={title}
        about={job.id}
        title={title}
        act={act}
        choice={choice}
        fields={fields}
        onClose={close}
        onDone={(answers) => {
          keep(...drafts(answers));
          close();
          // What can be done instead stands on Today.
          if (what.what === 'hold') void go('/');
        }}
      />
    );
  }
}
