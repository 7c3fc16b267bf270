import { useReducer, useSyncExternalStore } from 'react';

/** What this device remembers; it is not worth a place in the database. */

const PREFIX = 'jubb.';

const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function readStored(key: string): string | undefined {
  try {
    return localStorage.getItem(`${PREFIX}${key}`) ?? undefined;
  } catch {
    return undefined;
  }
}

export function writeStored(key: string, text: string | undefined): void {
  try {
    if (text === undefined) localStorage.removeItem(`${PREFIX}${key}`);
    else localStorage.setItem(`${PREFIX}${key}`, text);
  } catch {
    // A device without storage forgets; the work goes on.
  }
  for (const listener of listeners) listener();
}

function useStored(key: string): string | undefined {
  return useSyncExternalStore(subscribe, () => readStored(key));
}

/** All that is half typed in this browser, by its name. */
export function storedDrafts(): readonly (readonly [name: string, text: string])[] {
  return Object.keys(localStorage)
    .filter((name) => name.startsWith(`${PREFIX}draft.`))
    .map((name) => [name.slice(PREFIX.length), localStorage.getItem(name) ?? ''] as const);
}

/** What was half typed on this page: another page of this browser that keeps its own does not take it from here. */
const mine = new Map<string, string>();

/** Something half typed: it outlives a reload, and goes when it has been kept. */
export function useDraft<T>(key: string, initial: T): readonly [T, (next: T | undefined) => void] {
  const name = `draft.${key}`;
  const kept = useStored(name);
  const stored = mine.get(name) ?? kept;
  // The store is only listened to some time after the first paint: a letter typed before that
  // would be taken back out of its field, so the typing itself asks for the new picture.
  const [, repaint] = useReducer((count: number) => count + 1, 0);
  const draft = stored === undefined ? initial : (JSON.parse(stored) as T);
  const set = (next: T | undefined): void => {
    keepDraft(key, next);
    repaint();
  };
  return [draft, set];
}

/** What was half typed under a key, for a form that holds its values itself. */
export function readDraft<T>(key: string): Partial<T> {
  const name = `draft.${key}`;
  const stored = mine.get(name) ?? readStored(name);
  return stored === undefined ? {} : (JSON.parse(stored) as Partial<T>);
}

export function keepDraft(key: string, next: unknown): void {
  const name = `draft.${key}`;
  if (next === undefined) mine.delete(name);
  else mine.set(name, JSON.stringify(next));
  writeStored(name, mine.get(name));
}

/** What was half typed on this page under a key, or one that goes on behind it by a point. */
function draftsUnder(key: string): readonly string[] {
  return [...mine.keys()].filter((name) => name === `draft.${key}` || name.startsWith(`draft.${key}.`));
}

/** Whether something was half typed on this page under a key, and not kept yet. */
export function useUnkept(key: string): boolean {
  return useSyncExternalStore(subscribe, () => draftsUnder(key).length > 0);
}

/** Lets go of what was half typed under a key. */
export function dropDrafts(key: string): void {
  for (const name of draftsUnder(key)) {
    mine.delete(name);
    writeStored(name, undefined);
  }
}

export const UNIT_CHOICES = ['mm · N·m', 'in · lbf·ft', 'both'] as const;
export type UnitChoice = (typeof UNIT_CHOICES)[number];
export const LIGHTS = ['day', 'night', 'sun'] as const;
export type Light = (typeof LIGHTS)[number];

export function useUnitChoice(): readonly [UnitChoice, (choice: UnitChoice) => void] {
  const stored = useStored('units');
  return [UNIT_CHOICES.find((choice) => choice === stored) ?? 'mm · N·m', (choice) => writeStored('units', choice)];
}

export function useLight(): readonly [Light, (light: Light) => void] {
  const stored = useStored('light');
  const wanted = LIGHTS.find((light) => light === stored);
  return [wanted ?? 'day', (light) => writeStored('light', light)];
}

/** Whether bench view says its steps aloud: off until somebody wants it on this device. */
export function useSpoken(): readonly [boolean, (on: boolean) => void] {
  const stored = useStored('spoken');
  return [stored === 'yes', (on) => writeStored('spoken', on ? 'yes' : undefined)];
}
