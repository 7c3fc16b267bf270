import { microns, mm, newtons, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { boltStiffness } from './stiffness.js';
import { CLASS_FIELD, THREAD_FIELD, screwThread, strengthOf } from './screw-fields.js';
import { threadAreas } from '../threads/thread.js';

/** So much longer for good is a screw that has yielded: twice what the measuring leaves open. */
const SET_K = 2;

/**
 * The screw grew by so much: what does it clamp, and may it be used again?
 *
 * F = kb·(L tight − L free), kb = Ad·At·E/(Ad·lt + At·ld). A screw that stays longer after it was
 * slackened has yielded. Holds below yield; length measured at the same temperature, by its centres.
 *
 * Example: an M12 rod screw of 12.9, 60 mm in the grip, 0.12 mm longer: 34.5 kN.
 */
export const stretch = defineWorking({
  id: 'bolt.stretch',
  title: 'The screw grew by so much: what does it clamp, and may it be used again?',
  area: 'torque',
  inputs: [
    THREAD_FIELD,
    CLASS_FIELD,
    {
      kind: 'number',
      name: 'grip',
      label: 'Clamped length',
      symbol: 'l',
      quantity: 'length',
      above: 0,
      max: 2000,
      help: 'The part of the screw that is stretched.',
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
    { kind: 'number', name: 'free', label: 'Length before', quantity: 'length', above: 0, max: 2000, help: 'New or slack, end to end.' },
    { kind: 'number', name: 'tight', label: 'Length tight', quantity: 'length', above: 0, max: 2000, help: 'As it sits.' },
    {
      kind: 'number',
      name: 'after',
      label: 'Length after it was slackened',
      quantity: 'length',
      above: 0,
      max: 2000,
      optional: true,
      help: 'To see whether it came back.',
    },
    {
      kind: 'number',
      name: 'u',
      label: 'Lengths good to',
      symbol: 'u',
      quantity: 'length',
      min: 0,
      max: 0.5,
      default: 0.003,
      help: 'Standard (k = 1) of each.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'force', label: 'Clamps', quantity: 'force', help: 'From the growth.' },
    { kind: 'number', name: 'forceU', label: 'Its uncertainty', quantity: 'force', help: 'Standard, from the two lengths.' },
    { kind: 'number', name: 'proofShare', label: 'Of its proof or yield load', quantity: 'ratio', help: 'Over 1 it does not come back.' },
    { kind: 'number', name: 'set', label: 'Longer for good', quantity: 'length', optional: true, help: 'After less before.' },
    {
      kind: 'choice',
      name: 'reuse',
      label: 'Use it again',
      choices: [
        { id: 'yes', label: 'yes: it came back' },
        { id: 'no', label: 'no: a new one' },
        { id: 'not-known', label: 'not known: slacken it and measure once more' },
      ],
      help: 'By whether it came back to its length.',
    },
  ],
  sources: [
    {
      kind: 'handbook',
      document: "Shigley's Mechanical Engineering Design",
      clause: '8-4',
      for: 'stiffness of the screw',
      fromMemory: true,
    },
  ],
  cautions: ['A screw that is longer for good breaks the next time.'],
  example: { thread: 'M12', propertyClass: '12.9', grip: 60, free: 82, tight: 82.12 },
  compute(input) {
    const read = screwThread(input.thread);
    if (!read.ok) return read;
    const strength = strengthOf(input.propertyClass, read.value);
    if (!strength.ok) return strength;
    if (input.shank > input.grip)
      return refuse({ code: 'too-large', field: 'shank', received: mm(input.shank), bound: `the clamped length, ${mm(input.grip)}` });
    if (input.tight < input.free)
      return refuse({
        code: 'cannot-be',
        field: 'tight',
        received: mm(input.tight),
        bound: `a tight screw is no shorter than the ${mm(input.free)} it was`,
      });
    const stiffness = boltStiffness(read.value, input.grip, input.shank) * 1000;
    const force = stiffness * (input.tight - input.free);
    const carried = (strength.value.proofMPa ?? strength.value.yieldMPa) * threadAreas(read.value).stressArea;
    const forceU = stiffness * input.u * Math.SQRT2;
    const set = input.after === undefined ? undefined : input.after - input.free;
    const isLonger = set !== undefined && set > SET_K * input.u * Math.SQRT2;
    const reuse = isLonger || force - forceU > carried ? 'no' : set === undefined ? 'not-known' : 'yes';
    return ok({ force, forceU, proofShare: force / carried, set, reuse: reuse as 'yes' | 'no' | 'not-known' });
  },
  explain: (input, output) => [
    {
      say: 'The screw is its own spring.',
      formula: 'F = kb·(L tight − L free)',
      numbers: `${microns(input.tight - input.free)} → ${newtons(output.force)} ± ${newtons(output.forceU)}, ${percent(output.proofShare)} of what it carries`,
    },
    ...(output.set === undefined
      ? []
      : [{ say: 'What stayed when it was slack.', formula: 'L after − L before', numbers: microns(output.set) }]),
  ],
});
