import { type SheetFile, find, partName } from '@jubb/sheet';
import { isKind, liveOf, type AnyKeptEntry } from './entries/kept.js';
import type { AsLeft } from './views.js';

/** What a finished job made of its unit: the ways that were gone, and the parts that are not as they were. */
export function leftBy(sheet: SheetFile, entries: readonly AnyKeptEntry[]): Pick<AsLeft, 'ways' | 'parts'> {
  const live = liveOf(entries);
  const ways = sheet.steps.flatMap((step) => {
    const picked = live.filter(isKind('way')).findLast((entry) => entry.step === step.ref)?.payload.way;
    const way = find(step.ways ?? [], picked);
    return way ? [{ step: step.ref, title: step.title, way: way.ref, name: way.name }] : [];
  });
  const parts = sheet.parts.flatMap((part) => {
    const decided = live.filter(isKind('decision')).findLast(({ payload }) => payload.part === part.ref)?.payload;
    if (!decided || decided.fate === 'reuse') return [];
    return [{ name: partName(sheet, part.ref), fate: decided.fate, reason: decided.reason ?? null }];
  });
  return { ways, parts };
}
