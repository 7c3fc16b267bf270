import { type Limit, limitQuantity, limitWindow } from '@jubb/sheet';
import { isGrid, worstPlace } from './measured.js';
import { readingFigure } from './working-for.js';
import { OPEN_OHM, dropZeros, formatQuantity, fromBase, unitBySymbol, type Quantity, type Window } from '@jubb/core';
import type { PayloadOf } from '../entries/kept.js';

/** A single reading with every digit that an instrument gives: one more than a bench shows of a result. */
export function readingText(base: number, quantity: Quantity, symbol?: string): string {
  if (quantity === 'resistance' && base >= OPEN_OHM) return 'OL';
  const unit = unitBySymbol(quantity, symbol);
  const figure = fromBase(base, unit);
  const small = figure === 0 ? 0 : 2 - Math.floor(Math.log10(Math.abs(figure)));
  return `${dropZeros(figure.toFixed(Math.max(unit.decimals + 1, Math.min(8, small))))} ${unit.symbol}`;
}

export function readingsText(readings: readonly number[], quantity: Quantity, symbol?: string): string {
  return readings.map((reading) => readingText(reading, quantity, symbol)).join(', ');
}

export interface ReadingLine {
  /** The figure that is judged, with its unit: "85.012 mm". */
  readonly figure: string;
  /** What it is of the readings: "largest of 6 places", "mean of 3"; empty for a single one. */
  readonly how: string;
}

type Found = Pick<PayloadOf<'reading'>, 'readings' | 'warm' | 'bracket'>;

/** What was found of a limit, the one way it is written wherever it stands: the figure that was judged, and what it is. */
export function readingLine(limit: Limit, found: Found): ReadingLine {
  const quantity = limitQuantity(limit);
  const figure = formatQuantity(readingFigure(limit, found), quantity, undefined, limitWindow(limit));
  return { figure, how: [howOf(limit, found), warmWords(found)].filter(Boolean).join('; ') };
}

function howOf(limit: Limit, { readings, bracket }: Found): string {
  if (bracket) return 'between two settings of a click wrench';
  const many = readings.length;
  if (many < 2) return '';
  if (!isGrid(limit, readings)) return `mean of ${many}`;
  if (limit.grid?.of === 'span') return `largest less smallest of ${many} places`;
  return `${worstPlace(readings, limitWindow(limit)) === Math.max(...readings) ? 'largest' : 'smallest'} of ${many} places`;
}

function warmWords({ warm }: Found): string {
  return warm ? `at 20 °C, read at ${formatQuantity(warm.partT, 'temperature')}` : '';
}

/** Depths of a seal round its ring: all of them count. */
export function depthsText(depths: readonly number[], window: Window = {}): string {
  const write = (depth: number): string => formatQuantity(depth, 'length', undefined, window);
  const [least, most] = [Math.min(...depths), Math.max(...depths)];
  return least === most ? write(least) : `${write(least)} to ${write(most)}`;
}
