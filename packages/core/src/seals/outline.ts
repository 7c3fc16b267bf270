/** A point of a flat drawing, mm; with `bulge`, tan of a quarter of the angle, it goes on to the next one in an arc, as DXF writes it. */
export interface Corner {
  readonly x: number;
  readonly y: number;
  readonly bulge?: number;
}

export interface Hole {
  readonly x: number;
  readonly y: number;
  readonly d: number;
}

type Point = Pick<Hole, 'x' | 'y'>;

const apart = (one: Point, other: Point): number => Math.hypot(one.x - other.x, one.y - other.y);
const turn = (a: Point, b: Point, c: Point): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);

/** The points that a thread round all of them touches, against the clock; those on a straight line between two others are not among them. */
export function hull<P extends Point>(points: readonly P[]): readonly P[] {
  const sorted = points.toSorted((one, other) => one.x - other.x || one.y - other.y);
  if (sorted.length < 3) return sorted;
  const half = (from: readonly P[]): P[] => {
    const chain: P[] = [];
    for (const point of from) {
      while (chain.length > 1 && turn(chain.at(-2)!, chain.at(-1)!, point) <= 1e-9) chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}

/** Once round a polygon, mm. */
export function perimeter(corners: readonly Point[]): number {
  return corners.reduce((sum, corner, at) => sum + apart(corner, corners[(at + 1) % corners.length]!), 0);
}

/** Area of a polygon, mm²; less than zero with the clock. */
export function areaOf(corners: readonly Point[]): number {
  return (
    corners.reduce((sum, { x, y }, at) => {
      const next = corners[(at + 1) % corners.length]!;
      return sum + x * next.y - next.x * y;
    }, 0) / 2
  );
}

/** A line at that distance round a convex polygon: straight along its sides, in arcs round its corners. */
export function roundOff(convex: readonly Point[], by: number): readonly Corner[] {
  return convex.flatMap((corner, at) => {
    const before = convex[(at - 1 + convex.length) % convex.length]!;
    const after = convex[(at + 1) % convex.length]!;
    const [entering, leaving] = [outward(before, corner), outward(corner, after)];
    const angle = Math.acos(Math.max(-1, Math.min(1, entering.x * leaving.x + entering.y * leaving.y)));
    return [
      { x: corner.x + by * entering.x, y: corner.y + by * entering.y, bulge: Math.tan(angle / 4) },
      { x: corner.x + by * leaving.x, y: corner.y + by * leaving.y },
    ];
  });
}

/** The convex polygon whose sides lie that much further in; nothing where none is left. */
export function drawIn(convex: readonly Point[], by: number): readonly Point[] | undefined {
  let left: readonly Point[] = convex;
  for (const [at, corner] of convex.entries()) {
    const normal = outward(corner, convex[(at + 1) % convex.length]!);
    const edge = normal.x * corner.x + normal.y * corner.y - by;
    left = cut(left, normal, edge);
    if (left.length < 3) return undefined;
  }
  return left;
}

/** What of a convex polygon lies on the inner side of a line. */
function cut(convex: readonly Point[], normal: Point, edge: number): readonly Point[] {
  const beyond = ({ x, y }: Point): number => normal.x * x + normal.y * y - edge;
  return convex.flatMap((corner, at) => {
    const next = convex[(at + 1) % convex.length]!;
    const [here, there] = [beyond(corner), beyond(next)];
    const own = here <= 0 ? [corner] : [];
    if (here <= 0 === there <= 0) return own;
    const share = here / (here - there);
    return [...own, { x: corner.x + share * (next.x - corner.x), y: corner.y + share * (next.y - corner.y) }];
  });
}

function outward(from: Point, to: Point): Point {
  const length = apart(from, to);
  return { x: (to.y - from.y) / length, y: -(to.x - from.x) / length };
}

/** A circle as two arcs. */
export function circle({ x, y, d }: Hole): readonly Corner[] {
  return [
    { x: x + d / 2, y, bulge: 1 },
    { x: x - d / 2, y, bulge: 1 },
  ];
}

/** A point from its distances to two others, above the line between them or below; nothing where the distances do not meet. */
export function byDistances(base: number, first: number, second: number, isBelow: boolean): Point | undefined {
  const x = (first ** 2 - second ** 2 + base ** 2) / (2 * base);
  const up = first ** 2 - x ** 2;
  // On the line itself a tenth of a millimetre of either is no contradiction.
  if (up < -(0.2 * first + 0.01)) return undefined;
  const y = Math.sqrt(Math.max(0, up));
  return { x, y: isBelow ? -y : y };
}
