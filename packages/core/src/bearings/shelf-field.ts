import { bestPacks, type Pack, type Size } from '../math/shim-pack.js';
import { mm } from '../quantity/write.js';
import type { NumberField, Row, TableField } from '../working/describe.js';
import { refuse, type Result } from '../working/issues.js';

/** What lies on the shelf, and how many may go in: asked alike wherever shims are picked. */
export const SHELF_FIELD = {
  kind: 'table',
  name: 'shelf',
  label: 'On the shelf',
  columns: [
    { name: 'thickness', label: 'thickness', quantity: 'length' },
    { name: 'count', label: 'pieces', quantity: 'count' },
  ],
  fewest: 1,
  most: 300,
  help: 'One thickness to a line, and how many there are.',
} as const satisfies TableField;

export const MOST_PIECES_FIELD = {
  kind: 'number',
  name: 'mostPieces',
  label: 'Pieces at most',
  quantity: 'count',
  min: 1,
  max: 8,
  default: 4,
  help: 'In one pack.',
} as const satisfies NumberField;

export const PACK_COLUMNS = [
  { name: 'pack', label: 'pack', quantity: 'text' },
  { name: 'thickness', label: 'thickness', quantity: 'length' },
  { name: 'gives', label: 'gives', quantity: 'length' },
  { name: 'inside', label: 'in the window', quantity: 'yes-no' },
] as const satisfies TableField['columns'];

const THICKEST_MM = 30;

/** The sizes of a shelf; refuses an empty one and a thickness that is none. */
export function shelfOf(rows: readonly Row[], field = SHELF_FIELD.name, label: string = SHELF_FIELD.label): Result<readonly Size[]> {
  const sizes = rows.map((row): Size => ({ thickness: Number(row['thickness']), count: Number(row['count']) }));
  for (const [index, { thickness, count }] of sizes.entries()) {
    const at = (name: string): { field: string; label: string } => ({
      field: `${field}[${index}].${name}`,
      label: `${label}, row ${index + 1}, ${name}`,
    });
    if (thickness <= 0) return refuse({ code: 'too-small', ...at('thickness'), received: mm(thickness), bound: 'more than 0 mm' });
    if (thickness > THICKEST_MM) return refuse({ code: 'too-large', ...at('thickness'), received: mm(thickness), bound: mm(THICKEST_MM) });
    if (count < 0) return refuse({ code: 'too-small', ...at('count'), received: String(count), bound: '0' });
    if (sizes.findIndex((other) => other.thickness === thickness) !== index)
      return refuse({ code: 'said-twice', ...at('thickness'), received: mm(thickness) });
  }
  if (sizes.every(({ count }) => count === 0))
    return refuse({ code: 'none-will-do', field, label, received: 'the shims', bound: 'the box is empty' });
  return { ok: true, value: sizes };
}

/** The packs nearest to a thickness; refuses where the shelf makes none at all. */
export function packsFor(wanted: number, sizes: readonly Size[], mostPieces: number, shown: number): Result<readonly Pack[]> {
  const packs = bestPacks(wanted, sizes, mostPieces, shown);
  return packs.length > 0
    ? { ok: true, value: packs }
    : refuse({ code: 'none-will-do', field: SHELF_FIELD.name, label: SHELF_FIELD.label, received: 'the shims', bound: mm(wanted) });
}

/** "1 + 0.3 + 2 × 0.05 mm": the thick ones outside. */
export function packWords({ pieces }: Pack, sizes: readonly Size[]): string {
  if (pieces.length === 0) return 'none';
  return `${pieces.map(({ size, count }) => `${count > 1 ? `${count} × ` : ''}${mm(sizes[size]!.thickness).replace(' mm', '')}`).join(' + ')} mm`;
}

/** Thicknesses in the order in which they lie: the two thickest outside, the thin ones between. */
export function layers({ pieces }: Pack, sizes: readonly Size[]): readonly number[] {
  const all = pieces
    .flatMap(({ size, count }) => Array.from({ length: count }, () => sizes[size]!.thickness))
    .toSorted((one, other) => other - one);
  const [first, last, ...between] = all;
  return [first, ...between, last].filter((one): one is number => one !== undefined);
}
