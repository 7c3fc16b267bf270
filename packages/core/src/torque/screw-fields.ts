import type { ChoiceField, NumberField, TextField } from '../working/describe.js';
import { mm } from '../quantity/write.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { parseThread, type Thread } from '../threads/thread.js';
import { headDiameter, strengthAt, type Head } from './screw.js';
import { CLASS_CHOICES, STRENGTHS, type Strength } from './screw-tables.js';

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
  choices: CLASS_CHOICES,
  help: 'As stamped on the head. No mark: the lowest, never a guess.',
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

/** A screw with what its class stands and where its head rubs. */
export interface Screw {
  readonly thread: Thread;
  readonly strength: Strength;
  /** Mean diameter under the head, mm. */
  readonly headMean: number;
}

interface ScrewAsked {
  readonly thread: string;
  readonly propertyClass: string;
  readonly head: Head;
  readonly face: number | undefined;
}

/** Refuses a thread that is none, a class over its sizes, and a face that is no wider than the screw. */
export function readScrew({ thread: text, propertyClass, head, face }: ScrewAsked): Result<Screw> {
  const read = screwThread(text);
  if (!read.ok) return read;
  const thread = read.value;
  const strength = strengthOf(propertyClass, thread);
  if (!strength.ok) return strength;
  const headMean = face ?? headDiameter(thread, head);
  if (headMean <= thread.diameter)
    return refuse({
      code: 'cannot-be',
      field: FACE_FIELD.name,
      label: FACE_FIELD.label,
      received: mm(headMean),
      bound: `the face is wider than the screw, ${mm(thread.diameter)}`,
    });
  return ok({ thread, strength: strength.value, headMean });
}

export function strengthOf(propertyClass: string, { diameter }: Thread): Result<Strength> {
  const strength = strengthAt(propertyClass, diameter);
  if (strength) return ok(strength);
  return refuse({
    code: 'outside-method',
    field: CLASS_FIELD.name,
    label: CLASS_FIELD.label,
    received: `${propertyClass} of ${mm(diameter)}`,
    bound: `to ${mm(STRENGTHS[propertyClass]?.at(-1)?.to ?? 0)}, where its standard ends`,
  });
}
