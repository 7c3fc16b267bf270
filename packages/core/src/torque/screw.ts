import { threadAreas, type Thread } from '../threads/thread.js';
import { INCH_HAIR_MM } from '../measuring/nominal.js';
import { HEADS, STRENGTHS, type Strength } from './screw-tables.js';

/** Mean of bearing face and clearance hole over the thread's diameter, where no table has the screw. */
const HEAD_DIAMETER = 1.28;
const COS_30 = Math.cos(Math.PI / 6);

export type Head = 'hex' | 'socket';

/** Of a class at a nominal diameter, mm; undefined for a class of no table, or over its largest size. */
export function strengthAt(propertyClass: string, diameter: number): Strength | undefined {
  // By its own classes only: an object answers to names of its own, too.
  return (Object.hasOwn(STRENGTHS, propertyClass) ? STRENGTHS[propertyClass] : undefined)?.find(({ to }) => diameter <= to + INCH_HAIR_MM);
}

/** Mean friction diameter under the head, mm: (dw + dh)/2. */
export function headDiameter({ diameter }: Pick<Thread, 'diameter'>, head: Head = 'hex'): number {
  const row = HEADS[diameter];
  return row ? (row[head] + row.hole) / 2 : HEAD_DIAMETER * diameter;
}

/** Torque over force, mm: P/2π + d2·μG/(2·cos 30°) + DKm·μK/2. VDI 2230-1, long form. */
export function torqueArm(thread: Thread, threadFriction: number, headFriction: number, headMean: number): number {
  const { d2 } = threadAreas(thread);
  return thread.pitch / (2 * Math.PI) + (d2 * threadFriction) / (2 * COS_30) + (headMean * headFriction) / 2;
}

/**
 * Force at which a share of the yield strength is used while the wrench is still turning, N.
 *
 * F = ν·Rp0.2·A0 / √(1 + 3·[1.5·(d2/d0)·(P/(π·d2) + 1.155·μG)]²). VDI 2230-1, from memory.
 */
export function forceAtYield(thread: Thread, yieldMPa: number, threadFriction: number, share: number): number {
  const { d2, d0, stressArea } = threadAreas(thread);
  const twist = 1.5 * (d2 / d0) * (thread.pitch / (Math.PI * d2) + 1.155 * threadFriction);
  return (share * yieldMPa * stressArea) / Math.sqrt(1 + 3 * twist * twist);
}

/**
 * Torque at which a screw has used a share of its yield strength, N·m; undefined for a class that
 * is not in the table.
 *
 * @param friction of thread and head alike
 * @param share of the yield strength, 0.9 for the usual assembly
 */
export function torqueAtYield(thread: Thread, propertyClass: string, friction: number, share: number): number | undefined {
  const strength = strengthAt(propertyClass, thread.diameter);
  if (strength === undefined) return undefined;
  return (forceAtYield(thread, strength.yieldMPa, friction, share) * torqueArm(thread, friction, friction, headDiameter(thread))) / 1000;
}

export interface Stripping {
  /** Force at which the thread of the hole, or of the screw, shears off; N. */
  readonly female: number;
  readonly male: number;
}

/**
 * Shear areas at the limit sizes that strip first: the thinnest screw in the widest hole.
 *
 * A female = π·Le·d_min/P·[P/2 + (d_min − D2_max)/√3], A male = π·Le·D1_max/P·[P/2 + (d2_min − D1_max)/√3]
 * (FED-STD-H28/2B), weakened by the bending of the flanks, C2 and C3 of ISO/TR 16224, both from
 * memory. Tolerances 6g/6H by the formulas of ISO 965-1.
 *
 * @param engaged length of full thread, mm
 */
export function strippingForces(thread: Thread, engaged: number, femaleMPa: number, maleMPa: number): Stripping {
  const { diameter, pitch } = thread;
  const { d2 } = threadAreas(thread);
  const gap = (15 + 11 * pitch) / 1000;
  const d2Tolerance = (90 * pitch ** 0.4 * diameter ** 0.1) / 1000;
  const leastMajor = diameter - gap - (180 * pitch ** (2 / 3) - 3.15 / Math.sqrt(pitch)) / 1000;
  const leastD2 = d2 - gap - d2Tolerance;
  const mostD2 = d2 + 1.32 * d2Tolerance;
  const minorTolerance = (pitch >= 1 ? 230 * pitch ** 0.7 : 433 * pitch - 190 * pitch ** 1.22) / 1000;
  const mostMinor = diameter - 1.082532 * pitch + minorTolerance;
  const areaOf = (at: number, overlap: number): number => ((Math.PI * engaged * at) / pitch) * (pitch / 2 + overlap / Math.sqrt(3));
  const female = femaleMPa * areaOf(leastMajor, leastMajor - mostD2);
  const male = maleMPa * areaOf(mostMinor, leastD2 - mostMinor);
  const ratio = female / male;
  return { female: female * bendingOfFemale(ratio), male: male * bendingOfMale(ratio) };
}

/** C3: the weaker female thread bends, too. */
function bendingOfFemale(ratio: number): number {
  if (ratio >= 1) return 0.897;
  return ratio <= 0.4
    ? 0.728 + 1.769 * 0.4 - 2.896 * 0.4 ** 2 + 1.296 * 0.4 ** 3
    : 0.728 + 1.769 * ratio - 2.896 * ratio ** 2 + 1.296 * ratio ** 3;
}

/** C2: of the screw's thread in a stronger hole. */
function bendingOfMale(ratio: number): number {
  if (ratio <= 1) return 0.897;
  const at = Math.min(ratio, 2.2);
  return 5.594 - 13.682 * at + 14.107 * at ** 2 - 6.057 * at ** 3 + 0.9353 * at ** 4;
}
