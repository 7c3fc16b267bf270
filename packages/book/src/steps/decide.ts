import { defineStep, outOf } from './define-step.js';

export const decideStep = defineStep({
  record: 'decide',
  endsIn: 'decision',
  // Where a job has no part to decide about, that is decided.
  stands: (_, __, { decisions }) =>
    decisions.length === 0 ? { done: true } : outOf(decisions.filter(({ entry }) => entry).length, decisions.length),
});
