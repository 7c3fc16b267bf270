import { GAPS_FIELD, meanGap } from '../bearings/gap-readings.js';
import { noneWords } from '../bearings/shelf-field.js';
import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * Which ring goes into this groove?
 *
 * The thickest that still goes in where it is narrowest: thickness ≤ least gap − least play. Play
 * then = gap − ring; refused where that is too much somewhere. A groove that varies is worn or dirty.
 *
 * Example: gaps 2.34, 2.36, 2.35, play 0 to 0.1: the 2.30.
 */
export const snapRing = defineWorking({
  id: 'gearbox.snap-ring',
  title: 'Which ring goes into this groove?',
  area: 'gearboxes',
  inputs: [
    { ...GAPS_FIELD, label: 'Groove, at three places', help: 'Feeler pack or gauge blocks between bearing and groove wall.' },
    {
      kind: 'number',
      name: 'from',
      label: 'Play from',
      quantity: 'length',
      min: 0,
      max: 2,
      default: 0,
      help: 'It must go in without a hammer.',
    },
    { kind: 'number', name: 'to', label: 'Play to', quantity: 'length', above: 0, max: 2, help: 'Of the sheet.' },
    {
      kind: 'list',
      name: 'sizes',
      label: 'Rings there are',
      quantity: 'length',
      min: 0,
      max: 20,
      fewest: 1,
      most: 60,
      help: 'Thicknesses, as measured.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'ring', label: 'Take', quantity: 'length', help: 'The thickest that goes in.' },
    { kind: 'number', name: 'least', label: 'Play at least', quantity: 'length', help: 'Where the groove is narrowest.' },
    { kind: 'number', name: 'most', label: 'Play at most', quantity: 'length', help: 'Where it is widest.' },
  ],
  sources: [{ kind: 'common practice', document: 'the thickest ring that goes in by hand', for: 'the choice' }],
  cautions: ['A retaining ring flies: glasses, and a hand or a rag over it.'],
  serves: [
    { at: 'build', families: ['gearbox with selective shims', 'two-speed transfer box'], rank: 2 },
    { at: 'setting', kinds: ['end-play', 'depth'], methods: ['selective-ring'], rank: 2 },
  ],
  example: { gaps: '2.34; 2.36; 2.35', to: 0.1, sizes: '2.2; 2.25; 2.3; 2.35; 2.4' },
  compute({ gaps, from, to, sizes }) {
    if (to < from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(to), bound: mm(from) });
    const gap = meanGap(gaps, to - from);
    if (!gap.ok) return gap;
    const [narrowest, widest] = [Math.min(...gaps), Math.max(...gaps)];
    const fits = sizes.filter((size) => size > 0 && size <= narrowest - from + 1e-9);
    if (fits.length === 0)
      return refuse({ code: 'none-will-do', field: 'sizes', received: 'the rings', bound: `at most ${mm(narrowest - from)} goes in` });
    const ring = Math.max(...fits);
    const most = widest - ring;
    if (most > to + 1e-9) {
      const right = noneWords(`${mm(ring)}, leaves ${mm(most)}`, { from: widest - to, to: narrowest - from }, 'thick');
      return refuse({ code: 'none-will-do', field: 'sizes', received: 'the rings', bound: right });
    }
    return ok({ ring, least: narrowest - ring, most });
  },
  explain: (input, output) => [
    {
      say: 'It has to go in where the groove is narrowest.',
      formula: 'ring ≤ least gap − least play',
      numbers: `${mm(Math.min(...input.gaps))} − ${mm(input.from)}`,
    },
    { say: 'What it leaves all round.', numbers: `${mm(output.ring)}: ${mm(output.least)} to ${mm(output.most, input)}` },
  ],
});
