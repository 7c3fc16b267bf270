import { mm, newtonMetres, newtons, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { forceAtYield, strippingForces, torqueArm } from './screw.js';
import { CLASS_FIELD, FACE_FIELD, HEAD_FIELD, THREAD_FIELD, readScrew, strengthOf } from './screw-fields.js';
import { FEMALE_CHOICES, FEMALE_MPA, FRICTION, SURFACE_CHOICES, screwShearMPa } from './screw-tables.js';

/** Of the yield strength, while tightening (VDI 2230-1). */
const YIELD_SHARE = 0.9;
/** Of what strips the thread; common practice. */
const STRIP_SHARE = 0.75;
/** A gasket is crushed, plastic creeps: shares of what the screw alone would take. Common practice. */
const SOFT_SHARE = { gasket: 0.5, plastic: 0.25 } as const;

/** What an electrical stud may be made of; everything else is a screw that somebody put there. */
const STUD_METALS: ReadonlySet<string> = new Set(['copper', 'brass']);

const REFUSED = {
  'set-screw': 'a set screw has no clamped length: by its own table, by the key, and a second one on top of it',
  'hose-clamp': 'a hose clamp is tightened until the rubber stands level with the band, and again when it is warm',
} as const;

/** Electrical studs turn in their insulators: N·m by thread, common practice. Under M4 the metal alone says. */
const STUD_MOST_NM: readonly (readonly [diameter: number, most: number])[] = [
  [4, 1.2],
  [5, 2],
  [6, 3],
  [8, 8],
  [10, 14],
  [12, 20],
];

/**
 * The book gives no torque: how tight?
 *
 * High = the 90 % yield figure at the lowest friction of the surface, or what strips or crushes
 * first; aim = high less the wrench's scatter; low = aim less the scatter once more. Least clamp from
 * highest friction at the low torque. M = F·(P/2π + d2·μG/(2·cos 30°) + DKm·μK/2).
 * Holds for metal on metal with 60° threads; a soft joint gets a share. An electrical stud is taken as copper unless it
 * is said to be brass, and has its cap. The class is always asked: an unmarked screw is the lowest.
 *
 * Example: M6 of 8.8, oiled, into a nut: 8.6 N·m, at most 8.9 N·m.
 */
export const noSpec = defineWorking({
  id: 'torque.no-spec',
  title: 'The book gives no torque: how tight?',
  area: 'torque',
  inputs: [
    THREAD_FIELD,
    CLASS_FIELD,
    HEAD_FIELD,
    FACE_FIELD,
    {
      kind: 'choice',
      name: 'surface',
      label: 'Surface',
      default: 'oiled',
      choices: SURFACE_CHOICES,
      help: 'As it goes together, not as it came out of the box.',
    },
    {
      kind: 'number',
      name: 'least',
      label: 'Friction at least',
      symbol: 'μ',
      quantity: 'ratio',
      min: 0.03,
      max: 0.6,
      optional: true,
      help: 'Instead of the surface’s lower end, where it is known.',
    },
    {
      kind: 'number',
      name: 'most',
      label: 'Friction at most',
      quantity: 'ratio',
      min: 0.03,
      max: 0.6,
      optional: true,
      help: 'Instead of the surface’s upper end, where it is known.',
    },
    {
      kind: 'choice',
      name: 'female',
      label: 'Screwed into',
      default: 'nut',
      choices: FEMALE_CHOICES,
      help: 'The weaker of what the thread is cut in.',
    },
    {
      kind: 'number',
      name: 'engaged',
      label: 'Engaged length',
      symbol: 'Le',
      quantity: 'length',
      above: 0,
      max: 300,
      optional: true,
      help: 'Of full thread. Left empty: the height of a nut, 0.8 of the diameter.',
    },
    {
      kind: 'choice',
      name: 'joint',
      label: 'What lies between',
      default: 'metal',
      choices: [
        { id: 'metal', label: 'metal on metal' },
        { id: 'gasket', label: 'a soft gasket' },
        { id: 'plastic', label: 'a plastic cover' },
        { id: 'stud', label: 'an electrical stud' },
        { id: 'set-screw', label: 'nothing: a set screw' },
        { id: 'hose-clamp', label: 'a hose, in a clamp' },
      ],
      help: 'What the screw presses together.',
    },
    {
      kind: 'number',
      name: 'scatter',
      label: 'Scatter of the tool',
      quantity: 'ratio',
      min: 0,
      max: 0.5,
      default: 0.04,
      help: '4 % for a wrench in calibration (ISO 6789-1), 25 % for a practised hand.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'aim', label: 'Aim', quantity: 'torque', help: 'What the wrench is set to.' },
    { kind: 'number', name: 'low', label: 'Low', quantity: 'torque', help: 'What the screw may get.' },
    { kind: 'number', name: 'high', label: 'High', quantity: 'torque', help: 'Never more.' },
    { kind: 'text', name: 'governs', label: 'What governs', longest: 200, help: 'What would go first.' },
    { kind: 'number', name: 'clampLeast', label: 'Clamp at least', quantity: 'force', help: 'Highest friction, low torque.' },
    { kind: 'number', name: 'clampMost', label: 'Clamp at most', quantity: 'force', help: 'Lowest friction, high torque.' },
    { kind: 'number', name: 'strips', label: 'Strips at', quantity: 'force', help: 'The weaker of the two threads.' },
    {
      kind: 'number',
      name: 'engagedNeeded',
      label: 'Thread that would hold the screw',
      quantity: 'length',
      help: 'Engaged length from which the screw itself governs.',
    },
    { kind: 'text', name: 'trust', label: 'Trust', longest: 20, help: 'Never more than calculated: the foreman may make it the shop’s.' },
  ],
  sources: [
    {
      kind: 'standard',
      document: 'VDI 2230-1',
      edition: '2015',
      clause: 'table A1, table A5, R1',
      for: 'torque, assembly preload at 90 % of yield, friction classes',
      fromMemory: true,
    },
    { kind: 'standard', document: 'ISO 898-1', edition: '2013', clause: 'table 3', for: 'yield strengths', fromMemory: true },
    { kind: 'standard', document: 'FED-STD-H28/2B', for: 'shear areas of threads', fromMemory: true },
    { kind: 'standard', document: 'ISO/TR 16224', for: 'what bending of the flanks takes off', fromMemory: true },
    { kind: 'common practice', document: 'caps of soft joints and electrical studs', for: 'gasket, plastic, stud' },
  ],
  cautions: [
    'A worked-out figure is no maker’s figure: brakes, steering, lifting and pressure go by the book, or wait for it.',
    'A dry figure on an oiled screw yields it.',
  ],
  example: { thread: 'M6', propertyClass: '8.8', surface: 'oiled' },
  compute(input) {
    const read = readScrew(input);
    if (!read.ok) return read;
    const { thread, headMean: head } = read.value;
    if (input.joint === 'set-screw' || input.joint === 'hose-clamp')
      return refuse({ code: 'outside-method', field: 'joint', received: input.joint.replace('-', ' '), bound: REFUSED[input.joint] });
    const made =
      input.joint === 'stud'
        ? strengthOf(STUD_METALS.has(input.propertyClass) ? input.propertyClass : 'copper', thread)
        : ok(read.value.strength);
    if (!made.ok) return made;
    const strength = made.value;
    const { least, most } = frictionOf(input);
    if (most < least) {
      if (input.most === undefined)
        return refuse({
          code: 'too-large',
          field: 'least',
          received: String(least),
          bound: `${most}, the upper end of this surface; give both`,
        });
      if (input.least === undefined)
        return refuse({
          code: 'too-small',
          field: 'most',
          received: String(most),
          bound: `${least}, the lower end of this surface; give both`,
        });
      return refuse({ code: 'window-upside-down', field: 'most', received: String(most), bound: String(least) });
    }
    const screw = forceAtYield(thread, strength.yieldMPa, least, YIELD_SHARE);
    const engaged = input.engaged ?? 0.8 * thread.diameter;
    const shear = screwShearMPa(strength);
    const femaleMPa = input.female === 'nut' ? shear : FEMALE_MPA[input.female];
    const stripping = strippingForces(thread, engaged, femaleMPa, shear);
    const strips = Math.min(stripping.female, stripping.male);
    const arm = (friction: number): number => torqueArm(thread, friction, friction, head) / 1000;
    const limits = [
      { governs: `the screw: ${percent(YIELD_SHARE)} of its yield`, force: screw },
      {
        governs: stripping.female <= stripping.male ? 'the thread in the hole would strip' : 'the thread of the screw would strip',
        force: STRIP_SHARE * strips,
      },
    ];
    let { governs, force } = limits.toSorted((one, other) => one.force - other.force)[0]!;
    if (input.joint === 'gasket' || input.joint === 'plastic') {
      const soft = SOFT_SHARE[input.joint] * screw;
      if (soft < force)
        [governs, force] = [input.joint === 'gasket' ? 'the gasket would be crushed' : 'the plastic would creep or crack', soft];
    }
    let high = force * arm(least);
    if (input.joint === 'stud') {
      const cap = STUD_MOST_NM.findLast(([diameter]) => diameter <= thread.diameter)?.[1] ?? Number.POSITIVE_INFINITY;
      governs = `the stud, taken as ${STUD_METALS.has(input.propertyClass) ? input.propertyClass : 'copper'}: ${governs}`;
      if (cap < high) [governs, high] = ['the stud: copper or brass in its insulator', cap];
    }
    const aim = high / (1 + input.scatter);
    const low = aim * (1 - input.scatter);
    const perMm = strippingForces(thread, 1, femaleMPa, shear);
    return ok({
      aim,
      low,
      high,
      governs,
      clampLeast: low / arm(most),
      clampMost: high / arm(least),
      strips,
      engagedNeeded: screw / (STRIP_SHARE * Math.min(perMm.female, perMm.male)),
      trust: 'calculated',
    });
  },
  explain(input, output) {
    const { least, most } = frictionOf(input);
    return [
      {
        say: `At the lowest friction, ${least}, the screw is loaded most.`,
        formula: 'F = ν·Rp0.2·A0 / √(1 + 3·[1.5·(d2/d0)·(P/(π·d2) + 1.155·μ)]²)',
        numbers: `governs: ${output.governs}; ${newtons(output.clampMost)}`,
      },
      {
        say: 'The torque that makes this force.',
        formula: 'M = F·(P/2π + d2·μ/(2·cos 30°) + DKm·μ/2)',
        numbers: `high ${newtonMetres(output.high)}, aim ${newtonMetres(output.aim)} at ± ${percent(input.scatter)}`,
      },
      { say: `At the highest friction, ${most}, and the low torque it clamps least.`, numbers: newtons(output.clampLeast) },
      {
        say: 'Shear areas of both threads at their limit sizes.',
        formula: 'A = π·Le·d/P·[P/2 + overlap/√3]',
        numbers: `strips at ${newtons(output.strips)}; ${mm(output.engagedNeeded)} of thread would hold the screw`,
      },
    ];
  },
});

interface Frictions {
  readonly surface: keyof typeof FRICTION;
  readonly least: number | undefined;
  readonly most: number | undefined;
}

function frictionOf({ surface, least, most }: Frictions): { readonly least: number; readonly most: number } {
  const row = FRICTION[surface];
  // What is known of one end says nothing of the other.
  return { least: least ?? row.least, most: most ?? row.most };
}
