import { defineStep } from './define-step.js';

export const patternStep = defineStep({
  record: 'pattern',
  endsIn: 'pattern',
  stands({ record }, _, { patterns }) {
    const run = patterns.find(({ setting }) => setting.ref === record.setting);
    if (run?.phase === 'good' && run.first.length === 0) return { done: true };
    return { done: false, ...(run?.tries.at(-1)?.verdict === 'out' ? { problem: 'the last pattern wants a move' } : {}) };
  },
});
