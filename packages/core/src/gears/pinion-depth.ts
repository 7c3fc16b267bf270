import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** No pinion is marked further off than this, mm. Common practice. */
const MOST_MARK_MM = 0.3;
const MARK_UNITS = { hundredths: 'hundredths', thousandths: 'thou' } as const;

/**
 * Which shim sets the pinion's depth?
 *
 * By the etched marks: new = old ± (mark old − mark new), a plus mark meaning further from the ring
 * gear's axis or deeper, as the sheet says; a thicker shim is deeper behind the inner race, shallower
 * under a retainer. By a depth gauge: new = old ± (read − wanted). Holds for marks of one make and unit, none over 0.3 mm:
 * a bare 3 is 0.03 mm or 3 thousandths of an inch, and which is asked.
 *
 * Example: shim 1.20, marks +2 and −1 hundredths, behind the inner race: 1.23 mm.
 */
export const pinionDepth = defineWorking({
  id: 'gear.pinion-depth',
  title: 'Which shim sets the pinion’s depth?',
  area: 'gears',
  inputs: [
    {
      kind: 'number',
      name: 'shim',
      label: 'Shim now',
      quantity: 'length',
      min: 0,
      max: 10,
      help: 'The old one, or what was in for the gauge.',
    },
    {
      kind: 'choice',
      name: 'place',
      label: 'It lies',
      default: 'inner-race',
      choices: [
        { id: 'inner-race', label: 'behind the inner race: thicker is deeper' },
        { id: 'retainer', label: 'under a retainer: thicker is shallower' },
      ],
      help: 'Deeper is nearer to the ring gear’s axis.',
    },
    {
      kind: 'choice',
      name: 'by',
      label: 'By',
      default: 'marks',
      choices: [
        { id: 'marks', label: 'the etched marks' },
        { id: 'gauge', label: 'a depth gauge' },
      ],
      help: 'A gauge is better where there is one.',
    },
    {
      kind: 'choice',
      name: 'marksIn',
      label: 'Marks without a unit are in',
      choices: [
        { id: 'hundredths', label: 'hundredths of a millimetre' },
        { id: 'thousandths', label: 'thousandths of an inch' },
      ],
      optional: true,
      onlyFor: { field: 'by', choices: ['marks'] },
      help: 'As the maker has it; not needed where the marks are typed with their unit.',
    },
    {
      kind: 'number',
      name: 'oldMark',
      label: 'Mark of the old pinion',
      quantity: 'length',
      min: -MOST_MARK_MM,
      max: MOST_MARK_MM,
      bareIn: { field: 'marksIn', units: MARK_UNITS },
      optional: true,
      onlyFor: { field: 'by', choices: ['marks'] },
      help: 'As etched: +2, −3 thou, 0.02 mm.',
    },
    {
      kind: 'number',
      name: 'newMark',
      label: 'Mark of the new pinion',
      quantity: 'length',
      min: -MOST_MARK_MM,
      max: MOST_MARK_MM,
      bareIn: { field: 'marksIn', units: MARK_UNITS },
      optional: true,
      onlyFor: { field: 'by', choices: ['marks'] },
      help: 'As etched.',
    },
    {
      kind: 'choice',
      name: 'plus',
      label: 'A plus mark means',
      default: 'further',
      choices: [
        { id: 'further', label: 'set it further out' },
        { id: 'deeper', label: 'set it deeper' },
      ],
      onlyFor: { field: 'by', choices: ['marks'] },
      help: 'As the maker has it: makers differ.',
    },
    {
      kind: 'number',
      name: 'read',
      label: 'Gauge reads',
      quantity: 'length',
      min: 0,
      max: 500,
      optional: true,
      onlyFor: { field: 'by', choices: ['gauge'] },
      help: 'Ring gear’s axis to the pinion’s face.',
    },
    {
      kind: 'number',
      name: 'wanted',
      label: 'Wanted',
      quantity: 'length',
      min: 0,
      max: 500,
      optional: true,
      onlyFor: { field: 'by', choices: ['gauge'] },
      help: 'From the sheet, with the mark of this pinion in it.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'newShim', label: 'Shim', quantity: 'length', help: 'To put in.' },
    { kind: 'number', name: 'change', label: 'Change', quantity: 'length', help: 'Plus is thicker.' },
    { kind: 'number', name: 'deeper', label: 'Pinion deeper by', quantity: 'length', help: 'Minus is shallower.' },
    { kind: 'text', name: 'what', label: 'So', longest: 200, help: 'In words.' },
  ],
  sources: [{ kind: 'common practice', document: 'etched pinion marks, and where the shim lies', for: 'the signs' }],
  cautions: ['The mark is a start: the pattern on the teeth has the last word.'],
  serves: [
    { at: 'build', families: ['drive axle with pinion and carrier'] },
    { at: 'setting', kinds: ['backlash'], rank: 2 },
    { at: 'setting', kinds: ['end-play', 'depth'], methods: ['shims'], rank: 2, families: ['drive axle with pinion and carrier'] },
  ],
  example: { shim: 1.2, oldMark: '0.02 mm', newMark: '-0.01 mm' },
  compute(input) {
    const deeper = deeperBy(input);
    if (typeof deeper !== 'number') return deeper;
    const change = input.place === 'inner-race' ? deeper : -deeper;
    const newShim = input.shim + change;
    if (newShim < 0)
      return refuse({
        code: 'cannot-be',
        field: 'shim',
        received: mm(input.shim),
        bound: `it would have to be ${mm(newShim)}: look at the marks and their unit`,
      });
    const what =
      Math.abs(deeper) < 1e-9
        ? 'The same shim goes back.'
        : `${mm(Math.abs(change))} ${change > 0 ? 'thicker' : 'thinner'}: the pinion goes ${deeper > 0 ? 'deeper' : 'further out'}.`;
    return ok({ newShim, change, deeper, what });
  },
  explain: (input, output) => [
    input.by === 'marks'
      ? {
          say: 'The new pinion against the old one.',
          formula: input.plus === 'further' ? 'deeper = mark old − mark new' : 'deeper = mark new − mark old',
          numbers: mm(output.deeper),
        }
      : { say: 'What the gauge reads over what is wanted.', formula: 'deeper = read − wanted', numbers: mm(output.deeper) },
    {
      say: input.place === 'inner-race' ? 'Behind the inner race thicker is deeper.' : 'Under a retainer thicker is shallower.',
      numbers: `${mm(input.shim)} → ${mm(output.newShim)}`,
    },
  ],
});

interface Depth {
  readonly by: 'marks' | 'gauge';
  readonly plus: 'further' | 'deeper';
  readonly oldMark: number | undefined;
  readonly newMark: number | undefined;
  readonly read: number | undefined;
  readonly wanted: number | undefined;
}

function deeperBy({ by, plus, oldMark, newMark, read, wanted }: Depth): number | ReturnType<typeof refuse> {
  if (by === 'marks') {
    if (oldMark === undefined) return refuse({ code: 'required', field: 'oldMark', quantity: 'length' });
    if (newMark === undefined) return refuse({ code: 'required', field: 'newMark', quantity: 'length' });
    return (oldMark - newMark) * (plus === 'further' ? 1 : -1);
  }
  if (read === undefined) return refuse({ code: 'required', field: 'read', quantity: 'length' });
  if (wanted === undefined) return refuse({ code: 'required', field: 'wanted', quantity: 'length' });
  if (Math.abs(read - wanted) > 3)
    return refuse({
      code: 'cannot-be',
      field: 'read',
      received: mm(read),
      bound: `within 3 mm of ${mm(wanted)}: is the half of the arbor in it?`,
    });
  return read - wanted;
}
