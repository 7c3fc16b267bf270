export type Random = () => number;
/** Mulberry32: the same figures from the same start value, always. */
export function randomFrom(start: number): Random {
  let state = start;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

export const oneOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** What honest slips and dishonest programs put where something else belongs. */
export const NASTY: readonly unknown[] = [
  ...[
    '',
    ' ',
    '0',
    '-1',
    'x'.repeat(3000),
    '😀',
    'ﬃ',
    "'; DROP TABLE entry; --",
    '%',
    '\\',
    '../..',
    '2027-W05-1',
    '2026-02-30',
    'NaN',
    '1e999',
  ],
  ...[
    '99999999999999999999',
    '0.000000000000000000001',
    'https://x.invalid',
    '<b>',
    '{"a":1}',
    'null',
    'M8',
    '12 mm',
    '1/0',
    'constructor',
    '__proto__',
  ],
  ...[0, -0, -1, 1, 0.5, 1e308, -1e308, 5e-324, 2 ** 31, 2 ** 53, 99_999_999_999, true, false, null],
  ...[[], [[]], [null], {}, { a: 1 }, { length: 3 }, { toString: 1 }, [{}], Array.from({ length: 400 }, () => 0)],
];

/** A copy in which one place, anywhere, holds something else, or nothing. */
export function spoilt(given: unknown, random: Random): unknown {
  if (Array.isArray(given) && given.length > 0 && random() < 0.9) {
    const at = Math.floor(random() * given.length);
    return given.map((one, index) => (index === at ? spoilt(one, random) : (one as unknown)));
  }
  if (typeof given === 'object' && given !== null && !Array.isArray(given) && Object.keys(given).length > 0 && random() < 0.9) {
    const at = oneOf(random, Object.keys(given));
    if (random() < 0.15) return Object.fromEntries(Object.entries(given).filter(([name]) => name !== at));
    return { ...given, [at]: spoilt((given as Record<string, unknown>)[at], random) };
  }
  return oneOf(random, NASTY);
}
