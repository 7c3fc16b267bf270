import { threadAreas, type Thread } from '../threads/thread.js';

/**
 * Least yield strength (Rp0.2 or ReL) by property class, MPa. ISO 898-1 table 3; ISO 3506-1 for
 * stainless; SAE J429 for the grades. From memory.
 */
const YIELD_MPA: Readonly<Record<string, number>> = {
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
  'SAE 5': 634,
  'SAE 8': 896,
};

/** Mean of bearing face and clearance hole over the thread's diameter, for hexagon heads of ISO 4014. */
const HEAD_DIAMETER = 1.28;

/**
 * Torque at which a screw has used a share of its yield strength, N·m; undefined for a class that
 * is not in the table.
 *
 * F = ν·Rp0.2·A0 / √(1 + 3·[1.5·(d2/d0)·(P/(π·d2) + 1.155·μ)]²),
 * M = F·(P/2π + d2·μ/(2·cos 30°) + DKm·μ/2), DKm = 1.28·d. VDI 2230-1, from memory.
 *
 * @param friction of thread and head alike
 * @param share of the yield strength, 0.9 for the usual assembly
 */
export function torqueAtYield(thread: Thread, propertyClass: string, friction: number, share: number): number | undefined {
  const yieldMPa = YIELD_MPA[propertyClass];
  if (yieldMPa === undefined) return undefined;
  const { d2, d0, stressArea } = threadAreas(thread);
  const { pitch, diameter } = thread;
  const twist = 1.5 * (d2 / d0) * (pitch / (Math.PI * d2) + 1.155 * friction);
  const forceN = (share * yieldMPa * stressArea) / Math.sqrt(1 + 3 * twist * twist);
  const armMm = pitch / (2 * Math.PI) + (d2 * friction) / (2 * Math.cos(Math.PI / 6)) + (HEAD_DIAMETER * diameter * friction) / 2;
  return (forceN * armMm) / 1000;
}
