/** Orders of tightening, as lists of place numbers from 0. Geometry only: no torque here. */

export interface Point {
  readonly x: number;
  readonly y: number;
}

/**
 * Star order on a circle of `count` places. From five fasteners up, neighbours in order are never
 * neighbours in place. Three go round (every pair is a neighbour), four go crosswise.
 */
export function starOrder(count: number): readonly number[] {
  if (count <= 3) return Array.from({ length: count }, (_, place) => place);
  if (count === 4) return [0, 2, 1, 3];
  // Odd: the stride (n − 1)/2 has no common factor with n, and is never 1 from five up.
  if (count % 2 === 1) return Array.from({ length: count }, (_, turn) => (turn * ((count - 1) / 2)) % count);
  return oppositePairs(count);
}

/** Even counts: pair after opposite pair, each new pair in the middle of the widest gap left. */
function oppositePairs(count: number): readonly number[] {
  const half = count / 2;
  const order: number[] = [];
  for (const start of spreadOver(half)) {
    const last = order.at(-1);
    const nextTo = (place: number): boolean => last !== undefined && [1, count - 1].includes((place - last + count) % count);
    const pair = nextTo(start) ? [start + half, start] : [start, start + half];
    order.push(...pair);
  }
  return order;
}

/** 0 … n − 1, each as far as can be from all that came before it (round the half circle). */
function spreadOver(count: number): readonly number[] {
  const chosen: number[] = [];
  const gaps = Array.from({ length: count }, () => Number.POSITIVE_INFINITY);
  for (let next = 0; chosen.length < count; next = gaps.indexOf(Math.max(...gaps))) {
    chosen.push(next);
    gaps.forEach((gap, place) => {
      gaps[place] = Math.min(gap, Math.abs(place - next), count - Math.abs(place - next));
    });
  }
  return chosen;
}

/** From the middle outwards; among places equally far out, the one furthest from the last pull. */
export function outwardOrder(points: readonly Point[]): readonly number[] {
  const middle = { x: mean(points.map((point) => point.x)), y: mean(points.map((point) => point.y)) };
  const scale = Math.max(...points.map((point) => distance(point, middle)), 1e-9);
  const rings = points.map((point) => Math.round((distance(point, middle) / scale) * 1e6));
  const ring = (place: number): number => rings[place]!;
  const left = new Set(points.keys());
  const order: number[] = [];
  while (left.size > 0) {
    const nearest = Math.min(...[...left].map(ring));
    const candidates = [...left].filter((place) => ring(place) === nearest);
    const last = order.at(-1);
    const from = last === undefined ? undefined : at(points, last);
    const next = candidates.reduce((best, place) =>
      from && distance(at(points, place), from) > distance(at(points, best), from) + 1e-9 ? place : best,
    );
    order.push(next);
    left.delete(next);
  }
  return order;
}

/** `count` places clockwise from twelve o'clock on a circle; x to the right, y down. */
export function circlePoints(count: number, radius = 1): readonly Point[] {
  return Array.from({ length: count }, (_, place) => {
    const angle = (2 * Math.PI * place) / count;
    return { x: radius * Math.sin(angle), y: -radius * Math.cos(angle) };
  });
}

export function gridPoints(rows: number, columns: number): readonly Point[] {
  return Array.from({ length: rows * columns }, (_, place) => ({ x: place % columns, y: Math.floor(place / columns) }));
}

function at(points: readonly Point[], place: number): Point {
  const point = points[place];
  if (!point) throw new RangeError(`no place ${place}`);
  return point;
}

function mean(figures: readonly number[]): number {
  return figures.reduce((sum, figure) => sum + figure, 0) / figures.length;
}

function distance(a: Point, b: Point): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}
