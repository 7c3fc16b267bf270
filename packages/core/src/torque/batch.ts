import { judge } from '../measuring/verdict.js';
import { VERDICT, worstOf, type Verdict } from '../measuring/verdict-field.js';
import { degrees, newtonMetres, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** So far off the middle of its brothers a pull is looked at; common practice. */
export const LITTLE_ANGLE = 0.5;
export const MUCH_ANGLE = 1.6;

/**
 * All screws of a joint: which pull looks wrong?
 *
 * Each against the window of the joint; the angle from snug against the median of its brothers:
 * torque with little angle is a hole that ends, a crossed thread or a second hit; much angle a
 * screw that stretches, a soft part or a thread that gives. Holds for like screws in like holes.
 *
 * Example: seven at 60° and one at 22°: the one that stopped early.
 */
export const batch = defineWorking({
  id: 'torque.batch',
  title: 'All screws of a joint: which pull looks wrong?',
  area: 'torque',
  inputs: [
    { kind: 'number', name: 'from', label: 'From', quantity: 'torque', min: 0, max: 20_000, help: 'Lower end of the joint’s window.' },
    { kind: 'number', name: 'to', label: 'To', quantity: 'torque', above: 0, max: 20_000, help: 'Upper end of the joint’s window.' },
    {
      kind: 'table',
      name: 'pulls',
      label: 'Pulls',
      columns: [
        { name: 'screw', label: 'screw', quantity: 'text' },
        { name: 'torque', label: 'torque', quantity: 'torque' },
        { name: 'angle', label: 'angle from snug', quantity: 'angle' },
      ],
      fewest: 2,
      most: 500,
      help: 'Screw, torque, angle from snug; 0° for all where the wrench has none.',
    },
    {
      kind: 'number',
      name: 'u',
      label: 'Wrench good to',
      quantity: 'ratio',
      min: 0,
      max: 0.2,
      default: 0.02,
      help: 'Standard, as a share.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'mean', label: 'Mean', quantity: 'torque', help: 'Of all pulls.' },
    { kind: 'number', name: 'spread', label: 'Spread', symbol: 's', quantity: 'torque', help: 'Standard deviation.' },
    { kind: 'number', name: 'wrong', label: 'To be looked at', quantity: 'count', help: 'How many.' },
    {
      kind: 'table',
      name: 'each',
      label: 'Screw by screw',
      columns: [
        { name: 'screw', label: 'screw', quantity: 'text' },
        { name: 'verdict', label: 'torque', quantity: 'text' },
        { name: 'why', label: 'what it looks like', quantity: 'text' },
      ],
      help: 'Only those that are not plainly good say more.',
    },
  ],
  sources: [
    { kind: 'common practice', document: 'angle at torque tells a stopped screw from a giving one', for: 'what a pull looks like' },
  ],
  cautions: ['A screw that stopped early is tight on itself and clamps nothing: take it out and look.'],
  serves: [{ at: 'build', rank: 15 }],
  example: {
    from: 22,
    to: 26,
    pulls: [
      { screw: '1', torque: 24.1, angle: 61 },
      { screw: '2', torque: 24.0, angle: 58 },
      { screw: '3', torque: 24.2, angle: 22 },
      { screw: '4', torque: 23.9, angle: 63 },
    ],
  },
  compute(input) {
    if (input.to < input.from)
      return refuse({ code: 'window-upside-down', field: 'to', received: newtonMetres(input.to), bound: newtonMetres(input.from) });
    const pulls = input.pulls.map((row) => ({ screw: String(row['screw']), torque: Number(row['torque']), angle: Number(row['angle']) }));
    const below = pulls.findIndex(({ torque, angle }) => torque < 0 || angle < 0);
    if (below !== -1)
      return refuse({
        code: 'too-small',
        field: `pulls[${below}].torque`,
        label: `Pulls, row ${below + 1}`,
        received: newtonMetres(pulls[below]!.torque),
        bound: '0',
      });
    const twice = pulls.findIndex(({ screw }, index) => pulls.findIndex((other) => other.screw === screw) !== index);
    if (twice !== -1)
      return refuse({
        code: 'said-twice',
        field: `pulls[${twice}].screw`,
        label: `Pulls, row ${twice + 1}`,
        received: pulls[twice]!.screw,
      });
    const middle = median(pulls.map(({ angle }) => angle));
    const each = pulls.map(({ screw, torque, angle }) => {
      const verdict: Verdict = judge(torque, input.u * torque, { lower: input.from, upper: input.to });
      return { screw, verdict, why: looks(torque, angle, middle, input) };
    });
    const mean = pulls.reduce((sum, { torque }) => sum + torque, 0) / pulls.length;
    const odd = each.filter(({ verdict, why }) => verdict === 'out' || why !== 'like its brothers');
    return ok({
      verdict: odd.length > 0 ? worstOf([...each.map(({ verdict }) => verdict), 'unsure']) : worstOf(each.map(({ verdict }) => verdict)),
      mean,
      spread: Math.sqrt(pulls.reduce((sum, { torque }) => sum + (torque - mean) ** 2, 0) / (pulls.length - 1)),
      wrong: odd.length,
      each,
    });
  },
  explain: (input, output) => [
    {
      say: 'Mean and spread of the torques.',
      numbers: `${newtonMetres(output.mean)}, s ${newtonMetres(output.spread)}${output.mean > 0 ? ` (${percent(output.spread / output.mean)})` : ''}, window ${newtonMetres(input.from)} to ${newtonMetres(input.to)}`,
    },
    { say: 'Each angle against the middle of its brothers.', numbers: degrees(median(input.pulls.map((row) => Number(row['angle'])))) },
    ...output.each
      .filter((row) => row['why'] !== 'like its brothers')
      .map((row) => ({ say: `${String(row['screw'])}: ${String(row['why'])}.` })),
  ],
});

function looks(torque: number, angle: number, middle: number, { from, to }: { readonly from: number; readonly to: number }): string {
  if (torque > to) return 'too tight: slacken it and pull it again; a screw that was over its torque is a new one';
  if (middle > 0 && angle < LITTLE_ANGLE * middle) return 'stopped early: crossed thread, a hole that ends, or pulled a second time';
  if (middle > 0 && angle > MUCH_ANGLE * middle)
    return 'turned too far: the screw stretches, the thread gives, or something soft lies between';
  return torque < from ? 'not reached: pull it again, or the thread gives' : 'like its brothers';
}

function median(figures: readonly number[]): number {
  const sorted = figures.toSorted((one, other) => one - other);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
