import { megapascals, microns, mm, newtonMetres, newtons, percent } from '../quantity/write.js';
import { formatQuantity } from '../quantity/format.js';
import { MODULUS_MPA } from '../torque/stiffness.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { contactPressure, hoopStress, hubMises, shaftMises } from './lame.js';

export const POISSON = { steel: 0.3, 'cast-iron': 0.25, aluminium: 0.33, brass: 0.35, magnesium: 0.29 } as const;
/** What seats smooth each other flat by, share of both roughnesses (DIN 7190-1). */
const SMOOTHING = 0.8;
/** Over this share of the most expected something is in the way. Common practice. */
export const STOP_SHARE = 1.25;
const CURVE_POINTS = 30;

/** What a press can push; asked wherever one is used. */
export const PRESS_FIELD = {
  kind: 'number',
  name: 'capacity',
  label: 'The press has',
  quantity: 'force',
  above: 0,
  max: 1e7,
  optional: true,
  help: 'Such as 100 kN.',
} as const;

export const SEAT_FIELD = {
  kind: 'number',
  name: 'seat',
  label: 'Seat',
  symbol: 'd',
  quantity: 'length',
  above: 0,
  max: 1000,
  help: 'Diameter of the fit.',
} as const;

export const LONG_FIELD = {
  kind: 'number',
  name: 'long',
  label: 'Length of the fit',
  symbol: 'L',
  quantity: 'length',
  above: 0,
  max: 1000,
  help: 'Along the shaft, without chamfers.',
} as const;

const METALS = [
  { id: 'steel', label: 'steel' },
  { id: 'cast-iron', label: 'cast iron' },
  { id: 'aluminium', label: 'aluminium' },
  { id: 'brass', label: 'brass' },
  { id: 'magnesium', label: 'magnesium' },
] as const;

/**
 * What does it take to press this in, and when do I stop?
 *
 * Lamé: contact pressure from the interference less what the seats smooth flat,
 * F = μ·π·d·L·p, the stress at the bore after von Mises, √(σt² + σt·p + p²), the torque at which it slips. A hollow shaft
 * has 2·p·d²/(d² − di²) at its own bore. A gauge shows F over the ram's
 * area. Stop and look at a quarter more than the most expected. On a taper the push is
 * interference over taper. Holds for a solid or hollow shaft in a round hub, all elastic.
 *
 * Example: 30 mm steel in a 60 mm hub, 20 long, 25 µm: some 11.7 kN.
 */
export const press = defineWorking({
  id: 'fit.press',
  title: 'What does it take to press this in, and when do I stop?',
  area: 'fits',
  inputs: [
    SEAT_FIELD,
    LONG_FIELD,
    {
      kind: 'number',
      name: 'interference',
      label: 'Interference',
      symbol: 'δ',
      quantity: 'length',
      above: 0,
      max: 1,
      help: 'Shaft less bore, in diameter.',
    },
    {
      kind: 'number',
      name: 'interferenceU',
      label: 'Good to',
      quantity: 'length',
      min: 0,
      max: 0.1,
      default: 0.004,
      help: 'Standard (k = 1).',
    },
    {
      kind: 'number',
      name: 'outside',
      label: 'Outside of the hub',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 2000,
      help: 'Of the ring or the boss round it.',
    },
    {
      kind: 'number',
      name: 'inside',
      label: 'Bore through the shaft',
      symbol: 'di',
      quantity: 'length',
      min: 0,
      max: 1000,
      default: 0,
      help: '0 when it is solid.',
    },
    { kind: 'choice', name: 'hubOf', label: 'Hub of', default: 'steel', choices: METALS, help: 'The outer part.' },
    { kind: 'choice', name: 'shaftOf', label: 'Shaft of', default: 'steel', choices: METALS, help: 'The inner part.' },
    {
      kind: 'number',
      name: 'roughness',
      label: 'Roughness of both, Rz',
      quantity: 'length',
      min: 0,
      max: 0.1,
      default: 0.006,
      help: 'RzA + RzI together; ground some 3 µm each.',
    },
    {
      kind: 'number',
      name: 'frictionLeast',
      label: 'Friction at least',
      symbol: 'μ',
      quantity: 'ratio',
      min: 0.02,
      max: 0.6,
      default: 0.08,
      help: 'Oiled steel in steel some 0.08 to 0.12.',
    },
    {
      kind: 'number',
      name: 'frictionMost',
      label: 'Friction at most',
      quantity: 'ratio',
      min: 0.02,
      max: 0.6,
      default: 0.16,
      help: 'Dry, and to get it off again.',
    },
    {
      kind: 'number',
      name: 'ram',
      label: 'Ram of the press',
      quantity: 'length',
      above: 0,
      max: 500,
      optional: true,
      help: 'Diameter of its piston: gives what the gauge shows.',
    },
    PRESS_FIELD,
    {
      kind: 'number',
      name: 'yieldMPa',
      label: 'The hub yields at',
      quantity: 'pressure',
      above: 0,
      max: 3000,
      optional: true,
      help: 'Such as 250 MPa.',
    },
    {
      kind: 'number',
      name: 'shaftYieldMPa',
      label: 'The shaft yields at',
      quantity: 'pressure',
      above: 0,
      max: 3000,
      optional: true,
      help: 'A hollow one is loaded most at its bore.',
    },
    {
      kind: 'number',
      name: 'taper',
      label: 'Taper',
      quantity: 'ratio',
      min: 0,
      max: 0.5,
      default: 0,
      help: 'Of the diameter over the length, 1/12 = 0.0833; 0 when it is straight.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'force', label: 'Push', symbol: 'F', quantity: 'force', help: 'At the end of the way, middle friction.' },
    { kind: 'number', name: 'least', label: 'At least', quantity: 'force', help: 'Less than this: it is too loose.' },
    { kind: 'number', name: 'most', label: 'At most', quantity: 'force', help: 'With the most interference and friction.' },
    { kind: 'number', name: 'stop', label: 'Stop and look at', quantity: 'force', help: 'Something is in the way, or it goes in crooked.' },
    { kind: 'number', name: 'gauge', label: 'The gauge shows', quantity: 'pressure', optional: true, help: 'At the push.' },
    {
      kind: 'number',
      name: 'gaugeStop',
      label: 'Stop and look at, on the gauge',
      quantity: 'pressure',
      optional: true,
      help: 'At the stop.',
    },
    { kind: 'number', name: 'pressure', label: 'Contact pressure', symbol: 'p', quantity: 'pressure', help: 'Between the seats.' },
    {
      kind: 'number',
      name: 'hoop',
      label: 'Hoop stress in the hub',
      quantity: 'pressure',
      help: 'Round its bore, at the most interference.',
    },
    {
      kind: 'number',
      name: 'hubStress',
      label: 'Stress in the hub',
      quantity: 'pressure',
      help: 'Hoop stress and pressure together (von Mises), at its bore.',
    },
    {
      kind: 'number',
      name: 'shaftStress',
      label: 'Stress in the shaft',
      quantity: 'pressure',
      help: 'The same, where it is most: at its bore when it is hollow.',
    },
    { kind: 'number', name: 'slips', label: 'Slips at', quantity: 'torque', help: 'Least friction and interference.' },
    { kind: 'number', name: 'advance', label: 'Push on by', quantity: 'length', optional: true, help: 'On a taper, from touching.' },
    { kind: 'text', name: 'what', label: 'So', longest: 300, help: 'Whether press and hub can stand it.' },
  ],
  sources: [
    {
      kind: 'handbook',
      document: "Shigley's Mechanical Engineering Design",
      clause: '3-14 to 3-16',
      for: 'pressure and stress by Lamé, von Mises against yield',
      fromMemory: true,
    },
    { kind: 'standard', document: 'DIN 7190-1', for: 'smoothing 0.8·(RzA + RzI), friction', fromMemory: true },
    { kind: 'common practice', document: 'stop and look when it takes a quarter more', for: 'the stop' },
  ],
  cautions: [
    'A bearing ring under a press can burst: guard round it, glasses, nobody in line, push only on the ring that is being fitted.',
    'A press fit that comes off lets go with a crack and a jump.',
  ],
  serves: [{ at: 'build', rank: 12 }],
  example: { seat: 30, long: 20, interference: 0.025, outside: 60, ram: 50, capacity: '100 kN' },
  compute(input) {
    const { seat, outside, inside } = input;
    if (outside <= seat)
      return refuse({
        code: 'cannot-be',
        field: 'outside',
        received: mm(outside),
        bound: `the wall has no thickness left: more than the seat, ${mm(seat)}`,
      });
    if (inside >= seat)
      return refuse({
        code: 'cannot-be',
        field: 'inside',
        received: mm(inside),
        bound: `the shaft has no wall left: less than the seat, ${mm(seat)}`,
      });
    if (input.frictionMost < input.frictionLeast)
      return refuse({
        code: 'window-upside-down',
        field: 'frictionMost',
        received: String(input.frictionMost),
        bound: String(input.frictionLeast),
      });
    const holds = input.interference - SMOOTHING * input.roughness;
    if (holds <= 0)
      return refuse({
        code: 'too-small',
        field: 'interference',
        received: microns(input.interference),
        bound: `more than what the seats smooth flat, ${microns(SMOOTHING * input.roughness)}`,
      });
    const hub = { inside: seat, outside, modulusMPa: MODULUS_MPA[input.hubOf], poisson: POISSON[input.hubOf] };
    const shaft = { inside, outside: seat, modulusMPa: MODULUS_MPA[input.shaftOf], poisson: POISSON[input.shaftOf] };
    const pressureAt = (interference: number): number => contactPressure(interference, seat, hub, shaft);
    const area = Math.PI * seat * input.long;
    const leastHolds = Math.max(0, holds - 2 * input.interferenceU);
    const mostHolds = holds + 2 * input.interferenceU;
    const pressure = pressureAt(holds);
    const force = ((input.frictionLeast + input.frictionMost) / 2) * area * pressure;
    const least = input.frictionLeast * area * pressureAt(leastHolds);
    const most = input.frictionMost * area * pressureAt(mostHolds);
    const stop = STOP_SHARE * most;
    const hoop = hoopStress(pressureAt(mostHolds), seat, outside);
    if (input.capacity !== undefined && force > input.capacity)
      return refuse({
        code: 'too-small',
        field: 'capacity',
        received: newtons(input.capacity),
        bound: `the push of ${newtons(force)}; warm the hub, cool the shaft, or take a larger press`,
      });
    const hubStress = hubMises(pressureAt(mostHolds), seat, outside);
    const shaftStress = shaftMises(pressureAt(mostHolds), seat, inside);
    if (input.shaftYieldMPa !== undefined && shaftStress > input.shaftYieldMPa)
      return refuse({
        code: 'too-large',
        field: 'interference',
        received: microns(input.interference),
        bound: `what the shaft stands: its stress would be ${megapascals(shaftStress)}, it yields at ${megapascals(input.shaftYieldMPa)}`,
      });
    if (input.yieldMPa !== undefined && hubStress > input.yieldMPa)
      return refuse({
        code: 'too-large',
        field: 'interference',
        received: microns(input.interference),
        bound: `what the hub stands: its stress would be ${megapascals(hubStress)}, it yields at ${megapascals(input.yieldMPa)}`,
      });
    const ramArea = input.ram === undefined ? undefined : (Math.PI / 4) * input.ram ** 2;
    const what =
      input.capacity !== undefined && most > input.capacity
        ? `It may take ${newtons(most)}: the press could stop short. Warm the hub.`
        : input.yieldMPa !== undefined && hubStress > 0.8 * input.yieldMPa
          ? `The hub is loaded to ${percent(hubStress / input.yieldMPa)} of its yield.`
          : `Under ${newtons(least)} it is too loose, over ${newtons(stop)} stop and look.`;
    return ok({
      force,
      least,
      most,
      stop,
      gauge: ramArea === undefined ? undefined : force / ramArea,
      gaugeStop: ramArea === undefined ? undefined : stop / ramArea,
      pressure,
      hoop,
      hubStress,
      shaftStress,
      slips: (input.frictionLeast * area * pressureAt(leastHolds) * seat) / 2000,
      advance: input.taper > 0 ? input.interference / input.taper : undefined,
      what,
    });
  },
  explain: (input, output) => [
    {
      say: 'What the seats smooth flat does not hold.',
      formula: 'δ − 0.8·(RzA + RzI)',
      numbers: microns(input.interference - SMOOTHING * input.roughness),
    },
    {
      say: 'Pressure between the seats.',
      formula: 'p = δ / (d·[((D² + d²)/(D² − d²) + νo)/Eo + ((d² + di²)/(d² − di²) − νi)/Ei])',
      numbers: megapascals(output.pressure),
    },
    {
      say: 'Hoop stress and pressure at the bore, together.',
      formula: 'σ = √(σt² + σt·p + p²)',
      numbers: `hub ${megapascals(output.hubStress)}, shaft ${megapascals(output.shaftStress)}`,
    },
    {
      say: 'Push at the end of the way.',
      formula: 'F = μ·π·d·L·p',
      numbers: `${newtons(output.least)} to ${newtons(output.most)}; stop and look at ${newtons(output.stop)}`,
    },
    ...(output.gauge === undefined || output.gaugeStop === undefined
      ? []
      : [
          {
            say: 'On the gauge of the press.',
            formula: 'F/(π·ram²/4)',
            numbers: `${formatQuantity(output.gauge, 'pressure', 'bar')}, stop at ${formatQuantity(output.gaugeStop, 'pressure', 'bar')}`,
          },
        ]),
    { say: 'It slips at.', formula: 'μ·π·d²·L·p/2', numbers: newtonMetres(output.slips) },
  ],
  draw(input, output) {
    const line = (end: number): readonly (readonly [number, number])[] =>
      Array.from(
        { length: CURVE_POINTS + 1 },
        (_, step) => [(input.long * step) / CURVE_POINTS, (end * step) / CURVE_POINTS / 1000] as const,
      );
    return {
      kind: 'chart',
      x: 'mm in',
      y: 'kN',
      lines: [
        { name: 'push', points: line(output.force) },
        { name: 'least', points: line(output.least) },
        { name: 'most', points: line(output.most) },
      ],
      levels: [{ name: 'stop', at: output.stop / 1000 }],
    };
  },
});
