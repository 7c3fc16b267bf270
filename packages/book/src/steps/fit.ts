import { defineStep } from './define-step.js';

export const fitStep = defineStep({
  record: 'fit',
  endsIn: 'fitted',
  stands: ({ record }, _, { fits }) => ({ done: fits.some(({ fit, fitted }) => fit.ref === record.fit && fitted !== undefined) }),
});
