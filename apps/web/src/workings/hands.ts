import type { WorkingDescription } from '@jubb/core';

/** What one holds when one asks: workings by their area, and those of other areas that are asked for with it too. */
export interface Hand {
  readonly id: string;
  readonly name: string;
  readonly areas: readonly string[];
  readonly also?: readonly string[];
}

export const HANDS: readonly Hand[] = [
  { id: 'screw', name: 'A screw or nut', areas: ['torque', 'threads'] },
  { id: 'bearing', name: 'A bearing', areas: ['bearings'] },
  { id: 'seal', name: 'A seal or ring', areas: ['seals', 'gearboxes'], also: ['bearing.identify', 'measure.runout'] },
  { id: 'gear', name: 'A gear, chain or shaft', areas: ['gears', 'shafts'] },
  { id: 'clutch', name: 'A clutch or spring', areas: ['clutches', 'springs', 'compressors'] },
  { id: 'press', name: 'A part to press', areas: ['fits'] },
  { id: 'wire', name: 'A wire or winding', areas: ['alternators', 'wiring'] },
  { id: 'gauge', name: 'A gauge in doubt', areas: ['measuring', 'units'] },
  { id: 'unknown', name: 'Something nobody knows', areas: ['identify'], also: ['thread.identify', 'bearing.identify', 'gear.ratio'] },
  { id: 'money', name: 'Money', areas: [], also: ['decide.repair'] },
  { id: 'time', name: 'Time', areas: ['quality'], also: ['estimate.time'] },
];

/** The questions of a hand, those that were asked last on this device first. */
export function questionsOf<W extends Pick<WorkingDescription, 'id' | 'area'>>(
  { areas, also = [] }: Hand,
  all: readonly W[],
  used: readonly string[],
): readonly W[] {
  const place = (id: string): number => {
    const at = used.indexOf(id);
    return at === -1 ? used.length : at;
  };
  return all.filter(({ id, area }) => areas.includes(area) || also.includes(id)).toSorted((one, other) => place(one.id) - place(other.id));
}
