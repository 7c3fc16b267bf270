import { describe, expect, test } from '@jest/globals';
import { circlePoints, workings } from '@jubb/core';
import DxfParser from 'dxf-parser';
import fc from 'fast-check';
import { createElement, type FunctionComponent } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { CastleNut } from './castle-nut.tsx';
import { Chart } from './chart.tsx';
import { Fit } from './fit.tsx';
import { Flat } from './flat.tsx';
import { boxOf, flatPath } from './flat-path.ts';
import { flatDxf } from './flat-dxf.ts';
import { Flats, flatsWords } from './flats.tsx';
import { Gland } from './gland.tsx';
import { fit, hexagon, JointPlate, sizeWithin } from './joint-plate.tsx';
import { LimitStrip } from './limit-strip.tsx';
import { Marks } from './marks.tsx';
import { Pack } from './pack.tsx';
import { Round } from './round.tsx';
import { SealSection } from './seal-section.tsx';
import { SettingLine } from './setting-line.tsx';
import { Stack } from './stack.tsx';
import { Tornado } from './tornado.tsx';

interface Tag {
  readonly name: string;
  readonly text: string;
  readonly at: Readonly<Record<string, string>>;
}

/** The elements of a drawing with what stands in them, in the order they are drawn. */
function drawn<P extends object>(drawing: FunctionComponent<P>, props: P): readonly Tag[] {
  const markup = renderToStaticMarkup(createElement(drawing, props));
  return [...markup.matchAll(/<(\w+)((?: [\w-]+="[^"]*")*)\/?>([^<]*)/gu)].map(([, name = '', attributes = '', text = '']) => ({
    name,
    text,
    at: Object.fromEntries([...attributes.matchAll(/ ([\w-]+)="([^"]*)"/gu)].map(([, key, value]) => [key, value])),
  }));
}

const numbers = (tags: readonly Tag[], key: string): readonly number[] => tags.map(({ at }) => Number(at[key]));
const named = (tags: readonly Tag[], name: string, key?: string, value?: string): readonly Tag[] =>
  tags.filter((tag) => tag.name === name && (key === undefined || tag.at[key] === value));

describe('fasteners on their plate', () => {
  const points = fc.array(fc.record({ x: fc.integer({ min: -900, max: 900 }), y: fc.integer({ min: -900, max: 900 }) }), {
    minLength: 2,
    maxLength: 24,
  });

  test('lie as they lie on the joint, whatever its unit, and within the drawing', () => {
    fc.assert(
      fc.property(points, (given) => {
        const at = fit(given);
        const places = given.map((_, place) => at(place));
        for (const { x, y } of places) {
          expect(Math.abs(x - 200)).toBeLessThanOrEqual(148.0001);
          expect(Math.abs(y - 200)).toBeLessThanOrEqual(148.0001);
        }
        // One scale for all: distances are in proportion.
        const apart = (list: readonly { x: number; y: number }[]): number => Math.hypot(list[0]!.x - list[1]!.x, list[0]!.y - list[1]!.y);
        const scaled = fit(given.map(({ x, y }) => ({ x: x * 25.4, y: y * 25.4 })));
        expect(apart([scaled(0), scaled(1)])).toBeCloseTo(apart(places), 6);
      }),
    );
  });

  test('do not touch each other', () => {
    for (const count of [2, 5, 8, 24, 36]) {
      const circle = circlePoints(count, 100);
      const at = fit(circle);
      const radius = sizeWithin(circle, 31);
      const gap = Math.hypot(at(0).x - at(1).x, at(0).y - at(1).y);
      expect([radius > 0, 2 * radius < gap, radius <= 31]).toEqual([true, true, true]);
    }
  });

  test('are numbered in their order, and the next one is ringed', () => {
    const circle = circlePoints(4, 50);
    const tags = drawn(JointPlate, { name: 'Cover', points: circle, numbers: [1, 3, 2, 4], done: new Set([0]), next: 2 });
    expect(named(tags, 'text').map(({ text }) => text)).toEqual(['1', '3', '2', '4']);
    const ring = named(tags, 'circle', 'stroke', 'var(--steel)');
    const at = fit(circle);
    expect([numbers(ring, 'cx'), numbers(ring, 'cy')]).toEqual([[at(2).x], [at(2).y]]);
    expect(named(tags, 'svg')[0]!.at['aria-label']).toContain('in the order 1, 3, 2, 4 by place');
  });

  test('a hexagon has six corners at its radius', () => {
    const corners = hexagon(10, 20, 5)
      .split(' ')
      .map((corner) => corner.split(',').map(Number));
    expect(corners).toHaveLength(6);
    for (const [x, y] of corners) expect(Math.hypot(x! - 10, y! - 20)).toBeCloseTo(5, 1);
  });
});

const turnOf = ({ at }: Tag): number => Number(/rotate\((-?[\d.]+)/u.exec(at['transform'] ?? '')?.[1]);

test('a castle nut that is turned as the drawing says has a slot over a hole', () => {
  fc.assert(
    fc.property(fc.constantFrom(6, 8), fc.integer({ min: 0, max: 359 }), (slots, opening) => {
      const pitch = 360 / slots;
      // To the next slot: how far the nut has to go on, clockwise, until one of its slots stands at the hole.
      const angle = (((-opening % pitch) + pitch) % pitch) % pitch;
      const tags = drawn(CastleNut, { slots, openings: [opening], angle });
      const [hole] = named(tags, 'rect', 'fill', 'var(--brass)').map(turnOf);
      const cut = named(tags, 'rect', 'fill', 'var(--ground)').map(turnOf);
      expect(cut).toHaveLength(slots);
      const off = cut.map((slot) => (((slot + angle - hole!) % 360) + 360) % 360);
      expect(off.some((one) => Math.min(one, 360 - one) < 1e-6)).toBe(true);
    }),
  );
});

test('a paint mark ends where the head is turned to, by the hand of the thread', () => {
  for (const turn of [1, -1] as const) {
    const tags = drawn(Flats, { angle: 90, turn });
    const [dot] = named(tags, 'circle');
    expect([Number(dot!.at['cx']), Number(dot!.at['cy'])].map(Math.round)).toEqual([130 + turn * 104, 130]);
  }
  expect([60, 90, 120, 45, 15, 15.7, 360].map(flatsWords)).toEqual([
    '1 flat',
    '1½ flats',
    '2 flats',
    '¾ flat',
    '¼ flat',
    'some ¼ flat',
    '6 flats',
  ]);
});

describe('a figure on its rule', () => {
  test('stands inside the window where it is inside, and outside where it is not', () => {
    fc.assert(
      fc.property(
        fc.float({ min: 1, max: 90, noNaN: true }),
        fc.float({ min: 1, max: 9, noNaN: true }),
        fc.float({ min: 0, max: 100, noNaN: true }),
        (from, width, reading) => {
          const to = from + width;
          fc.pre(Math.min(Math.abs(reading - from), Math.abs(reading - to)) > 0.01);
          const tags = drawn(LimitStrip, { name: 'Bore', readings: [reading], from, to, unit: 'mm' });
          const [band] = named(tags, 'rect', 'fill', 'var(--steel-2)');
          const [left, right] = [Number(band!.at['x']), Number(band!.at['x']) + Number(band!.at['width'])];
          const tick = Number(named(tags, 'line', 'stroke', 'var(--ink)')[0]!.at['x1']);
          expect(tick > left && tick < right).toBe(reading > from && reading < to);
          expect(tick).toBeGreaterThanOrEqual(14);
          expect(tick).toBeLessThanOrEqual(446);
        },
      ),
    );
  });

  test('the zones in which the tool cannot tell lie over both limits, as wide as they are', () => {
    const tags = drawn(LimitStrip, { name: 'Bore', readings: [10], from: 8, to: 12, guard: 0.5, unit: 'mm' });
    const [band] = named(tags, 'rect', 'fill', 'var(--steel-2)');
    const zones = named(tags, 'rect', 'fill', 'url(#unsure)');
    const mm = Number(band!.at['width']) / 4;
    expect(zones.map(({ at }) => Number(at['width']) / mm)).toEqual([expect.closeTo(1, 6), expect.closeTo(1, 6)]);
    expect(Number(zones[0]!.at['x']) + Number(zones[0]!.at['width']) / 2).toBeCloseTo(Number(band!.at['x']), 6);
  });

  test('preload is left of zero, and where the turn lands is on the scale', () => {
    const tags = drawn(SettingLine, { name: 'End play', from: 0.02, to: 0.08, tries: [0.3, 0.15], after: 0.05, angle: 30 });
    const [band] = named(tags, 'rect', 'fill', 'var(--steel-2)');
    const [preload] = named(tags, 'rect', 'fill', 'var(--brass-2)');
    expect(Number(preload!.at['x']) + Number(preload!.at['width'])).toBeLessThan(Number(band!.at['x']));
    expect(named(tags, 'svg')[0]!.at['aria-label']).toContain('after 30° it will be 0.05 mm');
  });
});

test('shims lie one behind the other to scale', () => {
  const tags = drawn(Pack, { name: 'Shims', layers: [0.5, 0.3, 0.05], wanted: 0.85 });
  const layers = named(tags, 'rect');
  const widths = numbers(layers, 'width');
  expect([widths[0]! / widths[1]!, widths[0]! / widths[2]!]).toEqual([expect.closeTo(5 / 3, 6), expect.closeTo(10, 6)]);
  for (const [place, { at }] of layers.slice(1).entries())
    expect(Number(at['x'])).toBeCloseTo(Number(layers[place]!.at['x']) + widths[place]!, 6);
  const wanted = Number(/^M([\d.]+),/u.exec(named(tags, 'path', 'stroke', 'var(--steel)')[0]!.at['d']!)![1]);
  expect(wanted).toBeCloseTo(Number(layers[2]!.at['x']) + widths[2]!, 6);
});

test('the high spot points where it is, from the top clockwise', () => {
  for (const [highAt, x, y] of [
    [0, 0, -126],
    [90, 126, 0],
    [180, 0, 126],
  ] as const) {
    const tags = drawn(Round, { name: 'Run-out', readings: [0, 1, 0, -1], highAt, eccentricity: 0.01 });
    const [dot] = named(tags, 'circle', 'fill', 'var(--brass)');
    expect([Number(dot!.at['cx']), Number(dot!.at['cy'])].map((one) => Math.round(one) + 0)).toEqual([x, y]);
  }
});

test('bars of a fit stand over and under the nominal size by their figures', () => {
  const tags = drawn(Fit, {
    name: 'Fit',
    bars: [
      { name: 'hole', from: 0, to: 21 },
      { name: 'shaft', from: -20, to: -7 },
    ],
  });
  const zero = Number(/,([\d.]+)H/u.exec(named(tags, 'path', 'stroke', 'var(--ink)')[0]!.at['d']!)![1]);
  const [hole, shaft] = named(tags, 'rect');
  const micron = Number(hole!.at['height']) / 21;
  expect(Number(hole!.at['y']) + Number(hole!.at['height'])).toBeCloseTo(zero, 6);
  expect((Number(shaft!.at['y']) - zero) / micron).toBeCloseTo(7, 6);
  expect(Number(shaft!.at['height']) / micron).toBeCloseTo(13, 6);
});

test('a chart draws a straight line straight, and its levels at their height', () => {
  const tags = drawn(Chart, {
    name: 'Wear',
    x: 'h',
    y: 'mm',
    lines: [
      {
        name: 'wear',
        points: [
          [0, 0],
          [10, 1],
          [20, 2],
        ],
      },
    ],
    levels: [{ name: 'limit', at: 1 }],
  });
  const dots = named(tags, 'circle', 'fill', 'var(--ink)');
  const [x, y] = [numbers(dots, 'cx'), numbers(dots, 'cy')];
  expect([x[1]! - x[0]!, y[1]! - y[0]!]).toEqual([expect.closeTo(x[2]! - x[1]!, 6), expect.closeTo(y[2]! - y[1]!, 6)]);
  expect(y[0]).toBeGreaterThan(y[2]!);
  expect(Number(named(tags, 'line', 'stroke', 'var(--steel)')[0]!.at['y1'])).toBeCloseTo(y[1]!, 6);
});

test('what an answer hangs on reaches from the lead to what it becomes', () => {
  const tags = drawn(Tornado, { name: 'Worth', base: 100, bars: [{ name: 'hours', low: -50, high: 180 }] });
  const [less] = named(tags, 'rect', 'fill', 'var(--sheet)');
  const [more] = named(tags, 'rect', 'fill', 'var(--ink)');
  expect(Number(less!.at['width']) / Number(more!.at['width'])).toBeCloseTo(150 / 80, 6);
  expect(Number(less!.at['x']) + Number(less!.at['width'])).toBeCloseTo(Number(more!.at['x']), 6);
});

test('what has no width, no reading or one point is drawn all the same', () => {
  const bad: string[] = [];
  for (const [drawing, props] of [
    [Pack, { name: 'none', layers: [], wanted: 0 }],
    [LimitStrip, { name: 'one sided', readings: [], to: 0.1, unit: 'mm' }],
    [LimitStrip, { name: 'same', readings: [5, 5], from: 5, to: 5, unit: 'mm' }],
    [Chart, { name: 'flat', x: 'h', y: 'mm', lines: [{ name: 'a', points: [[1, 1]] }], levels: [] }],
    [Round, { name: 'true', readings: [0, 0, 0, 0], highAt: 0, eccentricity: 0 }],
    [Fit, { name: 'none', bars: [{ name: 'hole', from: 0, to: 0 }] }],
    [JointPlate, { name: 'one', points: [{ x: 0, y: 0 }], numbers: [1], done: new Set() }],
    [SettingLine, { name: 'fixed', from: 0, to: 0, tries: [], isPlay: false }],
  ] as unknown as readonly [FunctionComponent<object>, object][])
    if (drawn(drawing, props).some(({ at }) => Object.values(at).some((value) => /NaN|Infinity|undefined/u.test(value))))
      bad.push(drawing.name);
  expect(bad).toEqual([]);
});

test('a ring keeps its area and touches both sides of its room', () => {
  const tags = drawn(Gland, { name: 'Ring', gland: 'piston', section: 2.6, height: 2.1, width: 3.6 });
  const [ring] = named(tags, 'ellipse');
  const [free] = named(tags, 'circle');
  const [rx, ry, r] = [Number(ring!.at['rx']), Number(ring!.at['ry']), Number(free!.at['r'])];
  expect(rx * ry).toBeCloseTo(r * r, 6);
  expect(ry / r).toBeCloseTo(2.1 / 2.6, 6);
  // One that is thinner than its room touches one side only, and stays round.
  const loose = named(drawn(Gland, { name: 'Ring', gland: 'rod', section: 1.8, height: 2.1, width: 3.6 }), 'ellipse')[0]!.at;
  expect(Number(loose['rx'])).toBeCloseTo(Number(loose['ry']), 6);
});

test('seal, lip, track and drain hole lie along the shaft by one scale', () => {
  const section = { bore: 14, width: 10, lip: 6.5, inset: 1.7, track: { from: 6, to: 7.5, worn: 0.4 }, drain: 13, sleeve: false };
  const tags = drawn(SealSection, { name: 'Seal', ...section });
  const starts = named(tags, 'path').map(({ at }) => at['d']!);
  const face = Number(/^M([\d.]+),24H/u.exec(starts[0]!)![1]);
  const bore = Number(/H([\d.]+)V84/u.exec(starts[0]!)![1]);
  const scale = (bore - face) / 14;
  const lip = Number(/^M([\d.]+),/u.exec(named(tags, 'path', 'stroke', 'var(--steel)')[0]!.at['d']!)![1]);
  expect((lip - face) / scale).toBeCloseTo(8.2, 6);
  expect((Number(/^M([\d.]+),24V/u.exec(starts[1]!)![1]) - face) / scale).toBeCloseTo(13, 6);
  expect(named(tags, 'svg')[0]!.at['aria-label']).toContain('lip at 8.2 mm; track from 6 mm to 7.5 mm');
  expect(named(tags, 'rect')).toHaveLength(0);
  expect(named(drawn(SealSection, { name: 'Seal', ...section, sleeve: true }), 'rect')).toHaveLength(1);
});

describe('a gasket at true size', () => {
  const result = workings.run('gasket.make', workings.describe('gasket.make')!.example);
  const drawing = result?.ok ? result.run.drawing : undefined;
  if (drawing?.kind !== 'flat') throw new Error('no drawing');

  test('is as large in millimetres as it is wide, and its paths lie where the part does', () => {
    const [sheet] = named(drawn(Flat, { ...drawing, name: 'Gasket', isTrue: true }), 'svg');
    const [, , wide, high] = sheet!.at['viewBox']!.split(' ').map(Number);
    // 104 × 84 of paper, and 6 mm round it.
    expect([wide, high]).toEqual([expect.closeTo(116, 6), expect.closeTo(96, 6)]);
    expect([sheet!.at['width'], sheet!.at['height']].map((size) => Number.parseFloat(size!))).toEqual([wide, high]);
    expect(sheet!.at['width']).toMatch(/mm$/u);
    // Round the corner at 0, 0 against the clock: from the left edge to the lower one, bulging outwards.
    expect(flatPath(drawing.outlines[0]!)).toContain('A12');
    expect(flatPath([{ x: 0, y: 0, bulge: 1 }, { x: 10, y: 0 }])).toBe('M0,0A5,5 0 0 0 10,0L0,0Z'); // prettier-ignore
    expect(boxOf({ kind: 'flat', outlines: [], holes: [{ x: 5, y: 5, d: 2 }] }, 1)).toEqual({ x: 3, y: -7, wide: 4, high: 4 });
  });

  test('another program reads its DXF: closed outlines with their arcs, holes, millimetres', () => {
    const read = new DxfParser().parseSync(flatDxf(drawing))!;
    expect(read.header['$INSUNITS']).toBe(4);
    const entities = read.entities as unknown as readonly {
      type: string;
      shape?: boolean;
      radius?: number;
      center?: { x: number; y: number };
      vertices?: readonly { x: number; y: number; bulge?: number }[];
    }[];
    const circles = entities.filter(({ type }) => type === 'CIRCLE');
    expect(circles.map(({ radius, center }) => [center!.x, center!.y, radius])).toEqual(
      drawing.holes.map(({ x, y, d }) => [expect.closeTo(x, 6), expect.closeTo(y, 6), expect.closeTo(d / 2, 6)]),
    );
    const lines = entities.filter(({ type }) => type === 'LWPOLYLINE');
    expect(lines.map(({ shape }) => shape)).toEqual([true, true]);
    expect(lines[0]!.vertices!.map(({ x, y, bulge = 0 }) => [x, y, bulge])).toEqual(
      drawing.outlines[0]!.map(({ x, y, bulge = 0 }) => [expect.closeTo(x, 6), expect.closeTo(y, 6), expect.closeTo(bulge, 6)]),
    );
  });
});

test('marks on a shaft stand as far apart as they are set, in millimetres', () => {
  const tags = drawn(Marks, { name: 'Set', shaft: 35, marks: [{ name: 'neutral', at: 120 }, { name: 'set', at: 141 }], isTrue: true }); // prettier-ignore
  const at = named(tags, 'path').flatMap(({ at: { d } }) => /^M([\d.]+),0V35$/u.exec(d!)?.[1] ?? []);
  expect(at.map(Number)).toEqual([120, 141]);
  const [sheet] = named(tags, 'svg');
  expect(Number.parseFloat(sheet!.at['width']!)).toBeCloseTo(Number(sheet!.at['viewBox']!.split(' ')[2]), 6);
});

test('every lip of a stack opens to its pressure', () => {
  const rings = [{ name: 'lip', shape: 'lip', opens: 'left' }, { name: 'lip', shape: 'lip', opens: 'right' }, { name: 'guide', shape: 'guide', gapAt: 120 }] as const; // prettier-ignore
  const tags = drawn(Stack, { name: 'Rings', rings });
  const [left, right] = named(tags, 'path', 'fill', 'var(--steel-2)').map(({ at: { d } }) =>
    [...d!.matchAll(/[ML]([\d.]+),/gu)].map(([, x]) => Number(x)),
  );
  // The notch lies behind the mouth, on the side away from where it opens.
  expect(left!.at(-1)!).toBeGreaterThan(left![0]!);
  expect(right!.at(-1)!).toBeLessThan(right![0]!);
  expect(named(tags, 'text').map(({ text }) => text)).toEqual(['pressure', '1', '2', '3', '120°']);
});
