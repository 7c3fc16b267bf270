import { byEntry, defineStep } from './define-step.js';

export const arrival = defineStep({ record: 'arrival', stands: byEntry('finding') });
