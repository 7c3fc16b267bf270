import { mm, percent } from '../quantity/write.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { FORMULA_MOST, thinned } from './ring.js';
import { insideTolerance, sectionTolerance, type RingSize } from './ring-sizes.js';

/** What a calliper presses. */
const ROUND_TO = 0.02;
/** A ring that is larger than its groove by more does not lie in it. */
const LOOSE_MOST = 0.15;

/** By how much an old ring's volume may have changed, as it is said to be: common practice. */
const GROWN = {
  sound: { from: -0.02, to: 0.03 },
  flat: { from: -0.02, to: 0.05 },
  swollen: { from: 0.02, to: 0.4 },
  shrunk: { from: -0.2, to: 0.02 },
} as const;
export type OldState = keyof typeof GROWN;

/** What a ring that sat stretched or pushed together keeps of it once it is out: common practice. */
const KEPT = { from: -0.02, to: 0.04 } as const;

export const STATE_WORDS: Readonly<Record<OldState, string>> = {
  sound: 'like new',
  flat: 'pressed flat, hard',
  swollen: 'soft and swollen',
  shrunk: 'hard and shrunk',
};

/** A ring that came out, as it measures now. */
export interface OldRing {
  readonly inside: number;
  /** Volume of its section as if it were round: a flattened one keeps its area, mm. */
  readonly section: number;
  readonly state: OldState;
}

/** A ring in the hand by its measures, as if its section were round; refuses one that cannot be. */
export function oldRing(inside: number, thick: number, wide: number, state: OldState): Result<OldRing> {
  if (wide < thick) return refuse({ code: 'too-small', field: 'wide', received: mm(wide), bound: `as much as the thin way, ${mm(thick)}` });
  if (wide > 2.5 * thick)
    return refuse({
      code: 'too-large',
      field: 'wide',
      received: mm(wide),
      bound: `${mm(2.5 * thick)}: flatter than that it was no round ring`,
    });
  return ok({ inside, section: Math.sqrt(thick * wide), state });
}

/** What must have become of a ring of some size for it to be the old one. */
export interface Become {
  /** 0 is likeliest. */
  readonly badness: number;
  readonly words: string;
}

/** What must have become of a size for it to be the old one; nothing where it cannot have been. */
export function become(old: OldRing, size: RingSize): Become | undefined {
  // Either may be off by what a new one may be, and by what the calliper presses.
  const bySection = (sectionTolerance(size.section) + ROUND_TO) / size.section;
  const grown = (old.section / size.section) ** 3 - 1;
  const { from, to } = GROWN[old.state];
  if (grown < from - 3 * bySection || grown > to + 3 * bySection) return undefined;
  const within = Math.max(from, Math.min(to, grown));
  const kept = old.inside / (size.inside * (1 + within) ** (1 / 3)) - 1;
  const byInside = insideTolerance(size.inside) / size.inside;
  if (kept < KEPT.from - byInside || kept > KEPT.to + byInside) return undefined;
  const off = (figure: number, least: number, most: number, room: number): number =>
    Math.max(0, least - figure, figure - most) / room + Math.abs(figure - (least + most) / 2) / (most - least);
  const badness = off(grown, from, to, 3 * bySection) + off(kept, KEPT.from, KEPT.to, byInside);
  const words = [
    Math.abs(grown) < 3 * bySection ? 'section as new' : grown > 0 ? `grown by ${percent(grown)}` : `shrunk by ${percent(-grown)}`,
    Math.abs(kept) < byInside
      ? 'inside as new'
      : kept > 0
        ? `stayed stretched by ${percent(kept)}`
        : `stayed pushed together by ${percent(-kept)}`,
  ].join(', ');
  return { badness, words };
}

/** Diameter of the bottom of a groove, mm, from what a ring of known size measures over as it lies in it. */
export function bottomUnder(
  { inside, section }: { readonly inside: number; readonly section: number },
  gland: 'piston' | 'rod',
  over: number,
): number | undefined {
  if (gland === 'rod') {
    // In a bore it lies against the outside, hardly changed in section.
    const bottom = over + 2 * section;
    return bottom > inside * (1 - LOOSE_MOST) ? bottom : undefined;
  }
  // Thinner by its stretch, which hangs on the bottom: halved until both agree.
  const overAt = (bottom: number): number => bottom + 2 * section * (1 - thinned((bottom - inside) / inside));
  let [low, high] = [inside * (1 - LOOSE_MOST), inside * (1 + FORMULA_MOST)];
  if (over < overAt(low) || over > overAt(high)) return undefined;
  for (let half = 0; half < 60; half += 1) {
    const middle = (low + high) / 2;
    if (overAt(middle) < over) low = middle;
    else high = middle;
  }
  return low;
}
