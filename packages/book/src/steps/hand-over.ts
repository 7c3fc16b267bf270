import { byEntry, defineStep } from './define-step.js';

export const handOver = defineStep({ record: 'hand-over', endsIn: 'handed-over', holdsAll: true, stands: byEntry('handed-over') });
