import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';

interface Option {
  readonly option: string;
  readonly cost: number;
  readonly seasons: number;
  readonly spread: number;
  readonly comeback: number;
  readonly comebackCost: number;
  readonly down: number;
}

/** What is turned down and up for the tornado, and by which share where the row says none. */
const PRICE_SHARE = 0.1;
const CHANCE_SHARE = 0.5;

/**
 * Repair, repair cheaper, exchange, or new: which costs least for each season?
 *
 * Renewal reward: cost per season = (cost + chance of a comeback · its cost + days down · cost of
 * a day) / expected seasons. Break-even life: the seasons at which an option costs what the best
 * other one does. The tornado turns each figure of the two best down and up, one at a time, and
 * shows by how much the best leads then; where the lead goes below 0 the answer changes.
 * Holds when the unit is needed for longer than the longest life.
 *
 * Example: 620 for four seasons beats 280 for one and a half.
 */
export const repair = defineWorking({
  id: 'decide.repair',
  title: 'Repair, repair cheaper, exchange, or new?',
  area: 'deciding',
  inputs: [
    {
      kind: 'table',
      name: 'options',
      label: 'Options',
      columns: [
        { name: 'option', label: 'option', quantity: 'text' },
        { name: 'cost', label: 'cost', quantity: 'money' },
        { name: 'seasons', label: 'seasons', quantity: 'ratio' },
        { name: 'spread', label: '± seasons', quantity: 'ratio' },
        { name: 'comeback', label: 'comeback', quantity: 'ratio' },
        { name: 'comebackCost', label: 'a comeback costs', quantity: 'money' },
        { name: 'down', label: 'days down', quantity: 'ratio' },
      ],
      fewest: 2,
      most: 8,
      help: 'Name; cost now; expected seasons and their spread; chance of a comeback ("8 %"); what one costs; days down.',
    },
    {
      kind: 'number',
      name: 'dayCost',
      label: 'A day down costs',
      quantity: 'money',
      min: 0,
      max: 1e6,
      default: 0,
      help: 'What the customer loses for a day without the machine.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'best', label: 'Cheapest by season', longest: 80, help: 'Least cost for each expected season.' },
    { kind: 'number', name: 'perSeason', label: 'Costs a season', quantity: 'money', help: 'Of the best.' },
    { kind: 'text', name: 'changes', label: 'The answer changes', longest: 400, help: 'What would have to be otherwise.' },
    {
      kind: 'table',
      name: 'ranked',
      label: 'Option by option',
      columns: [
        { name: 'option', label: 'option', quantity: 'text' },
        { name: 'inAll', label: 'in all', quantity: 'money' },
        { name: 'perSeason', label: 'a season', quantity: 'money' },
        { name: 'breakEven', label: 'must last, seasons', quantity: 'ratio' },
      ],
      help: 'In all: with comebacks and days down as expected. Must last: to cost what the best other one does; nothing where that costs nothing.',
    },
    {
      kind: 'table',
      name: 'tornado',
      label: 'What the answer hangs on',
      columns: [
        { name: 'what', label: 'turned', quantity: 'text' },
        { name: 'low', label: 'lead when less', quantity: 'money' },
        { name: 'high', label: 'lead when more', quantity: 'money' },
      ],
      help: 'Lead of the best over the second, a season; under 0 the second is better.',
    },
  ],
  sources: [
    {
      kind: 'handbook',
      document: 'Ross, Introduction to Probability Models',
      clause: 'renewal reward',
      for: 'cost per time of a thing renewed again and again',
      fromMemory: true,
    },
    { kind: 'derivation', document: 'one figure at a time, the others held', for: 'break-even and the tornado' },
  ],
  cautions: ['A part that can hurt someone is not repaired because it is cheaper.'],
  example: {
    options: [
      { option: 'as planned', cost: 620, seasons: 4, spread: 1, comeback: 0.05, comebackCost: 250, down: 4 },
      { option: 'cheaper now', cost: 280, seasons: 1.5, spread: 0.5, comeback: 0.2, comebackCost: 250, down: 2 },
      { option: 'exchange', cost: 760, seasons: 4, spread: 1.5, comeback: 0.08, comebackCost: 150, down: 1 },
      { option: 'new', cost: 1450, seasons: 6, spread: 1.5, comeback: 0.03, comebackCost: 100, down: 6 },
    ],
    dayCost: 20,
  },
  compute(input) {
    const options: Option[] = [];
    for (const [index, row] of input.options.entries()) {
      const option: Option = {
        option: String(row['option']).trim(),
        cost: Number(row['cost']),
        seasons: Number(row['seasons']),
        spread: Number(row['spread']),
        comeback: Number(row['comeback']),
        comebackCost: Number(row['comebackCost']),
        down: Number(row['down']),
      };
      const issue = wrongIn(option, index, input.options);
      if (issue) return { ok: false, issues: [issue] };
      options.push(option);
    }
    const perSeason = (option: Option): number => inAll(option, input.dayCost) / option.seasons;
    const ranked = [...options].sort((one, other) => perSeason(one) - perSeason(other));
    const [best, second] = [ranked[0]!, ranked[1]!];
    const tornado = tornadoOf(best, second, input.dayCost);
    return ok({
      best: best.option,
      perSeason: perSeason(best),
      changes: whatChanges(best, second, perSeason(best), perSeason(second), input.dayCost, tornado),
      ranked: ranked.map((option) => ({
        option: option.option,
        inAll: inAll(option, input.dayCost),
        perSeason: perSeason(option),
        ...breakEvenOf(inAll(option, input.dayCost), perSeason(option === best ? second : best)),
      })),
      tornado,
    });
  },
  explain(input, output) {
    const money = (amount: number): string => amount.toFixed(2);
    return [
      {
        say: 'What each costs in all, as expected.',
        formula: 'cost + chance · cost of a comeback + days · cost of a day',
        numbers: input.options
          .map(
            (row) =>
              `${row['option'] as string}: ${money(Number(output.ranked.find((one) => one['option'] === String(row['option']).trim())?.['inAll']))}`,
          )
          .join('; '),
      },
      {
        say: 'Shared over the seasons it is expected to last.',
        formula: 'in all / seasons',
        numbers: output.ranked.map((row) => `${row['option'] as string} ${money(Number(row['perSeason']))}`).join('; '),
      },
      { say: output.changes },
    ];
  },
  draw: (_input, output) => ({
    kind: 'tornado',
    base: Number(output.ranked[1]!['perSeason']) - Number(output.ranked[0]!['perSeason']),
    bars: output.tornado.map((row) => ({ name: String(row['what']), low: Number(row['low']), high: Number(row['high']) })),
  }),
});

function inAll({ cost, comeback, comebackCost, down }: Option, dayCost: number): number {
  return cost + comeback * comebackCost + down * dayCost;
}

/** Seasons after which it costs what the other one does a season; none against one that costs nothing. */
function breakEvenOf(cost: number, perSeasonOfOther: number): { readonly breakEven?: number } {
  return perSeasonOfOther > 0 ? { breakEven: cost / perSeasonOfOther } : {};
}

function wrongIn(
  option: Option,
  index: number,
  rows: readonly unknown[],
):
  | { code: 'required' | 'too-small' | 'too-large' | 'said-twice'; field: string; label: string; received?: string; bound?: string }
  | undefined {
  const at = (name: string, label: string): { field: string; label: string } => ({
    field: `options[${index}].${name}`,
    label: `Options, row ${index + 1}, ${label}`,
  });
  if (option.option === '') return { code: 'required', ...at('option', 'option') };
  if (rows.slice(0, index).some((row) => String((row as Record<string, unknown>)['option']).trim() === option.option))
    return { code: 'said-twice', ...at('option', 'option'), received: option.option };
  if (option.seasons <= 0)
    return { code: 'too-small', ...at('seasons', 'seasons'), received: String(option.seasons), bound: 'more than 0' };
  if (option.comeback > 1) return { code: 'too-large', ...at('comeback', 'comeback'), received: String(option.comeback), bound: '100 %' };
  for (const [name, label] of [
    ['cost', 'cost'],
    ['spread', '± seasons'],
    ['comeback', 'comeback'],
    ['comebackCost', 'a comeback costs'],
    ['down', 'days down'],
  ] as const)
    if (option[name] < 0) return { code: 'too-small', ...at(name, label), received: String(option[name]), bound: '0' };
  return undefined;
}

interface Bar {
  readonly [name: string]: string | number;
  readonly what: string;
  readonly low: number;
  readonly high: number;
}

/** Lead of the best over the second with each figure turned down and up, the widest first. */
function tornadoOf(best: Option, second: Option, dayCost: number): readonly Bar[] {
  const lead = (one: Option, other: Option, day: number): number => inAll(other, day) / other.seasons - inAll(one, day) / one.seasons;
  const bars: Bar[] = [
    { what: 'a day down', low: lead(best, second, dayCost * (1 - CHANCE_SHARE)), high: lead(best, second, dayCost * (1 + CHANCE_SHARE)) },
  ];
  for (const option of [best, second]) {
    const turned = (what: string, change: (factor: -1 | 1) => Partial<Option>): Bar => {
      const at = (factor: -1 | 1): number => {
        const changed = { ...option, ...change(factor) };
        return option === best ? lead(changed, second, dayCost) : lead(best, changed, dayCost);
      };
      return { what: `${option.option}: ${what}`, low: at(-1), high: at(1) };
    };
    bars.push(
      // A life of nothing would cost without end: it is turned down to a tenth at most.
      turned('seasons', (factor) => ({ seasons: Math.max(option.seasons / 10, option.seasons + factor * option.spread) })),
      turned('price', (factor) => ({ cost: option.cost * (1 + factor * PRICE_SHARE) })),
      turned('chance of a comeback', (factor) => ({ comeback: Math.min(1, option.comeback * (1 + factor * CHANCE_SHARE)) })),
    );
  }
  const width = ({ low, high }: Bar): number => Math.abs(high - low);
  return bars.filter((bar) => width(bar) > 0).sort((one, other) => width(other) - width(one));
}

function whatChanges(best: Option, second: Option, bestCost: number, secondCost: number, dayCost: number, tornado: readonly Bar[]): string {
  const rise = (secondCost - bestCost) * best.seasons;
  const turning = tornado.filter(({ low, high }) => Math.min(low, high) < 0).map(({ what }) => what);
  if (secondCost === 0) return `${best.option} and ${second.option} cost nothing: take what lasts.`;
  const least = inAll(best, dayCost) / secondCost;
  const words =
    bestCost === 0
      ? `${best.option} costs nothing: ${second.option} is as good when it costs ${rise.toFixed(2)} more.`
      : `${second.option} is as good when ${best.option} lasts ${least.toFixed(1)} seasons instead of ${best.seasons.toFixed(1)}, or costs ${rise.toFixed(2)} more.`;
  return turning.length === 0
    ? `${words} None of the figures turns it alone.`
    : `${words} It hangs on: ${turning.join(', ')}.`.slice(0, 400);
}
