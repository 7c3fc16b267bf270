import { isKind, type AnyKeptEntry } from '../entries/kept.js';

/** What a job has out of stores by its entries: stock line → pieces. */
export type OutOfStores = ReadonlyMap<string, number>;

/**
 * New parts taken in hand, and the shims that lie in at each setting. A pack that takes the place of another brings that
 * one back to the shelf; so does an entry that is struck.
 */
export function outOfStores(live: readonly AnyKeptEntry[]): OutOfStores {
  const out = new Map<string, number>();
  const add = (item: string, pieces: number): void => void out.set(item, (out.get(item) ?? 0) + pieces);
  for (const { payload } of live.filter(isKind('replacement-here'))) if (payload.item !== undefined) add(payload.item, payload.count ?? 1);
  for (const { item, count } of [...packsIn(live).values()].flat()) add(item, count);
  return out;
}

/** Setting → the shims out of stores that lie in there, by the last pack that was put in. */
export function packsIn(live: readonly AnyKeptEntry[]): ReadonlyMap<string, readonly { readonly item: string; readonly count: number }[]> {
  const packs = new Map<string, readonly { readonly item: string; readonly count: number }[]>();
  for (const { payload } of live.filter(isKind('worked')))
    if (payload.setting !== undefined && payload.taken) packs.set(payload.setting, payload.taken);
  return packs;
}

/** What moves between two states of a job: plus is taken out, minus comes back. */
export function storesMoves(before: OutOfStores, after: OutOfStores): readonly { readonly item: string; readonly pieces: number }[] {
  return [...new Set([...before.keys(), ...after.keys()])]
    .map((item) => ({ item, pieces: (after.get(item) ?? 0) - (before.get(item) ?? 0) }))
    .filter(({ pieces }) => pieces !== 0);
}
