import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { parseThread, threadAreas } from './thread.js';

const INCH2_MM2 = 645.16;

/**
 * What carries the load in this thread?
 *
 * d2 = d − 0.649519·P, d3 = d − 1.226869·P, As = π/4·((d2 + d3)/2)²; unified threads
 * As = π/4·(d − 0.9743·P)². Holds for 60° threads of the ISO and unified profile.
 *
 * Example: M12x1.25 carries on 92.1 mm².
 */
export const areas = defineWorking({
  id: 'thread.areas',
  title: 'What carries the load in this thread?',
  area: 'threads',
  inputs: [{ kind: 'text', name: 'thread', label: 'Thread', longest: 40, help: 'M12x1.25, 1/2-20 UNF, #10-32.' }],
  outputs: [
    { kind: 'text', name: 'name', label: 'Thread', longest: 40, help: 'As it is read.' },
    { kind: 'number', name: 'diameter', label: 'Nominal diameter', symbol: 'd', quantity: 'length', help: 'Over the crests.' },
    { kind: 'number', name: 'pitch', label: 'Pitch', symbol: 'P', quantity: 'length', help: 'From crest to crest.' },
    { kind: 'number', name: 'd2', label: 'Pitch diameter', symbol: 'd2', quantity: 'length', help: 'Where thread and gap are equal.' },
    { kind: 'number', name: 'd3', label: 'Root diameter', symbol: 'd3', quantity: 'length', help: 'Of the screw, at the root.' },
    {
      kind: 'number',
      name: 'stressArea',
      label: 'Stress area, mm²',
      symbol: 'As',
      quantity: 'ratio',
      help: 'Area that is pulled, in mm².',
    },
    { kind: 'number', name: 'stressAreaIn', label: 'Stress area, in²', quantity: 'ratio', help: 'The same in square inches.' },
  ],
  sources: [
    { kind: 'standard', document: 'ISO 898-1', for: 'the stress area of metric threads', fromMemory: true },
    { kind: 'standard', document: 'ISO 724', for: 'the pitch and root diameters', fromMemory: true },
    { kind: 'standard', document: 'ASME B1.1', for: 'the stress area of unified threads', fromMemory: true },
  ],
  cautions: [],
  example: { thread: 'M12x1.25' },
  compute({ thread: text }) {
    const thread = parseThread(text);
    if (!thread || thread.flank !== 30 || thread.tapered) return refuse({ code: 'not-a-thread', field: 'thread', received: text });
    const { d2, d3, stressArea } = threadAreas(thread);
    return ok({
      name: thread.name,
      diameter: thread.diameter,
      pitch: thread.pitch,
      d2,
      d3,
      stressArea,
      stressAreaIn: stressArea / INCH2_MM2,
    });
  },
  explain(_, output) {
    const mm = (length: number): string => formatQuantity(length, 'length');
    const unified = output.name.includes('-');
    return [
      {
        say: 'Pitch diameter.',
        formula: 'd2 = d − 0.649519·P',
        numbers: `${mm(output.diameter)} − 0.649519 · ${mm(output.pitch)} = ${mm(output.d2)}`,
      },
      {
        say: 'Root of the screw.',
        formula: 'd3 = d − 1.226869·P',
        numbers: `${mm(output.diameter)} − 1.226869 · ${mm(output.pitch)} = ${mm(output.d3)}`,
      },
      {
        say: 'What is pulled lies between the two.',
        formula: unified ? 'As = π/4·(d − 0.9743·P)²' : 'As = π/4·((d2 + d3)/2)²',
        numbers: `As = ${output.stressArea.toFixed(2)} mm²`,
      },
    ];
  },
});
