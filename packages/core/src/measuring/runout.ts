import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';
import { spanOf } from './bore.js';
import { VERDICT } from './verdict-field.js';
import { judge } from './verdict.js';

/**
 * How far does it run out, where is the high spot, and is it off centre or out of shape?
 *
 * n readings at equal angles, the first at 0°. First harmonic by least squares:
 * a = 2/n·Σ r·cos θ, b = 2/n·Σ r·sin θ, eccentricity e = √(a² + b²), high spot at atan2(b, a). The
 * total indicator reading of a pure offset is 2e. What is left after the mean and the first
 * harmonic are taken away is the shape of the surface itself.
 *
 * Example: 12 readings of 0.05·cos(θ − 90°) mm run out 0.10 mm, high at 90°.
 */
export const runout = defineWorking({
  id: 'measure.runout',
  title: 'How far does it run out, and where is the high spot?',
  area: 'measuring',
  inputs: [
    {
      kind: 'list',
      name: 'readings',
      label: 'Readings',
      quantity: 'length',
      fewest: 4,
      most: 72,
      min: -50,
      max: 50,
      help: 'At equal angles over one turn, every 30° for twelve; the first at 0°, the last one before it closes.',
    },
    {
      kind: 'number',
      name: 'most',
      label: 'Most runout',
      quantity: 'length',
      above: 0,
      max: 50,
      optional: true,
      help: 'Total indicator reading that is allowed.',
    },
    {
      kind: 'number',
      name: 'toolU',
      label: 'Uncertainty of the tool',
      symbol: 'u',
      quantity: 'length',
      min: 0,
      max: 1,
      default: 0.002,
      help: 'Standard uncertainty (k = 1) of one reading.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'tir', label: 'Runout', symbol: 'TIR', quantity: 'length', help: 'Largest less smallest reading.' },
    { ...VERDICT, optional: true },
    {
      kind: 'number',
      name: 'eccentricity',
      label: 'Off centre by',
      symbol: 'e',
      quantity: 'length',
      help: 'Amplitude of the first harmonic.',
    },
    { kind: 'number', name: 'highAt', label: 'High spot at', quantity: 'angle', help: 'From the first reading, the way the readings go.' },
    {
      kind: 'number',
      name: 'residual',
      label: 'Left after centring',
      quantity: 'length',
      help: 'Largest less smallest of what the offset does not explain.',
    },
    { kind: 'text', name: 'what', label: 'What it is', longest: 200, help: 'Off centre, out of shape, or both.' },
  ],
  sources: [
    {
      kind: 'derivation',
      document: 'least-squares first harmonic of equally spaced readings (discrete Fourier transform)',
      for: 'eccentricity and high spot',
    },
    {
      kind: 'standard',
      document: 'ISO 1101',
      edition: '2017',
      clause: 'circular run-out',
      for: 'runout as the full movement of the indicator',
      fromMemory: true,
    },
  ],
  cautions: ['Hold the part endwise: axial movement reads as runout on a face.'],
  example: { readings: [0, 0.025, 0.043, 0.05, 0.043, 0.025, 0, -0.025, -0.043, -0.05, -0.043, -0.025], most: 0.15 },
  compute(input) {
    const n = input.readings.length;
    const mean = input.readings.reduce((sum, reading) => sum + reading, 0) / n;
    const angle = (index: number): number => (2 * Math.PI * index) / n;
    const a = (2 / n) * input.readings.reduce((sum, reading, index) => sum + reading * Math.cos(angle(index)), 0);
    const b = (2 / n) * input.readings.reduce((sum, reading, index) => sum + reading * Math.sin(angle(index)), 0);
    const eccentricity = Math.hypot(a, b);
    const residual = spanOf(
      input.readings.map((reading, index) => reading - mean - a * Math.cos(angle(index)) - b * Math.sin(angle(index))),
    );
    const tir = spanOf(input.readings);
    const ofTwo = input.toolU * Math.SQRT2;
    return ok({
      tir,
      verdict: input.most === undefined ? undefined : judge(tir, ofTwo, { upper: input.most }),
      eccentricity,
      highAt: ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360,
      residual,
      what: whatItIs(eccentricity, residual, ofTwo),
    });
  },
  explain(_input, output) {
    const mm = (length: number): string => formatQuantity(length, 'length');
    return [
      { say: 'Runout is the whole movement of the indicator.', formula: 'TIR = max − min', numbers: mm(output.tir) },
      {
        say: 'The offset that fits the readings best.',
        formula: 'a = 2/n·Σ r·cos θ, b = 2/n·Σ r·sin θ, e = √(a² + b²)',
        numbers: `e = ${mm(output.eccentricity)} (alone it would read ${mm(2 * output.eccentricity)}), high at ${formatQuantity(output.highAt, 'angle')}`,
      },
      { say: `What the offset does not explain. ${output.what}`, numbers: mm(output.residual) },
    ];
  },
  draw: (input, output) => ({
    kind: 'round',
    readings: input.readings,
    highAt: output.highAt,
    eccentricity: output.eccentricity,
  }),
});

function whatItIs(eccentricity: number, residual: number, telling: number): string {
  if (2 * eccentricity <= telling && residual <= telling) return 'True, as far as this tool can tell.';
  if (residual <= Math.max(telling, eccentricity * 0.5)) return 'Off centre: the seat, the fit or a bend, not the surface.';
  return 2 * eccentricity < residual ? 'Out of shape: the surface itself, centring it will not help.' : 'Both off centre and out of shape.';
}
