import { byEntry, defineStep } from './define-step.js';

export const tickStep = defineStep({ record: 'tick', stands: byEntry('tick') });
