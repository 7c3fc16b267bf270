/**
 * Least yield strength (Rp0.2 or ReL) by property class, MPa. ISO 898-1 table 3; ISO 3506-1 for
 * stainless; SAE J429 for the grades. From memory. Steel of 8.8 over M16 has 660.
 */
export const YIELD_MPA: Readonly<Record<string, number>> = {
  '4.6': 240,
  '4.8': 340,
  '5.6': 300,
  '5.8': 420,
  '6.8': 480,
  '8.8': 640,
  '9.8': 720,
  '10.9': 940,
  '12.9': 1100,
  'A2-70': 450,
  'A4-70': 450,
  'A2-80': 600,
  'A4-80': 600,
  'SAE 2': 393,
  'SAE 5': 634,
  'SAE 8': 896,
};

/** Proof stress, MPa: ISO 898-1 table 3, SAE J429. From memory. */
export const PROOF_MPA: Readonly<Record<string, number>> = {
  '4.6': 225,
  '4.8': 310,
  '5.6': 280,
  '5.8': 380,
  '6.8': 440,
  '8.8': 580,
  '9.8': 650,
  '10.9': 830,
  '12.9': 970,
  'SAE 2': 379,
  'SAE 5': 586,
  'SAE 8': 827,
};

export const CLASS_CHOICES = [
  { id: '8.8', label: '8.8' },
  { id: '4.6', label: '4.6' },
  { id: '4.8', label: '4.8' },
  { id: '5.6', label: '5.6' },
  { id: '5.8', label: '5.8' },
  { id: '6.8', label: '6.8' },
  { id: '9.8', label: '9.8' },
  { id: '10.9', label: '10.9' },
  { id: '12.9', label: '12.9' },
  { id: 'A2-70', label: 'A2-70 stainless' },
  { id: 'A4-70', label: 'A4-70 stainless' },
  { id: 'A2-80', label: 'A2-80 stainless' },
  { id: 'A4-80', label: 'A4-80 stainless' },
  { id: 'SAE 2', label: 'SAE grade 2, no marks' },
  { id: 'SAE 5', label: 'SAE grade 5, three marks' },
  { id: 'SAE 8', label: 'SAE grade 8, six marks' },
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
const SAE_TENSILE_MPA: Readonly<Record<string, number>> = { 'SAE 2': 510, 'SAE 5': 827, 'SAE 8': 1034 };

/** Shear strength of a screw's own thread, MPa, from the tensile strength that its class names (ISO 898-1, ISO 3506-1, SAE J429). */
export function screwShearMPa(propertyClass: string): number {
  const named = /^(?:A[24]-)?(?<first>\d+)/u.exec(propertyClass)?.groups?.['first'];
  const tensile = SAE_TENSILE_MPA[propertyClass] ?? Number(named) * (propertyClass.startsWith('A') ? 10 : 100);
  return SHEAR_SHARE * tensile;
}
