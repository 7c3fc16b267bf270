import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';

type Mesh = 'external' | 'internal' | 'bevel' | 'chain';
const MESHES: readonly Mesh[] = ['external', 'internal', 'bevel', 'chain'];
const MOST_TEETH = 2000;

interface Ratio {
  ratio: number;
  size: number;
  outputSpeed: number | undefined;
  hunting: 'hunting' | 'not hunting' | 'not asked';
  meetsAgain: number | undefined;
}

/**
 * What is the ratio of these gears?
 *
 * A train: i = Π (z_driven / z_driver), each external mesh turning the sense round; an idler
 * changes the sense and not the size. A planetary set with sun S and ring R (Willis): carrier
 * held −R/S, ring held 1 + R/S, sun held 1 + S/R, input at the sun, or at the ring when the sun
 * is held. i = input speed / output speed, signed. A pair hunts when its tooth counts share no
 * factor: each tooth then meets every other before it meets the same again.
 *
 * Example: ring gear 39, pinion 11 is 3.545, and hunts.
 */
export const ratio = defineWorking({
  id: 'gear.ratio',
  title: 'What is the ratio of these gears?',
  area: 'gears',
  inputs: [
    {
      kind: 'choice',
      name: 'kind',
      label: 'Gears',
      default: 'train',
      choices: [
        { id: 'train', label: 'pairs one after the other' },
        { id: 'planetary', label: 'a planetary set' },
      ],
      help: 'One pair is a train of one.',
    },
    {
      kind: 'table',
      name: 'stages',
      label: 'Pairs',
      optional: true,
      most: 12,
      columns: [
        { name: 'driver', label: 'Teeth of the driver', quantity: 'count' },
        { name: 'driven', label: 'Teeth of the driven', quantity: 'count' },
        { name: 'mesh', label: 'Mesh: external, internal, bevel or chain', quantity: 'text' },
      ],
      onlyFor: { field: 'kind', choices: ['train'] },
      help: 'In the order the power goes through; an idler is a row of its own.',
    },
    {
      kind: 'number',
      name: 'sun',
      label: 'Teeth of the sun',
      symbol: 'S',
      quantity: 'count',
      min: 5,
      max: MOST_TEETH,
      optional: true,
      onlyFor: { field: 'kind', choices: ['planetary'] },
      help: 'The gear in the middle.',
    },
    {
      kind: 'number',
      name: 'ring',
      label: 'Teeth of the ring',
      symbol: 'R',
      quantity: 'count',
      min: 5,
      max: MOST_TEETH,
      optional: true,
      onlyFor: { field: 'kind', choices: ['planetary'] },
      help: 'The gear round the outside.',
    },
    {
      kind: 'choice',
      name: 'held',
      label: 'Held',
      default: 'ring',
      choices: [
        { id: 'ring', label: 'the ring: sun in, carrier out' },
        { id: 'carrier', label: 'the carrier: sun in, ring out' },
        { id: 'sun', label: 'the sun: ring in, carrier out' },
      ],
      onlyFor: { field: 'kind', choices: ['planetary'] },
      help: 'What stands still.',
    },
    {
      kind: 'number',
      name: 'inputSpeed',
      label: 'Speed in',
      symbol: 'n',
      quantity: 'speed',
      min: 0,
      max: 300000,
      optional: true,
      help: 'Left empty, no speed is worked out.',
    },
  ],
  outputs: [
    {
      kind: 'number',
      name: 'ratio',
      label: 'Ratio',
      symbol: 'i',
      quantity: 'ratio',
      help: 'Input speed over output speed; minus turns the other way.',
    },
    { kind: 'number', name: 'size', label: 'Ratio, whichever way', quantity: 'ratio', help: 'As a plate gives it, without the sense.' },
    { kind: 'number', name: 'outputSpeed', label: 'Speed out', quantity: 'speed', optional: true, help: 'Minus turns the other way.' },
    {
      kind: 'choice',
      name: 'hunting',
      label: 'Hunting',
      choices: [
        { id: 'hunting', label: 'hunting: every tooth meets every other' },
        { id: 'not hunting', label: 'not hunting: keep the marks in line' },
        { id: 'not asked', label: 'not asked: only of one pair' },
      ],
      help: 'A set that does not hunt goes back on its marks.',
    },
    {
      kind: 'number',
      name: 'meetsAgain',
      label: 'Same teeth meet after',
      quantity: 'count',
      optional: true,
      help: 'Turns of the driver until the same two teeth meet again.',
    },
  ],
  sources: [
    { kind: 'derivation', document: 'Equal speed where the pitch circles roll', for: 'the ratio of a train' },
    { kind: 'derivation', document: 'Willis’s equation of a planetary set', for: 'the planetary set' },
    { kind: 'common practice', document: 'Ring gear 39 and pinion 11 give 3.545', for: 'the check' },
  ],
  cautions: [],
  example: { stages: [{ driver: 11, driven: 39, mesh: 'bevel' }], inputSpeed: '2100 rpm' },
  compute(input): Result<Ratio> {
    if (input.kind === 'planetary') {
      const { sun, ring, held } = input;
      if (sun === undefined) return refuse({ code: 'required', field: 'sun', quantity: 'count' });
      if (ring === undefined) return refuse({ code: 'required', field: 'ring', quantity: 'count' });
      if (ring <= sun) return refuse({ code: 'too-small', field: 'ring', received: String(ring), bound: `more than the sun’s ${sun}` });
      const signed = held === 'carrier' ? -ring / sun : held === 'ring' ? 1 + ring / sun : 1 + sun / ring;
      return ok({ ...withSpeed(signed, input.inputSpeed), hunting: 'not asked', meetsAgain: undefined });
    }
    const stages = input.stages ?? [];
    if (stages.length === 0) return refuse({ code: 'required', field: 'stages' });
    let signed = 1;
    for (const [index, stage] of stages.entries()) {
      const at = (name: string): string => `stages[${index}].${name}`;
      for (const name of ['driver', 'driven'] as const) {
        const teeth = Number(stage[name]);
        if (teeth < 1) return refuse({ code: 'too-small', field: at(name), received: String(teeth), bound: '1' });
        if (teeth > MOST_TEETH) return refuse({ code: 'too-large', field: at(name), received: String(teeth), bound: String(MOST_TEETH) });
      }
      const mesh = MESHES.find((known) => known === String(stage['mesh']).trim().toLowerCase());
      if (!mesh) return refuse({ code: 'not-a-choice', field: at('mesh'), received: String(stage['mesh']), bound: MESHES.join(', ') });
      signed *= (Number(stage['driven']) / Number(stage['driver'])) * (mesh === 'external' ? -1 : 1);
    }
    const [only] = stages;
    const one = stages.length === 1 && only !== undefined;
    const shared = one ? gcd(Number(only['driver']), Number(only['driven'])) : 1;
    return ok({
      ...withSpeed(signed, input.inputSpeed),
      hunting: one ? (shared === 1 ? 'hunting' : 'not hunting') : 'not asked',
      meetsAgain: one ? Number(only['driven']) / shared : undefined,
    });
  },
  explain(input, output) {
    const steps = [
      input.kind === 'planetary'
        ? {
            say: `With the ${input.held} held.`,
            formula: input.held === 'carrier' ? 'i = −R/S' : input.held === 'ring' ? 'i = 1 + R/S' : 'i = 1 + S/R',
            numbers: `R = ${input.ring ?? ''}, S = ${input.sun ?? ''}: i = ${output.ratio.toFixed(4)}`,
          }
        : {
            say: 'Driven over driver, pair by pair; an external mesh turns the sense round.',
            formula: 'i = Π z_driven / z_driver',
            numbers: `${(input.stages ?? []).map((stage) => `${String(stage['driven'])}/${String(stage['driver'])}`).join(' · ')} = ${output.ratio.toFixed(4)}`,
          },
    ];
    if (output.outputSpeed !== undefined)
      steps.push({
        say: 'Speed out.',
        formula: 'n_out = n / i',
        numbers: `${formatQuantity(input.inputSpeed ?? 0, 'speed')} / ${output.ratio.toFixed(4)} = ${formatQuantity(output.outputSpeed, 'speed')}`,
      });
    return steps;
  },
});

function withSpeed(signed: number, speed: number | undefined): Pick<Ratio, 'ratio' | 'size' | 'outputSpeed'> {
  return { ratio: signed, size: Math.abs(signed), outputSpeed: speed === undefined ? undefined : speed / signed };
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}
