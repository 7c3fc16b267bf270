import { describe, expect, test } from '@jest/globals';
import { formatQuantity, fromBase, unitsOf, wording, workings, type Field, type Quantity, type WorkingDescription } from './index.js';
import { seeded } from './math/random.js';
import { quantityOf } from './working/input.js';
import { QUANTITIES } from './quantity/units.js';

const START = 20_261_127;
const INPUTS = 1000;

type Random = () => number;
type Figures = Extract<Field, { kind: 'number' | 'list' }>;
type Input = Record<string, unknown>;

const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;

/** Texts that nobody means, and that everybody types one day. */
const ODD = [
  '', ' ', '-', '.', ',', '1,5', '1.234,5', '1e400', '1e-400', '-0', '1/0', '0/0', 'NaN', 'Infinity', '∞', 'OL', '٣', '五', '🔧', 'ﬁve',
  '0x10', '1e5 mm', '5 mm', '3 in', '1 1/4 in', '2 N·m', '7 lbf·ft', '12 tpi', '20 °C', '1 K', '50 %', '4 h', 'M8', '10-32', '1/0-20',
  '\u0000', '\ud800', 'a'.repeat(500), '1 2 3 thou', '0 1 2 mm 1 in',
]; // prettier-ignore
const ODD_VALUES = [null, undefined, true, [], {}, [[]], [null], Number.NaN, Number.POSITIVE_INFINITY, -1, 0, 1e-320, 1e308, -1e308];

/** A figure of a field: mostly where it may be, at its ends, in any of its units; sometimes beyond, or none at all. */
function figureFor(random: Random, field: Figures, quantity: Quantity, usual: number): unknown {
  const least = field.kind === 'number' ? (field.min ?? field.above ?? -1e6) : (field.min ?? -1e6);
  const most = field.max ?? 1e6;
  const way = random();
  const wide =
    least > 0 ? least * (most / least) ** random() : most > 0 ? 10 ** (-9 + random() * (Math.log10(most) + 9)) : least * random();
  const base =
    way < 0.35
      ? usual * 2 ** (2 * random() - 1)
      : way < 0.6
        ? wide
        : way < 0.7
          ? least + (most - least) * random()
          : way < 0.8
            ? pick(random, [least, most, 0])
            : pick(random, [least - 1, most * 2 + 1, -usual, usual * 1e6, usual / 1e6]);
  const figure = quantity === 'count' && random() < 0.9 ? Math.round(base) : base;
  if (random() < 0.6) return figure;
  const unit = pick(random, unitsOf(quantity));
  return `${fromBase(figure, unit)} ${unit.symbol}`;
}

function valueFor(random: Random, field: Field, example: unknown, input: Input, fields: readonly Field[]): unknown {
  const whole = random() < 0.7;
  if (random() < 0.08) return pick(random, ODD);
  if (random() < 0.04) return pick(random, ODD_VALUES);
  switch (field.kind) {
    case 'number': {
      const usual = typeof example === 'number' ? example : (field.default ?? field.max ?? 1);
      return figureFor(random, field, quantityOf(field.quantity, input, fields), Number(usual) || 1);
    }
    case 'list': {
      const many = Math.floor(random() * Math.min(field.most + 2, 14));
      const usual = Array.isArray(example) && typeof example[0] === 'number' ? example[0] : 1;
      const items = Array.from({ length: many }, () => figureFor(random, field, quantityOf(field.quantity, input, fields), usual));
      return random() < 0.3 ? items.join(pick(random, [' ', '; ', '\n'])) : items;
    }
    case 'choice':
      return random() < 0.95 ? pick(random, field.choices).id : 'none of them';
    case 'text':
      return random() < 0.5 && typeof example === 'string'
        ? example
        : pick(random, [...ODD, '0.1 Ω', '3 V', '1000', 'H7', 'M10', 'OL', 'k6']);
    case 'table': {
      const rows = Array.isArray(example) ? (example as Input[]) : [];
      // Mostly whole, with some cells turned: a study with a hole in it is refused before it is worked out.
      const kept = rows.filter(() => whole || random() < 0.8).map((row) => ({ ...row }));
      for (let cells = Math.floor(random() * 5); cells > 0 && kept.length > 0; cells -= 1) {
        const [row, { name, quantity }] = [pick(random, kept), pick(random, field.columns)];
        const isText = quantity === 'text' || quantity === 'yes-no';
        if (isText && random() < 0.5) continue;
        row[name] = isText
          ? pick(random, ['', '1', 'x', 'failed', 'OL', '0.5 V', '🔧'])
          : figureFor(
              random,
              { kind: 'number', name, label: name, help: '', quantity, min: -1e6, max: 1e6 },
              quantity,
              Number(row[name]) || 1,
            );
      }
      return kept;
    }
  }
}

function inputFor(random: Random, { inputs, example }: WorkingDescription): Input {
  const input: Input = { ...example };
  const touched = random() < 0.25 ? inputs : inputs.filter(() => random() < 2 / inputs.length);
  for (const field of touched) {
    if (random() < 0.05) input[field.name] = undefined;
    else input[field.name] = valueFor(random, field, example[field.name], input, inputs);
  }
  return input;
}

/** Everything that is wrong with an answer; nothing when it is one. */
function wrongWith(working: WorkingDescription, input: Input): string | undefined {
  const result = workings.run(working.id, input);
  if (!result) return 'there is no such working';
  if (!result.ok) {
    const nameless = result.issues.find((issue) => issue.field === '' || wording(issue).trim() === '');
    return result.issues.length === 0 ? 'refused without a word' : nameless && 'an issue that names nothing';
  }
  const { run } = result;
  for (const field of working.inputs) {
    const taken = run.input[field.name];
    if (taken === undefined) continue;
    if (field.kind !== 'number' && field.kind !== 'list') continue;
    const outside = (Array.isArray(taken) ? taken : [taken]).find(
      (figure: number) =>
        !Number.isFinite(figure) ||
        figure < (field.min ?? -Infinity) ||
        figure > (field.max ?? Infinity) ||
        (field.kind === 'number' && field.above !== undefined && figure <= field.above),
    );
    if (outside !== undefined) return `${field.name} ${String(outside)} was taken`;
  }
  for (const field of working.outputs) {
    const given = run.output[field.name];
    if (given === undefined && !field.optional) return `${field.name} is missing`;
    if (field.kind === 'choice' && given !== undefined && !field.choices.some(({ id }) => id === given))
      return `${field.name} is ${String(given)}`;
    if (field.kind === 'number' && given !== undefined && !Number.isFinite(given)) return `${field.name} is ${String(given)}`;
  }
  const written = JSON.stringify([run.output, run.steps, run.drawing ?? null]);
  const bad = /\b(?:NaN|Infinity|undefined)\b|:null\b|\[object/u.exec(
    written.replace(/"(?:field|variant|feature|option|name|screw|person|part|diode|shaft|joint|driver)":"[^"]*"/gu, ''),
  );
  return bad ? `writes ${bad[0]}: ${written.slice(Math.max(0, bad.index - 80), bad.index + 40)}` : undefined;
}

const all = workings.list().map((working) => [working.id, working] as const);

describe(`every working, ${INPUTS} inputs of every kind`, () => {
  test.each(all)('%s answers or names what is wrong', (id, working) => {
    const random = seeded(START + id.length);
    let answered = 0;
    for (let turn = 0; turn < INPUTS; turn += 1) {
      const input = inputFor(random, working);
      let wrong: string | undefined;
      try {
        wrong = wrongWith(working, input);
        if (workings.run(id, input)?.ok) answered += 1;
      } catch (error) {
        wrong = `throws ${String(error)}`;
      }
      if (wrong !== undefined) throw new Error(`${id} ${wrong}; given ${JSON.stringify(input)}`);
    }
    // Neither all of them rubbish nor none.
    expect(answered / INPUTS).toBeGreaterThan(0.05);
    expect(answered / INPUTS).toBeLessThan(0.95);
  });
});

/** The example's figures in another unit each are the same figures. */
describe('the same in another unit', () => {
  const close = (one: unknown, other: unknown): boolean => {
    if (typeof one === 'number' && typeof other === 'number') return Math.abs(one - other) <= 1e-6 * Math.max(1e-3, Math.abs(one));
    // Sentences round: their figures may differ in the last digit.
    if (typeof one === 'string') return typeof other === 'string';
    if (typeof one !== 'object' || one === null) return one === other;
    return Object.entries(one).every(([name, part]) => close(part, (other as Input)[name]));
  };

  test.each(all)('%s', (id, working) => {
    const usual = workings.run(id, working.example);
    if (!usual?.ok) throw new Error(`${id} refuses its example`);
    const random = seeded(START);
    for (let turn = 0; turn < 40; turn += 1) {
      const input: Input = { ...working.example };
      for (const field of working.inputs) {
        const base = usual.run.input[field.name];
        if ((field.kind !== 'number' && field.kind !== 'list') || base === undefined) continue;
        const quantity = quantityOf(field.quantity, working.example, working.inputs);
        // A share without a sign is per cent.
        const unit = pick(
          random,
          unitsOf(quantity).filter(({ symbol }) => symbol !== '' || !('share' in field && field.share)),
        );
        const write = (figure: number): string => `${fromBase(figure, unit)} ${unit.symbol}`;
        input[field.name] = field.kind === 'list' ? (base as readonly number[]).map(write) : write(base as number);
      }
      const other = workings.run(id, input);
      if (!other?.ok) throw new Error(`${id}: ${other?.issues.map(wording).join('; ') ?? ''} for ${JSON.stringify(input)}`);
      expect([id, close(usual.run.output, other.run.output), input]).toEqual([id, true, input]);
    }
  });

  test('every quantity writes and reads its own figures', () => {
    for (const quantity of QUANTITIES)
      for (const unit of unitsOf(quantity))
        expect(formatQuantity(fromBase(3, unit) * 0 + 3, quantity, unit.symbol)).not.toMatch(/NaN|Infinity/u);
  });
});

/** What physics says must rise or fall; the rest held. */
describe('more of it', () => {
  const figure = (id: string, input: Input, name: string): number => {
    const result = workings.run(id, input);
    if (!result?.ok) throw new Error(`${id}: ${result?.issues.map(wording).join('; ') ?? ''}`);
    return Number(result.run.output[name]);
  };
  const screw = { thread: 'M10', propertyClass: '8.8' };
  test.each<readonly [id: string, input: Input, turned: string, values: readonly unknown[], output: string, way: 'up' | 'down']>([
    ['torque.no-spec', screw, 'least', [0.08, 0.1, 0.14], 'high', 'up'],
    ['torque.no-spec', screw, 'most', [0.16, 0.2, 0.3], 'clampLeast', 'down'],
    ['torque.no-spec', screw, 'propertyClass', ['unmarked', '5.8', '8.8', '10.9', '12.9'], 'high', 'up'],
    ['torque.preload', { ...screw, torque: 40 }, 'threadFriction', [0.08, 0.12, 0.2], 'force', 'down'],
    ['torque.angle', { ...screw, snug: 15, grip: 60 }, 'angle', [0, 20, 60, 90, 150], 'clamp', 'up'],
    ['torque.angle', { ...screw, snug: 15, angle: 30 }, 'grip', [20, 40, 80, 150], 'clamp', 'down'],
    ['bearing.life', { rating: 30_000, radial: 3000, speed: 800 }, 'thrust', [0, 500, 1500, 4000], 'hours', 'down'],
    ['bearing.life', { kind: 'roller', rating: 30_000, radial: 3000, speed: 800, y: 1.6 }, 'thrust', [0, 1100, 1200, 3000], 'load', 'up'],
    ['fit.press', { seat: 30, long: 20, outside: 60 }, 'interference', [0.02, 0.03, 0.05], 'hubStress', 'up'],
    ['fit.press', { seat: 30, long: 20, outside: 60, interference: 0.03 }, 'inside', [0, 10, 20], 'pressure', 'down'],
    ['fit.heat', { seat: 40, interference: 0.02 }, 'shaftT', [30, 20, 10, 1, 0, -1, -18, -70, -196], 'byShaft', 'up'],
    ['fit.heat', { seat: 40 }, 'interference', [0.005, 0.01, 0.02], 'temperature', 'up'],
    ['bearing.nut', { playNow: 0.3, from: 0, to: 0.3, slots: 6, tryAngle: 30 }, 'pitch', [0.75, 1, 1.5], 'tryTravel', 'up'],
    ['alternator.rotor', { lower: 2, upper: 3, temperature: 40 }, 'read', ['2.2 Ω', '2.5 Ω', '2.9 Ω'], 'currentNow', 'down'],
    ['wire.drop', { section: 16, current: 90 }, 'length', ['1 m', '3 m', '9 m'], 'lost', 'up'],
    ['measure.verdict', { readings: [10], upper: 10.01 }, 'toolU', [0.001, 0.003, 0.01], 'probabilityIn', 'down'],
    [
      'clutch.capacity',
      { springs: 5, rate: 0.018, freeNew: 38, freeNow: 37, set: 26, faces: 14, outer: 55, inner: 45, demand: 60 },
      'friction',
      [0.1, 0.12, 0.14],
      'torque',
      'up',
    ],
  ])('%s %j: with %s at %j, %s goes %s', (id, input, turned, values, output, way) => {
    const row = values.map((value) => figure(id, { ...input, [turned]: value }, output));
    for (let at = 1; at < row.length; at += 1)
      expect(way === 'up' ? row[at]! - row[at - 1]! : row[at - 1]! - row[at]!).toBeGreaterThanOrEqual(-1e-9 * Math.abs(row[at]!));
    expect(row[0]).not.toBeCloseTo(row.at(-1)!, 6);
  });
});
