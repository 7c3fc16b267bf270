import { maximise } from '../math/simplex.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { spanOf } from './bore.js';
import { VERDICT } from './verdict-field.js';
import { judge } from './verdict.js';

interface Plane {
  /** z = a·x + b·y + c */
  readonly a: number;
  readonly b: number;
  readonly c: number;
}

interface Point3 {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/**
 * How flat is the face?
 *
 * Heights z at places x, y. Minimum zone: the plane with the least half-width t such that
 * |z − (a·x + b·y + c)| ≤ t everywhere, flatness 2t; a linear programme, solved exactly through
 * its dual. Least squares: the plane with the least Σ of squares, flatness the span of what is
 * left; never less than the minimum zone. Slopes are taken as small (z against x, y).
 *
 * Example: four corners of a square at 0, 0.1, 0 and 0.1 mm are 0.1 mm out of flat (a saddle).
 */
export const flatness = defineWorking({
  id: 'measure.flatness',
  title: 'How flat is the face?',
  area: 'measuring',
  inputs: [
    {
      kind: 'table',
      name: 'points',
      label: 'Points',
      columns: [
        { name: 'x', label: 'x', quantity: 'length' },
        { name: 'y', label: 'y', quantity: 'length' },
        { name: 'z', label: 'height', quantity: 'length' },
      ],
      fewest: 4,
      most: 100,
      help: 'Place along, place across, and height, one point to a line.',
    },
    {
      kind: 'number',
      name: 'most',
      label: 'Most out of flat',
      quantity: 'length',
      above: 0,
      max: 10,
      optional: true,
      help: 'What is allowed over the whole face.',
    },
    {
      kind: 'number',
      name: 'toolU',
      label: 'Uncertainty of the tool',
      symbol: 'u',
      quantity: 'length',
      min: 0,
      max: 1,
      default: 0.003,
      help: 'Standard uncertainty (k = 1) of one height.',
    },
  ],
  outputs: [
    {
      kind: 'number',
      name: 'flatness',
      label: 'Out of flat',
      quantity: 'length',
      help: 'Minimum zone: the least gap of two planes that hold all points.',
    },
    { ...VERDICT, optional: true },
    {
      kind: 'number',
      name: 'leastSquares',
      label: 'By least squares',
      quantity: 'length',
      help: 'Span about the best mean plane; never less.',
    },
    { kind: 'number', name: 'tilt', label: 'Tilt taken out', quantity: 'length', help: 'Height over the face that was only how it lay.' },
    {
      kind: 'table',
      name: 'left',
      label: 'Height over the minimum-zone plane',
      columns: [
        { name: 'x', label: 'x', quantity: 'length' },
        { name: 'y', label: 'y', quantity: 'length' },
        { name: 'off', label: 'off the plane', quantity: 'length' },
      ],
      help: 'High is plus.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'ISO 12781-1', edition: '2011', for: 'flatness by minimum zone and by least squares', fromMemory: true },
    { kind: 'derivation', document: 'duality of linear programming', for: 'the minimum zone as a linear programme' },
  ],
  cautions: [],
  example: {
    points: [
      { x: 0, y: 0, z: 0 },
      { x: 100, y: 0, z: 0.02 },
      { x: 200, y: 0, z: 0.01 },
      { x: 0, y: 80, z: 0.03 },
      { x: 100, y: 80, z: 0.09 },
      { x: 200, y: 80, z: 0.04 },
    ],
    most: 0.05,
  },
  compute(input) {
    const points = input.points.map((row) => ({ x: Number(row['x']), y: Number(row['y']), z: Number(row['z']) }));
    const mean = leastSquaresPlane(points);
    if (!mean) return refuse({ code: 'points-in-line', field: 'points' });
    const plane = minimumZone(points, mean);
    const left = points.map(({ x, y, z }) => ({ x, y, off: z - plane.a * x - plane.b * y - plane.c }));
    const zone = spanOf(left.map(({ off }) => off));
    return ok({
      flatness: zone,
      verdict: input.most === undefined ? undefined : judge(zone, input.toolU * Math.SQRT2, { upper: input.most }),
      leastSquares: spanOf(points.map(({ x, y, z }) => z - mean.a * x - mean.b * y - mean.c)),
      tilt: spanOf(points.map(({ x, y }) => plane.a * x + plane.b * y)),
      left,
    });
  },
  explain(input, output) {
    const mm = (length: number): string => formatQuantity(length, 'length');
    return [
      { say: 'How it lay under the gauge is taken out.', numbers: mm(output.tilt) },
      {
        say: 'Two planes, as close as they go with every point between them.',
        formula: 'least t with |z − (a·x + b·y + c)| ≤ t; flatness = 2t',
        numbers: mm(output.flatness),
      },
      { say: 'The mean plane for comparison.', formula: 'least Σ (z − a·x − b·y − c)²', numbers: mm(output.leastSquares) },
      ...(input.most === undefined ? [] : [{ say: `Against ${mm(input.most)}: ${output.verdict}.` }]),
    ];
  },
  draw: (_input, output) => ({
    kind: 'face',
    points: output.left.map((row) => ({ x: Number(row['x']), y: Number(row['y']), off: Number(row['off']) })),
  }),
});

/** By the normal equations about the middle of the points; undefined when they lie in one line. */
function leastSquaresPlane(points: readonly Point3[]): Plane | undefined {
  const n = points.length;
  const sum = (of: (point: Point3) => number): number => points.reduce((total, point) => total + of(point), 0);
  const middle = { x: sum(({ x }) => x) / n, y: sum(({ y }) => y) / n, z: sum(({ z }) => z) / n };
  const xx = sum(({ x }) => (x - middle.x) ** 2);
  const yy = sum(({ y }) => (y - middle.y) ** 2);
  const xy = sum(({ x, y }) => (x - middle.x) * (y - middle.y));
  const xz = sum(({ x, z }) => (x - middle.x) * (z - middle.z));
  const yz = sum(({ y, z }) => (y - middle.y) * (z - middle.z));
  const determinant = xx * yy - xy * xy;
  if (determinant <= 1e-12 * Math.max(xx, yy, 1e-12) ** 2) return undefined;
  const a = (xz * yy - yz * xy) / determinant;
  const b = (yz * xx - xz * xy) / determinant;
  return { a, b, c: middle.z - a * middle.x - b * middle.y };
}

/**
 * The plane of least half-width. Its dual: weights u for points above and v for points below with
 * Σ(u + v) ≤ 1 and Σ(u − v)·(x, y, 1) = 0 that make Σ(u − v)·z largest; the plane is the dual's dual.
 */
function minimumZone(points: readonly Point3[], near: Plane): Plane {
  const span = Math.max(spanOf(points.map(({ x }) => x)), spanOf(points.map(({ y }) => y)));
  // Scaled to one in plan and in height, about the mean plane, so that one tolerance fits all faces.
  const off = points.map(({ x, y, z }) => z - near.a * x - near.b * y - near.c);
  const high = Math.max(...off.map(Math.abs));
  if (high === 0) return near;
  const scaled = points.map(({ x, y }, index) => ({ x: x / span, y: y / span, z: off[index]! / high }));
  const signed = (of: (point: Point3) => number): number[] => [...scaled.map(of), ...scaled.map((point) => -of(point))];
  const x = signed((point) => point.x);
  const y = signed((point) => point.y);
  const one = signed(() => 1);
  const minus = (row: readonly number[]): number[] => row.map((factor) => -factor);
  const found = maximise(
    signed((point) => point.z),
    [x, minus(x), y, minus(y), one, minus(one), x.map(() => 1)],
    [0, 0, 0, 0, 0, 0, 1],
  );
  const dual = found?.dual ?? [0, 0, 0, 0, 0, 0, 0];
  const scale = high / span;
  return {
    a: near.a + (dual[0]! - dual[1]!) * scale,
    b: near.b + (dual[2]! - dual[3]!) * scale,
    c: near.c + (dual[4]! - dual[5]!) * high,
  };
}
