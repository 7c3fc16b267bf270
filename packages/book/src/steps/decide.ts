import { defineStep, outOf } from './define-step.js';

export const decideStep = defineStep({
  record: 'decide',
  endsIn: 'decision',
  stands: (_, __, { decisions }) => outOf(decisions.filter(({ entry }) => entry).length, decisions.length),
});
