import { fTail } from '../math/beta.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Above this chance of accident the interaction of people and parts is counted as repeatability. */
const POOL_ABOVE = 0.05;
const SIGMAS = 6;

interface Study {
  readonly parts: number;
  readonly people: number;
  readonly trials: number;
  readonly squares: { readonly part: number; readonly person: number; readonly both: number; readonly error: number };
}

/**
 * Can this tool, in these hands, tell these parts apart?
 *
 * p parts measured r times by each of o people. Two-way analysis of variance:
 * MS of part, person, part × person and repeatability. Interaction with p > 0.05 is pooled with
 * repeatability. σ² repeat = MS_e, σ² interaction = (MS_po − MS_e)/r, σ² person =
 * (MS_o − MS_po)/(p·r), σ² part = (MS_p − MS_po)/(o·r), none below 0. Gauge = repeat + person +
 * interaction. Shares are of total variation, spreads are 6σ. Categories told apart:
 * 1.41·σ_part/σ_gauge, cut to a whole number. It stands by the worse of its share of the total and, where there is a
 * tolerance, of that; parts that do not differ say nothing for it.
 *
 * Example: see `example`, three people, five parts, two trials.
 */
export const gaugeRr = defineWorking({
  id: 'measure.gauge-rr',
  title: 'Can this tool, in these hands, tell these parts apart?',
  area: 'measuring',
  inputs: [
    {
      kind: 'table',
      name: 'readings',
      label: 'Readings',
      columns: [
        { name: 'person', label: 'person', quantity: 'text' },
        { name: 'part', label: 'part', quantity: 'text' },
        { name: 'reading', label: 'reading', quantity: 'length' },
      ],
      fewest: 8,
      most: 1000,
      help: 'Person, part and reading, one to a line; every person measures every part equally often, twice or more.',
    },
    {
      kind: 'number',
      name: 'tolerance',
      label: 'Tolerance',
      quantity: 'length',
      above: 0,
      max: 1000,
      optional: true,
      help: 'Width of the limits that the tool judges.',
    },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'standing',
      label: 'The tool is',
      choices: [
        { id: 'good', label: 'good enough' },
        { id: 'may-do', label: 'usable with care' },
        { id: 'not-good', label: 'not good enough' },
      ],
      help: 'Gauge share of the variation and, where there is one, of the tolerance: both under 10 %, to 30 %, over.',
    },
    { kind: 'number', name: 'share', label: 'Gauge, of total variation', quantity: 'ratio', share: true, help: 'σ gauge over σ total.' },
    {
      kind: 'number',
      name: 'ofTolerance',
      label: 'Gauge, of the tolerance',
      quantity: 'ratio',
      optional: true,
      help: '6σ of the gauge over the tolerance.',
    },
    { kind: 'number', name: 'categories', label: 'Sizes it tells apart', quantity: 'count', help: 'Five or more are wanted.' },
    {
      kind: 'number',
      name: 'sigma',
      label: 'Gauge, one sigma',
      symbol: 'σ',
      quantity: 'length',
      help: 'Repeatability and people together: the usual spread of a reading.',
    },
    { kind: 'number', name: 'repeatability', label: 'Repeatability', quantity: 'length', help: 'One sigma: the same person again.' },
    {
      kind: 'number',
      name: 'reproducibility',
      label: 'Between people',
      quantity: 'length',
      help: 'One sigma: other people, interaction included.',
    },
    { kind: 'number', name: 'parts', label: 'Between parts', quantity: 'length', help: 'One sigma.' },
    {
      kind: 'number',
      name: 'interaction',
      label: 'Chance that people and parts do not mix',
      quantity: 'ratio',
      help: 'p of the interaction; over 0.05 it is pooled.',
    },
    {
      kind: 'table',
      name: 'table',
      label: 'Analysis of variance',
      columns: [
        { name: 'of', label: 'of', quantity: 'text' },
        { name: 'freedom', label: 'freedom', quantity: 'count' },
        { name: 'squares', label: 'sum of squares', quantity: 'ratio' },
        { name: 'mean', label: 'mean square', quantity: 'ratio' },
        { name: 'f', label: 'F', quantity: 'ratio' },
      ],
      help: 'Two-way, crossed.',
    },
    { kind: 'text', name: 'what', label: 'What to do', longest: 300, help: 'Where the spread comes from.' },
  ],
  sources: [
    {
      kind: 'handbook',
      document: 'Measurement Systems Analysis, AIAG',
      edition: '4',
      clause: 'ANOVA method',
      for: 'the layout, pooling, shares and categories',
      fromMemory: true,
    },
    {
      kind: 'handbook',
      document: 'Abramowitz and Stegun, Handbook of Mathematical Functions',
      clause: '26.5, 26.6',
      for: 'the F distribution',
    },
  ],
  cautions: ['Parts of one size make any tool look bad: take parts over the whole range that the bench sees.'],
  example: {
    readings: [
      [10.012, 10.013, 10.013, 10.015, 10.011, 10.012],
      [10.034, 10.035, 10.036, 10.036, 10.033, 10.034],
      [9.991, 9.99, 9.993, 9.992, 9.99, 9.99],
      [10.058, 10.06, 10.06, 10.061, 10.057, 10.058],
      [9.972, 9.973, 9.975, 9.974, 9.971, 9.972],
    ].flatMap((row, part) =>
      row.map((reading, index) => ({ person: ['Ada', 'Ben', 'Cas'][Math.floor(index / 2)]!, part: String(part + 1), reading })),
    ),
    tolerance: 0.12,
  },
  compute(input) {
    const cells = new Map<string, Map<string, number[]>>();
    for (const row of input.readings) {
      const part = String(row['part']);
      const person = String(row['person']);
      const ofPart = cells.get(part) ?? new Map<string, number[]>();
      cells.set(part, ofPart);
      ofPart.set(person, [...(ofPart.get(person) ?? []), Number(row['reading'])]);
    }
    const people = [...new Set(input.readings.map((row) => String(row['person'])))];
    if (people.length < 2) return refuse({ code: 'too-few', field: 'readings', received: '1 person', bound: '2 people' });
    if (cells.size < 2) return refuse({ code: 'too-few', field: 'readings', received: '1 part', bound: '2 parts' });
    const trials = Math.max(...[...cells.values()].flatMap((ofPart) => [...ofPart.values()].map(({ length }) => length)));
    for (const [part, ofPart] of cells)
      for (const person of people) {
        const found = ofPart.get(person)?.length ?? 0;
        if (found !== trials || trials < 2)
          return refuse({
            code: 'grid-has-hole',
            field: 'readings',
            received: `${person}, part ${part}: ${found}`,
            bound: String(Math.max(2, trials)),
          });
      }
    const study = analyse([...cells.values()].map((ofPart) => people.map((person) => ofPart.get(person)!)));
    const { parts, trials: r, squares } = study;
    const o = study.people;
    const freedom = { part: parts - 1, person: o - 1, both: (parts - 1) * (o - 1), error: parts * o * (r - 1) };
    const mean = {
      part: squares.part / freedom.part,
      person: squares.person / freedom.person,
      both: squares.both / freedom.both,
      error: squares.error / freedom.error,
    };
    const p = mean.error === 0 ? (mean.both === 0 ? 1 : 0) : fTail(mean.both / mean.error, freedom.both, freedom.error);
    const pooled = p > POOL_ABOVE;
    const error = pooled ? (squares.both + squares.error) / (freedom.both + freedom.error) : mean.error;
    const against = pooled ? error : mean.both;
    const variance = {
      repeat: error,
      both: pooled ? 0 : Math.max(0, (mean.both - mean.error) / r),
      person: Math.max(0, (mean.person - against) / (parts * r)),
      part: Math.max(0, (mean.part - against) / (o * r)),
    };
    const gauge = variance.repeat + variance.both + variance.person;
    const total = gauge + variance.part;
    // Without any variation nothing of what is seen is the parts'.
    const share = total === 0 ? 1 : Math.sqrt(gauge / total);
    const ofTolerance = input.tolerance === undefined ? undefined : (SIGMAS * Math.sqrt(gauge)) / input.tolerance;
    const categories = gauge === 0 ? (variance.part === 0 ? 0 : 1e6) : Math.floor(Math.SQRT2 * Math.sqrt(variance.part / gauge));
    const line = (
      of: string,
      freed: number,
      squared: number,
      f: number,
    ): { of: string; freedom: number; squares: number; mean: number; f: number } => ({
      of,
      freedom: freed,
      squares: squared,
      mean: squared / freed,
      f,
    });
    return ok({
      standing: standingOf(Math.max(share, ofTolerance ?? 0)),
      share,
      ofTolerance,
      categories,
      sigma: Math.sqrt(gauge),
      repeatability: Math.sqrt(variance.repeat),
      reproducibility: Math.sqrt(variance.both + variance.person),
      parts: Math.sqrt(variance.part),
      interaction: p,
      table: [
        line('parts', freedom.part, squares.part, ratioOf(mean.part, against)),
        line('people', freedom.person, squares.person, ratioOf(mean.person, against)),
        line('people × parts', freedom.both, squares.both, ratioOf(mean.both, mean.error)),
        line('repeatability', freedom.error, squares.error, 0),
      ],
      what: variance.part === 0 ? ALIKE : whatToDo(Math.max(share, ofTolerance ?? 0), variance.repeat, variance.both + variance.person),
    });
  },
  explain(_input, output) {
    const mm = (sigma: number): string => formatQuantity(sigma, 'length', 'µm');
    const share = (part: number): string => formatQuantity(part, 'ratio', '%');
    return [
      {
        say: 'Sums of squares of parts, people, both, and what is left.',
        formula: 'two-way analysis of variance',
        numbers: output.table.map((row) => `${row['of'] as string} ${Number(row['squares']).toExponential(3)}`).join('; '),
      },
      {
        say:
          output.interaction > POOL_ABOVE
            ? 'People and parts do not mix beyond accident: pooled with repeatability.'
            : 'Some people read some parts differently: kept apart.',
        numbers: `p = ${output.interaction.toFixed(3)}`,
      },
      {
        say: 'The gauge is repeatability and people together.',
        formula: 'σ² = σ²_repeat + σ²_people',
        numbers: `√(${mm(output.repeatability)}² + ${mm(output.reproducibility)}²) = ${mm(output.sigma)}`,
      },
      { say: output.what, formula: 'σ_gauge / σ_total', numbers: share(output.share) },
    ];
  },
  draw(input) {
    const people = [...new Set(input.readings.map((row) => String(row['person'])))];
    const parts = [...new Set(input.readings.map((row) => String(row['part'])))];
    return {
      kind: 'chart',
      x: 'part',
      y: 'reading, mm',
      lines: people.map((name) => ({
        name,
        dots: true as const,
        points: input.readings
          .filter((row) => row['person'] === name)
          .map((row) => [parts.indexOf(String(row['part'])) + 1, Number(row['reading'])] as const),
      })),
      levels: [],
    };
  },
});

function ratioOf(mean: number, against: number): number {
  return against === 0 ? 0 : mean / against;
}

/** Sums of squares of a full grid: part, person, trial. */
function analyse(grid: readonly (readonly (readonly number[])[])[]): Study {
  const parts = grid.length;
  const people = grid[0]!.length;
  const trials = grid[0]![0]!.length;
  const meanOf = (figures: readonly number[]): number => figures.reduce((sum, figure) => sum + figure, 0) / figures.length;
  const grand = meanOf(grid.flat(2));
  const partMeans = grid.map((row) => meanOf(row.flat()));
  const personMeans = Array.from({ length: people }, (_, person) => meanOf(grid.flatMap((row) => row[person]!)));
  const squared = (figures: readonly number[]): number => figures.reduce((sum, figure) => sum + (figure - grand) ** 2, 0);
  let both = 0;
  let error = 0;
  grid.forEach((row, part) =>
    row.forEach((cell, person) => {
      const mean = meanOf(cell);
      both += trials * (mean - partMeans[part]! - personMeans[person]! + grand) ** 2;
      for (const reading of cell) error += (reading - mean) ** 2;
    }),
  );
  return {
    parts,
    people,
    trials,
    squares: { part: people * trials * squared(partMeans), person: parts * trials * squared(personMeans), both, error },
  };
}

const ALIKE =
  'The parts do not differ by more than the readings do: nothing is said of the tool. Take parts over the whole range that the bench sees.';

/** Under 10 % good, to 30 % usable, over that not. */
function standingOf(share: number): 'good' | 'may-do' | 'not-good' {
  if (share < 0.1) return 'good';
  return share <= 0.3 ? 'may-do' : 'not-good';
}

function whatToDo(share: number, repeat: number, people: number): string {
  if (share < 0.1) return 'The tool tells these parts apart.';
  return people > repeat
    ? 'Most of the spread is between people: agree on the place, the force and the zero, then study again.'
    : 'Most of the spread is the tool itself: clean and check it, measure more often, or take a better one.';
}
