import { VERDICT } from '../measuring/verdict-field.js';
import { microns } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';

/** Half of the wavelength, µm: one band to the next. Helium 587.6 nm, sodium 589.3 nm; handbook values, from memory. */
const BAND_MICRONS = { helium: 0.2938, sodium: 0.2946 } as const;
/** So many bands a face of a pump or compressor seal is within, by its diameter, mm; common practice of seal makers. */
const MOST: readonly (readonly [upTo: number, bands: number])[] = [
  [90, 3],
  [150, 5],
  [Infinity, 8],
];

/**
 * How flat is a lapped face, by light bands?
 *
 * Under an optical flat and light of one colour each band is half a wavelength further from the flat. A straight edge laid
 * across: by as many bands as a band bends away from it, the face is out of flat. Straight and even: flat, whatever their number.
 * Closed rings: a hill or a hollow, counted from its middle.
 *
 * Example: bands that bend by two under helium light: 0.59 µm, right for a face of 60 mm.
 */
export const lightBands = defineWorking({
  id: 'seal.light-bands',
  title: 'How flat is a lapped face, by light bands?',
  area: 'seals',
  inputs: [
    {
      kind: 'number',
      name: 'bands',
      label: 'A band bends by, bands',
      quantity: 'ratio',
      min: 0,
      max: 60,
      help: 'Across the face, from the straight line between its ends; rings are counted from the middle.',
    },
    { kind: 'number', name: 'across', label: 'Face, across', quantity: 'length', above: 0, max: 500, help: 'Its outside.' },
    {
      kind: 'choice',
      name: 'light',
      label: 'Light',
      default: 'helium',
      choices: [
        { id: 'helium', label: 'helium lamp' },
        { id: 'sodium', label: 'sodium lamp' },
      ],
      help: 'Daylight shows colours, and tells nothing.',
    },
    {
      kind: 'number',
      name: 'most',
      label: 'The maker allows, bands',
      quantity: 'ratio',
      above: 0,
      max: 60,
      optional: true,
      help: 'Common practice by its size where nothing is said.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'flatness', label: 'Out of flat by', quantity: 'length', help: 'Over the whole face.' },
    { kind: 'number', name: 'allowed', label: 'at most', quantity: 'length', help: 'By so many bands as are allowed.' },
    { kind: 'text', name: 'so', label: 'So', longest: 200, help: 'What to do.' },
  ],
  sources: [
    { kind: 'derivation', document: 'half a wavelength from band to band', for: 'the flatness' },
    { kind: 'common practice', document: '3 bands up to 90 mm, 5 up to 150 mm, 8 beyond', for: 'what is allowed' },
  ],
  cautions: ['A face is laid down on lens paper, never slid: the flat and the face scratch one another.'],
  serves: [{ at: 'seal', kinds: ['face-seal'], rank: 2 }],
  example: { bands: 2, across: 60 },
  compute({ bands, across, light, most }) {
    const band = BAND_MICRONS[light] / 1000;
    const allowedBands = most ?? MOST.find(([upTo]) => across <= upTo)![1];
    const isIn = bands <= allowedBands;
    return ok({
      verdict: isIn ? 'in' : 'out',
      flatness: bands * band,
      allowed: allowedBands * band,
      so: isIn ? 'clean it once more and put it in dry' : 'lap it, on a plate that was trued, in figures of eight; or a new one',
    });
  },
  explain: (_, { flatness, allowed, so }) => [
    { say: 'Half a wavelength for each band.', formula: 'n·λ/2', numbers: `${microns(flatness)}, at most ${microns(allowed)}` },
    { say: `So: ${so}.` },
  ],
});
