import { isKind } from '../entries/kept.js';
import { verdictOf } from '../measured/verdict.js';
import { isPutAside } from '../runs/seal-run.js';
import { defineStep } from './define-step.js';

export const seal = defineStep({
  record: 'seal',
  stands({ record }, own, { live }) {
    const out = live.filter(isKind('old-seal-out')).findLast(({ payload }) => payload.seal === record.seal);
    if (out && !out.payload.whole) return { done: false, problem: 'pieces of the old one are still in there' };
    if (record.seal !== undefined && isPutAside(record.seal, live))
      return { done: false, problem: 'the new one is not whole: another one goes in' };
    const last = own.at(-1);
    return last && verdictOf(last) === 'out'
      ? { done: false, problem: 'the depth is out' }
      : { done: own.some(({ kind }) => kind === 'seal-fitted') };
  },
});
