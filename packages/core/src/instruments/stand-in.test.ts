import { describe, expect, test } from '@jest/globals';
import { findUnits, toBase, type Quantity } from '../quantity/units.js';
import { StandIn, standInFor, type Fault, type StandInLine } from './stand-in.js';

const CALLIPER = { kind: 'calliper', quantity: 'length' as const, unit: 'mm', low: 0, high: 150, resolution: 0.01, s: 0.01 };
const DIAL = { kind: 'dial-indicator', quantity: 'length' as const, unit: 'mm', low: 0, high: 10, resolution: 0.005, s: 0.003 };
const WRENCH = { kind: 'torque-wrench', quantity: 'torque' as const, unit: 'N·m', low: 10, high: 135, resolution: 0.1, s: 0.4 };

/** A line in base units of its quantity; fails on a unit of another. */
function base(line: StandInLine, quantity: Quantity): number {
  const unit = findUnits(line.unit).find((known) => known.quantity === quantity);
  if (!unit || line.value === undefined) throw new Error(`no ${quantity}: ${JSON.stringify(line)}`);
  return toBase(line.value, unit);
}

function readings(kind: typeof CALLIPER, seed: number, truth: number, count: number, faults: readonly Fault[] = []): StandInLine[] {
  const it = new StandIn(standInFor(kind, false), seed);
  return Array.from({ length: count }, () => it.read(truth, 1, faults, true));
}

describe('a simulated instrument', () => {
  test('sends the same lines again from the same seed, others from another, numbered without a gap', () => {
    expect(readings(CALLIPER, 5, 34.98, 20)).toEqual(readings(CALLIPER, 5, 34.98, 20));
    expect(readings(CALLIPER, 6, 34.98, 20)).not.toEqual(readings(CALLIPER, 5, 34.98, 20));
    expect(readings(CALLIPER, 5, 34.98, 20).map(({ n }) => n)).toEqual(Array.from({ length: 20 }, (_, at) => at + 1));
  });

  test('scatters about the truth by its spread, in steps of its resolution, within its range', () => {
    const sizes = readings(CALLIPER, 9, 34.985, 2000).map((line) => base(line, 'length'));
    const mean = sizes.reduce((sum, size) => sum + size, 0) / sizes.length;
    const spread = Math.sqrt(sizes.reduce((sum, size) => sum + (size - mean) ** 2, 0) / (sizes.length - 1));
    expect(Math.abs(mean - 34.985)).toBeLessThan(0.01);
    // Spread of readings and of the steps they are rounded to, together: s² + resolution²/12 (JCGM 100:2008, F.2.2.1).
    expect(spread).toBeGreaterThan(0.009);
    expect(spread).toBeLessThan(0.016);
    for (const size of sizes) expect(Math.abs(size * 100 - Math.round(size * 100))).toBeLessThan(1e-6);
    expect(base(readings(CALLIPER, 1, 400, 1)[0]!, 'length')).toBe(150);
  });

  test('a dial that sticks follows late; a sound one within a step or so', () => {
    const moved = (faults: readonly Fault[]): number => {
      const it = new StandIn(standInFor(DIAL, false), 3);
      it.read(1, 1, faults, false);
      return base(it.read(1.03, 1, faults, true), 'length');
    };
    expect(moved([])).toBeGreaterThan(1.015);
    expect(moved(['sticks'])).toBeLessThan(1.015);
  });

  test('its faults: frozen when flat, another unit of the same size, a unit of another quantity, a zero that is off', () => {
    const it = new StandIn(standInFor(CALLIPER, false), 2);
    const before = it.read(20, 1, [], true);
    const flat = it.read(60, 1, ['flat battery'], true);
    expect(flat).toMatchObject({ value: before.value, battery: 'low', n: before.n + 1 });
    expect(Math.abs(base(it.read(60, 1, ['other unit'], true), 'length') - 60)).toBeLessThan(0.05);
    expect(it.read(60, 1, ['other unit'], true).unit).toBe('in');
    expect(() => base(it.read(60, 1, ['wrong quantity'], true), 'length')).toThrow('no length');
    expect(base(it.read(60, 1, ['knocked'], true), 'length')).toBeGreaterThan(60.15);
  });

  test('a digital wrench’s pull climbs with the angle and ends a little over what is wanted', () => {
    const lines = new StandIn(standInFor(WRENCH, false), 4).pull({ snug: 10, stiffness: 2, wanted: 108 }, []);
    expect(lines.map(({ taken = false }) => taken)).toEqual([...Array.from({ length: lines.length - 1 }, () => false), true]);
    for (const [at, { angle = 0 }] of lines.entries()) expect(angle).toBeGreaterThan(lines[at - 1]?.angle ?? -1);
    const peak = base(lines.at(-1)!, 'torque');
    expect(peak).toBeGreaterThan(106);
    expect(peak).toBeLessThan(115);
    expect(lines.at(-1)?.angle).toBeCloseTo((peak - 10) / 2, -1);
  });

  test('a click wrench only clicks; one that sticks does not', () => {
    const click = new StandIn(standInFor(WRENCH, true), 8);
    expect(click.pull({ snug: 10, stiffness: 2, wanted: 108 }, [])).toEqual([{ n: 1, unit: 'N·m', taken: true }]);
    expect(click.pull({ snug: 10, stiffness: 2, wanted: 108 }, ['sticks'])).toEqual([]);
  });
});
