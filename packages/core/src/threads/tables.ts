/**
 * Threads a bench meets. Metric sizes: ISO 261, coarse and the usual fine pitches. Unified: ASME
 * B1.1, UNC and UNF. Pipe: ISO 228-1 (G), ISO 7-1 (R) and ASME B1.20.1 (NPT). All from memory of
 * the tables, and checked by the tests against values printed in handbooks.
 */

/** Nominal diameter and pitches in mm, the coarse one first. */
export const METRIC: readonly (readonly [diameter: number, ...pitches: readonly number[]])[] = [
  [1.6, 0.35],
  [2, 0.4],
  [2.5, 0.45],
  [3, 0.5],
  [4, 0.7],
  [5, 0.8],
  [6, 1, 0.75],
  [7, 1],
  [8, 1.25, 1],
  [10, 1.5, 1.25, 1],
  [12, 1.75, 1.5, 1.25, 1],
  [14, 2, 1.5, 1.25],
  [16, 2, 1.5],
  [18, 2.5, 2, 1.5],
  [20, 2.5, 2, 1.5, 1],
  [22, 2.5, 2, 1.5],
  [24, 3, 2, 1.5, 1],
  [27, 3, 2, 1.5],
  [30, 3.5, 3, 2, 1.5],
  [33, 3.5, 2, 1.5],
  [36, 4, 3, 2, 1.5],
  [39, 4, 3, 2],
  [42, 4.5, 3, 2, 1.5],
  [45, 4.5, 3, 2, 1.5],
  [48, 5, 3, 2, 1.5],
  [52, 5, 4, 3, 2, 1.5],
  [56, 5.5, 4, 3, 2],
  [60, 5.5, 4, 3, 2, 1.5],
  [64, 6, 4, 3, 2],
];

/** Name, nominal diameter in inches, threads per inch coarse (UNC) and fine (UNF); 0: there is none. */
export const UNIFIED: readonly (readonly [name: string, inches: number, coarse: number, fine: number])[] = [
  ['#0', 0.06, 0, 80],
  ['#1', 0.073, 64, 72],
  ['#2', 0.086, 56, 64],
  ['#3', 0.099, 48, 56],
  ['#4', 0.112, 40, 48],
  ['#5', 0.125, 40, 44],
  ['#6', 0.138, 32, 40],
  ['#8', 0.164, 32, 36],
  ['#10', 0.19, 24, 32],
  ['#12', 0.216, 24, 28],
  ['1/4', 0.25, 20, 28],
  ['5/16', 0.3125, 18, 24],
  ['3/8', 0.375, 16, 24],
  ['7/16', 0.4375, 14, 20],
  ['1/2', 0.5, 13, 20],
  ['9/16', 0.5625, 12, 18],
  ['5/8', 0.625, 11, 18],
  ['3/4', 0.75, 10, 16],
  ['7/8', 0.875, 9, 14],
  ['1', 1, 8, 12],
  ['1 1/8', 1.125, 7, 12],
  ['1 1/4', 1.25, 7, 12],
  ['1 3/8', 1.375, 6, 12],
  ['1 1/2', 1.5, 6, 12],
];

/** Name, threads per inch, major diameter in mm of G and R (at the gauge plane), outside diameter of the NPT pipe in mm and its threads per inch. */
export const PIPE: readonly (readonly [name: string, tpi: number, major: number, nptOutside: number, nptTpi: number])[] = [
  ['1/8', 28, 9.728, 10.287, 27],
  ['1/4', 19, 13.157, 13.716, 18],
  ['3/8', 19, 16.662, 17.145, 18],
  ['1/2', 14, 20.955, 21.336, 14],
  ['3/4', 14, 26.441, 26.67, 14],
  ['1', 11, 33.249, 33.401, 11.5],
  ['1 1/4', 11, 41.91, 42.164, 11.5],
  ['1 1/2', 11, 47.803, 48.26, 11.5],
  ['2', 11, 59.614, 60.325, 11.5],
];

/** Hexagon across flats in mm by metric thread: ISO 272, and the older size where it was another. */
export const HEX_MM: Readonly<Record<number, readonly number[]>> = {
  4: [7],
  5: [8],
  6: [10],
  8: [13],
  10: [16, 17],
  12: [18, 19],
  14: [21, 22],
  16: [24],
  18: [27],
  20: [30],
  22: [34, 32],
  24: [36],
  27: [41],
  30: [46],
  33: [50],
  36: [55],
};
