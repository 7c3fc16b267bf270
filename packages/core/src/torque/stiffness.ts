import { threadAreas, type Thread } from '../threads/thread.js';

export const STEEL_MPA = 205_000;

/** Young's modulus of what is clamped, MPa; handbook values, from memory. */
export const MODULUS_MPA = { steel: STEEL_MPA, 'cast-iron': 110_000, aluminium: 71_000, brass: 105_000, magnesium: 45_000 } as const;

export const MEMBER_CHOICES = [
  { id: 'steel', label: 'steel' },
  { id: 'cast-iron', label: 'cast iron' },
  { id: 'aluminium', label: 'aluminium' },
  { id: 'brass', label: 'brass' },
  { id: 'magnesium', label: 'magnesium' },
] as const;

/** Of shank and thread in the grip, kN/mm: kb = Ad·At·E/(Ad·lt + At·ld) (Shigley, 8-17). */
export function boltStiffness(thread: Thread, grip: number, shank: number): number {
  const { stressArea } = threadAreas(thread);
  const shankArea = (Math.PI / 4) * thread.diameter ** 2;
  return (shankArea * stressArea * STEEL_MPA) / (shankArea * (grip - shank) + stressArea * shank) / 1000;
}

/**
 * Of the clamped parts, kN/mm, as two cones of 30° under faces of 1.5 d:
 * km = 0.5774·π·E·d / (2·ln(5·(0.5774·l + 0.5·d)/(0.5774·l + 2.5·d))) (Shigley, 8-22).
 */
export function memberStiffness(diameter: number, grip: number, modulusMPa: number): number {
  const inside = (5 * (0.5774 * grip + 0.5 * diameter)) / (0.5774 * grip + 2.5 * diameter);
  return (0.5774 * Math.PI * modulusMPa * diameter) / (2 * Math.log(inside)) / 1000;
}
