import { newtons, percent } from '../quantity/write.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';

/** a1 by reliability; ISO 281:2007 table 12, from memory. */
const A1 = { '90': 1, '95': 0.64, '96': 0.55, '97': 0.47, '98': 0.37, '99': 0.25 } as const;
const EXPONENT = { ball: 3, roller: 10 / 3 } as const;
/** X where thrust counts: deep groove ball, tapered roller. ISO 281, from memory. */
const X = { ball: 0.56, roller: 0.4 } as const;
const USUAL_Y = 1.6;
/** e and Y belong together: at Fa = e·Fr thrust begins to count, so X + Y·e is 1, as near as tables are rounded. */
const TOGETHER = 0.05;
const MILLION = 1e6;
const MINUTES = 60;

/**
 * How long does this bearing last?
 *
 * L10 = (C/P)^p million turns, p = 3 ball, 10/3 roller; Lnm = a1·L10; P = X·Fr + Y·Fa where thrust
 * counts, of a roller bearing never less than Fr. e goes with Y: e = (1 − X)/Y; the two given so that they contradict
 * each other are refused. A tapered pair pulls itself apart by 0.5·Fr/Y. Inverse: the rating for wanted hours. Holds
 * for clean, well greased bearings under steady load; a dirty one lasts a fraction.
 *
 * Example: C 19.5 kN, P 3 kN, 1000 rpm: 4577 h.
 */
export const life = defineWorking({
  id: 'bearing.life',
  title: 'How long does this bearing last?',
  area: 'bearings',
  inputs: [
    {
      kind: 'choice',
      name: 'ask',
      label: 'Wanted',
      default: 'hours',
      choices: [
        { id: 'hours', label: 'hours from the rating' },
        { id: 'rating', label: 'the rating for some hours' },
      ],
      help: 'Which of the two is known.',
    },
    {
      kind: 'choice',
      name: 'kind',
      label: 'Bearing',
      default: 'ball',
      choices: [
        { id: 'ball', label: 'ball' },
        { id: 'roller', label: 'roller, tapered too' },
      ],
      help: 'Sets the exponent.',
    },
    {
      kind: 'number',
      name: 'rating',
      label: 'Dynamic rating',
      symbol: 'C',
      quantity: 'force',
      above: 0,
      max: 1e8,
      optional: true,
      onlyFor: { field: 'ask', choices: ['hours'] },
      help: 'From its catalogue.',
    },
    {
      kind: 'number',
      name: 'hours',
      label: 'Hours wanted',
      quantity: 'time',
      above: 0,
      max: 3.6e9,
      optional: true,
      onlyFor: { field: 'ask', choices: ['rating'] },
      help: 'Such as 5000 h.',
    },
    { kind: 'number', name: 'radial', label: 'Radial load', symbol: 'Fr', quantity: 'force', min: 0, max: 1e8, help: 'On this bearing.' },
    {
      kind: 'number',
      name: 'thrust',
      label: 'Thrust',
      symbol: 'Fa',
      quantity: 'force',
      min: 0,
      max: 1e8,
      default: 0,
      help: 'On this bearing.',
    },
    {
      kind: 'number',
      name: 'x',
      label: 'X',
      quantity: 'ratio',
      above: 0,
      max: 1,
      optional: true,
      help: 'When left empty 0.56 for a ball bearing, 0.4 for a roller.',
    },
    {
      kind: 'number',
      name: 'y',
      label: 'Y',
      quantity: 'ratio',
      above: 0,
      max: 5,
      optional: true,
      help: 'From its catalogue. When left empty the one that goes with e, or 1.6.',
    },
    {
      kind: 'number',
      name: 'e',
      label: 'e',
      quantity: 'ratio',
      above: 0,
      max: 2,
      optional: true,
      help: 'Thrust counts only from Fa/Fr over this. When left empty the one that goes with Y.',
    },
    { kind: 'number', name: 'speed', label: 'Speed', symbol: 'n', quantity: 'speed', above: 0, max: 200_000, help: 'Between the rings.' },
    {
      kind: 'choice',
      name: 'reliability',
      label: 'Of a hundred, last',
      default: '90',
      choices: [
        { id: '90', label: '90' },
        { id: '95', label: '95' },
        { id: '96', label: '96' },
        { id: '97', label: '97' },
        { id: '98', label: '98' },
        { id: '99', label: '99' },
      ],
      help: 'How many of a hundred reach it.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'hours', label: 'Hours', quantity: 'time', help: 'That so many of a hundred reach.' },
    { kind: 'number', name: 'rating', label: 'Rating', quantity: 'force', help: 'Given, or needed.' },
    { kind: 'number', name: 'load', label: 'Equivalent load', symbol: 'P', quantity: 'force', help: 'Radial and thrust as one.' },
    { kind: 'number', name: 'turns', label: 'Turns, millions', symbol: 'L', quantity: 'ratio', help: 'The same as turns.' },
    {
      kind: 'number',
      name: 'induced',
      label: 'Thrust a taper makes of itself',
      quantity: 'force',
      optional: true,
      help: '0.5·Fr/Y, for the other bearing of the pair.',
    },
  ],
  sources: [
    {
      kind: 'standard',
      document: 'ISO 281',
      edition: '2007',
      clause: '5 to 8, table 12',
      for: 'rating life, equivalent load, a1',
      fromMemory: true,
    },
  ],
  cautions: ['A life of many: this one may fail tomorrow. Water and dirt take most of it.'],
  example: { rating: '19.5 kN', radial: '3 kN', speed: 1000 },
  compute(input) {
    const factors = factorsOf(input);
    if (!factors.ok) return factors;
    const { x, y, e } = factors.value;
    const both = x * input.radial + y * input.thrust;
    const load = input.thrust <= e * input.radial ? input.radial : input.kind === 'roller' ? Math.max(input.radial, both) : both;
    if (load <= 0)
      return refuse({ code: 'too-small', field: 'radial', received: newtons(input.radial), bound: 'more than 0 N, or a thrust' });
    const exponent = EXPONENT[input.kind];
    const a1 = A1[input.reliability];
    const induced = input.kind === 'roller' ? (0.5 * input.radial) / y : undefined;
    if (input.ask === 'hours') {
      if (input.rating === undefined) return refuse({ code: 'required', field: 'rating', quantity: 'force' });
      if (load > input.rating / 2)
        return refuse({
          code: 'outside-method',
          field: 'radial',
          received: newtons(load),
          bound: `loads to half of the rating, ${newtons(input.rating / 2)}`,
        });
      const turns = a1 * (input.rating / load) ** exponent;
      return ok({ hours: ((turns * MILLION) / input.speed) * MINUTES, rating: input.rating, load, turns, induced });
    }
    if (input.hours === undefined) return refuse({ code: 'required', field: 'hours', quantity: 'time' });
    const turns = ((input.hours / MINUTES) * input.speed) / MILLION;
    return ok({ hours: input.hours, rating: load * (turns / a1) ** (1 / exponent), load, turns, induced });
  },
  explain: (input, output) => [
    {
      say: output.load === input.radial ? 'The thrust is too small to count.' : 'Radial load and thrust as one.',
      formula: 'P = X·Fr + Y·Fa',
      numbers: newtons(output.load),
    },
    {
      say: `Turns that ${input.reliability} of a hundred reach.`,
      formula: `L = a1·(C/P)^${input.kind === 'ball' ? '3' : '(10/3)'}`,
      numbers: `${A1[input.reliability]}·(${newtons(output.rating)}/${newtons(output.load)})^p = ${output.turns.toFixed(1)} million; load is ${percent(output.load / output.rating)} of the rating`,
    },
    { say: 'At this speed.', formula: 'h = L·10⁶/(60·n)', numbers: formatQuantity(output.hours, 'time', 'h') },
  ],
});

interface Factors {
  readonly x: number;
  readonly y: number;
  readonly e: number;
}

interface FactorsAsked {
  readonly kind: 'ball' | 'roller';
  readonly x: number | undefined;
  readonly y: number | undefined;
  readonly e: number | undefined;
}

/** X, Y and e as given, each that is left empty from those that are. */
function factorsOf({ kind, x = X[kind], y, e }: FactorsAsked): Result<Factors> {
  if (y !== undefined && e !== undefined && Math.abs(x + y * e - 1) > TOGETHER)
    return refuse({
      code: 'cannot-be',
      field: 'e',
      received: formatQuantity(e, 'ratio'),
      bound: `with X ${formatQuantity(x, 'ratio')} and Y ${formatQuantity(y, 'ratio')} it is ${formatQuantity((1 - x) / y, 'ratio')}: take both from one line of the catalogue`,
    });
  const thrust = y ?? (e === undefined || x === 1 ? USUAL_Y : (1 - x) / e);
  return ok({ x, y: thrust, e: e ?? (1 - x) / thrust });
}
