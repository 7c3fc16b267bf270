import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';

/** Mean moving range of two over sigma, for normal figures: d2 of two. */
const D2 = 1.128;
/** Upper limit of a moving range of two over its mean: 1 + 3·d3/d2. */
const D4 = 3.267;
const RUN = 8;

/**
 * Is the work steady, or has something changed?
 *
 * Individuals chart: limits mean ± 3·MR/1.128, MR the mean of the moving ranges of two. A figure
 * outside is a signal, and so are eight running on one side of the mean. Order is the order of work.
 *
 * Example: the ten flow rates of the handbook have mean 50.81, limits 55.804 and 45.816.
 */
export const xmr = defineWorking({
  id: 'quality.xmr',
  title: 'Is the work steady, or has something changed?',
  area: 'quality',
  inputs: [
    {
      kind: 'list',
      name: 'figures',
      label: 'Figures',
      quantity: 'ratio',
      fewest: 3,
      most: 1000,
      min: -1e9,
      max: 1e9,
      help: 'In the order of the work, all in one unit.',
    },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'steady',
      label: 'The work is',
      choices: [
        { id: 'steady', label: 'steady' },
        { id: 'changed', label: 'changed' },
      ],
      help: 'Changed when there is any signal.',
    },
    { kind: 'number', name: 'mean', label: 'Mean', quantity: 'ratio', help: 'Of all figures.' },
    { kind: 'number', name: 'upper', label: 'Upper limit', quantity: 'ratio', help: 'Of what the work does by itself.' },
    { kind: 'number', name: 'lower', label: 'Lower limit', quantity: 'ratio', help: 'Of what the work does by itself.' },
    { kind: 'number', name: 'movingRange', label: 'Mean moving range', quantity: 'ratio', help: 'Of neighbours.' },
    {
      kind: 'number',
      name: 'rangeLimit',
      label: 'Limit of the moving range',
      quantity: 'ratio',
      help: 'A larger step between neighbours is a signal.',
    },
    { kind: 'text', name: 'signals', label: 'Signals', longest: 500, help: 'Which figures, and why.' },
  ],
  sources: [
    {
      kind: 'handbook',
      document: 'NIST/SEMATECH e-Handbook of Statistical Methods',
      clause: '6.3.2.2',
      for: 'individuals chart and its worked example',
    },
    { kind: 'common practice', document: 'rule of eight running on one side', for: 'the second signal' },
  ],
  cautions: ['The limits say what the work does, not what the sheet allows.'],
  example: { figures: [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1] },
  compute({ figures }) {
    const mean = figures.reduce((sum, figure) => sum + figure, 0) / figures.length;
    const ranges = figures.slice(1).map((figure, index) => Math.abs(figure - figures[index]!));
    const movingRange = ranges.reduce((sum, range) => sum + range, 0) / ranges.length;
    const reach = (3 * movingRange) / D2;
    const [lower, upper] = [mean - reach, mean + reach];
    const rangeLimit = D4 * movingRange;
    const signals = [
      ...figures.flatMap((figure, index) => (figure > upper || figure < lower ? [`${index + 1} is outside`] : [])),
      ...ranges.flatMap((range, index) => (range > rangeLimit ? [`the step from ${index + 1} to ${index + 2} is large`] : [])),
      ...runsOf(figures, mean),
    ];
    return ok({
      steady: signals.length === 0 ? 'steady' : 'changed',
      mean,
      upper,
      lower,
      movingRange,
      rangeLimit,
      signals: signals.length === 0 ? 'none' : signals.join('; ').slice(0, 500),
    });
  },
  explain(_input, output) {
    const write = (figure: number): string => formatQuantity(figure, 'ratio');
    return [
      { say: 'Mean of the figures, and of the steps between neighbours.', numbers: `${write(output.mean)}, ${write(output.movingRange)}` },
      {
        say: 'Limits of what the work does by itself.',
        formula: 'mean ± 3 · MR / 1.128',
        numbers: `${write(output.lower)} to ${write(output.upper)}`,
      },
      { say: `Signals: ${output.signals}.` },
    ];
  },
  draw: (input, output) => ({
    kind: 'chart',
    x: 'job',
    y: 'figure',
    lines: [{ name: 'figures', points: input.figures.map((figure, index) => [index + 1, figure] as const) }],
    levels: [
      { name: 'upper', at: output.upper },
      { name: 'mean', at: output.mean },
      { name: 'lower', at: output.lower },
    ],
  }),
});

/** Runs of eight or more on one side of the mean, in words. */
function runsOf(figures: readonly number[], mean: number): readonly string[] {
  const runs: string[] = [];
  let from = 0;
  figures.forEach((figure, index) => {
    const side = Math.sign(figure - mean);
    if (side !== Math.sign(figures[from]! - mean)) from = index;
    const goesOn = index + 1 < figures.length && Math.sign(figures[index + 1]! - mean) === side;
    if (side !== 0 && !goesOn && index - from + 1 >= RUN)
      runs.push(`${from + 1} to ${index + 1} are all ${side > 0 ? 'above' : 'below'} the mean`);
  });
  return runs;
}
