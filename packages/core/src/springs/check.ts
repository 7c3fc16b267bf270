import { judge } from '../measuring/verdict.js';
import { VERDICT, worstOf, type Verdict } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * Are the springs tired?
 *
 * Free length, load at the set length, and squareness (lean at the top when stood on end) of each
 * spring against the sheet; as a set, the weakest and how unlike they are. Rate from free length
 * and load: k = F / (L0 − L). Holds for a straight (constant rate) compression spring.
 *
 * Example: five of 38 mm that push 212 N at 26 mm have a rate of 17.7 N/mm.
 */
export const springCheck = defineWorking({
  id: 'spring.check',
  title: 'Are the springs tired?',
  area: 'springs',
  inputs: [
    {
      kind: 'table',
      name: 'springs',
      label: 'Springs',
      columns: [
        { name: 'free', label: 'free length', quantity: 'length' },
        { name: 'load', label: 'load at set length', quantity: 'force' },
        { name: 'lean', label: 'lean', quantity: 'length' },
      ],
      fewest: 1,
      most: 40,
      help: 'Free length, load at the set length, lean at the top: one spring to a line.',
    },
    { kind: 'number', name: 'setLength', label: 'Set length', quantity: 'length', above: 0, max: 2000, help: 'At which the load is read.' },
    {
      kind: 'number',
      name: 'leastFree',
      label: 'Free length at least',
      quantity: 'length',
      above: 0,
      max: 2000,
      optional: true,
      help: 'From the sheet.',
    },
    {
      kind: 'number',
      name: 'leastLoad',
      label: 'Load at least',
      quantity: 'force',
      above: 0,
      max: 1e6,
      optional: true,
      help: 'At the set length, from the sheet.',
    },
    {
      kind: 'number',
      name: 'mostLean',
      label: 'Lean at most',
      quantity: 'length',
      above: 0,
      max: 100,
      optional: true,
      help: 'From the sheet; 3 % of the free length is common practice.',
    },
    {
      kind: 'number',
      name: 'lengthU',
      label: 'Uncertainty of lengths',
      quantity: 'length',
      min: 0,
      max: 1,
      default: 0.05,
      help: 'Standard (k = 1).',
    },
    {
      kind: 'number',
      name: 'loadU',
      label: 'Uncertainty of loads',
      quantity: 'ratio',
      min: 0,
      max: 0.2,
      default: 0.01,
      help: 'Standard, as a share.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'weakest', label: 'Weakest', quantity: 'force', help: 'At the set length.' },
    { kind: 'number', name: 'unlike', label: 'Unlike by', quantity: 'ratio', help: 'Strongest less weakest over the mean.' },
    { kind: 'number', name: 'together', label: 'All together', quantity: 'force', help: 'Sum of the loads.' },
    {
      kind: 'table',
      name: 'each',
      label: 'Spring by spring',
      columns: [
        { name: 'spring', label: 'spring', quantity: 'count' },
        { name: 'rate', label: 'rate', quantity: 'stiffness' },
        { name: 'verdict', label: 'verdict', quantity: 'text' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'One line for each.',
    },
  ],
  sources: [
    { kind: 'derivation', document: "Hooke's law of a straight spring", for: 'the rate' },
    { kind: 'common practice', document: 'springs of one clutch are renewed as a set', for: 'what to do with a weak one' },
  ],
  cautions: ['A compressed spring lets go without warning: hold it in a press or a cage, face out of its line.'],
  serves: [{ at: 'measure', families: ['multi-plate clutch'], about: /springs$/iu }],
  example: {
    springs: [
      { free: 38, load: 212, lean: 0.4 },
      { free: 37.9, load: 211, lean: 0.5 },
      { free: 37.1, load: 198, lean: 0.6 },
    ],
    setLength: 26,
    leastFree: 37.4,
    leastLoad: 205,
    mostLean: 1.1,
  },
  compute(input) {
    const springs = input.springs.map((row) => ({ free: Number(row['free']), load: Number(row['load']), lean: Number(row['lean']) }));
    for (const [index, { free, load, lean }] of springs.entries()) {
      const at = (name: string, label: string): { field: string; label: string } => ({
        field: `springs[${index}].${name}`,
        label: `Springs, row ${index + 1}, ${label}`,
      });
      if (free <= input.setLength)
        return refuse({
          code: 'too-small',
          ...at('free', 'free length'),
          received: formatQuantity(free, 'length'),
          bound: `more than the set length ${formatQuantity(input.setLength, 'length')}`,
        });
      if (load <= 0)
        return refuse({ code: 'too-small', ...at('load', 'load'), received: formatQuantity(load, 'force'), bound: 'more than 0 N' });
      if (lean < 0) return refuse({ code: 'too-small', ...at('lean', 'lean'), received: formatQuantity(lean, 'length'), bound: '0 mm' });
    }
    const each = springs.map(({ free, load, lean }, index) => {
      const found: { of: string; verdict: Verdict }[] = [];
      if (input.leastFree !== undefined) found.push({ of: 'free length', verdict: judge(free, input.lengthU, { lower: input.leastFree }) });
      if (input.leastLoad !== undefined) found.push({ of: 'load', verdict: judge(load, input.loadU * load, { lower: input.leastLoad }) });
      if (input.mostLean !== undefined) found.push({ of: 'lean', verdict: judge(lean, input.lengthU, { upper: input.mostLean }) });
      const off = found.filter(({ verdict }) => verdict !== 'in').map(({ of, verdict }) => `${of} ${verdict}`);
      return {
        spring: index + 1,
        rate: load / (free - input.setLength) / 1000,
        verdict: worstOf(found.map(({ verdict }) => verdict)),
        why: off.join(', ') || 'all in',
      };
    });
    const loads = springs.map(({ load }) => load);
    const together = loads.reduce((sum, load) => sum + load, 0);
    return ok({
      verdict: worstOf(each.map(({ verdict }) => verdict)),
      weakest: Math.min(...loads),
      unlike: (Math.max(...loads) - Math.min(...loads)) / (together / loads.length),
      together,
      each,
    });
  },
  explain: (input, output) => [
    {
      say: 'Each spring against the sheet.',
      numbers: output.each.map((row) => `${String(row['spring'])}: ${String(row['why'])}`).join('; '),
    },
    {
      say: 'Rate from free length and load.',
      formula: 'k = F / (L0 − L)',
      numbers: output.each.map((row) => formatQuantity(Number(row['rate']), 'stiffness', 'N/mm')).join(', '),
    },
    {
      say: `Together they push ${formatQuantity(output.together, 'force')} at ${formatQuantity(input.setLength, 'length')}; weak ones are renewed as a set.`,
    },
  ],
});
