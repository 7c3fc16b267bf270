import { BORE_RINGS, SHAFT_RINGS } from '../bearings/size-tables.js';
import { between } from '../math/between.js';
import { mm, newtons, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Load factor of a groove whose outer land is three times as long as it is deep, DIN 471; a shorter land holds less. */
const SHORT = [
  [1, 2.5],
  [1.5, 2],
  [2, 1.6],
  [3, 1.2],
] as const;
/** Against yielding of the groove. */
const SAFETY = 2;

/**
 * Which retaining ring, and what does its groove hold?
 *
 * Ring and groove by shaft or bore (DIN 471, DIN 472). The groove carries F = R·A/q until its wall yields: A the ring of
 * material that the groove leans on, R the yield strength, q by how long the land outside of it is over the depth. Half of
 * that at work. The ring itself may tilt earlier where the part has a chamfer: its face is to be square.
 *
 * Example: a shaft of 20: ring 20 × 1.2, groove 19, holds 5.1 kN at 200 MPa until it yields.
 */
export const retaining = defineWorking({
  id: 'ring.retaining',
  title: 'Which retaining ring, and what does it hold?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'where',
      label: 'It sits',
      default: 'shaft',
      choices: [
        { id: 'shaft', label: 'on a shaft' },
        { id: 'bore', label: 'in a bore' },
      ],
      help: 'Which of the two has the groove.',
    },
    {
      kind: 'number',
      name: 'size',
      label: 'Shaft or bore',
      symbol: 'd₁',
      quantity: 'length',
      above: 0,
      max: 200,
      help: 'Beside the groove.',
    },
    {
      kind: 'number',
      name: 'groove',
      label: 'Groove, as measured',
      symbol: 'd₂',
      quantity: 'length',
      above: 0,
      max: 200,
      optional: true,
      help: 'A worn or knocked one holds less; the standard’s where nothing is said.',
    },
    {
      kind: 'number',
      name: 'land',
      label: 'Land outside of it',
      symbol: 'n',
      quantity: 'length',
      above: 0,
      max: 100,
      optional: true,
      help: 'From the groove to the end; three times the depth or more where nothing is said.',
    },
    {
      kind: 'number',
      name: 'yield',
      label: 'Yield strength',
      quantity: 'pressure',
      above: 0,
      max: 2000,
      default: 200,
      help: 'Of the shaft or housing: 200 MPa for soft steel, some 100 for cast aluminium.',
    },
    {
      kind: 'number',
      name: 'load',
      label: 'Pushes with',
      quantity: 'force',
      min: 0,
      max: 1e6,
      optional: true,
      help: 'Along the axis, at its worst.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'which', label: 'Take', longest: 120, help: 'By the standard.' },
    { kind: 'number', name: 'thickness', label: 'Thick', quantity: 'length', help: 'Of the ring.' },
    { kind: 'number', name: 'grooveAt', label: 'Groove', quantity: 'length', help: 'Of the standard.' },
    { kind: 'number', name: 'holds', label: 'Groove yields at', quantity: 'force', help: 'Once, and for good.' },
    { kind: 'number', name: 'atWork', label: 'At work', quantity: 'force', help: 'Half of it.' },
    { kind: 'text', name: 'verdict', label: 'So it', longest: 120, help: 'Against what pushes.' },
  ],
  sources: [
    { kind: 'standard', document: 'DIN 471, DIN 472', for: 'ring, groove and load factor', fromMemory: true },
    { kind: 'derivation', document: 'yield strength times the wall of the groove', for: 'what it holds' },
  ],
  cautions: [
    'A retaining ring flies: glasses, and a hand or a rag over it.',
    'A ring that was opened over its shaft too far does not close again: a new one.',
  ],
  serves: [{ at: 'build', rank: 22 }],
  example: { where: 'shaft', size: 20, load: 1500 },
  compute({ where, size, groove, land, yield: strength, load }) {
    const table = where === 'shaft' ? SHAFT_RINGS : BORE_RINGS;
    const row = table.find(([of]) => Math.abs(of - size) < 0.3);
    if (!row) {
      const near = table
        .toSorted(([one], [other]) => Math.abs(one - size) - Math.abs(other - size))
        .slice(0, 2)
        .map(([of]) => mm(of));
      return refuse({
        code: 'outside-method',
        field: 'size',
        received: mm(size),
        bound: `rings are known for ${near.join(' and ')}, and others from ${mm(table[0]![0])} to ${mm(table.at(-1)![0])}`,
      });
    }
    const [nominal, standard, thickness] = row;
    const at = groove ?? standard;
    const depth = (where === 'shaft' ? size - at : at - size) / 2;
    if (depth <= 0)
      return refuse({
        code: 'cannot-be',
        field: 'groove',
        received: mm(at),
        bound:
          where === 'shaft' ? `a groove of a shaft is smaller than it, ${mm(size)}` : `a groove of a bore is larger than it, ${mm(size)}`,
      });
    const long = land === undefined ? 3 : land / depth;
    if (long < SHORT[0][0])
      return refuse({
        code: 'outside-method',
        field: 'land',
        received: mm(land!),
        bound: `at least as long as the groove is deep, ${mm(depth)}: it breaks out`,
      });
    const q = between(SHORT, long);
    const area = (Math.PI / 4) * Math.abs(size ** 2 - at ** 2);
    const holds = (strength * area) / q;
    const atWork = holds / SAFETY;
    return ok({
      which: `${where === 'shaft' ? 'DIN 471' : 'DIN 472'} ${nominal} × ${thickness}`,
      thickness,
      grooveAt: standard,
      holds,
      atWork,
      verdict:
        load === undefined
          ? 'asks what pushes on it'
          : load <= atWork
            ? `holds ${newtons(load)}`
            : load <= holds
              ? `holds ${newtons(load)} with ${percent(holds / load - 1)} to spare: too little`
              : `does not hold ${newtons(load)}`,
    });
  },
  explain: (input, output) => [
    { say: output.which, numbers: `groove ${mm(output.grooveAt)}, ring ${mm(output.thickness)} thick` },
    {
      say: 'What the wall of the groove holds until it yields.',
      formula: 'F = R·π/4·|d₁² − d₂²|/q',
      numbers: `${newtons(output.holds)}; at work ${newtons(output.atWork)}`,
    },
    ...(input.load === undefined ? [] : [{ say: `It ${output.verdict}.` }]),
  ],
});
