import { normal, seeded } from '../math/random.js';

/** A hub on tapered bearings with a castle nut, as a bench would meet it. Lengths in mm, torques in N·m. */
export interface HubKind {
  readonly pitch: number;
  readonly slots: number;
  readonly openings: readonly number[];
  readonly window: { readonly from: number; readonly to: number };
}

export const PRACTICE_HUB: HubKind = { pitch: 1, slots: 6, openings: [0, 90, 180, 270], window: { from: 0.03, to: 0.13 } };

const TURN = 360;
/** Travel for a newton metre of seating torque, once the bearings are tight. */
const GIVE_MM_PER_NM = 0.0009;
/** Rollers that stand on their ribs take so much play up once they are turned under load. */
const MOST_UNSEATED_MM = 0.08;
/** A dial of a bench: noise of a pull, and what friction of foot and stem keeps back. */
const NOISE_MM = 0.002;
const STICK_MM = 0.003;

/**
 * A physical model of one hub: play follows the nut by its pitch; below zero the bearings give
 * like a spring; unseated rollers hide play until they are seated; the lock takes up a little that
 * nobody knows beforehand. The same from the same seed.
 */
export class PracticeHub {
  readonly kind: HubKind;
  readonly #random: () => number;
  /** Play if everything were seated and nothing locked; below zero it is travel into preload. */
  #free: number;
  #unseated: number;
  readonly #lockShift: number;
  #isLocked = false;

  constructor(seed: number, kind: HubKind = PRACTICE_HUB) {
    this.kind = kind;
    this.#random = seeded(seed);
    this.#free = 0.1 + 0.4 * this.#random();
    this.#unseated = MOST_UNSEATED_MM * this.#random();
    this.#lockShift = 0.015 * this.#random();
  }

  /** End play as it is, which only the model knows. */
  get truth(): number {
    return Math.max(0, this.#free + this.#unseated - (this.#isLocked ? this.#lockShift : 0));
  }

  /** Turned with the hub turning, until the wrench clicks; then the nut is where the torque has put it. */
  seat(torque: number): void {
    this.#isLocked = false;
    this.#unseated = 0;
    this.#free = -torque * GIVE_MM_PER_NM;
  }

  /** Degrees; tightening is plus. The nut slips to its next slot by itself no more than it is told. */
  turn(angle: number): void {
    this.#isLocked = false;
    this.#free -= (this.kind.pitch * angle) / TURN;
    // Turning it to look seats what stood on its ribs, a little each time.
    this.#unseated *= 0.6;
  }

  lock(): void {
    this.#isLocked = true;
  }

  /** A pull and a push with the dial: what sticks is missing, and the stem has its noise. */
  read(): number {
    const play = this.truth;
    if (play === 0) return Math.abs(normal(this.#random, 0, NOISE_MM / 4));
    return Math.max(0, normal(this.#random, play - STICK_MM * this.#random(), NOISE_MM));
  }
}
