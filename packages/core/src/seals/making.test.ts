import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { output, refused } from '../working/run.test-kit.js';
import { workings } from '../workings.js';
import { areaOf, drawIn, hull, perimeter, roundOff, type Corner } from './outline.js';
import { RING_SIZES } from './ring-sizes.js';
import { thinned } from './ring.js';
import { shelfLife } from './shelf-life.js';

const figure = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });
const POINTS = fc.uniqueArray(fc.record({ x: fc.integer({ min: -40, max: 40 }), y: fc.integer({ min: -40, max: 40 }) }), {
  minLength: 3,
  maxLength: 14,
  selector: ({ x, y }) => `${x} ${y}`,
});

/** A closed line with its arcs cut into short pieces. */
function pieces(line: readonly Corner[]): readonly { x: number; y: number }[] {
  return line.flatMap((from, at) => {
    const to = line[(at + 1) % line.length]!;
    const { bulge = 0 } = from;
    if (bulge === 0) return [from];
    const angle = 4 * Math.atan(bulge);
    const chord = Math.hypot(to.x - from.x, to.y - from.y);
    const radius = chord / 2 / Math.sin(angle / 2);
    const away = radius * Math.cos(angle / 2);
    const middle = {
      x: (from.x + to.x) / 2 - (away * (to.y - from.y)) / chord,
      y: (from.y + to.y) / 2 + (away * (to.x - from.x)) / chord,
    };
    const start = Math.atan2(from.y - middle.y, from.x - middle.x);
    return Array.from({ length: 60 }, (_, step) => ({
      x: middle.x + radius * Math.cos(start + (angle * step) / 60),
      y: middle.y + radius * Math.sin(start + (angle * step) / 60),
    }));
  });
}

describe('an outline round holes', () => {
  test('lies at its margin from the nearest hole, everywhere, and covers what Steiner says', () => {
    fc.assert(
      fc.property(POINTS, figure(3, 15), (points, margin) => {
        const round = hull(points);
        fc.pre(round.length > 2);
        const line = pieces(roundOff(round, margin));
        const steiner = areaOf(round) + perimeter(round) * margin + Math.PI * margin ** 2;
        expect(areaOf(line) / steiner).toBeCloseTo(1, 3);
        const nearest = line.map((at) => Math.min(...points.map((point) => Math.hypot(at.x - point.x, at.y - point.y))));
        expect(Math.min(...nearest)).toBeGreaterThan(margin - 1e-6);
      }),
    );
  });

  test('drawn in it keeps its distance from every side, and is gone where nothing is left', () => {
    const square = [{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 10 }, { x: 0, y: 10 }]; // prettier-ignore
    expect(areaOf(drawIn(square, 2)!)).toBeCloseTo(36, 9);
    expect(drawIn(square, 5.1)).toBeUndefined();
  });
});

describe('a gasket to cut', () => {
  const holes = [
    { a: 0, b: 80, d: 8.4 },
    { a: 80, b: 0, d: 8.4 },
    { a: 100, b: 60, d: 8.4 },
    { a: 60, b: 100, d: 8.4 },
  ];

  test('the example by hand: 104 × 84, and what is pressed', () => {
    const made = output('gasket.make', { holes, margin: 12, land: 12 });
    expect(made).toMatchObject({ wide: expect.closeTo(104, 9), high: expect.closeTo(84, 9) });
    // 80 · 60 with 12 round it, less the opening 56 · 36 and four holes.
    const outside = 80 * 60 + 280 * 12 + Math.PI * 144;
    expect(made['presses']).toBe(Math.round(outside - 56 * 36 - 4 * (Math.PI / 4) * 8.4 ** 2));
    const check = made['check'] as { from: number; to: number; apart: number; over: number }[];
    expect(check.at(-1)).toMatchObject({ apart: expect.closeTo(100, 9), over: expect.closeTo(108.4, 9) });
  });

  test('two distances a hole place it as its coordinates do', () => {
    fc.assert(
      fc.property(POINTS, (points) => {
        fc.pre(hull(points).length > 2);
        const [first, second] = [points[0]!, points[1]!];
        const by = (one: { x: number; y: number }, other: { x: number; y: number }): number => Math.hypot(one.x - other.x, one.y - other.y);
        const below = (point: { x: number; y: number }): boolean =>
          (second.x - first.x) * (point.y - first.y) - (second.y - first.y) * (point.x - first.x) < 0;
        const rows = points.map((point) => ({ a: by(point, first), b: by(point, second) * (below(point) ? -1 : 1), d: 0.4 }));
        const given = { margin: 8, opening: 'none' };
        const measured = output('gasket.make', { ...given, holes: rows });
        const placed = output('gasket.make', { ...given, how: 'coordinates', holes: points.map(({ x, y }) => ({ a: x, b: y, d: 0.4 })) });
        expect(Math.abs(Number(measured['presses']) - Number(placed['presses']))).toBeLessThan(2);
      }),
    );
  });

  test('what cannot be cut says what would be right', () => {
    const given = { holes, margin: 12, land: 12 };
    expect(refused('gasket.make', { ...given, margin: 6 })).toContain('narrower tears');
    expect(refused('gasket.make', { ...given, holes: [...holes, { a: 40, b: 40, d: 8.4 }], land: 6 })).toContain('narrower tears');
    expect(refused('gasket.make', { ...given, land: 40 })).toContain('nothing would be left open');
    expect(refused('gasket.make', { ...given, opening: 'round', diameter: 95 })).toContain('too near to a hole');
    expect(output('gasket.make', { ...given, opening: 'round', diameter: 60 })['narrowest']).toBeCloseTo(7.55, 6);
    expect(refused('gasket.make', { ...given, holes: [...holes, { a: 30, b: 30, d: 8.4 }] })).toContain('the two do not meet');
    expect(refused('gasket.make', { ...given, holes: [...holes, { a: 100.1, b: 60, d: 8.4 }] })).toContain('it lies on hole 3');
    expect(refused('gasket.make', { ...given, holes: holes.map(({ a, d }) => ({ a, b: 0, d })), how: 'coordinates' })).toContain('hole');
  });
});

describe('a bead round holes', () => {
  test('by hand: 280 mm round, less what four rings take of it, and the rings', () => {
    const holes = [{ a: 0, b: 0, d: 8 }, { a: 80, b: 0, d: 8 }, { a: 80, b: 60, d: 8 }, { a: 0, b: 60, d: 8 }]; // prettier-ignore
    const given = { by: 'holes', how: 'coordinates', bead: 2, skin: '10 min', screws: 4 };
    const ring = 8 + 2 * 1.5 + 2;
    expect(output('seal.sealant', { ...given, holes })['laid']).toBeCloseTo(280 - 4 * ring + 4 * Math.PI * ring, 9);
    // One on the line between two others is met too, one inside is not.
    const more = [...holes, { a: 40, b: 0, d: 8 }, { a: 40, b: 30, d: 8 }];
    expect(output('seal.sealant', { ...given, holes: more })['laid']).toBeCloseTo(280 - 5 * ring + 6 * Math.PI * ring, 9);
    const run = workings.run('seal.sealant', { ...given, holes });
    expect(run?.ok && run.run.drawing).toMatchObject({ kind: 'flat', along: { wide: 2 } });
    expect(refused('seal.sealant', { by: 'thread', skin: '10 min', screws: 4 })).toContain('Path of the bead');
  });

  test('how many are laid ready', () => {
    const given = { path: 6000, bead: 4, skin: '20 min', screws: 8 };
    // π/4 · 16 · 6000 = 75.4 mL, with waste 86.7 mL.
    expect(output('seal.sealant', { ...given, cartridge: '30 mL', full: '50 mL' })['more']).toBe(2);
    expect(output('seal.sealant', { ...given, full: '50 mL' })['more']).toBe(2);
    expect(output('seal.sealant', given)['more']).toBeUndefined();
  });
});

describe('which ring it was', () => {
  const sizes = fc.constantFrom(...RING_SIZES.filter(({ inside, section }) => inside > 8 && inside < 200 && section > 1.5));

  test('a sound one is found as itself, a flattened one keeps its area', () => {
    fc.assert(
      fc.property(sizes, figure(0.66, 0.95), ({ inside, section }, flat) => {
        const sound = output('oring.pick', { from: 'old', inside, thick: section });
        expect(Math.abs(Number(sound['section']) - section)).toBeLessThan(0.1);
        const thick = section * flat;
        const found = output('oring.pick', { from: 'old', inside: inside * 1.01, thick, wide: section ** 2 / thick, state: 'flat' })[
          'each'
        ] as {
          inside: number;
          section: number;
        }[];
        expect(found.some((one) => Math.abs(one.inside - inside) < 1e-9 && Math.abs(one.section - section) < 1e-9)).toBe(true);
      }),
    );
  });

  test('a swollen one has grown alike in every direction; what it must have become of is said', () => {
    const by = 1.2 ** (1 / 3);
    const found = output('oring.pick', { from: 'old', inside: 25 * by, thick: 3.55 * by, state: 'swollen' });
    const each = found['each'] as { name: string; old: string }[];
    expect(each.find(({ name }) => name === 'ISO 3601 25 × 3.55')!.old).toBe('grown by 20 %, inside as new');
    expect(refused('oring.pick', { from: 'old', inside: 25, thick: 2, wide: 6 })).toContain('no round ring');
    expect(refused('oring.pick', { from: 'old', inside: 25, thick: 2, wide: 1 })).toContain('the thin way');
    expect(refused('oring.pick', { from: 'old', inside: 700, thick: 2 })).toContain('the nearest is');
  });

  test('the shelf comes first among those that fit alike', () => {
    const shelf = [{ name: 'box 4', inside: 20, section: 2.65 }];
    expect(output('oring.pick', { from: 'old', inside: 20, thick: 2.65, shelf })['which']).toBe('box 4');
  });

  test('one that was tried tells the bottom of a groove that no gauge reaches', () => {
    fc.assert(
      fc.property(figure(0.001, 0.1), fc.constantFrom(1.8, 2.65, 3.55, 5.3), figure(18, 100), (stretch, thick, inside) => {
        const bottom = inside * (1 + stretch);
        const over = bottom + 2 * thick * (1 - thinned(stretch));
        const mate = bottom + 2 * 2.16;
        const result = workings.run('oring.pick', { from: 'tried', inside, thick, over, mate, width: 3.6 });
        fc.pre(result?.ok === true);
        expect(result?.ok && result.run.output['bottom']).toBeCloseTo(bottom, 5);
      }),
    );
    const tried = { from: 'tried', inside: 20, thick: 2, over: 24.7, mate: 25, width: 3.6 };
    const made = output('oring.pick', tried);
    expect(made['tried']).toContain('too thin');
    expect(made['section']).toBeCloseTo(2.62, 2);
    expect(refused('oring.pick', { ...tried, mate: 20 })).toContain('a bore is larger');
    expect(refused('oring.pick', { ...tried, over: 40 })).toContain('stretched by more than');
    expect(refused('oring.pick', { ...tried, gland: 'face-inside', depth: 2 })).toContain('a groove in a face is measured');
    const rod = output('oring.pick', { from: 'tried', gland: 'rod', inside: 20, thick: 2.65, over: 19, mate: 20, width: 3.6 });
    expect(rod['bottom']).toBeCloseTo(19 + 5.3, 9);
  });
});

describe('a ring by all that is known', () => {
  type Row = Readonly<Record<string, string | number | boolean | undefined>>;
  const each = (input: object): readonly Row[] => output('oring.pick', input)['each'] as readonly Row[];
  const groove = { inner: 20.8, outer: 25, width: 3.6, loose: 0.03 };

  test('the groove decides, the old one breaks the tie: of those that fit it comes first, and one that will not do says so', () => {
    const sound = { ...groove, inside: 20.4, thick: 2.62, state: 'sound' };
    expect(output('oring.pick', sound)['tried']).toContain('can have been');
    expect(each(sound)[0]).toMatchObject({ so: 'in', old: expect.any(String) });
    // It was thinner than the groove wants: said, and not taken.
    const thin = output('oring.pick', { ...groove, inside: 20.22, thick: 1.78 });
    expect(thin['section']).toBeGreaterThan(2.3);
    expect(thin['tried']).toContain('was none of those that fit');
    const near = output('oring.pick', { ...groove, inside: 20, thick: 2.2 });
    expect(near['tried']).toMatch(/was .* by its measures, which will not do here: too thin|was none of those/u);
    expect(refused('oring.pick', { ...groove, inside: 20 })).toContain('is missing');
    expect(refused('oring.pick', { from: 'old' })).toContain('is missing');
  });

  test('of shaft and bore alone, each ring says the groove that it wants: so wide, it fits by the check of a groove', () => {
    fc.assert(
      fc.property(figure(10, 120), fc.constantFrom(1.4, 2.1, 2.9, 4.4), fc.constantFrom('piston', 'rod'), (inner, height, gland) => {
        const given = { gland, inner, outer: inner + 2 * height, loose: 0.03 } as const;
        const between = workings.run('oring.pick', { ...given, from: 'between' });
        fc.pre(between?.ok === true);
        const { inside, section, wants, fill } = (between as { run: { output: Record<string, number> } }).run.output;
        expect(fill).toBeUndefined();
        const at = output('oring.check', { ...given, inside, section, width: wants });
        expect(at['verdict']).not.toBe('out');
        expect(at['fillMost']).toBeLessThanOrEqual(1);
        // A groove clearly narrower than that is too full.
        const narrow = workings.run('oring.check', { ...given, inside, section, width: Number(wants) * 0.88 });
        expect(narrow?.ok === true && narrow.run.output['verdict'] === 'in').toBe(false);
        for (const row of each({ ...given, from: 'between' }).filter(({ so }) => so !== 'out')) expect(row['why']).toContain('wide');
      }),
      { numRuns: 40 },
    );
  });

  test('what slides says the first push, as `oring.drag` has it; what lies still says none', () => {
    const moving = { ...groove, motion: 'moving', pressure: '2 MPa', shore: 80 } as const;
    const { inside, section, squeeze, stretch, drag } = output('oring.pick', moving) as Record<string, number>;
    const left = Number(output('oring.check', { ...groove, motion: 'moving', inside, section })['left']);
    expect(left).toBeCloseTo(section! * (1 - thinned(stretch!)), 9);
    const by = output('oring.drag', { diameter: 25, section: left, squeeze, shore: 80, pressure: '2 MPa' });
    expect(drag).toBeCloseTo(Number(by['restMost']), 6);
    expect(output('oring.pick', groove)['drag']).toBeUndefined();
  });

  test('what was kept under the earlier name is read still', () => {
    const found = workings.run('oring.find', { from: 'old', inside: 20.9, thick: 2.3, wide: 3.2, state: 'flat', shelf: [] });
    expect(found?.ok === true && found.run.output).toMatchObject({ inside: 20, section: 2.65 });
  });
});

describe('rings of a cylinder', () => {
  const given = { diameter: 50, lips: 3, seal: 'chevrons', guides: 2 };
  const names = (input: object): readonly string[] =>
    (output('seal.chevron', input)['order'] as { name: string }[]).map(({ name }) => name);

  test('lie from the pressure outwards: spreader, lips, support, scraper outermost', () => {
    expect(names(given)).toEqual(['guide ring', 'spreader', 'lip 1', 'lip 2', 'lip 3', 'support', 'guide ring', 'scraper']);
    const twice = names({ ...given, where: 'piston', from: 'both', lips: 2 });
    // Under pressure from both sides it is the same from either end.
    expect(twice.map((name) => name.replace(/\d/u, ''))).toEqual(twice.toReversed().map((name) => name.replace(/\d/u, '')));
    const run = workings.run('seal.chevron', { ...given, where: 'piston', from: 'both' });
    const drawing = run?.ok ? run.run.drawing : undefined;
    const rings = drawing?.kind === 'stack' ? drawing.rings : [];
    const lips = rings.flatMap(({ shape, opens }) => (shape === 'lip' ? [opens] : []));
    expect(lips).toEqual(['left', 'left', 'left', 'right', 'right', 'right']);
  });

  test('the strip by hand: its middle, less what it grows and half a millimetre; gaps staggered', () => {
    const made = output('seal.chevron', { ...given, strip: 2.5, hottest: 100 });
    const round = Math.PI * 52.5;
    expect(made['gap']).toBeCloseTo(round * 1e-4 * 80 + 0.5, 9);
    expect(made['cut']).toBeCloseTo(round - Number(made['gap']), 9);
    expect(Number(output('seal.chevron', { ...given, where: 'piston', strip: 2.5 })['cut'])).toBeLessThan(Math.PI * 47.5);
    const gaps = (output('seal.chevron', { ...given, guides: 3 })['order'] as { gap: string }[]).map(({ gap }) => gap).filter(Boolean);
    expect(gaps).toEqual(['0°', '120°', '240°']);
  });

  test('a set that is too loose or too tight says what room is right; what is not known is not judged', () => {
    const pressed = (room: number): Record<string, unknown> => output('seal.chevron', { ...given, high: 35, room });
    expect([34.9, 34, 32].map((room) => pressed(room)['verdict'])).toEqual(['out', 'in', 'out']);
    expect(pressed(34.9)['so']).toContain('32.9 mm to 34.3 mm');
    expect(output('seal.chevron', given)['verdict']).toBe('unsure');
    expect(refused('seal.chevron', { ...given, from: 'both' })).toContain('the weather on the other');
    expect(refused('seal.chevron', { ...given, seal: 'u-cup' })).toContain('only chevrons');
  });
});

describe('a seal in its bore', () => {
  test.each([
    // ISO 6194-1, press-fit allowance of metal cases, mm; bore H8 by ISO 286. From memory.
    [40, 0.1, 0.2, 0.039],
    [62, 0.13, 0.23, 0.046],
    [100, 0.15, 0.25, 0.054],
    [150, 0.18, 0.28, 0.063],
    [250, 0.2, 0.3, 0.072],
  ])('%f: %f to %f larger than a bore H8', (nominal, low, high, h8) => {
    const given = { nominal, width: 10, bore: nominal };
    const made = output('seal.press', { ...given, seal: nominal + (low + high) / 2 });
    expect(made).toMatchObject({ verdict: 'in', most: high, least: expect.closeTo(low - h8, 6) });
    expect(output('seal.press', { ...given, seal: nominal + high + 0.01 })['so']).toContain('its case folds');
    expect(output('seal.press', { ...given, seal: nominal + low - h8 - 0.01 })['verdict']).toBe('out');
  });

  test('force by hand below the yield of its sheet, and no more beyond; rubber is not worked out', () => {
    const force = (seal: number): number => Number(output('seal.press', { nominal: 62, seal, bore: 62, width: 8 })['force']);
    // µ · π·D·b · 2·t·E·δ/D², with 0.12, 62, 8, 1, 206 000 and 0.05.
    expect(force(62.05)).toBeCloseTo((0.12 * Math.PI * 62 * 8 * 2 * 206_000 * 0.05) / 62 ** 2, 6);
    expect(force(62.2)).toBeCloseTo(force(62.15), 9);
    expect(output('seal.press', { outsideOf: 'rubber', nominal: 62, bore: 62, width: 8 })['force']).toBeUndefined();
    expect(refused('seal.press', { nominal: 62, bore: 65, width: 8 })).toContain('within 1.5 mm');
  });
});

describe('a lip off its shaft', () => {
  const given = { shaft: 40, speed: 1000 };
  const row = (input: object, of: string): { verdict: string; why: string } =>
    (output('seal.lip', { ...given, ...input })['each'] as { of: string; verdict: string; why: string }[]).find((one) => one.of === of)!;

  test('grips less when it is warm, and has to follow what runs out', () => {
    // By hand: 40 · (1 + 1.15e-5 · 70) − 38.6 · (1 + 1.8e-4 · 70) = 0.946
    expect(row({ free: 38.6 }, 'grip').why).toContain('1.4 mm smaller than the shaft cold, 0.946 mm');
    expect(row({ free: 38.6, runOut: 0.1, offset: 0.15 }, 'grip').verdict).toBe('in');
    expect(row({ free: 39.5, runOut: 0.1, offset: 0.15 }, 'grip').verdict).toBe('out');
    expect(row({ free: 40.2 }, 'grip').verdict).toBe('out');
  });

  test('lies no further beside the middle than the chart says, and its lips hold half a room of grease', () => {
    expect([0.19, 0.22].map((offset) => row({ offset }, 'beside the middle').verdict)).toEqual(['in', 'out']);
    // π · 44 · 5 · 4 / 2 = 1382 mm³
    expect(row({ dust: 'yes', between: 5, high: 4 }, 'grease').why).toContain('1.4 mL');
  });
});

describe('rubber that has lain', () => {
  test.each([
    // ISO 2230: first storage time and how much it is lengthened, years. From memory.
    ['PU', 5, 2],
    ['NBR', 7, 3],
    ['FKM', 10, 5],
    ['EPDM', 10, 5],
  ])('%s lies %f years, and %f more where it was looked at', (material, first, more) => {
    const verdict = (years: number, looked = 'no'): unknown => output('seal.shelf-life', { material, years, looked })['verdict'];
    expect([verdict(first), verdict(first + 0.1), verdict(first + 0.1, 'good'), verdict(first + more + 0.1, 'good')]).toEqual([
      'in',
      'unsure',
      'in',
      'out',
    ]);
    expect(verdict(1, 'bad')).toBe('out');
    expect(shelfLife(material)).toMatchObject({ first, more });
  });

  test('what is no rubber is not judged by it', () => {
    expect(refused('seal.shelf-life', { material: 'PTFE', years: 1 })).toContain('look at it');
    expect(shelfLife('cheese')).toBeUndefined();
  });
});

test('a face by light bands: half a wavelength each, three allowed up to 90 mm', () => {
  const verdict = (bands: number, across: number, more = {}): unknown => output('seal.light-bands', { bands, across, ...more })['verdict'];
  // Sodium D, 589.3 nm.
  expect(output('seal.light-bands', { bands: 10, across: 60, light: 'sodium' })['flatness']).toBeCloseTo(0.0029465, 5);
  expect([verdict(3, 90), verdict(3.1, 90), verdict(5, 91), verdict(8, 400), verdict(2, 60, { most: 1 })]).toEqual([
    'in',
    'out',
    'in',
    'in',
    'out',
  ]);
});

test('cord by hand, and where a joint is refused', () => {
  expect(output('oring.cord', { inner: 240, section: 4 })['cut']).toBeCloseTo((Math.PI * 244) / 1.01, 9);
  expect(refused('oring.cord', { inner: 240, section: 4, motion: 'moving' })).toContain('moulded ring');
  expect(refused('oring.cord', { inner: 240, section: 4, pressure: '2 MPa' })).toContain('moulded ring');
  expect(refused('oring.cord', { inner: 40, section: 4 })).toContain('bent open');
});
