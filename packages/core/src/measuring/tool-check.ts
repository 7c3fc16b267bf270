import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { VERDICT, worstOf } from './verdict-field.js';
import { judge } from './verdict.js';

/** A wrench whose largest torque is no more than this, N·m, may be off by 6 %. */
const SMALL_NM = 10;
const WIDE_SHARE = 0.06;
const CLOSE_SHARE = 0.04;
/** Kinds that may be off by 6 % whatever their size. */
const WIDE_KINDS: ReadonlySet<string> = new Set(['beam', 'limiting-driver']);

/**
 * Is the torque wrench still good?
 *
 * Deviation = (set or shown − true) / true at each point, at 20, 60 and 100 % of its range or more.
 * Allowed: 4 %; 6 % for a tool whose largest torque is up to 10 N·m, and for beam wrenches and screwdrivers.
 * Judged with the uncertainty of the checker.
 *
 * Example: set 100 N·m and read 98 N·m by the checker is 2.0 % over: in.
 */
export const toolCheck = defineWorking({
  id: 'tool.check',
  title: 'Is the torque wrench still good?',
  area: 'measuring',
  inputs: [
    {
      kind: 'choice',
      name: 'type',
      label: 'Wrench',
      default: 'click',
      choices: [
        { id: 'click', label: 'click, adjustable' },
        { id: 'dial', label: 'dial or digital' },
        { id: 'beam', label: 'beam' },
        { id: 'limiting-driver', label: 'torque screwdriver' },
      ],
      help: 'How it tells the torque.',
    },
    {
      kind: 'table',
      name: 'points',
      label: 'Checks',
      columns: [
        { name: 'set', label: 'set or shown', quantity: 'torque' },
        { name: 'true', label: 'by the checker', quantity: 'torque' },
      ],
      fewest: 1,
      most: 50,
      help: 'Five at each of 20, 60 and 100 % of the range is what the standard asks.',
    },
    {
      kind: 'number',
      name: 'largest',
      label: 'Largest torque of the tool',
      quantity: 'torque',
      above: 0,
      max: 20_000,
      optional: true,
      help: 'End of its scale, which sets its class; the largest point when left empty.',
    },
    {
      kind: 'number',
      name: 'checkerU',
      label: 'Uncertainty of the checker',
      quantity: 'ratio',
      min: 0,
      max: 0.05,
      default: 0.005,
      help: 'Standard, as a share.',
    },
  ],
  outputs: [
    VERDICT,
    {
      kind: 'number',
      name: 'worst',
      label: 'Worst',
      quantity: 'ratio',
      help: 'Largest deviation, plus when the wrench says more than it gave.',
    },
    {
      kind: 'table',
      name: 'deviations',
      label: 'Point by point',
      columns: [
        { name: 'set', label: 'set', quantity: 'torque' },
        { name: 'share', label: 'off by', quantity: 'ratio', share: true },
        { name: 'allowed', label: 'allowed', quantity: 'ratio' },
        { name: 'verdict', label: 'verdict', quantity: 'text' },
      ],
      help: 'One line for each check.',
    },
  ],
  sources: [{ kind: 'standard', document: 'ISO 6789-1', edition: '2017', clause: '5', for: 'the deviations allowed', fromMemory: true }],
  cautions: ['A wrench found out puts every joint pulled with it since its last good check in doubt.'],
  example: {
    points: [
      { set: 40, true: 39.5 },
      { set: 120, true: 117.6 },
      { set: 200, true: 194 },
    ],
  },
  compute(input) {
    for (const [index, row] of input.points.entries())
      if (Number(row['true']) <= 0)
        return refuse({
          code: 'too-small',
          field: `points[${index}].true`,
          label: `Checks, row ${index + 1}, by the checker`,
          received: String(row['true']),
          bound: 'more than 0 N·m',
        });
    const points = input.points.map((row) => Number(row['set']));
    const largest = input.largest ?? Math.max(...points);
    const over = points.findIndex((set) => set > largest * (1 + 1e-9));
    if (over !== -1)
      return refuse({
        code: 'too-large',
        field: `points[${over}].set`,
        label: `Checks, row ${over + 1}, set or shown`,
        received: formatQuantity(points[over]!, 'torque'),
        bound: `the largest torque of the tool, ${formatQuantity(largest, 'torque')}`,
      });
    const allowed = WIDE_KINDS.has(input.type) || largest <= SMALL_NM ? WIDE_SHARE : CLOSE_SHARE;
    const deviations = input.points.map((row) => {
      const set = Number(row['set']);
      const share = set / Number(row['true']) - 1;
      return { set, share, allowed, verdict: judge(share, input.checkerU, { lower: -allowed, upper: allowed }) };
    });
    const worst = deviations.reduce((most, { share }) => (Math.abs(share) > Math.abs(most) ? share : most), 0);
    return ok({ verdict: worstOf(deviations.map(({ verdict }) => verdict)), worst, deviations });
  },
  explain: (_input, output) => [
    {
      say: 'Each point against the checker.',
      formula: '(set − true) / true',
      numbers: `worst ${formatQuantity(output.worst, 'ratio', '%')}`,
    },
    {
      say: `Allowed: ${output.deviations
        .map((row) => formatQuantity(Number(row['allowed']), 'ratio', '%'))
        .filter((share, index, all) => all.indexOf(share) === index)
        .join(' or ')}. ${output.verdict}.`,
    },
  ],
});
