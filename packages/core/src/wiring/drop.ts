import { COPPER_PER_K, COPPER_RESISTIVITY, COPPER_SOURCE } from '../alternators/copper.js';
import { VERDICT } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';

/** Nominal sections of road-vehicle cables in mm² (ISO 6722-1), from memory. */
const SECTIONS = [0.35, 0.5, 0.75, 1, 1.5, 2.5, 4, 6, 10, 16, 25, 35, 50, 70, 95, 120] as const;
/** Free in air, a bundle of a few: A per mm² that keep the rise near 30 K, falling with size. Common practice. */
const CARRIES = (section: number): number => 15 * section ** 0.62;

/**
 * How much is lost in the cable, and which size would do?
 *
 * R = ρ·L·(2 with a return of the same cable)/A·(1 + 0.00393·(t − 20)), ρ = 1/58 Ω·mm²/m, t the
 * conductor's temperature; drop V = I·R. L is the length one way. A size does when it drops no
 * more than allowed and carries the current without warming beyond some 30 K.
 *
 * Example: 3 m of 16 mm² one way, 90 A, at 50 °C drops 0.325 V.
 */
export const drop = defineWorking({
  id: 'wire.drop',
  title: 'How much is lost in the cable, and which size would do?',
  area: 'wiring',
  inputs: [
    {
      kind: 'number',
      name: 'length',
      label: 'Length one way',
      quantity: 'length',
      above: 0,
      max: 100_000,
      help: 'From terminal to terminal, as it is laid.',
    },
    {
      kind: 'choice',
      name: 'back',
      label: 'Returns by',
      default: 'frame',
      choices: [
        { id: 'frame', label: 'the frame' },
        { id: 'cable', label: 'a cable of the same size' },
      ],
      help: 'A cable doubles the drop.',
    },
    { kind: 'number', name: 'section', label: 'Section, mm²', quantity: 'ratio', above: 0, max: 1000, help: 'Of the conductor.' },
    { kind: 'number', name: 'current', label: 'Current', quantity: 'current', above: 0, max: 5000, help: 'The most that flows for long.' },
    {
      kind: 'number',
      name: 'temperature',
      label: 'Conductor at',
      quantity: 'temperature',
      min: -40,
      max: 200,
      default: 50,
      help: 'Warm under load: air plus its own rise.',
    },
    { kind: 'number', name: 'system', label: 'System', quantity: 'voltage', above: 0, max: 1000, default: 13.5, help: 'Working voltage.' },
    {
      kind: 'number',
      name: 'allowed',
      label: 'May lose',
      quantity: 'ratio',
      above: 0,
      max: 0.5,
      default: 0.03,
      help: 'Share of the working voltage: 3 % for charging is common practice.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'lost', label: 'Drop', quantity: 'voltage', help: 'There, and back where it returns by cable.' },
    { kind: 'number', name: 'share', label: 'Of the voltage', quantity: 'ratio', share: true, help: 'Drop over working voltage.' },
    { kind: 'number', name: 'heat', label: 'Heat, W', quantity: 'ratio', help: 'Made along the cable.' },
    { kind: 'text', name: 'size', label: 'Smallest that does', longest: 120, help: 'Section by drop and by current.' },
  ],
  sources: [
    COPPER_SOURCE,
    { kind: 'standard', document: 'ISO 6722-1', edition: '2011', for: 'the sections', fromMemory: true },
    { kind: 'common practice', document: 'charging cables lose at most 3 %; 15·A^0.62 ampere in free air', for: 'what is allowed' },
  ],
  cautions: ['Fuse the cable near the battery, for the cable and not for what hangs on it.'],
  example: { length: '3 m', section: 16, current: 90 },
  compute(input) {
    const perSection =
      input.current *
      COPPER_RESISTIVITY *
      (input.length / 1000) *
      (input.back === 'cable' ? 2 : 1) *
      (1 + COPPER_PER_K * (input.temperature - 20));
    const lost = perSection / input.section;
    const allowedV = input.allowed * input.system;
    const does = SECTIONS.find((section) => perSection / section <= allowedV && CARRIES(section) >= input.current);
    return ok({
      verdict: lost <= allowedV && CARRIES(input.section) >= input.current ? ('in' as const) : ('out' as const),
      lost,
      share: lost / input.system,
      heat: lost * input.current,
      size: does === undefined ? `none up to ${SECTIONS.at(-1)} mm²: shorten it, or lay two` : `${does} mm²`,
    });
  },
  explain: (input, output) => [
    {
      say: 'Resistance of the copper, warm.',
      formula: 'R = L / (58·A) · (1 + 0.00393·(t − 20))',
      numbers: `${formatQuantity(output.lost / input.current, 'resistance', 'mΩ')}`,
    },
    {
      say: 'Drop.',
      formula: 'V = I · R',
      numbers: `${formatQuantity(output.lost, 'voltage')} = ${formatQuantity(output.share, 'ratio', '%', { to: input.allowed })} of ${formatQuantity(input.system, 'voltage')}`,
    },
    {
      say: `Allowed ${formatQuantity(input.allowed, 'ratio', '%')}, and some ${CARRIES(input.section).toFixed(0)} A through ${input.section} mm². Smallest that does: ${output.size}.`,
    },
  ],
});
