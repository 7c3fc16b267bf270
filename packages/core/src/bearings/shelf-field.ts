import { bestPacks, type Pack, type Size } from '../math/shim-pack.js';
import { mm } from '../quantity/write.js';
import type { Drawing, NumberField, Row, TableField } from '../working/describe.js';
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
/** An end that is met within the noise of binary fractions is met, mm. */
const NOISE_MM = 1e-9;

/** From one end to the other, mm. */
export interface Ends {
  readonly from: number;
  readonly to: number;
}

export function isInside(figure: number, { from, to }: Ends): boolean {
  return figure >= from - NOISE_MM && figure <= to + NOISE_MM;
}

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

export interface PackWanted {
  /** Thickness that would give the aim, mm, and the thicknesses that would do. */
  readonly wanted: number;
  readonly window: Ends;
  readonly shelf: readonly Row[];
  readonly mostPieces: number;
  /** What a thickness gives, mm. */
  readonly gives: (thickness: number) => number;
}

/** A row of PACK_COLUMNS. */
interface PackRow {
  readonly pack: string;
  readonly thickness: number;
  readonly gives: number;
  readonly inside: boolean;
}

const SHOWN = 6;

/** The pack nearest to a thickness of all that will do, and the next best; refuses where none will do. */
export function packsFor(asked: PackWanted): Result<{ readonly best: PackRow; readonly packs: readonly Row[] }> {
  const { wanted, window, mostPieces, gives } = asked;
  const shelf = shelfOf(asked.shelf);
  if (!shelf.ok) return shelf;
  const rowOf = (pack: Pack): PackRow => ({
    pack: packWords(pack, shelf.value),
    thickness: pack.thickness,
    gives: gives(pack.thickness),
    inside: isInside(pack.thickness, window),
  });
  const nearest = bestPacks(wanted, shelf.value, mostPieces, SHOWN).map(rowOf);
  // An aim near an end of the window may have its nearest packs outside it, and others inside.
  const best =
    nearest.find(({ inside }) => inside) ?? packsInside(window, shelf.value, mostPieces).map(rowOf).toSorted(nearerTo(wanted))[0];
  if (best) {
    const others = nearest.filter(({ thickness }) => thickness !== best.thickness).slice(0, SHOWN - 1);
    return { ok: true, value: { best, packs: others.map((row) => ({ ...row })) } };
  }
  const [first] = nearest;
  return refuse({
    code: 'none-will-do',
    field: SHELF_FIELD.name,
    label: SHELF_FIELD.label,
    received: 'the shims',
    bound: noneWords(first && `${first.pack}, gives ${mm(first.gives)}`, window, 'in all'),
  });
}

/** Every pack whose thickness lies in a window. */
function packsInside({ from, to }: Ends, shelf: readonly Size[], mostPieces: number): readonly Pack[] {
  const low = Math.max(0, from);
  for (let many = SHOWN; ; many *= 4) {
    const packs = bestPacks((low + to) / 2, shelf, mostPieces, many);
    const inside = packs.filter(({ thickness }) => isInside(thickness, { from: low, to }));
    // They come by their distance from the middle: once one lies outside, all that lie inside came before it.
    if (inside.length < packs.length || packs.length < many) return inside;
  }
}

function nearerTo(wanted: number): (one: PackRow, other: PackRow) => number {
  return (one, other) => Math.abs(one.thickness - wanted) - Math.abs(other.thickness - wanted);
}

/** The shims of a pack of that thickness, as they lie. */
export function packDrawing(thickness: number, wanted: number, rows: readonly Row[], mostPieces: number): Drawing {
  const shelf = shelfOf(rows);
  const [pack] = shelf.ok ? bestPacks(thickness, shelf.value, mostPieces, 1) : [];
  return { kind: 'pack', layers: shelf.ok && pack ? layers(pack, shelf.value) : [], wanted };
}

/** What would be right where nothing on the shelf is. */
export function noneWords(nearest: string | undefined, { from, to }: Ends, of: string): string {
  const right = `${mm(Math.max(0, from))} to ${mm(to)} ${of} would be right`;
  return nearest === undefined ? right : `the nearest, ${nearest}; ${right}`;
}

/** "1 + 0.3 + 2 × 0.05 mm": the thick ones outside. */
export function packWords({ pieces }: Pack, sizes: readonly Size[]): string {
  if (pieces.length === 0) return 'none';
  return `${pieces.map(({ size, count }) => `${count > 1 ? `${count} × ` : ''}${mm(sizes[size]!.thickness).replace(' mm', '')}`).join(' + ')} mm`;
}

/** A pack as `packWords` writes it, taken apart again: pieces of each thickness, mm. */
export function packPieces(words: string): readonly { readonly thickness: number; readonly count: number }[] {
  return [...words.matchAll(/(?:(\d+) × )?(\d+(?:\.\d+)?)/gu)].map(([, count = '1', thickness]) => ({
    thickness: Number(thickness),
    count: Number(count),
  }));
}

/** Thicknesses in the order in which they lie: the two thickest outside, the thin ones between. */
function layers({ pieces }: Pack, sizes: readonly Size[]): readonly number[] {
  const all = pieces
    .flatMap(({ size, count }) => Array.from({ length: count }, () => sizes[size]!.thickness))
    .toSorted((one, other) => other - one);
  const [first, last, ...between] = all;
  return [first, ...between, last].filter((one): one is number => one !== undefined);
}
