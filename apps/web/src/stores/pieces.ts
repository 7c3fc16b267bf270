import type { StockLine } from '@jubb/book';
import { dropZeros } from '@jubb/core';

/** "3", "2.5 L". */
export function pieces(quantity: number, { unit }: Pick<StockLine, 'unit'>): string {
  const figure = dropZeros(quantity.toFixed(3));
  return unit === 'piece' ? figure : `${figure} ${unit}`;
}
