import type { Quantity } from '@jubb/core';
import type { Tool } from '../entry/kept.js';

/** What a tool is to read or pull: of which quantity, and about how much, in base units. */
export interface ToolSize {
  readonly quantity: Quantity;
  readonly base: number;
}

/** What a kind reads beyond its own quantity: a meter is switched over. */
const ALSO: Readonly<Record<string, readonly Quantity[]>> = { multimeter: ['voltage', 'resistance', 'current'] };

/** All quantities that a tool reads. */
export function quantitiesOf({ kind, quantity }: Pick<Tool, 'kind' | 'quantity'>): readonly Quantity[] {
  return ALSO[kind] ?? [quantity];
}

/** Why a tool will not do, or nothing. A tool whose ends are the same has no range to keep to. `today` is like 2026-11-25. */
export function toolRefusal(tool: Tool, size: ToolSize | undefined, today: string): string | undefined {
  if (tool.calibrationDue !== null && tool.calibrationDue < today) return `check was due ${tool.calibrationDue}`;
  if (size === undefined || tool.high <= tool.low) return undefined;
  if (tool.quantity !== size.quantity) return `reads a ${tool.quantity}`;
  return size.base < tool.low || size.base > tool.high ? `reads ${tool.low} to ${tool.high} only` : undefined;
}
