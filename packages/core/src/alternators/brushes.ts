import { judge } from '../measuring/verdict.js';
import { VERDICT, worstOf } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';
import { WEAR_INPUTS, WEAR_OUTPUTS, WEAR_SOURCE, explainWear, wornBy } from '../wear/wear.js';

/**
 * How long do the brushes last, and will the rings do?
 *
 * The shortest brush between new and least gives what is used and the hours left. Slip rings by
 * least diameter and most runout, where the sheet has them.
 *
 * Example: 14 mm new, 5 mm least, 8.2 mm now after 5200 h is 64 % used, 2868 h left.
 */
export const brushes = defineWorking({
  id: 'alternator.brushes',
  title: 'How long do the brushes last, and will the rings do?',
  area: 'alternators',
  inputs: [
    {
      kind: 'list',
      name: 'lengths',
      label: 'Brushes',
      quantity: 'length',
      fewest: 1,
      most: 8,
      min: 0,
      max: 100,
      help: 'Length of each, out of the holder.',
    },
    { kind: 'number', name: 'fresh', label: 'When new', quantity: 'length', above: 0, max: 100, help: 'From the sheet.' },
    { kind: 'number', name: 'limit', label: 'Least', quantity: 'length', min: 0, max: 100, help: 'From the sheet.' },
    {
      kind: 'number',
      name: 'ring',
      label: 'Slip ring',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      help: 'Least diameter found.',
    },
    {
      kind: 'number',
      name: 'leastRing',
      label: 'Slip ring at least',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      help: 'From the sheet.',
    },
    {
      kind: 'number',
      name: 'runout',
      label: 'Ring runout',
      quantity: 'length',
      min: 0,
      max: 10,
      optional: true,
      help: 'Total, rotor on its bearings.',
    },
    {
      kind: 'number',
      name: 'mostRunout',
      label: 'Runout at most',
      quantity: 'length',
      above: 0,
      max: 10,
      optional: true,
      help: 'From the sheet.',
    },
    ...WEAR_INPUTS,
  ],
  outputs: [VERDICT, ...WEAR_OUTPUTS, { kind: 'text', name: 'rings', label: 'Slip rings', longest: 200, help: 'Diameter and runout.' }],
  sources: [WEAR_SOURCE],
  cautions: ['Brushes are held back by a pin while it goes together: out with it before the rotor is spun.'],
  serves: [{ at: 'measure', families: ['alternator', 'starter-generator'], rank: 4, about: /brush|regulator/iu }],
  example: { lengths: [8.2, 8.6], fresh: 14, limit: 5, hours: '5200 h', ring: 27.1, leastRing: 26.8, runout: 0.02, mostRunout: 0.06 },
  compute(input) {
    const worn = wornBy({
      fresh: input.fresh,
      limit: input.limit,
      now: Math.min(...input.lengths),
      hours: input.hours,
      toolU: input.toolU,
      goes: 'down',
    });
    if (!worn.ok) return worn;
    const size =
      input.ring === undefined || input.leastRing === undefined ? undefined : judge(input.ring, input.toolU, { lower: input.leastRing });
    const round =
      input.runout === undefined || input.mostRunout === undefined
        ? undefined
        : judge(input.runout, input.toolU * Math.SQRT2, { upper: input.mostRunout });
    const rings = [
      ...(size ? [`diameter ${size}`] : []),
      ...(round ? [`runout ${round}${round === 'out' ? ': turn or renew them, or the brushes hop' : ''}`] : []),
    ];
    return ok({
      ...worn.value,
      verdict: worstOf([worn.value.verdict, ...(size ? [size] : []), ...(round ? [round] : [])]),
      rings: rings.length === 0 ? 'not measured' : rings.join(', '),
    });
  },
  explain: (input, output) => [
    ...explainWear(output, `Shortest brush ${formatQuantity(Math.min(...input.lengths), 'length')}.`),
    { say: `Slip rings: ${output.rings}.` },
  ],
});
