import { byEntry, defineStep } from './define-step.js';

export const signStep = defineStep({ record: 'sign', endsIn: 'sign', holdsAll: true, stands: byEntry('sign') });
