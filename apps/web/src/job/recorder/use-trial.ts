import type { Step } from '@jubb/sheet';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../use-job.ts';

/** Whether a joint is pulled for a trial now: old fasteners, no locker, to read what lies under it. Kept over a reload. */
export function useTrial(step: Step): readonly [isTrial: boolean, setTrial: (isTrial: boolean) => void] {
  const { job } = useHere();
  const [isTrial, setTrial] = useDraft<boolean>(`${job.id}.${step.ref}.trial`, false);
  return [isTrial, (next) => setTrial(next ? true : undefined)];
}
