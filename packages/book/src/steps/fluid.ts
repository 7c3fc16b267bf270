import { byEntry, defineStep } from './define-step.js';

export const fluidStep = defineStep({ record: 'fluid', stands: byEntry('fluid') });
