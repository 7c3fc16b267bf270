import type { Drawing } from '@jubb/core';

export type FlatDrawing = Extract<Drawing, { kind: 'flat' }>;
type Corner = FlatDrawing['outlines'][number][number];

/** A closed line as an SVG path, y downwards; what bulges goes on in an arc. */
export function flatPath(corners: readonly Corner[]): string {
  const [first] = corners;
  if (!first) return '';
  const to = corners.map((corner, at) => {
    const next = corners[(at + 1) % corners.length]!;
    const { bulge = 0 } = corner;
    if (bulge === 0) return `L${next.x},${-next.y}`;
    const radius = (Math.hypot(next.x - corner.x, next.y - corner.y) * (1 + bulge ** 2)) / (4 * Math.abs(bulge));
    // Against the clock, seen with y upwards.
    return `A${radius},${radius} 0 ${Math.abs(bulge) > 1 ? 1 : 0} ${bulge > 0 ? 0 : 1} ${next.x},${-next.y}`;
  });
  return `M${first.x},${-first.y}${to.join('')}Z`;
}

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly wide: number;
  readonly high: number;
}

/** What a flat drawing covers, mm, y downwards; arcs reach a little beyond their corners. */
export function boxOf({ outlines, holes, along }: FlatDrawing, round: number): Box {
  const lines = [...outlines, ...(along?.lines ?? [])];
  const points = lines.flatMap((line) =>
    line.flatMap((corner, at) => {
      const next = line[(at + 1) % line.length]!;
      const sag = (Math.abs(corner.bulge ?? 0) * Math.hypot(next.x - corner.x, next.y - corner.y)) / 2;
      const middle = { x: (corner.x + next.x) / 2, y: (corner.y + next.y) / 2 };
      return [corner, { x: middle.x - sag, y: middle.y - sag }, { x: middle.x + sag, y: middle.y + sag }];
    }),
  );
  const all = [
    ...points,
    ...holes.flatMap(({ x, y, d }) => [
      { x: x - d / 2, y: y - d / 2 },
      { x: x + d / 2, y: y + d / 2 },
    ]),
  ];
  const [left, right] = [Math.min(...all.map(({ x }) => x)) - round, Math.max(...all.map(({ x }) => x)) + round];
  const [low, high] = [Math.min(...all.map(({ y }) => y)) - round, Math.max(...all.map(({ y }) => y)) + round];
  return { x: left, y: -high, wide: right - left, high: high - low };
}
