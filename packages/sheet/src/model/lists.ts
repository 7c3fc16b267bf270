import type { SheetFile } from './file.js';

/** The lists of a sheet whose lines have a ref, in the order a person reads them. */
export const SHEET_LISTS = [
  'documents',
  'features',
  'variants',
  'complaints',
  'causes',
  'tasks',
  'several',
  'parts',
  'kits',
  'joints',
  'fastenings',
  'settings',
  'fits',
  'seals',
  'limits',
  'fluids',
  'cautions',
  'obligations',
  'whileOpen',
  'routings',
  'steps',
  'customerNotes',
] as const satisfies readonly (keyof SheetFile)[];
export type SheetList = (typeof SHEET_LISTS)[number];

export const LIST_NAMES: Readonly<Record<SheetList, string>> = {
  documents: 'Documents',
  features: 'What tells it apart',
  variants: 'Variants',
  complaints: 'Complaints',
  causes: 'Causes',
  tasks: 'Tasks',
  several: 'Several of a kind',
  parts: 'Parts',
  kits: 'Kits',
  joints: 'Joints',
  fastenings: 'Fastenings without a thread',
  settings: 'Settings',
  fits: 'Fits',
  seals: 'Seals',
  limits: 'Limits and checks',
  fluids: 'Fluids',
  cautions: 'Cautions',
  obligations: 'This makes that necessary',
  whileOpen: 'While it is open',
  routings: 'Routing pictures',
  steps: 'Steps',
  customerNotes: 'Told to the customer',
};

export interface Line {
  readonly ref: string;
}

/** The lines of a list; a list that is left out has none. */
export function rowsOf<L extends SheetList>(sheet: SheetFile, list: L): NonNullable<SheetFile[L]> {
  return (sheet[list] ?? []) as NonNullable<SheetFile[L]>;
}

/** What a line is called, whatever list it stands in. */
export function lineName(line: object): string {
  const { name, title, text, work, ask, part, ref } = line as Record<string, unknown>;
  // A draft may hold anything: only what is words is a name.
  return [name, title, ask, work, text, part, ref].find((one) => typeof one === 'string') ?? '';
}
