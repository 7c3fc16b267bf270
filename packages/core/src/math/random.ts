/** The same numbers from the same seed (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** A draw from a normal distribution (Box–Muller). */
export function normal(random: () => number, mean: number, spread: number): number {
  return mean + spread * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
