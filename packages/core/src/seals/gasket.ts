import { VERDICT, type Verdict } from '../measuring/verdict-field.js';
import { megapascals, newtons, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

interface Kind {
  readonly name: string;
  /** Stress that seats it, MPa, and by how much more than the pressure it must stay pressed. */
  readonly seats: number;
  readonly factor: number;
  /** Stress that spoils it, MPa; common practice. */
  readonly spoils: number;
  /** What it gives up in a day and the first warmth; common practice. */
  readonly settles: number;
}

/** Seating stress y and factor m: ASME VIII, appendix 2, table 2-5.1, from memory. */
const KINDS = {
  rubber: { name: 'rubber sheet, 75 Shore and over', seats: 1.4, factor: 1, spoils: 8, settles: 0.3 },
  'vegetable-fibre': { name: 'paper, oiled', seats: 7.6, factor: 1.75, spoils: 50, settles: 0.3 },
  'fibre-3': { name: 'pressed fibre, 3 mm', seats: 11, factor: 2, spoils: 60, settles: 0.25 },
  'fibre-1.5': { name: 'pressed fibre, 1.5 mm', seats: 25.5, factor: 2.75, spoils: 100, settles: 0.2 },
  'fibre-0.8': { name: 'pressed fibre, 0.8 mm', seats: 44.8, factor: 3.5, spoils: 150, settles: 0.15 },
  aluminium: { name: 'aluminium, flat', seats: 60.7, factor: 4, spoils: 200, settles: 0.05 },
  copper: { name: 'copper, flat, soft', seats: 89.6, factor: 4.75, spoils: 300, settles: 0.05 },
} as const satisfies Readonly<Record<string, Kind>>;
type KindId = keyof typeof KINDS;

/**
 * Do the screws press the gasket enough?
 *
 * Stress n·F/A against what seats the gasket and what spoils it; and what is left at work, after it has settled and with the
 * pressure pushing the parts apart, against m times that pressure (ASME VIII, appendix 2). Says what each screw would have to hold.
 * For flat gaskets under all of their screws; one that hangs between two far apart is not pressed there.
 *
 * Example: 8 screws of 9 kN on 2800 mm² of pressed fibre 1.5 mm: 25.7 MPa, just seated.
 */
export const gasket = defineWorking({
  id: 'gasket.compress',
  title: 'Do the screws press the gasket enough?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'gasket',
      label: 'Gasket of',
      choices: (Object.keys(KINDS) as KindId[]).map((id) => ({ id, label: KINDS[id].name })),
      help: 'As it is; not a sealant, which only fills.',
    },
    { kind: 'number', name: 'screws', label: 'Screws', quantity: 'count', min: 1, max: 120, help: 'All that press it.' },
    {
      kind: 'number',
      name: 'holds',
      label: 'A screw holds',
      quantity: 'force',
      above: 0,
      max: 1e6,
      help: 'Its clamp load: “What does this torque clamp?” tells it.',
    },
    { kind: 'number', name: 'length', label: 'Gasket, once round', quantity: 'length', above: 0, max: 20_000, help: 'Along its middle.' },
    { kind: 'number', name: 'wide', label: 'and wide', quantity: 'length', above: 0, max: 200, help: 'Where both faces touch it.' },
    {
      kind: 'number',
      name: 'pressure',
      label: 'Pressure within',
      quantity: 'pressure',
      min: 0,
      max: 100,
      default: 0,
      help: 'At work, the highest.',
    },
    {
      kind: 'number',
      name: 'within',
      label: 'Diameter it works on',
      quantity: 'length',
      above: 0,
      max: 2000,
      optional: true,
      help: 'Of the room that is closed; needed where there is a pressure.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'stress', label: 'Pressed with', quantity: 'pressure', help: 'When it is pulled up.' },
    { kind: 'number', name: 'seats', label: 'Seats at', quantity: 'pressure', help: 'Less and it never fills the faces.' },
    { kind: 'number', name: 'left', label: 'Left at work', quantity: 'pressure', help: 'Settled, and pushed apart by the pressure.' },
    { kind: 'number', name: 'leftLeast', label: 'Needs at work', quantity: 'pressure', help: 'm times the pressure.' },
    { kind: 'number', name: 'each', label: 'A screw would have to hold', quantity: 'force', help: 'The least that is enough for both.' },
    { kind: 'text', name: 'so', label: 'So', longest: 240, help: 'What to do.' },
  ],
  sources: [
    { kind: 'standard', document: 'ASME VIII division 1, appendix 2, table 2-5.1', for: 'seating stress and factor', fromMemory: true },
    { kind: 'common practice', document: 'settling of a day, and what spoils a gasket', for: 'what is left and what is too much' },
  ],
  cautions: ['Nothing under pressure is pulled up: let it off first.'],
  serves: [{ at: 'seal', kinds: ['gasket'] }],
  example: { gasket: 'fibre-1.5', screws: 8, holds: '9 kN', length: 350, wide: 8 },
  compute({ gasket: kind, screws, holds, length, wide, pressure, within }) {
    if (pressure > 0 && within === undefined) return refuse({ code: 'required', field: 'within', quantity: 'length' });
    const { seats, factor, spoils, settles } = KINDS[kind];
    const area = length * wide;
    const stress = (screws * holds) / area;
    const apart = pressure > 0 ? pressure * (Math.PI / 4) * (within ?? 0) ** 2 : 0;
    const left = (screws * holds * (1 - settles) - apart) / area;
    const leftLeast = factor * pressure;
    const each = Math.max(seats * area, (leftLeast * area + apart) / (1 - settles)) / screws;
    const right = `${newtons(each)} a screw would be right`;
    const wrong =
      stress > spoils
        ? `crushed: ${megapascals(spoils)} is the most it stands, ${newtons((spoils * area) / screws)} a screw`
        : stress < seats
          ? `not seated: ${right}, or a softer gasket`
          : left < leftLeast
            ? `blows at work: ${right}`
            : undefined;
    const holding = settles >= 0.2 ? `pull again after the first warmth: it gives up some ${percent(settles)}` : 'holds';
    const verdict: Verdict = wrong === undefined ? 'in' : 'out';
    return ok({ verdict, stress, seats, left, leftLeast, each, so: wrong ?? holding });
  },
  explain: (_, output) => [
    {
      say: 'What the screws press it with.',
      formula: 'n·F/(length · width)',
      numbers: `${megapascals(output.stress)}, seats at ${megapascals(output.seats)}`,
    },
    {
      say: 'What is left when it has settled and the pressure pushes the parts apart.',
      formula: '(n·F·(1 − settling) − p·π/4·d²)/(length · width)',
      numbers: `${megapascals(output.left)}, needs m·p = ${megapascals(output.leftLeast)}`,
    },
    { say: `So: ${output.so}.`, numbers: `${newtons(output.each)} a screw is the least` },
  ],
});
