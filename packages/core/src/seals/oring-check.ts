import { VERDICT } from '../measuring/verdict-field.js';
import { megapascals, mm, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { SHORE_FIELD, backed, gapMostOf, heldPressure, shoreOf } from './extrusion.js';
import { GROOVE_FIELDS, glandDrawing, grooveOf, seatedWords } from './groove-fields.js';
import { FILL_MOST, FORMULA_MOST, faultsOf, insidesFor, seated, squeezeOf, type Groove } from './ring.js';

/**
 * Does this O-ring fit this groove?
 *
 * Stretch, the section that is left of it, squeeze and fill of the groove, each also with ring and groove at their worst
 * (ISO 3601-1 class B). Right within what is common for a ring at rest, one that slides and one round a turning shaft.
 * Unsure where only the worst of all tolerances falls outside. Where the pressure is said, also whether it pushes the ring into
 * the gap behind it. Holds to 25 % of stretch and for solid rings of round section.
 *
 * Example: 20 × 2.65 round a groove of 20.8 in a bore of 25: stretched 4 %, squeezed 18.4 %.
 */
export const oringCheck = defineWorking({
  id: 'oring.check',
  title: 'Does this O-ring fit this groove?',
  area: 'seals',
  inputs: [
    {
      kind: 'number',
      name: 'inside',
      label: 'Ring inside',
      symbol: 'd₁',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Free, not stretched.',
    },
    {
      kind: 'number',
      name: 'section',
      label: 'Section',
      symbol: 'd₂',
      quantity: 'length',
      above: 0,
      max: 20,
      help: 'Thickness of the new ring.',
    },
    ...GROOVE_FIELDS,
    {
      kind: 'number',
      name: 'pressure',
      label: 'Pressure on it',
      quantity: 'pressure',
      min: 0,
      max: 100,
      optional: true,
      help: 'The highest, with its knocks; then the gap behind the ring is looked at too.',
    },
    {
      kind: 'number',
      name: 'gap',
      label: 'Gap behind it',
      quantity: 'length',
      min: 0,
      max: 2,
      optional: true,
      help: 'Between the parts where they lie to one side: their whole play; 0 between faces that touch.',
    },
    SHORE_FIELD,
  ],
  outputs: [
    VERDICT,
    { kind: 'text', name: 'what', label: 'It is', longest: 400, help: 'What is wrong, and what would be right.' },
    { kind: 'number', name: 'squeeze', label: 'Squeezed by', quantity: 'ratio', share: true, help: 'Of the section that is left.' },
    { kind: 'number', name: 'squeezeLeast', label: 'at least', quantity: 'ratio', share: true, help: 'Thin ring, deep groove.' },
    { kind: 'number', name: 'squeezeMost', label: 'at most', quantity: 'ratio', share: true, help: 'Thick ring, shallow groove.' },
    { kind: 'number', name: 'stretch', label: 'Stretched by', quantity: 'ratio', share: true, help: 'Below zero it is pushed together.' },
    { kind: 'number', name: 'left', label: 'Section that is left', quantity: 'length', help: 'A stretched ring is thinner.' },
    {
      kind: 'number',
      name: 'byVolume',
      label: 'the same by its volume',
      quantity: 'length',
      help: 'Rubber keeps its volume; held against the formula.',
    },
    {
      kind: 'number',
      name: 'fill',
      label: 'Groove full to',
      quantity: 'ratio',
      share: true,
      help: 'Warm and swollen, where that was said.',
    },
    { kind: 'number', name: 'fillMost', label: 'at most', quantity: 'ratio', share: true, help: 'Thick ring, shallow groove.' },
    {
      kind: 'number',
      name: 'gapMost',
      label: 'Gap at most',
      quantity: 'length',
      optional: true,
      help: 'At that pressure, without a back-up ring; 0 where none is narrow enough.',
    },
  ],
  sources: [
    { kind: 'handbook', document: 'O-ring handbook, reduction of section by stretch', for: 'the section that is left', fromMemory: true },
    { kind: 'standard', document: 'ISO 3601-1', for: 'tolerances of the ring, class B', fromMemory: true },
    { kind: 'common practice', document: 'squeeze, stretch and fill as housings of ISO 3601-2 come out', for: 'what is right' },
    { kind: 'common practice', document: 'gap tables of O-ring makers, 70 and 90 Shore', for: 'the widest gap', fromMemory: true },
  ],
  cautions: ['A ring of brakes, steering, gas or refrigerant is the maker’s own, or one that was worked out and agreed on.'],
  serves: [{ at: 'seal', kinds: ['o-ring', 'piston-seal'], preset: { inside: 'seal.inside', section: 'seal.section' } }],
  example: { inside: 20, section: 2.65, gland: 'piston', inner: 20.8, outer: 25, width: 3.6, loose: 0.03 },
  compute(input) {
    const groove = grooveOf(input);
    if (!groove.ok) return groove;
    const at = seated(groove.value, input);
    if (at.stretch > FORMULA_MOST)
      return refuse({
        code: 'outside-method',
        field: 'inside',
        received: mm(input.inside),
        bound: `stretched by ${percent(at.stretch)}, nothing is known beyond ${percent(FORMULA_MOST)}; ${insides(groove.value, input.section)} would be right`,
      });
    if (at.fill > 1)
      return refuse({
        code: 'cannot-be',
        field: 'section',
        received: mm(input.section),
        bound: `fills ${percent(at.fill)} of its groove: it would burst it or be cut; ${sections(groove.value)} would be right`,
      });
    const pushed = pushedOut(input);
    if (!pushed.ok) return pushed;
    const faults = faultsOf(groove.value, at);
    const [worst] = faults;
    const right =
      worst &&
      {
        squeeze: sections(groove.value),
        stretch: insides(groove.value, input.section),
        fill: `a wider groove, or ${sections(groove.value)}`,
      }[worst.what];
    const { section: left, ...shares } = at;
    const { gapMost, fault } = pushed.value;
    const isOut = faults.some(({ grave }) => grave) || fault !== undefined;
    const said = [...(worst ? [`${faults.map(({ words }) => words).join('; ')}; ${right} would be right`] : []), ...(fault ? [fault] : [])];
    return ok({
      ...shares,
      left,
      gapMost,
      verdict: isOut ? 'out' : worst ? 'unsure' : 'in',
      what: said.length > 0 ? said.join('; ') : `right: ${seatedWords(at)}`,
    });
  },
  explain: (input, output) => [
    {
      say:
        input.gland === 'rod' || input.gland === 'face-inside'
          ? 'How much larger or smaller it lies than it is.'
          : 'How much it is stretched.',
      formula: 'S = (d − d₁)/d₁',
      numbers: percent(output.stretch),
    },
    {
      say: 'A stretched ring is thinner.',
      formula: 'R % = 0.01 + 1.06·S − 0.1·S² to 3 %, 0.56 + 0.59·S − 0.0046·S² beyond',
      numbers: `${mm(output.left)}, by its volume ${mm(output.byVolume)}`,
    },
    {
      say: 'What it is squeezed by.',
      formula: '(section left − room)/section left',
      numbers: `${percent(output.squeeze)}, ${percent(output.squeezeLeast)} to ${percent(output.squeezeMost)}`,
    },
    {
      say: 'How full the groove is.',
      formula: 'π/4·d₂²·growth/(room · width)',
      numbers: `${percent(output.fill)}, at most ${percent(output.fillMost)}`,
    },
    ...(output.gapMost === undefined
      ? []
      : [
          {
            say: 'Whether pressure pushes it into the gap, by section, hardness and pressure.',
            numbers: `${mm(input.gap ?? 0)}, at most ${mm(output.gapMost)}`,
          },
        ]),
  ],
  draw: (input, output) => glandDrawing(input, output.left),
});

/** The widest gap at the pressure on a ring, and what is wrong with the one that is there; both or neither of them is said. */
function pushedOut({ section, pressure, gap, shore }: GapGiven): Result<Pushed> {
  if (pressure === undefined && gap === undefined) return ok({ gapMost: undefined, fault: undefined });
  if (pressure === undefined) return refuse({ code: 'required', field: 'pressure', quantity: 'pressure' });
  if (gap === undefined) return refuse({ code: 'required', field: 'gap', quantity: 'length' });
  const held = heldPressure(pressure);
  if (!held.ok) return held;
  const gapMost = gapMostOf(section, pressure, shoreOf(shore));
  if (gap <= gapMost) return ok({ gapMost, fault: undefined });
  const helps = backed(gap, section, pressure, 'a back-up ring behind it, away from the pressure');
  return ok({ gapMost, fault: `${megapascals(pressure)} pushes it into the gap of ${mm(gap)}: ${helps}` });
}

interface Pushed {
  readonly gapMost: number | undefined;
  readonly fault: string | undefined;
}

interface GapGiven {
  readonly section: number;
  readonly pressure?: number | undefined;
  readonly gap?: number | undefined;
  readonly shore: '70' | '90';
}

/** Sections that are squeezed rightly in a groove, in words. */
function sections(groove: Groove): string {
  const { from, to } = squeezeOf(groove);
  const { height, width, growth } = groove;
  const byFill = Math.sqrt((FILL_MOST * height * width * 4) / (Math.PI * (1 + growth)));
  const [thin, thick] = [height / (1 - from), Math.min(height / (1 - to), byFill)];
  return thick < thin ? 'no section' : `a section of ${mm(thin)} to ${mm(thick)}`;
}

/** Inside diameters that lie right, in words. */
function insides(groove: Groove, section: number): string {
  const { from, to } = insidesFor(groove, section);
  return to < from || from <= 0 ? 'another section' : `an inside of ${mm(from)} to ${mm(to)}`;
}
