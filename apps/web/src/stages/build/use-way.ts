import { isKind } from '@jubb/book';
import { wayOf, type Step, type Way } from '@jubb/sheet';
import { useHere } from '../../job/use-job.ts';

export interface ChosenWay {
  readonly chosen: Way | undefined;
  /** What was done to this very unit the last time. */
  readonly before: string | undefined;
}

/** The way of a step that its sheet is shaped by: as it was picked here, else the shop's, else the first. */
export function useWay({ ref, ways = [] }: Step): ChosenWay {
  const { job, state } = useHere();
  const picked = state.live.filter(isKind('way')).findLast(({ step }) => step === ref)?.payload.way;
  const before = job.asLeft?.ways.find(({ step }) => step === ref)?.way;
  return { chosen: wayOf({ ways }, picked), before };
}
