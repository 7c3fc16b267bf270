/**
 * Standard O-ring sizes: inside diameter and section, mm.
 *
 * AS568 dash sizes as thousandths of an inch, and the general series of ISO 3601-1; both from memory, held by the tests
 * against the rules of the series (sections, steps, rising) and against cells that are printed elsewhere.
 */
export interface RingSize {
  /** "AS568-214", "ISO 3601 25 × 2.65". */
  readonly name: string;
  readonly inside: number;
  readonly section: number;
}

const THOU_MM = 0.0254;

/** Section in thousandths of an inch, and the inside diameters from a dash number on. */
const DASHES: readonly (readonly [section: number, from: number, insides: readonly number[]])[] = [
  [40, 1, [29]],
  [50, 2, [42]],
  [60, 3, [56]],
  [
    70,
    4,
    [
      70, 101, 114, 145, 176, 208, 239, 301, 364, 426, 489, 551, 614, 676, 739, 801, 864, 926, 989, 1051, 1114, 1176, 1239, 1301, 1364,
      1489, 1614, 1739, 1864, 1989, 2114, 2239, 2364, 2489, 2614, 2739, 2864, 2989, 3239, 3489, 3739, 3989, 4239, 4489, 4739, 4989, 5239,
    ],
  ],
  [
    103,
    102,
    [
      49, 81, 112, 143, 174, 206, 237, 299, 362, 424, 487, 549, 612, 674, 737, 799, 862, 924, 987, 1049, 1112, 1174, 1237, 1299, 1362, 1424,
      1487, 1549, 1612, 1674, 1737, 1799, 1862, 1925, 1987, 2050, 2112, 2175, 2237, 2300, 2362, 2425, 2487, 2550, 2612, 2675, 2737, 2800,
      2862, 2987, 3237, 3487, 3737, 3987, 4237, 4487, 4737, 4987, 5237, 5487, 5737, 5987, 6237, 6487, 6737, 6987, 7237, 7487, 7737, 7987,
      8237, 8487, 8737, 8987, 9237, 9487, 9737,
    ],
  ],
  [
    139,
    201,
    [
      171, 234, 296, 359, 421, 484, 546, 609, 671, 734, 796, 859, 921, 984, 1046, 1109, 1171, 1234, 1296, 1359, 1421, 1484, 1609, 1734,
      1859, 1984, 2109, 2234, 2359, 2484, 2609, 2734, 2859, 2984, 3109, 3234, 3359, 3484, 3609, 3734, 3859, 3984, 4109, 4234, 4359, 4484,
      4609, 4734, 4859, 4984, 5109, 5234, 5359, 5484, 5609, 5734, 5859, 5984, 6234, 6484, 6734, 6984, 7234, 7484, 7734, 7984, 8234, 8484,
      8734, 8984, 9234, 9484, 9734, 9984, 10484, 10984, 11484, 11984, 12984, 13984, 14984,
    ],
  ],
  [
    210,
    309,
    [
      412, 475, 537, 600, 662, 725, 787, 850, 912, 975, 1037, 1100, 1162, 1225, 1287, 1350, 1475, 1600, 1725, 1850, 1975, 2100, 2225, 2350,
      2475, 2600, 2725, 2850, 2975, 3100, 3225, 3350, 3475, 3600, 3725, 3850, 3975, 4100, 4225, 4350, 4475, 4600, 4725, 4850, 4975, 5100,
      5225, 5350, 5475, 5600, 5725, 5850, 5975, 6225, 6475, 6725, 6975, 7225, 7475, 7725, 7975, 8225, 8475, 8725, 8975, 9225, 9475, 9725,
      9975, 10475, 10975, 11475, 11975, 12975, 13975, 14975,
    ],
  ],
  [
    275,
    425,
    [
      4475, 4600, 4725, 4850, 4975, 5100, 5225, 5350, 5475, 5600, 5725, 5850, 5975, 6225, 6475, 6725, 6975, 7225, 7475, 7725, 7975, 8475,
      8975, 9475, 9975, 10475, 10975, 11475, 11975, 12475, 12975, 13475, 13975, 14475, 14975,
    ],
  ],
];

/** AS568: dash numbers of the five sections, and the three smallest. */
export const AS568: readonly RingSize[] = DASHES.flatMap(([section, from, insides]) =>
  insides.map((inside, at) => ({
    name: `AS568-${String(from + at).padStart(3, '0')}`,
    inside: inside * THOU_MM,
    section: section * THOU_MM,
  })),
);

/** Section and inside in thousandths of an inch, by dash number: rings of straight-thread ports, from memory as the others. */
const BOSS: Readonly<Record<number, readonly [section: number, inside: number]>> = {
  901: [56, 185],
  902: [64, 239],
  903: [64, 301],
  904: [72, 351],
  905: [72, 414],
  906: [78, 468],
  907: [82, 530],
  908: [87, 644],
  909: [97, 706],
  910: [97, 755],
  911: [116, 863],
  912: [116, 924],
  913: [116, 986],
  914: [116, 1047],
  916: [116, 1171],
  918: [116, 1355],
  920: [118, 1475],
  924: [118, 1720],
  928: [118, 2090],
  932: [118, 2337],
};

/** AS568: the dash numbers from 900 on, which lie round the thread of a port. */
export const AS568_BOSS: readonly RingSize[] = Object.entries(BOSS).map(([dash, [section, inside]]) => ({
  name: `AS568-${dash}`,
  inside: inside * THOU_MM,
  section: section * THOU_MM,
}));

const TO_17 = [
  1.8, 2, 2.24, 2.5, 2.8, 3.15, 3.55, 3.75, 4, 4.5, 4.87, 5, 5.15, 5.3, 5.6, 6, 6.3, 6.7, 6.9, 7.1, 7.5, 8, 8.5, 8.75, 9, 9.5, 10, 10.6,
  11.2, 11.8, 12.5, 13.2, 14, 15, 16, 17,
];
const TO_38 = [18, 19, 20, 21.2, 22.4, 23.6, 25, 25.8, 26.5, 28, 30, 31.5, 32.5, 33.5, 34.5, 35.5, 36.5, 37.5, 38.7];
const TO_75 = [40, 41.2, 42.5, 43.7, 45, 46.2, 47.5, 48.7, 50, 51.5, 53, 54.5, 56, 58, 60, 61.5, 63, 65, 67, 69, 71, 73, 75];
const TO_115 = [77.5, 80, 82.5, 85, 87.5, 90, 92.5, 95, 97.5, 100, 103, 106, 109, 112, 115];
const TO_200 = [118, 122, 125, 128, 132, 136, 140, 145, 150, 155, 160, 165, 170, 175, 180, 185, 190, 195, 200];
const TO_400 = [206, 212, 218, 224, 230, 236, 243, 250, 258, 265, 272, 280, 290, 300, 307, 315, 325, 335, 345, 355, 365, 375, 387, 400];

const SERIES: readonly (readonly [section: number, insides: readonly number[]])[] = [
  [1.8, TO_17],
  [2.65, [14, 15, 16, 17, ...TO_38]],
  [3.55, [...TO_38, ...TO_75, ...TO_115, ...TO_200]],
  [5.3, [...TO_75, ...TO_115, ...TO_200, ...TO_400]],
  [7, [109, 112, 115, ...TO_200, ...TO_400]],
];

const sized = (series: string, inside: number, section: number): RingSize => ({
  name: `${series} ${inside} × ${section}`,
  inside,
  section,
});

/** ISO 3601-1, general series. */
export const ISO_3601: readonly RingSize[] = SERIES.flatMap(([section, insides]) =>
  insides.map((inside) => sized('ISO 3601', inside, section)),
);

const upTo = (from: number, to: number, step: number): readonly number[] =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, at) => from + at * step);

/** Whole millimetres as they are sold: common practice, no standard's. */
export const WHOLE_MM: readonly RingSize[] = [
  [1, upTo(2, 30, 1)],
  [1.5, upTo(3, 60, 1)],
  [2, [...upTo(4, 80, 1), ...upTo(85, 120, 5)]],
  [2.5, [...upTo(6, 90, 1), ...upTo(95, 150, 5)]],
  [3, [...upTo(8, 120, 1), ...upTo(125, 220, 5)]],
  [3.5, [...upTo(14, 100, 1), ...upTo(105, 200, 5)]],
  [4, [...upTo(16, 120, 1), ...upTo(125, 300, 5)]],
  [5, [...upTo(30, 140, 1), ...upTo(145, 400, 5)]],
  [6, upTo(60, 400, 5)],
].flatMap(([section, insides]) => (insides as readonly number[]).map((inside) => sized('metric', inside, section as number)));

/** Every size there is a name for. */
export const RING_SIZES: readonly RingSize[] = [...AS568, ...AS568_BOSS, ...ISO_3601, ...WHOLE_MM];

/** ± of a section, mm: ISO 3601-1 class B, from memory. */
export function sectionTolerance(section: number): number {
  const [, tolerance] = SECTION_TOLERANCES.find(([upTo]) => section <= upTo) ?? SECTION_TOLERANCES.at(-1)!;
  return tolerance;
}

const SECTION_TOLERANCES: readonly (readonly [upTo: number, tolerance: number])[] = [
  [2.25, 0.08],
  [3.15, 0.09],
  [4.5, 0.1],
  [6.3, 0.13],
  [8.4, 0.15],
];

/** ± of an inside diameter, mm: ISO 3601-1 class B, 0.009·d^0.95 + 0.11, from memory. */
export function insideTolerance(inside: number): number {
  return 0.009 * inside ** 0.95 + 0.11;
}
