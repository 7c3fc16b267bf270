import { parseQuantity, workings, type OfSeal } from '@jubb/core';
import type { SealLine } from '../parts/stock.js';
import { rubberStands } from './seal-run.js';
import { baseOf, isPushing, type Seal, type Tool } from '@jubb/sheet';

/** The workings that help where a seal goes in, the likeliest first. */
export function workingsForSeal({ kind }: Pick<Seal, 'kind'>): readonly string[] {
  return workings.serving('seal', ({ kinds }) => kinds?.includes(kind) ?? true);
}

type Sized = Partial<Record<OfSeal, string>>;

/** What the size of a seal says: "44 × 72 × 10" of a lip seal, "20 × 2.65" of a ring, "bead 2 mm" of a bead; nothing where it is in words. */
export function sealSize(size: string): Sized {
  const bead = /^bead (?<wide>[\d.]+) ?mm$/u.exec(size)?.groups?.['wide'];
  if (bead !== undefined) return { bead: `${bead} mm` };
  const figures = size.split(/[×x]/u).map((one) => parseQuantity(one, 'length', 'size'));
  const [first, second, third] = figures.flatMap((read) => (read.ok ? [`${read.quantity.base} mm`] : []));
  if (figures.some(({ ok }) => !ok) || first === undefined || second === undefined) return {};
  return third === undefined ? { inside: first, section: second } : { shaft: first, bore: second, width: third };
}

/** Whether a working looks through the seals of the stores. */
export function looksThroughSeals(working: string): boolean {
  return workings.servesOf(working).some(({ at, preset = {} }) => at === 'seal' && Object.values(preset).includes('seal.shelf'));
}

type Row = Readonly<Record<string, string | number>>;

/** The seals of the stores as a working's table takes them; those whose rubber the fluid takes apart, where that is known, are not offered. */
export function shelfFor(working: string, { medium }: Pick<Seal, 'medium'>, lines: readonly SealLine[]): readonly Row[] {
  const table = workings.describe(working)?.inputs.find((field) => field.kind === 'table');
  const asked = table?.kind === 'table' ? table.columns.map(({ name }) => name).filter((name) => name !== 'name') : [];
  return lines.flatMap(({ number, location, material, shore, size }) => {
    if (material !== null && rubberStands({ material, medium })?.rating === 'no') return [];
    const sizes = sealSize(size);
    const figures = asked.map((name) => [name, Number.parseFloat(sizes[name as OfSeal] ?? '')] as const);
    if (figures.some(([, figure]) => !(figure > 0))) return [];
    const name = [number, [material, shore].filter(Boolean).join(' '), location].filter(Boolean).join(', ');
    return [{ name, ...Object.fromEntries(figures) }];
  });
}

/** What a working at a seal need not ask: what the sheet's line says of it, and what lies on the shelf. */
export function presetForSeal(
  working: string,
  seal: Seal,
  lines: readonly SealLine[] = [],
): Readonly<Record<string, string | readonly Row[]>> {
  const { preset = {} } = workings.servesOf(working).find(({ at, kinds }) => at === 'seal' && (kinds?.includes(seal.kind) ?? true)) ?? {};
  const known: Sized = {
    ...sealSize(seal.size),
    material: seal.material,
    ...(seal.medium === undefined ? {} : { medium: seal.medium }),
    ...(seal.depth?.to ? { deepest: `${baseOf(seal.depth.to, 'length')} mm` } : {}),
  };
  const fields = workings.describe(working)?.inputs ?? [];
  const given = Object.entries(preset).flatMap(([name, from]): readonly (readonly [string, string | readonly Row[]])[] => {
    if (from === 'seal.shelf') {
      const shelf = shelfFor(working, seal, lines);
      return shelf.length === 0 ? [] : [[name, shelf] as const];
    }
    const value = known[from.slice('seal.'.length) as OfSeal];
    const field = fields.find((one) => one.name === name);
    // A material that the working does not know of is asked.
    const isKnown = value !== undefined && (field?.kind !== 'choice' || field.choices.some(({ id }) => id === value));
    return isKnown ? [[name, value] as const] : [];
  });
  return Object.fromEntries(given);
}

/** What is known to push a seal in: where it may bear, and which of the crib does. */
export interface SealDriver {
  /** mm. */
  readonly outsideMost: number;
  /** The one of the crib that fits best; nothing where none does. */
  readonly which?: string;
}

/** Which driver of the crib takes a lip seal in, by its size; nothing where the sheet has its size in words. */
export function sealDriver({ kind, size }: Pick<Seal, 'kind' | 'size'>, tools: readonly Tool[]): SealDriver | undefined {
  const { shaft, bore } = sealSize(size);
  if (kind !== 'lip-seal' || shaft === undefined || bore === undefined) return undefined;
  const tubes = tools
    .filter((tool) => isPushing(tool.kind) && !tool.retired && tool.high > tool.low)
    .map(({ tag, name, low, high, length }) => ({ name: `${tag} ${name}`, inside: low, outside: high, length: length ?? 0 }));
  const run = workings.run('press.sleeve', { into: 'housing', part: 'seal', bore: shaft, outside: bore, tubes });
  if (!run?.ok) return undefined;
  const { outsideMost, which } = run.run.output as { outsideMost: number; which: string };
  return { outsideMost, ...(tubes.some(({ name }) => name === which) ? { which } : {}) };
}
