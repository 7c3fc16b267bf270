import { reshaped, scopeSheet, type JobScope, type Part, type SheetFile } from '@jubb/sheet';
import { likelyCauses } from '../causes.js';

/** A part that fails in fewer cases than this is not spoken of before the unit is open. */
const LIKELY = 0.15;

/** A part that may be had before the unit is open: why it is spoken of, and how likely it is renewed where that is not sure. */
export interface PartFirstLine {
  readonly part: Part;
  readonly when: 'sure' | 'likely' | 'known when open';
  /** Of the causes that were picked, 0 to 1; for what is likely. */
  readonly chance?: number;
}

/** Parts that are surely renewed, that are likely by what is complained of, and that only show when it is open. */
export function partsFirst(file: SheetFile, scope: JobScope): readonly PartFirstLine[] {
  const scoped = reshaped(scopeSheet(file, { tasks: scope.tasks, place: scope.place }).file, { variant: scope.variant });
  const { lines } = likelyCauses(file, scope.picks, []);
  const chances = new Map<string, number>();
  for (const { cause, chance } of lines) for (const ref of cause.parts ?? []) chances.set(ref, Math.max(chances.get(ref) ?? 0, chance));
  return scoped.parts.flatMap((part): PartFirstLine[] => {
    if (part.knownWhenOpen) return [{ part, when: 'known when open' }];
    if (part.policy === 'renew') return [{ part, when: 'sure' }];
    const chance = chances.get(part.ref) ?? 0;
    return chance >= LIKELY ? [{ part, when: 'likely', chance }] : [];
  });
}
