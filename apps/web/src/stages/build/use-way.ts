import { isKind } from '@jubb/book';
import type { Step, Way } from '@jubb/sheet';
import { useHere } from '../../job/use-job.ts';

export interface ChosenWay {
  readonly chosen: Way | undefined;
  /** What was done to this very unit the last time. */
  readonly before: string | undefined;
}

/** The way of a step: as it was picked here, else as on this unit before, else the shop's, else the first. */
export function useWay({ ref, ways = [] }: Step): ChosenWay {
  const { job, state } = useHere();
  const picked = state.live.filter(isKind('way')).findLast(({ step }) => step === ref)?.payload.way;
  const before = job.asLeft?.ways.find(({ step }) => step === ref)?.way;
  const chosen =
    ways.find((way) => way.ref === picked) ??
    ways.find((way) => way.ref === before) ??
    ways.find(({ shopDefault }) => shopDefault) ??
    ways[0];
  return { chosen, before };
}
