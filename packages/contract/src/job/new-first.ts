import type { AnyKeptEntry } from '../entry/kept.js';
import type { Joint, SheetFile, Step } from '../sheet/file.js';
import { find } from '../sheet/resolve.js';
import { sinceUndone } from './joint-run.js';

/** Why the new part is seen before a step: it cannot be undone, or its fasteners are new each time. */
export type NewFirst = { readonly why: 'no way back' } | { readonly why: 'new each time'; readonly joint: Joint };

export function newFirst(sheet: SheetFile, step: Step | undefined): NewFirst | undefined {
  if (!step) return undefined;
  if (step.noWayBack) return { why: 'no way back' };
  // What is loosened on arrival or in the strip goes by the old ones.
  const joint = step.stage === 'build' || step.stage === 'prove' ? find(sheet.joints, step.record.joint) : undefined;
  return joint?.renewEachTime ? { why: 'new each time', joint } : undefined;
}

/** The same where it was not seen yet; the new ones of a joint that was undone again have become old ones. */
export function newMissing(sheet: SheetFile, step: Step | undefined, live: readonly AnyKeptEntry[]): NewFirst | undefined {
  const needs = newFirst(sheet, step);
  const since = needs?.why === 'new each time' ? sinceUndone(needs.joint, live) : live;
  return since.some(({ kind, step: of }) => kind === 'replacement-here' && of === step?.ref) ? undefined : needs;
}
