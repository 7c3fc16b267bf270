import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';

const RADIANS = Math.PI / 180;

/** An arm shorter than this share of the wrench leaves no room for the hand or the sum. */
const LEAST_ARM_SHARE = 0.05;

/**
 * What do I set the wrench to, with this adapter on it?
 *
 * setting = wanted · L / ((L + E·cos θ) · i · η), where L is drive centre to grip centre (mm), E
 * drive centre to fastener centre (mm), θ the angle of the adapter to the wrench (0° straight
 * out, 90° square, 180° folded back), i and η ratio and efficiency of a torque multiplier.
 * Holds for a hand on the marked grip. A coaxial extension bar has E = 0 and changes nothing.
 *
 * Example: 108 N·m with L 450, E 55, θ 30° is set at 97.66 N·m.
 */
export const adapter = defineWorking({
  id: 'torque.adapter',
  title: 'What do I set the wrench to, with this adapter on it?',
  area: 'torque',
  inputs: [
    {
      kind: 'choice',
      name: 'ask',
      label: 'Wanted',
      default: 'setting',
      choices: [
        { id: 'setting', label: 'the wrench setting for a torque at the fastener' },
        { id: 'at-fastener', label: 'the torque at the fastener for a wrench setting' },
      ],
      help: 'Which of the two figures is known.',
    },
    {
      kind: 'number',
      name: 'torque',
      label: 'Torque known',
      symbol: 'T',
      quantity: 'torque',
      above: 0,
      max: 20000,
      help: 'The torque wanted at the fastener, or the wrench setting.',
    },
    {
      kind: 'number',
      name: 'wrench',
      label: 'Wrench length',
      symbol: 'L',
      quantity: 'length',
      min: 20,
      max: 3000,
      help: 'Centre of the drive to the middle of the grip.',
    },
    {
      kind: 'number',
      name: 'adapter',
      label: 'Adapter length',
      symbol: 'E',
      quantity: 'length',
      min: 0,
      max: 1000,
      default: 0,
      help: 'Centre of the drive to the centre of the fastener; 0 for a socket or a straight extension bar.',
    },
    {
      kind: 'number',
      name: 'angle',
      label: 'Adapter angle',
      symbol: 'θ',
      quantity: 'angle',
      min: 0,
      max: 180,
      default: 0,
      help: '0° straight out, 90° square to the wrench, 180° folded back over it.',
    },
    {
      kind: 'number',
      name: 'bar',
      label: 'Extension bar',
      quantity: 'length',
      min: 0,
      max: 2000,
      default: 0,
      help: 'Length of a bar in line with the fastener. It changes nothing.',
    },
    {
      kind: 'number',
      name: 'ratio',
      label: 'Multiplier ratio',
      symbol: 'i',
      quantity: 'ratio',
      min: 1,
      max: 200,
      default: 1,
      help: 'Turns in for one turn out; 1 without a multiplier.',
    },
    {
      kind: 'number',
      name: 'efficiency',
      label: 'Multiplier efficiency',
      symbol: 'η',
      quantity: 'ratio',
      min: 0.3,
      max: 1,
      default: 1,
      help: 'Share of the torque that comes through; 1 without a multiplier.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'setting', label: 'Set the wrench to', quantity: 'torque', help: 'What the wrench is set to, or shows.' },
    { kind: 'number', name: 'atFastener', label: 'At the fastener', quantity: 'torque', help: 'What the fastener gets.' },
    {
      kind: 'number',
      name: 'factor',
      label: 'Setting over torque',
      quantity: 'ratio',
      help: 'Under 1 the setting is below the torque, over 1 above it.',
    },
    { kind: 'number', name: 'arm', label: 'Working length', quantity: 'length', help: 'Grip to fastener, along the wrench.' },
  ],
  sources: [
    {
      kind: 'derivation',
      document: 'Equilibrium of moments about drive and fastener, one force at the grip',
      for: 'the factor L / (L + E·cos θ)',
    },
    { kind: 'common practice', document: 'A straight extension bar does not change the torque', for: 'the extension bar' },
  ],
  cautions: ['The sum holds for a hand on the middle of the grip: another place on the handle is another length.'],
  example: { torque: '108 N·m', wrench: 450, adapter: 55, angle: 30 },
  compute({
    ask,
    torque,
    wrench,
    adapter: length,
    angle,
    ratio,
    efficiency,
  }): Result<{ setting: number; atFastener: number; factor: number; arm: number }> {
    const arm = wrench + length * Math.cos(angle * RADIANS);
    if (arm < LEAST_ARM_SHARE * wrench) {
      const most = (wrench * (1 - LEAST_ARM_SHARE)) / -Math.cos(angle * RADIANS);
      return refuse({
        code: 'adapter-folds-past',
        field: 'adapter',
        received: formatQuantity(length, 'length'),
        bound: formatQuantity(most, 'length'),
      });
    }
    const factor = wrench / (arm * ratio * efficiency);
    const setting = ask === 'setting' ? torque * factor : torque;
    return ok({ setting, atFastener: setting / factor, factor, arm });
  },
  explain(input, output) {
    const mm = (length: number): string => formatQuantity(length, 'length');
    const steps = [
      {
        say: 'Length from grip to fastener, along the wrench.',
        formula: 'L + E·cos θ',
        numbers: `${mm(input.wrench)} + ${mm(input.adapter)} · cos ${formatQuantity(input.angle, 'angle')} = ${mm(output.arm)}`,
      },
      {
        say:
          input.ask === 'setting'
            ? 'The wrench feels the torque in the proportion of the lengths.'
            : 'The fastener gets the setting in the inverse proportion.',
        formula: input.ask === 'setting' ? 'setting = T · L / ((L + E·cos θ) · i · η)' : 'T = setting · (L + E·cos θ) · i · η / L',
        numbers:
          input.ask === 'setting'
            ? `${formatQuantity(input.torque, 'torque')} · ${mm(input.wrench)} / (${mm(output.arm)} · ${input.ratio} · ${input.efficiency}) = ${formatQuantity(output.setting, 'torque')}`
            : `${formatQuantity(input.torque, 'torque')} · ${mm(output.arm)} · ${input.ratio} · ${input.efficiency} / ${mm(input.wrench)} = ${formatQuantity(output.atFastener, 'torque')}`,
      },
    ];
    if (input.bar > 0)
      steps.push({
        say: `The ${mm(input.bar)} extension bar is in line with the fastener and changes nothing.`,
        formula: 'E = 0',
        numbers: 'factor 1',
      });
    if (input.angle === 90 && input.adapter > 0)
      steps.push({
        say: 'Square to the wrench the adapter changes nothing.',
        formula: 'cos 90° = 0',
        numbers: `factor ${output.factor.toFixed(3)}`,
      });
    return steps;
  },
});
