import { EXPANSION, EXPANSION_CHOICES } from '../measuring/materials.js';
import { microns, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';

const COLD_C = 20;
/** cot α = K/0.39 (bearing handbooks). */
const K_PER_COT = 0.39;

/**
 * Set cold: what is it hot?
 *
 * A tapered pair loses g·[cot α1·D1/2 + cot α2·D2/2 ± L], + face to face, − back to back, with
 * g = α shaft·ΔT shaft − α housing·ΔT housing, cot α = K/0.39, D the mean cup diameter, L the distance
 * between the cups' centres. The radial part can be the larger and turn the sign. A start below the bench's temperature is
 * worked out alike: in an aluminium housing it is the one that goes tight. A cup in aluminium loses
 * (α aluminium − α steel)·ΔT·D of its hold. Holds for parts that are each at one temperature.
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
    {
      kind: 'number',
      name: 'shaftT',
      label: 'Shaft then at',
      quantity: 'temperature',
      min: -60,
      max: 200,
      help: 'Running, or at a cold start.',
    },
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
      label: 'Housing then at',
      quantity: 'temperature',
      min: -60,
      max: 200,
      help: 'Running it is cooler than the shaft as a rule.',
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
    {
      kind: 'number',
      name: 'cupLoosens',
      label: 'The cups lose of their hold',
      quantity: 'length',
      help: 'In diameter: the housing grows more than a steel cup. Minus grips harder.',
    },
    { kind: 'text', name: 'what', label: 'So', longest: 300, help: 'What to see to.' },
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
  serves: [
    { at: 'build', families: ['drive axle with pinion and carrier'], rank: 4 },
    { at: 'setting', kinds: ['end-play', 'depth'], methods: ['locknut'], rank: 2 },
    { at: 'setting', kinds: ['end-play', 'depth'], methods: ['shims'], rank: 2, butNot: ['drive axle with pinion and carrier'] },
  ],
  example: { setting: '0.15 mm', k1: 1.5, d1: 60, apart: 180, shaftT: 90, housingT: 70, housingOf: 'steel' },
  compute(input) {
    const grows = EXPANSION[input.shaftOf] * (input.shaftT - input.coldT) - EXPANSION[input.housingOf] * (input.housingT - input.coldT);
    const cot = (k: number): number => k / K_PER_COT;
    const radial = grows * ((cot(input.k1) * input.d1) / 2 + (cot(input.k2 ?? input.k1) * (input.d2 ?? input.d1)) / 2);
    const axial = grows * input.apart * (input.arrangement === 'face-to-face' ? 1 : -1);
    const loses = radial + axial;
    const cold = input.ask === 'cold' ? input.setting : input.setting + loses;
    // The cup follows its housing's temperature, and is of steel.
    const cupLoosens =
      (EXPANSION[input.housingOf] - EXPANSION.steel) * (input.housingT - input.coldT) * Math.max(input.d1, input.d2 ?? input.d1);
    return ok({ hot: cold - loses, cold, loses, radial, axial, cupLoosens, what: whatToSeeTo(input, cold - loses, cupLoosens) });
  },
  explain: (input, output) => [
    { say: 'Across: cones swell into their cups.', formula: 'g·(cot α1·D1/2 + cot α2·D2/2)', numbers: microns(output.radial) },
    {
      say: `Along: ${input.arrangement === 'face-to-face' ? 'the shaft pushes the cones together' : 'the shaft draws the cones apart'}.`,
      formula: '± g·L',
      numbers: microns(output.axial),
    },
    { say: output.what, formula: '(α housing − α steel)·ΔT·D', numbers: microns(output.cupLoosens) },
    { say: 'Then it is what it was less both.', numbers: `${mm(output.cold)} − ${mm(output.loses)} = ${mm(output.hot)}` },
  ],
});

interface Then {
  readonly shaftT: number;
  readonly housingT: number;
  readonly coldT: number;
  readonly housingOf: keyof typeof EXPANSION;
}

/** A cup that loses no more than this holds on as it did, mm. */
const LITTLE_HOLD_MM = 0.005;

function whatToSeeTo({ shaftT, housingT, coldT, housingOf }: Then, then: number, cupLoosens: number): string {
  const isColdStart = shaftT < coldT && housingT < coldT;
  const state = then < 0 ? `${mm(-then)} of preload as travel` : `${mm(then)} of play`;
  const words = [
    isColdStart ? `At a cold start there is ${state}.` : `Running there is ${state}.`,
    ...(cupLoosens > LITTLE_HOLD_MM
      ? [`The cups come loose in the hot housing unless they go in with more than ${microns(cupLoosens)} of interference.`]
      : []),
    ...(housingOf === 'aluminium' && !isColdStart ? ['In aluminium the coldest start is the tightest: work that out, too.'] : []),
  ];
  return words.join(' ');
}
