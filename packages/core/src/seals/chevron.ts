import { degrees, mm } from '../quantity/write.js';
import { VERDICT, type Verdict } from '../measuring/verdict-field.js';
import { defineWorking } from '../working/define.js';
import type { Drawing } from '../working/describe.js';
import { ok, refuse } from '../working/issues.js';

/** Linear expansion of guide strip, per kelvin: PTFE with bronze, and fabric with resin along the strip; handbook values, from memory. */
const GROWS = { ptfe: 1.0e-4, fabric: 5e-5 } as const;
/** Left of the gap when it is hottest, mm: common practice. */
const STAYS_OPEN = 0.5;
/** Share of its height by which a set of chevrons is pressed together: common practice. */
const PRESSED = { from: 0.02, to: 0.06 } as const;
const BENCH_C = 20;

type Shape = Extract<Drawing, { kind: 'stack' }>['rings'][number]['shape'];

interface Lying {
  readonly name: string;
  readonly shape: Shape;
  readonly opens?: 'left' | 'right' | undefined;
  readonly gapAt?: number | undefined;
  readonly why: string;
}

interface Given {
  readonly where: 'rod' | 'piston';
  readonly seal: 'chevrons' | 'u-cup' | 'filled-ptfe';
  readonly from: 'one side' | 'both';
  readonly lips: number;
  readonly guides: number;
  readonly scraper: 'yes' | 'no';
}

/**
 * In which order do a cylinder's rings lie, and which way round?
 *
 * From the pressure outwards: guide, spreader, lips open to the pressure, support, on a rod the scraper with its lip outwards. Under
 * pressure from both sides two sets lie back to back. Guide strip is cut at 45° to π·d̄ less what it grows and half a millimetre; the gaps of
 * several rings are staggered by a full turn shared among them. A set of chevrons is pressed together by 2 to 6 % of its height.
 *
 * Example: a rod of 50, four chevrons in a room of 34.2 with rings that stand 35.5 high: pressed by 3.7 %, right.
 */
export const chevron = defineWorking({
  id: 'seal.chevron',
  title: 'In which order do a cylinder’s rings lie?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'where',
      label: 'They lie',
      default: 'rod',
      choices: [
        { id: 'rod', label: 'in the gland, round the rod' },
        { id: 'piston', label: 'on the piston' },
      ],
      help: 'Rod or piston.',
    },
    {
      kind: 'choice',
      name: 'seal',
      label: 'It seals by',
      default: 'u-cup',
      choices: [
        { id: 'chevrons', label: 'chevrons, several lips' },
        { id: 'u-cup', label: 'one lip ring (U-cup)' },
        { id: 'filled-ptfe', label: 'PTFE ring over an O-ring' },
      ],
      help: 'As it came apart; the old ones stay in order until the new ones lie beside them.',
    },
    {
      kind: 'choice',
      name: 'from',
      label: 'Pressure comes',
      default: 'one side',
      choices: [
        { id: 'one side', label: 'from one side' },
        { id: 'both', label: 'from both, in turn' },
      ],
      help: 'A piston that pushes and pulls: from both.',
    },
    {
      kind: 'number',
      name: 'lips',
      label: 'Lips in a set',
      quantity: 'count',
      min: 1,
      max: 12,
      default: 1,
      help: 'Chevrons beside one another; 1 for a U-cup.',
    },
    {
      kind: 'number',
      name: 'guides',
      label: 'Guide rings',
      quantity: 'count',
      min: 0,
      max: 6,
      default: 1,
      help: 'Strips that keep metal from metal.',
    },
    {
      kind: 'choice',
      name: 'scraper',
      label: 'Scraper',
      default: 'yes',
      choices: [
        { id: 'yes', label: 'has one' },
        { id: 'no', label: 'none' },
      ],
      help: 'On a rod, outermost.',
    },
    {
      kind: 'number',
      name: 'diameter',
      label: 'Rod or bore',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'The rod, or the bore that the piston runs in.',
    },
    {
      kind: 'number',
      name: 'strip',
      label: 'Guide strip, thick',
      quantity: 'length',
      above: 0,
      max: 20,
      optional: true,
      help: 'Where it is cut from a roll.',
    },
    {
      kind: 'choice',
      name: 'stripOf',
      label: 'Strip of',
      default: 'ptfe',
      choices: [
        { id: 'ptfe', label: 'PTFE with bronze' },
        { id: 'fabric', label: 'fabric with resin' },
      ],
      help: 'PTFE grows twice as much.',
    },
    {
      kind: 'number',
      name: 'hottest',
      label: 'Hottest',
      quantity: 'temperature',
      min: 20,
      max: 200,
      default: 90,
      help: 'Of the oil, in summer, at work.',
    },
    {
      kind: 'number',
      name: 'high',
      label: 'Set stands high',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      help: 'All rings of it stacked on the bench, not pressed.',
    },
    {
      kind: 'number',
      name: 'room',
      label: 'Room for it',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      help: 'With the gland home: depth of its seat less the spigot.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'text', name: 'so', label: 'So', longest: 300, help: 'What to do.' },
    {
      kind: 'number',
      name: 'cut',
      label: 'Cut the strip to',
      quantity: 'length',
      optional: true,
      help: 'Along its middle, both ends at 45°.',
    },
    {
      kind: 'number',
      name: 'gap',
      label: 'Gap, cold',
      quantity: 'length',
      optional: true,
      help: 'It closes as it grows, and must not close quite.',
    },
    { kind: 'number', name: 'pressed', label: 'Set is pressed by', quantity: 'ratio', share: true, optional: true, help: 'Of its height.' },
    {
      kind: 'table',
      name: 'order',
      label: 'In this order, from the pressure',
      columns: [
        { name: 'at', label: 'place', quantity: 'count' },
        { name: 'name', label: 'ring', quantity: 'text' },
        { name: 'gap', label: 'gap at', quantity: 'text' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'Under pressure from both: from either end.',
    },
  ],
  sources: [
    { kind: 'derivation', document: 'middle of the strip, and what it grows', for: 'length and gap' },
    {
      kind: 'common practice',
      document: 'lips to the pressure, gaps staggered and cut at 45°, 2 to 6 % of the height',
      for: 'order and pressing',
    },
  ],
  cautions: [
    'Let the pressure off, and hold up what the cylinder carries, before a gland is opened.',
    'A PTFE ring that was stretched on waits in its sizing sleeve before it goes into the bore: as long as it took to go on, ten minutes at least. Warm oil, 80 °C, makes it go on; it burns.',
  ],
  serves: [{ at: 'seal', kinds: ['piston-seal'], rank: 2, preset: { diameter: 'seal.shaft' } }],
  example: { where: 'rod', seal: 'chevrons', lips: 4, guides: 2, diameter: 50, strip: 2.5, high: 35.5, room: 34.2 },
  compute(input) {
    const { where, seal, from, diameter, strip, stripOf, hottest, high, room } = input;
    if (where === 'rod' && from === 'both')
      return refuse({
        code: 'cannot-be',
        field: 'from',
        received: 'both',
        bound: 'a rod has the oil on one side and the weather on the other',
      });
    if (seal !== 'chevrons' && input.lips > 1)
      return refuse({ code: 'too-large', field: 'lips', received: String(input.lips), bound: `1: only chevrons lie beside one another` });
    if (strip !== undefined && 2 * strip >= diameter)
      return refuse({ code: 'too-large', field: 'strip', received: mm(strip), bound: `less than half of ${mm(diameter)}` });
    const order = orderOf(input).map(({ name, gapAt, why }, at) => ({
      at: at + 1,
      name,
      gap: gapAt === undefined ? '' : degrees(gapAt),
      why,
    }));
    // On a rod the strip lies outside of it, in a bore inside of that.
    const round = strip === undefined ? undefined : Math.PI * (where === 'rod' ? diameter + strip : diameter - strip);
    const gap = round === undefined ? undefined : round * GROWS[stripOf] * (hottest - BENCH_C) + STAYS_OPEN;
    const cut = round === undefined ? undefined : round - gap!;
    const pressed = seal === 'chevrons' && high !== undefined && room !== undefined ? (high - room) / high : undefined;
    const verdict: Verdict =
      pressed === undefined ? (seal === 'chevrons' ? 'unsure' : 'in') : pressed >= PRESSED.from && pressed <= PRESSED.to ? 'in' : 'out';
    return ok({ verdict, so: advice(pressed, high, verdict), cut, gap, pressed, order });
  },
  explain: (input, output) => [
    { say: 'From the pressure outwards: every lip open to it, so that it presses itself on.' },
    ...(output.cut === undefined
      ? []
      : [
          {
            say: 'The strip, along its middle, less what it grows and half a millimetre.',
            formula: input.where === 'rod' ? 'π·(d + t) − gap' : 'π·(d − t) − gap',
            numbers: `${mm(output.cut)}, gap ${mm(output.gap!)} cold`,
          },
        ]),
    { say: `So: ${output.so}.` },
  ],
  draw: (input) => ({ kind: 'stack', rings: orderOf(input).map(({ name, shape, opens, gapAt }) => ({ name, shape, opens, gapAt })) }),
});

function advice(pressed: number | undefined, high: number | undefined, verdict: Verdict): string {
  if (pressed === undefined)
    return verdict === 'unsure'
      ? 'asks how high the set stands and how much room it has'
      : 'lay them out in this order, and look at each lip once more';
  const [least, most] = [high! * (1 - PRESSED.to), high! * (1 - PRESSED.from)];
  if (verdict === 'in') return 'pressed rightly with the gland home';
  return pressed < PRESSED.from
    ? `too loose: a room of ${mm(least)} to ${mm(most)} is right; shims under the gland come out, or another lip goes in`
    : `too tight, it burns: a room of ${mm(least)} to ${mm(most)} is right; shims under the gland`;
}

/** The rings as they lie, the pressure (or one of the pressures) from the left. */
function orderOf({ where, seal, from, lips, guides, scraper }: Given): readonly Lying[] {
  const guide = (at: number): Lying => ({
    name: 'guide ring',
    shape: 'guide',
    gapAt: (360 * at) / Math.max(1, guides),
    why: 'cut at 45°, its gap away from that of the next',
  });
  const all = Array.from({ length: guides }, (_, at) => guide(at));
  const toLeft = setOf(seal, lips, 'left');
  const set =
    where === 'piston' && from === 'both' && seal !== 'filled-ptfe' ? [...toLeft, ...setOf(seal, lips, 'right').toReversed()] : toLeft;
  // A guide before the lips keeps the metal off; the others beyond them.
  const scraping: readonly Lying[] =
    where === 'rod' && scraper === 'yes'
      ? [{ name: 'scraper', shape: 'scraper', opens: 'right', why: 'its lip outwards: it keeps dirt out, not oil in' }]
      : [];
  return [...all.slice(0, Math.ceil(guides / 2)), ...set, ...all.slice(Math.ceil(guides / 2)), ...scraping];
}

function setOf(seal: Given['seal'], lips: number, opens: 'left' | 'right'): readonly Lying[] {
  switch (seal) {
    case 'filled-ptfe':
      return [
        { name: 'O-ring', shape: 'ring', why: 'first into the groove: it presses the other on' },
        { name: 'PTFE ring', shape: 'back-up', why: 'over the O-ring; a notched side to the pressure' },
      ];
    case 'u-cup':
      return [
        { name: 'lip ring', shape: 'lip', opens, why: 'open to the pressure' },
        { name: 'back-up ring', shape: 'back-up', why: 'behind its heel, away from the pressure, where the set has one' },
      ];
    case 'chevrons':
      return [
        { name: 'spreader', shape: 'spreader', why: 'on the side of the pressure, into the first lip' },
        ...Array.from({ length: lips }, (_, at): Lying => ({ name: `lip ${at + 1}`, shape: 'lip', opens, why: 'open to the pressure' })),
        { name: 'support', shape: 'support', why: 'under the last heel, away from the pressure' },
      ];
  }
}
