import { degrees, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

const TURN = 360;

/**
 * The lock moves it: how far off do I set the cone?
 *
 * play riding = play set − lock shift − clamp shift. Both shifts are measured: before against after
 * the locknut, and without against with the axle clamped; a lock may add play (the thread's slack goes the other way),
 * a clamp takes it up. The slope is known, P/360, so a try
 * only betters the shifts. Holds from a play above zero that a dial reads; what is felt at the rim is
 * no number.
 *
 * Example: 0.12 mm set, 0.05 mm locked, 0.02 mm clamped; wanted 0.02 mm: as it is, riding.
 */
export const coneAndLocknut = defineWorking({
  id: 'bearing.cone-and-locknut',
  title: 'The lock moves it: how far off do I set the cone?',
  area: 'bearings',
  inputs: [
    {
      kind: 'number',
      name: 'playNow',
      label: 'Play now, not locked',
      quantity: 'length',
      min: 0,
      max: 5,
      help: 'Dial on the axle end, cone where it is, locknut loose.',
    },
    { kind: 'number', name: 'from', label: 'Riding, from', quantity: 'length', min: 0, max: 2, help: 'Least play when all is clamped.' },
    { kind: 'number', name: 'to', label: 'Riding, to', quantity: 'length', above: 0, max: 2, help: 'Most play when all is clamped.' },
    {
      kind: 'number',
      name: 'pitch',
      label: 'Thread pitch',
      symbol: 'P',
      quantity: 'pitch',
      min: 0.2,
      max: 6.5,
      help: 'Of the axle: 1 mm, 26 tpi.',
    },
    {
      kind: 'number',
      name: 'setBefore',
      label: 'Last try, before locking',
      quantity: 'length',
      min: 0,
      max: 5,
      optional: true,
      help: 'Play with the cone held, locknut loose.',
    },
    {
      kind: 'number',
      name: 'lockedAfter',
      label: 'Last try, locked',
      quantity: 'length',
      min: 0,
      max: 5,
      optional: true,
      help: 'Play with the locknut tight.',
    },
    {
      kind: 'number',
      name: 'clamped',
      label: 'Last try, axle clamped',
      quantity: 'length',
      min: 0,
      max: 5,
      optional: true,
      help: 'Play with the axle nuts or the quick release closed.',
    },
    {
      kind: 'number',
      name: 'lockShift',
      label: 'Else: the lock takes up',
      quantity: 'length',
      min: -1,
      max: 1,
      default: 0,
      help: 'From the last hub of this sheet; minus where it adds play.',
    },
    {
      kind: 'number',
      name: 'clampShift',
      label: 'Else: the clamp takes up',
      quantity: 'length',
      min: 0,
      max: 1,
      default: 0,
      help: 'From the last hub of this sheet.',
    },
  ],
  outputs: [
    {
      kind: 'number',
      name: 'turn',
      label: 'Turn the cone',
      quantity: 'angle',
      help: 'Plus tightens, minus loosens; then hold it and lock.',
    },
    { kind: 'number', name: 'setTo', label: 'To this play, unlocked', quantity: 'length', help: 'What the dial shows before the lock.' },
    {
      kind: 'number',
      name: 'riding',
      label: 'Riding as it is now',
      quantity: 'length',
      help: 'If it were locked and clamped where it is; under 0 it would bind.',
    },
    {
      kind: 'number',
      name: 'lock',
      label: 'The lock takes up',
      quantity: 'length',
      help: 'As measured, or as remembered; minus adds play.',
    },
    { kind: 'number', name: 'clamp', label: 'The clamp takes up', quantity: 'length', help: 'As measured, or as remembered.' },
    {
      kind: 'choice',
      name: 'verdict',
      label: 'Verdict',
      choices: [
        { id: 'in', label: 'lock it where it is' },
        { id: 'out', label: 'turn first' },
      ],
      help: 'Of where it is now.',
    },
  ],
  sources: [
    { kind: 'derivation', document: 'one turn moves the cone by its pitch; lock and clamp each take up a fixed play', for: 'the sum' },
  ],
  cautions: ['A cone that binds turns to steel chips: when in doubt a trace of play.'],
  serves: [
    { at: 'build', families: ['cup-and-cone loose-ball hub'], rank: 2 },
    { at: 'setting', kinds: ['end-play', 'depth'], methods: ['cone-and-locknut'], preset: { from: 'from', to: 'to' } },
  ],
  example: { playNow: '0.10 mm', from: '0 mm', to: '0.03 mm', pitch: '1 mm', setBefore: 0.12, lockedAfter: 0.05, clamped: 0.02 },
  compute(input) {
    if (input.to < input.from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(input.to), bound: mm(input.from) });
    // Half a pair says nothing.
    if (input.lockedAfter === undefined && (input.setBefore !== undefined || input.clamped !== undefined))
      return refuse({ code: 'required', field: 'lockedAfter', quantity: 'length' });
    if (input.lockedAfter !== undefined && input.setBefore === undefined && input.clamped === undefined)
      return refuse({ code: 'required', field: 'setBefore', quantity: 'length' });
    const lock = shiftOf(input.setBefore, input.lockedAfter, input.lockShift);
    const clamp = shiftOf(input.lockedAfter, input.clamped, input.clampShift);
    if (clamp < 0)
      return refuse({ code: 'cannot-be', field: 'clamped', received: mm(input.clamped!), bound: 'a clamp never adds play: read again' });
    const aim = (input.from + input.to) / 2;
    // No dial shows less than no play: where lock and clamp add some, none is the tightest that can be set.
    const setTo = Math.max(0, aim + lock + clamp);
    if (setTo - lock - clamp > input.to + 1e-9)
      return refuse({
        code: 'cannot-be',
        field: 'lockedAfter',
        received: mm(input.lockedAfter ?? lock),
        bound: `without any play before the lock it rides at ${mm(-lock - clamp)} already: hold the cone while it is locked`,
      });
    const riding = input.playNow - lock - clamp;
    const isIn = riding >= input.from - 1e-9 && riding <= input.to + 1e-9;
    return ok({
      turn: ((input.playNow - setTo) * TURN) / input.pitch,
      setTo,
      riding,
      lock,
      clamp,
      verdict: isIn ? ('in' as const) : ('out' as const),
    });
  },
  explain: (input, output) => [
    { say: 'What lock and clamp take up.', formula: 'before − after', numbers: `${mm(output.lock)} and ${mm(output.clamp)}` },
    {
      say: 'So much play before the lock rides at the aim.',
      formula: 'aim + lock + clamp',
      numbers: `${mm((input.from + input.to) / 2)} + ${mm(output.lock)} + ${mm(output.clamp)} = ${mm(output.setTo)}`,
    },
    {
      say: 'As a turn of the cone.',
      formula: 'θ = (play now − wanted)·360/P',
      numbers: `(${mm(input.playNow)} − ${mm(output.setTo)})·360/${mm(input.pitch)} = ${degrees(output.turn)}`,
    },
  ],
});

function shiftOf(before: number | undefined, after: number | undefined, otherwise: number): number {
  return before === undefined || after === undefined ? otherwise : before - after;
}
