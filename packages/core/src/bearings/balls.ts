import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * How many loose balls go in?
 *
 * n full = ⌊π / asin(d/Dp)⌋; one less works: the gap left is the arc that the others do not
 * fill. Both sides of a hub have the same number. Holds for one row without a cage.
 *
 * Example: 6.35 mm on a 26 mm circle: 12 fill it, 11 work.
 */
export const balls = defineWorking({
  id: 'bearing.balls',
  title: 'How many loose balls go in?',
  area: 'bearings',
  inputs: [
    {
      kind: 'number',
      name: 'ball',
      label: 'Ball',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 100,
      help: 'Its diameter, 1/4 in for many hubs.',
    },
    {
      kind: 'number',
      name: 'circle',
      label: 'Pitch circle',
      symbol: 'Dp',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Of the balls’ centres: the cone at the contact and one ball.',
    },
    { kind: 'number', name: 'left', label: 'Came out, one side', quantity: 'count', min: 0, max: 200, optional: true, help: 'As counted.' },
    {
      kind: 'number',
      name: 'right',
      label: 'Came out, other side',
      quantity: 'count',
      min: 0,
      max: 200,
      optional: true,
      help: 'As counted.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'working', label: 'Put in each side', quantity: 'count', help: 'One less than fills it.' },
    { kind: 'number', name: 'full', label: 'Would fill it', quantity: 'count', help: 'Ball to ball, none moving.' },
    { kind: 'number', name: 'gap', label: 'Gap left', quantity: 'length', help: 'Along the pitch circle, with the working number.' },
    { kind: 'text', name: 'what', label: 'So', longest: 200, help: 'What the count on the bench says.' },
  ],
  sources: [
    { kind: 'derivation', document: 'balls touch at chords of one diameter', for: 'n = ⌊π / asin(d/Dp)⌋' },
    { kind: 'common practice', document: 'one ball less than fills the row, the same number each side', for: 'the working number' },
  ],
  cautions: [],
  serves: [{ at: 'build', families: ['cup-and-cone loose-ball hub'] }],
  example: { ball: '6.35 mm', circle: '26 mm', left: 11, right: 10 },
  compute({ ball, circle, left, right }) {
    if (ball >= circle)
      return refuse({ code: 'too-large', field: 'ball', received: mm(ball), bound: `less than the pitch circle, ${mm(circle)}` });
    const half = Math.asin(ball / circle);
    // A row that fits to the last micron is full.
    const full = Math.floor(Math.PI / half + 1e-9);
    if (full < 3) return refuse({ code: 'outside-method', field: 'ball', received: mm(ball), bound: 'three balls or more in a row' });
    const working = full - 1;
    const counted = [left, right].filter((count): count is number => count !== undefined);
    const what =
      counted.length === 2 && left !== right
        ? `${left} and ${right} came out: one is lost, or the two sides are not alike. Both get the same.`
        : counted.some((count) => count > full)
          ? `More came out than ${full} that fill the row: another ball size, or both rows in one tray.`
          : counted.some((count) => count !== working)
            ? `${counted[0]} came out; ${working} is the usual number for this row.`
            : 'As it should be.';
    return ok({ working, full, gap: ((2 * Math.PI - 2 * half * working) * circle) / 2, what });
  },
  explain: (input, output) => [
    { say: 'Ball to ball.', formula: 'n = ⌊π / asin(d/Dp)⌋', numbers: `${mm(input.ball)} on ${mm(input.circle)}: ${output.full}` },
    { say: 'One less leaves room to roll.', numbers: `${output.working}, with ${mm(output.gap)} of gap` },
  ],
});
