import type { Joint } from '@jubb/sheet';
import type { Wrong } from './define-kind.js';

/** A place that the joint does not have. */
export function placeWrong(field: string, joint: Joint, given: string): Wrong {
  return { field: `payload.${field}`, allowed: `must be from 0 to ${joint.count - 1}: the joint has ${joint.count} fasteners`, given };
}
