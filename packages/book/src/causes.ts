import { type Cause, type Limit, type SheetFile, find, baseRef } from '@jubb/sheet';
import type { AnyKeptEntry } from './entries/kept.js';
import { verdictOf } from './measured/verdict.js';
import { rankCauses, type LikelyCause } from '@jubb/core';

export interface CauseLine extends LikelyCause {
  readonly cause: Cause;
}

export interface Causes {
  readonly lines: readonly CauseLine[];
  /** Checks that speak for or against a cause and are not done yet, the most telling first. */
  readonly checks: readonly { readonly limit: Limit; readonly tells: readonly string[] }[];
}

/** Which cause is likely behind what was complained of, after the readings so far. */
export function likelyCauses(sheet: SheetFile, picks: readonly string[], entries: readonly AnyKeptEntry[]): Causes {
  const picked = new Set(picks);
  const verdicts = verdictsOf(sheet, entries);
  const concerned = (sheet.causes ?? []).flatMap((cause) => {
    const weight = Math.max(0, ...cause.blames.filter(({ complaint }) => picked.has(complaint)).map((blame) => blame.weight));
    return weight > 0 ? [{ cause, weight }] : [];
  });
  const ranked = rankCauses(
    concerned.map(({ cause, weight }) => ({
      id: cause.ref,
      weight,
      signs: (cause.signs ?? [])
        .filter(({ limit, when }) => verdicts.get(limit) === when)
        .map(({ limit, speaks }) => ({ check: limit, speaks })),
    })),
  );
  const tells = new Map<string, string[]>();
  for (const { cause } of concerned)
    for (const { limit } of cause.signs ?? []) {
      if (verdicts.has(limit)) continue;
      const names = tells.get(limit) ?? [];
      if (!names.includes(cause.name)) tells.set(limit, [...names, cause.name]);
    }
  return {
    lines: ranked.flatMap((line) => {
      const cause = find(sheet.causes ?? [], line.id);
      return cause ? [{ ...line, cause }] : [];
    }),
    checks: [...tells]
      .flatMap(([ref, names]) => {
        const limit = sheet.limits.find((one) => baseRef(one) === ref);
        return limit ? [{ limit, tells: names }] : [];
      })
      .toSorted((a, b) => b.tells.length - a.tells.length),
  };
}

/**
 * What each check of the sheet says, the last of each side counting: out where one side is out, whatever the other is;
 * in only where every side that was read is in.
 */
function verdictsOf(sheet: SheetFile, entries: readonly AnyKeptEntry[]): ReadonlyMap<string, string> {
  const bySide = new Map<string, string>();
  for (const entry of entries) {
    if (entry.kind !== 'reading' && entry.kind !== 'look') continue;
    const verdict = entry.kind === 'reading' ? verdictOf(entry) : lookVerdict(sheet, entry.payload);
    if (verdict) bySide.set(entry.payload.limit, verdict);
  }
  const all = new Map<string, string[]>();
  for (const limit of sheet.limits) {
    const verdict = bySide.get(limit.ref);
    if (verdict !== undefined) all.set(baseRef(limit), [...(all.get(baseRef(limit)) ?? []), verdict]);
  }
  return new Map([...all].map(([ref, found]) => [ref, ['out', 'unsure'].find((worse) => found.includes(worse)) ?? 'in']));
}

function lookVerdict(sheet: SheetFile, { limit: ref, look }: { readonly limit: string; readonly look: string }): string | undefined {
  return find(find(sheet.limits, ref)?.looks ?? [], look)?.verdict;
}
