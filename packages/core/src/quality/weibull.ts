import { logGamma } from '../math/beta.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

const FEWEST_FAILURES = 2;
/** Standard deviations to each side of a 90 % confidence interval. */
const COVER_90 = 1.6449;
const B10_SHARE = 0.1;

interface Life {
  readonly hours: number;
  readonly failed: boolean;
}

/**
 * How long does it last, counting the ones that still run?
 *
 * Weibull distribution F(t) = 1 − exp(−(t/η)^β), by maximum likelihood with units still running
 * (censored on the right): 1/β = Σ t^β ln t / Σ t^β − (1/r)·Σ_failed ln t and
 * η = (Σ t^β / r)^(1/β), r the failures. Confidence 90 % from the Fisher information, on ln β
 * and ln η. B10 = η·(−ln 0.9)^(1/β).
 *
 * Example: ten failures of twenty up to 500 h have β = 1.72 and η = 607 h.
 */
export const weibull = defineWorking({
  id: 'quality.weibull',
  title: 'How long does it last, counting the ones that still run?',
  area: 'quality',
  inputs: [
    {
      kind: 'table',
      name: 'lives',
      label: 'Lives',
      columns: [
        { name: 'hours', label: 'hours', quantity: 'count' },
        { name: 'end', label: 'failed or runs', quantity: 'text' },
      ],
      fewest: 2,
      most: 1000,
      help: 'Running hours, and "failed" or "runs", one unit to a line.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'b10', label: 'One in ten has failed by', symbol: 'B10', quantity: 'ratio', help: 'In hours.' },
    {
      kind: 'number',
      name: 'shape',
      label: 'Shape',
      symbol: 'β',
      quantity: 'ratio',
      help: 'Under 1: early failures; near 1: by accident; over 1: wear.',
    },
    { kind: 'number', name: 'scale', label: 'Typical life', symbol: 'η', quantity: 'ratio', help: 'In hours; 63 % have failed by then.' },
    { kind: 'number', name: 'mean', label: 'Mean life', quantity: 'ratio', help: 'In hours.' },
    { kind: 'list', name: 'b10Range', label: 'B10, 90 % sure between', quantity: 'ratio', fewest: 2, most: 2, help: 'In hours.' },
    {
      kind: 'list',
      name: 'shapeRange',
      label: 'Shape, 90 % sure between',
      quantity: 'ratio',
      fewest: 2,
      most: 2,
      help: 'Wide with few failures.',
    },
    { kind: 'text', name: 'what', label: 'How they fail', longest: 200, help: 'From the shape.' },
  ],
  sources: [
    {
      kind: 'handbook',
      document: 'NIST/SEMATECH e-Handbook of Statistical Methods',
      clause: '8.4.1.2',
      for: 'maximum likelihood with censoring and its worked example',
      fromMemory: true,
    },
    { kind: 'derivation', document: 'observed Fisher information on ln β and ln η', for: 'the confidence' },
  ],
  cautions: ['A few failures say little about the shape: read the range beside it.'],
  example: {
    lives: [
      ...[54, 187, 216, 240, 244, 335, 361, 373, 375, 386].map((hours) => ({ hours, end: 'failed' })),
      ...Array.from({ length: 10 }, () => ({ hours: 500, end: 'runs' })),
    ],
  },
  compute(input) {
    const lives: Life[] = [];
    for (const [index, row] of input.lives.entries()) {
      const at = { field: `lives[${index}]`, label: `Lives, row ${index + 1}` };
      const end = String(row['end']).trim().toLowerCase();
      if (end !== 'failed' && end !== 'runs')
        return refuse({ code: 'not-a-choice', ...at, received: String(row['end']), bound: 'failed, runs' });
      if (Number(row['hours']) <= 0) return refuse({ code: 'too-small', ...at, received: String(row['hours']), bound: 'more than 0 h' });
      lives.push({ hours: Number(row['hours']), failed: end === 'failed' });
    }
    const failures = lives.filter(({ failed }) => failed);
    if (failures.length < FEWEST_FAILURES || new Set(failures.map(({ hours }) => hours)).size < FEWEST_FAILURES)
      return refuse({
        code: 'too-few',
        field: 'lives',
        received: `${failures.length} failed`,
        bound: `${FEWEST_FAILURES} failed at different hours`,
      });
    const fit = fitWeibull(lives);
    const { shape, scale } = fit;
    const quantile = (share: number): number => scale * (-Math.log(1 - share)) ** (1 / shape);
    const b10 = quantile(B10_SHARE);
    return ok({
      b10,
      shape,
      scale,
      mean: scale * gamma(1 + 1 / shape),
      b10Range: around(b10, fit.logQuantileSigma(B10_SHARE)),
      shapeRange: around(shape, fit.logShapeSigma),
      what:
        shape < 0.9
          ? 'Early failures: the work or the parts, not wear.'
          : shape <= 1.1
            ? 'By accident, at any age.'
            : 'Wear: the older, the likelier.',
    });
  },
  explain(_input, output) {
    const write = (hours: number): string => `${formatQuantity(Math.round(hours), 'count')} h`;
    return [
      {
        say: 'The shape under which these lives are likeliest.',
        formula: '1/β = Σ t^β ln t / Σ t^β − Σ_failed ln t / r',
        numbers: `β = ${output.shape.toFixed(3)} (${output.shapeRange.map((figure) => figure.toFixed(2)).join(' to ')})`,
      },
      { say: 'Its scale.', formula: 'η = (Σ t^β / r)^(1/β)', numbers: write(output.scale) },
      {
        say: 'The hours by which one in ten has failed.',
        formula: 'B10 = η · (−ln 0.9)^(1/β)',
        numbers: `${write(output.b10)} (${output.b10Range.map(write).join(' to ')})`,
      },
      { say: output.what },
    ];
  },
  draw(input, output) {
    const most = Math.max(...input.lives.map((row) => Number(row['hours'])));
    const failedBy = (hours: number): number => 1 - Math.exp(-((hours / output.scale) ** output.shape));
    return {
      kind: 'chart',
      x: 'hours',
      y: 'failed, share',
      lines: [
        {
          name: 'fit',
          points: Array.from({ length: 41 }, (_, index) => [(most * 1.2 * index) / 40, failedBy((most * 1.2 * index) / 40)] as const),
        },
        {
          name: 'failed',
          dots: true as const,
          points: medianRanks(
            input.lives.map((row) => ({ hours: Number(row['hours']), failed: String(row['end']).trim().toLowerCase() === 'failed' })),
          ),
        },
      ],
      levels: [{ name: '1 in 10', at: B10_SHARE }],
    };
  },
});

export interface WeibullFit {
  readonly shape: number;
  readonly scale: number;
  readonly logShapeSigma: number;
  logQuantileSigma(share: number): number;
}

/** Maximum likelihood; at least two failures at different hours, all hours above 0. */
export function fitWeibull(lives: readonly Life[]): WeibullFit {
  const failed = lives.filter((life) => life.failed).map(({ hours }) => Math.log(hours));
  const logs = lives.map(({ hours }) => Math.log(hours));
  const top = Math.max(...logs);
  const meanFailed = failed.reduce((sum, log) => sum + log, 0) / failed.length;
  // t^β over its largest, so that no power overflows.
  const powers = (shape: number): number[] => logs.map((log) => Math.exp(shape * (log - top)));
  const score = (shape: number): number => {
    const weights = powers(shape);
    const weight = weights.reduce((sum, one) => sum + one, 0);
    return weights.reduce((sum, one, index) => sum + one * logs[index]!, 0) / weight - 1 / shape - meanFailed;
  };
  // The score rises with the shape, so halving between two signs ends at its only root.
  let low = 1e-3;
  let high = 1;
  while (score(high) < 0 && high < 1e6) high *= 2;
  for (let step = 0; step < 200; step += 1) {
    const middle = (low + high) / 2;
    if (score(middle) < 0) low = middle;
    else high = middle;
  }
  const shape = (low + high) / 2;
  const logScale = top + Math.log(powers(shape).reduce((sum, one) => sum + one, 0) / failed.length) / shape;
  // Second derivatives of −ln L on a = ln η, b = ln β, at the maximum: z = β·(ln t − a).
  let aa = 0;
  let ab = 0;
  let bb = failed.length;
  for (const log of logs) {
    const z = shape * (log - logScale);
    const e = Math.exp(z);
    aa += shape * shape * e;
    ab -= shape * e * z;
    bb += e * z * z;
  }
  // At the maximum the terms of first order cancel: Σ e^z = r and Σ_failed z − Σ e^z·z = −r.
  const determinant = aa * bb - ab * ab;
  const [varA, varB, cov] = [bb / determinant, aa / determinant, -ab / determinant];
  return {
    shape,
    scale: Math.exp(logScale),
    logShapeSigma: Math.sqrt(varB),
    logQuantileSigma(share) {
      // ln t_p = a + w/β, w = ln(−ln(1 − p)); d/db of w·e^(−b) is −w/β.
      const slope = -Math.log(-Math.log(1 - share)) / shape;
      return Math.sqrt(Math.max(0, varA + slope * slope * varB + 2 * slope * cov));
    },
  };
}

function around(figure: number, logSigma: number): readonly number[] {
  return [figure * Math.exp(-COVER_90 * logSigma), figure * Math.exp(COVER_90 * logSigma)];
}

/** Where to draw the failures: product-limit ranks by Johnson, median rank by Benard. */
function medianRanks(lives: readonly Life[]): readonly (readonly [number, number])[] {
  const sorted = [...lives].sort((one, other) => one.hours - other.hours || Number(other.failed) - Number(one.failed));
  let rank = 0;
  return sorted.flatMap(({ hours, failed }, index) => {
    if (!failed) return [];
    rank += (sorted.length + 1 - rank) / (sorted.length - index + 1);
    return [[hours, (rank - 0.3) / (sorted.length + 0.4)] as const];
  });
}

/** Γ(x) for 1 ≤ x, through its logarithm. */
function gamma(x: number): number {
  return Math.exp(logGamma(x));
}
