import { defineStep, outOf } from './define-step.js';

export const torque = defineStep({
  record: 'torque',
  endsIn: 'pull',
  tool: () => 'torque-wrench',
  stands({ record }, _, { joints }) {
    const run = joints.find(({ joint }) => joint.ref === record.joint);
    const stands = outOf(run?.done ?? 0, run?.total ?? 0);
    return run && run.undone > 0 && !stands.done ? { ...stands, problem: 'pulled before, and undone again: all of it anew' } : stands;
  },
});
