/** Strength of a screw's material, MPa, and how far it stretches before it breaks. */
export interface Strength {
  /** Largest nominal diameter for which the row holds, mm. */
  readonly to: number;
  /** Rp0.2, ReL or stress at the permanent set limit, least. */
  readonly yieldMPa: number;
  readonly tensileMPa: number;
  /** Absent where the standard names none. */
  readonly proofMPa?: number;
  /** After fracture, as a share of the length; least. */
  readonly elongation: number;
}

const INCH_MM = 25.4;

/**
 * ISO 898-1 table 3 (elongations of 4.8, 5.8 and 6.8 from its edition of 1999), ISO 3506-1 for stainless, SAE J429 for
 * the grades, ISO 8839 for copper and brass. From memory. An unmarked screw is taken as the lowest there is.
 */
export const STRENGTHS: Readonly<Record<string, readonly Strength[]>> = {
  unmarked: [{ to: 39, yieldMPa: 240, tensileMPa: 400, proofMPa: 225, elongation: 0.18 }],
  '4.6': [{ to: 39, yieldMPa: 240, tensileMPa: 400, proofMPa: 225, elongation: 0.22 }],
  '4.8': [{ to: 39, yieldMPa: 340, tensileMPa: 420, proofMPa: 310, elongation: 0.14 }],
  '5.6': [{ to: 39, yieldMPa: 300, tensileMPa: 500, proofMPa: 280, elongation: 0.2 }],
  '5.8': [{ to: 39, yieldMPa: 420, tensileMPa: 520, proofMPa: 380, elongation: 0.1 }],
  '6.8': [{ to: 39, yieldMPa: 480, tensileMPa: 600, proofMPa: 440, elongation: 0.08 }],
  '8.8': [
    { to: 16, yieldMPa: 640, tensileMPa: 800, proofMPa: 580, elongation: 0.12 },
    { to: 39, yieldMPa: 660, tensileMPa: 830, proofMPa: 600, elongation: 0.12 },
  ],
  '9.8': [{ to: 16, yieldMPa: 720, tensileMPa: 900, proofMPa: 650, elongation: 0.1 }],
  '10.9': [{ to: 39, yieldMPa: 940, tensileMPa: 1040, proofMPa: 830, elongation: 0.09 }],
  '12.9': [{ to: 39, yieldMPa: 1100, tensileMPa: 1220, proofMPa: 970, elongation: 0.08 }],
  'A2-70': [{ to: 39, yieldMPa: 450, tensileMPa: 700, elongation: 0.2 }],
  'A4-70': [{ to: 39, yieldMPa: 450, tensileMPa: 700, elongation: 0.2 }],
  'A2-80': [{ to: 39, yieldMPa: 600, tensileMPa: 800, elongation: 0.15 }],
  'A4-80': [{ to: 39, yieldMPa: 600, tensileMPa: 800, elongation: 0.15 }],
  'SAE 2': [
    { to: 0.75 * INCH_MM, yieldMPa: 393, tensileMPa: 510, proofMPa: 379, elongation: 0.18 },
    { to: 1.5 * INCH_MM, yieldMPa: 248, tensileMPa: 414, proofMPa: 228, elongation: 0.18 },
  ],
  'SAE 5': [
    { to: INCH_MM, yieldMPa: 634, tensileMPa: 827, proofMPa: 586, elongation: 0.14 },
    { to: 1.5 * INCH_MM, yieldMPa: 558, tensileMPa: 724, proofMPa: 510, elongation: 0.14 },
  ],
  'SAE 8': [{ to: 1.5 * INCH_MM, yieldMPa: 896, tensileMPa: 1034, proofMPa: 827, elongation: 0.12 }],
  copper: [{ to: 39, yieldMPa: 160, tensileMPa: 240, elongation: 0.14 }],
  brass: [
    { to: 6, yieldMPa: 340, tensileMPa: 440, elongation: 0.11 },
    { to: 39, yieldMPa: 250, tensileMPa: 370, elongation: 0.19 },
  ],
};

export const CLASS_CHOICES = [
  { id: 'unmarked', label: 'no mark: the lowest' },
  { id: '4.6', label: '4.6' },
  { id: '4.8', label: '4.8' },
  { id: '5.6', label: '5.6' },
  { id: '5.8', label: '5.8' },
  { id: '6.8', label: '6.8' },
  { id: '8.8', label: '8.8' },
  { id: '9.8', label: '9.8' },
  { id: '10.9', label: '10.9' },
  { id: '12.9', label: '12.9' },
  { id: 'A2-70', label: 'A2-70 stainless' },
  { id: 'A4-70', label: 'A4-70 stainless' },
  { id: 'A2-80', label: 'A2-80 stainless' },
  { id: 'A4-80', label: 'A4-80 stainless' },
  { id: 'SAE 2', label: 'SAE grade 2' },
  { id: 'SAE 5', label: 'SAE grade 5, three marks' },
  { id: 'SAE 8', label: 'SAE grade 8, six marks' },
  { id: 'copper', label: 'copper' },
  { id: 'brass', label: 'brass' },
] as const;

/** Least diameter of the bearing face, mm: hexagon (ISO 4014, grade A to M24) and socket head (ISO 4762); clearance hole, medium (ISO 273). From memory. */
export const HEADS: Readonly<Record<number, { readonly hex: number; readonly socket: number; readonly hole: number }>> = {
  3: { hex: 4.57, socket: 5.07, hole: 3.4 },
  4: { hex: 5.88, socket: 6.53, hole: 4.5 },
  5: { hex: 6.88, socket: 8.03, hole: 5.5 },
  6: { hex: 8.88, socket: 9.38, hole: 6.6 },
  8: { hex: 11.63, socket: 12.33, hole: 9 },
  10: { hex: 14.63, socket: 15.33, hole: 11 },
  12: { hex: 16.63, socket: 17.23, hole: 13.5 },
  14: { hex: 19.37, socket: 20.17, hole: 15.5 },
  16: { hex: 22.49, socket: 23.17, hole: 17.5 },
  18: { hex: 25.34, socket: 25.87, hole: 20 },
  20: { hex: 28.19, socket: 28.87, hole: 22 },
  22: { hex: 31.71, socket: 31.81, hole: 24 },
  24: { hex: 33.61, socket: 34.81, hole: 26 },
  27: { hex: 38, socket: 38.61, hole: 30 },
  30: { hex: 42.75, socket: 43.61, hole: 33 },
  36: { hex: 51.11, socket: 52.54, hole: 39 },
};

/**
 * Friction of thread and head by the state of the surfaces, least and most. VDI 2230-1 table A5
 * (classes A to E), from memory; the mix of a workshop is wider than that of a test.
 */
export const FRICTION = {
  moly: { least: 0.06, most: 0.1 },
  oiled: { least: 0.1, most: 0.16 },
  threadlocker: { least: 0.12, most: 0.18 },
  'zinc-oiled': { least: 0.1, most: 0.16 },
  'zinc-dry': { least: 0.14, most: 0.24 },
  dry: { least: 0.14, most: 0.24 },
  stainless: { least: 0.2, most: 0.35 },
} as const;

export const SURFACE_CHOICES = [
  { id: 'oiled', label: 'plain steel, oiled' },
  { id: 'dry', label: 'plain steel, dry and clean' },
  { id: 'zinc-oiled', label: 'zinc plated, oiled' },
  { id: 'zinc-dry', label: 'zinc plated, dry' },
  { id: 'moly', label: 'moly paste' },
  { id: 'threadlocker', label: 'wet threadlocker' },
  { id: 'stainless', label: 'stainless in stainless, dry' },
] as const;

/** Shear strength of what the female thread is cut in, MPa. Common practice, on the careful side, from memory. */
export const FEMALE_MPA = {
  steel: 330,
  'soft-steel': 240,
  'cast-iron': 180,
  aluminium: 180,
  'cast-aluminium': 130,
  magnesium: 100,
  brass: 200,
} as const;

export const FEMALE_CHOICES = [
  { id: 'nut', label: 'a nut of the same class' },
  { id: 'steel', label: 'good steel' },
  { id: 'soft-steel', label: 'mild steel' },
  { id: 'cast-iron', label: 'cast iron' },
  { id: 'aluminium', label: 'wrought aluminium' },
  { id: 'cast-aluminium', label: 'cast aluminium' },
  { id: 'magnesium', label: 'magnesium' },
  { id: 'brass', label: 'brass' },
] as const;

/** Shear over tensile strength of a screw's thread, common practice. */
const SHEAR_SHARE = 0.6;

/** Shear strength of a screw's own thread, MPa. */
export function screwShearMPa({ tensileMPa }: Strength): number {
  return SHEAR_SHARE * tensileMPa;
}
