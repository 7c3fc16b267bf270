import { VERDICT } from '../measuring/verdict-field.js';
import { defineWorking } from '../working/define.js';
import { WEAR_INPUTS, WEAR_OUTPUTS, WEAR_SOURCE, explainWear, wornBy } from './wear.js';

/**
 * How much life has the synchroniser ring left?
 *
 * Gap between ring and gear, ring pressed on its cone by hand and turned; the least of three
 * places counts. Wear closes it from the new gap to the least allowed.
 *
 * Example: new 1.2 mm, least 0.5 mm, now 0.75 mm after 6000 h is 64 % used, 3333 h left.
 */
export const synchro = defineWorking({
  id: 'synchro.gap',
  title: 'How much life has the synchroniser ring left?',
  area: 'gears',
  inputs: [
    {
      kind: 'list',
      name: 'gaps',
      label: 'Gap',
      quantity: 'length',
      fewest: 1,
      most: 12,
      min: 0,
      max: 10,
      help: 'By feeler at three places.',
    },
    { kind: 'number', name: 'fresh', label: 'Gap when new', quantity: 'length', above: 0, max: 10, help: 'From the sheet.' },
    { kind: 'number', name: 'limit', label: 'Least gap', quantity: 'length', min: 0, max: 10, help: 'From the sheet.' },
    ...WEAR_INPUTS,
  ],
  outputs: [VERDICT, ...WEAR_OUTPUTS],
  sources: [WEAR_SOURCE, { kind: 'common practice', document: 'the least of three places counts', for: 'the reading' }],
  cautions: ['Oil on the cone holds the ring off: wipe it before measuring.'],
  serves: [{ at: 'measure', families: ['gearbox with selective shims'], about: /ring|synchro/iu }],
  example: { gaps: [0.8, 0.75, 0.78], fresh: 1.2, limit: 0.5, hours: '6000 h' },
  compute: ({ gaps, ...wear }) => wornBy({ ...wear, goes: 'down', now: Math.min(...gaps) }),
  explain: (_input, output) => explainWear(output, 'The least gap between new and least allowed.'),
});
