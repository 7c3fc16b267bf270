import { LITTLE_ANGLE, MUCH_ANGLE } from './batch.js';

/** A point of a pull: degrees from where the wrench began, N·m. */
export interface PullPoint {
  readonly angle: number;
  readonly torque: number;
}

export interface PullWanted {
  readonly torque: number;
  /** Either way, as a share of it. */
  readonly share: number;
  /** Degrees that its brothers of the same round turned to it; none while they are too few. */
  readonly middle?: number | undefined;
  /** A check round goes over tight screws: none of them is to turn. */
  readonly isCheck: boolean;
}

/** What the torque over the angle shows while it is pulled. */
export const SIGHTS = ['turns without load', 'gives way', 'stops early', 'already tight', 'turns too far', 'over'] as const;
export type Sight = (typeof SIGHTS)[number];

/** Degrees after which a screw that is snug must hold something, without brothers to go by. */
const FREE_TURN = 180;
/** Below this share of what is wanted it carries no load. */
const NO_LOAD = 0.3;
/** A torque that falls by this share while the screw turns on. */
const FALL = 0.12;
const FALL_DEGREES = 4;
/** A tight screw moves no further than the wrench winds up. */
const TIGHT_DEGREES = 4;
const NEAR = 0.9;

/**
 * What a pull shows as it happens, from the shape of its torque over its angle; undefined while it
 * goes as it should. Thresholds are common practice; brothers of the same round sharpen them.
 * Points come in their order; the angle counts from where the wrench began to turn.
 */
export function watchPull(points: readonly PullPoint[], { torque, share, middle, isCheck }: PullWanted): Sight | undefined {
  const last = points.at(-1);
  if (!last) return undefined;
  const peak = points.reduce((most, point) => (point.torque > most.torque ? point : most), last);
  if (peak.torque > torque * (1 + share)) return 'over';
  const fell = peak.torque >= NO_LOAD * torque && last.torque < peak.torque * (1 - FALL) && last.angle >= peak.angle + FALL_DEGREES;
  // A wrench that is let off falls too, but does not turn on.
  if (fell) return 'gives way';
  if (last.torque < NO_LOAD * torque && last.angle > (middle === undefined ? FREE_TURN : Math.max(MUCH_ANGLE * middle, TIGHT_DEGREES)))
    return 'turns without load';
  if (middle !== undefined && middle > TIGHT_DEGREES && last.angle > MUCH_ANGLE * middle) return 'turns too far';
  if (isCheck || peak.torque < torque * (1 - share)) return undefined;
  const near = points.find((point) => point.torque >= NEAR * torque) ?? peak;
  if (near.angle <= TIGHT_DEGREES && (middle === undefined || middle > 2 * TIGHT_DEGREES)) return 'already tight';
  return middle !== undefined && middle > 2 * TIGHT_DEGREES && near.angle < LITTLE_ANGLE * middle ? 'stops early' : undefined;
}

/** What to do about it. */
export const SIGHT_ACTS: Readonly<Record<Sight, string>> = {
  'turns without load':
    'It turns and holds nothing: the thread is stripped, or there is none. Stop, take it out, look at both threads; do not pull on.',
  'gives way':
    'The torque falls while it turns: a thread strips, or the screw is past its yield. Stop, take it out, renew the screw, look at the thread.',
  'stops early':
    'Torque with too little turn: a crossed thread, a hole that ends, dirt under the head. It clamps nothing. Take it out, clean, measure the depth of the hole.',
  'already tight': 'It did not move: this one was pulled before. The one whose turn it is may still be loose.',
  'turns too far':
    'Far more turn than its brothers: the screw stretches, the thread gives, or something soft lies between. Take it out and look.',
  over: 'Over the window. Slacken it, renew it where it is new each time, and pull it again.',
};

/** Kinds of a fastener that a simulated wrench can meet. */
export const FASTENERS = ['good', 'stripped', 'gives way', 'bottomed', 'already tight'] as const;
export type Fastener = (typeof FASTENERS)[number];

/**
 * Torque over angle of such a fastener, from nothing to `reach` N·m of hand, snug at `snug` N·m and
 * then `stiffness` N·m for each degree; `count` points.
 */
export function pullCurve(fastener: Fastener, snug: number, stiffness: number, reach: number, count: number): readonly PullPoint[] {
  const steps = Array.from({ length: count }, (_, at) => (at + 1) / count);
  const degrees = (reach - snug) / stiffness;
  switch (fastener) {
    case 'good':
      return steps.map((part) => ({ angle: degrees * part, torque: snug + (reach - snug) * part }));
    case 'already tight':
      return steps.map((part) => ({ angle: 2 * part, torque: reach * part }));
    case 'bottomed':
      return steps.map((part) => ({ angle: 0.35 * degrees * part, torque: snug + (reach - snug) * part ** 3 }));
    case 'stripped':
      return steps.map((part) => ({ angle: 300 * part, torque: 0.12 * reach * (1 + 0.2 * Math.sin(9 * part)) }));
    case 'gives way':
      return steps.map((part) => ({
        angle: 1.5 * degrees * part,
        torque: part < 0.5 ? snug + (0.75 * reach - snug) * part * 2 : reach * (0.75 - 0.7 * (part - 0.5)),
      }));
  }
}
