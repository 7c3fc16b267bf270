import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import type { Drawing } from '../working/describe.js';
import { HOLE_COLUMNS, HOLE_FIELDS, holesOf, outermost } from './hole-table.js';
import { areaOf, circle, drawIn, hull, perimeter, roundOff, type Corner, type Hole } from './outline.js';

/** Least land between a hole and an edge: narrower tears when it is cut and blows when it is pressed; common practice. */
const LAND_LEAST = 2.5;
/** A punched hole is that much wider than the screw's, so that none pulls at it; common practice. */
const PUNCHED_WIDER = 0.5;

interface Given {
  readonly how: 'distances' | 'coordinates';
  readonly holes: readonly Readonly<Record<string, number | string | boolean>>[];
  readonly margin: number;
  readonly opening: 'follow' | 'round' | 'none';
  readonly land?: number | undefined;
  readonly diameter?: number | undefined;
  readonly atX?: number | undefined;
  readonly atY?: number | undefined;
}

interface Made {
  readonly holes: readonly Hole[];
  readonly outside: readonly Corner[];
  readonly inside: readonly Corner[] | undefined;
  /** mm². */
  readonly area: number;
  /** Between hole or opening and an edge, mm. */
  readonly narrowest: number;
  readonly wide: number;
  readonly high: number;
}

/**
 * A gasket to cut from paper, from where its holes are.
 *
 * Two distances a hole, from the first and the second one, place it without a corner to measure from. Outside it follows the
 * outermost holes at a margin; inside it follows them too, or is round, or there is none. Neighbouring holes' distances are given back:
 * measured on the part they tell a slip before paper is cut. For flat faces whose outline bulges outwards at every hole.
 *
 * Example: four holes 80 × 60, 8.4 mm, margin 12, land 12 inside: 104 × 84 mm of paper.
 */
export const gasketMake = defineWorking({
  id: 'gasket.make',
  title: 'A gasket to cut, from where its holes are',
  area: 'seals',
  inputs: [
    ...HOLE_FIELDS,
    {
      kind: 'table',
      name: 'holes',
      label: 'Holes',
      columns: HOLE_COLUMNS,
      fewest: 3,
      most: 80,
      help: 'Middle to middle; of the first two the line between them counts.',
    },
    {
      kind: 'number',
      name: 'margin',
      label: 'Outside, from the middle of a hole',
      quantity: 'length',
      above: 0,
      max: 200,
      help: 'To the edge of the face.',
    },
    {
      kind: 'choice',
      name: 'opening',
      label: 'Opening',
      default: 'follow',
      choices: [
        { id: 'follow', label: 'follows the holes' },
        { id: 'round', label: 'round' },
        { id: 'none', label: 'none' },
      ],
      help: 'What is left open within.',
    },
    {
      kind: 'number',
      name: 'land',
      label: 'Inside, from the middle of a hole',
      quantity: 'length',
      above: 0,
      max: 200,
      onlyFor: { field: 'opening', choices: ['follow'] },
      help: 'To the edge of the opening.',
    },
    {
      kind: 'number',
      name: 'diameter',
      label: 'Opening is wide',
      quantity: 'length',
      above: 0,
      max: 2000,
      onlyFor: { field: 'opening', choices: ['round'] },
      help: 'Its diameter.',
    },
    {
      kind: 'number',
      name: 'atX',
      label: 'Its middle, across',
      quantity: 'length',
      optional: true,
      onlyFor: { field: 'opening', choices: ['round'] },
      help: 'From the first hole, or from the corner; the middle of the holes where nothing is said.',
    },
    {
      kind: 'number',
      name: 'atY',
      label: 'and up',
      quantity: 'length',
      optional: true,
      onlyFor: { field: 'opening', choices: ['round'] },
      help: 'From the line of the first two, or from the corner.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'wide', label: 'Paper, wide', quantity: 'length', help: 'The least that it is cut from.' },
    { kind: 'number', name: 'high', label: 'and high', quantity: 'length', help: 'The least that it is cut from.' },
    { kind: 'number', name: 'narrowest', label: 'Narrowest place', quantity: 'length', help: 'Between a hole and an edge.' },
    {
      kind: 'number',
      name: 'presses',
      label: 'Pressed face, mm²',
      quantity: 'ratio',
      help: 'For “Do the screws press the gasket enough?”.',
    },
    { kind: 'number', name: 'punch', label: 'Punch holes to', quantity: 'length', help: 'Of the widest; a little wider than the part’s.' },
    {
      kind: 'table',
      name: 'check',
      label: 'Measure these across before it is cut',
      columns: [
        { name: 'from', label: 'hole', quantity: 'count' },
        { name: 'to', label: 'to hole', quantity: 'count' },
        { name: 'apart', label: 'apart', quantity: 'length' },
        { name: 'over', label: 'over both', quantity: 'length' },
      ],
      help: 'Neighbours along the edge, and the two that are farthest apart.',
    },
  ],
  sources: [
    { kind: 'derivation', document: 'place by two distances; outline at a distance round the outermost holes', for: 'the outline' },
    { kind: 'common practice', document: '2.5 mm of land at least; holes half a millimetre wider', for: 'what can be cut' },
  ],
  cautions: ['Punch the holes first, cut the edges after: a strip that is cut loose wanders under the punch.'],
  serves: [{ at: 'seal', kinds: ['gasket'], rank: 2 }],
  example: {
    how: 'distances',
    holes: [
      { a: 0, b: 80, d: 8.4 },
      { a: 80, b: 0, d: 8.4 },
      { a: 100, b: 60, d: 8.4 },
      { a: 60, b: 100, d: 8.4 },
    ],
    margin: 12,
    land: 12,
  },
  compute(input) {
    const made = make(input);
    if (!made.ok) return made;
    const { holes, area, narrowest, wide, high } = made.value;
    return ok({
      wide,
      high,
      narrowest,
      presses: Math.round(area),
      punch: Math.max(...holes.map(({ d }) => d)) + PUNCHED_WIDER,
      check: checks(holes),
    });
  },
  explain: ({ margin }, { wide, high, narrowest, punch }) => [
    { say: 'Each hole by its two distances.', formula: 'x = (a² − b² + c²)/(2·c), y = √(a² − x²)' },
    { say: 'Round the outermost holes at the margin.', numbers: `${mm(margin)}: ${mm(wide)} × ${mm(high)}` },
    { say: 'What is left at the narrowest place.', numbers: `${mm(narrowest)}; holes punched to ${mm(punch)}` },
  ],
  draw(input) {
    const made = make(input);
    return flat(made.ok ? made.value : undefined);
  },
});

function flat(made: Made | undefined): Drawing {
  if (!made) return { kind: 'flat', outlines: [], holes: [] };
  const { outside, inside, holes } = made;
  return {
    kind: 'flat',
    outlines: [outside, ...(inside ? [inside] : [])],
    holes: holes.map((hole) => ({ ...hole, d: hole.d + PUNCHED_WIDER })),
  };
}

function make(given: Given): Result<Made> {
  const placed = holesOf(given.how, given.holes);
  if (!placed.ok) return placed;
  const holes = placed.value;
  const found = outermost(holes);
  if (!found.ok) return found;
  const round = found.value;
  const { margin } = given;
  const outsideLand = margin - Math.max(...holes.map(({ d }) => d)) / 2 - PUNCHED_WIDER / 2;
  if (outsideLand < LAND_LEAST)
    return refuse({
      code: 'too-small',
      field: 'margin',
      received: mm(margin),
      bound: `${mm(margin + LAND_LEAST - outsideLand)}: narrower tears`,
    });
  const outside = roundOff(round, margin);
  const opened = openingOf(given, holes, round);
  if (!opened.ok) return opened;
  const { inside, insideArea, insideLand } = opened.value;
  const all = holes.reduce((sum, { d }) => sum + (Math.PI / 4) * d ** 2, 0);
  const xs = round.map(({ x }) => x);
  const ys = round.map(({ y }) => y);
  return ok({
    holes,
    outside,
    inside,
    // Steiner: what lies within a distance of a convex figure.
    area: areaOf(round) + perimeter(round) * margin + Math.PI * margin ** 2 - insideArea - all,
    narrowest: Math.min(outsideLand, insideLand),
    wide: Math.max(...xs) - Math.min(...xs) + 2 * margin,
    high: Math.max(...ys) - Math.min(...ys) + 2 * margin,
  });
}

interface Opening {
  readonly inside: readonly Corner[] | undefined;
  readonly insideArea: number;
  readonly insideLand: number;
}

function openingOf({ opening, land, diameter, atX, atY }: Given, holes: readonly Hole[], round: readonly Hole[]): Result<Opening> {
  if (opening === 'none') return ok({ inside: undefined, insideArea: 0, insideLand: Infinity });
  const half = ({ d }: Hole): number => (d + PUNCHED_WIDER) / 2;
  if (opening === 'follow') {
    const inside = drawIn(round, land!);
    if (!inside) return refuse({ code: 'too-large', field: 'land', received: mm(land!), bound: 'less: nothing would be left open' });
    const insideLand = Math.min(...holes.map((hole) => toPolygon(hole, inside) - half(hole)));
    if (insideLand < LAND_LEAST)
      return refuse({
        code: 'too-small',
        field: 'land',
        received: mm(land!),
        bound: `${mm(land! + LAND_LEAST - insideLand)}: narrower tears`,
      });
    return ok({ inside, insideArea: areaOf(inside), insideLand });
  }
  const middle = (of: (hole: Hole) => number): number => (Math.max(...holes.map(of)) + Math.min(...holes.map(of))) / 2;
  const centre = { x: atX ?? middle(({ x }) => x), y: atY ?? middle(({ y }) => y), d: diameter! };
  const insideLand = Math.min(...holes.map((hole) => Math.hypot(hole.x - centre.x, hole.y - centre.y) - half(hole) - centre.d / 2));
  if (insideLand < LAND_LEAST)
    return refuse({
      code: 'too-large',
      field: 'diameter',
      received: mm(diameter!),
      bound: `${mm(Math.max(0, centre.d - 2 * (LAND_LEAST - insideLand)))}, or another middle: it comes too near to a hole`,
    });
  return ok({ inside: circle(centre), insideArea: (Math.PI / 4) * centre.d ** 2, insideLand });
}

/** From a point outside of a convex polygon to its nearest place, mm; less than zero within. */
function toPolygon({ x, y }: Hole, convex: readonly Corner[]): number {
  const sides = convex.map((from, at) => {
    const to = convex[(at + 1) % convex.length]!;
    const [dx, dy] = [to.x - from.x, to.y - from.y];
    const share = Math.max(0, Math.min(1, ((x - from.x) * dx + (y - from.y) * dy) / (dx * dx + dy * dy || 1)));
    return {
      away: Math.hypot(x - from.x - share * dx, y - from.y - share * dy),
      isOut: dx * (y - from.y) - dy * (x - from.x) < 0,
    };
  });
  const nearest = Math.min(...sides.map(({ away }) => away));
  return sides.some(({ isOut }) => isOut) ? nearest : -nearest;
}

function checks(holes: readonly Hole[]): readonly { from: number; to: number; apart: number; over: number }[] {
  const between = (one: number, other: number): { from: number; to: number; apart: number; over: number } => {
    const [a, b] = [holes[one]!, holes[other]!];
    const apart = Math.hypot(a.x - b.x, a.y - b.y);
    return { from: one + 1, to: other + 1, apart, over: apart + (a.d + b.d) / 2 };
  };
  const round = hull(holes.map(({ x, y }, index) => ({ x, y, index })));
  const neighbours = round.map(({ index }, at) => between(index, round[(at + 1) % round.length]!.index));
  const pairs = holes.flatMap((_, one) => holes.slice(one + 1).map((__, after) => between(one, one + 1 + after)));
  const farthest = pairs.toSorted((one, other) => other.apart - one.apart)[0]!;
  return neighbours.some(({ apart }) => apart === farthest.apart) ? neighbours : [...neighbours, farthest];
}
