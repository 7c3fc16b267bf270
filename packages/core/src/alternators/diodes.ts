import { VERDICT, worstOf, type Verdict } from '../measuring/verdict-field.js';
import { readOpen } from '../quantity/open.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Forward drop of a junction by a meter's diode test, in V. Common practice. */
const KINDS = {
  silicon: { low: 0.4, high: 0.8 },
  schottky: { low: 0.15, high: 0.4 },
} as const;
const SHORT_V = 0.05;
/** A diode test shows no more than some 3 V; a bare figure over it is one of a meter that shows millivolts. */
const MOST_BARE_V = 3;
/** A diode that differs from its brothers by more is near its end. */
const UNLIKE_V = 0.06;
const UNSURE_V = 0.02;

type State = 'sound' | 'shorted' | 'open' | 'leaks' | 'odd';

/**
 * Which diode is bad?
 *
 * Each diode by the meter's diode test, forward and reverse. Sound: a drop of its kind forward and
 * OL in reverse. Shorted: next to nothing both ways. Open: OL both ways. Leaks: a figure in
 * reverse. Odd: forward outside its kind, or 0.06 V off the middle of its brothers. A bare figure over 3 is of a meter
 * that shows millivolts.
 *
 * Example: five at 0.52 V and OL, one at 0.002 V both ways: that one is shorted.
 */
export const diodes = defineWorking({
  id: 'alternator.diodes',
  title: 'Which diode is bad?',
  area: 'alternators',
  inputs: [
    {
      kind: 'table',
      name: 'readings',
      label: 'Readings',
      columns: [
        { name: 'diode', label: 'diode', quantity: 'text' },
        { name: 'forward', label: 'forward', quantity: 'text' },
        { name: 'reverse', label: 'reverse', quantity: 'text' },
      ],
      fewest: 1,
      most: 18,
      help: 'Name, drop forward, and reverse, as the meter shows: "+1; 0.52 V; OL".',
    },
    {
      kind: 'choice',
      name: 'type',
      label: 'Diodes',
      default: 'silicon',
      choices: [
        { id: 'silicon', label: 'silicon, pressed or soldered' },
        { id: 'schottky', label: 'low-loss' },
      ],
      help: 'From the sheet.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'text', name: 'bad', label: 'Bad', longest: 200, help: 'By name, or none.' },
    {
      kind: 'table',
      name: 'states',
      label: 'Diode by diode',
      columns: [
        { name: 'diode', label: 'diode', quantity: 'text' },
        { name: 'state', label: 'is', quantity: 'text' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'One line for each.',
    },
    { kind: 'text', name: 'what', label: 'What to do', longest: 300, help: 'What a bad one means for the rest.' },
  ],
  sources: [
    {
      kind: 'common practice',
      document: 'diode test of a meter: silicon 0.4–0.8 V, low-loss 0.15–0.4 V forward, OL in reverse',
      for: 'the states',
    },
  ],
  cautions: ['Stator leads off, or the winding joins the diodes and every one of them looks shorted.'],
  serves: [{ at: 'measure', families: ['alternator'], rank: 3, about: /rectifier|diode/iu }],
  example: {
    readings: ['+1', '+2', '+3', '−1', '−2', '−3'].map((diode) =>
      diode === '−2' ? { diode, forward: '0.002 V', reverse: '0.002 V' } : { diode, forward: '0.52 V', reverse: 'OL' },
    ),
  },
  compute(input) {
    const read: { diode: string; forward: number; reverse: number }[] = [];
    for (const [index, row] of input.readings.entries()) {
      const diode = String(row['diode']).trim();
      if (read.some((one) => one.diode === diode))
        return refuse({
          code: 'said-twice',
          field: `readings[${index}].diode`,
          label: `Readings, row ${index + 1}, diode`,
          received: diode,
        });
      const [forward, reverse] = [readDiode(String(row['forward'])), readDiode(String(row['reverse']))];
      for (const [name, volt] of [
        ['forward', forward],
        ['reverse', reverse],
      ] as const)
        if (Number.isNaN(volt) || volt < 0)
          return refuse({
            code: 'not-a-meter-reading',
            field: `readings[${index}].${name}`,
            label: `Readings, row ${index + 1}, ${name}`,
            received: String(row[name]),
            quantity: 'voltage',
          });
      read.push({ diode, forward, reverse });
    }
    const drops = read
      .map(({ forward }) => forward)
      .filter((forward) => forward > SHORT_V && Number.isFinite(forward))
      .sort((one, other) => one - other);
    const middle = drops[Math.floor((drops.length - 1) / 2)];
    const states = read.map((one) => ({ diode: one.diode, ...stateOf(one.forward, one.reverse, KINDS[input.type], middle) }));
    const verdicts: Verdict[] = states.map(({ state, sure }) => (state === 'sound' ? (sure ? 'in' : 'unsure') : 'out'));
    const bad = states.filter(({ state }) => state !== 'sound');
    return ok({
      verdict: worstOf(verdicts),
      bad: bad.length === 0 ? 'none' : bad.map(({ diode, state }) => `${diode} ${state}`).join(', '),
      states: states.map(({ diode, state, why }) => ({ diode, state, why })),
      what: whatToDo(
        bad.map(({ state }) => state),
        read.length,
      ),
    });
  },
  explain(_input, output) {
    return [
      ...output.states.map((row) => ({ say: `${String(row['diode'])}: ${String(row['state'])}.`, numbers: String(row['why']) })),
      { say: output.what },
    ];
  },
  draw: (_input, output) => ({
    kind: 'bridge',
    diodes: output.states.map((row) => ({ name: String(row['diode']), state: String(row['state']) })),
  }),
});

/** V of a diode test, as the meter shows it: "0.52", "520", "520 mV", "OL". */
function readDiode(text: string): number {
  const volt = readOpen(text, 'voltage');
  const isBare = /^[\d.,\s]+$/u.test(text);
  return isBare && volt > MOST_BARE_V ? volt / 1000 : volt;
}

function stateOf(
  forward: number,
  reverse: number,
  { low, high }: { low: number; high: number },
  middle: number | undefined,
): { state: State; why: string; sure: boolean } {
  const volt = (figure: number): string => (figure === Number.POSITIVE_INFINITY ? 'OL' : `${figure.toFixed(3)} V`);
  const both = `${volt(forward)} forward, ${volt(reverse)} reverse`;
  if (forward === Number.POSITIVE_INFINITY && reverse === Number.POSITIVE_INFINITY)
    return { state: 'open', why: `${both}: nothing passes either way`, sure: true };
  if (forward <= SHORT_V && reverse <= SHORT_V) return { state: 'shorted', why: `${both}: passes both ways`, sure: true };
  if (reverse !== Number.POSITIVE_INFINITY)
    return forward === Number.POSITIVE_INFINITY
      ? { state: 'odd', why: `${both}: probes changed over, or marked the wrong way`, sure: true }
      : { state: 'leaks', why: `${both}: passes in reverse`, sure: true };
  if (forward < low || forward > high) return { state: 'odd', why: `${both}: outside ${low} to ${high} V`, sure: true };
  const off = middle === undefined ? 0 : Math.abs(forward - middle);
  if (off > UNLIKE_V) return { state: 'odd', why: `${both}: ${off.toFixed(3)} V off its brothers`, sure: true };
  return { state: 'sound', why: both, sure: off <= UNLIKE_V - UNSURE_V };
}

function whatToDo(bad: readonly State[], count: number): string {
  if (bad.length === 0) return 'All pass one way only and alike.';
  if (bad.length === count) return 'All look bad: are the stator leads off, and the probes the right way round?';
  return bad.includes('shorted')
    ? 'A shorted diode feeds the battery back and burns its stator phase: measure the stator before a new rectifier goes in.'
    : 'Renew the rectifier, or the diode where the shop presses them.';
}
