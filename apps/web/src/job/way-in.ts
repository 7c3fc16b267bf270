import type { Stage } from '@jubb/sheet';

/** Stages that are worked at a desk. */
const AT_A_DESK: readonly Stage[] = ['decide', 'hand-over'];

/** Where a job is taken up: hands are at the bench; what is decided or handed over has its page. */
export function takeUpAt(jobId: string, stage: Stage): string {
  return AT_A_DESK.includes(stage) ? `/jobs/${jobId}/${stage}` : `/bench/${jobId}`;
}

/** A screen that is worked with fingers. */
export const isTouch = (): boolean => window.matchMedia('(pointer: coarse)').matches;
