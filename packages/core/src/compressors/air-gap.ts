import { GAPS_FIELD, meanGap } from '../bearings/gap-readings.js';
import { MOST_PIECES_FIELD, PACK_COLUMNS, SHELF_FIELD, layers, packWords, packsFor, shelfOf } from '../bearings/shelf-field.js';
import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/describe.js';
import { ok, refuse } from '../working/issues.js';

const SHOWN = 5;

/**
 * Which shims give the clutch its air gap?
 *
 * gap after = gap + pack − shims now: a thicker pack under the hub holds the plate further off. The
 * gap is the mean of three places and may not vary more than the window. Holds with the shaft
 * screw at its torque.
 *
 * Example: 0.22 mm with 0.5 in, 0.4 to 0.6 wanted: 0.78, such as 0.5 + 0.3.
 */
export const airGap = defineWorking({
  id: 'compressor.air-gap',
  title: 'Which shims give the clutch its air gap?',
  area: 'compressors',
  inputs: [
    GAPS_FIELD,
    { kind: 'number', name: 'shims', label: 'Shims now', quantity: 'length', min: 0, max: 10, help: 'Under the hub while it was read.' },
    { kind: 'number', name: 'from', label: 'Gap from', quantity: 'length', min: 0, max: 3, help: 'Of the sheet.' },
    { kind: 'number', name: 'to', label: 'Gap to', quantity: 'length', above: 0, max: 3, help: 'Of the sheet.' },
    SHELF_FIELD,
    MOST_PIECES_FIELD,
  ],
  outputs: [
    { kind: 'text', name: 'pack', label: 'Put in', longest: 200, help: 'Under the hub.' },
    { kind: 'number', name: 'gives', label: 'Gives a gap of', quantity: 'length', help: 'Mean of the places.' },
    {
      kind: 'choice',
      name: 'verdict',
      label: 'Verdict',
      choices: [
        { id: 'in', label: 'inside the window all round' },
        { id: 'out', label: 'outside it somewhere' },
      ],
      help: 'At every place.',
    },
    { kind: 'number', name: 'wanted', label: 'Exactly wanted', quantity: 'length', help: 'For the middle of the window.' },
    { kind: 'table', name: 'packs', label: 'Next best', columns: PACK_COLUMNS, help: 'By what they give.' },
  ],
  sources: [{ kind: 'derivation', document: 'a shim under the hub holds the plate off by its thickness', for: 'the sum' }],
  cautions: ['Refrigerant is let off by licensed people only; the clutch comes off with the circuit closed.'],
  example: {
    gaps: '0.21; 0.22; 0.23',
    shims: 0.5,
    from: 0.4,
    to: 0.6,
    shelf: [
      { thickness: 0.1, count: 4 },
      { thickness: 0.3, count: 3 },
      { thickness: 0.5, count: 3 },
    ],
  },
  compute(input) {
    if (input.to < input.from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(input.to), bound: mm(input.from) });
    const gap = meanGap(input.gaps);
    if (!gap.ok) return gap;
    const wanted = input.shims + (input.from + input.to) / 2 - gap.value;
    if (wanted < 0)
      return refuse({
        code: 'cannot-be',
        field: 'shims',
        received: mm(input.shims),
        bound: `the gap is too wide without any: ${mm(-wanted)} too much; the hub is not home, or the plate is bent`,
      });
    const shelf = shelfOf(input.shelf);
    if (!shelf.ok) return shelf;
    const packs = packsFor(wanted, shelf.value, input.mostPieces, SHOWN);
    if (!packs.ok) return packs;
    const [narrow, wide] = [Math.min(...input.gaps) - gap.value, Math.max(...input.gaps) - gap.value];
    const rows = packs.value.map((pack) => {
      const gives = gap.value + pack.thickness - input.shims;
      return {
        pack: packWords(pack, shelf.value),
        thickness: pack.thickness,
        gives,
        inside: gives + narrow >= input.from - 1e-9 && gives + wide <= input.to + 1e-9,
      };
    });
    const best = rows.find(({ inside }) => inside) ?? rows[0]!;
    return ok({
      pack: best.pack,
      gives: best.gives,
      verdict: best.inside ? ('in' as const) : ('out' as const),
      wanted,
      packs: rows.filter((row) => row !== best),
    });
  },
  explain: (input, output) => [
    { say: 'The pack that would give the middle of the window.', formula: 'shims now + aim − gap', numbers: mm(output.wanted) },
    { say: 'The nearest of the shelf.', numbers: `${output.pack} gives ${mm(output.gives, input)}` },
  ],
  draw(input, output) {
    const shelf = shelfOf(input.shelf);
    const packs = shelf.ok ? packsFor(output.wanted, shelf.value, input.mostPieces, 1) : shelf;
    return { kind: 'pack', layers: shelf.ok && packs.ok ? layers(packs.value[0]!, shelf.value) : [], wanted: output.wanted };
  },
});
