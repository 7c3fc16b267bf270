import { circlePoints, gridPoints } from './order.js';
import { expect, test } from '@jest/globals';

test('places go clockwise from twelve o’clock, x to the right and y down', () => {
  const points = circlePoints(4, 3);
  const wanted = [
    [0, -3],
    [3, 0],
    [0, 3],
    [-3, 0],
  ];
  for (const [place, [x, y]] of wanted.entries()) {
    expect(points[place]!.x).toBeCloseTo(x!, 12);
    expect(points[place]!.y).toBeCloseTo(y!, 12);
  }
});

test('a grid is read row by row', () => {
  expect(gridPoints(2, 3)).toEqual([
    { x: 0, y: 0 },
    { x: 1, y: 0 },
    { x: 2, y: 0 },
    { x: 0, y: 1 },
    { x: 1, y: 1 },
    { x: 2, y: 1 },
  ]);
});
