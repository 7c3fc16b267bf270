import { CHOICE_COLUMNS, selective } from '../bearings/selective.js';
import { GAPS_FIELD, meanGap } from '../bearings/gap-readings.js';
import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * Which plate gives the clutch pack its clearance?
 *
 * clearance after = measured + plate now − plate, wanted a window for each rubbing face: faces are twice the
 * friction plates. The stack as a check: plates and steels by count and thickness. Holds for a dry
 * stack under its snap ring, pressed together by hand.
 *
 * Example: 2.1 mm with the 3.0 in, 12 faces of 0.12 to 0.16: the 3.4 leaves 1.7.
 */
export const clutchPack = defineWorking({
  id: 'clutch.pack',
  title: 'Which plate gives the clutch pack its clearance?',
  area: 'clutches',
  inputs: [
    { ...GAPS_FIELD, label: 'Clearance, at three places', help: 'Feeler between snap ring and end plate.' },
    {
      kind: 'number',
      name: 'plates',
      label: 'Friction plates',
      quantity: 'count',
      min: 1,
      max: 60,
      help: 'Lined both sides: two rubbing faces each.',
    },
    {
      kind: 'number',
      name: 'from',
      label: 'For each face, from',
      quantity: 'length',
      min: 0,
      max: 1,
      help: 'Of the sheet, or its whole window over the faces.',
    },
    {
      kind: 'number',
      name: 'to',
      label: 'For each face, to',
      quantity: 'length',
      above: 0,
      max: 1,
      help: 'Of the sheet, or its whole window over the faces.',
    },
    {
      kind: 'number',
      name: 'plateNow',
      label: 'End plate now',
      quantity: 'length',
      above: 0,
      max: 30,
      help: 'In while the clearance was read.',
    },
    {
      kind: 'list',
      name: 'sizes',
      label: 'End plates there are',
      quantity: 'length',
      min: 0,
      max: 30,
      fewest: 1,
      most: 60,
      help: 'Thicknesses, as measured.',
    },
    {
      kind: 'number',
      name: 'frictionThickness',
      label: 'Friction plate, each',
      quantity: 'length',
      above: 0,
      max: 20,
      optional: true,
      help: 'Mean: with the steels it checks the stack.',
    },
    { kind: 'number', name: 'steels', label: 'Steel plates', quantity: 'count', min: 0, max: 60, optional: true, help: 'Between them.' },
    {
      kind: 'number',
      name: 'steelThickness',
      label: 'Steel plate, each',
      quantity: 'length',
      above: 0,
      max: 20,
      optional: true,
      help: 'Mean.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'plate', label: 'Take', quantity: 'length', help: 'Nearest to the middle of the window.' },
    { kind: 'number', name: 'clearance', label: 'Leaves', quantity: 'length', help: 'In all.' },
    { kind: 'number', name: 'eachFace', label: 'For each face', quantity: 'length', help: 'Of the rubbing faces.' },
    { kind: 'number', name: 'faces', label: 'Rubbing faces', quantity: 'count', help: 'Twice the friction plates.' },
    { kind: 'number', name: 'stack', label: 'The stack has', quantity: 'length', optional: true, help: 'All plates together.' },
    { kind: 'table', name: 'others', label: 'The others', columns: CHOICE_COLUMNS, help: 'Nearest first.' },
  ],
  sources: [
    { kind: 'derivation', document: 'a thicker end plate takes up its difference', for: 'the sum' },
    { kind: 'common practice', document: 'clearance is reckoned for each rubbing face', for: 'the window' },
  ],
  cautions: ['New friction plates soak in their oil before they are fitted; measured dry or soaked, but all alike.'],
  serves: [
    { at: 'build', families: ['multi-plate clutch'] },
    { at: 'setting', kinds: ['pack-clearance'], preset: { gaps: 'readings', plateNow: 'before.plate' } },
  ],
  example: { gaps: '2.1; 2.12; 2.08', plates: 6, from: 0.12, to: 0.16, plateNow: 3, sizes: '3; 3.2; 3.4; 3.6' },
  compute(input) {
    if (input.to < input.from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(input.to), bound: mm(input.from) });
    const gap = meanGap(input.gaps);
    if (!gap.ok) return gap;
    const faces = 2 * input.plates;
    const room = gap.value + input.plateNow;
    const thinnest = Math.min(...input.sizes);
    if (thinnest > 0 && thinnest >= room)
      return refuse({
        code: 'none-will-do',
        field: 'sizes',
        received: 'the plates',
        bound: `even the thinnest leaves ${mm(room - thinnest)}: one plate too many, or a wrong one`,
      });
    const ranked = selective(input.sizes, { from: input.from * faces, to: input.to * faces }, room);
    if (!ranked.ok) return ranked;
    const [best, ...others] = ranked.value;
    const stack =
      input.frictionThickness === undefined || input.steels === undefined || input.steelThickness === undefined
        ? undefined
        : input.plates * input.frictionThickness + input.steels * input.steelThickness + best.thickness;
    return ok({
      plate: best.thickness,
      clearance: best.gives,
      eachFace: best.gives / faces,
      faces,
      stack,
      others: others.map((one) => ({ ...one })),
    });
  },
  explain: (input, output) => [
    {
      say: `${input.plates} friction plates rub on ${output.faces} faces.`,
      numbers: `${mm(input.from * output.faces)} to ${mm(input.to * output.faces)} in all`,
    },
    {
      say: 'With the other end plate.',
      formula: 'measured + plate now − plate',
      numbers: `${mm(output.plate)} leaves ${mm(output.clearance)}, ${mm(output.eachFace, input)} for each face`,
    },
  ],
});
