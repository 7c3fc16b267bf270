import { describe, expect, test } from '@jest/globals';
import { seeded } from '../math/random.js';
import { output } from '../working/run.test-kit.js';
import { PRACTICE_AXLE, PracticeAxle } from './axle.js';
import { PRACTICE_HUB, PracticeHub } from './hub.js';
import { PRACTICE_SHAFT, PracticeShaft } from './shaft.js';

const SEAT_NM = 50;
const BACK_DEGREES = 90;
const HUBS = 400;
const mean = (read: () => number): number => [read(), read(), read()].reduce((sum, one) => sum + one, 0) / 3;
const isIn = (figure: number, { from, to }: { from: number; to: number }): boolean => figure >= from && figure <= to;

/** Seat, back off, read, turn to the slot that the working names, lock, read again: how many tries until it is in. */
function guided(seed: number): { readonly tries: number; readonly error: number } {
  const hub = new PracticeHub(seed);
  const { pitch, slots, openings, window } = PRACTICE_HUB;
  hub.seat(SEAT_NM);
  hub.turn(-BACK_DEGREES);
  let lockShift = 0;
  for (let tries = 1; tries <= 10; tries += 1) {
    const playNow = Math.max(
      0.001,
      mean(() => hub.read()),
    );
    const { angle, play } = output('bearing.nut', { playNow, ...window, pitch, slots, openings, lockShift }) as {
      angle: number;
      play: number;
    };
    hub.turn(angle);
    hub.lock();
    const locked = mean(() => hub.read());
    if (isIn(hub.truth, window)) return { tries, error: Math.abs(hub.truth - (window.from + window.to) / 2) };
    lockShift = Math.max(0, Math.min(0.05, lockShift + play - locked));
    hub.turn(0);
  }
  return { tries: 10, error: 1 };
}

/** By feel: snug, back by what is usual, a slot tighter when it rocks and looser when it drags; the hand feels a tenth of a millimetre. */
function byFeel(seed: number): { readonly tries: number } {
  const hub = new PracticeHub(seed);
  const random = seeded(seed * 7 + 1);
  const slot = 30;
  hub.turn(60 + 60 * random());
  for (let tries = 1; tries <= 10; tries += 1) {
    hub.lock();
    if (isIn(hub.truth, PRACTICE_HUB.window)) return { tries };
    const felt = hub.truth + 0.1 * (random() - 0.5);
    hub.turn(felt > 0.08 ? slot : -slot);
  }
  return { tries: 10 };
}

describe('the hub', () => {
  const runs = Array.from({ length: HUBS }, (_, index) => guided(index + 1));

  test('guided, 95 of 100 are in at the second try or sooner, all by the third', () => {
    const within = (most: number): number => runs.filter(({ tries }) => tries <= most).length / HUBS;
    expect(within(2)).toBeGreaterThanOrEqual(0.95);
    expect(within(3)).toBe(1);
  });

  test('by feel it takes longer, and some never get there', () => {
    const felt = Array.from({ length: HUBS }, (_, index) => byFeel(index + 1));
    const total = (all: readonly { tries: number }[]): number => all.reduce((sum, { tries }) => sum + tries, 0);
    expect(total(felt)).toBeGreaterThan(1.5 * total(runs));
  });

  test('is the same from the same seed, and a seated hub has no play to read', () => {
    const [one, other] = [new PracticeHub(7), new PracticeHub(7)];
    expect([one.read(), one.read()]).toEqual([other.read(), other.read()]);
    one.seat(SEAT_NM);
    expect(one.truth).toBe(0);
  });
});

describe('the axle', () => {
  test('guided, the sleeve ends inside the window without a new one, in 97 of 100', () => {
    let good = 0;
    for (let seed = 1; seed <= HUBS; seed += 1) {
      const axle = new PracticeAxle(seed);
      const readings = [{ angle: 0, torque: axle.read() }];
      for (let steps = 0; steps < 60; steps += 1) {
        const { state, step } = output('bearing.crush-sleeve', { readings, ...PRACTICE_AXLE.window }) as { state: string; step: number };
        if (state !== 'on') break;
        axle.turn(step);
        readings.push({ angle: axle.angle, torque: axle.read() });
      }
      if (isIn(axle.truth, { from: PRACTICE_AXLE.window.from - 0.1, to: PRACTICE_AXLE.window.to })) good += 1;
    }
    expect(good / HUBS).toBeGreaterThanOrEqual(0.97);
  });

  test('a nut that is backed off is loose, and stays so until a new sleeve', () => {
    const axle = new PracticeAxle(3);
    axle.turn(150);
    axle.turn(-20);
    expect(axle.truth).toBeLessThan(0.1);
    axle.renew();
    axle.turn(150);
    expect(axle.truth).toBeGreaterThan(0.1);
  });
});

describe('the shaft', () => {
  const shelf = [0.05, 0.1, 0.15, 0.2, 0.3, 0.5, 1].map((thickness) => ({ thickness, count: 6 }));
  test('guided, in by the second pack in 95 of 100, all by the third', () => {
    const tries = Array.from({ length: HUBS }, (_, index) => {
      const shaft = new PracticeShaft(index + 1);
      for (let at = 1; at <= 5; at += 1) {
        const measured = mean(() => shaft.read());
        const { thickness } = output('bearing.shim', { measured, trial: shaft.pack, ...PRACTICE_SHAFT.window, shelf }) as {
          thickness: number;
        };
        shaft.fit(thickness);
        if (isIn(shaft.truth, PRACTICE_SHAFT.window)) return at;
      }
      return 5;
    });
    expect(tries.filter((at) => at <= 2).length / HUBS).toBeGreaterThanOrEqual(0.95);
    expect(Math.max(...tries)).toBeLessThanOrEqual(3);
  });
});
