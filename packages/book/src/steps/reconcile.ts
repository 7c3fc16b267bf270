import { twiceWords } from '../strip/counts.js';
import { defineStep, outOf } from './define-step.js';

export const reconcileStep = defineStep({
  record: 'reconcile',
  holdsAll: true,
  stands(_, __, { sheet, reconcile, conflicts }) {
    // Where nothing is taken off, nothing is counted back.
    if (reconcile.length === 0 && sheet.steps.every(({ record }) => record.kind !== 'count')) return { done: true };
    const open = reconcile.filter((line) => line.counted !== line.expected);
    const wrong = open.find((line) => line.counted !== undefined);
    const twice = conflicts.find(({ entries }) => entries.some((entry) => entry.kind === 'counted'));
    if (twice) return { ...outOf(0, reconcile.length), problem: twiceWords(twice) };
    return {
      ...outOf(reconcile.length - open.length, reconcile.length),
      ...(wrong ? { problem: `${wrong.name}: ${wrong.counted ?? 0} on the bench, ${wrong.expected} came off` } : {}),
    };
  },
});
