import { type Step, baseOf } from '@jubb/sheet';
import type { Clock, JobState } from './state.js';
import type { PayloadOf } from './entries/kept.js';

interface WaitBegun {
  readonly kind: 'wait';
  readonly payload: PayloadOf<'wait'>;
  readonly step: string;
}

/** The clocks that begin by themselves with what was just done: those of the steps that are done now, and were not before. */
export function waitsBegun(before: JobState, after: JobState): readonly WaitBegun[] {
  const wereDone = new Set(before.steps.filter(({ done }) => done).map(({ step }) => step.ref));
  return after.steps.flatMap(({ step, done }): readonly WaitBegun[] => {
    const { wait, ref } = step;
    if (!wait || !done || wereDone.has(ref) || hasBegun(after, ref, wait.what)) return [];
    return [waitOf(step, wait)];
  });
}

/** The clock of a step, as it is begun. */
export function waitOf({ ref }: Step, { what, time }: NonNullable<Step['wait']>): WaitBegun {
  return { kind: 'wait', payload: { what, seconds: Math.round(baseOf(time, 'time')) }, step: ref };
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

/** What a clock holds back: the first step that waits for it. */
export function heldBy(state: Pick<JobState, 'sheet' | 'steps'>, clock: Clock): Step | undefined {
  return state.steps.find(({ step, done }) => !done && isBefore(state, clock, step))?.step;
}
