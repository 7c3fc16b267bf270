import { EXPANSION, EXPANSION_CHOICES } from '../measuring/materials.js';
import { celsius, microns, mm } from '../quantity/write.js';
import { defineWorking } from '../working/describe.js';
import { ok, refuse } from '../working/issues.js';

const COLD_C = 20;
/** cot α = K/0.39 (bearing handbooks). */
const K_PER_COT = 0.39;

/**
 * Set cold: what is it hot?
 *
 * A tapered pair loses g·[cot α1·D1/2 + cot α2·D2/2 ± L], + face to face, − back to back, with
 * g = α shaft·ΔT shaft − α housing·ΔT housing, cot α = K/0.39, D the mean cup diameter, L the distance
 * between the cups' centres. The radial part can be the larger and turn the sign. Holds for parts that
 * are each warm through.
 *
 * Example: K 1.5, D 60, L 180, steel, shaft 20 K warmer, face to face: loses 0.095 mm.
 */
export const thermal = defineWorking({
  id: 'bearing.thermal',
  title: 'Set cold: what is it hot?',
  area: 'bearings',
  inputs: [
    {
      kind: 'choice',
      name: 'arrangement',
      label: 'The cones point',
      default: 'face-to-face',
      choices: [
        { id: 'face-to-face', label: 'face to face: set at the cups' },
        { id: 'back-to-back', label: 'back to back: set at the cones' },
      ],
      help: 'Wide ends of the rollers outwards is back to back, as in a wheel hub.',
    },
    {
      kind: 'choice',
      name: 'ask',
      label: 'Known',
      default: 'cold',
      choices: [
        { id: 'cold', label: 'the setting cold' },
        { id: 'hot', label: 'what it should be hot' },
      ],
      help: 'The other one is worked out.',
    },
    { kind: 'number', name: 'setting', label: 'Setting known', quantity: 'length', min: -2, max: 5, help: 'End play; minus is preload.' },
    {
      kind: 'number',
      name: 'k1',
      label: 'K of the first',
      quantity: 'ratio',
      above: 0.3,
      max: 4,
      help: 'Of its catalogue: radial over thrust rating. Some 1.5 for usual angles, 0.8 for steep ones.',
    },
    {
      kind: 'number',
      name: 'd1',
      label: 'Mean cup diameter, first',
      symbol: 'D1',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Middle of the cup’s race.',
    },
    {
      kind: 'number',
      name: 'k2',
      label: 'K of the second',
      quantity: 'ratio',
      above: 0.3,
      max: 4,
      optional: true,
      help: 'As the first when left empty.',
    },
    {
      kind: 'number',
      name: 'd2',
      label: 'Mean cup diameter, second',
      symbol: 'D2',
      quantity: 'length',
      above: 0,
      max: 1000,
      optional: true,
      help: 'As the first when left empty.',
    },
    {
      kind: 'number',
      name: 'apart',
      label: 'Apart',
      symbol: 'L',
      quantity: 'length',
      min: 0,
      max: 3000,
      help: 'Middle of one cup to middle of the other.',
    },
    { kind: 'choice', name: 'shaftOf', label: 'Shaft of', default: 'steel', choices: EXPANSION_CHOICES, help: 'What it is made of.' },
    { kind: 'number', name: 'shaftT', label: 'Shaft hot at', quantity: 'temperature', min: -40, max: 200, help: 'Running.' },
    {
      kind: 'choice',
      name: 'housingOf',
      label: 'Housing of',
      default: 'cast-iron',
      choices: EXPANSION_CHOICES,
      help: 'What it is made of.',
    },
    {
      kind: 'number',
      name: 'housingT',
      label: 'Housing hot at',
      quantity: 'temperature',
      min: -40,
      max: 200,
      help: 'Running; cooler than the shaft as a rule.',
    },
    {
      kind: 'number',
      name: 'coldT',
      label: 'Set at',
      quantity: 'temperature',
      min: -20,
      max: 60,
      default: COLD_C,
      help: 'Temperature of the bench.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'hot', label: 'Hot', quantity: 'length', help: 'End play running; minus is preload.' },
    { kind: 'number', name: 'cold', label: 'Cold', quantity: 'length', help: 'What to set on the bench.' },
    { kind: 'number', name: 'loses', label: 'Loses', quantity: 'length', help: 'From cold to hot; minus gains play.' },
    { kind: 'number', name: 'radial', label: 'Of it radial', quantity: 'length', help: 'Cones and cups growing in diameter.' },
    { kind: 'number', name: 'axial', label: 'Of it axial', quantity: 'length', help: 'Shaft and housing growing in length.' },
  ],
  sources: [
    {
      kind: 'handbook',
      document: 'Tapered bearing catalogues, engineering section',
      for: 'cot α = K/0.39 and the sum of both parts',
      fromMemory: true,
    },
    { kind: 'handbook', document: "Machinery's Handbook", for: 'the coefficients', fromMemory: true },
  ],
  cautions: ['A pair that goes tight hot burns: where the temperatures are guessed, set to the loose end.'],
  example: { setting: '0.15 mm', k1: 1.5, d1: 60, apart: 180, shaftT: 90, housingT: 70, housingOf: 'steel' },
  compute(input) {
    if (input.shaftT < input.coldT && input.housingT < input.coldT)
      return refuse({
        code: 'cannot-be',
        field: 'shaftT',
        received: celsius(input.shaftT),
        bound: `running it is no colder than the bench, ${celsius(input.coldT)}`,
      });
    const grows = EXPANSION[input.shaftOf] * (input.shaftT - input.coldT) - EXPANSION[input.housingOf] * (input.housingT - input.coldT);
    const cot = (k: number): number => k / K_PER_COT;
    const radial = grows * ((cot(input.k1) * input.d1) / 2 + (cot(input.k2 ?? input.k1) * (input.d2 ?? input.d1)) / 2);
    const axial = grows * input.apart * (input.arrangement === 'face-to-face' ? 1 : -1);
    const loses = radial + axial;
    const cold = input.ask === 'cold' ? input.setting : input.setting + loses;
    return ok({ hot: cold - loses, cold, loses, radial, axial });
  },
  explain: (input, output) => [
    { say: 'Across: cones swell into their cups.', formula: 'g·(cot α1·D1/2 + cot α2·D2/2)', numbers: microns(output.radial) },
    {
      say: `Along: ${input.arrangement === 'face-to-face' ? 'the shaft pushes the cones together' : 'the shaft draws the cones apart'}.`,
      formula: '± g·L',
      numbers: microns(output.axial),
    },
    { say: 'Hot is cold less both.', numbers: `${mm(output.cold)} − ${mm(output.loses)} = ${mm(output.hot)}` },
  ],
});
