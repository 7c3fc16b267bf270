import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import type { Row } from '../working/describe.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { HOLE_COLUMNS, HOLE_FIELDS, holesOf, outermost } from './hole-table.js';
import { circle, hull, perimeter, type Hole } from './outline.js';

/** Left in nozzle, corners and rag: common practice. */
const WASTE = 0.15;
const MINUTE_S = 60;
/** Between the edge of a hole and the middle of the bead round it, besides half the bead: common practice. */
const OFF_HOLE = 1.5;

/**
 * How much sealant, and how many minutes?
 *
 * Volume of a round bead over its path, with some for nozzle and corners, against the cartridge. The clock of the skin begins
 * with the first millimetre laid: laying, putting the cover on and the screws that must be home take their time from it, and
 * what is left is the slack. Refused where it cannot be done: a slower product, or two people.
 *
 * Example: 620 mm of a 2 mm bead: 1.95 mL, with waste 2.24 mL; 26 screws at 6 s and 3 min of laying leave 4.4 of 10 min.
 */
export const sealant = defineWorking({
  id: 'seal.sealant',
  title: 'How much sealant, and how many minutes?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'by',
      label: 'Its path is known',
      default: 'thread',
      choices: [
        { id: 'thread', label: 'by a thread laid along it' },
        { id: 'holes', label: 'from where the holes are' },
      ],
      help: 'From the holes it is drawn too.',
    },
    {
      kind: 'number',
      name: 'path',
      label: 'Path of the bead',
      quantity: 'length',
      above: 0,
      max: 20_000,
      onlyFor: { field: 'by', choices: ['thread'] },
      help: 'Once round, with the rings round the holes: a thread laid along it.',
    },
    { ...HOLE_FIELDS[0], onlyFor: { field: 'by', choices: ['holes'] } },
    {
      kind: 'table',
      name: 'holes',
      label: 'Holes',
      columns: HOLE_COLUMNS,
      fewest: 3,
      most: 80,
      onlyFor: { field: 'by', choices: ['holes'] },
      help: 'Middle to middle; of the first two the line between them counts.',
    },
    { kind: 'number', name: 'bead', label: 'Bead', quantity: 'length', above: 0, max: 15, default: 2, help: 'Its thickness as laid.' },
    {
      kind: 'number',
      name: 'cartridge',
      label: 'There is',
      quantity: 'volume',
      above: 0,
      max: 5,
      optional: true,
      help: 'In the cartridge or tube that is open.',
    },
    {
      kind: 'number',
      name: 'full',
      label: 'A full one holds',
      quantity: 'volume',
      above: 0,
      max: 5,
      optional: true,
      help: 'Where more than the open one may be needed.',
    },
    {
      kind: 'number',
      name: 'skin',
      label: 'Skin after',
      quantity: 'time',
      above: 0,
      max: 86_400,
      help: 'Of the product’s sheet, at the warmth of the bench; half of it when it is warm and damp.',
    },
    {
      kind: 'number',
      name: 'laying',
      label: 'Laying takes',
      quantity: 'time',
      min: 0,
      max: 86_400,
      default: 120,
      help: 'From the first millimetre to the cover on.',
    },
    {
      kind: 'number',
      name: 'screws',
      label: 'Screws to be home',
      quantity: 'count',
      min: 0,
      max: 200,
      help: 'All of them, or those that the sheet wants snug before the skin.',
    },
    {
      kind: 'number',
      name: 'each',
      label: 'A screw takes',
      quantity: 'time',
      min: 0,
      max: 600,
      default: 6,
      help: 'All its passes within the skin time.',
    },
    {
      kind: 'number',
      name: 'gone',
      label: 'Gone already',
      quantity: 'time',
      min: 0,
      max: 86_400,
      default: 0,
      help: 'Since the first millimetre.',
    },
    {
      kind: 'number',
      name: 'open',
      label: 'Days since the tube was opened',
      quantity: 'count',
      min: 0,
      max: 10_000,
      optional: true,
      help: 'What cures in damp air goes on curing behind its cap.',
    },
    {
      kind: 'number',
      name: 'keeps',
      label: 'Days that it keeps, once open',
      quantity: 'count',
      min: 1,
      max: 10_000,
      optional: true,
      help: 'Of the product’s sheet.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'volume', label: 'Bead', quantity: 'volume', help: 'Alone.' },
    {
      kind: 'number',
      name: 'needed',
      label: 'With some for nozzle and corners',
      quantity: 'volume',
      help: 'What is squeezed out of the tube.',
    },
    { kind: 'number', name: 'laid', label: 'Path', quantity: 'length', help: 'Once round, and round each hole.' },
    {
      kind: 'number',
      name: 'more',
      label: 'Full ones to lay ready',
      quantity: 'count',
      optional: true,
      help: 'Beside the one that is open.',
    },
    { kind: 'number', name: 'left', label: 'You have', quantity: 'time', help: 'Until the skin is there.' },
    { kind: 'number', name: 'takes', label: 'Still takes', quantity: 'time', help: 'Laying that is left, and the screws.' },
    { kind: 'number', name: 'slack', label: 'To spare', quantity: 'time', help: 'For a screw that drops.' },
    { kind: 'text', name: 'so', label: 'So', longest: 200, help: 'How to go about it.' },
  ],
  sources: [
    { kind: 'derivation', document: 'round bead: π/4·d²·length', for: 'the volume' },
    { kind: 'common practice', document: 'closed and snug before the skin; 15 % for nozzle and corners', for: 'clock and waste' },
  ],
  cautions: ['Thin inside: what is squeezed inwards ends in the oil pump.', 'Gloves and air: what cures in damp air also cures on skin.'],
  serves: [{ at: 'seal', kinds: ['sealant'], preset: { bead: 'seal.bead' } }],
  example: { path: 620, bead: 2, cartridge: '70 mL', skin: '10 min', laying: '3 min', screws: 26, each: 6 },
  compute(input) {
    const { bead, cartridge, full, skin, laying, screws, each, gone } = input;
    const old = tooOld(input);
    if (old) return old;
    const round = roundHoles(input);
    if (!round.ok) return round;
    const { laid } = round.value;
    const volume = ((Math.PI / 4) * bead ** 2 * laid) / 1e6;
    const needed = volume * (1 + WASTE);
    if (cartridge !== undefined && needed > cartridge && full === undefined)
      return refuse({
        code: 'too-small',
        field: 'cartridge',
        received: `${Math.round(cartridge * 1000)} mL`,
        bound: `${(needed * 1000).toFixed(1)} mL: lay another ready before the first millimetre, and say what a full one holds`,
      });
    const left = skin - gone;
    const takes = Math.max(0, laying - gone) + screws * each;
    const slack = left - takes;
    if (left <= 0)
      return refuse({
        code: 'too-large',
        field: 'gone',
        received: minutes(gone),
        bound: `the skin was there after ${minutes(skin)}: take the cover off, clean both faces to bare metal, begin anew`,
      });
    if (slack < 0)
      return refuse({
        code: 'too-small',
        field: 'skin',
        received: minutes(skin),
        bound: `${minutes(gone + takes)}, what it takes: two people, fewer screws before the skin, or a slower product`,
      });
    return ok({
      volume,
      needed,
      laid,
      more: full === undefined ? undefined : Math.ceil(Math.max(0, needed - (cartridge ?? 0)) / full),
      left,
      takes,
      slack,
      so:
        slack < 0.25 * left
          ? `tight: ${minutes(slack)} to spare of ${minutes(left)}. Screws laid out, started by hand, somebody beside you`
          : `you have ${minutes(left)}, it takes ${minutes(takes)}`,
    });
  },
  explain: (input, output) => [
    {
      say: 'The bead.',
      formula: 'π/4·d²·path',
      numbers: `${mm(input.bead)} over ${mm(output.laid)}: ${(output.volume * 1000).toFixed(2)} mL, with waste ${(output.needed * 1000).toFixed(2)} mL`,
    },
    {
      say: 'The clock, from the first millimetre on.',
      formula: 'skin − gone − laying − screws · each',
      numbers: `${minutes(input.skin)} − ${minutes(input.gone)} − ${minutes(output.takes)} = ${minutes(output.slack)}`,
    },
    { say: output.so },
  ],
  draw(input) {
    const round = roundHoles(input);
    if (!round.ok || round.value.rings.length === 0) return undefined;
    const { holes, rings } = round.value;
    return { kind: 'flat', outlines: [], holes, along: { lines: [hull(holes), ...rings.map(circle)], wide: input.bead } };
  },
});

/** Refuses a tube that was open for longer than it keeps, or of which that is not known. */
function tooOld({
  open,
  keeps,
}: {
  readonly open?: number | undefined;
  readonly keeps?: number | undefined;
}): ReturnType<typeof refuse> | undefined {
  if (open === undefined) return undefined;
  if (keeps === undefined) return refuse({ code: 'required', field: 'keeps' });
  if (open <= keeps) return undefined;
  return refuse({ code: 'too-large', field: 'open', received: `${open} days`, bound: `${keeps} days, which it keeps: take a new one` });
}

interface Round {
  /** mm. */
  readonly laid: number;
  readonly holes: readonly Hole[];
  /** The bead round each hole. */
  readonly rings: readonly Hole[];
}

/**
 * The bead from hole to hole along the outermost ones, and in a ring round each of them all: where it meets a hole the
 * ring takes its place.
 */
function roundHoles({
  by,
  path,
  how,
  holes: rows,
  bead,
}: {
  readonly by: 'thread' | 'holes';
  readonly path?: number | undefined;
  readonly how: 'distances' | 'coordinates';
  readonly holes?: readonly Row[] | undefined;
  readonly bead: number;
}): Result<Round> {
  if (by === 'thread') return ok({ laid: path!, holes: [], rings: [] });
  const placed = holesOf(how, rows!);
  if (!placed.ok) return placed;
  const holes = placed.value;
  const found = outermost(holes);
  if (!found.ok) return found;
  const round = found.value;
  const rings = holes.map((hole) => ({ ...hole, d: hole.d + 2 * OFF_HOLE + bead }));
  // Those that lie on the line between two others are met by it too.
  const met = rings.filter((ring) => isOn(ring, round));
  const laid = perimeter(round) - met.reduce((sum, { d }) => sum + d, 0) + rings.reduce((sum, { d }) => sum + Math.PI * d, 0);
  return ok({ laid, holes, rings });
}

/** Whether the way round passes through the middle of a hole, to a tenth of a millimetre. */
function isOn({ x, y }: Hole, round: readonly Hole[]): boolean {
  return round.some((from, at) => {
    const to = round[(at + 1) % round.length]!;
    const long = Math.hypot(to.x - from.x, to.y - from.y);
    const off = Math.abs((to.x - from.x) * (y - from.y) - (to.y - from.y) * (x - from.x)) / long;
    const along = ((x - from.x) * (to.x - from.x) + (y - from.y) * (to.y - from.y)) / long;
    return off < 0.1 && along > -0.1 && along < long + 0.1;
  });
}

function minutes(seconds: number): string {
  return `${Math.round((10 * seconds) / MINUTE_S) / 10} min`;
}
