import { zoneAt } from '../fits/zones.js';
import { between } from '../math/between.js';
import { VERDICT, worstOf, type Verdict } from '../measuring/verdict-field.js';
import { celsius, megapascals, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Speed under the lip that a material stands with oil on it, m/s: DIN 3760 and makers' tables, from memory. */
const SPEEDS = { NBR: 14, HNBR: 16, ACM: 20, FKM: 35, VMQ: 30, PTFE: 30 } as const;
type LipMaterial = keyof typeof SPEEDS;
/** Grease carries less heat away. */
const GREASED = 0.5;
/** A lip that has a dust lip beside it runs warmer. */
const DUST_LIP_MOST = 8;

/** Pressure that an ordinary lip stands, MPa, by its speed, m/s: DIN 3760, from memory. */
const PRESSURES: readonly (readonly [speed: number, pressure: number])[] = [
  [2.8, 0.05],
  [3.15, 0.035],
  [5.6, 0.02],
];

/** Run-out that a lip of nitrile follows, mm, by speed of the shaft, rpm: makers' charts, from memory; others follow somewhat less. */
const RUN_OUTS: readonly (readonly [rpm: number, runOut: number])[] = [
  [0, 0.35],
  [1000, 0.25],
  [2000, 0.2],
  [3000, 0.16],
  [4000, 0.13],
  [6000, 0.1],
];

/** By how much the middle of the shaft may lie beside that of the bore, mm, by the shaft: chart of DIN 3760, from memory. */
const OFFSETS: readonly (readonly [shaft: number, offset: number])[] = [
  [10, 0.12],
  [40, 0.2],
  [80, 0.28],
  [120, 0.33],
  [200, 0.4],
  [400, 0.5],
];

/** Linear expansion per kelvin: rubber of a lip and steel of a shaft; handbook values, from memory. */
const RUBBER_PER_K = 1.8e-4;
const STEEL_PER_K = 1.15e-5;
const BENCH_C = 20;

/** Surface under a lip: DIN 3760, from memory. */
const RA = { from: 0.2, to: 0.8 } as const;
const HARDNESS_LEAST = 45;
/** From this speed on, and where dirt comes to it. */
const HARD_SPEED = 4;
const HARDNESS_FAST = 55;

/** Speed of a shaft's surface, m/s, from its diameter, mm, and its speed, rpm. */
export function surfaceSpeed(diameter: number, rpm: number): number {
  return (Math.PI * diameter * rpm) / 60_000;
}

/**
 * Does this lip seal live on this shaft?
 *
 * Surface speed v = π·d·n against what the material stands, pressure against what an ordinary lip stands at that speed,
 * run-out against what it follows, roughness 0.2 to 0.8 µm, 45 HRC (55 from 4 m/s on or in dirt), shaft h11 and bore H8
 * (DIN 3760, ISO 6194-1). How far the shaft lies beside the middle, and what is left of the lip's grip when it is warm: rubber grows
 * fifteen times as much as steel. Only what was measured is judged; a shaft with a lead of machining pumps oil out whatever its figures.
 *
 * Example: 40 mm at 3000 rpm: 6.3 m/s, right for NBR in oil.
 */
export const lip = defineWorking({
  id: 'seal.lip',
  title: 'Does this lip seal live on this shaft?',
  area: 'seals',
  inputs: [
    {
      kind: 'number',
      name: 'shaft',
      label: 'Shaft',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 500,
      help: 'Nominal size, as the seal has it.',
    },
    { kind: 'number', name: 'speed', label: 'Turns at', quantity: 'speed', min: 0, max: 60_000, help: 'The most it does.' },
    {
      kind: 'choice',
      name: 'material',
      label: 'Lip of',
      default: 'NBR',
      choices: (Object.keys(SPEEDS) as LipMaterial[]).map((id) => ({ id, label: id })),
      help: 'As printed on it.',
    },
    {
      kind: 'choice',
      name: 'wet',
      label: 'It is wet with',
      default: 'oil',
      choices: [
        { id: 'oil', label: 'oil' },
        { id: 'grease', label: 'grease' },
      ],
      help: 'Grease carries less heat away.',
    },
    {
      kind: 'choice',
      name: 'dust',
      label: 'Dust lip',
      default: 'no',
      choices: [
        { id: 'no', label: 'none' },
        { id: 'yes', label: 'has one, greased' },
        { id: 'dry', label: 'has one, dry' },
      ],
      help: 'The room between the lips is half filled with grease.',
    },
    {
      kind: 'number',
      name: 'pressure',
      label: 'Pressure behind it',
      quantity: 'pressure',
      min: 0,
      max: 10,
      default: 0,
      help: 'A blocked breather makes some.',
    },
    {
      kind: 'number',
      name: 'measured',
      label: 'Shaft, as measured',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      help: 'Beside the track.',
    },
    {
      kind: 'number',
      name: 'bore',
      label: 'Bore of the seal',
      quantity: 'length',
      above: 0,
      max: 600,
      optional: true,
      help: 'Outside of the seal, as its size says.',
    },
    {
      kind: 'number',
      name: 'boreMeasured',
      label: 'Bore, as measured',
      quantity: 'length',
      above: 0,
      max: 600,
      optional: true,
      help: 'Where the seal sits.',
    },
    {
      kind: 'number',
      name: 'runOut',
      label: 'Run-out',
      quantity: 'length',
      min: 0,
      max: 5,
      optional: true,
      help: 'Dial on the track, once round.',
    },
    {
      kind: 'number',
      name: 'offset',
      label: 'Shaft beside the middle',
      quantity: 'length',
      min: 0,
      max: 5,
      optional: true,
      help: 'Of the bore: half of what a dial on the shaft shows once round the bore.',
    },
    {
      kind: 'number',
      name: 'free',
      label: 'Lip inside, off the shaft',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      help: 'With its spring on: a taper gauge or the calliper’s tips, not pressed.',
    },
    {
      kind: 'number',
      name: 'warmest',
      label: 'Warmest',
      quantity: 'temperature',
      min: -40,
      max: 250,
      default: 90,
      help: 'At the lip: some 20 K over the oil at speed. For what the lip keeps of its grip.',
    },
    {
      kind: 'number',
      name: 'between',
      label: 'From lip to dust lip',
      quantity: 'length',
      above: 0,
      max: 30,
      optional: true,
      onlyFor: { field: 'dust', choices: ['yes', 'dry'] },
      help: 'Along the shaft; with the next one it says how much grease.',
    },
    {
      kind: 'number',
      name: 'high',
      label: 'Room between them, high',
      quantity: 'length',
      above: 0,
      max: 30,
      optional: true,
      onlyFor: { field: 'dust', choices: ['yes', 'dry'] },
      help: 'From the shaft up.',
    },
    {
      kind: 'number',
      name: 'ra',
      label: 'Roughness Ra',
      quantity: 'length',
      min: 0,
      max: 0.1,
      optional: true,
      help: 'In µm, by a comparison plate.',
    },
    {
      kind: 'number',
      name: 'hrc',
      label: 'Hardness, HRC',
      quantity: 'count',
      min: 10,
      max: 70,
      optional: true,
      help: 'A file that bites says under 45.',
    },
    {
      kind: 'choice',
      name: 'lead',
      label: 'Lead of machining',
      default: 'not looked at',
      choices: [
        { id: 'not looked at', label: 'not looked at' },
        { id: 'none', label: 'thread with a weight stays where it is' },
        { id: 'some', label: 'thread with a weight walks' },
      ],
      help: 'A thread with a weight over the slowly turning, oiled shaft: whichever way it turns, it stays.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'surface', label: 'Surface speed, m/s', quantity: 'ratio', help: 'Under the lip.' },
    { kind: 'number', name: 'surfaceMost', label: 'The material stands, m/s', quantity: 'ratio', help: 'With what it is wet with.' },
    { kind: 'text', name: 'what', label: 'What is off', longest: 600, help: 'And what would be right.' },
    {
      kind: 'table',
      name: 'each',
      label: 'One by one',
      columns: [
        { name: 'of', label: 'of', quantity: 'text' },
        { name: 'verdict', label: 'verdict', quantity: 'text' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'What was given.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'DIN 3760', for: 'speed, pressure, roughness, hardness', fromMemory: true },
    { kind: 'standard', document: 'ISO 6194-1', for: 'shaft h11, bore H8', fromMemory: true },
    { kind: 'derivation', document: 'lip and shaft, each grown by its heat; half of the room between two lips', for: 'grip and grease' },
    { kind: 'common practice', document: 'thread and weight on the turning shaft', for: 'lead of machining' },
  ],
  cautions: ['A shaft that turns takes sleeves, thread and fingers with it: the lead is tried by hand, slowly.'],
  serves: [{ at: 'seal', kinds: ['lip-seal'], rank: 2, preset: { shaft: 'seal.shaft', bore: 'seal.bore', material: 'seal.material' } }],
  example: { shaft: 40, speed: 3000, material: 'NBR', runOut: 0.06, measured: 39.95 },
  compute(input) {
    const { shaft, speed, material, wet, dust, pressure } = input;
    const surface = surfaceSpeed(shaft, speed);
    const surfaceMost = Math.min(SPEEDS[material] * (wet === 'grease' ? GREASED : 1), dust === 'no' ? Infinity : DUST_LIP_MOST);
    if (input.bore !== undefined && input.bore <= shaft)
      return refuse({ code: 'too-small', field: 'bore', received: mm(input.bore), bound: `more than the shaft, ${mm(shaft)}` });
    const each: { of: string; verdict: Verdict; why: string }[] = [];
    const judge = (of: string, isIn: boolean, why: string): void => void each.push({ of, verdict: isIn ? 'in' : 'out', why });
    judge(
      'speed',
      surface <= surfaceMost,
      `${surface.toFixed(1)} m/s, ${material} stands ${surfaceMost.toFixed(1)} m/s${wet === 'grease' ? ' in grease' : ''}`,
    );
    if (pressure > 0) {
      const most = PRESSURES.find(([upTo]) => surface <= upTo)?.[1] ?? PRESSURES.at(-1)![1];
      judge(
        'pressure',
        pressure <= most,
        `${megapascals(pressure)}, an ordinary lip stands ${megapascals(most)} at that speed: clear the breather`,
      );
    }
    if (dust === 'dry') judge('dust lip', false, 'dry it burns: half fill the room between the lips with grease');
    if (input.measured !== undefined) {
      const { lower, upper } = zoneLimits('h11', shaft);
      judge('shaft', input.measured >= lower && input.measured <= upper, `${mm(input.measured)}, h11 is ${mm(lower)} to ${mm(upper)}`);
    }
    if (input.bore !== undefined && input.boreMeasured !== undefined) {
      const { lower, upper } = zoneLimits('H8', input.bore);
      judge(
        'bore',
        input.boreMeasured >= lower && input.boreMeasured <= upper,
        `${mm(input.boreMeasured)}, H8 is ${mm(lower)} to ${mm(upper)}: one with rubber outside forgives a little more`,
      );
    }
    if (input.runOut !== undefined) {
      const most = between(RUN_OUTS, speed);
      judge('run-out', input.runOut <= most, `${mm(input.runOut)}, a lip follows ${mm(most)} at that speed`);
    }
    if (input.offset !== undefined) {
      const most = between(OFFSETS, shaft);
      judge(
        'beside the middle',
        input.offset <= most,
        `${mm(input.offset)}, ${mm(most)} is the most for that shaft: one side wears, the other lets through`,
      );
    }
    if (input.free !== undefined) {
      const grip = gripOf(input.free, shaft, input.warmest);
      const asked = 2 * (input.offset ?? 0) + (input.runOut ?? 0);
      judge(
        'grip',
        grip.cold > 0 && grip.warm > asked,
        `${mm(grip.cold)} smaller than the shaft cold, ${mm(grip.warm)} at ${celsius(input.warmest)}; it has to follow ${mm(asked)}`,
      );
    }
    if (input.between !== undefined && input.high !== undefined && dust !== 'no') {
      const grease = (Math.PI * (shaft + input.high) * input.between * input.high) / 2 / 1000;
      judge('grease', dust === 'yes', `${grease.toFixed(1)} mL fills half the room between the lips; more is pushed out or lifts the lip`);
    }
    if (input.ra !== undefined)
      judge(
        'roughness',
        input.ra * 1000 >= RA.from && input.ra * 1000 <= RA.to,
        `Ra ${(input.ra * 1000).toFixed(2)} µm, ${RA.from} to ${RA.to} µm is right: smoother starves the lip, rougher wears it`,
      );
    if (input.hrc !== undefined) {
      const least = surface > HARD_SPEED ? HARDNESS_FAST : HARDNESS_LEAST;
      judge('hardness', input.hrc >= least, `${input.hrc} HRC, ${least} is the least at that speed: softer takes a groove`);
    }
    if (input.lead !== 'not looked at')
      judge('lead', input.lead === 'none', input.lead === 'none' ? 'none' : 'it pumps one way: plunge-grind it, or a sleeve');
    const off = each.filter(({ verdict }) => verdict !== 'in');
    return ok({
      verdict: worstOf(each.map(({ verdict }) => verdict)),
      surface,
      surfaceMost,
      what: off.length > 0 ? off.map(({ of, why }) => `${of}: ${why}`).join('; ') : 'nothing of what was given',
      each,
    });
  },
  explain: (input, output) => [
    { say: 'Speed under the lip.', formula: 'v = π·d·n/60 000', numbers: `${output.surface.toFixed(2)} m/s` },
    ...output.each.map((row) => ({ say: `${String(row['of'])}: ${String(row['verdict'])}.`, numbers: String(row['why']) })),
    ...(input.lead === 'not looked at' ? [{ say: 'Lead was not looked at: a thread with a weight over the turning shaft tells it.' }] : []),
  ],
});

/** How much smaller than its shaft a lip is, mm, on the bench and warm: rubber grows more than the shaft does. */
function gripOf(free: number, shaft: number, warmest: number): { readonly cold: number; readonly warm: number } {
  const by = warmest - BENCH_C;
  return { cold: shaft - free, warm: shaft * (1 + STEEL_PER_K * by) - free * (1 + RUBBER_PER_K * by) };
}

/** Ends of a zone of ISO 286, mm; none where the size is beyond its tables. */
function zoneLimits(zone: string, nominal: number): { readonly lower: number; readonly upper: number } {
  const { lower = -Infinity, upper = Infinity } = zoneAt(zone, nominal) ?? {};
  return { lower: nominal + lower / 1000, upper: nominal + upper / 1000 };
}
