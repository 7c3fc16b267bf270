import { degrees, microns, mm, newtonMetres, newtons, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { forceAtYield, torqueArm, type Head } from './screw.js';
import { CLASS_FIELD, FACE_FIELD, HEAD_FIELD, THREAD_FIELD, readScrew } from './screw-fields.js';
import { MEMBER_CHOICES, MODULUS_MPA, boltStiffness, memberStiffness } from './stiffness.js';

const TURN = 360;
const FLAT = 60;
/** Joint stiffness by cones is no better; said with the answer. */
const STIFFNESS_SHARE = 0.3;
const CURVE_POINTS = 40;
/** Of what a screw stretches before it breaks: over it the neck may begin. Common practice. */
const PLASTIC_SHARE = 0.5;
/** Thread that stretches beyond the grip, in diameters: what is engaged gives, too (VDI 2230-1, from memory). */
const ENGAGED_SHARE = 0.5;
/** Clamped lengths over the diameter for which cones of 30° stand for the joint. Common practice. */
const GRIP_RATIO = { least: 0.5, most: 20 };

/**
 * Snug, then an angle: what does it clamp?
 *
 * ΔF = (P·θ/360)·kb·km/(kb + km), the stretch of the screw F/kb; snug force by the long form. From the yield force on the
 * clamp levels off, and every degree more stretches the free thread for good: Δ = P·(θ − θ yield)/360. It breaks at
 * A·(free thread + d/2), A the elongation after fracture of its class; over half of that it is refused. Good to ± 30 %,
 * by the stiffness of the joint, and the stiffer joint counts for what may break. Inverse: the angle for a wanted clamp.
 * Holds once the parts touch (snug must close gaps) and for 0.5 to 20 diameters of grip.
 *
 * Example: M10 of 10.9 through 40 mm of steel, 15 N·m and 70°: to yield, 48 kN.
 */
export const angle = defineWorking({
  id: 'torque.angle',
  title: 'Snug, then an angle: what does it clamp?',
  area: 'torque',
  inputs: [
    THREAD_FIELD,
    CLASS_FIELD,
    HEAD_FIELD,
    FACE_FIELD,
    { kind: 'number', name: 'snug', label: 'Snug torque', quantity: 'torque', above: 0, max: 5000, help: 'Closes the joint.' },
    {
      kind: 'choice',
      name: 'ask',
      label: 'Known',
      default: 'angle',
      choices: [
        { id: 'angle', label: 'the angle' },
        { id: 'clamp', label: 'the clamp that is wanted' },
      ],
      help: 'The other one is worked out.',
    },
    {
      kind: 'number',
      name: 'angle',
      label: 'Angle',
      symbol: 'θ',
      quantity: 'angle',
      min: 0,
      max: 720,
      optional: true,
      onlyFor: { field: 'ask', choices: ['angle'] },
      help: 'Turned on from snug.',
    },
    {
      kind: 'number',
      name: 'clamp',
      label: 'Clamp wanted',
      quantity: 'force',
      above: 0,
      max: 5e6,
      optional: true,
      onlyFor: { field: 'ask', choices: ['clamp'] },
      help: 'In the end.',
    },
    {
      kind: 'number',
      name: 'grip',
      label: 'Clamped length',
      symbol: 'l',
      quantity: 'length',
      above: 0,
      max: 2000,
      help: 'Under the head to the nut; into a tapped hole half a diameter more.',
    },
    {
      kind: 'number',
      name: 'shank',
      label: 'Of it without thread',
      symbol: 'ld',
      quantity: 'length',
      min: 0,
      max: 2000,
      default: 0,
      help: 'Plain shank within the clamped length.',
    },
    { kind: 'choice', name: 'members', label: 'Clamped parts of', default: 'steel', choices: MEMBER_CHOICES, help: 'The softer of them.' },
    {
      kind: 'number',
      name: 'friction',
      label: 'Friction',
      symbol: 'μ',
      quantity: 'ratio',
      min: 0.03,
      max: 0.6,
      default: 0.12,
      help: 'Of thread and head, for the snug part only.',
    },
  ],
  outputs: [
    {
      kind: 'number',
      name: 'clamp',
      label: 'Clamps',
      quantity: 'force',
      help: 'Snug and angle together; from the yield of the screw on it grows no more.',
    },
    { kind: 'number', name: 'least', label: 'At least', quantity: 'force', help: '30 % less from the angle.' },
    { kind: 'number', name: 'most', label: 'At most', quantity: 'force', help: '30 % more from the angle, at most the yield.' },
    { kind: 'number', name: 'turn', label: 'Angle', quantity: 'angle', help: 'From snug.' },
    { kind: 'number', name: 'flats', label: 'Flats of the hexagon', quantity: 'ratio', help: 'Paint one corner; one flat is 60°.' },
    { kind: 'number', name: 'stretch', label: 'The screw grows by', quantity: 'length', help: 'Over its clamped length, tight.' },
    { kind: 'number', name: 'plastic', label: 'Of it for good, at most', quantity: 'length', help: 'In the stiffest joint.' },
    { kind: 'number', name: 'yieldsAt', label: 'Yields at', quantity: 'angle', help: 'From snug.' },
    {
      kind: 'number',
      name: 'mostAngle',
      label: 'Never over',
      quantity: 'angle',
      help: 'Half of what it stretches before it breaks, in the stiffest joint.',
    },
    { kind: 'number', name: 'breaksAt', label: 'May break at', quantity: 'angle', help: 'In the stiffest joint.' },
    { kind: 'number', name: 'snugForce', label: 'Snug clamps', quantity: 'force', help: 'Before the angle.' },
    {
      kind: 'choice',
      name: 'state',
      label: 'The screw is',
      choices: [
        { id: 'elastic', label: 'below yield: it may be used again if it is not longer' },
        { id: 'yield', label: 'taken to yield: a new one each time' },
      ],
      help: 'Whether it comes back.',
    },
  ],
  sources: [
    {
      kind: 'handbook',
      document: "Shigley's Mechanical Engineering Design",
      clause: '8-4, 8-5',
      for: 'stiffness of bolt and members',
      fromMemory: true,
    },
    { kind: 'standard', document: 'VDI 2230-1', for: 'the yield force and the snug force', fromMemory: true },
    { kind: 'standard', document: 'ISO 898-1, SAE J429', for: 'elongation after fracture', fromMemory: true },
    {
      kind: 'common practice',
      document: 'half of the elongation as the margin to fracture; grips of 0.5 to 20 diameters',
      for: 'what is refused',
    },
  ],
  cautions: ['Screws that are turned to an angle are new each time, unless the book says otherwise.'],
  serves: [{ at: 'build', families: ['propeller shaft with centre bearing'], rank: 2 }],
  example: { thread: 'M10', propertyClass: '10.9', snug: '15 N·m', angle: 70, grip: 40 },
  compute(input) {
    const modelled = modelOf(input);
    if (!modelled.ok) return modelled;
    const { yields, snugForce, perDegree, bolt, perPlasticDegree, breaks } = modelled.value;
    if (input.ask === 'clamp') {
      if (input.clamp === undefined) return refuse({ code: 'required', field: 'clamp', quantity: 'force' });
      if (input.clamp < snugForce)
        return refuse({
          code: 'too-small',
          field: 'clamp',
          received: newtons(input.clamp),
          bound: `what snug clamps, ${newtons(snugForce)}`,
        });
      if (input.clamp > yields)
        return refuse({
          code: 'too-large',
          field: 'clamp',
          received: newtons(input.clamp),
          bound: `what yields the screw, ${newtons(yields)}`,
        });
    } else if (input.angle === undefined) return refuse({ code: 'required', field: 'angle', quantity: 'angle' });
    const turn = input.ask === 'angle' ? input.angle! : (input.clamp! - snugForce) / perDegree;
    const yieldsAt = (yields - snugForce) / perDegree;
    // The stiffest joint yields first, and stretches furthest for good.
    const soonest = yieldsAt / (1 + STIFFNESS_SHARE);
    const plastic = Math.max(0, turn - soonest) * perPlasticDegree;
    const mostAngle = soonest + (PLASTIC_SHARE * breaks) / perPlasticDegree;
    if (turn > mostAngle)
      return refuse({
        code: 'too-large',
        field: 'angle',
        received: degrees(turn),
        bound: `${degrees(mostAngle)}: it yields at ${degrees(yieldsAt)} and may break at ${degrees(soonest + breaks / perPlasticDegree)}`,
      });
    const gained = turn * perDegree;
    const clamp = Math.min(yields, snugForce + gained);
    return ok({
      clamp,
      least: Math.min(yields, snugForce + gained * (1 - STIFFNESS_SHARE)),
      most: Math.min(yields, snugForce + gained * (1 + STIFFNESS_SHARE)),
      turn,
      flats: turn / FLAT,
      stretch: clamp / 1000 / bolt + Math.max(0, turn - yieldsAt) * perPlasticDegree,
      plastic,
      yieldsAt,
      mostAngle,
      breaksAt: soonest + breaks / perPlasticDegree,
      snugForce,
      state: snugForce + gained * (1 + STIFFNESS_SHARE) >= yields ? ('yield' as const) : ('elastic' as const),
    });
  },
  explain: (input, output) => [
    {
      say: 'What snug clamps.',
      formula: 'F = M / (P/2π + d2·μ/(2·cos 30°) + DKm·μ/2)',
      numbers: `${newtonMetres(input.snug)} → ${newtons(output.snugForce)}`,
    },
    {
      say: `What the turn adds, good to ± ${percent(STIFFNESS_SHARE)}.`,
      formula: 'ΔF = (P·θ/360)·kb·km/(kb + km)',
      numbers: `${degrees(output.turn)} → ${newtons(output.clamp)}, from ${newtons(output.least)} to ${newtons(output.most)}`,
    },
    {
      say: 'Where it yields, and how far it is from breaking.',
      formula: 'Δ for good = P·(θ − θ yield)/360, breaks at A·(free thread + d/2)',
      numbers: `yields at ${degrees(output.yieldsAt)}; never over ${degrees(output.mostAngle)}; may break at ${degrees(output.breaksAt)}`,
    },
    {
      say: 'As flats of the hexagon, and as growth of the screw.',
      numbers: `${output.flats.toFixed(2)} flats, ${microns(output.stretch)}`,
    },
  ],
  draw(input, output) {
    const modelled = modelOf(input);
    if (!modelled.ok) throw new Error('drawn without an answer');
    const { yields, snugForce, perDegree } = modelled.value;
    const curve = (share: number): readonly (readonly [number, number])[] =>
      Array.from({ length: CURVE_POINTS + 1 }, (_, step) => {
        const at = (output.turn * step) / CURVE_POINTS;
        return [at, Math.min(yields, snugForce + at * perDegree * share) / 1000] as const;
      });
    return {
      kind: 'chart',
      x: 'degrees from snug',
      y: 'kN',
      lines: [
        { name: 'clamp', points: curve(1) },
        { name: 'least', points: curve(1 - STIFFNESS_SHARE) },
        { name: 'most', points: curve(1 + STIFFNESS_SHARE) },
      ],
      levels: [{ name: 'yield', at: yields / 1000 }],
    };
  },
});

interface Joint {
  readonly thread: string;
  readonly propertyClass: string;
  readonly head: Head;
  readonly face: number | undefined;
  readonly snug: number;
  readonly grip: number;
  readonly shank: number;
  readonly members: keyof typeof MODULUS_MPA;
  readonly friction: number;
}

interface Model {
  /** N. */
  readonly yields: number;
  readonly snugForce: number;
  readonly perDegree: number;
  /** kN/mm. */
  readonly bolt: number;
  /** mm for good, for each degree past yield; and mm at which it breaks. */
  readonly perPlasticDegree: number;
  readonly breaks: number;
}

function modelOf(input: Joint): Result<Model> {
  const read = readScrew(input);
  if (!read.ok) return read;
  const { thread, strength, headMean: head } = read.value;
  const { diameter, pitch } = thread;
  if (input.grip < GRIP_RATIO.least * diameter || input.grip > GRIP_RATIO.most * diameter)
    return refuse({
      code: 'outside-method',
      field: 'grip',
      received: mm(input.grip),
      bound: `${mm(GRIP_RATIO.least * diameter)} to ${mm(GRIP_RATIO.most * diameter)} of grip for this thread`,
    });
  if (input.shank > input.grip)
    return refuse({ code: 'too-large', field: 'shank', received: mm(input.shank), bound: `the clamped length, ${mm(input.grip)}` });
  const yields = forceAtYield(thread, strength.yieldMPa, input.friction, 1);
  const snugForce = (input.snug * 1000) / torqueArm(thread, input.friction, input.friction, head);
  if (snugForce >= yields)
    return refuse({
      code: 'too-large',
      field: 'snug',
      received: newtonMetres(input.snug),
      bound: `less than what yields the screw, ${newtons(yields)}`,
    });
  const bolt = boltStiffness(thread, input.grip, input.shank);
  const members = memberStiffness(diameter, input.grip, MODULUS_MPA[input.members]);
  const perPlasticDegree = pitch / TURN;
  return ok({
    yields,
    snugForce,
    perDegree: (perPlasticDegree * 1000 * bolt * members) / (bolt + members),
    bolt,
    perPlasticDegree,
    breaks: strength.elongation * (input.grip - input.shank + ENGAGED_SHARE * diameter),
  });
}
