import type { Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { useHere } from '../use-job.ts';
import { dropDrafts } from '../../kit/prefs.ts';
import { unkeptKey } from './use-readings.ts';

/** Somebody else kept this step while something was half typed here: it is theirs to keep as well, or to let go. */
export function DoneMeanwhile({ step }: { readonly step: Step }): ReactElement {
  const { job, state, personName } = useHere();
  const last = state.live.findLast((entry) => entry.step === step.ref);
  return (
    <div className="care" role="note">
      <b>Kept meanwhile</b>
      {last ? `${personName(last.personId)} kept this step while you were at it.` : 'This step was kept while you were at it.'} What you
      have here is not kept: keep it as well, or let it go.{' '}
      <button type="button" className="btn btn-plain" onClick={() => dropDrafts(unkeptKey(`${job.id}.${step.ref}`))}>
        Let mine go
      </button>
    </div>
  );
}
