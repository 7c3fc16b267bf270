import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** A measured peak within this share of an expected one, or of its second harmonic, is taken for it: slip and belt. */
const NEAR_SHARE = 0.02;

/**
 * Which part of the bearing makes the noise?
 *
 * For one turn of one ring against the other, with n balls of d on a pitch circle D and contact angle α,
 * q = d/D·cos α: outer race n·(1 − q)/2, inner race n·(1 + q)/2, a ball on either race (1 − q²)·D/d. The cage turns
 * (1 − q)/2 with the inner ring, (1 + q)/2 with the outer one (a hub). Times the speed. Without slip.
 *
 * Example: a 6205 (9 balls, 7.94 on 39.04 mm): outer 3.5848, inner 5.4152, cage 0.3983 per turn.
 */
export const noise = defineWorking({
  id: 'bearing.noise',
  title: 'Which part of the bearing makes the noise?',
  area: 'bearings',
  inputs: [
    { kind: 'number', name: 'balls', label: 'Balls or rollers', quantity: 'count', min: 3, max: 200, help: 'In one row.' },
    {
      kind: 'number',
      name: 'ball',
      label: 'Ball diameter',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 500,
      help: 'Or mean roller diameter.',
    },
    {
      kind: 'number',
      name: 'pitch',
      label: 'Pitch circle',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 5000,
      help: 'Diameter through the ball centres: near enough (bore + outside)/2.',
    },
    {
      kind: 'number',
      name: 'angle',
      label: 'Contact angle',
      symbol: 'α',
      quantity: 'angle',
      min: 0,
      max: 89,
      default: 0,
      help: '0 for a deep-groove ball bearing.',
    },
    {
      kind: 'number',
      name: 'speed',
      label: 'It turns',
      quantity: 'speed',
      above: 0,
      max: 200_000,
      help: 'One ring against the other.',
    },
    {
      kind: 'choice',
      name: 'turning',
      label: 'What turns',
      default: 'inner',
      choices: [
        { id: 'inner', label: 'the inner ring: a shaft' },
        { id: 'outer', label: 'the outer ring: a hub' },
      ],
      help: 'Sets how fast the cage goes round.',
    },
    {
      kind: 'list',
      name: 'peaks',
      label: 'Peaks heard',
      quantity: 'speed',
      fewest: 0,
      most: 20,
      min: 0,
      max: 1e7,
      default: [],
      help: 'Frequencies of the noise: "89.6 Hz".',
    },
  ],
  outputs: [
    { kind: 'text', name: 'what', label: 'It points to', longest: 300, help: 'Peaks that match a part.' },
    { kind: 'number', name: 'outer', label: 'Outer race', quantity: 'ratio', help: 'Strikes for one turn.' },
    { kind: 'number', name: 'inner', label: 'Inner race', quantity: 'ratio', help: 'Strikes for one turn.' },
    { kind: 'number', name: 'cage', label: 'Cage', quantity: 'ratio', help: 'Turns for one turn.' },
    {
      kind: 'number',
      name: 'rolling',
      label: 'Ball',
      quantity: 'ratio',
      help: 'Strikes of one flaw on a ball, on both races, for one turn.',
    },
    {
      kind: 'table',
      name: 'table',
      label: 'At this speed',
      columns: [
        { name: 'part', label: 'part', quantity: 'text' },
        { name: 'hertz', label: 'Hz', quantity: 'ratio' },
      ],
      help: 'What to look for.',
    },
  ],
  sources: [
    { kind: 'derivation', document: 'rolling without slip', for: 'the frequencies' },
    {
      kind: 'handbook',
      document: 'bearing data of the public Case Western Reserve University test set',
      for: 'the 6205 of the example',
      fromMemory: true,
    },
  ],
  cautions: ['Keep clear of what turns while you listen.'],
  serves: [{ at: 'measure', families: ['belt-driven blower nose drive', 'propeller shaft with centre bearing'], rank: 2 }],
  example: { balls: 9, ball: 7.94, pitch: 39.04, speed: 1797, peaks: ['107.4 Hz'] },
  compute(input) {
    if (input.ball >= input.pitch)
      return refuse({
        code: 'too-large',
        field: 'ball',
        received: formatQuantity(input.ball, 'length'),
        bound: `less than the pitch circle ${formatQuantity(input.pitch, 'length')}`,
      });
    const q = (input.ball / input.pitch) * Math.cos((input.angle * Math.PI) / 180);
    const cage = (input.turning === 'inner' ? 1 - q : 1 + q) / 2;
    const outer = (input.balls * (1 - q)) / 2;
    const inner = (input.balls * (1 + q)) / 2;
    const rolling = (1 - q * q) * (input.pitch / input.ball);
    const hertz = input.speed / 60;
    const parts = [
      { part: 'outer race', strikes: outer },
      { part: 'inner race', strikes: inner },
      { part: 'cage', strikes: cage },
      { part: 'ball', strikes: rolling },
      { part: input.turning === 'inner' ? 'shaft (unbalance, bend)' : 'hub (unbalance, bend)', strikes: 1 },
    ];
    const matches = input.peaks.flatMap((peak) =>
      parts.flatMap(({ part, strikes }) =>
        [1, 2]
          .filter((times) => Math.abs(peak / (input.speed * strikes * times) - 1) <= NEAR_SHARE)
          .map((times) => `${part}${times === 2 ? ' (twice its frequency)' : ''}`),
      ),
    );
    return ok({
      what:
        input.peaks.length === 0
          ? 'no peak given'
          : matches.length === 0
            ? 'none of its parts: look elsewhere'
            : [...new Set(matches)].join(', '),
      outer,
      inner,
      cage,
      rolling,
      table: parts.map(({ part, strikes }) => ({ part, hertz: strikes * hertz })),
    });
  },
  explain(input, output) {
    return [
      {
        say: 'Ball over pitch circle, along the line of contact.',
        formula: 'q = d/D · cos α',
        numbers: ((input.ball / input.pitch) * Math.cos((input.angle * Math.PI) / 180)).toFixed(5),
      },
      {
        say: 'For one turn.',
        formula: 'cage (1 ∓ q)/2, outer n(1 − q)/2, inner n(1 + q)/2, ball (1 − q²)·D/d',
        numbers: `${output.cage.toFixed(4)}, ${output.outer.toFixed(4)}, ${output.inner.toFixed(4)}, ${output.rolling.toFixed(4)}`,
      },
      { say: `It points to: ${output.what}.` },
    ];
  },
});
