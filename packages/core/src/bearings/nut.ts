import { formatQuantity } from '../quantity/format.js';
import type { Row } from '../working/describe.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** A nut that stands on its bearings is never so far off. Common practice. */
const MOST_TURNS = 2;
const TURN = 360;
/** Two lock positions nearer than this are one. */
const SAME_DEGREE = 1e-6;
/** How many positions either side of the wanted one are worth showing. */
const SHOWN_EACH_SIDE = 4;

interface LockRow {
  readonly angle: number;
  readonly travel: number;
  readonly play: number;
  readonly inside: boolean;
}

/**
 * From the dial reading now, how far do I turn the nut, and which slot locks it?
 *
 * travel = P · θ / 360, play after = play now − travel − lock shift, for tightening θ > 0.
 * Lock positions of the nut: the union of k · 360/N − h over all pin-hole openings h (degrees,
 * counted against the tightening direction; a through hole is two openings 180° apart, and its pin a slot on both
 * sides: with an odd number of slots there is none).
 * Holds from a **measured play above zero** to zero; below zero travel becomes preload and this
 * sum no longer tells it. A nut that is still seated must be backed off and read again.
 *
 * Example: 0.21 mm, pitch 1.5 mm, 6 slots, crossed holes, wanted 0.03 to 0.13: 30° more leaves
 * 0.085 mm.
 */
export const nut = defineWorking({
  id: 'bearing.nut',
  title: 'From the dial reading now, how far do I turn the nut, and which slot locks it?',
  area: 'bearings',
  inputs: [
    {
      kind: 'number',
      name: 'playNow',
      label: 'End play now',
      symbol: 'E',
      quantity: 'length',
      above: 0,
      max: 5,
      help: 'Dial reading with the nut where it is, mean of the pulls. It must be above zero.',
    },
    { kind: 'number', name: 'from', label: 'Window from', quantity: 'length', min: 0, max: 5, help: 'Least end play after locking.' },
    { kind: 'number', name: 'to', label: 'Window to', quantity: 'length', above: 0, max: 5, help: 'Most end play after locking.' },
    {
      kind: 'number',
      name: 'aim',
      label: 'Aim',
      quantity: 'length',
      min: 0,
      max: 5,
      optional: true,
      help: 'Where in the window; its middle when left empty.',
    },
    {
      kind: 'number',
      name: 'pitch',
      label: 'Thread pitch',
      symbol: 'P',
      quantity: 'pitch',
      min: 0.2,
      max: 6.5,
      help: 'Of the spindle thread: 1.5 mm or 12 tpi.',
    },
    {
      kind: 'number',
      name: 'slots',
      label: 'Slots in the nut',
      symbol: 'N',
      quantity: 'count',
      min: 1,
      max: 72,
      help: 'Castellations, or holes of the lock plate.',
    },
    {
      kind: 'list',
      name: 'openings',
      label: 'Pin-hole openings',
      symbol: 'h',
      quantity: 'angle',
      fewest: 1,
      most: 12,
      min: 0,
      max: 359.999,
      default: [0, 180],
      help: 'Angles of the openings round the spindle. One hole right through: 0 180. Crossed holes: 0 90 180 270.',
    },
    {
      kind: 'number',
      name: 'ahead',
      label: 'Slot stands off by',
      quantity: 'angle',
      min: 0,
      max: 360,
      default: 0,
      help: 'How far to tighten until a slot stands at the first opening; 0 when one does now.',
    },
    {
      kind: 'number',
      name: 'lockShift',
      label: 'Locking takes up',
      quantity: 'length',
      min: -1,
      max: 1,
      default: 0,
      help: 'Play lost when the lock is put on, as measured before; 0 for a pin.',
    },
    {
      kind: 'number',
      name: 'tryAngle',
      label: 'What if I turn',
      symbol: 'θ',
      quantity: 'angle',
      min: -720,
      max: 720,
      optional: true,
      help: 'Tightening is plus. Gives the travel and play of that turn as well.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'angle', label: 'Turn the nut', quantity: 'angle', help: 'Plus tightens, minus loosens.' },
    { kind: 'number', name: 'play', label: 'Leaves end play', quantity: 'length', help: 'After locking.' },
    {
      kind: 'choice',
      name: 'verdict',
      label: 'Verdict',
      choices: [
        { id: 'in', label: 'inside the window' },
        { id: 'out', label: 'no slot lands inside the window' },
      ],
      help: 'Whether a lock position lands inside.',
    },
    { kind: 'number', name: 'exactAngle', label: 'Exact turn to the aim', quantity: 'angle', help: 'If the nut could be locked anywhere.' },
    { kind: 'number', name: 'positions', label: 'Lock positions a turn', quantity: 'count', help: 'From slots and openings.' },
    {
      kind: 'number',
      name: 'travelPerPosition',
      label: 'Play for one position',
      quantity: 'length',
      help: 'Pitch over positions; the mean where they are uneven.',
    },
    { kind: 'number', name: 'slotsMoved', label: 'Positions to move', quantity: 'count', help: 'Plus tightens.' },
    {
      kind: 'number',
      name: 'tryTravel',
      label: 'Travel of that turn',
      quantity: 'length',
      optional: true,
      help: 'Of the turn asked about.',
    },
    {
      kind: 'number',
      name: 'tryPlay',
      label: 'Play after that turn',
      quantity: 'length',
      optional: true,
      help: 'Below zero it would be preload, not play.',
    },
    {
      kind: 'table',
      name: 'turns',
      label: 'Where it can be locked',
      columns: [
        { name: 'angle', label: 'Turn', quantity: 'angle' },
        { name: 'travel', label: 'Travel', quantity: 'length' },
        { name: 'play', label: 'Leaves', quantity: 'length' },
        { name: 'inside', label: 'In the window', quantity: 'yes-no' },
      ],
      help: 'The lock positions either side of the best.',
    },
  ],
  sources: [
    { kind: 'derivation', document: 'Geometry of a screw thread: one turn moves the nut by its pitch', for: 'travel = P · θ / 360' },
    {
      kind: 'standard',
      document: 'TMC RP 618 (wheel bearing adjustment)',
      for: 'the dial method, and 0.001–0.005 in as the window for adjustable truck hubs',
      fromMemory: true,
    },
  ],
  cautions: [
    'From a nut that is still seated the first part of the back-off only lets preload go: back off, rock the hub, and read again.',
  ],
  serves: [{ at: 'setting', kinds: ['end-play', 'depth'], methods: ['locknut'], preset: { from: 'from', to: 'to', playNow: 'last' } }],
  example: { playNow: '0.21 mm', from: '0.03 mm', to: '0.13 mm', pitch: '1.5 mm', slots: 6, openings: [0, 90, 180, 270] },
  compute(input) {
    if (input.to < input.from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(input.to), bound: mm(input.from) });
    const aim = input.aim ?? (input.from + input.to) / 2;
    if (aim < input.from || aim > input.to)
      return refuse({ code: 'aim-outside', field: 'aim', received: mm(aim), bound: `${mm(input.from)} to ${mm(input.to)}` });

    if (pinFindsNoSlot(input.slots, input.openings))
      return refuse({
        code: 'cannot-be',
        field: 'slots',
        received: String(input.slots),
        bound: `a pin through the spindle needs a slot on both sides, and of ${input.slots} none has one opposite. Count them again, or give the one opening that locks`,
      });
    const positions = lockPositions(input.slots, input.openings);
    const playAt = (angle: number): number => input.playNow - (input.pitch * angle) / TURN - input.lockShift;
    const exactAngle = ((input.playNow - input.lockShift - aim) * TURN) / input.pitch;
    if (exactAngle > MOST_TURNS * TURN)
      return refuse({
        code: 'too-large',
        field: 'playNow',
        received: mm(input.playNow),
        bound: `${mm(MOST_TURNS * input.pitch)}, ${MOST_TURNS} turns of this nut: the bearings are not seated yet; seat them, back off, read again`,
      });
    const rows = near(positions, input, exactAngle).map((angle): LockRow => {
      const play = settle(playAt(angle), input.from, input.to);
      return { angle, travel: (input.pitch * angle) / TURN, play, inside: play >= input.from && play <= input.to };
    });
    const best = chooseRow(rows, aim, input.from, input.to);
    if (!best) throw new Error('a nut without lock positions got through');
    const bestIndex = rows.indexOf(best);
    return ok({
      angle: best.angle,
      play: best.play,
      verdict: best.inside ? ('in' as const) : ('out' as const),
      exactAngle,
      positions: positions.length,
      travelPerPosition: input.pitch / positions.length,
      slotsMoved: Math.round((best.angle / TURN) * positions.length),
      tryTravel: input.tryAngle === undefined ? undefined : (input.pitch * input.tryAngle) / TURN,
      tryPlay: input.tryAngle === undefined ? undefined : playAt(input.tryAngle),
      turns: rows.slice(Math.max(0, bestIndex - SHOWN_EACH_SIDE), bestIndex + SHOWN_EACH_SIDE + 1).map((row): Row => ({ ...row })),
    });
  },
  explain(input, output) {
    const deg = (angle: number): string => formatQuantity(angle, 'angle');
    const tighter = output.turns
      .map((row) => ({ angle: Number(row['angle']), play: Number(row['play']) }))
      .find((row) => row.angle > output.angle + SAME_DEGREE);
    return [
      {
        say: `${input.slots} slots over ${input.openings.length} openings lock at ${output.positions} positions a turn.`,
        formula: 'positions = union of (k · 360/N − h)',
        numbers: `one position ≈ ${deg(TURN / output.positions)} = ${mm(output.travelPerPosition)} of play`,
      },
      {
        say: 'The turn that would land exactly on the aim.',
        formula: 'θ = (E now − lock shift − aim) · 360 / P',
        numbers: `(${mm(input.playNow)} − ${mm(input.lockShift)} − ${mm(input.aim ?? (input.from + input.to) / 2)}) · 360 / ${mm(input.pitch)} = ${deg(output.exactAngle)}`,
      },
      {
        say:
          output.verdict === 'in'
            ? 'The nearest lock position inside the window.'
            : 'No lock position lands inside the window; this one is nearest. Another nut, washer or pin hole moves the positions.',
        formula: 'E after = E now − P · θ / 360 − lock shift',
        numbers: `${mm(input.playNow)} − ${mm(input.pitch)} · ${deg(output.angle)} / 360 − ${mm(input.lockShift)} = ${mm(output.play, input)}`,
      },
      ...(tighter
        ? [
            {
              say: tighter.play < 0 ? 'One position more would be preload.' : 'One position more.',
              numbers: `${deg(tighter.angle)} would leave ${mm(tighter.play, input)}`,
            },
          ]
        : []),
      ...(input.tryAngle !== undefined && output.tryTravel !== undefined && output.tryPlay !== undefined
        ? [
            {
              say: 'The turn asked about.',
              formula: 'P · θ / 360',
              numbers: `${mm(input.pitch)} · ${deg(input.tryAngle)} / 360 = ${mm(output.tryTravel)}, play ${mm(output.tryPlay, input)}`,
            },
          ]
        : []),
    ];
  },
  draw: (input, output) => ({
    kind: 'setting-line',
    now: input.playNow,
    from: input.from,
    to: input.to,
    after: output.play,
    angle: output.angle,
    slots: input.slots,
    openings: input.openings,
  }),
});

/** A pin through the spindle comes out at a slot, or not at all: of an odd number no slot has another opposite. */
export function pinFindsNoSlot(slots: number, openings: readonly number[]): boolean {
  const isThrough = openings.some((one) => openings.some((other) => Math.abs(Math.abs(other - one) - TURN / 2) < SAME_DEGREE));
  return slots % 2 === 1 && isThrough;
}

/** How many lock positions a turn of so many degrees goes on, of so many all round. */
export function slotsTurned(angle: number, positions: number): number {
  return Math.round((Math.abs(angle) / 360) * positions);
}

/** Angles of the nut, 0 ≤ a < 360, at which a slot stands at an opening; each angle once. */
export function lockPositions(slots: number, openings: readonly number[]): readonly number[] {
  const angles: number[] = [];
  for (const opening of openings) {
    for (let k = 0; k < slots; k += 1) angles.push(((((k * TURN) / slots - opening) % TURN) + TURN) % TURN);
  }
  return angles
    .map((angle) => (TURN - angle < SAME_DEGREE ? 0 : angle))
    .toSorted((a, b) => a - b)
    .filter((angle, index, sorted) => index === 0 || angle - (sorted[index - 1] ?? 0) > SAME_DEGREE);
}

/** Turns from where the nut is that lock it, over the whole way from the window's far end to preload. */
function near(
  positions: readonly number[],
  input: { ahead: number; pitch: number; openings: readonly number[] },
  exactAngle: number,
): readonly number[] {
  // `positions` counts from a slot at opening 0°; `ahead` from a slot at the first opening.
  const first = input.openings[0] ?? 0;
  const shifted = positions.map((angle) => (((angle + first + input.ahead) % TURN) + TURN) % TURN);
  const turn = Math.floor(exactAngle / TURN);
  return [turn - 1, turn, turn + 1]
    .flatMap((whole) => shifted.map((angle) => whole * TURN + angle))
    .map((angle) => (Math.abs(angle) < SAME_DEGREE ? 0 : angle))
    .toSorted((a, b) => a - b);
}

/** A play within the noise of binary fractions of an end of the window is on it. */
function settle(play: number, from: number, to: number): number {
  const noise = 1e-9;
  if (Math.abs(play - from) < noise) return from;
  return Math.abs(play - to) < noise ? to : play;
}

/** Inside: nearest to the aim. None inside: least outside the window. Equal: the looser one. */
function chooseRow(rows: readonly LockRow[], aim: number, from: number, to: number): LockRow | undefined {
  const inside = rows.filter((row) => row.inside);
  const miss = (row: LockRow): number => (inside.length > 0 ? Math.abs(row.play - aim) : Math.max(from - row.play, row.play - to));
  const pool = inside.length > 0 ? inside : rows.filter((row) => row.play >= 0);
  return pool.toSorted((a, b) => (Math.abs(miss(a) - miss(b)) < 1e-9 ? b.play - a.play : miss(a) - miss(b)))[0];
}

function mm(length: number, window: { from?: number; to?: number } = {}): string {
  return formatQuantity(length, 'length', 'mm', window);
}
