import { maximise } from '../math/simplex.js';

export interface Offer {
  readonly id: string;
  /** In minor units of money. */
  readonly price: number;
  /** Pieces of each needed thing that it brings, by the need's place in the list. */
  readonly brings: readonly { readonly need: number; readonly pieces: number }[];
  /** How many of it can be had; as many as wanted when left out. */
  readonly most?: number | undefined;
}

export interface Cover {
  readonly price: number;
  /** How many of each offer, those of none left out. */
  readonly buy: readonly { readonly id: string; readonly times: number }[];
  /** False when the search was given up after so many nodes: the best found until then. */
  readonly exact: boolean;
}

const EPSILON = 1e-6;
/** Some minutes of search: only kits that overlap without any order come here. */
const MOST_NODES = 20_000;

/**
 * The cheapest set of kits and singles that brings everything needed. Undefined when it
 * cannot be covered at all.
 *
 * Whole-number programme by branch and bound. Bound: the linear relaxation through its dual, in
 * whole minor units. Offers whose reduced cost shows that they cannot be in a cheaper cover are
 * left out for the rest of the search.
 */
export function cheapestCover(needs: readonly number[], offers: readonly Offer[]): Cover | undefined {
  const wanted = needs.map((pieces) => Math.max(0, pieces));
  const useful = withoutBeaten(offers, wanted);
  const search: Search = { best: Number.POSITIVE_INFINITY, times: undefined, nodes: 0 };
  const first = greedy(
    wanted,
    useful,
    useful.map((offer) => mostOf(offer, wanted)),
  );
  if (!first) return undefined;
  search.best = priceOf(first, useful);
  search.times = first;
  explore(
    wanted,
    useful,
    useful.map(() => 0),
    useful.map((offer) => mostOf(offer, wanted)),
    0,
    search,
  );
  const times = search.times!;
  return {
    price: search.best,
    buy: useful.flatMap(({ id }, index) => (times[index]! > 0 ? [{ id, times: times[index]! }] : [])),
    exact: search.nodes <= MOST_NODES,
  };
}

interface Search {
  best: number;
  times: readonly number[] | undefined;
  nodes: number;
}

function mostOf(offer: Offer, needs: readonly number[]): number {
  // More than covers all it can bring is never cheaper.
  const enough = Math.max(0, ...offer.brings.map(({ need, pieces }) => (pieces > 0 ? Math.ceil((needs[need] ?? 0) / pieces) : 0)));
  return Math.min(enough, offer.most ?? enough);
}

function priceOf(times: readonly number[], offers: readonly Offer[]): number {
  return times.reduce((sum, count, index) => sum + count * offers[index]!.price, 0);
}

function withoutBeaten(offers: readonly Offer[], needs: readonly number[]): readonly Offer[] {
  const kept = offers
    .map((offer) => ({ ...offer, brings: offer.brings.filter(({ need, pieces }) => (needs[need] ?? 0) > 0 && pieces > 0) }))
    .filter(({ brings, most }) => brings.length > 0 && most !== 0);
  const brings = (offer: Offer, need: number): number => offer.brings.find((one) => one.need === need)?.pieces ?? 0;
  const beats = (one: Offer, other: Offer): boolean =>
    one.most === undefined && one.price <= other.price && other.brings.every(({ need, pieces }) => brings(one, need) >= pieces);
  return kept.filter(
    (offer, index) => !kept.some((other, place) => place !== index && beats(other, offer) && (!beats(offer, other) || place < index)),
  );
}

/** Cheapest for what it still brings, again and again. */
function greedy(needs: readonly number[], offers: readonly Offer[], most: readonly number[]): number[] | undefined {
  const left = [...needs];
  const times = offers.map(() => 0);
  while (left.some((pieces) => pieces > 0)) {
    let chosen = -1;
    let least = Number.POSITIVE_INFINITY;
    offers.forEach(({ price, brings }, index) => {
      if (times[index]! >= most[index]!) return;
      const gain = brings.reduce((sum, { need, pieces }) => sum + Math.min(left[need]!, pieces), 0);
      if (gain > 0 && price / gain < least) {
        least = price / gain;
        chosen = index;
      }
    });
    if (chosen === -1) return undefined;
    times[chosen]! += 1;
    for (const { need, pieces } of offers[chosen]!.brings) left[need] = Math.max(0, left[need]! - pieces);
  }
  return times;
}

/** All covers that take `fixed` of each offer and at most `most` more, below `spent` already. */
function explore(
  needs: readonly number[],
  offers: readonly Offer[],
  fixed: readonly number[],
  most: readonly number[],
  spent: number,
  search: Search,
): void {
  search.nodes += 1;
  if (search.nodes > MOST_NODES) return;
  const left = [...needs];
  offers.forEach(({ brings }, index) => {
    if (fixed[index]! > 0) for (const { need, pieces } of brings) left[need] = Math.max(0, left[need]! - fixed[index]! * pieces);
  });
  const open = left.flatMap((pieces, need) => (pieces > 0 ? [need] : []));
  if (open.length === 0) {
    if (spent < search.best) {
      search.best = spent;
      search.times = [...fixed];
    }
    return;
  }
  const free = offers.flatMap((_, index) => (most[index]! > 0 ? [index] : []));
  const row = new Map(open.map((need, place) => [need, place]));
  // Only what can run out needs a bound: of the rest more than enough is never cheaper.
  const scarce = free.filter((index) => offers[index]!.most !== undefined);
  // Relaxed: least Σ price·x, Σ brings·x ≥ left, x ≤ most. Its dual has a feasible start at 0.
  const columns = free.map((index) => {
    const column = new Array<number>(open.length + scarce.length).fill(0);
    // More pieces than are left bring no more than what is left: the bound gets tighter.
    for (const { need, pieces } of offers[index]!.brings) {
      const place = row.get(need);
      if (place !== undefined) column[place] = Math.min(pieces, left[need]!);
    }
    return column;
  });
  scarce.forEach((index, place) => (columns[free.indexOf(index)]![open.length + place] = -1));
  const dual = maximise(
    [...open.map((need) => left[need]!), ...scarce.map((index) => -most[index]!)],
    columns,
    free.map((index) => offers[index]!.price),
  );
  if (!dual) return;
  // Prices are whole, so a bound of 100.2 is one of 101.
  const bound = spent + Math.ceil(dual.best - EPSILON);
  if (bound >= search.best) return;
  // How much of each offer the relaxed answer takes.
  const share = new Array<number>(offers.length).fill(0);
  free.forEach((index, place) => (share[index] = dual.dual[place]!));
  const whole = greedyFrom(needs, offers, fixed, most, share);
  if (whole) {
    const price = priceOf(whole, offers);
    if (price < search.best) {
      search.best = price;
      search.times = whole;
    }
  }
  if (bound >= search.best) return;
  const yields = dual.x;
  const narrowed = [...most];
  free.forEach((index, place) => {
    const reduced =
      offers[index]!.price - columns[place]!.slice(0, open.length).reduce((sum, pieces, need) => sum + pieces * yields[need]!, 0);
    if (share[index]! < EPSILON && spent + dual.best + reduced > search.best - 1 + EPSILON) narrowed[index] = 0;
  });
  let branch = -1;
  let widest = EPSILON;
  for (const index of free) {
    const part = Math.abs(share[index]! - Math.round(share[index]!));
    if (part > widest) {
      widest = part;
      branch = index;
    }
  }
  // A whole relaxed answer is a cover, unless it was found with pieces cut to what was left.
  if (branch === -1) branch = free.reduce((most_, index) => (share[index]! > share[most_]! ? index : most_));
  const taken = [...fixed];
  taken[branch]! += 1;
  const fewer = [...narrowed];
  fewer[branch]! -= 1;
  explore(needs, offers, taken, fewer, spent + offers[branch]!.price, search);
  const without = [...narrowed];
  without[branch] = 0;
  explore(needs, offers, fixed, without, spent, search);
}

/** A whole cover near the relaxed one: its shares rounded down, then greedily filled from what it uses, then from all. */
function greedyFrom(
  needs: readonly number[],
  offers: readonly Offer[],
  fixed: readonly number[],
  most: readonly number[],
  share: readonly number[],
): number[] | undefined {
  const times = [...fixed];
  share.forEach((part, index) => (times[index]! += Math.min(most[index]!, Math.floor(part + EPSILON))));
  const left = needs.map((pieces) => pieces);
  offers.forEach(({ brings }, index) => {
    for (const { need, pieces } of brings) left[need] = Math.max(0, left[need]! - times[index]! * pieces);
  });
  const room = most.map((count, index) => count - (times[index]! - fixed[index]!));
  const used = room.map((count, index) => (share[index]! > EPSILON ? count : 0));
  const more = greedy(left, offers, used) ?? greedy(left, offers, room);
  if (!more) return undefined;
  const all = times.map((count, index) => count + more[index]!);
  // What the rest brings as well is not bought.
  const over = needs.map(
    (pieces, need) =>
      offers.reduce((sum, { brings }, index) => sum + all[index]! * (brings.find((one) => one.need === need)?.pieces ?? 0), 0) - pieces,
  );
  const byPrice = offers.map((_, index) => index).sort((one, other) => offers[other]!.price - offers[one]!.price);
  for (const index of byPrice)
    while (all[index]! > fixed[index]! && offers[index]!.brings.every(({ need, pieces }) => over[need]! >= pieces)) {
      all[index]! -= 1;
      for (const { need, pieces } of offers[index]!.brings) over[need]! -= pieces;
    }
  return all;
}
