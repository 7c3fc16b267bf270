import { OPEN_OHM, baseUnit, fromBase, unitsOf, type Quantity, type Unit } from './units.js';

export interface Window {
  readonly from?: number | undefined;
  readonly to?: number | undefined;
}

export function unitBySymbol(quantity: Quantity, symbol: string | undefined): Unit {
  return unitsOf(quantity).find((unit) => unit.symbol === symbol) ?? baseUnit(quantity);
}

/**
 * Writes a figure with `decimals` digits, or with as many more as it takes so that rounding does
 * not carry it over, or onto, a limit it does not reach. 0.1274 beside a limit of 0.127 is never
 * written "0.127".
 */
export function roundWithin(figure: number, decimals: number, limits: Window = {}): string {
  const bounds = [limits.from, limits.to].filter((bound): bound is number => bound !== undefined);
  for (let digits = decimals; digits <= 12; digits += 1) {
    const written = figure.toFixed(digits);
    const rounded = Number(written);
    // A limit met within one part in 10^9 is met: the rest is the noise of binary fractions.
    const faithful = bounds.every((bound) => side(figure, bound) === side(rounded, bound));
    if (faithful) return written === `-${(0).toFixed(digits)}` ? (0).toFixed(digits) : written;
  }
  return String(figure);
}

function side(figure: number, bound: number): number {
  const difference = figure - bound;
  return Math.abs(difference) <= 1e-9 * Math.max(1e-3, Math.abs(bound)) ? 0 : Math.sign(difference);
}

/** Quantities whose small figures say as much as their large ones: 0.55 N·m is not 0.6. */
const BY_DIGITS: ReadonlySet<Quantity> = new Set<Quantity>([
  'torque',
  'force',
  'pressure',
  'mass',
  'unbalance',
  'resistance',
  'voltage',
  'current',
  'volume',
  'flow',
  'stiffness',
]);
/** Digits that count which every such figure keeps, and how many more than usual that may be. */
const DIGITS = 3;
const MOST_MORE = 3;

/** Digits after the point: those of the unit, as many more as a small figure needs, and those its window has. */
function decimalsOf(figure: number, unit: Unit, limits: Window): number {
  const { decimals, quantity } = unit;
  const size = Math.abs(figure);
  const own = !BY_DIGITS.has(quantity) || size === 0 ? decimals : DIGITS - 1 - Math.floor(Math.log10(size));
  const ends = [limits.from, limits.to].flatMap((bound) => (bound === undefined ? [] : [digitsAfter(bound)]));
  return Math.min(decimals + MOST_MORE, Math.max(decimals, own, ...ends));
}

/** Digits after the point that a bound is written with; one of a conversion has no end, and says nothing. */
function digitsAfter(bound: number): number {
  const written = String(Number(bound.toPrecision(10)));
  const after = /^-?\d+\.(\d+)$/u.exec(written)?.[1]?.length ?? 0;
  return after > 5 ? 0 : after;
}

/** A base value as a figure in a unit, without the unit's name. */
export function figureIn(base: number, unit: Unit, limits: Window = {}): string {
  const convert = (bound: number | undefined): number | undefined => (bound === undefined ? undefined : fromBase(bound, unit));
  const figure = fromBase(base, unit);
  const ends = { from: convert(limits.from), to: convert(limits.to) };
  return roundWithin(figure, decimalsOf(figure, unit, ends), ends);
}

/** Newtons from which a force is written in kN where nobody asked for a unit. */
const MUCH_N = 1000;

/** A base value with its unit, trailing zeros dropped: "0.125 mm", "108 N·m", "30°". */
export function formatQuantity(base: number, quantity: Quantity, symbol?: string, limits: Window = {}): string {
  if (quantity === 'resistance' && base >= OPEN_OHM) return 'OL';
  const unit = unitBySymbol(quantity, symbol ?? (quantity === 'force' && Math.abs(base) >= MUCH_N ? 'kN' : undefined));
  const figure = dropZeros(figureIn(base, unit, limits));
  if (unit.symbol === '') return figure;
  return unit.symbol === '°' ? `${figure}°` : `${figure} ${unit.symbol}`;
}

export function dropZeros(figure: string): string {
  return figure.includes('.') ? figure.replace(/\.?0+$/u, '') : figure;
}
