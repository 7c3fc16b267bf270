import { zoneAt } from '../fits/zones.js';
import { VERDICT } from '../measuring/verdict-field.js';
import { microns, mm, newtons } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Steel sheet of a case: Young's modulus and where deep-drawn sheet yields, MPa; handbook values, from memory. */
const STEEL_E = 206_000;
const SHEET_YIELD = 250;
/** Oiled to dry; common practice. */
const FRICTION = { oiled: 0.12, dry: 0.2 } as const;

/** By how much a seal is larger than its bore, mm: ISO 6194-1, press-fit allowance, from memory. */
const ALLOWANCES: readonly (readonly [upTo: number, metal: readonly [number, number], rubber: readonly [number, number]])[] = [
  [50, [0.1, 0.2], [0.15, 0.3]],
  [80, [0.13, 0.23], [0.2, 0.35]],
  [120, [0.15, 0.25], [0.2, 0.35]],
  [180, [0.18, 0.28], [0.25, 0.45]],
  [300, [0.2, 0.3], [0.25, 0.45]],
  [440, [0.23, 0.35], [0.3, 0.55]],
];
/** Between a driver and the bore it follows the seal into, in diameter; common practice. */
const DRIVER_CLEAR = 0.5;

/**
 * Does the seal hold in its bore, and what presses it in?
 *
 * Interference against the allowance of ISO 6194-1 in a bore H8. A metal case is a thin ring: it presses with 2·E·t·δ/D² until
 * its sheet yields, with 2·R·t/D from there on; friction times its face is the force. Rubber outside yields and springs back: no force
 * is worked out for it. Its driver is half a millimetre smaller than the bore and flat.
 *
 * Example: a metal case of 62.15 in a bore of 62.01, 8 wide, 1 mm sheet: 140 µm, some 1.5 kN oiled.
 */
export const pressIn = defineWorking({
  id: 'seal.press',
  title: 'Does the seal hold in its bore, and what presses it in?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'outsideOf',
      label: 'Outside it is',
      default: 'metal',
      choices: [
        { id: 'metal', label: 'bare metal' },
        { id: 'rubber', label: 'rubber' },
      ],
      help: 'Rubber forgives a worn bore, and springs back.',
    },
    {
      kind: 'number',
      name: 'nominal',
      label: 'Bore, as its size says',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 440,
      help: 'The second figure of shaft × bore × width.',
    },
    {
      kind: 'number',
      name: 'seal',
      label: 'Seal, measured',
      quantity: 'length',
      above: 0,
      max: 442,
      optional: true,
      help: 'Across its outside, two ways; what the standard gives it where nothing is said.',
    },
    {
      kind: 'number',
      name: 'bore',
      label: 'Bore, measured',
      quantity: 'length',
      above: 0,
      max: 442,
      help: 'Where the seal sits, two ways.',
    },
    { kind: 'number', name: 'width', label: 'Wide', quantity: 'length', above: 0, max: 60, help: 'Of the seal; what touches the bore.' },
    {
      kind: 'number',
      name: 'sheet',
      label: 'Sheet of its case',
      symbol: 't',
      quantity: 'length',
      above: 0,
      max: 5,
      default: 1,
      help: '0.8 to 1.5 mm is common.',
    },
    {
      kind: 'choice',
      name: 'wet',
      label: 'It goes in',
      default: 'oiled',
      choices: [
        { id: 'oiled', label: 'with a film of oil' },
        { id: 'dry', label: 'dry' },
      ],
      help: 'Dry rubber tears.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'interference', label: 'Larger than its bore by', quantity: 'length', help: 'In diameter.' },
    { kind: 'number', name: 'least', label: 'at least', quantity: 'length', help: 'In a bore H8 at its widest.' },
    { kind: 'number', name: 'most', label: 'at most', quantity: 'length', help: 'In a bore at its narrowest.' },
    {
      kind: 'number',
      name: 'force',
      label: 'Presses in with some',
      quantity: 'force',
      optional: true,
      help: 'At the end of its way; a metal case alone.',
    },
    {
      kind: 'number',
      name: 'driver',
      label: 'Driver at most across',
      quantity: 'length',
      help: 'Flat, square; on the rim, not on the lip.',
    },
    { kind: 'text', name: 'so', label: 'So', longest: 300, help: 'What to do.' },
  ],
  sources: [
    { kind: 'standard', document: 'ISO 6194-1', for: 'allowance in a bore H8', fromMemory: true },
    { kind: 'derivation', document: 'thin ring pressed together, to where its sheet yields', for: 'the force' },
    { kind: 'common practice', document: 'driver half a millimetre under the bore', for: 'the driver' },
  ],
  cautions: [
    'A seal that leans is taken out again, not driven straight: its case is bent, and a new one goes in.',
    'Chips fly from a hammer on hardened steel: glasses.',
  ],
  serves: [{ at: 'seal', kinds: ['lip-seal'], rank: 3, preset: { nominal: 'seal.bore', width: 'seal.width' } }],
  example: { outsideOf: 'metal', nominal: 62, seal: 62.15, bore: 62.01, width: 8 },
  compute({ outsideOf, nominal, seal: measured, bore, width, sheet, wet }) {
    const row = ALLOWANCES.find(([upTo]) => nominal <= upTo)!;
    const [low, high] = outsideOf === 'metal' ? row[1] : row[2];
    const seal = measured ?? nominal + (low + high) / 2;
    for (const [field, figure] of [
      ['seal', seal],
      ['bore', bore],
    ] as const)
      if (Math.abs(figure - nominal) > 1.5)
        return refuse({
          code: 'cannot-be',
          field,
          received: mm(figure),
          bound: `a seal for a bore of ${mm(nominal)} is within 1.5 mm of it`,
        });
    const least = low - (zoneAt('H8', nominal)?.upper ?? 0) / 1000;
    const interference = seal - bore;
    const isIn = interference >= least && interference <= high;
    const face = Math.PI * nominal * width;
    const stress = Math.min((STEEL_E * Math.max(0, interference)) / nominal, SHEET_YIELD);
    const force = outsideOf === 'metal' ? (FRICTION[wet] * face * 2 * sheet * stress) / nominal : undefined;
    return ok({
      verdict: isIn ? 'in' : 'out',
      interference,
      least,
      most: high,
      force,
      driver: bore - DRIVER_CLEAR,
      so: isIn
        ? outsideOf === 'metal'
          ? 'press it slowly, square, to its depth; a light tap all round is more than it needs'
          : 'press it a little further than its depth and hold it there some seconds: rubber springs back'
        : interference < least
          ? interference <= 0
            ? 'it falls out: another size, or the bore sleeved'
            : `it holds too little, ${microns(least)} is the least: ${outsideOf === 'metal' ? 'one with rubber outside, or a sealant for bores round it' : 'the bore is worn: sleeve it'}`
          : `its case folds, ${microns(high)} is the most: is it the right size? Clean the bore and measure again`,
    });
  },
  explain: (_, output) => [
    { say: 'Seal less bore.', numbers: `${microns(output.interference)}; ${microns(output.least)} to ${microns(output.most)} is right` },
    ...(output.force === undefined
      ? [{ say: 'Rubber outside: no force is worked out for it.' }]
      : [
          {
            say: 'A thin ring pressed together, at most until its sheet yields; times friction and face.',
            formula: 'F = µ·π·D·b·2·t·min(E·δ/D, R)/D',
            numbers: newtons(output.force),
          },
        ]),
    { say: `Driver at most ${mm(output.driver)} across: ${output.so}.` },
  ],
});
