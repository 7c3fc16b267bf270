import { judge, uncertaintyOf } from '../measuring/verdict.js';
import { VERDICT } from '../measuring/verdict-field.js';
import { mm, newtonMetres, newtons } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * Cord and spring balance: is the preload right?
 *
 * T = F·r, less the drag of the seal. Steadily turning, not the first jerk. With the carrier in
 * the pinion feels T = Tp + Tc/ratio. Windows differ for new bearings and used ones: a used pair
 * has lost its first roughness. Holds for slow, steady turning of oiled bearings.
 *
 * Example: 22 N on a 52 mm radius is 1.14 N·m.
 */
export const rollingTorque = defineWorking({
  id: 'bearing.rolling-torque',
  title: 'Cord and spring balance: is the preload right?',
  area: 'bearings',
  inputs: [
    {
      kind: 'list',
      name: 'pulls',
      label: 'Pulls, turning',
      symbol: 'F',
      quantity: 'force',
      min: 0,
      max: 5000,
      fewest: 1,
      most: 20,
      help: 'What the balance shows while it turns steadily.',
    },
    {
      kind: 'number',
      name: 'radius',
      label: 'Radius of the cord',
      symbol: 'r',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Half of what the cord is wound on.',
    },
    {
      kind: 'number',
      name: 'sealDrag',
      label: 'Drag of the seal',
      quantity: 'torque',
      min: 0,
      max: 50,
      default: 0,
      help: 'Measured with the bearings free, or before it was fitted: 0.',
    },
    {
      kind: 'choice',
      name: 'bearings',
      label: 'Bearings',
      default: 'new',
      choices: [
        { id: 'new', label: 'new' },
        { id: 'used', label: 'used' },
      ],
      help: 'Which window is meant.',
    },
    {
      kind: 'number',
      name: 'from',
      label: 'Window from',
      quantity: 'torque',
      min: 0,
      max: 200,
      help: 'Of the bearings alone, of this kind.',
    },
    {
      kind: 'number',
      name: 'to',
      label: 'Window to',
      quantity: 'torque',
      above: 0,
      max: 200,
      help: 'Of the bearings alone, of this kind.',
    },
    {
      kind: 'number',
      name: 'pinion',
      label: 'Of it the pinion',
      symbol: 'Tp',
      quantity: 'torque',
      min: 0,
      max: 50,
      optional: true,
      help: 'Read before the carrier was in; then the carrier’s own is judged.',
    },
    {
      kind: 'number',
      name: 'ratio',
      label: 'Ratio',
      symbol: 'i',
      quantity: 'ratio',
      above: 0,
      max: 100,
      default: 1,
      help: 'Ring gear over pinion; 1 without a carrier.',
    },
    { kind: 'number', name: 'u', label: 'Balance good to', quantity: 'force', min: 0, max: 50, default: 0.5, help: 'Standard (k = 1).' },
    {
      kind: 'number',
      name: 'start',
      label: 'First pull',
      quantity: 'force',
      min: 0,
      max: 5000,
      optional: true,
      help: 'At which it began to turn.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'torque', label: 'Rolling torque', quantity: 'torque', help: 'Of the bearings that are judged.' },
    { kind: 'number', name: 'whole', label: 'In all', quantity: 'torque', help: 'At the cord, with the seal.' },
    { kind: 'number', name: 'pull', label: 'Pull from', quantity: 'force', help: 'At the cord, for the lower end of the window.' },
    { kind: 'number', name: 'pullTo', label: 'Pull to', quantity: 'force', help: 'At the cord, for the upper end.' },
    { kind: 'text', name: 'what', label: 'So', longest: 200, help: 'What to do.' },
  ],
  sources: [
    { kind: 'derivation', document: 'moment of a cord on a drum', for: 'T = F·r, Tp + Tc/i' },
    {
      kind: 'common practice',
      document: 'turning, not starting; new and used bearings apart; seal drag taken off',
      for: 'what is compared',
    },
  ],
  cautions: ['Wind the cord so that it comes off square, and keep clear of the balance when it lets go.'],
  serves: [
    { at: 'setting', kinds: ['preload'], methods: ['crush-sleeve'], rank: 2, preset: { from: 'from', to: 'to' } },
    {
      at: 'setting',
      kinds: ['preload'],
      methods: ['cone-and-locknut', 'shims', 'selective-ring', 'locknut', 'adjusters'],
      preset: { from: 'from', to: 'to' },
    },
  ],
  example: { pulls: '21; 22; 23', radius: 52, from: 0.9, to: 1.4 },
  compute(input) {
    if (input.to < input.from)
      return refuse({ code: 'window-upside-down', field: 'to', received: newtonMetres(input.to), bound: newtonMetres(input.from) });
    const arm = input.radius / 1000;
    const force = input.pulls.reduce((sum, pull) => sum + pull, 0) / input.pulls.length;
    const whole = force * arm;
    if (whole < input.sealDrag)
      return refuse({
        code: 'too-large',
        field: 'sealDrag',
        received: newtonMetres(input.sealDrag),
        bound: `what was read in all, ${newtonMetres(whole)}`,
      });
    const own = whole - input.sealDrag;
    if (input.pinion !== undefined && own < input.pinion)
      return refuse({
        code: 'too-large',
        field: 'pinion',
        received: newtonMetres(input.pinion),
        bound: `what is left without the seal, ${newtonMetres(own)}`,
      });
    const scale = input.pinion === undefined ? 1 : input.ratio;
    const torque = (own - (input.pinion ?? 0)) * scale;
    const u = uncertaintyOf({ readings: input.pulls, toolU: input.u, toolS: 0 }).u * arm * scale;
    const verdict = judge(torque, u, { lower: input.from, upper: input.to });
    const pullAt = (wanted: number): number => (wanted / scale + (input.pinion ?? 0) + input.sealDrag) / arm;
    const what =
      input.start !== undefined && input.start > 2 * force
        ? 'It takes twice as much to start: something sticks. Turn it through and pull again.'
        : verdict === 'in'
          ? 'As it should be.'
          : verdict === 'unsure'
            ? 'Pull it a few times more, or with a finer balance.'
            : torque < input.from
              ? 'Too loose: more preload.'
              : 'Too tight: less preload; with a crush sleeve a new one.';
    return ok({ verdict, torque, whole, pull: pullAt(input.from), pullTo: pullAt(input.to), what });
  },
  explain: (input, output) => [
    {
      say: 'Pull on its radius.',
      formula: 'T = F·r',
      numbers: `${newtons(output.whole / (input.radius / 1000))} · ${mm(input.radius)} = ${newtonMetres(output.whole)}`,
    },
    ...(input.sealDrag > 0 || input.pinion !== undefined
      ? [
          {
            say: 'Less what is not theirs.',
            formula: input.pinion === undefined ? 'T − seal' : 'Tc = (T − seal − Tp)·i',
            numbers: newtonMetres(output.torque),
          },
        ]
      : []),
    { say: `The window of ${input.bearings} bearings, as a pull.`, numbers: `${newtons(output.pull)} to ${newtons(output.pullTo)}` },
  ],
});
