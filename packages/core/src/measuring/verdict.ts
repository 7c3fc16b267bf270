import { formatQuantity } from '../quantity/format.js';
import type { Quantity } from '../quantity/units.js';
import { studentQuantile } from '../math/beta.js';
import { normalCdf } from '../math/normal.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { VERDICT, type Verdict } from './verdict-field.js';

/** Probability that ISO 14253-1 asks before a part is called in, or called out. */
const SURE = 0.95;
/** From this many readings their own spread is believed alone; below it the larger of theirs and the tool's. */
const ENOUGH_READINGS = 5;
const MOST_REPEATS = 30;
/** Standard uncertainties of a single reading that two readings of one thing may lie apart. Common practice. */
const APART_K = 6;
/** What a normal error stays under with 95 %. */
const NORMAL_95 = 1.6448536269514722;

interface Limits {
  readonly lower?: number | undefined;
  readonly upper?: number | undefined;
}

/**
 * Is the part in, out, or can this tool not tell?
 *
 * mean of n readings; u² = u_tool² + (f·s)²/n. From five readings on s is their own spread and f = 1;
 * under five s is the larger of their own and the tool's pooled spread, and where it is their own
 * f = t_0.95(n − 1)/1.645, Student's factor for so few. Readings that lie further apart than six
 * uncertainties of a single one contradict each other, and are unsure, unless each by itself is out
 * beyond the same limit. In when it is 95 % sure to be
 * inside both limits, out when it is 95 % sure to be beyond one of them, else unsure, whatever the
 * chance of being inside. The guard g·u that this draws inside a limit has g = 1.65 for wide
 * tolerances, 1.80 at a tolerance of 4u, and no acceptance zone under about 3.9u. Holds for readings
 * whose error is near enough normal. The '2u' rule keeps 2·u off each limit.
 *
 * Example: 50.012, 50.011 and 50.013 mm by a tool good to 0.002 mm, against at least 50.000 mm, are in.
 */
export const verdict = defineWorking({
  id: 'measure.verdict',
  title: 'Is it in, out, or can this tool not tell?',
  area: 'measuring',
  inputs: [
    {
      kind: 'choice',
      name: 'quantity',
      label: 'Measured',
      default: 'length',
      choices: [
        { id: 'length', label: 'a length' },
        { id: 'torque', label: 'a torque' },
        { id: 'force', label: 'a force' },
        { id: 'pressure', label: 'a pressure' },
        { id: 'angle', label: 'an angle' },
        { id: 'resistance', label: 'a resistance' },
        { id: 'voltage', label: 'a voltage' },
        { id: 'mass', label: 'a mass' },
        { id: 'current', label: 'a current' },
        { id: 'temperature', label: 'a temperature' },
        { id: 'speed', label: 'a speed' },
        { id: 'unbalance', label: 'an unbalance' },
        { id: 'volume', label: 'a volume' },
        { id: 'flow', label: 'a flow' },
        { id: 'time', label: 'a time' },
      ],
      help: 'What the readings are.',
    },
    {
      kind: 'list',
      name: 'readings',
      label: 'Readings',
      quantity: { from: 'quantity' },
      fewest: 1,
      most: 50,
      min: -1e10,
      max: 1e10,
      help: 'One or more, parted by blanks.',
    },
    {
      kind: 'number',
      name: 'lower',
      label: 'Lower limit',
      quantity: { from: 'quantity' },
      min: -1e10,
      max: 1e10,
      optional: true,
      help: 'Left empty when there is none.',
    },
    {
      kind: 'number',
      name: 'upper',
      label: 'Upper limit',
      quantity: { from: 'quantity' },
      min: -1e10,
      max: 1e10,
      optional: true,
      help: 'Left empty when there is none.',
    },
    {
      kind: 'number',
      name: 'toolU',
      label: 'Uncertainty of the tool',
      symbol: 'u',
      quantity: { from: 'quantity' },
      min: 0,
      max: 1e10,
      help: 'Standard uncertainty (k = 1), its resolution included.',
    },
    {
      kind: 'number',
      name: 'toolS',
      label: 'Usual spread of the tool',
      symbol: 's',
      quantity: { from: 'quantity' },
      min: 0,
      max: 1e10,
      default: 0,
      help: 'Pooled spread of single readings with this tool; under five readings the larger of it and their own counts.',
    },
    {
      kind: 'choice',
      name: 'rule',
      label: 'Rule',
      default: '95',
      choices: [
        { id: '95', label: '95 % sure (ISO 14253-1:2017)' },
        { id: '2u', label: 'keep 2·u off each limit' },
      ],
      help: 'How sure is sure.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'mean', label: 'Mean', quantity: { from: 'quantity' }, help: 'Of the readings.' },
    { kind: 'number', name: 'u', label: 'Uncertainty of the mean', quantity: { from: 'quantity' }, help: 'Standard uncertainty (k = 1).' },
    {
      kind: 'number',
      name: 'spread',
      label: 'Spread used',
      quantity: { from: 'quantity' },
      help: 'Of single readings: their own, or the tool’s where it is the larger.',
    },
    { kind: 'number', name: 'guard', label: 'Guard', quantity: { from: 'quantity' }, help: 'Kept off each limit before it is called in.' },
    {
      kind: 'number',
      name: 'guardFactor',
      label: 'Guard over u',
      quantity: 'ratio',
      help: '1.65 with room to spare; more when the tolerance is tight.',
    },
    {
      kind: 'number',
      name: 'probabilityIn',
      label: 'Chance that it is inside',
      quantity: 'ratio',
      share: true,
      help: 'From mean and uncertainty.',
    },
    {
      kind: 'number',
      name: 'repeats',
      label: 'Readings that would settle it',
      quantity: 'count',
      optional: true,
      help: 'In all, with this tool, if the mean stays.',
    },
    {
      kind: 'number',
      name: 'betterU',
      label: 'Tool that would settle it',
      quantity: { from: 'quantity' },
      optional: true,
      help: 'Uncertainty of the mean at which it is settled, if the mean stays.',
    },
    { kind: 'text', name: 'settle', label: 'What settles it', longest: 300, help: 'In words.' },
  ],
  sources: [
    {
      kind: 'standard',
      document: 'ISO 14253-1',
      edition: '2017',
      clause: '5',
      for: 'the decision rule at 95 %, guard 1.65·u',
      fromMemory: true,
    },
    {
      kind: 'standard',
      document: 'JCGM 106',
      edition: '2012',
      clause: '7',
      for: 'the probability of conformity of a normal measurement result',
    },
    {
      kind: 'standard',
      document: 'JCGM 100 (GUM)',
      edition: '2008',
      clause: '4.2, 5.1, annex G',
      for: 'u² = u_tool² + s²/n, and Student’s factor for few readings',
    },
    {
      kind: 'common practice',
      document: 'readings six uncertainties apart are not of one thing',
      for: 'readings that contradict each other',
    },
  ],
  cautions: ['A reading that disagrees with its brothers is looked at before it is averaged.'],
  example: { readings: ['50.012 mm', '50.011 mm', '50.013 mm'], lower: '50.000 mm', toolU: 0.002, toolS: 0.001 },
  compute(input) {
    const { lower, upper } = input;
    if (lower === undefined && upper === undefined) return refuse({ code: 'limit-missing', field: 'lower' });
    if (lower !== undefined && upper !== undefined && upper < lower) {
      return refuse({
        code: 'window-upside-down',
        field: 'upper',
        received: formatQuantity(upper, input.quantity),
        bound: formatQuantity(lower, input.quantity),
      });
    }
    const mean = meanOf(input.readings);
    const { spread, u } = uncertaintyOf(input);
    const limits = { lower, upper };
    const isApart = contradict(input) && !allBeyondOne(input, limits);
    const judged = isApart ? 'unsure' : judge(mean, u, limits, input.rule);
    const guardFactor = input.rule === '2u' ? 2 : guardOverU(limits, u);
    const settled = judged === 'unsure' && !isApart ? whatSettles(mean, u, input.toolU, spread, limits, input.rule) : {};
    return ok({
      verdict: judged,
      mean,
      u,
      spread,
      guard: guardFactor * u,
      guardFactor,
      probabilityIn: chanceInside(mean, u, limits),
      repeats: settled.repeats,
      betterU: settled.betterU,
      settle: isApart
        ? `The readings lie ${formatQuantity(spanOf(input.readings), input.quantity)} apart, more than this tool explains: they are not of one thing. Clean it, zero it, and read again at one place.`
        : sayWhatSettles(judged, settled, input.quantity, input.readings.length),
    });
  },
  explain(input, output) {
    const figure = (size: number): string => formatQuantity(size, input.quantity, undefined, { from: input.lower, to: input.upper });
    const n = input.readings.length;
    return [
      { say: `Mean of ${n} reading${n === 1 ? '' : 's'}.`, formula: 'mean = Σ x / n', numbers: figure(output.mean) },
      {
        say:
          n >= ENOUGH_READINGS
            ? 'Its uncertainty, from the tool and the spread of the readings.'
            : `Its uncertainty; under ${ENOUGH_READINGS} readings by the larger of the tool’s usual spread and their own, with the factor for so few.`,
        formula: 'u² = u_tool² + (f·s)²/n',
        numbers: `√(${figure(input.toolU)}² + (${uncertaintyOf(input).factor.toFixed(2)} · ${figure(output.spread)})²/${n}) = ${figure(output.u)}`,
      },
      {
        say: input.rule === '2u' ? 'The shop keeps two uncertainties off each limit.' : 'The guard that makes "in" 95 % sure.',
        formula: 'guard = g · u',
        numbers: `${Number.isFinite(output.guardFactor) ? output.guardFactor.toFixed(2) : 'no'} · ${figure(output.u)} = ${figure(output.guard)}`,
      },
      {
        say: `Verdict: ${output.verdict}. ${output.settle}`,
        numbers: `chance inside ${formatQuantity(output.probabilityIn, 'ratio', '%', { from: 0.05, to: 0.95 })}`,
      },
    ];
  },
  draw: (input, output) => ({
    kind: 'limit-strip',
    readings: input.readings,
    mean: output.mean,
    from: input.lower,
    to: input.upper,
    guard: output.guard,
    verdict: output.verdict,
    quantity: input.quantity,
  }),
});

interface Read {
  readonly readings: readonly number[];
  readonly toolU: number;
  readonly toolS: number;
}

function meanOf(figures: readonly number[]): number {
  return figures.reduce((sum, figure) => sum + figure, 0) / figures.length;
}

function spanOf(figures: readonly number[]): number {
  return Math.max(...figures) - Math.min(...figures);
}

/** Spread of single readings that counts, the factor for how few they are, and the uncertainty of their mean. */
export function uncertaintyOf({ readings, toolU, toolS }: Read): { readonly spread: number; readonly factor: number; readonly u: number } {
  const n = readings.length;
  const mean = meanOf(readings);
  const own = n > 1 ? Math.sqrt(readings.reduce((sum, reading) => sum + (reading - mean) ** 2, 0) / (n - 1)) : 0;
  const isOwn = n >= ENOUGH_READINGS || own > toolS;
  const spread = isOwn ? own : toolS;
  const factor = isOwn && n < ENOUGH_READINGS ? studentQuantile(SURE, n - 1) / NORMAL_95 : 1;
  return { spread, factor, u: Math.hypot(toolU, (factor * spread) / Math.sqrt(n)) };
}

/** Under five readings: do they lie further apart than the tool can explain? A tool of which nothing is known explains all. */
function contradict({ readings, toolU, toolS }: Read): boolean {
  const explained = APART_K * Math.hypot(toolU, toolS);
  return readings.length > 1 && readings.length < ENOUGH_READINGS && explained > 0 && spanOf(readings) > explained;
}

/** However far apart they are, readings of which each is out beyond the same limit agree that it is. */
function allBeyondOne({ readings, toolU, toolS, rule }: Read & { readonly rule: '95' | '2u' }, { lower, upper }: Limits): boolean {
  const u = Math.hypot(toolU, toolS);
  const beyond = (limits: Limits): boolean => readings.every((reading) => judge(reading, u, limits, rule) === 'out');
  return (lower !== undefined && beyond({ lower, upper: undefined })) || (upper !== undefined && beyond({ lower: undefined, upper }));
}

/** Probability that the true size is inside the limits, for a normal error of spread u. */
export function chanceInside(mean: number, u: number, { lower, upper }: Limits): number {
  // A limit met within the noise of binary fractions is met: 0.0254 mm is 0.001 in.
  const isAtLeast = (one: number, other: number): boolean => one - other >= -1e-12 * Math.max(1, Math.abs(other));
  if (u === 0) return (lower === undefined || isAtLeast(mean, lower)) && (upper === undefined || isAtLeast(upper, mean)) ? 1 : 0;
  const under = upper === undefined ? 1 : normalCdf((upper - mean) / u);
  const below = lower === undefined ? 0 : normalCdf((lower - mean) / u);
  return Math.max(0, under - below);
}

/**
 * The factor g with which a mean g·u inside a limit is just 95 % sure to be in. It solves
 * Φ(g) + Φ(T/u − g) − 1 = 0.95 for a tolerance T; half the tolerance over u where even the middle
 * is not 95 % sure.
 */
export function guardOverU({ lower, upper }: Limits, u: number): number {
  if (u === 0) return 0;
  const width = lower === undefined || upper === undefined ? Number.POSITIVE_INFINITY : (upper - lower) / u;
  const sure = (g: number): number => normalCdf(g) + (width === Number.POSITIVE_INFINITY ? 1 : normalCdf(width - g)) - 1;
  let low = 0;
  let high = Math.min(8, width / 2);
  if (sure(high) < SURE) return width / 2;
  for (let step = 0; step < 60; step += 1) {
    const middle = (low + high) / 2;
    if (sure(middle) < SURE) low = middle;
    else high = middle;
  }
  return high;
}

/**
 * The verdict on one figure with its uncertainty; '95' is the rule of the working. Out is not the absence
 * of in: it must be sure to lie beyond *one* limit, so a tool too coarse for its window condemns nothing.
 */
export function judge(mean: number, u: number, limits: Limits, rule: '95' | '2u' = '95'): Verdict {
  if (rule === '95' || u === 0) {
    if (chanceInside(mean, u, limits) >= SURE) return 'in';
    const beyond = Math.max(
      limits.lower === undefined ? 0 : 1 - chanceInside(mean, u, { lower: limits.lower }),
      limits.upper === undefined ? 0 : 1 - chanceInside(mean, u, { upper: limits.upper }),
    );
    return beyond >= SURE ? 'out' : 'unsure';
  }
  const { lower = Number.NEGATIVE_INFINITY, upper = Number.POSITIVE_INFINITY } = limits;
  if (mean >= lower + 2 * u && mean <= upper - 2 * u) return 'in';
  return mean <= lower - 2 * u || mean >= upper + 2 * u ? 'out' : 'unsure';
}

interface Settled {
  readonly repeats?: number | undefined;
  readonly betterU?: number | undefined;
}

/** The largest u at which this mean is no longer unsure, and how many readings reach it. */
function whatSettles(mean: number, u: number, toolU: number, spread: number, limits: Limits, rule: '95' | '2u'): Settled {
  let settled = 0;
  let unsure = u;
  for (let step = 0; step < 60; step += 1) {
    const middle = (settled + unsure) / 2;
    if (judge(mean, middle, limits, rule) === 'unsure') unsure = middle;
    else settled = middle;
  }
  if (settled < u * 1e-6) return {};
  if (settled <= toolU || spread === 0) return { betterU: settled };
  // From five on their own spread stands without a factor.
  const repeats = Math.max(ENOUGH_READINGS, Math.ceil((spread * spread) / (settled * settled - toolU * toolU)));
  return repeats <= MOST_REPEATS ? { repeats, betterU: settled } : { betterU: settled };
}

function sayWhatSettles(judged: string, settled: Settled, quantity: Quantity, n: number): string {
  if (judged !== 'unsure') return judged === 'in' ? 'Sure enough as it is.' : 'Out by more than the measuring can explain.';
  if (settled.betterU === undefined) return 'It sits on the limit: no tool settles that. Treat it as out, or ask.';
  const tool = `a tool with an uncertainty of ${formatQuantity(settled.betterU, quantity, quantity === 'length' ? 'µm' : undefined)} or less`;
  return settled.repeats === undefined ? `Take ${tool}.` : `Take ${Math.max(settled.repeats, n + 1)} readings in all, or ${tool}.`;
}
