import { readingText } from '@jubb/book';
import { dropZeros, figureIn, formatQuantity, unitBySymbol, type Quantity, type Window } from '@jubb/core';
import { useUnitChoice, type UnitChoice } from './prefs.ts';

const SYMBOLS: Partial<Record<Quantity, Readonly<Record<Exclude<UnitChoice, 'both'>, string>>>> = {
  length: { 'mm · N·m': 'mm', 'in · lbf·ft': 'in' },
  torque: { 'mm · N·m': 'N·m', 'in · lbf·ft': 'lbf·ft' },
};

export interface Shown {
  readonly figure: string;
  readonly unit: string;
  /** The same in the other unit, when both are wanted. */
  readonly other?: string;
}

export interface Units {
  /** The unit in which a bare figure is taken and shown. */
  symbol(quantity: Quantity): string;
  show(base: number, quantity: Quantity, limits?: Window): Shown;
  /** As one text. */
  text(base: number, quantity: Quantity, limits?: Window): string;
  /** A single reading, with every digit that an instrument gives. */
  reading(base: number, quantity: Quantity): string;
}

/** Figures in the units this device was set to. */
export function useUnits(): Units {
  const [choice] = useUnitChoice();
  const first = choice === 'both' ? 'mm · N·m' : choice;
  const symbol = (quantity: Quantity): string => SYMBOLS[quantity]?.[first] ?? unitBySymbol(quantity, undefined).symbol;
  const show = (base: number, quantity: Quantity, limits: Window = {}): Shown => {
    const unit = unitBySymbol(quantity, symbol(quantity));
    const figure = dropZeros(figureIn(base, unit, limits));
    const second = SYMBOLS[quantity]?.['in · lbf·ft'];
    return { figure, unit: unit.symbol, ...(choice === 'both' && second ? { other: formatQuantity(base, quantity, second, limits) } : {}) };
  };
  return {
    symbol,
    show,
    reading: (base, quantity) => readingText(base, quantity, symbol(quantity)),
    text: (base, quantity, limits) => {
      const { figure, unit, other } = show(base, quantity, limits);
      return `${figure}${unit === '°' ? '°' : ` ${unit}`}${other ? ` (${other})` : ''}`;
    },
  };
}
