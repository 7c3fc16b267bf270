import { VERDICT } from '../measuring/verdict-field.js';
import { megapascals, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';

/** Upper ends of the columns, sections in mm. */
const SECTIONS = [2, 3, 5, 7, Infinity] as const;

/**
 * Radial gap that a ring is not pushed into, mm, by pressure, MPa, and section: tables of O-ring makers at some 70 °C without
 * back-up rings, from memory. Where a pressure is not in the table of a hardness, the ring does not hold it.
 */
const GAPS: Readonly<Record<70 | 90, readonly (readonly [pressure: number, gaps: readonly number[]])[]>> = {
  70: [
    [3.5, [0.08, 0.09, 0.1, 0.13, 0.15]],
    [7, [0.05, 0.07, 0.08, 0.09, 0.1]],
    [10.5, [0.03, 0.04, 0.05, 0.07, 0.08]],
  ],
  90: [
    [3.5, [0.13, 0.15, 0.2, 0.23, 0.25]],
    [7, [0.1, 0.13, 0.15, 0.18, 0.2]],
    [10.5, [0.07, 0.09, 0.1, 0.13, 0.15]],
    [14, [0.05, 0.07, 0.08, 0.09, 0.1]],
    [17.5, [0.04, 0.05, 0.07, 0.08, 0.09]],
    [21, [0.03, 0.04, 0.05, 0.07, 0.08]],
    [35, [0.02, 0.03, 0.03, 0.04, 0.04]],
  ],
};

/** With a back-up ring behind it, whatever the hardness: common practice. */
const BACKED_MOST = 40;

export type Shore = keyof typeof GAPS;

/** The widest gap that a ring is not pushed into, mm; 0 where its hardness does not hold the pressure, MPa, at all. */
export function gapMostOf(section: number, pressure: number, shore: Shore): number {
  const column = SECTIONS.findIndex((upTo) => section <= upTo);
  return GAPS[shore].find(([upTo]) => pressure <= upTo)?.[1][column] ?? 0;
}

/** Hardness that the tables have a column for, as it is chosen. */
export const SHORE_FIELD = {
  kind: 'choice',
  name: 'shore',
  label: 'Hardness',
  default: '70',
  choices: [
    { id: '70', label: '70 Shore' },
    { id: '90', label: '90 Shore' },
  ],
  help: '70 where nothing is said.',
} as const;

export const shoreOf = (chosen: '70' | '90'): Shore => (chosen === '90' ? 90 : 70);

/** Pressure over which no back-up ring helps; refuses what is over it. */
export function heldPressure(pressure: number): Result<number> {
  if (pressure <= BACKED_MOST) return ok(pressure);
  return refuse({
    code: 'outside-method',
    field: 'pressure',
    received: megapascals(pressure),
    bound: `to ${megapascals(BACKED_MOST)} with back-up rings; over that another kind of seal`,
  });
}

/** What helps where the gap is too wide. */
export const backed = (gap: number, section: number, pressure: number, behind: string): string =>
  gap <= gapMostOf(section, pressure, 90) ? `one of 90 Shore, or ${behind}` : behind;

/**
 * Does pressure push the ring into the gap?
 *
 * Radial gap against the widest that section, hardness and pressure allow. Where the parts may lie to one side the gap is the
 * whole play there and nothing on the other. Over it a back-up ring goes behind the O-ring, away from the pressure; on both
 * sides where pressure comes from both.
 *
 * Example: 70 Shore, 2.65 thick, 0.06 mm of gap at 16 MPa: no ring of 70 holds that; a back-up ring behind it.
 */
export const oringExtrusion = defineWorking({
  id: 'oring.extrusion',
  title: 'Does pressure push the ring into the gap?',
  area: 'seals',
  inputs: [
    { kind: 'number', name: 'section', label: 'Section', symbol: 'd₂', quantity: 'length', above: 0, max: 20, help: 'Of the ring.' },
    { kind: 'number', name: 'pressure', label: 'Pressure', quantity: 'pressure', min: 0, max: 100, help: 'The highest, with its knocks.' },
    {
      kind: 'number',
      name: 'bore',
      label: 'Bore',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'As measured, where the parts pass each other.',
    },
    {
      kind: 'number',
      name: 'rod',
      label: 'Piston or rod',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'As measured, where the parts pass each other.',
    },
    {
      kind: 'choice',
      name: 'guided',
      label: 'It is',
      default: 'no',
      choices: [
        { id: 'no', label: 'free to lie to one side' },
        { id: 'yes', label: 'held in the middle by guide rings' },
      ],
      help: 'To one side the whole play is on the other.',
    },
    SHORE_FIELD,
    {
      kind: 'choice',
      name: 'from',
      label: 'Pressure comes',
      default: 'one side',
      choices: [
        { id: 'one side', label: 'from one side' },
        { id: 'both', label: 'from both, in turn' },
      ],
      help: 'A steering cylinder’s piston: from both.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'gap', label: 'Gap', quantity: 'length', help: 'Where it is widest.' },
    {
      kind: 'number',
      name: 'gapMost',
      label: 'Gap at most',
      quantity: 'length',
      help: 'Without a back-up ring; 0 where none is narrow enough.',
    },
    { kind: 'text', name: 'so', label: 'So', longest: 200, help: 'What goes in.' },
  ],
  sources: [{ kind: 'common practice', document: 'gap tables of O-ring makers, 70 and 90 Shore', for: 'the widest gap', fromMemory: true }],
  cautions: ['Hydraulic pressure cuts skin at a pinhole: nobody feels for a leak by hand.'],
  serves: [{ at: 'seal', kinds: ['o-ring', 'piston-seal'], rank: 4, preset: { section: 'seal.section' } }],
  example: { section: 2.65, pressure: 16, bore: 25.03, rod: 24.97 },
  compute({ section, pressure, bore, rod, guided, shore, from }) {
    if (rod >= bore) return refuse({ code: 'too-large', field: 'rod', received: mm(rod), bound: `less than its bore, ${mm(bore)}` });
    const held = heldPressure(pressure);
    if (!held.ok) return held;
    const play = bore - rod;
    const gap = guided === 'yes' ? play / 2 : play;
    const gapMost = gapMostOf(section, pressure, shoreOf(shore));
    const behind = from === 'both' ? 'a back-up ring on each side' : 'a back-up ring behind it, away from the pressure';
    if (gap <= gapMost) return ok({ verdict: 'in', gap, gapMost, so: 'holds without a back-up ring' });
    return ok({ verdict: 'out', gap, gapMost, so: backed(gap, section, pressure, behind) });
  },
  explain: ({ guided }, output) => [
    { say: 'The gap where it is widest.', formula: guided === 'yes' ? '(D − d)/2' : 'D − d, all on one side', numbers: mm(output.gap) },
    {
      say: 'The widest for that section, hardness and pressure.',
      numbers: output.gapMost > 0 ? mm(output.gapMost) : 'none is narrow enough',
    },
    { say: `So ${output.so}.` },
  ],
});
