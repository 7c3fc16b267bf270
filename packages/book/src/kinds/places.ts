import { find, type Joint, type SheetFile } from '@jubb/sheet';
import type { Wrong } from './define-kind.js';

/** A place that the joint does not have. */
export function placeWrong(field: string, joint: Joint, given: string): Wrong {
  return { field: `payload.${field}`, allowed: `must be from 0 to ${joint.count - 1}: the joint has ${joint.count} fasteners`, given };
}

/** What belongs to another step than the one that it is said at. */
export function ofAnother(field: 'seal' | 'fluid', ref: string, step: string | null, sheet: SheetFile): readonly Wrong[] {
  const due = find(sheet.steps, step ?? undefined)?.record[field];
  return due === undefined || due === ref
    ? []
    : [{ field: `payload.${field}`, allowed: `is not the one of this step: ${due}`, given: ref }];
}
