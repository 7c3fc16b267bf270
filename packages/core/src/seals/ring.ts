import { percent } from '../quantity/write.js';
import { insideTolerance, sectionTolerance } from './ring-sizes.js';

/** Where a ring lies: on a piston, in the bore round a rod, or between two faces with pressure from within or from without. */
export type Gland = 'piston' | 'rod' | 'face-inside' | 'face-outside';
export type Motion = 'static' | 'moving' | 'turning';

export interface Groove {
  readonly gland: Gland;
  readonly motion: Motion;
  /** Smaller and larger diameter of the room that the ring has, mm. */
  readonly inner: number;
  readonly outer: number;
  /** How high the room is, square to the surfaces that the ring is pressed between, mm. */
  readonly height: number;
  readonly width: number;
  /** ± of the height, mm. */
  readonly loose: number;
  /** Share by which the ring grows in its medium and by heat. */
  readonly growth: number;
}

export interface Ring {
  readonly inside: number;
  readonly section: number;
}

/** What becomes of a ring in its groove; shares, and mm. */
export interface Seated {
  /** Of the inside diameter; below zero the ring is pushed together. */
  readonly stretch: number;
  /** Section that is left of it, by the formula and by its volume. */
  readonly section: number;
  readonly byVolume: number;
  readonly squeeze: number;
  readonly squeezeLeast: number;
  readonly squeezeMost: number;
  readonly fill: number;
  readonly fillMost: number;
}

export interface Span {
  readonly from: number;
  readonly to: number;
}

/**
 * Squeeze that seals and does not spoil the ring, by what it does: ISO 3601-2 housings come out inside of these, which are
 * common practice; from memory.
 */
export const SQUEEZE: Readonly<Record<'face' | Motion, Span>> = {
  face: { from: 0.15, to: 0.35 },
  static: { from: 0.1, to: 0.3 },
  moving: { from: 0.08, to: 0.22 },
  turning: { from: 0.02, to: 0.1 },
};
/** Largest stretch at rest and pushing-together that lies still, and how full a groove may be; common practice. */
export const STRETCH_MOST = 0.05;
export const PUSHED_MOST = 0.03;
export const FILL_MOST = 0.9;
/** The most that a ring may be stretched, by what it does there. */
export function stretchMostOf({ motion }: Pick<Groove, 'motion'>): number {
  return motion === 'turning' ? TURNING_STRETCH_MOST : STRETCH_MOST;
}

/** Inside diameters that lie right in a groove, of a ring of that section, mm. */
export function insidesFor(groove: Groove, section: number): Span {
  const { gland, inner, outer } = groove;
  const least = inner / (1 + stretchMostOf(groove));
  if (gland === 'piston' || gland === 'face-outside') return { from: least, to: inner / (1 - PUSHED_MOST) };
  const pushed = outer / (1 - PUSHED_MOST) - 2 * section;
  return gland === 'rod' ? { from: least, to: pushed } : { from: outer / (1 + STRETCH_MOST) - 2 * section, to: pushed };
}

/** A ring that turns draws together when it is stretched and warm: it is a little larger than its shaft. */
const TURNING_STRETCH_MOST = 0;
/** The formula of the section ends here. */
export const FORMULA_MOST = 0.25;

export function squeezeOf({ gland, motion }: Pick<Groove, 'gland' | 'motion'>): Span {
  return SQUEEZE[isFace(gland) ? 'face' : motion];
}

export function isFace(gland: Gland): boolean {
  return gland === 'face-inside' || gland === 'face-outside';
}

/**
 * Share of its section that a stretched ring loses. Handbook formula of O-ring makers, from memory:
 * R % = 0.01 + 1.06·S − 0.1·S² to 3 %, 0.56 + 0.59·S − 0.0046·S² from there to 25 %, S in %.
 */
export function thinned(stretch: number): number {
  const s = 100 * stretch;
  if (s <= 0) return 0;
  return (s <= 3 ? 0.01 + 1.06 * s - 0.1 * s * s : 0.56 + 0.59 * s - 0.0046 * s * s) / 100;
}

/** Section of a stretched ring whose rubber keeps its volume, mm. */
export function byVolume({ inside, section }: Ring, stretch: number): number {
  if (stretch <= 0) return section;
  const volume = section ** 2 * (inside + section);
  let left = section;
  // Each turn comes nearer by the share that the section is of the diameter.
  for (let turn = 0; turn < 20; turn += 1) left = Math.sqrt(volume / (inside * (1 + stretch) + left));
  return left;
}

/** Stretch of a ring in its groove: on what it lies round, or by how much it is pushed together where it lies against the outside. */
export function stretchIn({ gland, inner, outer }: Pick<Groove, 'gland' | 'inner' | 'outer'>, { inside, section }: Ring): number {
  const onInner = (inner - inside) / inside;
  if (gland === 'piston' || gland === 'face-outside') return onInner;
  const free = inside + 2 * section;
  const inOuter = (outer - free) / free;
  // Pressure from within carries it out to the wall.
  if (gland === 'face-inside') return Math.max(onInner, inOuter);
  // In a housing it lies against the outside; a rod that is larger than it stretches it all the same.
  return inOuter < 0 && onInner <= 0 ? inOuter : Math.max(onInner, Math.min(0, inOuter));
}

export function seated(groove: Groove, ring: Ring): Seated {
  const { height, width, loose, growth } = groove;
  const stretch = stretchIn(groove, ring);
  const section = ring.section * (1 - thinned(stretch));
  const tolerance = sectionTolerance(ring.section);
  const insideWorst = insideTolerance(ring.inside);
  const stretchMost = stretchIn(groove, { ...ring, inside: ring.inside - insideWorst });
  const thinnest = (ring.section - tolerance) * (1 - thinned(Math.min(FORMULA_MOST, stretchMost)));
  const thickest = ring.section + tolerance;
  const fillOf = (d: number, high: number): number => ((Math.PI / 4) * d * d * (1 + growth)) / (high * width);
  return {
    stretch,
    section,
    byVolume: byVolume(ring, stretch),
    squeeze: (section - height) / section,
    squeezeLeast: (thinnest - height - loose) / thinnest,
    squeezeMost: (thickest - height + loose) / thickest,
    fill: fillOf(section, height),
    fillMost: fillOf(thickest, height - loose),
  };
}

export interface Fault {
  readonly what: 'squeeze' | 'stretch' | 'fill';
  /** It is so; not grave: only with the worst of all tolerances. */
  readonly grave: boolean;
  readonly words: string;
}

/** What is wrong with a ring in its groove, the gravest first; nothing where it is right. */
export function faultsOf(groove: Groove, at: Seated): readonly Fault[] {
  const { from, to } = squeezeOf(groove);
  const most = stretchMostOf(groove);
  const faults: readonly (Fault | false)[] = [
    at.squeeze <= 0 && {
      what: 'squeeze',
      grave: true,
      words: `too thin: ${percent(-at.squeeze)} of its section is missing, it touches one side only`,
    },
    at.squeeze > 0 &&
      at.squeeze < from && {
        what: 'squeeze',
        grave: true,
        words: `too thin: squeezed by ${percent(at.squeeze)}, ${percent(from)} is the least`,
      },
    at.squeeze > to && { what: 'squeeze', grave: true, words: `too thick: squeezed by ${percent(at.squeeze)}, ${percent(to)} is the most` },
    at.stretch > most && { what: 'stretch', grave: true, words: `stretched by ${percent(at.stretch)}, ${percent(most)} is the most` },
    at.stretch < -PUSHED_MOST && {
      what: 'stretch',
      grave: true,
      words: `pushed together by ${percent(-at.stretch)}, ${percent(PUSHED_MOST)} is the most: it buckles`,
    },
    at.fill > FILL_MOST && {
      what: 'fill',
      grave: true,
      words: `fills ${percent(at.fill)} of its groove, ${percent(FILL_MOST)} is the most`,
    },
    at.squeeze >= from &&
      at.squeezeLeast < 0 && { what: 'squeeze', grave: false, words: `may touch one side only where ring and groove are at their worst` },
    at.fill <= FILL_MOST &&
      at.fillMost > 1 && {
        what: 'fill',
        grave: false,
        words: `may fill its groove to ${percent(at.fillMost)} where ring and groove are at their worst`,
      },
  ];
  return faults.filter((fault) => fault !== false);
}
