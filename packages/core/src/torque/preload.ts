import { newtonMetres, newtons, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { forceAtYield, torqueArm } from './screw.js';
import { CLASS_FIELD, FACE_FIELD, HEAD_FIELD, THREAD_FIELD, readScrew } from './screw-fields.js';

/** Tightening factor αA = Fmax/Fmin by method; VDI 2230-1 table A8, middle of each range, from memory. */
const METHODS = {
  'yield-angle': 1.3,
  'torque-known': 1.5,
  'torque-guessed': 2,
  hand: 3,
  impact: 3.5,
} as const;

/**
 * What does this torque clamp?
 *
 * Fm = M / (P/2π + d2·μG/(2·cos 30°) + DKm·μK/2); about that mean the method scatters:
 * Fmax = 2·αA·Fm/(1 + αA), Fmin = Fmax/αA. Holds below yield, for 60° threads.
 *
 * Example: 24 N·m on M8 at μ 0.12 clamps 18.2 kN, 14.6 to 21.9 kN by a torque wrench.
 */
export const preload = defineWorking({
  id: 'torque.preload',
  title: 'What does this torque clamp?',
  area: 'torque',
  inputs: [
    THREAD_FIELD,
    CLASS_FIELD,
    HEAD_FIELD,
    FACE_FIELD,
    { kind: 'number', name: 'torque', label: 'Torque', symbol: 'M', quantity: 'torque', above: 0, max: 20_000, help: 'At the screw.' },
    {
      kind: 'number',
      name: 'threadFriction',
      label: 'Friction in the thread',
      symbol: 'μG',
      quantity: 'ratio',
      min: 0.03,
      max: 0.6,
      default: 0.12,
      help: 'Oiled steel some 0.12, dry some 0.18.',
    },
    {
      kind: 'number',
      name: 'headFriction',
      label: 'Friction under the head',
      symbol: 'μK',
      quantity: 'ratio',
      min: 0.03,
      max: 0.6,
      default: 0.12,
      help: 'The face that turns.',
    },
    {
      kind: 'choice',
      name: 'method',
      label: 'Tightened by',
      default: 'torque-known',
      choices: [
        { id: 'torque-known', label: 'torque wrench, friction known' },
        { id: 'torque-guessed', label: 'torque wrench, friction guessed' },
        { id: 'yield-angle', label: 'torque and angle' },
        { id: 'hand', label: 'hand' },
        { id: 'impact', label: 'impact wrench' },
      ],
      help: 'How far the clamp may be off.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'force', label: 'Clamps', symbol: 'Fm', quantity: 'force', help: 'At these frictions.' },
    { kind: 'number', name: 'least', label: 'At least', quantity: 'force', help: 'With the scatter of the method.' },
    { kind: 'number', name: 'most', label: 'At most', quantity: 'force', help: 'With the scatter of the method.' },
    { kind: 'number', name: 'yieldShare', label: 'Of yield, at most', quantity: 'ratio', help: 'Over 1 the screw is stretched for good.' },
    { kind: 'text', name: 'what', label: 'So', longest: 200, help: 'What it means.' },
  ],
  sources: [
    {
      kind: 'standard',
      document: 'VDI 2230-1',
      edition: '2015',
      clause: 'R1, table A8',
      for: 'the sum and the tightening factors',
      fromMemory: true,
    },
  ],
  cautions: ['A clamp worked out from a torque is a guess with a range: where it matters, measure the stretch.'],
  example: { thread: 'M8', propertyClass: '8.8', torque: 24 },
  compute(input) {
    const read = readScrew(input);
    if (!read.ok) return read;
    const { thread, strength, headMean: head } = read.value;
    const force = (input.torque * 1000) / torqueArm(thread, input.threadFriction, input.headFriction, head);
    const factor = METHODS[input.method];
    const most = (2 * factor * force) / (1 + factor);
    const yields = forceAtYield(thread, strength.yieldMPa, input.threadFriction, 1);
    const yieldShare = most / yields;
    if (force > 2 * yields)
      return refuse({
        code: 'too-large',
        field: 'torque',
        received: newtonMetres(input.torque),
        bound: `${newtonMetres((2 * yields * torqueArm(thread, input.threadFriction, input.headFriction, head)) / 1000)}, at which the screw breaks`,
      });
    const what =
      yieldShare > 1
        ? 'The screw may be stretched for good.'
        : yieldShare > 0.9
          ? 'Near yield: as a critical joint is meant to be.'
          : 'Below yield.';
    return ok({ force, least: most / factor, most, yieldShare, what });
  },
  explain: (input, output) => [
    {
      say: 'Force from torque.',
      formula: 'Fm = M / (P/2π + d2·μG/(2·cos 30°) + DKm·μK/2)',
      numbers: `${newtonMetres(input.torque)} → ${newtons(output.force)}`,
    },
    {
      say: 'The method scatters about it.',
      formula: 'Fmax = 2·αA·Fm/(1 + αA), Fmin = Fmax/αA',
      numbers: `αA ${METHODS[input.method]}: ${newtons(output.least)} to ${newtons(output.most)}, at most ${percent(output.yieldShare)} of yield`,
    },
  ],
});
