import { partName } from '@jubb/sheet';
import { countedOff, countsOf, twiceWords, unequal, type CountOf } from '../strip/counts.js';
import { defineStep, outOf } from './define-step.js';

export const count = defineStep({
  record: 'count',
  stands(step, _, { sheet, ledger, conflicts }) {
    const counts = countsOf(sheet, step);
    const twice = conflicts.find(({ entries }) => entries.some((entry) => entry.kind === 'came-off' && entry.step === step.ref));
    if (twice) return { ...outOf(0, counts.length), problem: twiceWords(twice) };
    const off = (counted: CountOf): number => countedOff(step, counted, ledger);
    const missing = counts.filter((counted) => off(counted) === 0);
    const wrong = counts.find((counted) => off(counted) > 0 && off(counted) !== counted.count);
    const problem = wrong
      ? `${partName(sheet, wrong.part)}: ${off(wrong)} counted, the sheet says ${wrong.count}`
      : counts.map(({ part }) => unequal(sheet, part, ledger)).find((words) => words !== undefined);
    return { ...outOf(counts.length - missing.length, counts.length), ...(problem ? { problem } : {}) };
  },
});
