import { readStored, writeStored } from '../kit/prefs.ts';

const KEY = 'workings.used';
const MOST = 12;

/** Workings that were asked last on this device, the newest first. */
export function usedWorkings(): readonly string[] {
  return JSON.parse(readStored(KEY) ?? '[]') as string[];
}

export function rememberWorking(id: string): void {
  writeStored(KEY, JSON.stringify([id, ...usedWorkings().filter((one) => one !== id)].slice(0, MOST)));
}
