import { expect, test } from '@jest/globals';
import { AS568, AS568_BOSS } from './ring-sizes.js';

/**
 * SAE AS568, inside diameters as its table prints them, inches, by dash number; from memory, and written down as the table
 * runs, not as the sizes are made here.
 */
const PRINTED: readonly (readonly [section: number, cells: string])[] = [
  [
    0.07,
    `004 .070, 005 .101, 006 .114, 007 .145, 008 .176, 009 .208, 010 .239, 011 .301, 012 .364, 013 .426, 014 .489, 015 .551,
     016 .614, 017 .676, 018 .739, 019 .801, 020 .864, 021 .926, 022 .989, 023 1.051, 024 1.114, 025 1.176, 026 1.239, 027 1.301,
     028 1.364, 029 1.489, 030 1.614, 031 1.739, 032 1.864, 033 1.989, 034 2.114, 035 2.239, 036 2.364, 037 2.489, 038 2.614,
     039 2.739, 040 2.864, 041 2.989, 042 3.239, 043 3.489, 044 3.739, 045 3.989, 046 4.239, 047 4.489, 048 4.739, 049 4.989, 050 5.239`,
  ],
  [
    0.103,
    `102 .049, 103 .081, 104 .112, 105 .143, 106 .174, 107 .206, 108 .237, 109 .299, 110 .362, 111 .424, 112 .487, 113 .549,
     114 .612, 115 .674, 116 .737, 117 .799, 118 .862, 119 .924, 120 .987, 121 1.049, 122 1.112, 123 1.174, 124 1.237, 125 1.299,
     126 1.362, 127 1.424, 128 1.487, 129 1.549, 130 1.612, 131 1.674, 132 1.737, 133 1.799, 134 1.862, 135 1.925, 136 1.987,
     137 2.050, 138 2.112, 139 2.175, 140 2.237, 141 2.300, 142 2.362, 143 2.425, 144 2.487, 145 2.550, 146 2.612, 147 2.675,
     148 2.737, 149 2.800, 150 2.862, 151 2.987, 152 3.237, 153 3.487, 160 5.237, 170 7.737, 178 9.737`,
  ],
  [
    0.139,
    `201 .171, 202 .234, 203 .296, 204 .359, 205 .421, 206 .484, 207 .546, 208 .609, 209 .671, 210 .734, 211 .796, 212 .859,
     213 .921, 214 .984, 215 1.046, 216 1.109, 217 1.171, 218 1.234, 219 1.296, 220 1.359, 221 1.421, 222 1.484, 223 1.609,
     224 1.734, 225 1.859, 226 1.984, 227 2.109, 228 2.234, 229 2.359, 230 2.484, 231 2.609, 232 2.734, 240 3.734, 250 4.984,
     258 5.984, 259 6.234, 274 9.984, 275 10.484, 281 14.984`,
  ],
  [
    0.21,
    `309 .412, 310 .475, 311 .537, 312 .600, 313 .662, 314 .725, 315 .787, 316 .850, 317 .912, 318 .975, 319 1.037, 320 1.100,
     321 1.162, 322 1.225, 323 1.287, 324 1.350, 325 1.475, 326 1.600, 327 1.725, 328 1.850, 329 1.975, 330 2.100, 331 2.225,
     332 2.350, 333 2.475, 334 2.600, 335 2.725, 340 3.350, 349 4.475, 361 5.975, 362 6.225, 378 10.475`,
  ],
  [
    0.275,
    `425 4.475, 426 4.600, 427 4.725, 428 4.850, 429 4.975, 430 5.100, 437 5.975, 438 6.225, 439 6.475, 445 7.975, 446 8.475,
     447 8.975, 449 9.975, 453 11.975, 459 14.975`,
  ],
];

const CELLS = PRINTED.flatMap(([section, cells]) =>
  cells.split(',').map((cell) => {
    const [dash = '', inside = ''] = cell.trim().split(/\s+/u);
    return { dash, section, inside: Number(inside) };
  }),
);

test('at least 150 cells of AS568 are as its table prints them', () => {
  expect(CELLS.length).toBeGreaterThanOrEqual(150);
  const off = CELLS.filter(({ dash, section, inside }) => {
    const size = AS568.find(({ name }) => name === `AS568-${dash}`);
    return !size || Math.abs(size.inside / 25.4 - inside) > 1e-9 || Math.abs(size.section / 25.4 - section) > 1e-9;
  });
  expect(off).toEqual([]);
});

/** Port threads of SAE J1926-1 (ISO 11926-1), by the dash number of their ring: outside, inches, and threads to the inch. From memory. */
const PORTS: readonly (readonly [dash: number, outside: number, perInch: number])[] = [
  [902, 5 / 16, 24],
  [903, 3 / 8, 24],
  [904, 7 / 16, 20],
  [905, 1 / 2, 20],
  [906, 9 / 16, 18],
  [908, 3 / 4, 16],
  [910, 7 / 8, 14],
  [912, 1 + 1 / 16, 12],
  [914, 1 + 3 / 16, 12],
  [916, 1 + 5 / 16, 12],
  [920, 1 + 5 / 8, 12],
  [924, 1 + 7 / 8, 12],
  [932, 2 + 1 / 2, 12],
];

test('the rings of ports rise, and lie stretched round the core of their thread, the smaller the more', () => {
  const insides = AS568_BOSS.map(({ inside }) => inside);
  expect(insides).toEqual(insides.toSorted((one, other) => one - other));
  const sections = AS568_BOSS.map(({ section }) => section);
  expect(sections).toEqual(sections.toSorted((one, other) => one - other));
  const stretches = PORTS.map(([dash, outside, perInch]) => {
    const { inside } = AS568_BOSS.find(({ name }) => name === `AS568-${dash}`)!;
    // Core of a unified thread: outside less 1.0825 times its pitch (ASME B1.1).
    return ((outside - 1.0825 / perInch) * 25.4) / inside - 1;
  });
  for (const stretch of stretches) {
    expect(stretch).toBeGreaterThan(0.03);
    expect(stretch).toBeLessThan(0.12);
  }
  expect(stretches).toEqual(stretches.toSorted((one, other) => other - one));
});
