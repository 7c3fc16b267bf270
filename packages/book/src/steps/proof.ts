import { defineStep, settingAt, settingTool } from './define-step.js';

export const proof = defineStep({
  record: 'proof',
  endsIn: 'end-play',
  tool: settingTool,
  stands(step, _, job) {
    const run = settingAt(step, job);
    if (!run?.proved) return { done: false };
    const { verdict, accepted } = run.proved;
    return verdict === 'in' || accepted !== undefined
      ? { done: true }
      : { done: false, problem: `${run.setting.name} is ${verdict ?? 'not judged'}` };
  },
});
