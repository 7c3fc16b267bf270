import type { ChoiceField, NumberField, TextField } from '../working/describe.js';
import { refuse, type Result } from '../working/issues.js';
import { parseThread, type Thread } from '../threads/thread.js';
import { CLASS_CHOICES } from './screw-tables.js';

/** Fields that every working of a screw asks alike. */
export const THREAD_FIELD = {
  kind: 'text',
  name: 'thread',
  label: 'Thread',
  longest: 40,
  help: 'M8, M12x1.25, 1/2-20 UNF.',
} as const satisfies TextField;

export const CLASS_FIELD = {
  kind: 'choice',
  name: 'propertyClass',
  label: 'Class',
  default: '8.8',
  choices: CLASS_CHOICES,
  help: 'As stamped on the head. No mark: take the lowest.',
} as const satisfies ChoiceField;

export const HEAD_FIELD = {
  kind: 'choice',
  name: 'head',
  label: 'Head',
  default: 'hex',
  choices: [
    { id: 'hex', label: 'hexagon' },
    { id: 'socket', label: 'socket cap' },
  ],
  help: 'A flange or a washer under it: give the diameter of its face instead.',
} as const satisfies ChoiceField;

export const FACE_FIELD = {
  kind: 'number',
  name: 'face',
  label: 'Mean diameter under the head',
  symbol: 'DKm',
  quantity: 'length',
  above: 0,
  max: 500,
  optional: true,
  help: 'Half of bearing face and hole together. From ISO 4014, ISO 4762 and ISO 273 when left empty.',
} as const satisfies NumberField;

/** A thread with 60° flanks that does not taper: one that a torque can be worked out for. */
export function screwThread(text: string): Result<Thread> {
  const thread = parseThread(text);
  return thread && thread.flank === 30 && !thread.tapered
    ? { ok: true, value: thread }
    : refuse({ code: 'not-a-thread', field: 'thread', label: THREAD_FIELD.label, received: text });
}
