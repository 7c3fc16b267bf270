import { studentQuantile } from '../math/beta.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';

/** How many jobs the sheet's book time counts as. */
const BOOK_COUNTS_AS = 3;
/** Spread of times about the book before any job was done, on the logarithm: some 40 %. */
const SPREAD_BEFORE = 0.35;
const FOUR_FIFTHS = 0.8;

/**
 * How long will it take?
 *
 * Times are log-normal about the book time. The book counts as three jobs (normal–inverse-gamma
 * prior on ln t), so few past jobs lean on it and many leave it behind. The next time has a
 * Student distribution: half of them stay under exp(m), four fifths under exp(m + t_0.8·s).
 *
 * Example: book 2 h, jobs of 2.5, 3 and 2.8 h: half under 2.35 h, four fifths under 3.15 h.
 */
export const estimate = defineWorking({
  id: 'estimate.time',
  title: 'How long will it take?',
  area: 'deciding',
  inputs: [
    { kind: 'number', name: 'book', label: 'Book time', quantity: 'time', above: 0, max: 3.6e6, help: 'What the sheet says.' },
    {
      kind: 'list',
      name: 'past',
      label: 'Past jobs',
      quantity: 'time',
      fewest: 0,
      most: 500,
      min: 1,
      max: 3.6e6,
      default: [],
      help: 'The same step of the same sheet, waits left out.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'half', label: 'Half are done in', quantity: 'time', help: 'As likely over as under.' },
    { kind: 'number', name: 'fourFifths', label: 'Four fifths are done in', quantity: 'time', help: 'The time to promise.' },
    { kind: 'number', name: 'leansOnBook', label: 'Leans on the book', quantity: 'ratio', help: 'Share of the book time in the estimate.' },
  ],
  sources: [
    {
      kind: 'handbook',
      document: 'Gelman and others, Bayesian Data Analysis',
      clause: '3.3',
      for: 'normal data with a conjugate prior',
      fromMemory: true,
    },
    { kind: 'common practice', document: 'book counts as three jobs, spread 40 %', for: 'the prior' },
  ],
  cautions: [],
  example: { book: '2 h', past: ['2.5 h', '3 h', '2.8 h'] },
  compute(input) {
    const n = input.past.length;
    const book = Math.log(input.book);
    const logs = input.past.map(Math.log);
    const mean = n === 0 ? book : logs.reduce((sum, log) => sum + log, 0) / n;
    const weight = BOOK_COUNTS_AS + n;
    const middle = (BOOK_COUNTS_AS * book + n * mean) / weight;
    const squares =
      BOOK_COUNTS_AS * SPREAD_BEFORE ** 2 +
      logs.reduce((sum, log) => sum + (log - mean) ** 2, 0) +
      ((BOOK_COUNTS_AS * n) / weight) * (mean - book) ** 2;
    const spread = Math.sqrt((squares / weight) * (1 + 1 / weight));
    return ok({
      half: Math.exp(middle),
      fourFifths: Math.exp(middle + studentQuantile(FOUR_FIFTHS, weight) * spread),
      leansOnBook: BOOK_COUNTS_AS / weight,
    });
  },
  explain(input, output) {
    const hours = (time: number): string => formatQuantity(time, 'time', time < 5400 ? 'min' : 'h');
    return [
      {
        say: `The book counts as ${BOOK_COUNTS_AS} jobs beside ${input.past.length} done.`,
        formula: 'm = (3·ln book + Σ ln t) / (3 + n)',
        numbers: `half in ${hours(output.half)}`,
      },
      {
        say: 'The next one, with what is not known of mean and spread.',
        formula: 'exp(m + t_0.8 · s)',
        numbers: `four fifths in ${hours(output.fourFifths)}`,
      },
    ];
  },
});
