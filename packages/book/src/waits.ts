import { type Step, type Wait, baseOf } from '@jubb/sheet';
import type { Clock, JobState } from './state.js';
import type { PayloadOf } from './entries/kept.js';
import { isActed } from './steps/define-step.js';
import { isPutOff } from './put-off.js';

interface WaitBegun {
  readonly kind: 'wait';
  readonly payload: PayloadOf<'wait'>;
  readonly step: string;
}

/**
 * The clocks that begin by themselves with what was just done: those of the steps that are done now, looked at or not, and were
 * not before. What the job comes to is worked out only where a clock is still to begin: it is asked at every key.
 */
export function waitsBegun(before: JobState, comesTo: () => JobState): readonly WaitBegun[] {
  if (!before.steps.some(({ step: { ref, wait } }) => wait && !hasBegun(before, ref, wait.what))) return [];
  const after = comesTo();
  const wereDone = new Set(before.steps.filter(isActed).map(({ step }) => step.ref));
  return after.steps.flatMap((state): readonly WaitBegun[] => {
    const { step } = state;
    const { wait, ref } = step;
    if (!wait || !isActed(state) || wereDone.has(ref) || hasBegun(after, ref, wait.what) || isPutOff(after.live, ref)) return [];
    return [waitOf(step, wait)];
  });
}

/** The clock of a step, or of what is readied for it, as it is begun. */
export function waitOf({ ref }: Step, { what, time, hot }: Wait): WaitBegun {
  return { kind: 'wait', payload: { what, seconds: Math.round(baseOf(time, 'time')), ...(hot ? { hot } : {}) }, step: ref };
}

/** Whether the clock of a step was begun, whether or not it still runs. */
export function hasBegun({ live }: Pick<JobState, 'live'>, step: string, what: string): boolean {
  return live.some((entry) => entry.kind === 'wait' && entry.step === step && entry.payload.what === what);
}

/** A clock that a step waits for: of a step that it names, or of the one right before it. */
export function isBefore({ sheet }: Pick<JobState, 'sheet'>, clock: Clock, step: Step): boolean {
  if (clock.step === null || clock.step === step.ref) return false;
  const order = sheet.steps;
  const before = order[order.findIndex(({ ref }) => ref === step.ref) - 1]?.ref;
  return clock.step === before || (step.after?.includes(clock.step) ?? false);
}

/** What a clock holds back: the step that it makes something ready for, else the first one that waits for it. */
export function heldBy(state: Pick<JobState, 'sheet' | 'steps'>, clock: Clock): Step | undefined {
  const open = state.steps.filter(({ done }) => !done).map(({ step }) => step);
  return open.find(({ ref, lead }) => ref === clock.step && lead?.what === clock.what) ?? open.find((step) => isBefore(state, clock, step));
}
