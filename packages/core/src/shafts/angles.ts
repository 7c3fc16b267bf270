import { degrees } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

const RADIANS = Math.PI / 180;
/** Left over, seen as one joint; common practice for shafts that are felt. */
const MOST_LEFT_DEGREES = 3;
/** One joint; over it the needles pound. Common practice; its own sheet goes first. */
const MOST_JOINT_DEGREES = 10;
/** Under it the needles do not roll and dent their races. Common practice. */
const LEAST_JOINT_DEGREES = 0.5;

/**
 * Do the joints of this shaft cancel each other?
 *
 * Working angle of each joint from the slopes of the two shafts it joins, in side and top view. The
 * twice-a-turn errors add as arrows: magnitude θ², direction twice the angle that the joint's plane
 * makes with the yokes. What is left, θr = √|Σ ± θ²|, should stay small; yokes at the ends of a shaft
 * lie in one plane. Holds for cardan joints; constant velocity joints cancel by themselves.
 *
 * Example: 3° and 3° with parallel ends: nothing is left.
 */
export const drivelineAngles = defineWorking({
  id: 'driveline.angles',
  title: 'Do the joints of this shaft cancel each other?',
  area: 'shafts',
  inputs: [
    {
      kind: 'table',
      name: 'shafts',
      label: 'Shafts, from the gearbox on',
      columns: [
        { name: 'shaft', label: 'shaft', quantity: 'text' },
        { name: 'down', label: 'down to the rear', quantity: 'angle' },
        { name: 'left', label: 'to the left', quantity: 'angle' },
      ],
      fewest: 3,
      most: 8,
      help: 'Slope of each in side view, and its run to the left in top view: 0 where it runs straight.',
    },
    {
      kind: 'choice',
      name: 'phase',
      label: 'Yokes of a shaft',
      default: 'in',
      choices: [
        { id: 'in', label: 'in one plane' },
        { id: 'quarter', label: 'a quarter turn apart' },
      ],
      help: 'At the two ends of each middle shaft.',
    },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'verdict',
      label: 'Verdict',
      choices: [
        { id: 'in', label: 'runs smoothly' },
        { id: 'out', label: 'will shake' },
      ],
      help: 'Of what is left, and of each joint.',
    },
    { kind: 'number', name: 'left', label: 'Left over', quantity: 'angle', help: 'As if it were one joint; at most 3°.' },
    {
      kind: 'number',
      name: 'unsteady',
      label: 'Unsteady by',
      quantity: 'ratio',
      help: 'Speed of the last shaft, up and down, as a share.',
    },
    {
      kind: 'table',
      name: 'joints',
      label: 'Joint by joint',
      columns: [
        { name: 'joint', label: 'joint', quantity: 'text' },
        { name: 'angle', label: 'works at', quantity: 'angle' },
        { name: 'why', label: 'which is', quantity: 'text' },
      ],
      help: 'Between one shaft and the next.',
    },
    { kind: 'text', name: 'what', label: 'So', longest: 300, help: 'What to change.' },
  ],
  sources: [
    {
      kind: 'handbook',
      document: 'Universal joint and driveshaft design manuals',
      for: 'resultant of several joints as arrows of θ²',
      fromMemory: true,
    },
    { kind: 'common practice', document: 'at most 3° left over, yokes in phase, never under half a degree', for: 'the limits' },
  ],
  cautions: ['A shaft that comes off swings: strap it before the last screw, and mark both flanges first.'],
  serves: [{ at: 'build', families: ['propeller shaft with centre bearing'] }],
  example: {
    shafts: [
      { shaft: 'gearbox', down: 3, left: 0 },
      { shaft: 'shaft', down: 6, left: 0 },
      { shaft: 'axle', down: 3.5, left: 0 },
    ],
  },
  compute(input) {
    const shafts = input.shafts.map((row) => ({ name: String(row['shaft']), down: Number(row['down']), left: Number(row['left']) }));
    const steep = shafts.findIndex(({ down, left }) => Math.abs(down) > 45 || Math.abs(left) > 45);
    if (steep !== -1)
      return refuse({
        code: 'outside-method',
        field: `shafts[${steep}].down`,
        label: `Shafts, row ${steep + 1}`,
        received: degrees(shafts[steep]!.down),
        bound: 'slopes to 45°',
      });
    const joints = shafts.slice(1).map((shaft, index) => {
      const before = shafts[index]!;
      const bend = {
        x: Math.tan(shaft.down * RADIANS) - Math.tan(before.down * RADIANS),
        y: Math.tan(shaft.left * RADIANS) - Math.tan(before.left * RADIANS),
      };
      return { name: `${before.name} – ${shaft.name}`, angle: between(before, shaft), plane: Math.atan2(bend.y, bend.x) };
    });
    let [real, imaginary] = [0, 0];
    joints.forEach(({ angle, plane }, index) => {
      // From joint to joint the driving yoke stands a quarter turn on; a shaft whose yokes are a quarter apart undoes that.
      const sign = input.phase === 'in' && index % 2 === 1 ? -1 : 1;
      const squared = (angle * RADIANS) ** 2;
      real += sign * squared * Math.cos(2 * plane);
      imaginary += sign * squared * Math.sin(2 * plane);
    });
    const left = Math.sqrt(Math.hypot(real, imaginary)) / RADIANS;
    const tooSteep = joints.filter(({ angle }) => angle > MOST_JOINT_DEGREES);
    const tooStraight = joints.filter(({ angle }) => angle < LEAST_JOINT_DEGREES);
    const what =
      left > MOST_LEFT_DEGREES
        ? input.phase === 'quarter'
          ? 'Put the yokes of each shaft in one plane: they stand a quarter turn off.'
          : 'The ends are not parallel: wedge or shim the axle or the gearbox until the two slopes are alike.'
        : tooSteep.length > 0
          ? `${tooSteep.map(({ name }) => name).join(', ')} works too steeply.`
          : tooStraight.length > 0
            ? `${tooStraight.map(({ name }) => name).join(', ')} hardly moves: needles that stand still dent their races. Half a degree or more.`
            : 'Good: mark the yokes of each shaft in one plane before it comes apart.';
    return ok({
      verdict: left > MOST_LEFT_DEGREES || tooSteep.length > 0 ? ('out' as const) : ('in' as const),
      left,
      unsteady: (left * RADIANS) ** 2 / 2,
      joints: joints.map(({ name, angle }) => ({
        joint: name,
        angle,
        why: angle > MOST_JOINT_DEGREES ? 'too steep' : angle < LEAST_JOINT_DEGREES ? 'too straight' : 'good',
      })),
      what,
    });
  },
  explain: (input, output) => [
    {
      say: 'Angle of each joint, in space.',
      formula: 'cos θ = product of the two directions',
      numbers: output.joints.map((row) => `${String(row['joint'])}: ${degrees(Number(row['angle']))}`).join('; '),
    },
    {
      say:
        input.phase === 'in'
          ? 'With yokes in one plane every second joint takes back.'
          : 'With yokes a quarter turn apart every joint adds.',
      formula: 'θr = √|Σ ± θ²·e^(2iφ)|',
      numbers: degrees(output.left),
    },
    { say: output.what },
  ],
});

interface Direction {
  readonly down: number;
  readonly left: number;
}

function between(one: Direction, other: Direction): number {
  const a = [1, Math.tan(one.down * RADIANS), Math.tan(one.left * RADIANS)] as const;
  const b = [1, Math.tan(other.down * RADIANS), Math.tan(other.left * RADIANS)] as const;
  // By the cross product: small angles keep their digits.
  const cross = Math.hypot(a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]);
  return Math.atan2(cross, a[0] * b[0] + a[1] * b[1] + a[2] * b[2]) / RADIANS;
}
