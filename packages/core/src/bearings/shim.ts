import { microns, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { MOST_PIECES_FIELD, PACK_COLUMNS, SHELF_FIELD, packDrawing, packsFor } from './shelf-field.js';

/**
 * Which shims, from what is on the shelf?
 *
 * wanted = trial + s·(measured − target), s = +1 where a thicker pack closes play. Negative play is
 * preload. Of all packs inside the window the one with the least error, then the fewest pieces, then the
 * fewest sizes; the thick ones lie outside. Refused where none lands inside. Holds while the parts stay
 * seated; below zero play as travel, not as torque.
 *
 * Example: 0.14 mm of play with 1.00 mm in, 0.03 to 0.08 wanted, thicker closes it: 1.085 mm, so 1 + 0.1.
 */
export const shim = defineWorking({
  id: 'bearing.shim',
  title: 'Which shims, from what is on the shelf?',
  area: 'bearings',
  inputs: [
    {
      kind: 'number',
      name: 'measured',
      label: 'Measured',
      symbol: 'E',
      quantity: 'length',
      min: -5,
      max: 500,
      help: 'Play with the trial pack in; minus is preload.',
    },
    {
      kind: 'number',
      name: 'trial',
      label: 'Trial pack',
      quantity: 'length',
      min: 0,
      max: 30,
      help: 'What was in while it was measured; 0 without any.',
    },
    {
      kind: 'number',
      name: 'from',
      label: 'Window from',
      quantity: 'length',
      min: -5,
      max: 500,
      help: 'Least play wanted; minus is preload.',
    },
    { kind: 'number', name: 'to', label: 'Window to', quantity: 'length', min: -5, max: 500, help: 'Most play wanted.' },
    {
      kind: 'number',
      name: 'aim',
      label: 'Aim',
      quantity: 'length',
      min: -5,
      max: 500,
      optional: true,
      help: 'Its middle when left empty.',
    },
    {
      kind: 'choice',
      name: 'thicker',
      label: 'A thicker pack',
      default: 'closes',
      choices: [
        { id: 'closes', label: 'closes the play' },
        { id: 'opens', label: 'opens the play' },
      ],
      help: 'Between bearings and under a cover that presses it closes; under a flange that holds the cover off it opens.',
    },
    SHELF_FIELD,
    MOST_PIECES_FIELD,
  ],
  outputs: [
    { kind: 'text', name: 'pack', label: 'Put in', longest: 200, help: 'The thick ones outside.' },
    { kind: 'number', name: 'thickness', label: 'The pack has', quantity: 'length', help: 'All its pieces.' },
    { kind: 'number', name: 'gives', label: 'Gives', quantity: 'length', help: 'Play then; minus is preload.' },
    { kind: 'number', name: 'wanted', label: 'Exactly wanted', quantity: 'length', help: 'If every thickness were there.' },
    { kind: 'table', name: 'packs', label: 'Next best', columns: PACK_COLUMNS, help: 'By what they give.' },
  ],
  sources: [
    { kind: 'derivation', document: 'a shim takes up its own thickness', for: 'wanted = trial + s·(measured − target)' },
    { kind: 'common practice', document: 'thick shims outside, thin ones between', for: 'the order in the pack' },
  ],
  cautions: ['Measure each shim: what is stamped on it, and what is left of it, differ.'],
  serves: [
    { at: 'build', families: ['gearbox with selective shims', 'two-speed transfer box'], rank: 3 },
    { at: 'build', families: ['PTO gearbox'], rank: 2 },
    {
      at: 'setting',
      kinds: ['preload'],
      methods: ['cone-and-locknut', 'shims', 'selective-ring', 'locknut', 'adjusters'],
      rank: 2,
      preset: { shelf: 'shelf' },
      packs: ['pack'],
    },
    {
      at: 'setting',
      kinds: ['end-play', 'depth'],
      methods: ['shims'],
      preset: { from: 'from', to: 'to', aim: 'aim', shelf: 'shelf', measured: 'last', trial: 'before.thickness' },
      packs: ['pack'],
    },
  ],
  example: {
    measured: '0.14 mm',
    trial: '1.00 mm',
    from: '0.03 mm',
    to: '0.08 mm',
    shelf: [
      { thickness: 0.05, count: 6 },
      { thickness: 0.1, count: 6 },
      { thickness: 0.15, count: 4 },
      { thickness: 0.3, count: 4 },
      { thickness: 0.5, count: 3 },
      { thickness: 1, count: 3 },
    ],
  },
  compute(input) {
    if (input.to < input.from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(input.to), bound: mm(input.from) });
    const aim = input.aim ?? (input.from + input.to) / 2;
    if (aim < input.from || aim > input.to)
      return refuse({ code: 'aim-outside', field: 'aim', received: mm(aim), bound: `${mm(input.from)} to ${mm(input.to)}` });
    const sign = input.thicker === 'closes' ? 1 : -1;
    const wanted = input.trial + sign * (input.measured - aim);
    if (wanted < 0)
      return refuse({
        code: 'cannot-be',
        field: 'measured',
        received: mm(input.measured),
        bound: `no pack is thinner than none; ${mm(-wanted)} would have to come off a part`,
      });
    const ends = [input.from, input.to].map((play) => input.trial + sign * (input.measured - play));
    const found = packsFor({
      ...input,
      wanted,
      window: { from: Math.min(...ends), to: Math.max(...ends) },
      gives: (thickness) => input.measured - sign * (thickness - input.trial),
    });
    if (!found.ok) return found;
    const { best, packs } = found.value;
    return ok({ pack: best.pack, gives: best.gives, wanted, thickness: best.thickness, packs });
  },
  explain: (input, output) => [
    {
      say: 'The thickness that would give the aim.',
      formula: input.thicker === 'closes' ? 'trial + (measured − aim)' : 'trial − (measured − aim)',
      numbers: `${mm(input.trial)} ${input.thicker === 'closes' ? '+' : '−'} (${mm(input.measured)} − ${mm(input.aim ?? (input.from + input.to) / 2)}) = ${mm(output.wanted)}`,
    },
    {
      say: 'The nearest pack inside the window, of all that the shelf makes.',
      numbers: `${output.pack} = ${mm(output.thickness)}, off by ${microns(output.thickness - output.wanted)}: gives ${mm(output.gives, input)}`,
    },
  ],
  draw: (input, output) => packDrawing(output.thickness, output.wanted, input.shelf, input.mostPieces),
});
