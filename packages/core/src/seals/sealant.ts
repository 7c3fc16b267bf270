import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Left in nozzle, corners and rag: common practice. */
const WASTE = 0.15;
const MINUTE_S = 60;

/**
 * How much sealant, and how many minutes?
 *
 * Volume of a round bead over its path, with some for nozzle and corners, against the cartridge. The clock of the skin begins
 * with the first millimetre laid: laying, putting the cover on and the screws that must be home take their time from it, and
 * what is left is the slack. Refused where it cannot be done: a slower product, or two people.
 *
 * Example: 620 mm of a 2 mm bead: 1.95 mL, with waste 2.24 mL; 26 screws at 6 s and 3 min of laying leave 4.4 of 10 min.
 */
export const sealant = defineWorking({
  id: 'seal.sealant',
  title: 'How much sealant, and how many minutes?',
  area: 'seals',
  inputs: [
    {
      kind: 'number',
      name: 'path',
      label: 'Path of the bead',
      quantity: 'length',
      above: 0,
      max: 20_000,
      help: 'Once round, with the rings round the holes: a thread laid along it.',
    },
    { kind: 'number', name: 'bead', label: 'Bead', quantity: 'length', above: 0, max: 15, default: 2, help: 'Its thickness as laid.' },
    {
      kind: 'number',
      name: 'cartridge',
      label: 'There is',
      quantity: 'volume',
      above: 0,
      max: 5,
      optional: true,
      help: 'In the cartridge or tube that is open.',
    },
    {
      kind: 'number',
      name: 'skin',
      label: 'Skin after',
      quantity: 'time',
      above: 0,
      max: 86_400,
      help: 'Of the product’s sheet, at the warmth of the bench; half of it when it is warm and damp.',
    },
    {
      kind: 'number',
      name: 'laying',
      label: 'Laying takes',
      quantity: 'time',
      min: 0,
      max: 86_400,
      default: 120,
      help: 'From the first millimetre to the cover on.',
    },
    {
      kind: 'number',
      name: 'screws',
      label: 'Screws to be home',
      quantity: 'count',
      min: 0,
      max: 200,
      help: 'All of them, or those that the sheet wants snug before the skin.',
    },
    {
      kind: 'number',
      name: 'each',
      label: 'A screw takes',
      quantity: 'time',
      min: 0,
      max: 600,
      default: 6,
      help: 'All its passes within the skin time.',
    },
    {
      kind: 'number',
      name: 'gone',
      label: 'Gone already',
      quantity: 'time',
      min: 0,
      max: 86_400,
      default: 0,
      help: 'Since the first millimetre.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'volume', label: 'Bead', quantity: 'volume', help: 'Alone.' },
    {
      kind: 'number',
      name: 'needed',
      label: 'With some for nozzle and corners',
      quantity: 'volume',
      help: 'What is squeezed out of the tube.',
    },
    { kind: 'number', name: 'left', label: 'You have', quantity: 'time', help: 'Until the skin is there.' },
    { kind: 'number', name: 'takes', label: 'Still takes', quantity: 'time', help: 'Laying that is left, and the screws.' },
    { kind: 'number', name: 'slack', label: 'To spare', quantity: 'time', help: 'For a screw that drops.' },
    { kind: 'text', name: 'so', label: 'So', longest: 200, help: 'How to go about it.' },
  ],
  sources: [
    { kind: 'derivation', document: 'round bead: π/4·d²·length', for: 'the volume' },
    { kind: 'common practice', document: 'closed and snug before the skin; 15 % for nozzle and corners', for: 'clock and waste' },
  ],
  cautions: ['Thin inside: what is squeezed inwards ends in the oil pump.', 'Gloves and air: what cures in damp air also cures on skin.'],
  serves: [{ at: 'seal', kinds: ['sealant'], preset: { bead: 'seal.bead' } }],
  example: { path: 620, bead: 2, cartridge: '70 mL', skin: '10 min', laying: '3 min', screws: 26, each: 6 },
  compute({ path, bead, cartridge, skin, laying, screws, each, gone }) {
    const volume = ((Math.PI / 4) * bead ** 2 * path) / 1e6;
    const needed = volume * (1 + WASTE);
    if (cartridge !== undefined && needed > cartridge)
      return refuse({
        code: 'too-small',
        field: 'cartridge',
        received: `${Math.round(cartridge * 1000)} mL`,
        bound: `${(needed * 1000).toFixed(1)} mL: open another before the first millimetre`,
      });
    const left = skin - gone;
    const takes = Math.max(0, laying - gone) + screws * each;
    const slack = left - takes;
    if (left <= 0)
      return refuse({
        code: 'too-large',
        field: 'gone',
        received: minutes(gone),
        bound: `the skin was there after ${minutes(skin)}: take the cover off, clean both faces to bare metal, begin anew`,
      });
    if (slack < 0)
      return refuse({
        code: 'too-small',
        field: 'skin',
        received: minutes(skin),
        bound: `${minutes(gone + takes)}, what it takes: two people, fewer screws before the skin, or a slower product`,
      });
    return ok({
      volume,
      needed,
      left,
      takes,
      slack,
      so:
        slack < 0.25 * left
          ? `tight: ${minutes(slack)} to spare of ${minutes(left)}. Screws laid out, started by hand, somebody beside you`
          : `you have ${minutes(left)}, it takes ${minutes(takes)}`,
    });
  },
  explain: (input, output) => [
    {
      say: 'The bead.',
      formula: 'π/4·d²·path',
      numbers: `${mm(input.bead)} over ${mm(input.path)}: ${(output.volume * 1000).toFixed(2)} mL, with waste ${(output.needed * 1000).toFixed(2)} mL`,
    },
    {
      say: 'The clock, from the first millimetre on.',
      formula: 'skin − gone − laying − screws · each',
      numbers: `${minutes(input.skin)} − ${minutes(input.gone)} − ${minutes(output.takes)} = ${minutes(output.slack)}`,
    },
    { say: output.so },
  ],
});

function minutes(seconds: number): string {
  return `${Math.round((10 * seconds) / MINUTE_S) / 10} min`;
}
