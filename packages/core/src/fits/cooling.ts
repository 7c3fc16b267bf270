/** °C of a thing that was at `from` when it came into air at `air`, after a time, by its time constant, both s (Newton's law of cooling). */
export function cooled(from: number, air: number, constant: number, time: number): number {
  return air + (from - air) * Math.exp(-time / constant);
}

export interface Cooling {
  /** °C. */
  readonly temperature: number;
  readonly bench: number;
  readonly grips: number;
  /** Seconds from `temperature` down to `grips`. */
  readonly left: number;
}

/** How warm it still is, °C, and for how many seconds it can still be moved, so long after it left the heat. */
export function coolingAfter(
  { temperature, bench, grips, left }: Cooling,
  seconds: number,
): { readonly now: number; readonly rest: number } {
  const constant = left / Math.log((temperature - bench) / (grips - bench));
  return { now: cooled(temperature, bench, constant, Math.max(0, seconds)), rest: Math.max(0, left - Math.max(0, seconds)) };
}
