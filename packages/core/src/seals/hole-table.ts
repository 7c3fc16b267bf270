import { mm } from '../quantity/write.js';
import type { Row } from '../working/describe.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { byDistances, hull, type Hole } from './outline.js';

/** Holes of a face, as one measures them with a calliper. */
export const HOLE_FIELDS = [
  {
    kind: 'choice',
    name: 'how',
    label: 'Each hole is measured',
    default: 'distances',
    choices: [
      { id: 'distances', label: 'from the first hole and from the second' },
      { id: 'coordinates', label: 'across and up from a corner' },
    ],
    help: 'A calliper over both holes, less half of each, is the distance of their middles. Minus in the second column: below the line from the first to the second.',
  },
] as const;

export const HOLE_COLUMNS = [
  { name: 'a', label: 'from first or across', quantity: 'length' },
  { name: 'b', label: 'from second or up', quantity: 'length' },
  { name: 'd', label: 'hole', quantity: 'length' },
] as const;

/** Where the holes lie, mm: the first hole at 0, 0 and the second straight across where they were measured from those two. */
export function holesOf(how: 'distances' | 'coordinates', rows: readonly Row[]): Result<readonly Hole[]> {
  const wrong = (at: number, column: string, received: string, bound: string): Result<never> =>
    refuse({ code: 'cannot-be', field: `holes[${at}].${column}`, label: `Holes, row ${at + 1}`, received, bound });
  const holes: Hole[] = [];
  const base = Number(rows[1]?.['a'] ?? 0);
  if (how === 'distances' && !(base > 0)) return wrong(1, 'a', mm(base), 'the second hole lies away from the first');
  for (const [at, row] of rows.entries()) {
    const [a, b, d] = [Number(row['a']), Number(row['b']), Number(row['d'])];
    if (!(d > 0)) return wrong(at, 'd', mm(d), 'a hole is wider than nothing');
    if (how === 'coordinates') holes.push({ x: a, y: b, d });
    else if (at === 0) holes.push({ x: 0, y: 0, d });
    else if (at === 1) holes.push({ x: base, y: 0, d });
    else {
      const place = byDistances(base, a, Math.abs(b), b < 0);
      if (!place)
        return wrong(at, 'b', `${mm(a)} and ${mm(Math.abs(b))}`, `the two do not meet: the first and second hole are ${mm(base)} apart`);
      holes.push({ ...place, d });
    }
    const { x, y } = holes[at]!;
    const on = holes.findIndex((other, index) => index < at && Math.hypot(x - other.x, y - other.y) < (d + other.d) / 2);
    if (on !== -1) return wrong(at, 'a', mm(a), `it lies on hole ${on + 1}`);
  }
  return ok(holes);
}

/** The outermost of the holes, against the clock; refuses those of one line. */
export function outermost(holes: readonly Hole[]): Result<readonly Hole[]> {
  const round = hull(holes);
  if (round.length > 2) return ok(round);
  return refuse({
    code: 'cannot-be',
    field: 'holes',
    received: `${holes.length} in one line`,
    bound: 'a face has holes round it, not in one line',
  });
}
