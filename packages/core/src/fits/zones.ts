import { INCH_HAIR_MM } from '../measuring/nominal.js';

/**
 * ISO 286-1 to 500 mm: standard tolerances and fundamental deviations, µm. Values of ISO 286-1:2010
 * tables 1 to 5, from memory; the tests hold the zones made of them against cells of ISO 286-2.
 */

/** Upper ends of the main steps, mm. */
const STEPS = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500] as const;
/** Upper ends of the finer steps that r to u have. */
const FINE_STEPS = [
  3, 6, 10, 14, 18, 24, 30, 40, 50, 65, 80, 100, 120, 140, 160, 180, 200, 225, 250, 280, 315, 355, 400, 450, 500,
] as const;

const IT: Readonly<Record<number, readonly number[]>> = {
  3: [2, 2.5, 2.5, 3, 4, 4, 5, 6, 8, 10, 12, 13, 15],
  4: [3, 4, 4, 5, 6, 7, 8, 10, 12, 14, 16, 18, 20],
  5: [4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27],
  6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40],
  7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63],
  8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97],
  9: [25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155],
  10: [40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250],
  11: [60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400],
};

/** Upper deviation of the clearance shafts, below the nominal size; the same above it for the holes. */
const CLEARANCES: Readonly<Record<string, readonly number[]>> = {
  d: [20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230],
  e: [14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135],
  f: [6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68],
  g: [2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20],
  h: [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0],
};

/** Lower deviation of j5 and j6, of j7; below the nominal size. */
const J_56 = [2, 2, 2, 3, 4, 5, 7, 9, 11, 13, 16, 18, 20];
const J_7 = [4, 4, 5, 6, 8, 10, 12, 15, 18, 21, 26, 28, 32];
/** Upper deviation of the holes J. */
const J_HOLE: Readonly<Record<number, readonly number[]>> = {
  6: [2, 5, 5, 6, 8, 10, 13, 16, 18, 22, 25, 29, 33],
  7: [4, 6, 8, 10, 12, 14, 18, 22, 26, 30, 36, 39, 43],
  8: [6, 10, 12, 15, 20, 24, 28, 34, 41, 47, 55, 60, 66],
};

/** Lower deviation of the shafts k (grades 4 to 7) to p, above the nominal size. */
const K_SHAFT = [0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5];
const OVERS: Readonly<Record<string, readonly number[]>> = {
  m: [2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23],
  n: [4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40],
  p: [6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68],
};
/** The same of r to u, by the finer steps; t begins over 24 mm. */
const FINE_OVERS: Readonly<Record<string, readonly (number | undefined)[]>> = {
  r: [10, 15, 19, 23, 23, 28, 28, 34, 34, 41, 43, 51, 54, 63, 65, 68, 77, 80, 84, 94, 98, 108, 114, 126, 132],
  s: [14, 19, 23, 28, 28, 35, 35, 43, 43, 53, 59, 71, 79, 92, 100, 108, 122, 130, 140, 158, 170, 190, 208, 232, 252],
  t: [
    undefined,
    undefined,
    undefined,
    undefined,
    undefined,
    undefined,
    41,
    48,
    54,
    66,
    75,
    91,
    104,
    122,
    134,
    146,
    166,
    180,
    196,
    218,
    240,
    268,
    294,
    330,
    360,
  ],
  u: [18, 23, 28, 33, 33, 41, 48, 60, 70, 87, 102, 124, 144, 170, 190, 210, 236, 258, 284, 315, 350, 390, 435, 490, 540],
};

/** Limits over the nominal size, µm. */
export interface Zone {
  readonly lower: number;
  readonly upper: number;
}

const ZONE = /^(?<letter>JS|js|[D-HJ-KM-NPRSd-hj-km-npr-u])(?<grade>5|6|7|8|9|10|11)$/u;

/** Limits of a tolerance zone such as H7 or k6 at a nominal size, µm; undefined where there is none. */
export function zoneAt(name: string, nominal: number): Zone | undefined {
  const { letter, grade: gradeText } = ZONE.exec(name.trim())?.groups ?? {};
  if (letter === undefined || gradeText === undefined || nominal <= 0 || nominal > STEPS.at(-1)! + INCH_HAIR_MM) return undefined;
  const grade = Number(gradeText);
  const step = STEPS.findIndex((to) => nominal <= to + INCH_HAIR_MM);
  const width = IT[grade]![step]!;
  if (letter.toLowerCase() === 'js') return { lower: -width / 2, upper: width / 2 };
  return letter === letter.toLowerCase() ? shaftZone(letter, grade, step, nominal, width) : holeZone(letter, grade, step, nominal, width);
}

function shaftZone(letter: string, grade: number, step: number, nominal: number, width: number): Zone | undefined {
  const clearance = CLEARANCES[letter];
  if (clearance) return { lower: -clearance[step]! - width, upper: 0 - clearance[step]! };
  if (letter === 'j') {
    if (grade > 7) return undefined;
    const lower = -(grade === 7 ? J_7 : J_56)[step]!;
    return { lower, upper: lower + width };
  }
  const lower = overOf(letter, grade, step, nominal);
  return lower === undefined ? undefined : { lower, upper: lower + width };
}

function overOf(letter: string, grade: number, step: number, nominal: number): number | undefined {
  if (letter === 'k') return grade <= 7 ? K_SHAFT[step] : 0;
  return OVERS[letter]?.[step] ?? FINE_OVERS[letter]?.[FINE_STEPS.findIndex((to) => nominal <= to + INCH_HAIR_MM)];
}

function holeZone(letter: string, grade: number, step: number, nominal: number, width: number): Zone | undefined {
  const shaft = letter.toLowerCase();
  const clearance = CLEARANCES[shaft];
  if (clearance) return { lower: clearance[step]!, upper: clearance[step]! + width };
  if (letter === 'J') {
    const upper = J_HOLE[grade]?.[step];
    return upper === undefined ? undefined : { lower: upper - width, upper };
  }
  const upper = upperOf(letter, shaft, grade, step, nominal);
  return upper === undefined ? undefined : { lower: upper - width, upper };
}

/** Upper deviation of the holes K to S: that of the shaft below the nominal size, moved by Δ = ITn − ITn−1 in the finer grades. */
function upperOf(letter: string, shaft: string, grade: number, step: number, nominal: number): number | undefined {
  const delta = step === 0 ? 0 : IT[grade]![step]! - (IT[grade - 1]?.[step] ?? 0);
  switch (letter) {
    case 'K':
      // Beyond grade 8 the standard has none over 3 mm.
      return grade <= 8 ? delta - K_SHAFT[step]! : step === 0 ? 0 : undefined;
    case 'M':
      // The one exception that the standard makes: M6 over 250 to 315 mm.
      if (grade === 6 && step === 10) return -9;
      return (grade <= 8 ? delta : 0) - OVERS['m']![step]!;
    case 'N':
      if (grade <= 8) return delta - OVERS['n']![step]!;
      return step === 0 ? -4 : 0;
    default: {
      const over = overOf(shaft, grade, step, nominal);
      return over === undefined ? undefined : (grade <= 7 ? delta : 0) - over;
    }
  }
}
