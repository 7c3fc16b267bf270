import { VERDICT } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { WEAR_INPUTS, WEAR_OUTPUTS, WEAR_SOURCE, explainWear, wornBy } from './wear.js';

/**
 * How far has the chain lengthened?
 *
 * Length over n links, pulled tight, pin centre to pin centre: new n·p, limit n·p·(1 + e). Common
 * practice for e: 3 % on plain sprockets, 1.5 % with fixed centres or timing.
 *
 * Example: 20 links of ½ in at 257.5 mm are 1.38 % long, 92 % of 1.5 %.
 */
export const chain = defineWorking({
  id: 'chain.wear',
  title: 'How far has the chain lengthened?',
  area: 'gears',
  inputs: [
    {
      kind: 'number',
      name: 'now',
      label: 'Length',
      quantity: 'length',
      above: 0,
      max: 10_000,
      help: 'Pulled tight, pin centre to pin centre.',
    },
    {
      kind: 'number',
      name: 'links',
      label: 'Over links',
      quantity: 'count',
      min: 4,
      max: 500,
      default: 20,
      help: 'More links, smaller error.',
    },
    {
      kind: 'number',
      name: 'pitch',
      label: 'Pitch',
      quantity: 'length',
      above: 0,
      max: 200,
      help: 'Of the new chain; "1/2 in" is 12.7 mm.',
    },
    {
      kind: 'number',
      name: 'most',
      label: 'May lengthen by',
      quantity: 'ratio',
      above: 0,
      max: 0.1,
      default: 0.015,
      help: '1.5 % with fixed centres or timing, 3 % with a tensioner.',
    },
    ...WEAR_INPUTS,
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'longer', label: 'Longer by', quantity: 'ratio', help: 'Of its new length.' },
    ...WEAR_OUTPUTS,
  ],
  sources: [WEAR_SOURCE, { kind: 'common practice', document: 'roller chain elongation 1.5 % or 3 %', for: 'the limit' }],
  cautions: ['A new chain on hooked sprockets wears out in weeks: look at the teeth.'],
  serves: [{ at: 'measure', families: ['gearbox with selective shims', 'two-speed transfer box'], rank: 2 }],
  example: { now: 257.5, pitch: 12.7, hours: '1500 h' },
  compute({ now, links, pitch, most, ...wear }) {
    const fresh = links * pitch;
    const worn = wornBy({ ...wear, now, fresh, limit: fresh * (1 + most), goes: 'up' });
    return worn.ok ? { ok: true, value: { ...worn.value, longer: now / fresh - 1 } } : worn;
  },
  explain: (input, output) => [
    {
      say: `New: ${input.links} links of ${formatQuantity(input.pitch, 'length')}.`,
      formula: 'longer = L / (n·p) − 1',
      numbers: formatQuantity(output.longer, 'ratio', '%', { to: input.most }),
    },
    ...explainWear(output, 'Between new and what is allowed.'),
  ],
});
