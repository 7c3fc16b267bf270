import { normal, seeded } from '../math/random.js';

/** A shaft between two bearings, its end play set by shims under the cover: thicker closes it. */
export const PRACTICE_SHAFT = { window: { from: 0.02, to: 0.08 } } as const;

const NOISE_MM = 0.003;
/** A cover gives when it is screwed down on a pack that is too thick. */
const GIVE_SHARE = 0.25;

export class PracticeShaft {
  readonly #random: () => number;
  /** Pack at which the play is just gone, mm. */
  readonly #full: number;
  #pack: number;
  #dirt: number;

  constructor(seed: number) {
    this.#random = seeded(seed);
    this.#pack = 0.5;
    this.#full = 0.75 + 0.9 * this.#random();
    // Something under a shim in one of three: it goes when the pack is taken out again.
    this.#dirt = this.#random() < 1 / 3 ? 0.03 * this.#random() : 0;
  }

  get pack(): number {
    return this.#pack;
  }

  /** End play as it is, minus what a cover gives under too thick a pack. */
  get truth(): number {
    const play = this.#full - this.#pack - this.#dirt;
    return play >= 0 ? play : play * GIVE_SHARE;
  }

  /** Puts a pack of this thickness in, mm, wiped clean. */
  fit(pack: number): void {
    this.#pack = pack;
    this.#dirt = 0;
  }

  read(): number {
    return normal(this.#random, this.truth, NOISE_MM);
  }
}
