import { LIP_SEALS } from '../bearings/size-tables.js';
import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** A seal that was in use, or is swollen, still is this size, mm. */
const NEAR_MM = 0.6;
const SHOWN = 6;

/** Usual widths by shaft, mm: ISO 6194-1 and DIN 3760, from memory. */
function widthsOf(shaft: number): readonly number[] {
  if (shaft <= 28) return [7];
  if (shaft <= 60) return [7, 8];
  return shaft <= 80 ? [8, 10] : [10, 12];
}

/**
 * Which lip seal is that, and what fits in its place?
 *
 * Shaft, bore and width as measured against the sizes of ISO 6194-1 and what lies on the shelf. The same shaft and bore first;
 * a narrower one fits in a deeper bore and its lip runs elsewhere, which is an answer where the track is worn; a wider one fits
 * only where the bore is deep enough. Another bore is another seal.
 *
 * Example: a worn one of 35.2 × 51.9 × 8 is a 35 × 52, 7 or 8 wide.
 */
export const sealSize = defineWorking({
  id: 'seal.size',
  title: 'Which lip seal is that, and what fits in its place?',
  area: 'seals',
  inputs: [
    {
      kind: 'number',
      name: 'shaft',
      label: 'Shaft',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 500,
      help: 'Beside the track, by micrometer; the seal itself is smaller.',
    },
    {
      kind: 'number',
      name: 'bore',
      label: 'Bore',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 600,
      help: 'Of the housing; the seal itself is some tenths larger.',
    },
    { kind: 'number', name: 'width', label: 'Width', symbol: 'b', quantity: 'length', above: 0, max: 60, help: 'Of the old one.' },
    {
      kind: 'number',
      name: 'deep',
      label: 'Bore is deep',
      quantity: 'length',
      above: 0,
      max: 300,
      optional: true,
      help: 'To whatever a wider one would meet.',
    },
    {
      kind: 'table',
      name: 'shelf',
      label: 'Seals on the shelf',
      columns: [
        { name: 'name', label: 'name', quantity: 'text' },
        { name: 'shaft', label: 'shaft', quantity: 'length' },
        { name: 'bore', label: 'bore', quantity: 'length' },
        { name: 'width', label: 'width', quantity: 'length' },
      ],
      most: 500,
      optional: true,
      help: 'Those come first; none is no matter.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'which', label: 'It is', longest: 120, help: 'By the sizes there are.' },
    {
      kind: 'table',
      name: 'each',
      label: 'What fits',
      columns: [
        { name: 'name', label: 'seal', quantity: 'text' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'With what follows from it.',
    },
  ],
  sources: [{ kind: 'standard', document: 'ISO 6194-1, DIN 3760', for: 'the sizes', fromMemory: true }],
  cautions: ['A seal that only nearly fits the bore walks out of it. Another bore is another seal.'],
  serves: [
    {
      at: 'seal',
      kinds: ['lip-seal'],
      rank: 3,
      preset: { shaft: 'seal.shaft', bore: 'seal.bore', width: 'seal.width', shelf: 'seal.shelf' },
    },
  ],
  example: { shaft: 35.2, bore: 51.9, width: 8 },
  compute({ shaft, bore, width, deep, shelf = [] }) {
    if (bore <= shaft) return refuse({ code: 'too-small', field: 'bore', received: mm(bore), bound: `more than the shaft, ${mm(shaft)}` });
    if (deep !== undefined && deep < width)
      return refuse({
        code: 'too-small',
        field: 'deep',
        received: mm(deep),
        bound: `${mm(width)}, the width of the old one, which stood in it`,
      });
    const isNear = (one: number, other: number): boolean => Math.abs(one - other) <= NEAR_MM;
    const sizes = Object.entries(LIP_SEALS).flatMap(([of, bores]) =>
      bores.flatMap((outside) =>
        widthsOf(Number(of)).map((wide) => ({
          name: `${of} × ${outside} × ${wide}`,
          shaft: Number(of),
          bore: outside,
          width: wide,
          onShelf: false,
        })),
      ),
    );
    const lying = shelf.map((row) => ({
      name: String(row['name']),
      shaft: Number(row['shaft']),
      bore: Number(row['bore']),
      width: Number(row['width']),
      onShelf: true,
    }));
    const same = [...lying, ...sizes].filter((one) => isNear(one.shaft, shaft) && isNear(one.bore, bore));
    if (same.length === 0) {
      const near = sizes.toSorted((one, other) => off(one, shaft, bore) - off(other, shaft, bore))[0]!;
      return refuse({
        code: 'none-will-do',
        field: 'bore',
        received: 'the sizes there are',
        bound: `the nearest is ${near.name}: measure again, beside the track and across the housing, or ask for an inch size`,
      });
    }
    const each = same
      .map((one) => ({ ...one, ...placed(one.width, width, deep) }))
      .toSorted(
        (one, other) => Number(one.isOut) - Number(other.isOut) || Number(other.onShelf) - Number(one.onShelf) || one.off - other.off,
      );
    const [best] = each;
    return ok({
      which: best!.name,
      each: each.slice(0, SHOWN).map(({ name, why, onShelf }) => ({ name, why: onShelf ? `${why}; on the shelf` : why })),
    });
  },
  explain: (input, output) => [
    {
      say: 'The same shaft and bore, within what wear and swelling leave unsure.',
      numbers: `${mm(input.shaft)} × ${mm(input.bore)}, ± ${mm(NEAR_MM)}`,
    },
    {
      say: 'By width, and what follows from another.',
      numbers: output.each.map((row) => `${String(row['name'])}: ${String(row['why'])}`).join('; '),
    },
  ],
});

function off(one: { readonly shaft: number; readonly bore: number }, shaft: number, bore: number): number {
  return Math.abs(one.shaft - shaft) + Math.abs(one.bore - bore);
}

/** What another width means in that bore. */
function placed(
  wide: number,
  old: number,
  deep: number | undefined,
): { readonly why: string; readonly off: number; readonly isOut: boolean } {
  const more = wide - old;
  if (Math.abs(more) <= NEAR_MM) return { why: 'the same', off: Math.abs(more), isOut: false };
  if (more < 0) return { why: `${mm(-more)} narrower: flush, its lip runs elsewhere`, off: -more, isOut: false };
  if (deep === undefined) return { why: `${mm(more)} wider: only where the bore is deep enough, measure it`, off: 2 * more, isOut: false };
  return wide <= deep
    ? { why: `${mm(more)} wider: the bore is deep enough`, off: more, isOut: false }
    : { why: `${mm(wide - deep)} too wide for the bore`, off: more, isOut: true };
}
