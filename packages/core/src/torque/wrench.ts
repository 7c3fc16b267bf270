import { newtonMetres, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

const RADIANS = Math.PI / 180;
/** Of the top of the scale, where no lower end is marked (ISO 6789-1). */
const LEAST_SHARE = 0.2;

interface Tool {
  readonly name: string;
  readonly low: number;
  readonly high: number;
  readonly arm: number;
  readonly u: number;
  readonly bothWays: boolean;
  readonly good: boolean;
}

/**
 * Which wrench, and set to what?
 *
 * setting = T·L/(L + E·cos θ). A wrench will do when its setting lies in its marked range, or
 * from 20 % to the top where only a top is marked (ISO 6789-1), it clicks the way the thread
 * turns, and it is in calibration; of those the smallest uncertainty.
 *
 * Example: 108 N·m, from a 40–200 and a 60–340: the first, at 108 N·m.
 */
export const wrench = defineWorking({
  id: 'torque.wrench',
  title: 'Which wrench, and set to what?',
  area: 'torque',
  inputs: [
    {
      kind: 'number',
      name: 'torque',
      label: 'Torque wanted',
      symbol: 'T',
      quantity: 'torque',
      above: 0,
      max: 20_000,
      help: 'At the screw.',
    },
    {
      kind: 'choice',
      name: 'hand',
      label: 'Thread',
      default: 'right',
      choices: [
        { id: 'right', label: 'right-hand' },
        { id: 'left', label: 'left-hand' },
      ],
      help: 'Which way it tightens.',
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
      help: 'Drive centre to screw centre; 0 for a socket.',
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
      help: '0° straight out, 90° square.',
    },
    {
      kind: 'table',
      name: 'wrenches',
      label: 'Wrenches',
      columns: [
        { name: 'name', label: 'name', quantity: 'text' },
        { name: 'low', label: 'from', quantity: 'torque' },
        { name: 'high', label: 'to', quantity: 'torque' },
        { name: 'arm', label: 'length', quantity: 'length' },
        { name: 'u', label: 'uncertainty share', quantity: 'ratio' },
        { name: 'ways', label: 'clicks (right, both)', quantity: 'text' },
        { name: 'calibration', label: 'calibration (good, over)', quantity: 'text' },
      ],
      fewest: 1,
      most: 100,
      help: 'From 0 where only a top is marked.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'which', label: 'Take', longest: 200, help: 'The finest that will do.' },
    { kind: 'number', name: 'setting', label: 'Set to', quantity: 'torque', help: 'With the adapter on it.' },
    { kind: 'number', name: 'u', label: 'Good to', quantity: 'ratio', help: 'Standard uncertainty, as a share.' },
    {
      kind: 'table',
      name: 'each',
      label: 'Wrench by wrench',
      columns: [
        { name: 'name', label: 'wrench', quantity: 'text' },
        { name: 'setting', label: 'would be set to', quantity: 'torque' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'And why not the others.',
    },
  ],
  sources: [
    {
      kind: 'standard',
      document: 'ISO 6789-1',
      edition: '2017',
      for: 'from 20 % of the top where no lower end is marked',
      fromMemory: true,
    },
  ],
  cautions: ['A click wrench is no lever: never undo with it, and wind it back to its lowest mark.'],
  example: {
    torque: 108,
    wrenches: [
      { name: 'W2', low: 40, high: 200, arm: 450, u: 0.015, ways: 'both', calibration: 'good' },
      { name: 'W3', low: 60, high: 340, arm: 600, u: 0.02, ways: 'right', calibration: 'good' },
      { name: 'W1', low: 0, high: 100, arm: 300, u: 0.015, ways: 'both', calibration: 'over' },
    ],
  },
  compute(input) {
    const tools = input.wrenches.map((row): Tool => ({
      name: String(row['name']),
      low: Number(row['low']),
      high: Number(row['high']),
      arm: Number(row['arm']),
      u: Number(row['u']),
      bothWays: row['ways'] === 'both',
      good: row['calibration'] === 'good',
    }));
    for (const [index, tool] of tools.entries()) {
      const at = (name: string): { field: string; label: string } => ({
        field: `wrenches[${index}].${name}`,
        label: `Wrenches, row ${index + 1}, ${name}`,
      });
      if (tool.high <= Math.max(0, tool.low))
        return refuse({ code: 'window-upside-down', ...at('high'), received: newtonMetres(tool.high), bound: newtonMetres(tool.low) });
      if (tool.arm <= 0) return refuse({ code: 'too-small', ...at('arm'), received: String(tool.arm), bound: 'more than 0 mm' });
      if (tool.u < 0) return refuse({ code: 'too-small', ...at('u'), received: String(tool.u), bound: '0' });
    }
    const each = tools.map((tool) => {
      const reach = tool.arm + input.adapter * Math.cos(input.angle * RADIANS);
      const setting = reach > 0 ? (input.torque * tool.arm) / reach : Number.POSITIVE_INFINITY;
      return { tool, setting, why: against(tool, setting, input.hand) };
    });
    const best = each.filter(({ why }) => why === undefined).toSorted((one, other) => one.tool.u - other.tool.u)[0];
    if (!best)
      return refuse({
        code: 'none-will-do',
        field: 'wrenches',
        received: `the ${tools.length} wrenches`,
        bound: each.map(({ tool, why }) => `${tool.name} ${why ?? ''}`).join('; '),
      });
    return ok({
      which: best.tool.name,
      setting: best.setting,
      u: best.tool.u,
      each: each.map(({ tool, setting, why }) => ({
        name: tool.name,
        setting: Number.isFinite(setting) ? setting : 0,
        why: why ?? (tool === best.tool ? 'will do, and is the finest' : 'will do'),
      })),
    });
  },
  explain: (input, output) => [
    {
      say: 'What the adapter makes of the torque.',
      formula: 'setting = T·L/(L + E·cos θ)',
      numbers: `${newtonMetres(input.torque)} → ${newtonMetres(output.setting)}`,
    },
    {
      say: `${output.which} is the finest that will do, good to ${percent(output.u)}.`,
      numbers: output.each.map((row) => `${String(row['name'])}: ${String(row['why'])}`).join('; '),
    },
  ],
});

function against({ low, high, bothWays, good }: Tool, setting: number, hand: 'left' | 'right'): string | undefined {
  const from = low > 0 ? low : LEAST_SHARE * high;
  if (!good) return 'is past its calibration';
  if (hand === 'left' && !bothWays) return 'clicks to the right only';
  if (setting < from) return `reads from ${newtonMetres(from)}${low > 0 ? '' : `, ${percent(LEAST_SHARE)} of its top`}`;
  return setting > high ? `reads to ${newtonMetres(high)}` : undefined;
}
