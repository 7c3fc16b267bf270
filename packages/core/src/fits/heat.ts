import { cooled } from './cooling.js';
import { EXPANSION, EXPANSION_CHOICES, HEAT_J_PER_MM3 } from '../measuring/materials.js';
import { formatQuantity } from '../quantity/format.js';
import { celsius, microns, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** What a metal contracts when it is made cold, over what it grows: 8.5 to 11.5 for steel. Handbook value, from memory. */
const COLD_SHARE = 8.5 / 11.5;
/** Highest temperature of what is heated, °C; the sheet goes first. Bearing handbooks and common practice, from memory. */
const MOST_C = { 'open-bearing': 120, 'sealed-bearing': 80, hardened: 150, hub: 250, 'soft-hub': 150 } as const;
/** An aluminium part loses its temper over this, °C, whatever it is. Common practice. */
const MOST_ALUMINIUM_C = 150;
/** Still air and radiation round a hot ring, W/(mm²·K). Common practice, good to a third. */
const AIR_W_PER_MM2 = 14e-6;
const SIZES_AT_C = 20;
/** Gap in which a ring slides home, of the seat. Common practice. */
const GAP_SHARE = 0.0005;
const CURVE_POINTS = 40;

/**
 * How warm, so that it drops on, and how long have I got?
 *
 * T = T0 + (interference + gap)/(α·d) where only the ring is warmed; a shaft that is colder than the bench takes its
 * share with the contraction figure (steel 8.5e-6/K). Shaft and bench are at one temperature unless another is given; the
 * interference is meant at 20 °C. Never over what bearing, seals, grease or temper stand. It
 * cools by T(t) = Tair + (T − Tair)·e^(−t/τ), τ = heat of the ring over what air takes; it grips when
 * the growth is down to the interference. Holds for parts warm through.
 *
 * Example: a race of 40 mm with 15 µm, 20 µm to slide: 96 °C from 20 °C.
 */
export const heat = defineWorking({
  id: 'fit.heat',
  title: 'How warm, so that it drops on, and how long have I got?',
  area: 'fits',
  inputs: [
    { kind: 'number', name: 'seat', label: 'Seat', symbol: 'd', quantity: 'length', above: 0, max: 1000, help: 'Diameter of the fit.' },
    { kind: 'number', name: 'interference', label: 'Interference', quantity: 'length', min: 0, max: 1, help: 'Shaft less bore, at 20 °C.' },
    {
      kind: 'number',
      name: 'gap',
      label: 'Gap to slide',
      quantity: 'length',
      min: 0,
      max: 0.5,
      optional: true,
      help: 'Half a thousandth of the seat when left empty: enough to slide it home.',
    },
    {
      kind: 'choice',
      name: 'what',
      label: 'What is warmed',
      default: 'open-bearing',
      choices: [
        { id: 'open-bearing', label: 'an open bearing or race: to 120 °C' },
        { id: 'sealed-bearing', label: 'a sealed or greased bearing: to 80 °C' },
        { id: 'hardened', label: 'a hardened gear or ring: to 150 °C' },
        { id: 'hub', label: 'a soft steel or iron hub: to 250 °C' },
        { id: 'soft-hub', label: 'an aluminium housing: to 150 °C' },
      ],
      help: 'What stands no more.',
    },
    {
      kind: 'number',
      name: 'most',
      label: 'The sheet allows',
      quantity: 'temperature',
      above: 20,
      max: 400,
      optional: true,
      help: 'Instead of the usual figure.',
    },
    {
      kind: 'choice',
      name: 'ringOf',
      label: 'It is of',
      optional: true,
      choices: EXPANSION_CHOICES,
      help: 'The warmed part: steel when left empty, an aluminium housing of aluminium.',
    },
    {
      kind: 'choice',
      name: 'shaftOf',
      label: 'Shaft of',
      default: 'steel',
      choices: EXPANSION_CHOICES,
      help: 'It contracts by its own figure.',
    },
    {
      kind: 'number',
      name: 'bench',
      label: 'Bench at',
      quantity: 'temperature',
      min: -20,
      max: 50,
      default: 20,
      help: 'Before it is warmed, and the air after it.',
    },
    {
      kind: 'number',
      name: 'shaftT',
      label: 'Shaft at',
      quantity: 'temperature',
      min: -196,
      max: 60,
      optional: true,
      help: 'As the bench when left empty. Cooled in a freezer −18 °C, in dry ice −70 °C.',
    },
    {
      kind: 'number',
      name: 'outside',
      label: 'Outside of the ring',
      quantity: 'length',
      above: 0,
      max: 2000,
      optional: true,
      help: 'With the width it gives the time left.',
    },
    {
      kind: 'number',
      name: 'width',
      label: 'Width of the ring',
      quantity: 'length',
      above: 0,
      max: 1000,
      optional: true,
      help: 'With the outside it gives the time left.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'temperature', label: 'Warm it to', quantity: 'temperature', help: 'Right through.' },
    { kind: 'number', name: 'grips', label: 'Grips at', quantity: 'temperature', help: 'When it has cooled so far, it stays where it is.' },
    { kind: 'number', name: 'most', label: 'Never over', quantity: 'temperature', help: 'Of this part.' },
    { kind: 'number', name: 'left', label: 'You have', quantity: 'time', optional: true, help: 'In the air; on the cold shaft seconds.' },
    { kind: 'number', name: 'byShaft', label: 'The cold shaft gives', quantity: 'length', help: 'Of what is needed.' },
  ],
  sources: [
    { kind: 'derivation', document: 'linear expansion; cooling after Newton', for: 'temperature and time' },
    {
      kind: 'handbook',
      document: 'Rolling bearing mounting handbooks',
      for: '120 °C open, some 80 °C sealed or greased',
      fromMemory: true,
    },
    { kind: 'handbook', document: "Machinery's Handbook", for: 'expansion, and 8.5e-6/K for steel made very cold', fromMemory: true },
  ],
  cautions: [
    'Burns: dry gloves that take the heat. Dry ice and cold steel burn, too, and the gas takes the air of a pit.',
    'Never a flame on a bearing that is to run again; in an oven, on a plate or by induction, and demagnetised.',
    'Heat to let go of a part is another thing: unit open and drained, seals scrap, the flame in licensed hands.',
  ],
  serves: [{ at: 'build', rank: 13 }],
  example: { seat: 40, interference: 0.015, outside: 80, width: 18 },
  compute(input) {
    const ringOf = ringMetal(input);
    if (input.what.endsWith('bearing') && ringOf !== 'steel' && ringOf !== 'stainless')
      return refuse({ code: 'cannot-be', field: 'ringOf', received: ringOf, bound: 'a bearing is of steel' });
    if (input.what === 'soft-hub' && (ringOf === 'steel' || ringOf === 'cast-iron' || ringOf === 'stainless'))
      return refuse({ code: 'cannot-be', field: 'ringOf', received: ringOf, bound: 'an aluminium housing is of a light or yellow metal' });
    const usual = MOST_C[input.what];
    const allowed = input.most ?? (ringOf === 'aluminium' ? Math.min(usual, MOST_ALUMINIUM_C) : usual);
    const gap = input.gap ?? input.seat * GAP_SHARE;
    const alpha = EXPANSION[ringOf];
    const shaftAlpha = EXPANSION[input.shaftOf];
    const cooler = input.bench - (input.shaftT ?? input.bench);
    // Two metals, away from the 20 °C at which both were measured, have another interference.
    const byBench = (shaftAlpha - alpha) * (input.bench - SIZES_AT_C) * input.seat;
    const byShaft = shaftAlpha * (cooler > 0 ? COLD_SHARE : 1) * cooler * input.seat;
    const at = (growth: number): number => input.bench + Math.max(0, growth + byBench - byShaft) / (alpha * input.seat);
    const temperature = at(input.interference + gap);
    const grips = at(input.interference);
    if (temperature > allowed)
      return refuse({
        code: 'too-large',
        field: 'interference',
        received: `${microns(input.interference)} and ${microns(gap)} to slide need ${celsius(temperature)}`,
        bound: `${celsius(allowed)} for this part; cool the shaft, leave less to slide, or press it`,
      });
    if ((input.outside === undefined) !== (input.width === undefined))
      return refuse({ code: 'required', field: input.outside === undefined ? 'outside' : 'width', quantity: 'length' });
    if (input.outside !== undefined && input.outside <= input.seat)
      return refuse({ code: 'too-small', field: 'outside', received: mm(input.outside), bound: `more than the seat, ${mm(input.seat)}` });
    const constant =
      input.outside === undefined || input.width === undefined
        ? undefined
        : coolingConstant(input.seat, input.outside, input.width, ringMetal(input));
    const left =
      constant === undefined || grips <= input.bench || temperature <= grips
        ? undefined
        : constant * Math.log((temperature - input.bench) / (grips - input.bench));
    return ok({ temperature, grips, most: allowed, left, byShaft });
  },
  explain: (input, output) => [
    {
      say: 'What it has to grow.',
      formula: 'interference + gap − what the cold shaft gives',
      numbers: microns(input.interference + (input.gap ?? input.seat * GAP_SHARE) - output.byShaft),
    },
    {
      say: 'As a temperature.',
      formula: 'T = T0 + growth/(α·d)',
      numbers: `${celsius(output.temperature)}, at most ${celsius(output.most)}`,
    },
    ...(output.left === undefined
      ? []
      : [
          {
            say: `It grips at ${celsius(output.grips)}.`,
            formula: 't = τ·ln((T − Tair)/(Tgrip − Tair))',
            numbers: formatQuantity(output.left, 'time', 's'),
          },
        ]),
  ],
  draw(input, output) {
    const constant =
      input.outside === undefined || input.width === undefined
        ? 300
        : coolingConstant(input.seat, input.outside, input.width, ringMetal(input));
    const until = 1.5 * (output.left ?? constant);
    return {
      kind: 'chart',
      x: 's in the air',
      y: '°C',
      lines: [
        {
          name: 'ring',
          points: Array.from({ length: CURVE_POINTS + 1 }, (_, step) => {
            const time = (until * step) / CURVE_POINTS;
            return [time, cooled(output.temperature, input.bench, constant, time)] as const;
          }),
        },
      ],
      levels: [
        { name: 'grips', at: output.grips },
        { name: 'never over', at: output.most },
      ],
    };
  },
});

type Metal = keyof typeof HEAT_J_PER_MM3;

function ringMetal({ what, ringOf }: { readonly what: keyof typeof MOST_C; readonly ringOf: Metal | undefined }): Metal {
  return ringOf ?? (what === 'soft-hub' ? 'aluminium' : 'steel');
}

/** Seconds in which a ring loses two thirds of its warmth to the air. */
function coolingConstant(inside: number, outside: number, width: number, metal: Metal): number {
  const face = (Math.PI / 4) * (outside ** 2 - inside ** 2);
  return (HEAT_J_PER_MM3[metal] * face * width) / (AIR_W_PER_MM2 * (Math.PI * (outside + inside) * width + 2 * face));
}
