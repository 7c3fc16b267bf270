import { find } from '@jubb/sheet';
import { clockedBefore, later, leftWords, notReady, notReadyWords } from '../leads.js';
import { wrong, type Given, type Held, type Refusal } from '../kinds/define-kind.js';
import { isKind } from './kept.js';

/** What is done before its time: refused, until the clock has run out or somebody said that it is ready. */
export function clockWrong(
  { step: ref, takenAt }: Pick<Given, 'step' | 'takenAt'>,
  { sheet, live }: Pick<Held, 'sheet' | 'live'>,
): Refusal | undefined {
  const step = find(sheet.steps, ref ?? undefined);
  if (!step) return undefined;
  const missing = notReady(step, live, takenAt);
  if (missing) return wrong({ field: 'step', given: step.ref, allowed: notReadyWords(missing, takenAt) });
  const over = new Set(live.filter(isKind('wait-over')).map(({ payload }) => payload.wait));
  const before = new Set(clockedBefore(sheet, step).map((one) => one.ref));
  const runs = live
    .filter(isKind('wait'))
    .find(
      (entry) =>
        entry.step !== null && before.has(entry.step) && !over.has(entry.id) && later(entry.takenAt, entry.payload.seconds) > takenAt,
    );
  if (!runs) return undefined;
  const left = leftWords(later(runs.takenAt, runs.payload.seconds), takenAt);
  return wrong({ field: 'step', given: step.ref, allowed: `waits, ${left}: ${runs.payload.what}; say that it is ready where it is` });
}
