import { between } from '../math/between.js';
import { degrees, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * How far is a bellows or spring face seal pressed together?
 *
 * By the chart of the sheet, compression over shaft size, in a straight line between its rows and refused outside of them: the
 * rotor touches at the neutral mark and is fast at the set mark, that much further. Where a nut or shims do it, in turns or
 * thickness. Held against what the bellows can give before it is solid.
 *
 * Example: chart 30 mm: 19 mm, 40 mm: 23 mm; a shaft of 35: 21 mm.
 */
export const faceCompression = defineWorking({
  id: 'seal.face-compression',
  title: 'How far is a face seal pressed together?',
  area: 'seals',
  inputs: [
    { kind: 'number', name: 'shaft', label: 'Shaft', symbol: 'd', quantity: 'length', above: 0, max: 500, help: 'Where the rotor sits.' },
    {
      kind: 'table',
      name: 'chart',
      label: 'Chart of the sheet',
      columns: [
        { name: 'shaft', label: 'shaft', quantity: 'length' },
        { name: 'compression', label: 'compression', quantity: 'length' },
      ],
      fewest: 1,
      most: 60,
      help: 'As printed with the seal.',
    },
    {
      kind: 'number',
      name: 'neutral',
      label: 'Neutral mark at',
      quantity: 'length',
      min: 0,
      max: 3000,
      default: 0,
      help: 'Where the rotor touches, pressed by nothing; from any fixed point of the shaft, towards the seal.',
    },
    {
      kind: 'number',
      name: 'travel',
      label: 'It can give',
      quantity: 'length',
      above: 0,
      max: 300,
      optional: true,
      help: 'From neutral until bellows or spring is solid.',
    },
    {
      kind: 'number',
      name: 'pitch',
      label: 'Pitch of the nut',
      quantity: 'pitch',
      above: 0,
      max: 10,
      optional: true,
      help: 'Where a nut presses it together.',
    },
    {
      kind: 'number',
      name: 'tolerance',
      label: 'True to ±',
      quantity: 'length',
      min: 0,
      max: 10,
      default: 1,
      help: 'Of the chart; 1 mm where nothing is said.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'compression', label: 'Press together by', quantity: 'length', help: 'From neutral.' },
    { kind: 'number', name: 'setMark', label: 'Set mark at', quantity: 'length', help: 'From the same point as the neutral mark.' },
    { kind: 'number', name: 'from', label: 'at least', quantity: 'length', help: 'Less drips.' },
    { kind: 'number', name: 'to', label: 'at most', quantity: 'length', help: 'More runs hot.' },
    { kind: 'number', name: 'turns', label: 'Nut turned by', quantity: 'angle', help: 'From where it touches; 0 where no nut does it.' },
  ],
  sources: [{ kind: 'derivation', document: 'straight line between the rows of the sheet’s chart', for: 'the compression' }],
  cautions: ['Polished faces are not touched: a finger’s grease holds grit.', 'Set screws are new each time: an old point has flattened.'],
  serves: [{ at: 'seal', kinds: ['face-seal', 'bellows'] }],
  example: { shaft: 35, chart: [{ shaft: 30, compression: 19 }, { shaft: 40, compression: 23 }], neutral: 120, travel: 32 }, // prettier-ignore
  compute({ shaft, chart, neutral, travel, pitch, tolerance }) {
    const rows = chart.map((row) => [Number(row['shaft']), Number(row['compression'])] as const).toSorted(([one], [other]) => one - other);
    const twice = rows.findIndex(([of], at) => at > 0 && rows[at - 1]![0] === of);
    if (twice !== -1) return refuse({ code: 'said-twice', field: 'chart', label: 'Chart of the sheet', received: mm(rows[twice]![0]) });
    const [[least], [most]] = [rows[0]!, rows.at(-1)!];
    if (shaft < least || shaft > most)
      return refuse({
        code: 'outside-method',
        field: 'shaft',
        received: mm(shaft),
        bound: least === most ? `the chart has ${mm(least)} alone` : `the chart goes from ${mm(least)} to ${mm(most)}`,
      });
    const compression = between(rows, shaft);
    if (travel !== undefined && compression + tolerance > travel)
      return refuse({
        code: 'too-small',
        field: 'travel',
        received: mm(travel),
        bound: `${mm(compression + tolerance)}: it would be solid, and run hot at once; another seal`,
      });
    if (compression <= tolerance)
      return refuse({
        code: 'too-large',
        field: 'tolerance',
        received: mm(tolerance),
        bound: `less than the compression, ${mm(compression)}`,
      });
    return ok({
      compression,
      setMark: neutral + compression,
      from: compression - tolerance,
      to: compression + tolerance,
      turns: pitch === undefined ? 0 : (360 * compression) / pitch,
    });
  },
  explain: (input, output) => [
    { say: 'The chart, in a straight line between its rows.', numbers: `${mm(input.shaft)}: ${mm(output.compression)}` },
    {
      say: 'Set mark, that much further than neutral.',
      formula: 'neutral + compression',
      numbers: `${mm(output.setMark)}; ${mm(output.from)} to ${mm(output.to)} of compression`,
    },
    ...(output.turns > 0 ? [{ say: 'By the nut.', formula: '360°·compression/pitch', numbers: degrees(output.turns) }] : []),
  ],
  draw: ({ shaft, neutral }, { setMark, from, to }) => ({
    kind: 'marks',
    shaft,
    marks: [
      { name: 'neutral', at: neutral },
      { name: 'set', at: setMark },
    ],
    between: { from: neutral + from, to: neutral + to },
  }),
});
