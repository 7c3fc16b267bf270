import type { Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useHere } from '../use-job.ts';
import { dropDrafts } from '../../kit/prefs.ts';
import { unkeptKey } from './use-readings.ts';
import { Care } from '../../kit/pieces.tsx';

/** Somebody else kept this step while something was half typed here: it is theirs to keep as well, or to let go. */
export function DoneMeanwhile({ step }: { readonly step: Step }): ReactElement {
  const { job, state, personName } = useHere();
  const last = state.live.findLast((entry) => entry.step === step.ref);
  return (
    <Care title="Kept meanwhile">
      {last ? `${personName(last.personId)} kept this step while you were at it.` : 'This step was kept while you were at it.'} What you
      have here is not kept: keep it as well, or let it go.{' '}
      <Button variant="plain" onClick={() => dropDrafts(unkeptKey(`${job.id}.${step.ref}`))}>
        Let mine go
      </Button>
    </Care>
  );
}
