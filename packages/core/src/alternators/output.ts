import { judge } from '../measuring/verdict.js';
import { VERDICT, worstOf, type Verdict } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Rotor speeds of the two points of ISO 8854, in rpm. */
const LOW_SPEED = 1500;
const RATED_SPEED = 6000;
const SPEED_SHARE = 0.02;
const REFERENCE_C = 23;
/** A sound bridge ripples by some 0.3 to 0.5 V at 12 V; a lost diode by much more. Common practice. */
const MOST_RIPPLE_SHARE = 0.04;

/**
 * Does the alternator give what it should?
 *
 * Warm, at 13.5 V (27 V): current at 1500 rpm and at 6000 rpm of the rotor (ISO 8854) against the
 * rating less its tolerance. Regulated voltage is expected at V23 + slope·(t − 23). Ripple over
 * 4 % of the voltage points at a diode or a phase.
 *
 * Example: 90 A rated gives 47 A at 1500 and 91 A at 6000 rpm, 14.3 V at 35 °C, by a stand good to 0.5 %: in.
 */
export const output = defineWorking({
  id: 'alternator.output',
  title: 'Does the alternator give what it should?',
  area: 'alternators',
  inputs: [
    {
      kind: 'choice',
      name: 'system',
      label: 'System',
      default: '12',
      choices: [
        { id: '12', label: '12 V, tested at 13.5 V' },
        { id: '24', label: '24 V, tested at 27 V' },
      ],
      help: 'From the sheet.',
    },
    { kind: 'number', name: 'testVoltage', label: 'Held at', quantity: 'voltage', above: 0, max: 60, help: 'Voltage during the test.' },
    {
      kind: 'number',
      name: 'lowCurrent',
      label: 'Current at 1500 rpm',
      symbol: 'I_L',
      quantity: 'current',
      min: 0,
      max: 1000,
      help: 'Rotor speed, machine warm.',
    },
    {
      kind: 'number',
      name: 'ratedCurrent',
      label: 'Current at 6000 rpm',
      symbol: 'I_R',
      quantity: 'current',
      min: 0,
      max: 1000,
      help: 'Rotor speed, machine warm.',
    },
    {
      kind: 'number',
      name: 'lowLeast',
      label: 'Rated at 1500 rpm',
      quantity: 'current',
      above: 0,
      max: 1000,
      help: 'From the plate or the sheet, as I_L/I_R.',
    },
    {
      kind: 'number',
      name: 'ratedLeast',
      label: 'Rated at 6000 rpm',
      quantity: 'current',
      above: 0,
      max: 1000,
      help: 'From the plate or the sheet.',
    },
    {
      kind: 'number',
      name: 'tolerance',
      label: 'May be short by',
      quantity: 'ratio',
      min: 0,
      max: 0.5,
      default: 0.05,
      help: 'Share of the rating.',
    },
    { kind: 'number', name: 'regulated', label: 'Regulated voltage', quantity: 'voltage', above: 0, max: 60, help: 'Lightly loaded.' },
    { kind: 'number', name: 'airAt', label: 'Air at', quantity: 'temperature', min: -40, max: 120, default: 23, help: 'At the regulator.' },
    { kind: 'number', name: 'nominal', label: 'Regulator, at 23 °C', quantity: 'voltage', above: 0, max: 60, help: 'From the sheet.' },
    {
      kind: 'number',
      name: 'slope',
      label: 'Slope',
      quantity: 'voltage',
      min: -0.1,
      max: 0.1,
      default: -0.003,
      help: 'Per kelvin; falls when it gets warm.',
    },
    {
      kind: 'number',
      name: 'window',
      label: 'Regulator within ±',
      quantity: 'voltage',
      above: 0,
      max: 5,
      default: 0.3,
      help: 'From the sheet.',
    },
    {
      kind: 'number',
      name: 'ripple',
      label: 'Ripple',
      quantity: 'voltage',
      min: 0,
      max: 60,
      optional: true,
      help: 'Peak to peak at full current.',
    },
    {
      kind: 'number',
      name: 'meterU',
      label: 'Uncertainty of the stand',
      quantity: 'ratio',
      min: 0,
      max: 0.1,
      default: 0.01,
      help: 'Standard, as a share of current and voltage.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'expected', label: 'Regulator should hold', quantity: 'voltage', help: 'At this temperature.' },
    { kind: 'number', name: 'share', label: 'Of its rated current', quantity: 'ratio', share: true, help: 'At 6000 rpm.' },
    { kind: 'text', name: 'what', label: 'What it is', longest: 300, help: 'Point by point.' },
  ],
  sources: [
    {
      kind: 'standard',
      document: 'ISO 8854',
      edition: '2012',
      for: 'test voltage 13.5 or 27 V, points at 1500 and 6000 rpm, warm',
      fromMemory: true,
    },
    { kind: 'common practice', document: 'ripple under 4 % of the voltage', for: 'the ripple verdict' },
  ],
  cautions: [
    'Guard the belt and keep clear. Never take the battery off a running alternator: the voltage it makes then breaks what is on the line.',
  ],
  serves: [{ at: 'measure', families: ['alternator'], rank: 5 }],
  example: {
    testVoltage: 13.5,
    lowCurrent: 47,
    ratedCurrent: 91,
    lowLeast: 45,
    ratedLeast: 90,
    regulated: 14.3,
    nominal: 14.4,
    airAt: 35,
    ripple: 0.3,
    meterU: 0.005,
  },
  compute(input) {
    const wanted = input.system === '12' ? 13.5 : 27;
    if (Math.abs(input.testVoltage / wanted - 1) > SPEED_SHARE)
      return refuse({
        code: 'aim-outside',
        field: 'testVoltage',
        received: formatQuantity(input.testVoltage, 'voltage'),
        bound: `${formatQuantity(wanted, 'voltage')} ± 2 %`,
      });
    const expected = input.nominal + input.slope * (input.airAt - REFERENCE_C);
    const current = (amps: number, rated: number): Verdict => judge(amps, input.meterU * amps, { lower: rated * (1 - input.tolerance) });
    const found = [
      { of: `${LOW_SPEED} rpm`, verdict: current(input.lowCurrent, input.lowLeast) },
      { of: `${RATED_SPEED} rpm`, verdict: current(input.ratedCurrent, input.ratedLeast) },
      {
        of: 'regulator',
        verdict: judge(input.regulated, input.meterU * input.regulated, {
          lower: expected - input.window,
          upper: expected + input.window,
        }),
      },
      ...(input.ripple === undefined
        ? []
        : [{ of: 'ripple', verdict: judge(input.ripple, input.meterU * input.ripple, { upper: MOST_RIPPLE_SHARE * input.testVoltage }) }]),
    ];
    const bad = found.filter(({ verdict }) => verdict === 'out').map(({ of }) => of);
    return ok({
      verdict: worstOf(found.map(({ verdict }) => verdict)),
      expected,
      share: input.ratedCurrent / input.ratedLeast,
      what: `${found.map(({ of, verdict }) => `${of} ${verdict}`).join(', ')}. ${whatItPointsTo(bad, input.ratedCurrent / input.ratedLeast)}`,
    });
  },
  explain(input, output) {
    return [
      {
        say: 'Currents against the rating less its tolerance.',
        formula: 'I ≥ I_rated · (1 − tolerance)',
        numbers: `${formatQuantity(input.lowCurrent, 'current')} and ${formatQuantity(input.ratedCurrent, 'current')}`,
      },
      {
        say: 'The regulator at this temperature.',
        formula: 'V23 + slope · (t − 23)',
        numbers: `${formatQuantity(output.expected, 'voltage')} ± ${formatQuantity(input.window, 'voltage')}; found ${formatQuantity(input.regulated, 'voltage')}`,
      },
      { say: output.what },
    ];
  },
  draw: (input) => ({
    kind: 'chart',
    x: 'rotor, rpm',
    y: 'current, A',
    lines: [
      {
        name: 'found',
        points: [
          [LOW_SPEED, input.lowCurrent],
          [RATED_SPEED, input.ratedCurrent],
        ],
      },
      {
        name: 'rated',
        points: [
          [LOW_SPEED, input.lowLeast],
          [RATED_SPEED, input.ratedLeast],
        ],
      },
    ],
    levels: [],
  }),
});

function whatItPointsTo(bad: readonly string[], share: number): string {
  if (bad.length === 0) return 'As it should be, where it is sure.';
  if (bad.includes('ripple')) return 'Ripple: a diode or a phase is lost.';
  if (bad.includes(`${RATED_SPEED} rpm`))
    return share < 0.75
      ? 'A third or more is missing: a phase or diodes.'
      : 'Short of its rating: brushes, field resistance, a slipping belt.';
  return bad.includes('regulator') ? 'The regulator holds another voltage than it should.' : 'Weak at low speed: field current, brushes.';
}
