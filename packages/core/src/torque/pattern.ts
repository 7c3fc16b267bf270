import { formatQuantity } from '../quantity/format.js';
import type { Row } from '../working/describe.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { circlePoints, gridPoints, outwardOrder, starOrder, type Point } from './order.js';

const LARGEST = 400;

/**
 * In which order, and in which passes, are these tightened?
 *
 * On a circle a star; on a grid, two rows or a free layout from the middle outwards; two circles
 * the inner before the outer. Every pass takes each fastener once; a last pass goes round the
 * circle at the full torque until no nut turns.
 *
 * Example: ten on a circle with the default passes are 40 pulls, the first three passes in star
 * order at 30, 60 and 100 %.
 */
export const pattern = defineWorking({
  id: 'torque.pattern',
  title: 'In which order, and in which passes, are these tightened?',
  area: 'torque',
  inputs: [
    {
      kind: 'choice',
      name: 'layout',
      label: 'Layout',
      default: 'circle',
      choices: [
        { id: 'circle', label: 'on a circle' },
        { id: 'two-circles', label: 'on two circles, inner and outer' },
        { id: 'two-rows', label: 'in two rows' },
        { id: 'grid', label: 'on a grid' },
        { id: 'free', label: 'at places of my own' },
      ],
      help: 'How the fasteners lie.',
    },
    {
      kind: 'number',
      name: 'count',
      label: 'Fasteners',
      quantity: 'count',
      min: 2,
      max: LARGEST,
      default: 10,
      onlyFor: { field: 'layout', choices: ['circle', 'two-circles', 'two-rows'] },
      help: 'On the circle, or on the outer circle, or in both rows together.',
    },
    {
      kind: 'number',
      name: 'inner',
      label: 'On the inner circle',
      quantity: 'count',
      min: 2,
      max: LARGEST,
      default: 4,
      onlyFor: { field: 'layout', choices: ['two-circles'] },
      help: 'The one tightened first.',
    },
    {
      kind: 'number',
      name: 'rows',
      label: 'Rows',
      quantity: 'count',
      min: 1,
      max: 20,
      default: 3,
      onlyFor: { field: 'layout', choices: ['grid'] },
      help: 'Across the cover.',
    },
    {
      kind: 'number',
      name: 'columns',
      label: 'Columns',
      quantity: 'count',
      min: 1,
      max: 20,
      default: 4,
      onlyFor: { field: 'layout', choices: ['grid'] },
      help: 'Fasteners in a row.',
    },
    {
      kind: 'table',
      name: 'points',
      label: 'Places',
      optional: true,
      fewest: 2,
      most: LARGEST,
      columns: [
        { name: 'x', label: 'Across', quantity: 'length' },
        { name: 'y', label: 'Down', quantity: 'length' },
      ],
      onlyFor: { field: 'layout', choices: ['free'] },
      help: 'A line for each: across and down, in any one unit.',
    },
    {
      kind: 'list',
      name: 'shares',
      label: 'Passes',
      quantity: 'ratio',
      fewest: 1,
      most: 8,
      min: 0.01,
      max: 1,
      default: [0.3, 0.6, 1],
      help: 'Share of the torque in each pass, rising to 1 (100 %).',
    },
    {
      kind: 'choice',
      name: 'check',
      label: 'Check pass',
      default: 'yes',
      choices: [
        { id: 'yes', label: 'once round at the full torque, until none turns' },
        { id: 'no', label: 'none' },
      ],
      help: 'A last pass round the joint in place order.',
    },
    {
      kind: 'number',
      name: 'torque',
      label: 'Full torque',
      quantity: 'torque',
      above: 0,
      max: 20000,
      optional: true,
      help: 'Gives the torque of each pass.',
    },
  ],
  outputs: [
    {
      kind: 'list',
      name: 'order',
      label: 'Order',
      quantity: 'count',
      fewest: 2,
      most: LARGEST,
      help: 'Places in the order of tightening, 1 at twelve o’clock and on clockwise, or row by row.',
    },
    { kind: 'number', name: 'pulls', label: 'Pulls in all', quantity: 'count', help: 'Over all passes.' },
    {
      kind: 'table',
      name: 'passes',
      label: 'Passes',
      columns: [
        { name: 'pass', label: 'Pass', quantity: 'count' },
        { name: 'way', label: 'Order', quantity: 'text' },
        { name: 'share', label: 'Share', quantity: 'ratio', share: true },
        { name: 'torque', label: 'Torque', quantity: 'torque' },
      ],
      help: 'What each pass is pulled to; torque 0 where no full torque was given.',
    },
    {
      kind: 'table',
      name: 'places',
      label: 'Places',
      columns: [
        { name: 'place', label: 'Place', quantity: 'count' },
        { name: 'turn', label: 'Tightened as number', quantity: 'count' },
        { name: 'x', label: 'Across', quantity: 'ratio' },
        { name: 'y', label: 'Down', quantity: 'ratio' },
      ],
      help: 'Where each fastener lies, and when its turn comes.',
    },
  ],
  sources: [
    {
      kind: 'standard',
      document: 'ASME PCC-1',
      edition: '2019',
      clause: 'Table 2 and legacy cross-pattern',
      for: 'passes at 20–30 %, 50–70 %, 100 % and a circular check pass; the star order',
      fromMemory: true,
    },
    { kind: 'common practice', document: 'Covers and heads are drawn down from the middle outwards', for: 'grids, rows and free layouts' },
  ],
  cautions: ['A sheet that gives its own order or stages goes before this one.'],
  example: { layout: 'circle', count: 10, torque: '108 N·m' },
  compute(input): Result<{ order: readonly number[]; pulls: number; passes: readonly Row[]; places: readonly Row[] }> {
    const rising = input.shares.every((share, index) => share >= (input.shares[index - 1] ?? 0)) && input.shares.at(-1) === 1;
    if (!rising)
      return refuse({
        code: 'shares-not-rising',
        field: 'shares',
        received: input.shares.map((share) => formatQuantity(share, 'ratio', '%')).join(', '),
      });
    if (input.layout === 'free' && !input.points) return refuse({ code: 'required', field: 'points' });
    const { points, order } = layOut(input.layout, input);
    const checks = input.check === 'yes' ? [{ share: 1, way: 'round, until none turns' }] : [];
    const passes = [...input.shares.map((share) => ({ share, way: input.layout === 'circle' ? 'star' : 'in order' })), ...checks].map(
      ({ share, way }, index) => ({
        pass: index + 1,
        way,
        share,
        torque: (input.torque ?? 0) * share,
      }),
    );
    return ok({
      order: order.map((place) => place + 1),
      pulls: passes.length * order.length,
      passes,
      places: points.map((point, place) => ({ place: place + 1, turn: order.indexOf(place) + 1, x: point.x, y: point.y })),
    });
  },
  explain(input, output) {
    const circle = input.layout === 'circle';
    return [
      {
        say: circle
          ? 'On a circle each next one lies across, so that the joint closes evenly.'
          : 'From the middle outwards, so that the joint is not trapped with a bulge.',
        formula: 'order',
        numbers: output.order.join(' – '),
      },
      {
        say: 'Every pass takes each fastener once.',
        formula: 'pulls = fasteners · passes',
        numbers: `${output.order.length} · ${output.passes.length} = ${output.pulls}`,
      },
    ];
  },
  draw: (_input, output) => ({
    kind: 'joint-plate',
    points: output.places.map((row) => ({ x: Number(row['x']), y: Number(row['y']) })),
    order: output.order,
  }),
});

interface Layout {
  readonly count: number;
  readonly inner: number;
  readonly rows: number;
  readonly columns: number;
  readonly points?: readonly Row[] | undefined;
}

function layOut(kind: string, layout: Layout): { points: readonly Point[]; order: readonly number[] } {
  switch (kind) {
    case 'circle':
      return { points: circlePoints(layout.count), order: starOrder(layout.count) };
    case 'two-circles': {
      const points = [...circlePoints(layout.inner, 0.6), ...circlePoints(layout.count)];
      return { points, order: [...starOrder(layout.inner), ...starOrder(layout.count).map((place) => place + layout.inner)] };
    }
    case 'two-rows':
      return outward(gridPoints(2, Math.ceil(layout.count / 2)).slice(0, layout.count));
    case 'grid':
      return outward(gridPoints(layout.rows, layout.columns));
    default:
      return outward((layout.points ?? []).map((row) => ({ x: Number(row['x']), y: Number(row['y']) })));
  }
}

function outward(points: readonly Point[]): { points: readonly Point[]; order: readonly number[] } {
  return { points, order: outwardOrder(points) };
}
