import { SHEET_LISTS } from '../model/lists.js';
import { COLUMNS } from './columns.js';

/** Fields of a sheet and of its lines in the order an author writes them; a database keeps none. */
const ORDER: readonly string[] = [
  ...['format', 'key', 'title', 'family', 'make', 'model', 'machine', 'mass', 'sides', 'serialPlace', 'notes'],
  ...SHEET_LISTS,
  ...SHEET_LISTS.flatMap((list) => COLUMNS[list].map(({ path }) => path.split('.')[0] ?? '')),
  ...['figure', 'tolerance', 'from', 'to', 'trust', 'source', 'page'],
];
const PLACE = new Map([...ORDER].reverse().map((name, index) => [name, ORDER.length - index]));

/** A copy with every object's fields in the author's order; fields of no known place come last, as they stood. */
export function inOrder<T>(held: T): T {
  if (Array.isArray(held)) return held.map(inOrder) as T;
  if (typeof held !== 'object' || held === null) return held;
  const place = (name: string): number => (name === 'ref' ? 0 : (PLACE.get(name) ?? Number.POSITIVE_INFINITY));
  return Object.fromEntries(
    Object.entries(held)
      .toSorted(([a], [b]) => (place(a) === place(b) ? 0 : place(a) - place(b)))
      .map(([name, inner]: [string, unknown]) => [name, inOrder(inner)]),
  ) as T;
}
