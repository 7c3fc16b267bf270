import { readsAsFound } from '../runs/setting-run.js';
import { defineStep, settingAt, settingTool } from './define-step.js';

export const settingStep = defineStep({
  record: 'setting',
  endsIn: 'end-play',
  tool: settingTool,
  stands(step, own, job) {
    if (readsAsFound(step)) return { done: own.some((entry) => entry.kind === 'end-play') };
    const run = settingAt(step, job);
    if (run?.phase === 'set') return { done: true };
    return { done: false, ...(run?.last?.verdict === 'unsure' ? { problem: 'the last reading is unsure' } : {}) };
  },
});
