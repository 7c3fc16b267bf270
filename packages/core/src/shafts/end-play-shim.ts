import { CHOICE_COLUMNS, selective } from '../bearings/selective.js';
import { GAPS_FIELD, meanGap } from '../bearings/gap-readings.js';
import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * Which washer gives this shaft its end play?
 *
 * end play = trial + gap − washer, the gap the mean of three places. Refused where no washer lands inside.
 * Holds while the parts are seated and the washer fills the same gap that was read.
 *
 * Example: trial 2.0, gaps 0.41, 0.43, 0.42, wanted 0.1 to 0.2: the 2.25.
 */
export const endPlayShim = defineWorking({
  id: 'shaft.end-play-shim',
  title: 'Which washer gives this shaft its end play?',
  area: 'shafts',
  inputs: [
    GAPS_FIELD,
    {
      kind: 'number',
      name: 'trial',
      label: 'Washer now',
      quantity: 'length',
      min: 0,
      max: 50,
      help: 'In while the gaps were read; 0 without one.',
    },
    { kind: 'number', name: 'from', label: 'End play from', quantity: 'length', min: 0, max: 5, help: 'Of the sheet.' },
    { kind: 'number', name: 'to', label: 'End play to', quantity: 'length', above: 0, max: 5, help: 'Of the sheet.' },
    {
      kind: 'list',
      name: 'sizes',
      label: 'Washers there are',
      quantity: 'length',
      min: 0,
      max: 50,
      fewest: 1,
      most: 100,
      help: 'Thicknesses, as measured.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'washer', label: 'Take', quantity: 'length', help: 'The one nearest to the middle of the window.' },
    { kind: 'number', name: 'gives', label: 'Gives end play', quantity: 'length', help: 'With it in.' },
    { kind: 'number', name: 'wanted', label: 'Exactly wanted', quantity: 'length', help: 'For the middle of the window.' },
    { kind: 'table', name: 'others', label: 'The others', columns: CHOICE_COLUMNS, help: 'Nearest first.' },
  ],
  sources: [{ kind: 'derivation', document: 'a washer takes up its thickness', for: 'the sum' }],
  cautions: [],
  serves: [
    { at: 'build', families: ['gearbox with selective shims', 'two-speed transfer box', 'PTO gearbox'] },
    {
      at: 'setting',
      kinds: ['end-play', 'depth'],
      methods: ['selective-ring'],
      preset: { from: 'from', to: 'to', gaps: 'readings', trial: 'before.washer' },
    },
  ],
  example: { gaps: '0.41; 0.43; 0.42', trial: 2, from: 0.1, to: 0.2, sizes: '2; 2.05; 2.1; 2.15; 2.2; 2.25; 2.3' },
  compute({ gaps, trial, from, to, sizes }) {
    if (to < from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(to), bound: mm(from) });
    const gap = meanGap(gaps);
    if (!gap.ok) return gap;
    const room = trial + gap.value;
    const ranked = selective(sizes, { from, to }, room);
    if (!ranked.ok) return ranked;
    const [best, ...others] = ranked.value;
    return ok({
      washer: best.thickness,
      gives: best.gives,
      wanted: room - (from + to) / 2,
      others: others.map((one) => ({ ...one })),
    });
  },
  explain: (input, output) => [
    { say: 'What is to be filled.', formula: 'trial + mean gap', numbers: mm(output.wanted + (input.from + input.to) / 2) },
    { say: 'Less the washer.', numbers: `${mm(output.washer)} leaves ${mm(output.gives, input)}` },
  ],
});
