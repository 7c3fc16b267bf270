import { defineStep, outOf } from './define-step.js';

export const torque = defineStep({
  record: 'torque',
  endsIn: 'pull',
  tool: () => 'torque-wrench',
  stands({ record }, _, { joints }) {
    const run = joints.find(({ joint }) => joint.ref === record.joint);
    return outOf(run?.done ?? 0, run?.total ?? 0);
  },
});
