import { parseQuantity, workings, type OfSeal } from '@jubb/core';
import { baseOf, type Seal } from '@jubb/sheet';

/** The workings that help where a seal goes in, the likeliest first. */
export function workingsForSeal({ kind }: Pick<Seal, 'kind'>): readonly string[] {
  return workings.serving('seal', ({ kinds }) => kinds?.includes(kind) ?? true);
}

type Sized = Partial<Record<OfSeal, string>>;

/** What the size of a seal says: "44 × 72 × 10" of a lip seal, "20 × 2.65" of a ring, "bead 2 mm" of a bead; nothing where it is in words. */
export function sealSize(size: string): Sized {
  const bead = /^bead (?<wide>[\d.]+) ?mm$/u.exec(size)?.groups?.['wide'];
  if (bead !== undefined) return { bead: `${bead} mm` };
  const figures = size.split('×').map((one) => parseQuantity(one, 'length', 'size'));
  const [first, second, third] = figures.flatMap((read) => (read.ok ? [`${read.quantity.base} mm`] : []));
  if (figures.some(({ ok }) => !ok) || first === undefined || second === undefined) return {};
  return third === undefined ? { inside: first, section: second } : { shaft: first, bore: second, width: third };
}

/** What a working at a seal need not ask: what the sheet's line says of it. */
export function presetForSeal(working: string, seal: Seal): Readonly<Record<string, string>> {
  const { preset = {} } = workings.servesOf(working).find(({ at, kinds }) => at === 'seal' && (kinds?.includes(seal.kind) ?? true)) ?? {};
  const known: Sized = {
    ...sealSize(seal.size),
    material: seal.material,
    ...(seal.medium === undefined ? {} : { medium: seal.medium }),
    ...(seal.depth?.to ? { deepest: `${baseOf(seal.depth.to, 'length')} mm` } : {}),
  };
  const fields = workings.describe(working)?.inputs ?? [];
  const given = Object.entries(preset).flatMap(([name, from]) => {
    const value = known[from.slice('seal.'.length) as OfSeal];
    const field = fields.find((one) => one.name === name);
    // A material that the working does not know of is asked.
    const isKnown = value !== undefined && (field?.kind !== 'choice' || field.choices.some(({ id }) => id === value));
    return isKnown ? [[name, value] as const] : [];
  });
  return Object.fromEntries(given);
}
