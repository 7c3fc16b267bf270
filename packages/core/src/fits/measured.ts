import { judge } from '../measuring/verdict.js';
import { VERDICT } from '../measuring/verdict-field.js';
import { microns, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { readZone } from './limits.js';

/** Play that a retaining compound fills and still holds, mm in diameter; its own sheet goes first. Common practice. */
const COMPOUND_MOST_MM = 0.15;
/** Wall that a repair sleeve needs, mm; common practice. */
const SLEEVE_WALL_MM = 2;

/**
 * Measured shaft and bore: is the fit what it should be?
 *
 * interference = shaft − bore, u² = u shaft² + u bore², judged against the zone that is wanted:
 * from two ISO zones, or as entered. A ring that has spun: what can be done, by how much is gone. Both
 * parts at one temperature.
 *
 * Example: 30.006 in 29.991: 15 µm of interference.
 */
export const fitMeasured = defineWorking({
  id: 'fit.measured',
  title: 'Measured shaft and bore: is the fit what it should be?',
  area: 'fits',
  inputs: [
    {
      kind: 'number',
      name: 'shaft',
      label: 'Shaft',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Mean of two ways across, at the seat.',
    },
    {
      kind: 'number',
      name: 'bore',
      label: 'Bore',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Mean of two ways across, at the seat.',
    },
    {
      kind: 'number',
      name: 'shaftU',
      label: 'Shaft good to',
      quantity: 'length',
      min: 0,
      max: 0.1,
      default: 0.002,
      help: 'Standard (k = 1).',
    },
    {
      kind: 'number',
      name: 'boreU',
      label: 'Bore good to',
      quantity: 'length',
      min: 0,
      max: 0.1,
      default: 0.003,
      help: 'Standard (k = 1).',
    },
    {
      kind: 'choice',
      name: 'wanted',
      label: 'Wanted',
      default: 'zones',
      choices: [
        { id: 'zones', label: 'by two zones' },
        { id: 'figures', label: 'by two figures' },
      ],
      help: 'Where the window comes from.',
    },
    {
      kind: 'number',
      name: 'nominal',
      label: 'Nominal size',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      onlyFor: { field: 'wanted', choices: ['zones'] },
      help: 'As in 30 K7/k6; the shaft rounded when left empty.',
    },
    {
      kind: 'text',
      name: 'holeZone',
      label: 'Hole zone',
      longest: 8,
      default: 'K7',
      onlyFor: { field: 'wanted', choices: ['zones'] },
      help: 'A bearing ring in a housing is often H7, J7, K7 or N7.',
    },
    {
      kind: 'text',
      name: 'shaftZone',
      label: 'Shaft zone',
      longest: 8,
      default: 'k6',
      onlyFor: { field: 'wanted', choices: ['zones'] },
      help: 'A bearing ring on a shaft is often j6, k6 or m6.',
    },
    {
      kind: 'number',
      name: 'from',
      label: 'Interference from',
      quantity: 'length',
      min: -5,
      max: 5,
      optional: true,
      onlyFor: { field: 'wanted', choices: ['figures'] },
      help: 'Minus is play.',
    },
    {
      kind: 'number',
      name: 'to',
      label: 'Interference to',
      quantity: 'length',
      min: -5,
      max: 5,
      optional: true,
      onlyFor: { field: 'wanted', choices: ['figures'] },
      help: 'Minus is play.',
    },
    {
      kind: 'choice',
      name: 'spun',
      label: 'Has the ring turned in its seat?',
      default: 'no',
      choices: [
        { id: 'no', label: 'no' },
        { id: 'yes', label: 'yes: bright or blue seat' },
      ],
      help: 'A ring that has spun will again.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'interference', label: 'Interference', quantity: 'length', help: 'Minus is play.' },
    { kind: 'number', name: 'u', label: 'Good to', quantity: 'length', help: 'Standard, of both together.' },
    { kind: 'number', name: 'wantedLeast', label: 'Wanted from', quantity: 'length', help: 'Minus is play.' },
    { kind: 'number', name: 'wantedMost', label: 'Wanted to', quantity: 'length', help: 'Minus is play.' },
    {
      kind: 'table',
      name: 'ways',
      label: 'What can be done',
      columns: [
        { name: 'way', label: 'way', quantity: 'text' },
        { name: 'possible', label: 'possible', quantity: 'yes-no' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'The shop chooses.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'ISO 286-1', edition: '2010', for: 'the zones', fromMemory: true },
    { kind: 'standard', document: 'ISO 14253-1', edition: '2017', for: 'the verdict with its uncertainty', fromMemory: true },
    { kind: 'common practice', document: 'compound, sleeve or a new part for a spun seat', for: 'the ways' },
  ],
  cautions: ['A punched or knurled seat is no repair: it stands on a few points and lets go.'],
  serves: [{ at: 'build', rank: 11 }],
  example: { shaft: 30.006, bore: 29.991, nominal: 30 },
  compute(input) {
    const window = windowOf(input);
    if (!window.ok) return window;
    const { from, to } = window.value;
    const interference = input.shaft - input.bore;
    if (Math.abs(interference) > 0.02 * input.bore)
      return refuse({
        code: 'outside-method',
        field: 'shaft',
        received: mm(input.shaft),
        bound: `a shaft of about the bore, ${mm(input.bore)}`,
      });
    const u = Math.hypot(input.shaftU, input.boreU);
    const verdict = judge(interference, u, { lower: from, upper: to });
    const gone = -interference;
    const ways = [
      {
        way: 'as it is',
        possible: verdict === 'in' && input.spun === 'no',
        why: input.spun === 'yes' ? 'it has turned already' : verdict === 'in' ? 'the fit is what it should be' : `the fit is ${verdict}`,
      },
      {
        way: 'retaining compound',
        possible: gone >= 0 && gone <= COMPOUND_MOST_MM,
        why:
          gone < 0
            ? 'there is no gap to fill'
            : `${mm(gone)} of play; it holds to some ${mm(COMPOUND_MOST_MM)}, clean and cold: its own sheet says how much`,
      },
      {
        way: 'sleeve',
        possible: interference < from || input.spun === 'yes',
        why: `the seat is turned down or bored for a wall of ${mm(SLEEVE_WALL_MM)} or more, then ground to size`,
      },
      { way: 'renew the part', possible: true, why: 'the surest, and the dearest' },
    ];
    return ok({ verdict, interference, u, wantedLeast: from, wantedMost: to, ways });
  },
  explain: (input, output) => [
    { say: 'Shaft less bore.', formula: 'd − D', numbers: `${mm(input.shaft)} − ${mm(input.bore)} = ${microns(output.interference)}` },
    { say: 'Good to both measurements together.', formula: '√(u shaft² + u bore²)', numbers: microns(output.u) },
    { say: `Wanted ${microns(output.wantedLeast)} to ${microns(output.wantedMost)}: ${output.verdict}.` },
  ],
  draw: (_, output) => ({
    kind: 'limit-strip',
    readings: [output.interference],
    mean: output.interference,
    from: output.wantedLeast,
    to: output.wantedMost,
    guard: 1.65 * output.u,
    verdict: output.verdict,
    quantity: 'length',
  }),
});

interface Wanted {
  readonly wanted: 'zones' | 'figures';
  readonly shaft: number;
  readonly nominal: number | undefined;
  readonly holeZone: string;
  readonly shaftZone: string;
  readonly from: number | undefined;
  readonly to: number | undefined;
}

function windowOf(input: Wanted): Result<{ readonly from: number; readonly to: number }> {
  if (input.wanted === 'figures') {
    if (input.from === undefined) return refuse({ code: 'required', field: 'from', quantity: 'length' });
    if (input.to === undefined) return refuse({ code: 'required', field: 'to', quantity: 'length' });
    if (input.to < input.from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(input.to), bound: mm(input.from) });
    return ok({ from: input.from, to: input.to });
  }
  const nominal = input.nominal ?? Math.round(input.shaft);
  if (Math.abs(nominal - input.shaft) > 1)
    return refuse({ code: 'cannot-be', field: 'nominal', received: mm(nominal), bound: `the shaft measures ${mm(input.shaft)}` });
  const hole = readZone('holeZone', input.holeZone, nominal, true);
  if (!hole.ok) return hole;
  const shaft = readZone('shaftZone', input.shaftZone, nominal, false);
  if (!shaft.ok) return shaft;
  return ok({ from: (shaft.value.lower - hole.value.upper) / 1000, to: (shaft.value.upper - hole.value.lower) / 1000 });
}
