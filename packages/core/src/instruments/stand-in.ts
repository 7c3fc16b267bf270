import { normal, seeded } from '../math/random.js';
import { pullCurve, type Fastener } from '../torque/watch.js';
import { baseUnit, fromBase, unitsOf, type Quantity, type Unit } from '../quantity/units.js';

/** What can be wrong with an instrument. */
export const FAULTS = ['flat battery', 'other unit', 'wrong quantity', 'knocked', 'sticks'] as const;
export type Fault = (typeof FAULTS)[number];

/** How an instrument of a kind behaves. Sizes in base units of its quantity. */
export interface StandInModel {
  readonly quantity: Quantity;
  /** Unit symbol in which it sends. */
  readonly unit: string;
  readonly low: number;
  readonly high: number;
  readonly resolution: number;
  /** Standard deviation of a single reading. */
  readonly noise: number;
  /** Spread of the walk of its zero in an hour. */
  readonly driftPerHour: number;
  /** Width within which it does not follow: friction of a plunger, of a balance. */
  readonly stick: number;
  /** A click wrench: it has no figure, it lets go. */
  readonly clicks: boolean;
}

/** A line as the instrument sends it. */
export interface StandInLine {
  readonly n: number;
  readonly value?: number;
  readonly unit: string;
  readonly taken?: boolean;
  readonly angle?: number;
  readonly battery?: 'ok' | 'low';
}

/** A pull at a fastener: snug, then torque over angle along a straight line, as far as the hand goes. */
export interface Pull {
  /** N·m at which it is snug, and N·m for each degree after that. */
  readonly snug: number;
  readonly stiffness: number;
  /** N·m that are wanted; the hand stops some way over it. */
  readonly wanted: number;
  /** What the wrench meets; a good fastener where it is not said. */
  readonly fastener?: Fastener;
}

interface KindOfTool {
  readonly kind: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly low: number;
  readonly high: number;
  readonly resolution: number;
  /** Spread of single readings. */
  readonly s: number;
}

/** What the key for the unit changes to. */
const OTHER_UNIT: Partial<Record<Quantity, string>> = { length: 'in', torque: 'lbf·ft', force: 'lbf', mass: 'lb' };

const HOUR_S = 3600;
/** A zero is out by that many of its least steps once the instrument was dropped. */
const KNOCK_STEPS = 25;
const STICK_WORN = 8;
const LINES_A_PULL = 12;
/** How far over the wanted torque a hand goes, and how that scatters (shares of it). */
const OVERSHOOT = 0.015;
const OVERSHOOT_SPREAD = 0.01;
/** Friction of what slides or hangs, in least steps of the instrument: common practice. */
const STICK_STEPS: Readonly<Record<string, number>> = { 'dial-indicator': 1, 'spring-balance': 1, calliper: 0, scale: 0 };

/** The stand-in for a tool of the crib: its own resolution, range and spread, and how its kind behaves. */
export function standInFor({ kind, quantity, unit, low, high, resolution, s }: KindOfTool, isClick: boolean): StandInModel {
  return {
    quantity,
    unit,
    low,
    high,
    resolution,
    noise: s,
    driftPerHour: resolution,
    stick: (STICK_STEPS[kind] ?? 0) * resolution,
    clicks: isClick,
  };
}

/**
 * A simulated instrument. From one seed it sends the same lines again: noise, a zero that walks,
 * friction, resolution, range, and the faults that are on.
 */
export class StandIn {
  readonly #random: () => number;
  readonly #model: StandInModel;
  #n: number;
  #zero = 0;
  /** Where the plunger stands. */
  #shown: number | undefined;
  #last: StandInLine | undefined;

  /** `n` is the number of the last line that was sent before. */
  constructor(model: StandInModel, seed: number, n = 0) {
    this.#model = model;
    this.#random = seeded(seed);
    this.#n = n;
  }

  /**
   * Held to something of a true size (base units) some seconds after the last reading. A click
   * wrench has nothing to say until it is pulled.
   */
  read(truth: number, seconds: number, faults: readonly Fault[], taken: boolean): StandInLine {
    const { noise, driftPerHour, low, high, resolution } = this.#model;
    this.#zero += normal(this.#random, 0, driftPerHour * Math.sqrt(seconds / HOUR_S));
    // A flat battery freezes the display: what it sends is the reading of before.
    if (faults.includes('flat battery') && this.#last) return this.#send({ ...this.#last, taken, battery: 'low' });
    const knock = faults.includes('knocked') ? KNOCK_STEPS * resolution : 0;
    const met = this.#follow(normal(this.#random, truth, noise) + this.#zero + knock, faults);
    // A meter that finds its own range has no ends.
    const within = high > low ? Math.min(high, Math.max(low, met)) : met;
    return this.#send({ ...this.#figure(within, faults), taken });
  }

  /** A meter between two points that nothing joins: a line without a figure. */
  open(): StandInLine {
    return this.#send({ unit: this.#sentUnit([]).symbol, taken: true });
  }

  /** One pull of a wrench, from snug to over the wanted torque: its lines in order, the last one to be taken. */
  pull({ snug, stiffness, wanted, fastener = 'good' }: Pull, faults: readonly Fault[]): readonly StandInLine[] {
    const { noise, clicks } = this.#model;
    if (clicks) {
      // It lets go at its setting, or never when the spring sticks.
      if (faults.includes('sticks') || faults.includes('flat battery')) return [];
      return [this.#send({ unit: this.#sentUnit(faults).symbol, taken: true })];
    }
    const end = wanted * (1 + Math.max(0, normal(this.#random, OVERSHOOT, OVERSHOOT_SPREAD)));
    return pullCurve(fastener, snug, stiffness, end, LINES_A_PULL).map(({ torque, angle: turned }, at) => {
      const angle = Number(turned.toFixed(1));
      const isEnd = at === LINES_A_PULL - 1;
      const read = this.#figure(normal(this.#random, torque, isEnd ? noise : noise * 2), faults);
      return this.#send({ ...read, angle, ...(isEnd ? { taken: true } : {}) });
    });
  }

  /** The plunger follows only once it is pushed by more than its friction. */
  #follow(target: number, faults: readonly Fault[]): number {
    const stick = this.#model.stick * (faults.includes('sticks') ? STICK_WORN : 1);
    const before = this.#shown ?? target;
    const moved = Math.abs(target - before) <= stick ? before : target - Math.sign(target - before) * stick * 0.5;
    this.#shown = moved;
    return moved;
  }

  /** A size as its display shows it, in steps of its resolution. */
  #figure(base: number, faults: readonly Fault[]): Pick<StandInLine, 'value' | 'unit'> {
    const { resolution } = this.#model;
    const unit = this.#sentUnit(faults);
    const stepped = Math.round(base / resolution) * resolution;
    return { value: Number(fromBase(stepped, unit).toPrecision(9)), unit: unit.symbol };
  }

  /** The unit of its display: another one of its quantity when somebody pressed the key, none of it when its output is set up wrong. */
  #sentUnit(faults: readonly Fault[]): Unit {
    const { quantity, unit } = this.#model;
    if (faults.includes('wrong quantity')) return baseUnit(quantity === 'pressure' ? 'torque' : 'pressure');
    const wanted = faults.includes('other unit') ? (OTHER_UNIT[quantity] ?? unit) : unit;
    return unitsOf(quantity).find(({ symbol }) => symbol === wanted) ?? baseUnit(quantity);
  }

  #send(line: Omit<StandInLine, 'n'>): StandInLine {
    this.#n += 1;
    this.#last = { ...line, n: this.#n };
    return this.#last;
  }
}
