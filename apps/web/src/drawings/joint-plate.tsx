import type { Point } from '@jubb/core';
import { line, curveLinear } from 'd3-shape';
import type { ReactElement } from 'react';

interface JointPlateProps {
  readonly name: string;
  readonly points: readonly Point[];
  /** Order number (from 1) of each place. */
  readonly numbers: readonly number[];
  readonly done: ReadonlySet<number>;
  readonly next?: number | undefined;
  /** Place of the pull before the next one: the steel line leads from it. */
  readonly last?: number | undefined;
  readonly trouble?: ReadonlySet<number>;
  readonly centre?: string;
  readonly under?: string;
  readonly round?: boolean;
}

const SIZE = 400;
const NUT = 31;
const PLATE = 192;

/** The fasteners where they are: done solid, the next in steel with a ring, the rest outlined. */
export function JointPlate({
  name,
  points,
  numbers,
  done,
  next,
  last,
  trouble,
  centre,
  under,
  round = true,
}: JointPlateProps): ReactElement {
  const at = fit(points);
  const nut = sizeWithin(points, NUT);
  const path = line<Point>(
    (point) => point.x,
    (point) => point.y,
  ).curve(curveLinear);
  const order = numbers.map((_, turn) => numbers.indexOf(turn + 1));
  const lead = next !== undefined && last !== undefined ? path([at(last), at(next)]) : null;
  const nextNumber = next === undefined ? undefined : numbers[next];
  const words = `${name}: ${points.length} fasteners in the order ${order.map((place) => place + 1).join(', ')} by place; done in this pass: ${done.size}${nextNumber === undefined ? '' : `; next is number ${nextNumber}`}`;
  return (
    <svg viewBox={`0 0 ${SIZE} ${SIZE}`} role="img" aria-label={words}>
      {round ? <circle cx={SIZE / 2} cy={SIZE / 2} r={PLATE} fill="none" stroke="var(--ink)" strokeWidth="2" /> : null}
      {order.slice(1, 5).map((place, index) => (
        <path key={place} d={path([at(order[index] ?? 0), at(place)]) ?? ''} stroke="var(--rule)" strokeWidth="2" fill="none" />
      ))}
      {lead ? <path d={lead} stroke="var(--steel)" strokeWidth="5" fill="none" /> : null}
      {round && centre ? <circle cx={SIZE / 2} cy={SIZE / 2} r="58" fill="var(--ground)" stroke="var(--rule)" strokeWidth="2" /> : null}
      {centre ? (
        <>
          <text x={SIZE / 2} y={SIZE / 2 + 2} textAnchor="middle" fontSize="34">
            {centre}
          </text>
          <text x={SIZE / 2} y={SIZE / 2 + 24} textAnchor="middle" fontSize="16" style={{ fill: 'var(--soft)' }}>
            {under}
          </text>
        </>
      ) : null}
      {points.map((_, place) => {
        const { x, y } = at(place);
        const isNext = place === next;
        const isDone = done.has(place);
        const fill = isNext ? 'var(--steel)' : isDone ? 'var(--ink)' : 'var(--sheet)';
        return (
          <g key={place}>
            {isNext ? <circle cx={x} cy={y} r={nut + 11} fill="var(--ground)" stroke="var(--steel)" strokeWidth="4" /> : null}
            <polygon
              points={hexagon(x, y, nut)}
              fill={fill}
              stroke={trouble?.has(place) ? 'var(--out)' : 'var(--ink)'}
              strokeWidth={trouble?.has(place) ? 4 : 2}
            />
            <text
              x={x}
              y={y + nut * 0.31}
              textAnchor="middle"
              fontSize={nut * 0.88}
              style={{ fill: isNext ? 'var(--on-steel)' : isDone ? 'var(--ground)' : 'var(--ink)' }}
            >
              {numbers[place]}
            </text>
            {trouble?.has(place) ? <path d={`M${x - nut} ${y + nut}l${nut * 2} ${-nut * 2}`} stroke="var(--out)" strokeWidth="4" /> : null}
          </g>
        );
      })}
    </svg>
  );
}

/** Places on the drawing for places on the joint, whatever their own unit: what is farthest out just fits. */
export function fit(points: readonly Point[]): (place: number) => Point {
  const xs = points.map((point) => point.x);
  const ys = points.map((point) => point.y);
  const middle = { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
  const reach = Math.max(...points.map((point) => Math.max(Math.abs(point.x - middle.x), Math.abs(point.y - middle.y))), 1e-9);
  const scale = (PLATE - 44) / reach;
  return (place) => {
    const point = points[place] ?? middle;
    return { x: SIZE / 2 + (point.x - middle.x) * scale, y: SIZE / 2 + (point.y - middle.y) * scale };
  };
}

/** Radius at which fasteners do not touch their neighbours, at most the one that is wanted. */
export function sizeWithin(points: readonly Point[], wanted: number): number {
  const at = fit(points);
  const drawn = points.map((_, place) => at(place));
  const gaps = drawn.flatMap((one, place) => drawn.slice(place + 1).map((other) => Math.hypot(one.x - other.x, one.y - other.y)));
  return Math.min(wanted, ...gaps.map((gap) => gap / 2 - 2));
}

export function hexagon(x: number, y: number, radius: number): string {
  return Array.from({ length: 6 }, (_, corner) => {
    const angle = (Math.PI / 3) * corner;
    return `${(x + radius * Math.cos(angle)).toFixed(1)},${(y + radius * Math.sin(angle)).toFixed(1)}`;
  }).join(' ');
}
