import type { StepState } from '@jubb/book';
import { useState } from 'react';
import { useUnkept } from '../kit/prefs.ts';
import { unkeptKey } from './recorder/use-readings.ts';

interface InHand {
  readonly inHand: StepState | undefined;
  /** Something typed at it is not kept yet. */
  readonly isUnkept: boolean;
}

/**
 * The step that was asked for; else the one at which something typed is not kept, also when somebody else did it
 * meanwhile; else the first that is not done.
 */
export function useStepInHand(jobId: string, steps: readonly StepState[], asked: string | null | undefined): InHand {
  const [stay, setStay] = useState<string>();
  const isUnkept = useUnkept(unkeptKey(`${jobId}.${stay ?? ''}`));
  const inHand =
    steps.find(({ step }) => step.ref === asked) ??
    (isUnkept ? steps.find(({ step }) => step.ref === stay) : undefined) ??
    steps.find(({ done }) => !done);
  if (inHand && inHand.step.ref !== stay) setStay(inHand.step.ref);
  return { inHand, isUnkept };
}
