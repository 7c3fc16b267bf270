import { type SheetFile, find, partName } from '@jubb/sheet';
import { isKind, liveOf, type AnyKeptEntry, type Payloads } from './entries/kept.js';
import type { AsLeft } from './views.js';

/** A way that a job begins with. */
export interface Stay {
  readonly step: string;
  readonly payload: Payloads['way'];
}

/** The ways that the unit was left with and that hold on another job of it, by that job's sheet. */
export function staying({ number, ways }: Pick<AsLeft, 'number' | 'ways'>, { steps }: Pick<SheetFile, 'steps'>): readonly Stay[] {
  return ways.flatMap(({ step, way, agreed }) =>
    find(find(steps, step)?.ways ?? [], way)?.stays ? [{ step, payload: { way, left: number, ...(agreed ? { agreed } : {}) } }] : [],
  );
}

/** What a finished job made of its unit: the ways that were gone, and the parts that are not as they were. */
export function leftBy(sheet: SheetFile, entries: readonly AnyKeptEntry[]): Pick<AsLeft, 'ways' | 'parts'> {
  const live = liveOf(entries);
  const ways = sheet.steps.flatMap((step) => {
    const picked = live.filter(isKind('way')).findLast((entry) => entry.step === step.ref)?.payload;
    const way = find(step.ways ?? [], picked?.way);
    const { agreed } = picked ?? {};
    return way ? [{ step: step.ref, title: step.title, way: way.ref, name: way.name, ...(agreed ? { agreed } : {}) }] : [];
  });
  const parts = sheet.parts.flatMap((part) => {
    const decided = live.filter(isKind('decision')).findLast(({ payload }) => payload.part === part.ref)?.payload;
    if (!decided || decided.fate === 'reuse') return [];
    return [{ name: partName(sheet, part.ref), fate: decided.fate, reason: decided.reason ?? null }];
  });
  return { ways, parts };
}
