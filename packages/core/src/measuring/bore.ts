import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';
import { VERDICT, worstOf, type Verdict } from './verdict-field.js';
import { judge } from './verdict.js';

/**
 * Is the bore round, straight and in size?
 *
 * Two diameters square to each other at each depth. Out-of-round is the larger less the smaller at
 * one depth (a two-point figure: a lobed bore hides from it), taper the largest less the smallest
 * along the bore in one direction. Sizes are judged at their worst place, each with the tool's
 * uncertainty u, a difference of two readings with u·√2.
 *
 * Example: 85.012/85.004, 85.010/85.005, 85.002/85.001 is 0.008 mm out of round with 0.010 mm taper.
 */
export const bore = defineWorking({
  id: 'measure.bore',
  title: 'Is the bore round, straight and in size?',
  area: 'measuring',
  inputs: [
    {
      kind: 'table',
      name: 'readings',
      label: 'Readings',
      columns: [
        { name: 'depth', label: 'depth', quantity: 'length' },
        { name: 'along', label: 'along', quantity: 'length' },
        { name: 'across', label: 'across', quantity: 'length' },
      ],
      fewest: 1,
      most: 24,
      help: 'One line for each depth: depth, diameter along the machine, diameter across it.',
    },
    {
      kind: 'number',
      name: 'lower',
      label: 'Least diameter',
      quantity: 'length',
      above: 0,
      max: 5000,
      optional: true,
      help: 'Where the sheet has one.',
    },
    {
      kind: 'number',
      name: 'upper',
      label: 'Most diameter',
      quantity: 'length',
      above: 0,
      max: 5000,
      optional: true,
      help: 'Where the sheet has one.',
    },
    {
      kind: 'number',
      name: 'mostOutOfRound',
      label: 'Most out-of-round',
      quantity: 'length',
      min: 0,
      max: 10,
      optional: true,
      help: 'As a difference of diameters.',
    },
    {
      kind: 'number',
      name: 'mostTaper',
      label: 'Most taper',
      quantity: 'length',
      min: 0,
      max: 10,
      optional: true,
      help: 'As a difference of diameters over the depths measured.',
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
      help: 'Standard uncertainty (k = 1) of one diameter.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'largest', label: 'Largest', quantity: 'length', help: 'Of all diameters.' },
    { kind: 'number', name: 'smallest', label: 'Smallest', quantity: 'length', help: 'Of all diameters.' },
    {
      kind: 'number',
      name: 'outOfRound',
      label: 'Out-of-round',
      quantity: 'length',
      help: 'Largest difference of the two diameters of one depth.',
    },
    { kind: 'number', name: 'taper', label: 'Taper', quantity: 'length', help: 'Largest difference along the bore in one direction.' },
    { kind: 'text', name: 'shape', label: 'Shape', longest: 200, help: 'What the readings look like.' },
  ],
  sources: [
    { kind: 'derivation', document: 'differences of two-point diameters', for: 'out-of-round and taper as the trade measures them' },
    { kind: 'standard', document: 'ISO 14253-1', edition: '2017', for: 'the verdict on each', fromMemory: true },
  ],
  cautions: ['A two-point gauge cannot see a bore with three lobes: turn it through more directions when a round bore leaks or scuffs.'],
  example: {
    readings: [
      { depth: 10, along: 85.012, across: 85.004 },
      { depth: 45, along: 85.01, across: 85.005 },
      { depth: 80, along: 85.002, across: 85.001 },
    ],
    upper: 85.03,
    mostOutOfRound: 0.015,
    mostTaper: 0.02,
  },
  compute(input) {
    const rows = [...input.readings].map((row) => ({
      depth: Number(row['depth']),
      along: Number(row['along']),
      across: Number(row['across']),
    }));
    rows.sort((one, other) => one.depth - other.depth);
    const all = rows.flatMap(({ along, across }) => [along, across]);
    const largest = Math.max(...all);
    const smallest = Math.min(...all);
    const outOfRound = Math.max(...rows.map(({ along, across }) => Math.abs(along - across)));
    const taper = Math.max(spanOf(rows.map(({ along }) => along)), spanOf(rows.map(({ across }) => across)));
    const ofTwo = input.toolU * Math.SQRT2;
    const verdicts: Verdict[] = [];
    if (input.upper !== undefined) verdicts.push(judge(largest, input.toolU, { upper: input.upper }));
    if (input.lower !== undefined) verdicts.push(judge(smallest, input.toolU, { lower: input.lower }));
    if (input.mostOutOfRound !== undefined) verdicts.push(judge(outOfRound, ofTwo, { upper: input.mostOutOfRound }));
    if (input.mostTaper !== undefined) verdicts.push(judge(taper, ofTwo, { upper: input.mostTaper }));
    return ok({
      verdict: worstOf(verdicts),
      largest,
      smallest,
      outOfRound,
      taper,
      shape: shapeOf(
        rows.map(({ along, across }) => (along + across) / 2),
        ofTwo,
      ),
    });
  },
  explain(input, output) {
    const mm = (length: number): string => formatQuantity(length, 'length');
    return [
      { say: 'The largest and the smallest of all diameters.', numbers: `${mm(output.smallest)} to ${mm(output.largest)}` },
      {
        say: 'Out-of-round: at each depth the two directions against each other, the worst counts.',
        formula: 'max |along − across|',
        numbers: mm(output.outOfRound),
      },
      {
        say: 'Taper: along the bore in each direction, the worse counts.',
        formula: 'max − min of one direction',
        numbers: mm(output.taper),
      },
      {
        say: `Each limit is judged with the tool's ${mm(input.toolU)}, a difference of two readings with √2 of it: ${output.verdict}. ${output.shape}`,
      },
    ];
  },
  draw: (input) => ({
    kind: 'chart',
    x: 'depth, mm',
    y: 'diameter, mm',
    lines: (['along', 'across'] as const).map((direction) => ({
      name: direction,
      points: input.readings.map((row) => [Number(row['depth']), Number(row[direction])] as const).sort(([one], [other]) => one - other),
    })),
    levels: [input.lower, input.upper].flatMap((at) => (at === undefined ? [] : [{ name: 'limit', at }])),
  }),
});

export function spanOf(figures: readonly number[]): number {
  return Math.max(...figures) - Math.min(...figures);
}

/** The shape along the bore; differences within what the tool can tell make none. */
function shapeOf(means: readonly number[], telling: number): string {
  if (means.length < 3) return 'Measure at three depths or more to see the shape along the bore.';
  const [first, last] = [means[0]!, means.at(-1)!];
  const middle = means[Math.floor(means.length / 2)]!;
  if (spanOf(means) <= telling) return 'Straight, as far as this tool can tell.';
  if (middle > Math.max(first, last) + telling / 2) return 'Barrel: widest in the middle.';
  if (middle < Math.min(first, last) - telling / 2) return 'Waisted: narrowest in the middle.';
  return first > last ? 'Cone, wider at the first depth.' : 'Cone, wider at the last depth.';
}
