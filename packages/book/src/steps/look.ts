import { byEntry, defineStep, limitTool } from './define-step.js';

export const lookStep = defineStep({ record: 'look', stands: byEntry('look'), tool: limitTool });
