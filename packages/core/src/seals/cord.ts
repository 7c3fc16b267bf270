import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** A joint that is stretched opens: common practice. */
const STRETCH = 0.01;
/** Shorter round than that, in sections, the joint is bent open; common practice. */
const SHORTEST = 12;

/**
 * How long is ring cord cut?
 *
 * Once round the middle of the section, stretched by a hundredth, both ends cut square with one stroke in a jig, or at 45° where
 * it is thick, and joined with the adhesive for that rubber. A joint is a weak place: between faces and where nothing moves alone.
 *
 * Example: 4 mm cord for a groove of 240 inside: 758.9 mm.
 */
export const cord = defineWorking({
  id: 'oring.cord',
  title: 'How long is ring cord cut?',
  area: 'seals',
  inputs: [
    {
      kind: 'number',
      name: 'inner',
      label: 'It lies round',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 5000,
      help: 'Bottom of the groove, or its inner wall.',
    },
    { kind: 'number', name: 'section', label: 'Cord', symbol: 'd₂', quantity: 'length', above: 0, max: 30, help: 'Thickness of the cord.' },
    {
      kind: 'choice',
      name: 'motion',
      label: 'There',
      default: 'static',
      choices: [
        { id: 'static', label: 'nothing moves' },
        { id: 'moving', label: 'something slides or turns' },
      ],
      help: 'A joint that is rubbed opens.',
    },
    { kind: 'number', name: 'pressure', label: 'Pressure', quantity: 'pressure', min: 0, max: 100, default: 0, help: 'The highest.' },
  ],
  outputs: [
    { kind: 'number', name: 'cut', label: 'Cut it to', quantity: 'length', help: 'Along its middle.' },
    { kind: 'text', name: 'so', label: 'So', longest: 240, help: 'How it is joined.' },
  ],
  sources: [
    { kind: 'derivation', document: 'once round the middle of the section', for: 'the length' },
    { kind: 'common practice', document: 'stretched by a hundredth; at rest, up to 1 MPa', for: 'where a joint holds' },
  ],
  cautions: [
    'A ring of brakes, steering, gas or refrigerant is never made from cord.',
    'The adhesive sticks fingers and eyes: gloves and glasses.',
  ],
  serves: [{ at: 'seal', kinds: ['o-ring'], rank: 8, preset: { section: 'seal.section' } }],
  example: { inner: 240, section: 4 },
  compute({ inner, section, motion, pressure }) {
    if (motion === 'moving')
      return refuse({
        code: 'outside-method',
        field: 'motion',
        received: 'something moves',
        bound: 'where nothing moves: a joint that is rubbed opens; a moulded ring',
      });
    if (pressure > 1) return refuse({ code: 'too-large', field: 'pressure', received: `${pressure} MPa`, bound: '1 MPa: a moulded ring' });
    if (inner < SHORTEST * section)
      return refuse({
        code: 'too-small',
        field: 'inner',
        received: mm(inner),
        bound: `${mm(SHORTEST * section)}: tighter the joint is bent open`,
      });
    const cut = (Math.PI * (inner + section)) / (1 + STRETCH);
    return ok({
      cut,
      so: `${section > 5 ? 'ends at 45°, in a jig' : 'ends square, one stroke in a jig'}; degreased, a drop, pressed ten seconds; rolled round once, and the joint looked at`,
    });
  },
  explain: (_, { cut, so }) => [
    { say: 'Round the middle of the section, stretched by a hundredth.', formula: 'π·(d + d₂)/1.01', numbers: mm(cut) },
    { say: `So: ${so}.` },
  ],
});
