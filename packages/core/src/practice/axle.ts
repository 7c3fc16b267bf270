import { normal, seeded } from '../math/random.js';

/** Rolling torque of a pinion on a crush sleeve, N·m over degrees of nut. */
export const PRACTICE_AXLE = { window: { from: 1.7, to: 3.4 } } as const;

const NOISE_NM = 0.03;
const DRAG_NM = 0.05;

/**
 * A pinion with a crush sleeve: nothing while there is play, then a rolling torque that rises
 * faster and faster. A sleeve that is crushed too far stays so: turned back it is loose.
 */
export class PracticeAxle {
  readonly #random: () => number;
  readonly #gone: number;
  readonly #slope: number;
  readonly #bend: number;
  #angle = 0;
  #crushed = 0;

  constructor(seed: number) {
    this.#random = seeded(seed);
    this.#gone = 20 + 90 * this.#random();
    this.#slope = 0.02 + 0.05 * this.#random();
    this.#bend = 0.0012 * this.#random();
  }

  get angle(): number {
    return this.#angle;
  }

  /** Rolling torque as it is, which only the model knows. */
  get truth(): number {
    if (this.#angle < this.#crushed) return DRAG_NM;
    const tight = Math.max(0, this.#angle - this.#gone);
    return DRAG_NM + this.#slope * tight + this.#bend * tight * tight;
  }

  turn(angle: number): void {
    this.#angle += angle;
    this.#crushed = Math.max(this.#crushed, this.#angle);
  }

  /** A new sleeve: the nut begins again. */
  renew(): void {
    this.#angle = 0;
    this.#crushed = 0;
  }

  /** Beam wrench, turning steadily. */
  read(): number {
    return Math.max(0, normal(this.#random, this.truth, NOISE_NM));
  }
}
