import { EXPANSION } from '../measuring/materials.js';
import { celsius, microns, mm, newtons } from '../quantity/write.js';
import { MODULUS_MPA } from '../torque/stiffness.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { contactPressure } from './lame.js';
import { LONG_FIELD, POISSON, PRESS_FIELD, SEAT_FIELD, STOP_SHARE } from './press.js';
import { TUBE_COLUMNS, type Tube } from './sleeve.js';

/** Between a tube and what passes through it, mm in diameter. Common practice. */
const CLEAR_MM = 0.5;
/** A face that is narrower carries nothing: the tube slips off the ring's edge. Common practice. */
const LEAST_FACE_MM = 1;
/** Highest release heat of what goes on running, °C. Bearing handbooks and common practice, from memory. */
const MOST_C = { keep: 120, spoil: 250 } as const;
const SIZES_AT_C = 20;

/** What is warmed round a seat. */
const OUTER = [
  { id: 'steel', label: 'steel' },
  { id: 'cast-iron', label: 'cast iron' },
  { id: 'aluminium', label: 'aluminium' },
  { id: 'brass', label: 'brass' },
] as const;

/**
 * How does it come off, and what goes under it?
 *
 * The ring that is tight is the one that is carried or pushed: of a bearing on a shaft the inner one, in a housing the
 * outer one, else the balls take the load. The support lets through what has to pass, and is longer than its way.
 * F = μ·π·d·L·p by Lamé, with the friction of a fit that has sat for years; fits that let go together are added; stop and
 * look at a quarter more than the most. A fit lets go of itself at T = T0 + δ/(α·d) when the outer part alone is warmed.
 * Refuses a press that is too small, a tube that is shorter than the way, and a ring with no face to carry it by. Holds
 * for straight seats, all elastic.
 *
 * Example: a race of 30 mm, 27 long, 46 outside, 30 µm: some 37 kN at most, a tube of 30.5 inside.
 */
export const off = defineWorking({
  id: 'fit.off',
  title: 'How does it come off, and what goes under it?',
  area: 'fits',
  inputs: [
    {
      kind: 'choice',
      name: 'ring',
      label: 'Tight is',
      default: 'inner ring',
      choices: [
        { id: 'inner ring', label: 'the inner ring, on a shaft' },
        { id: 'outer ring', label: 'the outer ring, in a housing' },
        { id: 'both rings', label: 'both rings' },
        { id: 'the part itself', label: 'the part itself' },
      ],
      help: 'The ring that is carried or pushed.',
    },
    {
      kind: 'choice',
      name: 'fate',
      label: 'It is',
      default: 'keep',
      choices: [
        { id: 'keep', label: 'to be kept' },
        { id: 'spoil', label: 'may be spoilt' },
      ],
      help: 'Asked first: it picks the way.',
    },
    SEAT_FIELD,
    LONG_FIELD,
    {
      kind: 'number',
      name: 'outside',
      label: 'Outside of the outer part',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 2000,
      help: 'Of the ring on its shaft; of the boss round the ring.',
    },
    {
      kind: 'number',
      name: 'interference',
      label: 'Interference at most',
      symbol: 'δ',
      quantity: 'length',
      min: 0,
      max: 1,
      help: 'By its zones, or as it was measured.',
    },
    { kind: 'choice', name: 'outerOf', label: 'Outer part of', default: 'steel', choices: OUTER, help: 'The ring, or the housing.' },
    {
      kind: 'number',
      name: 'friction',
      label: 'Friction',
      symbol: 'μ',
      quantity: 'ratio',
      min: 0.05,
      max: 0.6,
      default: 0.25,
      help: 'Coming off: oiled some 0.12, dry and fretted 0.25 and more.',
    },
    {
      kind: 'number',
      name: 'passes',
      label: 'What has to pass',
      quantity: 'length',
      above: 0,
      max: 1000,
      optional: true,
      help: 'Largest diameter that goes through the support; the seat when left empty.',
    },
    {
      kind: 'number',
      name: 'way',
      label: 'Its way',
      quantity: 'length',
      above: 0,
      max: 2000,
      optional: true,
      help: 'Until it is free; the length of the fit when left empty.',
    },
    {
      kind: 'number',
      name: 'others',
      label: 'Fits that let go with it',
      quantity: 'force',
      min: 0,
      max: 1e7,
      default: 0,
      help: 'Their most, added: plate and bearing at once.',
    },
    PRESS_FIELD,
    {
      kind: 'number',
      name: 'heatMost',
      label: 'Never warmer than',
      quantity: 'temperature',
      above: 20,
      max: 400,
      optional: true,
      help: 'What the sheet allows, for release.',
    },
    {
      kind: 'number',
      name: 'support',
      label: 'Tube that stands there, its length',
      quantity: 'length',
      above: 0,
      max: 2000,
      optional: true,
      help: 'Checked against the way.',
    },
    {
      kind: 'table',
      name: 'tubes',
      label: 'Tubes of the crib',
      columns: TUBE_COLUMNS,
      most: 200,
      optional: true,
      help: 'What can stand under it.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'what', label: 'So', longest: 300, help: 'The ring, the pipe, the push.' },
    { kind: 'number', name: 'force', label: 'Lets go by', symbol: 'F', quantity: 'force', help: 'At most, all that let go together.' },
    { kind: 'number', name: 'stop', label: 'Stop and look at', quantity: 'force', help: 'It is caught, or stands crooked.' },
    { kind: 'number', name: 'supportInside', label: 'Pipe under it, inside at least', quantity: 'length', help: 'For what passes.' },
    { kind: 'number', name: 'supportOutside', label: 'Outside at most', quantity: 'length', help: 'So that it carries that ring alone.' },
    { kind: 'number', name: 'supportLength', label: 'Length at least', quantity: 'length', help: 'The whole way.' },
    { kind: 'text', name: 'which', label: 'Take', longest: 200, help: 'Of the crib, the one with the broadest face.' },
    {
      kind: 'number',
      name: 'releases',
      label: 'Lets go of itself at',
      quantity: 'temperature',
      help: 'The outer part alone warmed through.',
    },
    { kind: 'text', name: 'heat', label: 'Heat', longest: 200, help: 'Whether it may be warmed so far.' },
  ],
  sources: [
    { kind: 'handbook', document: "Shigley's Mechanical Engineering Design", clause: '3-16', for: 'pressure by Lamé', fromMemory: true },
    { kind: 'standard', document: 'DIN 7190-1', for: 'F = μ·π·d·L·p; friction of coming off is above that of going on', fromMemory: true },
    {
      kind: 'common practice',
      document: 'carry the ring that is tight; a quarter more is stop and look; 1 mm of face',
      for: 'pipe and stop',
    },
  ],
  cautions: [
    'A fit that comes off lets go with a crack and a jump: shield, glasses, nobody in line, a hand or a box beneath for what drops.',
    'A hardened ring that is ground and cracked throws splinters: cover it. The cut ends a millimetre before the seat.',
    'Heat to let go: the unit open and drained, seals scrap, nothing that burns near it; the flame in licensed hands.',
  ],
  serves: [{ at: 'build', rank: 15 }],
  example: {
    ring: 'inner ring',
    seat: 30,
    long: 27,
    outside: 46,
    interference: 0.03,
    capacity: '100 kN',
    tubes: [{ name: 'tube 31 × 40', inside: 31, outside: 40, length: 90 }],
  },
  compute(input) {
    const { seat, outside, ring, fate } = input;
    if (outside <= seat)
      return refuse({
        code: 'cannot-be',
        field: 'outside',
        received: mm(outside),
        bound: `the wall has no thickness left: more than the seat, ${mm(seat)}`,
      });
    const outward = ring === 'outer ring';
    const passes = input.passes ?? seat;
    if (passes < seat)
      return refuse({ code: 'too-small', field: 'passes', received: mm(passes), bound: `the seat itself passes: ${mm(seat)} or more` });
    const supportLength = input.way ?? input.long;
    if (input.support !== undefined && input.support < supportLength)
      return refuse({
        code: 'too-small',
        field: 'support',
        received: mm(input.support),
        bound: `the whole way, ${mm(supportLength)}: what passes would stand on the table before it is free`,
      });
    const supportInside = passes + CLEAR_MM;
    if (outside - supportInside < 2 * LEAST_FACE_MM)
      return refuse({
        code: 'cannot-be',
        field: 'passes',
        received: mm(passes),
        bound: `no face is left to carry it: under ${mm(outside - 2 * LEAST_FACE_MM - CLEAR_MM)}; draw it with a splitter behind the ring, or from the other end`,
      });
    const outer = { inside: seat, outside, modulusMPa: MODULUS_MPA[input.outerOf], poisson: POISSON[input.outerOf] };
    const inner = { inside: 0, outside: seat, modulusMPa: MODULUS_MPA.steel, poisson: POISSON.steel };
    const own =
      input.interference === 0 ? 0 : input.friction * Math.PI * seat * input.long * contactPressure(input.interference, seat, outer, inner);
    const force = own + input.others;
    const stop = STOP_SHARE * force;
    if (input.capacity !== undefined && force > input.capacity)
      return refuse({
        code: 'too-small',
        field: 'capacity',
        received: newtons(input.capacity),
        bound: `what it may take, ${newtons(force)}; a larger press, release heat, or cut it`,
      });
    const releases = SIZES_AT_C + input.interference / (EXPANSION[input.outerOf] * seat);
    const heatMost = input.heatMost ?? MOST_C[fate];
    const heat =
      releases <= heatMost
        ? `Warmed to ${celsius(releases)} through it lets go of itself; never over ${celsius(heatMost)}.`
        : `Heat alone does not let it go: that would take ${celsius(releases)}, and it stands ${celsius(heatMost)}.`;
    const tubes = (input.tubes ?? []).map((row): Tube => ({
      name: String(row['name']),
      inside: Number(row['inside']),
      outside: Number(row['outside']),
      length: Number(row['length']),
    }));
    const face = (tube: Tube): number => Math.min(tube.outside, outside) - tube.inside;
    // In a housing the pipe carries the boss, however wide it is; on a shaft the ring, up to its rim.
    const fits = (tube: Tube): boolean =>
      tube.inside >= supportInside &&
      tube.length >= supportLength &&
      (outward || tube.outside <= outside) &&
      face(tube) >= 2 * LEAST_FACE_MM;
    const best = tubes.filter(fits).toSorted((one, other) => face(other) - face(one))[0];
    const which =
      best?.name ??
      `none of the crib: a pipe over ${mm(supportInside)} inside, ${outward ? `under the boss of ${mm(outside)}` : `under ${mm(outside)} outside`}, ${mm(supportLength)} long`;
    const carried = outward
      ? 'Push on the outer ring from behind, the housing on its pipe'
      : `Carry ${ring === 'the part itself' ? 'the part' : `the ${ring}`}, push the shaft through`;
    const spares = ring === 'the part itself' ? '' : ' Never through the balls.';
    const what =
      fate === 'spoil'
        ? `${carried}, through the balls if need be; or grind it to a millimetre before the seat and crack it.`
        : `${carried}.${spares}`;
    return ok({ what, force, stop, supportInside, supportOutside: outside, supportLength, which, releases, heat });
  },
  explain: (input, output) => [
    {
      say: 'Pressure between the seats, and the push that lets it go.',
      formula: 'F = μ·π·d·L·p, all that let go together added',
      numbers: `${microns(input.interference)}, μ ${input.friction}: ${newtons(output.force)}; stop at ${newtons(output.stop)}`,
    },
    {
      say: 'The pipe lets pass what has to, carries the tight ring, and is as long as the way.',
      numbers: `over ${mm(output.supportInside)} inside, to ${mm(output.supportOutside)} outside, ${mm(output.supportLength)} long: ${output.which}`,
    },
    { say: output.heat, formula: 'T = T0 + δ/(α·d)', numbers: celsius(output.releases) },
  ],
});
