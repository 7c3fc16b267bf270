import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { GROOVE_FIELDS, glandDrawing, grooveOf, seatedWords } from './groove-fields.js';
import { squeezeOf, thinned } from './ring.js';
import { AS568, ISO_3601, RING_SIZES, WHOLE_MM } from './ring-sizes.js';
import { FITS, SHELF_FIELD, ringsOn, triedIn } from './tried-in.js';

const SHOWN = 8;
/** Of those that are too thin, and of those that are too thick. */
const NEAR_SHOWN = 2;
const SERIES = { all: RING_SIZES, inch: AS568, metric: [...ISO_3601, ...WHOLE_MM] } as const;

/**
 * Which O-ring goes into this groove?
 *
 * Every standard size, and those of the shelf, put into the groove as `oring.check` does: what is right first, what is on
 * the shelf before what is not, then whatever is nearest to the middle of squeeze and stretch. What is a little too thin or
 * too thick is shown with why it will not do.
 *
 * Example: a groove of 20.8 in a bore of 25, 3.6 wide, a ring of 20 × 2.65 on the shelf: that one.
 */
export const oringPick = defineWorking({
  id: 'oring.pick',
  title: 'Which O-ring goes into this groove?',
  area: 'seals',
  inputs: [
    ...GROOVE_FIELDS,
    {
      kind: 'choice',
      name: 'series',
      label: 'Look among',
      default: 'all',
      choices: [
        { id: 'all', label: 'all sizes' },
        { id: 'metric', label: 'metric ones' },
        { id: 'inch', label: 'inch ones (AS568)' },
      ],
      help: 'What the unit was made with.',
    },
    SHELF_FIELD,
  ],
  outputs: [
    { kind: 'text', name: 'which', label: 'Take', longest: 200, help: 'The best of those that fit.' },
    { kind: 'number', name: 'inside', label: 'Inside', quantity: 'length', help: 'Of that one.' },
    { kind: 'number', name: 'section', label: 'Section', quantity: 'length', help: 'Of that one.' },
    { kind: 'number', name: 'squeeze', label: 'Squeezed by', quantity: 'ratio', share: true, help: 'Of that one.' },
    { kind: 'number', name: 'stretch', label: 'Stretched by', quantity: 'ratio', share: true, help: 'Of that one.' },
    { kind: 'number', name: 'fill', label: 'Groove full to', quantity: 'ratio', share: true, help: 'Of that one.' },
    {
      kind: 'table',
      name: 'each',
      label: 'The nearest',
      columns: [
        { name: 'name', label: 'ring', quantity: 'text' },
        { name: 'squeeze', label: 'squeezed', quantity: 'ratio', share: true },
        { name: 'stretch', label: 'stretched', quantity: 'ratio', share: true },
        { name: 'fill', label: 'full', quantity: 'ratio', share: true },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'Those that fit, then those that nearly would, with what is wrong with them.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'SAE AS568', for: 'inch sizes', fromMemory: true },
    { kind: 'standard', document: 'ISO 3601-1', for: 'metric sizes and tolerances', fromMemory: true },
    { kind: 'common practice', document: 'squeeze, stretch and fill as housings of ISO 3601-2 come out', for: 'what is right' },
  ],
  cautions: [
    'A ring that seals where a cup or lip seal sealed is another seal: the pressure no longer helps it, and it drags. Customer and foreman agree first.',
    'The right size in the wrong rubber leaks within weeks: look at the medium too.',
  ],
  serves: [{ at: 'seal', kinds: ['o-ring', 'piston-seal'], rank: 2, preset: { shelf: 'seal.shelf' } }],
  example: {
    gland: 'piston',
    inner: 20.8,
    outer: 25,
    width: 3.6,
    loose: 0.03,
    shelf: [{ name: 'box 4: 20 × 2.65', inside: 20, section: 2.65 }],
  },
  compute(input) {
    const made = grooveOf(input);
    if (!made.ok) return made;
    const groove = made.value;
    const lying = ringsOn(input.shelf);
    if (!lying.ok) return lying;
    const shelf = lying.value;
    const tried = [...shelf.map((size) => triedIn(groove, size, true)), ...SERIES[input.series].map((size) => triedIn(groove, size, false))]
      .filter((one) => one !== undefined)
      .toSorted((one, other) => one.badness - other.badness);
    const fits = tried.filter(({ badness }) => badness < FITS);
    // What lies right but for its thickness: the mistake that a hand makes.
    const near = ['thin', 'thick'].flatMap((word) =>
      tried.filter(({ liesRight, why }) => liesRight && why.startsWith(`too ${word}`)).slice(0, NEAR_SHOWN),
    );
    const [best] = fits;
    if (!best) {
      const [nearest] = near;
      const { from, to } = squeezeOf(groove);
      const wanted = `a section of ${mm(groove.height / (1 - from))} to ${mm(groove.height / (1 - to))}`;
      return refuse({
        code: 'none-will-do',
        field: 'inner',
        received: 'the sizes there are',
        bound: nearest ? `the nearest is ${nearest.size.name}, ${nearest.why}; ${wanted} would be right` : `${wanted} would be right`,
      });
    }
    return ok({
      which: best.size.name,
      inside: best.size.inside,
      section: best.size.section,
      squeeze: best.at.squeeze,
      stretch: best.at.stretch,
      fill: best.at.fill,
      each: [...fits.slice(0, SHOWN), ...near].map(({ size, at, why }) => ({
        name: size.name,
        squeeze: at.squeeze,
        stretch: at.stretch,
        fill: at.fill,
        why,
      })),
    });
  },
  explain: (input, output) => [
    {
      say: 'Each size is put into the groove; what is squeezed, stretched and full as it should be stays.',
      numbers: `${SERIES[input.series].length} sizes, ${input.shelf?.length ?? 0} of the shelf`,
    },
    { say: output.which, numbers: seatedWords(output) },
  ],
  draw: (input, output) => glandDrawing(input, output.section * (1 - thinned(output.stretch))),
});
