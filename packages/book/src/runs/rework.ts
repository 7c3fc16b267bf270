import { type Limit, type SheetFile, find, limitQuantity, limitWindow } from '@jubb/sheet';
import { isKind, type AnyKeptEntry } from '../entries/kept.js';
import { verdictOf } from '../measured/verdict.js';
import { readingFigure } from '../measured/working-for.js';
import { formatQuantity } from '@jubb/core';

/** What can be done about a part short of renewing it, and what that leaves. */
export interface Rework {
  readonly limit: string;
  /** What the sheet says to do when it is out. */
  readonly says: string;
  /** Metal that may still come off before the limit, or that is gone already. */
  readonly leaves: string | undefined;
}

/** For each limit of a part that was looked at or measured and is not plainly in: what the sheet says, and what is left to take off. */
export function reworkOf(sheet: SheetFile, part: string, live: readonly AnyKeptEntry[]): readonly Rework[] {
  return sheet.limits
    .filter((limit) => limit.part === part)
    .flatMap((limit): readonly Rework[] => {
      const reading = live.filter(isKind('reading')).findLast(({ payload }) => payload.limit === limit.ref);
      const seen = live.filter(isKind('look')).findLast(({ payload }) => payload.limit === limit.ref);
      const look = seen && find(limit.looks ?? [], seen.payload.look)?.verdict;
      const verdict = reading && verdictOf(reading);
      const leaves = reading && leavesWords(limit, readingFigure(limit, reading.payload));
      const isDoubtful = verdict === 'out' || verdict === 'unsure' || look === 'out' || look === 'unsure';
      // A surface that is marked is polished within the size that is measured beside it.
      if (isDoubtful) return [{ limit: limit.name, says: limit.whenOut, leaves }];
      return leaves === undefined ? [] : [{ limit: limit.name, says: '', leaves }];
    });
}

/** Wear takes metal off a shaft and out of a bore: towards the end of the window that is further from new. */
function leavesWords(limit: Limit, figure: number): string | undefined {
  if (limit.kind !== 'size' || limitQuantity(limit) !== 'length') return undefined;
  const { from, to } = limitWindow(limit);
  const fresh = limit.asNew?.from ?? limit.asNew?.to;
  if (fresh === undefined || from === undefined || to === undefined) return undefined;
  const isShaft = Math.abs(to - middleOf(limit)) < Math.abs(middleOf(limit) - from);
  const left = isShaft ? figure - from : to - figure;
  const size = formatQuantity(Math.abs(left), 'length');
  return left >= 0 ? `${size} may still come off` : `${size} too much is gone`;
}

/** Middle of the window as new. */
function middleOf(limit: Limit): number {
  const { from, to } = limitWindow({ ...limit, service: limit.asNew ?? limit.service! });
  return ((from ?? to ?? 0) + (to ?? from ?? 0)) / 2;
}
