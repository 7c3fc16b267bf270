import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** What a nail does not feel, mm: a line, and no groove. */
const NOT_FELT = 0.01;
/** Clear of the edge of the track, mm: common practice. */
const CLEAR_MM = 0.7;
/** Beyond this a thin sleeve has nothing to lie on without being filled. */
const FILL_BENEATH = 0.3;

/**
 * Old seal, worn shaft: flush, further in, or a sleeve?
 *
 * All is measured from the face of the housing inwards. The new lip runs `inset + lip` deep; it must clear both edges of the
 * track, the seal's inner end must not reach the bearing, the shoulder or the drain hole. The smallest inset that does is taken;
 * where the bore is not deep enough, a thin sleeve over the track. Never the other way round: a lip the wrong way pumps the oil out.
 *
 * Example: track 6 to 7.5 mm deep in, 0.4 mm worn, lip at 6.5 of a 10 mm seal, bore 14 mm: 1.7 mm further in.
 */
export const wearTrack = defineWorking({
  id: 'seal.wear-track',
  title: 'Worn track: flush, further in, or a sleeve?',
  area: 'seals',
  inputs: [
    {
      kind: 'number',
      name: 'from',
      label: 'Track begins at',
      quantity: 'length',
      min: 0,
      max: 300,
      help: 'From the face of the housing inwards.',
    },
    {
      kind: 'number',
      name: 'to',
      label: 'and ends at',
      quantity: 'length',
      above: 0,
      max: 300,
      help: 'From the face of the housing inwards.',
    },
    {
      kind: 'number',
      name: 'worn',
      label: 'How deep',
      quantity: 'length',
      min: 0,
      max: 5,
      help: 'Beside it less in it, by half: 0 where the nail feels nothing.',
    },
    {
      kind: 'number',
      name: 'width',
      label: 'Width of the seal',
      symbol: 'b',
      quantity: 'length',
      above: 0,
      max: 60,
      help: 'Of the new one.',
    },
    {
      kind: 'number',
      name: 'lip',
      label: 'Its lip lies at',
      quantity: 'length',
      above: 0,
      max: 300,
      help: 'From its outer face; some two thirds of its width.',
    },
    {
      kind: 'number',
      name: 'bore',
      label: 'Bore is deep',
      quantity: 'length',
      above: 0,
      max: 300,
      help: 'From the face to shoulder, bearing or whatever the seal would meet.',
    },
    {
      kind: 'number',
      name: 'drain',
      label: 'Drain hole at',
      quantity: 'length',
      above: 0,
      max: 300,
      optional: true,
      help: 'Its nearer edge, from the face; the seal must not close it.',
    },
    {
      kind: 'number',
      name: 'chamfer',
      label: 'Chamfer of the bore',
      quantity: 'length',
      min: 0,
      max: 20,
      default: 0,
      help: 'The seal is held only behind it.',
    },
    {
      kind: 'number',
      name: 'most',
      label: 'Inset at most',
      quantity: 'length',
      min: 0,
      max: 60,
      optional: true,
      help: 'Of the sheet, where it says one.',
    },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'do',
      label: 'So',
      choices: [
        { id: 'flush', label: 'flush' },
        { id: 'inset', label: 'further in' },
        { id: 'sleeve', label: 'a sleeve' },
      ],
      help: 'The way at this seal.',
    },
    { kind: 'number', name: 'inset', label: 'Below the face', quantity: 'length', help: 'Of the seal’s outer face; 0 is flush.' },
    { kind: 'number', name: 'insetMost', label: 'at most', quantity: 'length', help: 'Before it meets shoulder, bearing or drain hole.' },
    { kind: 'number', name: 'runsAt', label: 'Lip then runs at', quantity: 'length', help: 'From the face of the housing.' },
    { kind: 'text', name: 'why', label: 'Because', longest: 300, help: 'And what to look out for.' },
  ],
  sources: [
    {
      kind: 'common practice',
      document: 'lip onto sound metal, the seal further in, or a thin sleeve',
      for: 'the choice and 0.7 mm of clearance',
    },
    { kind: 'derivation', document: 'depths from one face', for: 'the inset' },
  ],
  cautions: [
    'The lip looks to what it keeps in. Turned round it pumps it out.',
    'A seal over a drain hole fills its bearing with oil, or starves it.',
  ],
  serves: [{ at: 'seal', kinds: ['lip-seal'], preset: { width: 'seal.width', most: 'seal.deepest' } }],
  example: { from: 6, to: 7.5, worn: 0.4, width: 10, lip: 6.5, bore: 14 },
  compute({ from, to, worn, width, lip: lipAt, bore, drain, chamfer, most }) {
    if (to <= from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(to), bound: mm(from) });
    if (lipAt >= width) return refuse({ code: 'too-large', field: 'lip', received: mm(lipAt), bound: `within its width, ${mm(width)}` });
    if (bore < width + chamfer)
      return refuse({
        code: 'too-small',
        field: 'bore',
        received: mm(bore),
        bound: `${mm(width + chamfer)}: the seal does not find its seat; a narrower one of ${mm(Math.max(0, bore - chamfer))} would`,
      });
    if (drain !== undefined && drain < width)
      return refuse({
        code: 'too-small',
        field: 'drain',
        received: mm(drain),
        bound: `${mm(width)}: even flush the seal closes it; a narrower one of ${mm(drain)} would not`,
      });
    const insetMost = Math.min(bore - width, (drain ?? Infinity) - width, most ?? Infinity);
    const meets =
      insetMost === most
        ? 'the sheet allows no more'
        : insetMost === bore - width
          ? 'it meets shoulder or bearing'
          : 'it closes the drain hole';
    const isClear = (inset: number): boolean => inset + lipAt <= from - CLEAR_MM + 1e-9 || inset + lipAt >= to + CLEAR_MM - 1e-9;
    const least = chamfer;
    if (least > insetMost)
      return refuse({
        code: 'too-large',
        field: 'chamfer',
        received: mm(chamfer),
        bound: `${mm(insetMost)}: behind it ${meets}; a narrower seal`,
      });
    if (worn <= NOT_FELT || isClear(least))
      return ok({
        do: least > 0 ? 'inset' : 'flush',
        inset: least,
        insetMost,
        runsAt: least + lipAt,
        why: worn <= NOT_FELT ? 'nothing is felt: polish it across, and it serves again' : 'flush it runs beside the track',
      });
    const inset = Math.max(least, to + CLEAR_MM - lipAt);
    if (inset <= insetMost)
      return ok({
        do: 'inset',
        inset,
        insetMost,
        runsAt: inset + lipAt,
        why: `${mm(inset)} to ${mm(insetMost)} below the face the lip runs on sound metal; further in ${meets}`,
      });
    return ok({
      do: 'sleeve',
      inset: least,
      insetMost,
      runsAt: least + lipAt,
      why: `${mm(inset)} further in would be needed, ${mm(insetMost)} is the most: ${meets}. A thin sleeve over the track${worn > FILL_BENEATH ? `, filled beneath: ${mm(worn)} is too deep to bridge` : ''}`,
    });
  },
  explain: (input, output) => [
    { say: 'Where the lip must run to be clear of the track.', formula: 'end of track + 0.7 mm', numbers: mm(input.to + CLEAR_MM) },
    {
      say: 'How far in that puts the seal, and how far it may go.',
      formula: 'inset = that − lip; bore, drain hole or sheet less width',
      numbers: `${mm(input.to + CLEAR_MM - input.lip)}, at most ${mm(output.insetMost)}`,
    },
    { say: { flush: 'Flush.', inset: `Further in by ${mm(output.inset)}.`, sleeve: 'A sleeve.' }[output.do], numbers: output.why },
  ],
  draw: (input, output) => ({
    kind: 'seal-section',
    bore: input.bore,
    width: input.width,
    lip: input.lip,
    inset: output.inset,
    track: { from: input.from, to: input.to, worn: input.worn },
    ...(input.drain === undefined ? {} : { drain: input.drain }),
    sleeve: output.do === 'sleeve',
  }),
});
