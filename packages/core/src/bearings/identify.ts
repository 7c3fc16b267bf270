import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { BEARINGS, BORE_RINGS, LIP_SEALS, SHAFT_RINGS } from './size-tables.js';

/** Bore codes of the small ones; from 20 mm on the code is a fifth of the bore. */
const SMALL_CODES: Readonly<Record<number, string>> = { 10: '00', 12: '01', 15: '02', 17: '03' };
const SHOWN = 5;
/** Two sizes that differ by less are as near, mm. */
const NOISE_MM = 1e-6;
/** Worn, dirty or badly measured, but still this size. */
const NEAR_MM = 0.6;

interface Known {
  readonly name: string;
  readonly words: string;
  readonly bore: number;
  readonly outside: number;
  readonly width: number;
}

const ALL_BEARINGS: readonly Known[] = BEARINGS.flatMap((series) =>
  series.sizes.map(([bore, outside, width]): Known => ({
    name: series.names.map((name) => `${name}${codeOf(bore)}`).join(', '),
    words: `${series.words}; series ${series.dimension}`,
    bore,
    outside,
    width,
  })),
);

/**
 * Which bearing, seal or ring is this?
 *
 * Bore, outside and width against ISO 15 and ISO 355; back from a designation: the last two
 * figures times five are the bore (00 to 03: 10, 12, 15, 17 mm). Lip seals by shaft, bore and width
 * (ISO 6194-1), retaining rings by shaft or bore (DIN 471, DIN 472). Tells the size, not the make, the
 * clearance or the shields.
 *
 * Example: 20 × 47 × 14 is a 6204.
 */
export const identifyBearing = defineWorking({
  id: 'bearing.identify',
  title: 'Which bearing, seal or ring is this?',
  area: 'bearings',
  inputs: [
    {
      kind: 'choice',
      name: 'what',
      label: 'It is a',
      default: 'bearing',
      choices: [
        { id: 'bearing', label: 'bearing, measured' },
        { id: 'designation', label: 'bearing, by its number' },
        { id: 'lip-seal', label: 'lip seal' },
        { id: 'shaft-ring', label: 'retaining ring on a shaft' },
        { id: 'bore-ring', label: 'retaining ring in a bore' },
      ],
      help: 'What lies on the bench.',
    },
    {
      kind: 'text',
      name: 'designation',
      label: 'Number',
      longest: 40,
      optional: true,
      onlyFor: { field: 'what', choices: ['designation'] },
      help: 'As stamped: 6204-2RS, NU 206, 30205.',
    },
    {
      kind: 'number',
      name: 'bore',
      label: 'Bore, or shaft',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      onlyFor: { field: 'what', choices: ['bearing', 'lip-seal', 'shaft-ring', 'bore-ring'] },
      help: 'Inside; for a ring in a bore the bore it sits in.',
    },
    {
      kind: 'number',
      name: 'outside',
      label: 'Outside',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 1000,
      optional: true,
      onlyFor: { field: 'what', choices: ['bearing', 'lip-seal'] },
      help: 'Across the outer ring.',
    },
    {
      kind: 'number',
      name: 'width',
      label: 'Width',
      symbol: 'B',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      onlyFor: { field: 'what', choices: ['bearing', 'lip-seal', 'shaft-ring', 'bore-ring'] },
      help: 'Over both rings of a taper.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'name', label: 'It is', longest: 200, help: 'Those of one size differ by looks.' },
    { kind: 'number', name: 'bore', label: 'Bore', quantity: 'length', help: 'Nominal.' },
    { kind: 'number', name: 'outside', label: 'Outside', quantity: 'length', help: 'Nominal; of a ring the groove it sits in.' },
    { kind: 'number', name: 'width', label: 'Width', quantity: 'length', help: 'Nominal.' },
    { kind: 'text', name: 'words', label: 'Kind', longest: 200, help: 'What it may be.' },
    { kind: 'number', name: 'off', label: 'Measured off by', quantity: 'length', help: 'The largest of the differences.' },
    {
      kind: 'table',
      name: 'others',
      label: 'Next nearest',
      columns: [
        { name: 'name', label: 'name', quantity: 'text' },
        { name: 'bore', label: 'bore', quantity: 'length' },
        { name: 'outside', label: 'outside', quantity: 'length' },
        { name: 'width', label: 'width', quantity: 'length' },
        { name: 'off', label: 'off by', quantity: 'length' },
      ],
      help: 'If it was measured badly.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'ISO 15', for: 'boundary dimensions of radial bearings', fromMemory: true },
    { kind: 'standard', document: 'ISO 355', for: 'widths of tapered bearings', fromMemory: true },
    { kind: 'standard', document: 'ISO 6194-1', for: 'sizes of lip seals', fromMemory: true },
    { kind: 'standard', document: 'DIN 471, DIN 472', for: 'retaining rings and their grooves', fromMemory: true },
  ],
  cautions: [],
  serves: [{ at: 'build', rank: 17 }],
  example: { bore: 20, outside: 47, width: 14 },
  compute(input) {
    if (input.what === 'designation') return byDesignation(input.designation);
    const { bore, outside, width } = input;
    if (bore === undefined) return refuse({ code: 'required', field: 'bore', quantity: 'length' });
    const hasOutside = input.what === 'bearing' || input.what === 'lip-seal';
    if (hasOutside && outside === undefined) return refuse({ code: 'required', field: 'outside', quantity: 'length' });
    if (hasOutside && outside! <= bore)
      return refuse({ code: 'too-small', field: 'outside', received: mm(outside!), bound: `more than the bore, ${mm(bore)}` });
    const known = { bearing: ALL_BEARINGS, 'lip-seal': lipSeals(), 'shaft-ring': rings('shaft-ring'), 'bore-ring': rings('bore-ring') }[
      input.what
    ];
    const ranked = known
      .map((one) => ({
        ...one,
        off: Math.max(
          Math.abs(one.bore - bore),
          hasOutside ? Math.abs(one.outside - outside!) : 0,
          width === undefined ? 0 : Math.abs(one.width - width),
        ),
      }))
      // The noise of an inch's conversion ranks nothing.
      .toSorted((one, other) => (Math.abs(one.off - other.off) < NOISE_MM ? 0 : one.off - other.off));
    const [best, ...rest] = ranked;
    if (!best || best.off > NEAR_MM)
      return refuse({
        code: 'none-will-do',
        field: 'bore',
        received: 'the tables',
        bound: `the nearest is ${best?.name ?? 'none'}, ${mm(best?.bore ?? 0)} × ${mm(best?.outside ?? 0)} × ${mm(best?.width ?? 0)}; an inch size, or another kind`,
      });
    return ok({
      ...best,
      others: rest
        .slice(0, SHOWN)
        .map(({ name, bore: d, outside: across, width: b, off }) => ({ name, bore: d, outside: across, width: b, off })),
    });
  },
  explain: (input, output) => [
    { say: `${output.name}: ${output.words}.`, numbers: `${mm(output.bore)} × ${mm(output.outside)} × ${mm(output.width)}` },
    input.what === 'designation'
      ? { say: 'The last two figures are the bore: 00 to 03 are 10, 12, 15 and 17 mm, from 04 on five times as many.' }
      : { say: 'The largest difference to what was measured.', numbers: mm(output.off) },
  ],
});

function codeOf(bore: number): string {
  return SMALL_CODES[bore] ?? String(bore / 5).padStart(2, '0');
}

function byDesignation(text: string | undefined): ReturnType<typeof found> | ReturnType<typeof refuse> {
  if (text === undefined) return refuse({ code: 'required', field: 'designation' });
  const plain = text
    .toUpperCase()
    .replace(/[\s.]+/gu, '')
    .replace(/[-/].*$/u, '');
  const known = ALL_BEARINGS.find(({ name }) =>
    name.split(', ').some((one) => plain.startsWith(one.replace(' ', '')) && !/^\d/u.test(plain.slice(one.replace(' ', '').length))),
  );
  if (!known)
    return refuse({
      code: 'none-will-do',
      field: 'designation',
      received: text,
      bound: 'the tables have 60, 62, 63, 64, 68, 69, NU, 70, 72, 73, 12, 13, 32 and tapers 302 to 323',
    });
  return found(known);
}

function found(known: Known): { readonly ok: true; readonly value: Known & { readonly off: number; readonly others: readonly never[] } } {
  return { ok: true, value: { ...known, off: 0, others: [] } };
}

function lipSeals(): readonly Known[] {
  return Object.entries(LIP_SEALS).flatMap(([shaft, bores]) =>
    bores.map((outside): Known => {
      const bore = Number(shaft);
      const width = bore <= 28 ? 7 : bore <= 60 ? 8 : bore <= 80 ? 10 : 12;
      return { name: `${bore} × ${outside} × ${width}`, words: 'lip seal of a usual size', bore, outside, width };
    }),
  );
}

function rings(kind: 'shaft-ring' | 'bore-ring'): readonly Known[] {
  return (kind === 'shaft-ring' ? SHAFT_RINGS : BORE_RINGS).map(([size, groove, thickness]) => ({
    name: `${kind === 'shaft-ring' ? 'shaft' : 'bore'} ${size} × ${thickness}`,
    words: `its groove is ${groove} mm across`,
    bore: size,
    outside: groove,
    width: thickness,
  }));
}
