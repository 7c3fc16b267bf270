import { find } from '@jubb/sheet';
import { wrong, type Given, type Held, type Refusal } from '../kinds/define-kind.js';
import { leftWords, notReady, notReadyWords } from '../leads.js';
import { isBefore } from '../waits.js';

/** What is done before its time: refused, until the clock has run out or somebody said that it is ready. */
export function clockWrong({ step: ref, takenAt }: Pick<Given, 'step' | 'takenAt'>, held: Held): Refusal | undefined {
  const step = find(held.sheet.steps, ref ?? undefined);
  if (!step) return undefined;
  const missing = notReady(step, held.live, takenAt);
  if (missing) return wrong({ field: 'step', given: step.ref, allowed: notReadyWords(missing, takenAt) });
  const state = held.state();
  const runs = state.clocks.find((clock) => clock.until > takenAt && isBefore(state, clock, step));
  if (!runs) return undefined;
  const allowed = `waits, ${leftWords(runs.until, takenAt)}: ${runs.what}; say that it is ready where it is`;
  return wrong({ field: 'step', given: step.ref, allowed });
}
