/** Three jobs of one kind for tests and measurements, or a shop that has been open for two years. */
export const DEMO_SIZES = ['small', 'full'] as const;
export type DemoSize = (typeof DEMO_SIZES)[number];

/** The demo that is asked for; a shop with two years behind it where nothing is said. Throws at a word that is none. */
export function demoSize(asked = 'full'): DemoSize {
  const size = DEMO_SIZES.find((one) => one === asked);
  if (size) return size;
  throw new Error(`--demo is "${asked}"; it is one of ${DEMO_SIZES.join(', ')}`);
}

/** Stands among the sights while the demo is made. */
export const UNFINISHED = 0;
