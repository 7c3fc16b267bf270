import type { Role } from '@jubb/sheet';

/** One password for all demo people; it is printed by `./jubb start`. */
export const DEMO_PASSWORD = 'bench-417';

/** One PIN for all of them, at a tablet that knows them. */
export const DEMO_PIN = '4170';

export const DEMO_PEOPLE: readonly (readonly [name: string, login: string, role: Role])[] = [
  ['Ilka Varne', 'ilka', 'mechanic'],
  ['Bram Estelow', 'bram', 'mechanic'],
  ['Oswin Tarrell', 'oswin', 'foreman'],
  ['Perla Dunmoor', 'perla', 'counter'],
  ['Joss Hallick', 'joss', 'apprentice'],
];

/** Who else is in the shop with two years behind it; the last one left, and has no way in any more. */
export const MORE_PEOPLE: typeof DEMO_PEOPLE = [
  ['Tova Brackmere', 'tova', 'mechanic'],
  ['Miro Ashvale', 'miro', 'counter'],
  ['Garrit Solvane', 'garrit', 'mechanic'],
];
export const WHO_LEFT = 'garrit';
