import { baseUnit } from '@jubb/core';
import { LIMIT_QUANTITIES, TOOL_KINDS, type Tool } from '@jubb/sheet';

const FINE = 1e-6;
const WIDE = 1e9;

/** A crib where nothing is lacking: of every kind one that reads whatever is asked, as finely as it is asked. */
export const PERFECT_CRIB: readonly Tool[] = TOOL_KINDS.flatMap((kind) =>
  LIMIT_QUANTITIES.map((quantity): Tool => ({
    id: `${kind} ${quantity}`,
    tag: kind,
    name: kind,
    kind,
    quantity,
    unit: baseUnit(quantity).symbol,
    low: -WIDE,
    high: WIDE,
    resolution: FINE,
    u: FINE,
    s: 0,
    length: 450,
    calibrationDue: null,
  })),
);
