import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';
import { EXPANSION, EXPANSION_CHOICES } from './materials.js';

const REFERENCE_C = 20;
/** Share by which the expansion of an alloy differs from the table, one standard uncertainty. */
const ALLOY_SHARE = 0.1;

/**
 * What is its size at 20 °C?
 *
 * L20 = L·(1 + α_tool·(T_tool − 20)) / (1 + α_part·(T_part − 20)). The tool's scale grows with it
 * and reads too little; the part grows and reads too much. Uncertainty from the two temperatures
 * and from the coefficients (10 %). Holds for parts warm through, −40 to 150 °C.
 *
 * Example: 100.050 mm of aluminium at 60 °C, by a steel tool at 20 °C, is 99.958 mm at 20 °C.
 */
export const at20 = defineWorking({
  id: 'measure.at-20',
  title: 'What is its size at 20 °C?',
  area: 'measuring',
  inputs: [
    {
      kind: 'number',
      name: 'read',
      label: 'Read',
      quantity: 'length',
      above: 0,
      max: 10_000,
      help: 'The size as read, warm or cold as it was.',
    },
    {
      kind: 'number',
      name: 'partT',
      label: 'Part at',
      quantity: 'temperature',
      min: -40,
      max: 150,
      help: 'Its temperature right through, not only its skin.',
    },
    {
      kind: 'number',
      name: 'toolT',
      label: 'Tool at',
      quantity: 'temperature',
      min: -40,
      max: 60,
      default: 20,
      help: 'As it lay: a tool held long in the hand is warmer than the room.',
    },
    { kind: 'choice', name: 'part', label: 'Part of', default: 'steel', choices: EXPANSION_CHOICES, help: 'What it is made of.' },
    {
      kind: 'choice',
      name: 'tool',
      label: 'Tool of',
      default: 'steel',
      choices: EXPANSION_CHOICES,
      help: 'What its scale or frame is made of.',
    },
    {
      kind: 'number',
      name: 'temperatureU',
      label: 'Temperatures good to',
      quantity: 'temperature difference',
      min: 0,
      max: 20,
      default: 1,
      help: 'Standard uncertainty of each: 1 K, or 2 °F.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'size', label: 'At 20 °C', quantity: 'length', help: 'The size to compare with a limit.' },
    { kind: 'number', name: 'change', label: 'Correction', quantity: 'length', help: 'Added to what was read.' },
    { kind: 'number', name: 'u', label: 'Its uncertainty', quantity: 'length', help: 'Standard, of the correction alone.' },
  ],
  sources: [
    { kind: 'standard', document: 'ISO 1', edition: '2022', for: 'sizes are meant at 20 °C' },
    {
      kind: 'handbook',
      document: "Machinery's Handbook",
      clause: 'thermal expansion of metals',
      for: 'the coefficients',
      fromMemory: true,
    },
  ],
  cautions: ['A part from the oven or the washer is warm inside long after its skin is cool.'],
  serves: [{ at: 'measure', rank: 99 }],
  example: { read: '100.050 mm', partT: 60, part: 'aluminium' },
  compute(input) {
    const partRise = input.partT - REFERENCE_C;
    const toolRise = input.toolT - REFERENCE_C;
    const [partAlpha, toolAlpha] = [EXPANSION[input.part], EXPANSION[input.tool]];
    const size = (input.read * (1 + toolAlpha * toolRise)) / (1 + partAlpha * partRise);
    const u =
      input.read *
      Math.hypot(
        partAlpha * input.temperatureU,
        toolAlpha * input.temperatureU,
        ALLOY_SHARE * partAlpha * partRise,
        ALLOY_SHARE * toolAlpha * toolRise,
      );
    return ok({ size, change: size - input.read, u });
  },
  explain(input, output) {
    const alpha = (of: keyof typeof EXPANSION): string => `${(EXPANSION[of] * 1e6).toFixed(1)}·10⁻⁶/K`;
    return [
      {
        say: `Part ${alpha(input.part)}, tool ${alpha(input.tool)}.`,
        formula: 'L20 = L·(1 + α_tool·(T_tool − 20)) / (1 + α_part·(T_part − 20))',
        numbers: `${formatQuantity(input.read, 'length')} → ${formatQuantity(output.size, 'length')}`,
      },
      { say: 'What the temperatures and the alloys leave open.', numbers: `± ${formatQuantity(output.u, 'length', 'µm')} (k = 1)` },
    ];
  },
});
