import { VERDICT } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { WEAR_INPUTS, WEAR_OUTPUTS, WEAR_SOURCE, explainWear, wornBy } from './wear.js';

/**
 * How worn is the spline?
 *
 * Play at the pitch circle from the movement of a dial at radius r: play = movement·(d/2)/r. New
 * play to most allowed is its life.
 *
 * Example: 0.60 mm at 200 mm on a 40 mm spline is 0.06 mm of play.
 */
export const spline = defineWorking({
  id: 'spline.wear',
  title: 'How worn is the spline?',
  area: 'shafts',
  inputs: [
    {
      kind: 'number',
      name: 'movement',
      label: 'Dial moved',
      quantity: 'length',
      min: 0,
      max: 100,
      help: 'Flange rocked by hand, shaft held.',
    },
    {
      kind: 'number',
      name: 'radius',
      label: 'Dial at radius',
      quantity: 'length',
      above: 0,
      max: 2000,
      help: 'From the shaft’s centre to the dial.',
    },
    {
      kind: 'number',
      name: 'diameter',
      label: 'Pitch diameter',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Mean of the spline’s outside and root.',
    },
    {
      kind: 'number',
      name: 'fresh',
      label: 'Play when new',
      quantity: 'length',
      min: 0,
      max: 10,
      help: 'At the pitch circle, from the sheet.',
    },
    {
      kind: 'number',
      name: 'limit',
      label: 'Most play',
      quantity: 'length',
      above: 0,
      max: 10,
      help: 'At the pitch circle, from the sheet.',
    },
    ...WEAR_INPUTS,
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'play', label: 'Play at the spline', quantity: 'length', help: 'On the pitch circle.' },
    ...WEAR_OUTPUTS,
  ],
  sources: [WEAR_SOURCE, { kind: 'derivation', document: 'one angle at two radii', for: 'play at the pitch circle' }],
  cautions: ['A step that a fingernail catches on the flank ends it, whatever the play.'],
  serves: [
    { at: 'measure', families: ['gearbox with selective shims', 'two-speed transfer box'], rank: 3, about: /shaft|spline/iu },
    {
      at: 'measure',
      families: ['belt-driven blower nose drive', 'steered drive axle end', 'propeller shaft with centre bearing'],
      about: /shaft|spline/iu,
    },
  ],
  example: { movement: 0.6, radius: 200, diameter: 40, fresh: 0.03, limit: 0.15, hours: '3000 h' },
  compute({ movement, radius, diameter, toolU, ...wear }) {
    const arm = diameter / 2 / radius;
    const play = movement * arm;
    const worn = wornBy({ ...wear, now: play, toolU: toolU * arm, goes: 'up' });
    return worn.ok ? { ok: true, value: { ...worn.value, play } } : worn;
  },
  explain: (input, output) => [
    {
      say: 'The dial is further out than the spline.',
      formula: 'play = movement · (d/2) / r',
      numbers: `${formatQuantity(input.movement, 'length')} · ${formatQuantity(input.diameter / 2, 'length')} / ${formatQuantity(input.radius, 'length')} = ${formatQuantity(output.play, 'length')}`,
    },
    ...explainWear(output, 'Between new and most allowed.'),
  ],
});
