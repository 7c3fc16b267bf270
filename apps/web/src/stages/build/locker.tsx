import { isKind } from '@jubb/book';
import type { Joint, Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useHere } from '../../job/use-job.ts';

/** Anaerobic lockers begin to set between metals in 5 to 20 minutes: common practice; the bottle says which. */
const OPEN_S = 5 * 60;
const WHAT = 'threadlocker: all pulled by now';

export function isLocked({ surface }: Pick<Joint, 'surface'>): boolean {
  return surface === 'threadlocker';
}

/** Threadlocker: where it goes, where it must not run, and its open time from the first drop. */
export function Locker({ joint, step }: { readonly joint: Joint; readonly step: Step }): ReactElement | null {
  const { state, keep } = useHere();
  if (!isLocked(joint)) return null;
  const begun = state.live.filter(isKind('wait')).some((entry) => entry.step === step.ref && entry.payload.what === WHAT);
  return (
    <div className="mb-2">
      <p className="mb-1">
        <b className="brass">{joint.condition}</b>: on clean, dry threads, into the female thread where the hole ends blind. Not on plastic,
        nor where it can run into a bearing, a seal or a sensor. A locked thread takes its torque wet:{' '}
        {joint.torque?.figure ?? 'as worked out'} is for that.
      </p>
      {begun ? null : (
        <Button variant="plain" onClick={() => keep({ kind: 'wait', payload: { what: WHAT, seconds: OPEN_S }, step: step.ref })}>
          First drop is on: start its open time, 5 min
        </Button>
      )}
    </div>
  );
}
