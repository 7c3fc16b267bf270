import { degrees, newtonMetres } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** A first step while the play is still being taken up, and the smallest that a hand can turn. */
const FIRST_STEP_DEGREES = 15;
const LEAST_STEP_DEGREES = 1;
/** Aimed at, as a share of the window from its lower end: the sleeve gives no second chance. */
const AIM_SHARE = 0.4;
/** A step never passes the window even if the next degree is so much steeper than the last. */
const STEEPER = 2;
/** Rolling torque by which bearings are felt to load. */
const FELT_NM = 0.05;

/**
 * A crush sleeve: how much further now?
 *
 * From the readings of rolling torque against the nut: slope of the last step, next step = (aim − T)
 * over the slope, and at most what would stay inside the window were it twice as steep. Past the
 * window the sleeve is scrap: never back off. Holds for readings taken after turning it through.
 *
 * Example: 0.4 N·m at 30°, 0.8 at 40°, window 1.2 to 1.8: 12.5° more, half of what would reach its end.
 */
export const crushSleeve = defineWorking({
  id: 'bearing.crush-sleeve',
  title: 'A crush sleeve: how much further now?',
  area: 'bearings',
  inputs: [
    {
      kind: 'table',
      name: 'readings',
      label: 'Readings',
      columns: [
        { name: 'angle', label: 'nut at', quantity: 'angle' },
        { name: 'torque', label: 'rolling torque', quantity: 'torque' },
      ],
      fewest: 1,
      most: 60,
      help: 'Where the nut stood, from where it began, and the rolling torque there.',
    },
    { kind: 'number', name: 'from', label: 'Window from', quantity: 'torque', above: 0, max: 50, help: 'For these bearings, new or used.' },
    { kind: 'number', name: 'to', label: 'Window to', quantity: 'torque', above: 0, max: 50, help: 'For these bearings, new or used.' },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'state',
      label: 'Now',
      choices: [
        { id: 'on', label: 'go on' },
        { id: 'in', label: 'stop: inside the window' },
        { id: 'over', label: 'over: a new sleeve, never back off' },
      ],
      help: 'Where it stands.',
    },
    { kind: 'number', name: 'step', label: 'Turn on', quantity: 'angle', help: '0 when there is nothing more to turn.' },
    { kind: 'number', name: 'torque', label: 'Rolling torque now', quantity: 'torque', help: 'The last reading.' },
    { kind: 'number', name: 'expected', label: 'Then some', quantity: 'torque', help: 'After the step, by the slope of the last.' },
    { kind: 'number', name: 'slope', label: 'N·m for a degree', quantity: 'ratio', help: 'Of the last step; 0 while there is still play.' },
  ],
  sources: [
    {
      kind: 'common practice',
      document: 'a crush sleeve is tightened in small steps and never backed off',
      for: 'the steps and the new sleeve',
    },
  ],
  cautions: ['The nut takes some hundred N·m to crush the sleeve: hold the flange with a bar made for it, and keep hands clear.'],
  serves: [{ at: 'setting', kinds: ['preload'], methods: ['crush-sleeve'], preset: { from: 'from', to: 'to' } }],
  example: {
    readings: [
      { angle: 0, torque: 0.2 },
      { angle: 30, torque: 0.4 },
      { angle: 40, torque: 0.8 },
    ],
    from: 1.2,
    to: 1.8,
  },
  compute(input) {
    if (input.to < input.from)
      return refuse({ code: 'window-upside-down', field: 'to', received: newtonMetres(input.to), bound: newtonMetres(input.from) });
    const readings = input.readings.map((row) => ({ angle: Number(row['angle']), torque: Number(row['torque']) }));
    for (const [index, { angle, torque }] of readings.entries()) {
      const label = `Readings, row ${index + 1}`;
      if (torque < 0)
        return refuse({ code: 'too-small', field: `readings[${index}].torque`, label, received: newtonMetres(torque), bound: '0 N·m' });
      if (index > 0 && angle < readings[index - 1]!.angle)
        return refuse({
          code: 'cannot-be',
          field: `readings[${index}].angle`,
          label,
          received: degrees(angle),
          bound: 'a crush sleeve is never backed off; a new one starts again',
        });
    }
    const last = readings.at(-1)!;
    const before = readings.findLast(({ angle }) => angle < last.angle);
    const rise = before ? (last.torque - before.torque) / (last.angle - before.angle) : 0;
    const slope = last.torque > FELT_NM && rise > 0 ? rise : 0;
    // What is met within the noise of binary fractions is met.
    if (last.torque > input.to + 1e-9) return ok({ state: 'over' as const, step: 0, torque: last.torque, expected: last.torque, slope });
    if (last.torque >= input.from - 1e-9) return ok({ state: 'in' as const, step: 0, torque: last.torque, expected: last.torque, slope });
    const aim = input.from + AIM_SHARE * (input.to - input.from);
    const step =
      slope === 0
        ? FIRST_STEP_DEGREES
        : Math.max(
            LEAST_STEP_DEGREES,
            Math.min(FIRST_STEP_DEGREES, (aim - last.torque) / slope, (input.to - last.torque) / (STEEPER * slope)),
          );
    return ok({ state: 'on' as const, step, torque: last.torque, expected: last.torque + slope * step, slope });
  },
  explain: (input, output) => [
    {
      say: 'How fast it tightens now.',
      formula: '(T − T before)/(θ − θ before)',
      numbers: output.slope === 0 ? 'not yet: there is still play, or nothing is felt' : `${output.slope.toFixed(3)} N·m for a degree`,
    },
    output.state === 'on'
      ? {
          say: 'To the aim, and no further than stays inside were it twice as steep.',
          numbers: `${degrees(output.step)} more, then some ${newtonMetres(output.expected)}; turn it through and read`,
        }
      : {
          say:
            output.state === 'in'
              ? 'Inside: stop here, and stake or lock it.'
              : `Over ${newtonMetres(input.to)}: the sleeve is crushed too far.`,
          numbers: newtonMetres(output.torque),
        },
  ],
  draw: (input) => ({
    kind: 'chart',
    x: 'degrees of nut',
    y: 'N·m',
    lines: [{ name: 'rolling torque', points: input.readings.map((row) => [Number(row['angle']), Number(row['torque'])] as const) }],
    levels: [
      { name: 'from', at: input.from },
      { name: 'to', at: input.to },
    ],
  }),
});
