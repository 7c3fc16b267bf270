import { mm } from '../quantity/write.js';
import type { Row } from '../working/describe.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { FORMULA_MOST, faultsOf, seated, squeezeOf, stretchIn, STRETCH_MOST, type Groove, type Seated } from './ring.js';
import type { RingSize } from './ring-sizes.js';

/** Rings that lie on the shelf, as a table. */
export const SHELF_FIELD = {
  kind: 'table',
  name: 'shelf',
  label: 'Rings on the shelf',
  columns: [
    { name: 'name', label: 'name', quantity: 'text' },
    { name: 'inside', label: 'inside', quantity: 'length' },
    { name: 'section', label: 'section', quantity: 'length' },
  ],
  most: 2000,
  optional: true,
  help: 'Those come first; none is no matter.',
} as const;

/** What lies on the shelf, by its sizes; refuses a ring that cannot be. */
export function ringsOn(rows: readonly Row[] = []): Result<readonly RingSize[]> {
  const rings = rows.map((row): RingSize => ({
    name: String(row['name']),
    inside: Number(row['inside']),
    section: Number(row['section']),
  }));
  const wrong = rings.findIndex(({ inside, section }) => !(inside > 0 && section > 0));
  if (wrong === -1) return ok(rings);
  return refuse({
    code: 'cannot-be',
    field: `shelf[${wrong}].inside`,
    label: `Rings on the shelf, row ${wrong + 1}`,
    received: mm(rings[wrong]!.inside),
    bound: 'a ring is wider than nothing, inside and through',
  });
}

/** A size as one looks for a ring. */
export interface Candidate {
  readonly size: RingSize;
  readonly onShelf: boolean;
  readonly at: Seated;
  /** 0 is right in every way. */
  readonly badness: number;
  readonly why: string;
  /** Neither stretched nor pushed together too far. */
  readonly liesRight: boolean;
  /** What is wrong shows at the worst of all tolerances alone. */
  readonly isUnsure: boolean;
}

/** Whatever is under it fits. */
export const FITS = 10;
/** Of two that fit alike, the one on the shelf. */
const NOT_ON_SHELF = 1;

/** A size put into a groove; nothing where it is so far off that it is not worth a word. */
export function triedIn(groove: Groove, size: RingSize, onShelf: boolean): Candidate | undefined {
  const { from, to } = squeezeOf(groove);
  // Far from it: neither fits nor is worth a word.
  if (size.section < groove.height * 0.85 || size.section > (groove.height / (1 - to)) * 1.3) return undefined;
  const stretch = stretchIn(groove, size);
  if (stretch > FORMULA_MOST || stretch < -0.15) return undefined;
  const at = seated(groove, size);
  const faults = faultsOf(groove, at);
  const grave = faults.filter(({ grave: isGrave }) => isGrave);
  const middle = (from + to) / 2;
  // Squeeze away from its middle and stretch away from a little, each by its own room.
  const off = Math.abs(at.squeeze - middle) / (to - from) + Math.abs(at.stretch - STRETCH_MOST / 3) / (2 * STRETCH_MOST);
  const badness = (onShelf ? 0 : NOT_ON_SHELF) + off + (faults.length - grave.length) * 0.5 + grave.length * FITS;
  const why = faults.length > 0 ? faults.map(({ words }) => words).join('; ') : 'right';
  return {
    size,
    onShelf,
    at,
    badness,
    why,
    liesRight: !grave.some(({ what }) => what === 'stretch'),
    isUnsure: faults.length > 0 && grave.length === 0,
  };
}
