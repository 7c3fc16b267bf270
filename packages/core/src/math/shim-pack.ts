/** A size on the shelf. */
export interface Size {
  /** mm. */
  readonly thickness: number;
  readonly count: number;
}

export interface Pack {
  /** Pieces of each size used, by its place on the shelf. */
  readonly pieces: readonly { readonly size: number; readonly count: number }[];
  /** mm. */
  readonly thickness: number;
}

/** Thicknesses are told apart to a tenth of a micrometre: nothing on a bench reads finer. */
const STEPS_PER_MM = 10_000;
/** Worse than any pack: two sizes share the word, 16 for each piece and 1 for each size. */
const NEVER = 0xffff;
const PIECE = 16;

/**
 * Steps that a whole search may take, some tens of milliseconds. A box that would take more, hundreds of thicknesses of
 * which eight together are far from the goal, is searched for the best of the likeliest packs instead (`likelyPacks`).
 */
const MOST_STEPS = 16_000_000;

/**
 * The packs that come nearest to a thickness, the best first: least error, then fewest pieces,
 * then fewest sizes. Exact, for every sum that the shelf can make is looked at, but for a shelf that makes too many
 * (`MOST_STEPS`): then the best of those that were looked at.
 *
 * @param wanted mm
 * @param mostPieces 0 to 15
 * @param shown how many packs of different thickness
 */
export function bestPacks(wanted: number, shelf: readonly Size[], mostPieces: number, shown: number): readonly Pack[] {
  const steps = shelf.map(({ thickness }) => Math.round(thickness * STEPS_PER_MM));
  const unit = steps.reduce(gcd, 0) || 1;
  const units = steps.map((step) => step / unit);
  const goal = (wanted * STEPS_PER_MM) / unit;
  const off = (sum: number): number => Math.abs(sum - goal);
  const few = ofFewPieces(units, shelf, goal, mostPieces, shown);
  if (few) {
    few.sort((one, other) => nearer(off(one.sum), off(other.sum), one.cost, other.cost));
    return few.slice(0, shown).map(({ sum, sizes }) => packFrom(sizes, shelf, sum, unit));
  }
  const reach = reachOf(units, shelf, goal, mostPieces, shown);
  if (stepsOf(shelf, mostPieces, reach) > MOST_STEPS) {
    const likely = likelyPacks(units, shelf, goal, mostPieces, shown);
    likely.sort((one, other) => nearer(off(one.sum), off(other.sum), one.cost, other.cost));
    return likely.slice(0, shown).map(({ sum, sizes }) => packFrom(sizes, shelf, sum, unit));
  }
  const { cost, used, width } = tables(units, shelf, mostPieces, reach);
  const sums: number[] = [];
  for (let sum = 0; sum <= reach; sum += 1) if (cost[sum]! < NEVER && Math.floor(cost[sum]! / PIECE) <= mostPieces) sums.push(sum);
  sums.sort((one, other) => nearer(off(one), off(other), cost[one]!, cost[other]!));
  return sums.slice(0, shown).map((sum) => packOf(sum, units, shelf, used, width, unit));
}

/** Two sums as far off either side are told apart by their cost; the noise of binary fractions is no difference. */
function nearer(off: number, otherOff: number, cost: number, otherCost: number): number {
  return Math.abs(off - otherOff) < 1e-6 ? cost - otherCost : off - otherOff;
}

interface Few {
  readonly sum: number;
  readonly cost: number;
  /** A size for each piece. */
  readonly sizes: readonly number[];
}

/**
 * From a full box every sum about the goal is a pack of three or fewer: then these are the best.
 * Undefined as soon as a sum takes more, or cannot be made, which only the whole search can tell.
 */
function ofFewPieces(units: readonly number[], shelf: readonly Size[], goal: number, mostPieces: number, shown: number): Few[] | undefined {
  const sizeOf = new Map(units.map((one, size) => [one, size]));
  const has = (size: number | undefined, count: number): size is number => size !== undefined && shelf[size]!.count >= count;
  const packOf = (sum: number): readonly number[] | undefined => {
    const one = sizeOf.get(sum);
    if (has(one, 1)) return [one];
    if (mostPieces < 2) return undefined;
    const half = sizeOf.get(sum / 2);
    if (has(half, 2)) return [half, half];
    for (let first = 0; first < units.length; first += 1) {
      const second = sizeOf.get(sum - units[first]!);
      if (second !== first && has(first, 1) && has(second, 1)) return [first, second];
    }
    if (mostPieces < 3) return undefined;
    const third = sizeOf.get(sum / 3);
    if (has(third, 3)) return [third, third, third];
    for (let twice = 0; twice < units.length; twice += 1) {
      const single = sizeOf.get(sum - 2 * units[twice]!);
      if (single !== twice && has(twice, 2) && has(single, 1)) return [twice, twice, single];
    }
    for (let first = 0; first < units.length; first += 1) {
      if (!has(first, 1)) continue;
      for (let second = first + 1; second < units.length; second += 1) {
        const last = sizeOf.get(sum - units[first]! - units[second]!);
        if (last !== first && last !== second && has(second, 1) && has(last, 1)) return [first, second, last];
      }
    }
    return undefined;
  };
  const found: Few[] = [];
  const under = Math.floor(goal);
  // One round more than it takes: a sum as far off on the other side may have fewer pieces.
  for (let far = 0, more = 1; more >= 0; far += 1) {
    for (const sum of [under - far, under + 1 + far]) {
      if (sum <= 0) return undefined;
      const sizes = packOf(sum);
      if (!sizes) return undefined;
      found.push({ sum, cost: PIECE * sizes.length + new Set(sizes).size, sizes });
    }
    if (found.length >= shown) more -= 1;
  }
  return found;
}

function packFrom(sizes: readonly number[], shelf: readonly Size[], sum: number, unit: number): Pack {
  const pieces = [...new Set(sizes)].map((size) => ({ size, count: sizes.filter((one) => one === size).length }));
  return thickFirst(pieces, shelf, sum, unit);
}

function thickFirst(pieces: Pack['pieces'], shelf: readonly Size[], sum: number, unit: number): Pack {
  return {
    pieces: pieces.toSorted((one, other) => shelf[other.size]!.thickness - shelf[one.size]!.thickness),
    thickness: Math.round(sum * unit) / STEPS_PER_MM,
  };
}

function gcd(one: number, other: number): number {
  let [a, b] = [one, other];
  while (b > 0) [a, b] = [b, a % b];
  return a;
}

/**
 * The largest sum worth looking at: as far over the goal as the farthest of the packs of two or
 * fewer that would be shown; over twice the goal no shim at all is nearer.
 */
function reachOf(units: readonly number[], shelf: readonly Size[], goal: number, mostPieces: number, shown: number): number {
  const most = Math.min(
    2 * Math.ceil(goal),
    shelf.reduce((sum, { count }, size) => sum + Math.min(count, mostPieces) * units[size]!, 0),
  );
  const found = new Uint8Array(most + 1);
  units.forEach((one, first) => {
    if (shelf[first]!.count < 1 || mostPieces < 1 || one > most) return;
    found[one] = 1;
    if (mostPieces < 2) return;
    for (let second = first; second < units.length; second += 1)
      if (one + units[second]! <= most && shelf[second]!.count > (second === first ? 1 : 0)) found[one + units[second]!] = 1;
  });
  let different = 0;
  for (let far = 0; far <= goal; far += 1) {
    const [under, over] = [Math.floor(goal) - far, Math.floor(goal) + 1 + far];
    different += (found[under] ?? 0) + (found[over] ?? 0);
    if (different >= shown) return Math.min(most, over + 1);
  }
  return most;
}

/** Of the whole search, at most. */
function stepsOf(shelf: readonly Size[], mostPieces: number, reach: number): number {
  return shelf.reduce((steps, { count }) => steps + Math.min(count, mostPieces) * reach, 0);
}

/** Where the likeliest base of equal pieces lies on the shelf, and beside it. */
const BASES_BESIDE = [0, -1, 1];
/** Pairs are sorted by one number each: their sum before the comma, so to say, and their place behind it. */
const PLACES = 65_536;

/**
 * The best packs of a shelf too large to look at whole: every pack of four or fewer pieces, and of more every such pack
 * beside a base of like pieces that leaves to the last four what four can reach. Two sorted lists of pairs are run
 * through against each other.
 */
function likelyPacks(units: readonly number[], shelf: readonly Size[], goal: number, mostPieces: number, shown: number): Few[] {
  const bySize = units.flatMap((_, size) => (shelf[size]!.count > 0 ? [size] : [])).toSorted((one, other) => units[one]! - units[other]!);
  const pairs: (readonly number[])[] = [[]];
  bySize.forEach((first, at) => {
    pairs.push([first]);
    for (const second of bySize.slice(at)) if (second !== first || shelf[first]!.count > 1) pairs.push([first, second]);
  });
  const sumOf = (sizes: readonly number[]): number => sizes.reduce((sum, size) => sum + units[size]!, 0);
  const sorted = Float64Array.from(pairs, (sizes, place) => sumOf(sizes) * PLACES + place).sort();
  const sums = sorted.map((key) => Math.floor(key / PLACES));
  const pairAt = (place: number): readonly number[] => pairs[sorted[place]! % PLACES]!;
  const found = new Map<number, Few>();
  const far = ({ sum }: Few): number => Math.abs(sum - goal);
  let worst = Number.POSITIVE_INFINITY;
  const keep = (base: readonly number[], low: number, high: number, sum: number): void => {
    const [one, other] = [pairAt(low), pairAt(high)];
    const pieces = base.length + one.length + other.length;
    if (pieces > mostPieces || (found.get(sum)?.cost ?? NEVER) < PIECE * (pieces + 1)) return;
    const sizes = [...base, ...one, ...other];
    if (sizes.some((size) => sizes.filter((one) => one === size).length > shelf[size]!.count)) return;
    found.set(sum, { sum, cost: PIECE * pieces + new Set(sizes).size, sizes });
    if (found.size < 4 * shown) return;
    const kept = [...found.values()].sort((one, other) => nearer(far(one), far(other), one.cost, other.cost)).slice(0, shown);
    found.clear();
    for (const few of kept) found.set(few.sum, few);
    worst = far(kept.at(-1)!);
  };
  for (const base of basesOf(bySize, units, shelf, goal, mostPieces)) {
    const held = sumOf(base);
    let high = sums.length - 1;
    for (let low = 0; low <= high; low += 1) {
      for (; high >= low; high -= 1) {
        const sum = held + sums[low]! + sums[high]!;
        if (Math.abs(sum - goal) <= worst) keep(base, low, high, sum);
        if (sum <= goal) break;
      }
    }
  }
  return [...found.values()];
}

/** None, and of five pieces and more all but four, near the size that as many equal ones would have. */
function basesOf(
  bySize: readonly number[],
  units: readonly number[],
  shelf: readonly Size[],
  goal: number,
  mostPieces: number,
): number[][] {
  const bases: number[][] = [[]];
  for (let pieces = 5; pieces <= mostPieces; pieces += 1) {
    const next = bySize.findIndex((size) => units[size]! >= goal / pieces);
    const middle = next === -1 ? bySize.length - 1 : next;
    for (const beside of BASES_BESIDE) {
      const base: number[] = [];
      for (let at = middle + beside; at >= 0 && at < bySize.length && base.length < pieces - 4; at += beside < 0 ? -1 : 1)
        for (let more = shelf[bySize[at]!]!.count; more > 0 && base.length < pieces - 4; more -= 1) base.push(bySize[at]!);
      if (base.length === pieces - 4) bases.push(base);
    }
  }
  return bases;
}

interface Tables {
  /** 16 for each piece and 1 for each size, by sum. */
  readonly cost: Uint16Array;
  /** Pieces of a size in the best pack of a sum, size by size. */
  readonly used: Uint8Array;
  readonly width: number;
}

/** Bounded knapsack over sums: the cheapest pack of each. */
function tables(units: readonly number[], shelf: readonly Size[], mostPieces: number, reach: number): Tables {
  const width = reach + 1;
  const cost = new Uint16Array(width).fill(NEVER);
  cost[0] = 0;
  const used = new Uint8Array(units.length * width);
  const ceiling = (mostPieces + 1) * PIECE;
  let highest = 0;
  units.forEach((unit, size) => {
    const most = Math.min(shelf[size]!.count, mostPieces);
    if (most < 1 || unit > reach) return;
    const before = cost.slice();
    const row = size * width;
    for (let pieces = 1; pieces <= most; pieces += 1) {
      const shift = pieces * unit;
      if (shift > reach) break;
      const extra = pieces * PIECE + 1;
      const last = Math.min(highest, reach - shift);
      for (let sum = 0; sum <= last; sum += 1) {
        const at = before[sum]! + extra;
        if (at < ceiling && at < cost[sum + shift]!) {
          cost[sum + shift] = at;
          used[row + sum + shift] = pieces;
        }
      }
    }
    highest = Math.min(reach, highest + most * unit);
  });
  return { cost, used, width };
}

function packOf(sum: number, units: readonly number[], shelf: readonly Size[], used: Uint8Array, width: number, unit: number): Pack {
  const pieces: { size: number; count: number }[] = [];
  let left = sum;
  for (let size = units.length - 1; size >= 0; size -= 1) {
    const count = used[size * width + left]!;
    if (count === 0) continue;
    pieces.unshift({ size, count });
    left -= count * units[size]!;
  }
  return thickFirst(pieces, shelf, sum, unit);
}

/** Ways to share one shelf out between two stacks that are followed further. */
const MOST_SHARES = 60;

/** Both stacks of a carrier from one shelf. */
export interface PackPair {
  readonly first: Pack;
  readonly second: Pack;
}

/**
 * Two stacks from one shelf: least error of both together, then fewest pieces. Where both want the same shims, every way
 * to share them out is bounded and the promising ones are tried, to `MOST_SHARES`; beyond it the best so far.
 */
export function bestPair(wanted: readonly [number, number], shelf: readonly Size[], mostPieces: number): PackPair | undefined {
  let best: { readonly error: number; readonly pieces: number; readonly pair: PackPair } | undefined;
  const open: {
    readonly limits: readonly [readonly Size[], readonly Size[]];
    readonly error: number;
    readonly pieces: number;
    readonly pair: PackPair;
  }[] = [];
  const bound = (limits: readonly [readonly Size[], readonly Size[]]): void => {
    const [first] = bestPacks(wanted[0], limits[0], mostPieces, 1);
    const [second] = bestPacks(wanted[1], limits[1], mostPieces, 1);
    if (!first || !second) return;
    const error = Math.abs(first.thickness - wanted[0]) + Math.abs(second.thickness - wanted[1]);
    open.push({ limits, error, pieces: piecesOf(first) + piecesOf(second), pair: { first, second } });
  };
  const isWorse = (error: number, pieces: number, than: { readonly error: number; readonly pieces: number }): boolean =>
    error > than.error + 0.5 / STEPS_PER_MM || (error > than.error - 0.5 / STEPS_PER_MM && pieces >= than.pieces);
  bound([shelf, shelf]);
  for (let shares = 0; open.length > 0 && shares < MOST_SHARES; shares += 1) {
    open.sort((one, other) => other.error - one.error || other.pieces - one.pieces);
    const next = open.pop()!;
    if (best && isWorse(next.error, next.pieces, best)) continue;
    const over = shelf.findIndex(({ count }, size) => countOf(next.pair.first, size) + countOf(next.pair.second, size) > count);
    if (over === -1) {
      best = next;
      continue;
    }
    // Of a size that both want, the first gets at most so many and the second the rest, or the first gets more.
    const take = (limits: readonly Size[], count: number): readonly Size[] =>
      limits.map((size, place) => (place === over ? { ...size, count: Math.min(size.count, count) } : size));
    for (let mine = 0; mine <= shelf[over]!.count; mine += 1) {
      const rest = shelf[over]!.count - mine;
      // More than a stack may have is no more to it, and only less for the other.
      if (mine > next.limits[0][over]!.count || rest > next.limits[1][over]!.count) continue;
      bound([take(next.limits[0], mine), take(next.limits[1], rest)]);
    }
  }
  return best?.pair;
}

/** The packs nearest to the first thickness, the nearest first, each with what the rest of the shelf makes of the second. */
export function firstThenSecond(
  [one, other]: readonly [number, number],
  shelf: readonly Size[],
  mostPieces: number,
  shown: number,
): readonly PackPair[] {
  return bestPacks(one, shelf, mostPieces, shown).flatMap((first) => {
    const rest = shelf.map((size, place) => ({ ...size, count: size.count - countOf(first, place) }));
    const [second] = bestPacks(other, rest, mostPieces, 1);
    return second ? [{ first, second }] : [];
  });
}

function countOf({ pieces }: Pack, size: number): number {
  return pieces.find((one) => one.size === size)?.count ?? 0;
}

function piecesOf({ pieces }: Pack): number {
  return pieces.reduce((sum, { count }) => sum + count, 0);
}
