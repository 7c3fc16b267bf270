import { GAPS_FIELD, meanGap } from '../bearings/gap-readings.js';
import { MOST_PIECES_FIELD, PACK_COLUMNS, SHELF_FIELD, packDrawing, packsFor } from '../bearings/shelf-field.js';
import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * Which shims give the clutch its air gap?
 *
 * gap after = gap + pack − shims now: a thicker pack under the hub holds the plate further off. The
 * gap is the mean of three places, and every place lands inside the window; refused where no pack does
 * that. Holds with the shaft screw at its torque.
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
    { kind: 'number', name: 'thickness', label: 'The pack has', quantity: 'length', help: 'All its pieces.' },
    { kind: 'number', name: 'gives', label: 'Gives a gap of', quantity: 'length', help: 'Mean of the places.' },
    { kind: 'number', name: 'wanted', label: 'Exactly wanted', quantity: 'length', help: 'For the middle of the window.' },
    { kind: 'table', name: 'packs', label: 'Next best', columns: PACK_COLUMNS, help: 'By what they give.' },
  ],
  sources: [{ kind: 'derivation', document: 'a shim under the hub holds the plate off by its thickness', for: 'the sum' }],
  cautions: ['Refrigerant is let off by licensed people only; the clutch comes off with the circuit closed.'],
  serves: [
    { at: 'build', families: ['axial-piston refrigerant compressor'] },
    {
      at: 'setting',
      kinds: ['air-gap'],
      preset: { from: 'from', to: 'to', shelf: 'shelf', gaps: 'readings', shims: 'before.thickness' },
      packs: ['pack'],
    },
  ],
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
    const gap = meanGap(input.gaps, input.to - input.from);
    if (!gap.ok) return gap;
    const wanted = input.shims + (input.from + input.to) / 2 - gap.value;
    if (wanted < 0)
      return refuse({
        code: 'cannot-be',
        field: 'shims',
        received: mm(input.shims),
        bound: `the gap is too wide without any: ${mm(-wanted)} too much; the hub is not home, or the plate is bent`,
      });
    const [narrowest, widest] = [Math.min(...input.gaps), Math.max(...input.gaps)];
    const found = packsFor({
      ...input,
      wanted,
      window: { from: input.shims + input.from - narrowest, to: input.shims + input.to - widest },
      gives: (thickness) => gap.value + thickness - input.shims,
    });
    if (!found.ok) return found;
    const { best, packs } = found.value;
    return ok({ pack: best.pack, gives: best.gives, wanted, thickness: best.thickness, packs });
  },
  explain: (input, output) => [
    { say: 'The pack that would give the middle of the window.', formula: 'shims now + aim − gap', numbers: mm(output.wanted) },
    { say: 'The nearest of the shelf.', numbers: `${output.pack} gives ${mm(output.gives, input)}` },
  ],
  draw: (input, output) => packDrawing(output.thickness, output.wanted, input.shelf, input.mostPieces),
});
