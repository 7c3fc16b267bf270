import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Between driver and bore or shaft, mm in diameter: it slides and does not wander. Common practice. */
const CLEAR_MM = 0.5;
const WANDERS_MM = 2;

export interface Tube {
  readonly name: string;
  readonly inside: number;
  readonly outside: number;
  readonly length: number;
}

/** A tube, disc (0 inside) or socket as a row. */
export const TUBE_COLUMNS = [
  { name: 'name', label: 'name', quantity: 'text' },
  { name: 'inside', label: 'inside', quantity: 'length' },
  { name: 'outside', label: 'outside', quantity: 'length' },
  { name: 'length', label: 'length', quantity: 'length' },
] as const;

/**
 * Which driver, and what goes under it?
 *
 * The driver bears only on the ring that is being fitted: into a housing on the outer one, onto a
 * shaft on the inner one, both at once with a plate. Outside under the bore, inside over the shaft, each
 * by a clearance; below a support with room for what comes through. Holds for ball and roller
 * bearings and lip seals, whose rings stand a quarter of the section high.
 *
 * Example: a 6204 onto its shaft: a tube of 20.5 inside, 26.75 outside at most.
 */
export const sleeve = defineWorking({
  id: 'press.sleeve',
  title: 'Which driver, and what goes under it?',
  area: 'fits',
  inputs: [
    {
      kind: 'choice',
      name: 'into',
      label: 'It goes',
      default: 'shaft',
      choices: [
        { id: 'shaft', label: 'onto a shaft' },
        { id: 'housing', label: 'into a housing' },
        { id: 'both', label: 'onto both at once' },
      ],
      help: 'Which ring is tight.',
    },
    {
      kind: 'choice',
      name: 'part',
      label: 'It is a',
      default: 'bearing',
      choices: [
        { id: 'bearing', label: 'bearing' },
        { id: 'seal', label: 'lip seal' },
      ],
      help: 'A seal has nothing within that a disc could hurt.',
    },
    {
      kind: 'number',
      name: 'bore',
      label: 'Its bore',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Of the bearing or seal.',
    },
    {
      kind: 'number',
      name: 'outside',
      label: 'Its outside',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 2000,
      help: 'Of the bearing or seal.',
    },
    {
      kind: 'number',
      name: 'depth',
      label: 'How deep',
      quantity: 'length',
      min: 0,
      max: 1000,
      default: 0,
      help: 'From where the driver starts to where the ring ends up.',
    },
    {
      kind: 'table',
      name: 'tubes',
      label: 'Drivers of the crib',
      columns: TUBE_COLUMNS,
      most: 200,
      help: 'Tubes, discs (0 inside) and sockets.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'which', label: 'Take', longest: 200, help: 'The one with the broadest bearing face that fits.' },
    {
      kind: 'number',
      name: 'insideLeast',
      label: 'Inside at least',
      quantity: 'length',
      help: 'Over the shaft, and over the ring that must not be pushed.',
    },
    {
      kind: 'number',
      name: 'outsideMost',
      label: 'Outside at most',
      quantity: 'length',
      help: 'Under the bore, and under the ring that must not be pushed.',
    },
    { kind: 'number', name: 'lengthLeast', label: 'Length at least', quantity: 'length', help: 'To reach home.' },
    { kind: 'number', name: 'supportInside', label: 'Support below, inside at least', quantity: 'length', help: 'For what comes through.' },
    { kind: 'number', name: 'supportLength', label: 'Support below, length at least', quantity: 'length', help: 'For what comes through.' },
    {
      kind: 'table',
      name: 'each',
      label: 'Driver by driver',
      columns: [
        { name: 'name', label: 'driver', quantity: 'text' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'And why not the others.',
    },
  ],
  sources: [
    { kind: 'common practice', document: 'push only on the ring that is being fitted; driver just under the bore', for: 'the sizes' },
  ],
  cautions: [
    'Pushed through the balls a bearing is dented before it has turned once.',
    'Square in: stop at the first lean, take it out and begin again.',
  ],
  serves: [
    { at: 'build', rank: 14 },
    { at: 'seal', kinds: ['lip-seal'], rank: 4, preset: { bore: 'seal.shaft', outside: 'seal.bore' } },
  ],
  example: {
    into: 'shaft',
    bore: 20,
    outside: 47,
    depth: 12,
    tubes: [
      { name: 'tube 21 × 26', inside: 21, outside: 26, length: 60 },
      { name: 'socket 24', inside: 0, outside: 32, length: 50 },
    ],
  },
  compute(input) {
    const { bore, outside } = input;
    if (outside <= bore)
      return refuse({ code: 'too-small', field: 'outside', received: mm(outside), bound: `more than the bore, ${mm(bore)}` });
    const quarter = (outside - bore) / 4;
    const inner = bore + quarter;
    const outer = outside - quarter;
    const insideLeast = { shaft: bore + CLEAR_MM, housing: input.part === 'seal' ? 0 : outer, both: bore + CLEAR_MM }[input.into];
    const outsideMost = { shaft: inner, housing: outside - CLEAR_MM, both: outside - CLEAR_MM }[input.into];
    const tubes = input.tubes.map((row): Tube => ({
      name: String(row['name']),
      inside: Number(row['inside']),
      outside: Number(row['outside']),
      length: Number(row['length']),
    }));
    const upside = tubes.findIndex((tube) => tube.outside <= tube.inside);
    if (upside !== -1)
      return refuse({
        code: 'cannot-be',
        field: `tubes[${upside}].outside`,
        label: `Drivers of the crib, row ${upside + 1}`,
        received: mm(tubes[upside]!.outside),
        bound: 'a tube is wider outside than inside',
      });
    const each = tubes.map((tube) => ({
      tube,
      why: against(tube, { insideLeast, outsideMost, depth: input.depth, into: input.into, bore, outside }),
    }));
    const best = each.filter(({ why }) => why === undefined).toSorted((one, other) => faceOf(other.tube) - faceOf(one.tube))[0];
    return ok({
      which: best?.tube.name ?? `none of the crib: turn one ${mm(insideLeast)} inside and ${mm(outsideMost)} outside`,
      insideLeast,
      outsideMost,
      lengthLeast: input.depth,
      supportInside: input.into === 'housing' ? outside + CLEAR_MM : bore + CLEAR_MM,
      supportLength: input.depth,
      each: each.map(({ tube, why }) => ({ name: tube.name, why: why ?? (tube === best?.tube ? 'fits, with the broadest face' : 'fits') })),
    });
  },
  explain: (input, output) => [
    {
      say: {
        shaft: 'Onto a shaft: on the inner ring alone.',
        housing: 'Into a housing: on the outer ring alone.',
        both: 'Both tight: on both rings at once, with a flat plate.',
      }[input.into],
      numbers: `inside from ${mm(output.insideLeast)}, outside to ${mm(output.outsideMost)}`,
    },
    { say: output.which, numbers: output.each.map((row) => `${String(row['name'])}: ${String(row['why'])}`).join('; ') },
    {
      say: 'Below it something that lets the shaft or the ring come through.',
      numbers: `${mm(output.supportInside)} inside, ${mm(output.supportLength)} long`,
    },
  ],
});

interface Room {
  readonly insideLeast: number;
  readonly outsideMost: number;
  readonly depth: number;
  readonly into: 'shaft' | 'housing' | 'both';
  readonly bore: number;
  readonly outside: number;
}

function against(tube: Tube, { insideLeast, outsideMost, depth, into, bore, outside }: Room): string | undefined {
  if (tube.inside < insideLeast) return into === 'housing' ? 'would push on the inner ring or the balls' : 'does not go over the shaft';
  if (tube.outside > outsideMost) return into === 'shaft' ? 'would push on the balls or the outer ring' : 'does not go into the bore';
  if (tube.length < depth) return `is ${mm(depth - tube.length)} too short`;
  if (into !== 'housing' && tube.inside > bore + CLEAR_MM + WANDERS_MM) return 'wanders: too wide inside';
  return into === 'housing' && tube.outside < outside - CLEAR_MM - WANDERS_MM ? 'wanders: too narrow outside' : undefined;
}

function faceOf({ inside, outside }: Tube): number {
  return outside ** 2 - inside ** 2;
}
