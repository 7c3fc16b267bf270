import { judge } from '../measuring/verdict.js';
import { VERDICT, worstOf } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { readOpen } from '../quantity/open.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { INSULATION_SOURCE } from './copper.js';
import { EARTH_FIELD, earthWords, isEarthed, readEarth } from './earth.js';

const MOST_UNLIKE = 0.05;
/** Uncertainties by which a sum of readings may miss. */
const COVER = 3;
/** A drop over a winding is less than any battery has, V: a bare figure over it is no figure in volts. */
const MOST_DROP_V = 60;
const PAIRS = ['1–2', '2–3', '3–1'] as const;
const PAIR_FIELDS = ['pair12', 'pair23', 'pair31'] as const;

/**
 * Is the stator sound, and if not, which phase?
 *
 * Three readings between the leads 1–2, 2–3, 3–1. Star: each is the sum of two phases, so
 * phase 1 = (R12 + R31 − R23)/2. Delta: with G the conductances of the readings, phase 1–2 from
 * the other two in series beside it. Unlike = (largest − smallest)/mean, 5 % allowed; its
 * uncertainty is √2·u/mean. One pair that reads more than the other two together is no star's and no delta's, and is
 * refused. By its uncertainty an ordinary meter, good to some 0.05 Ω, is unsure of a winding of
 * 0.1 Ω: zeroed leads and four wires, or equal currents and the voltage drops, tell it.
 *
 * Example: 0.102, 0.101 and 0.102 Ω by four wires are alike.
 */
export const stator = defineWorking({
  id: 'alternator.stator',
  title: 'Is the stator sound, and if not, which phase?',
  area: 'alternators',
  inputs: [
    {
      kind: 'choice',
      name: 'how',
      label: 'Measured',
      default: 'four-wire',
      choices: [
        { id: 'two-wire', label: 'by an ordinary meter' },
        { id: 'zeroed', label: 'by a meter with zeroed leads' },
        { id: 'four-wire', label: 'by four wires' },
        { id: 'drop', label: 'by the voltage drop at equal current' },
      ],
      help: 'Drops are typed in volts in place of resistances.',
    },
    { kind: 'text', name: 'pair12', label: 'Leads 1–2', longest: 40, help: 'As shown, with its unit, or "OL".' },
    { kind: 'text', name: 'pair23', label: 'Leads 2–3', longest: 40, help: 'As shown, with its unit, or "OL".' },
    { kind: 'text', name: 'pair31', label: 'Leads 3–1', longest: 40, help: 'As shown, with its unit, or "OL".' },
    {
      kind: 'number',
      name: 'current',
      label: 'Test current',
      quantity: 'current',
      above: 0,
      max: 200,
      default: 10,
      onlyFor: { field: 'how', choices: ['drop'] },
      help: 'The same through each pair.',
    },
    {
      kind: 'choice',
      name: 'wound',
      label: 'Wound in',
      default: 'star',
      choices: [
        { id: 'star', label: 'star' },
        { id: 'delta', label: 'delta' },
      ],
      help: 'From the sheet, or by its leads: a star has a fourth joint.',
    },
    EARTH_FIELD,
  ],
  outputs: [
    VERDICT,
    {
      kind: 'number',
      name: 'unlike',
      label: 'Unlike by',
      quantity: 'ratio',
      optional: true,
      help: 'Largest less smallest reading over the mean.',
    },
    {
      kind: 'number',
      name: 'phase',
      label: 'A phase',
      quantity: 'resistance',
      optional: true,
      help: 'Half of the mean in star, one and a half of it in delta.',
    },
    { kind: 'text', name: 'bad', label: 'Bad', longest: 40, optional: true, help: 'The phase or lead that differs.' },
    { kind: 'text', name: 'what', label: 'What it is', longest: 300, help: 'The fault, named, and what would settle it.' },
  ],
  sources: [
    { kind: 'derivation', document: 'series and parallel resistances: star 2R, delta 2R/3', for: 'the phases' },
    { kind: 'common practice', document: 'phases alike within 5 %', for: 'the verdict' },
    INSULATION_SOURCE,
  ],
  cautions: ['Rectifier unsoldered or unplugged: diodes beside the winding spoil the reading.'],
  serves: [{ at: 'measure', families: ['alternator'], rank: 2, about: /stator/iu }],
  example: { pair12: '102 mΩ', pair23: '101 mΩ', pair31: '102 mΩ' },
  compute(input) {
    const earth = readEarth(input.earth);
    if ('issue' in earth) return refuse(earth.issue);
    const typed = [input.pair12, input.pair23, input.pair31];
    const quantity = input.how === 'drop' ? 'voltage' : 'resistance';
    const shown = typed.map((text) => readOpen(text, quantity));
    const bare =
      input.how === 'drop'
        ? shown.findIndex((volt, index) => volt > MOST_DROP_V && Number.isFinite(volt) && /\d\s*$/u.test(typed[index]!))
        : -1;
    if (bare !== -1) return refuse({ code: 'unit-missing', field: PAIR_FIELDS[bare]!, received: typed[bare]!, quantity });
    const read = shown.map((figure) => figure / (input.how === 'drop' ? input.current : 1));
    const wrong = read.findIndex((ohm) => Number.isNaN(ohm) || ohm < 0);
    if (wrong !== -1) return refuse({ code: 'not-a-meter-reading', field: PAIR_FIELDS[wrong]!, received: typed[wrong]!, quantity });
    const earthed = isEarthed(earth.ohm) ? `Earthed: ${earthWords(earth.ohm)} to the stack. ` : '';
    const open = read.flatMap((ohm, index) => (ohm === Number.POSITIVE_INFINITY ? [index] : []));
    if (open.length > 0) {
      // The lead that two open pairs share is the one that is off.
      const shared = open.length === 2 ? [1, 2, 3].find((lead) => open.every((pair) => PAIRS[pair]!.includes(String(lead)))) : undefined;
      const bad = shared === undefined ? `pair ${open.map((pair) => PAIRS[pair]).join(', ')}` : `lead ${shared}`;
      return ok({
        verdict: 'out' as const,
        unlike: undefined,
        phase: undefined,
        bad,
        what: `${earthed}Open at ${bad}: a burnt joint or a broken winding.`,
      });
    }
    const mean = (read[0]! + read[1]! + read[2]!) / 3;
    const u = METER_U[input.how];
    if (mean === 0)
      return ok({
        verdict: 'out' as const,
        unlike: undefined,
        phase: 0,
        bad: 'all',
        what: `${earthed}Nothing between any two leads: all shorted together, or the meter cannot read so little.`,
      });
    // Of three pairs none is more than the other two together: no phase has less than nothing.
    const least = Math.min(...starPhases(read[0]!, read[1]!, read[2]!));
    const readU = Math.max(u.ohm, u.share * mean);
    if (least < -COVER * readU)
      return refuse({
        code: 'cannot-be',
        field: 'pair12',
        label: 'Leads',
        received: typed.join(', '),
        bound: 'one pair reads more than the other two together, which no star or delta does: read them again, leads clean and zeroed',
      });
    const unlike = (Math.max(...read) - Math.min(...read)) / mean;
    const alike = judge(unlike, (Math.SQRT2 * readU) / mean, { upper: MOST_UNLIKE });
    const bad = alike === 'out' ? badPhase(read, input.wound) : undefined;
    return ok({
      verdict: worstOf([alike, earthed === '' ? 'in' : 'out']),
      unlike,
      phase: input.wound === 'star' ? mean / 2 : mean * 1.5,
      bad,
      what:
        earthed +
        (alike === 'in'
          ? 'The three are alike.'
          : alike === 'out'
            ? `${bad} differs: shorted turns when it reads low, a bad joint when it reads high.`
            : 'This meter cannot tell so small a difference: measure by four wires, or by the voltage drop at 10 A.'),
    });
  },
  explain(input, output) {
    return [
      { say: 'Between the leads, two at a time.', numbers: `1–2 ${input.pair12}, 2–3 ${input.pair23}, 3–1 ${input.pair31}` },
      ...(output.phase === undefined || output.unlike === undefined
        ? []
        : [
            {
              say:
                input.wound === 'star' ? 'In star a pair is two phases in series.' : 'In delta a pair is one phase beside the other two.',
              formula: input.wound === 'star' ? 'R = mean / 2' : 'R = 3/2 · mean',
              numbers: formatQuantity(output.phase, 'resistance', output.phase < 1 ? 'mΩ' : undefined),
            },
            {
              say: 'How unlike the three are.',
              formula: '(max − min) / mean',
              numbers: formatQuantity(output.unlike, 'ratio', '%', { to: MOST_UNLIKE }),
            },
          ]),
      { say: `${output.verdict}. ${output.what}` },
    ];
  },
});

/** Standard uncertainty of one reading: in Ω, and as a share. Common practice for each way. */
const METER_U = {
  'two-wire': { ohm: 0.05, share: 0.01 },
  zeroed: { ohm: 0.01, share: 0.01 },
  'four-wire': { ohm: 0.0005, share: 0.005 },
  drop: { ohm: 0.0005, share: 0.005 },
} as const;

/** The phase furthest from the mean of the three. */
function badPhase([r12, r23, r31]: readonly number[], wound: 'star' | 'delta'): string {
  const phases = wound === 'star' ? starPhases(r12!, r23!, r31!) : deltaPhases(r12!, r23!, r31!);
  const middle = [...phases].sort((one, other) => one - other)[1]!;
  const far = phases.map((phase) => Math.abs(phase - middle));
  const index = far.indexOf(Math.max(...far));
  return wound === 'star' ? `phase ${index + 1}` : `phase ${PAIRS[index]}`;
}

export function starPhases(r12: number, r23: number, r31: number): readonly [number, number, number] {
  return [(r12 + r31 - r23) / 2, (r12 + r23 - r31) / 2, (r23 + r31 - r12) / 2];
}

/** A delta of the readings, through the star that measures the same (star–delta transformation). */
export function deltaPhases(r12: number, r23: number, r31: number): readonly [number, number, number] {
  const [a, b, c] = starPhases(r12, r23, r31);
  const products = a * b + b * c + c * a;
  return [products / c, products / a, products / b];
}
