import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { VERDICT, type Verdict } from '../measuring/verdict-field.js';

/** Standard uncertainties between a reading and its edge: 95 % of a normal error lie within. */
const COVER = 2;

interface Judged {
  verdict: Verdict;
  low: number;
  high: number | undefined;
  short: number;
  settle: string;
}

/**
 * It moved at this torque: is that enough?
 *
 * One reading M stands for M·(1 − 2w) to M·(1 + 2w), w the standard uncertainty of the wrench as
 * a share. A click wrench gives no figure but a bracket: held at a, let go at b, so it lies
 * between a·(1 − 2w) and b·(1 + 2w). In when all of it is at or above the minimum, out when all
 * of it is below, else unsure. Holds for a slow pull in the direction that is named.
 *
 * Example: a tensioner that must hold 22 lbf·ft and moves at 13 is 9 lbf·ft short.
 */
export const breakaway = defineWorking({
  id: 'torque.breakaway',
  title: 'It moved at this torque: is that enough?',
  area: 'torque',
  inputs: [
    {
      kind: 'choice',
      name: 'how',
      label: 'Found',
      default: 'moved',
      choices: [
        { id: 'moved', label: 'read when it moved, on a dial, beam or digital wrench' },
        { id: 'clicks', label: 'between two settings of a click wrench' },
      ],
      help: 'A click wrench that clicks before it moves says: it holds that much.',
    },
    {
      kind: 'choice',
      name: 'direction',
      label: 'Direction',
      default: 'tighten',
      choices: [
        { id: 'tighten', label: 'clockwise' },
        { id: 'loosen', label: 'anticlockwise' },
      ],
      help: 'A spring or a slipping element differs by direction: judge the one that the book names.',
    },
    { kind: 'number', name: 'least', label: 'Must hold', quantity: 'torque', above: 0, max: 20000, help: 'The least that it must hold.' },
    {
      kind: 'number',
      name: 'moved',
      label: 'Moved at',
      quantity: 'torque',
      above: 0,
      max: 20000,
      optional: true,
      onlyFor: { field: 'how', choices: ['moved'] },
      help: 'The highest figure just before it moved.',
    },
    {
      kind: 'number',
      name: 'held',
      label: 'Held at',
      quantity: 'torque',
      min: 0,
      max: 20000,
      default: 0,
      onlyFor: { field: 'how', choices: ['clicks'] },
      help: 'The highest setting at which the wrench clicked and nothing moved.',
    },
    {
      kind: 'number',
      name: 'letGo',
      label: 'Let go at',
      quantity: 'torque',
      above: 0,
      max: 20000,
      optional: true,
      onlyFor: { field: 'how', choices: ['clicks'] },
      help: 'The lowest setting at which it moved before the click; left empty when it never did.',
    },
    {
      kind: 'number',
      name: 'wrenchU',
      label: 'Uncertainty of the wrench',
      symbol: 'w',
      quantity: 'ratio',
      min: 0,
      max: 0.2,
      default: 0.02,
      help: 'Standard, as a share: a wrench good to 4 % has 2 %.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'low', label: 'At least', quantity: 'torque', help: 'It holds no less than this.' },
    {
      kind: 'number',
      name: 'high',
      label: 'At most',
      quantity: 'torque',
      optional: true,
      help: 'It holds no more than this; nothing is known of it where the wrench only clicked.',
    },
    { kind: 'number', name: 'short', label: 'Short by', quantity: 'torque', help: 'Minimum less what was found; nothing when it holds.' },
    { kind: 'text', name: 'settle', label: 'What would settle it', longest: 300, help: 'The next pull to make, when it is unsure.' },
  ],
  sources: [
    { kind: 'derivation', document: 'Interval of the reading against a lower limit', for: 'in, out and unsure' },
    { kind: 'common practice', document: 'A click wrench gives a bracket, not a figure', for: 'the bracket' },
    { kind: 'standard', document: 'ISO 6789-1', for: 'the 4 % of a wrench taken as the default', fromMemory: true },
  ],
  cautions: ['Stand so that a wrench that lets go cannot pull you over. Never undo with a click wrench over its range.'],
  example: { how: 'moved', least: '22 lbf·ft', moved: '13 lbf·ft' },
  compute(input): Result<Judged> {
    const { least } = input;
    const cover = COVER * input.wrenchU;
    if (input.how === 'moved') {
      const { moved } = input;
      if (moved === undefined) return refuse({ code: 'required', field: 'moved', quantity: 'torque' });
      return ok(judge(moved * (1 - cover), moved * (1 + cover), moved, least, 'Pull again, slower, with a wrench that reads closer.'));
    }
    const { held, letGo } = input;
    if (letGo === undefined && held === 0) return refuse({ code: 'required', field: 'letGo', quantity: 'torque' });
    if (letGo !== undefined && letGo <= held)
      return refuse({
        code: 'window-upside-down',
        field: 'letGo',
        received: formatQuantity(letGo, 'torque'),
        bound: formatQuantity(held, 'torque'),
      });
    const high = letGo === undefined ? undefined : letGo * (1 + cover);
    // The nearest of the bracket to the minimum is the kindest reading of it.
    return ok(
      judge(
        held * (1 - cover),
        high,
        letGo ?? held,
        least,
        `Set the wrench to ${formatQuantity(least * (1 + cover), 'torque')}: a click that moves nothing settles it.`,
      ),
    );
  },
  explain(input, output) {
    const nm = (torque: number | undefined): string =>
      torque === undefined ? 'more, how much is not known' : formatQuantity(torque, 'torque');
    return [
      {
        say:
          input.how === 'moved'
            ? 'The reading with twice the uncertainty of the wrench either way.'
            : 'It holds the one setting and lets go at the other.',
        formula: input.how === 'moved' ? 'M·(1 ± 2w)' : 'a·(1 − 2w) … b·(1 + 2w)',
        numbers: `${nm(output.low)} to ${nm(output.high)}`,
      },
      {
        say: `Against the least it must hold, ${nm(input.least)}, ${input.direction === 'tighten' ? 'clockwise' : 'anticlockwise'}.`,
        numbers: output.short > 0 ? `${nm(output.short)} short` : 'holds',
      },
    ];
  },
});

function judge(low: number, high: number | undefined, found: number, least: number, settle: string): Judged {
  const verdict = low >= least ? 'in' : high !== undefined && high < least ? 'out' : 'unsure';
  return { verdict, low, high, short: Math.max(0, least - found), settle: verdict === 'unsure' ? settle : 'Nothing: it is settled.' };
}
