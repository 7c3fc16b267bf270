import { byEntry, defineStep, limitTool } from './define-step.js';

export const readingStep = defineStep({ record: 'reading', stands: byEntry('reading'), tool: limitTool });
