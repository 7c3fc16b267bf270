import { VERDICT } from '../measuring/verdict-field.js';
import { mm, newtons, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Hardness beyond which Gent's relation is not held to, Shore A. */
const SOFTEST = 40;
const HARDEST = 95;
/** Lindley's law was measured to this squeeze. */
const SQUEEZE_MOST = 0.45;
/** Coefficients of friction of rubber on a ground, oiled surface; common practice. They scatter, and so does the answer. */
const RUNNING = { from: 0.05, to: 0.2 };
const AFTER_REST = { from: 0.2, to: 0.6 };
const DRY_TIMES = 2;

/** Young's modulus of rubber by its hardness, MPa. Gent, Rubber Chemistry and Technology 31 (1958), from memory. */
export function modulusOf(shore: number): number {
  return (0.0981 * (56 + 7.62336 * shore)) / (0.137505 * (254 - 2.54 * shore));
}

/** Force per length that squeezes a ring between flats, N/mm, and the width that it then touches on, mm. Lindley (1966), from memory. */
export function lineLoad(shore: number, section: number, squeeze: number): { readonly load: number; readonly width: number } {
  const law = 1.25 * squeeze ** 1.5 + 50 * squeeze ** 6;
  return { load: modulusOf(shore) * section * law, width: section * Math.sqrt((6 / Math.PI) * law) };
}

/** What its drag hangs on beside its size, as it is asked. */
export const DRAG_FIELDS = [
  {
    kind: 'number',
    name: 'shore',
    label: 'Hardness',
    quantity: 'count',
    min: SOFTEST,
    max: HARDEST,
    default: 70,
    help: 'Shore A; 70 where nothing is said.',
  },
  {
    kind: 'number',
    name: 'pressure',
    label: 'Pressure on it',
    quantity: 'pressure',
    min: 0,
    max: 40,
    default: 0,
    help: 'While it slides.',
  },
] as const;

export interface Dragging {
  /** Where it slides, mm. */
  readonly diameter: number;
  /** What is left of its section, mm. */
  readonly section: number;
  /** Share of the section. */
  readonly squeeze: number;
  readonly shore: number;
  /** MPa. */
  readonly pressure: number;
}

/** What a ring presses with all round, N; nothing where it is squeezed beyond what the law was measured to. */
export function pressOf({ diameter, section, squeeze, shore, pressure }: Dragging): number | undefined {
  if (squeeze <= 0 || squeeze > SQUEEZE_MOST) return undefined;
  const { load, width } = lineLoad(shore, section, squeeze);
  return Math.PI * diameter * (load + pressure * width);
}

/** The hardest first push of an oiled ring that stood, N. */
export function firstPush(ring: Dragging): number | undefined {
  const press = pressOf(ring);
  return press === undefined ? undefined : AFTER_REST.to * press;
}

/**
 * How hard does an O-ring drag?
 *
 * Its load on the surface by squeeze (Lindley) and hardness (Gent), and by the pressure on the width that it touches; times
 * length and friction. Friction of rubber scatters: the answer has two ends, running and after it has stood. What is to
 * push it back must be more than the upper one.
 *
 * Example: 70 Shore, 2.65 thick, squeezed 15 % round 20 mm: some 67 N of load; up to 13 N running, 40 N after rest.
 */
export const oringDrag = defineWorking({
  id: 'oring.drag',
  title: 'How hard does an O-ring drag?',
  area: 'seals',
  inputs: [
    {
      kind: 'number',
      name: 'diameter',
      label: 'Where it slides',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Diameter of rod, bore or shaft.',
    },
    {
      kind: 'number',
      name: 'section',
      label: 'Section',
      symbol: 'd₂',
      quantity: 'length',
      above: 0,
      max: 20,
      help: 'In its groove: what is left of it.',
    },
    {
      kind: 'number',
      name: 'squeeze',
      label: 'Squeezed by',
      quantity: 'ratio',
      share: true,
      above: 0,
      max: SQUEEZE_MOST,
      help: 'As “Does this O-ring fit?” has it.',
    },
    ...DRAG_FIELDS,
    { kind: 'number', name: 'rings', label: 'How many', quantity: 'count', min: 1, max: 10, default: 1, help: 'That slide together.' },
    {
      kind: 'choice',
      name: 'surface',
      label: 'It slides',
      default: 'oiled',
      choices: [
        { id: 'oiled', label: 'oiled or greased' },
        { id: 'dry', label: 'dry' },
      ],
      help: 'Dry it drags twice as hard, and tears.',
    },
    {
      kind: 'number',
      name: 'spring',
      label: 'Pushed back with',
      quantity: 'force',
      min: 0,
      max: 100_000,
      optional: true,
      help: 'The return spring where it is weakest, as measured.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'load', label: 'Presses with', quantity: 'force', help: 'All round, all rings.' },
    { kind: 'number', name: 'running', label: 'Drags, running, at least', quantity: 'force', help: 'Smooth and wet.' },
    { kind: 'number', name: 'runningMost', label: 'at most', quantity: 'force', help: 'As it is on most benches.' },
    { kind: 'number', name: 'rest', label: 'After it stood, at least', quantity: 'force', help: 'The first push.' },
    { kind: 'number', name: 'restMost', label: 'at most', quantity: 'force', help: 'After a night; what pushes it back must be more.' },
  ],
  sources: [
    { kind: 'handbook', document: 'Lindley, load and compression of rubber O-rings', for: 'load and width of touch', fromMemory: true },
    { kind: 'handbook', document: 'Gent, hardness and Young’s modulus', for: 'modulus', fromMemory: true },
    { kind: 'common practice', document: 'friction 0.05 to 0.2 running, 0.2 to 0.6 after rest, twice that dry', for: 'the two ends' },
  ],
  cautions: ['A brake piston that does not come back drags the brake hot: measure the spring, do not guess it.'],
  serves: [{ at: 'seal', kinds: ['o-ring', 'piston-seal'], rank: 6, preset: { section: 'seal.section' } }],
  example: { diameter: 20, section: 2.65, squeeze: 0.15, spring: 80 },
  compute(input) {
    const { diameter, section, rings, surface, spring } = input;
    if (section >= diameter)
      return refuse({ code: 'too-large', field: 'section', received: mm(section), bound: `less than where it slides, ${mm(diameter)}` });
    // The field's bounds are those of the law.
    const load = rings * pressOf(input)!;
    const times = surface === 'dry' ? DRY_TIMES : 1;
    const [running, runningMost, rest, restMost] = [RUNNING.from, RUNNING.to, AFTER_REST.from, AFTER_REST.to].map(
      (of) => of * times * load,
    );
    const verdict = spring === undefined || (spring > rest! && spring <= restMost!) ? 'unsure' : spring > restMost! ? 'in' : 'out';
    return ok({ verdict, load, running: running!, runningMost: runningMost!, rest: rest!, restMost: restMost! });
  },
  explain: (input, output) => [
    {
      say: 'Stiffness of the rubber by its hardness.',
      formula: 'E = 0.0981·(56 + 7.62·H)/(0.1375·(254 − 2.54·H))',
      numbers: `${modulusOf(input.shore).toFixed(2)} MPa`,
    },
    {
      say: 'What it presses with, all round.',
      formula: 'π·d·(E·d₂·(1.25·C^1.5 + 50·C⁶) + p·b)',
      numbers: `C = ${percent(input.squeeze)}: ${newtons(output.load)}`,
    },
    {
      say: 'Friction scatters: running, and after it stood.',
      numbers: `${newtons(output.running)} to ${newtons(output.runningMost)}; ${newtons(output.rest)} to ${newtons(output.restMost)}`,
    },
    ...(input.spring === undefined
      ? [{ say: 'Against what pushes it back: measure that.' }]
      : [{ say: 'Against what pushes it back.', numbers: `${newtons(input.spring)}: ${output.verdict}` }]),
  ],
});
