import { OPEN_OHM } from '@jubb/core';
import { baseOf, amountQuantity, limitQuantity, limitWindow, type Fluid, type Limit, type Tool } from '@jubb/sheet';

/** Base units: what a reading can be at all. */
const FURTHEST = 300_000;
const LOWEST = -20_000;
/** Sizes up to this are small: play, gaps and run-out may be anything down to nothing. */
const SMALL_MM = 5;
/** A size that wore by half, or grew by it, is no size of this part. */
const FAR_OFF = 0.5;
/** Where the sheet does not say how near an amount must be. */
const AMOUNT_TOLERANCE = '10 %';

/** What a reading may be before it is asked whether it is a slip: one of the decimal sign or the unit is further off than any wear. Base units. */
export function plausibleReadings(limit: Limit): { readonly least: number; readonly most: number } {
  if (limit.kind !== 'size' || limitQuantity(limit) !== 'length')
    return { least: LOWEST, most: limitQuantity(limit) === 'resistance' ? OPEN_OHM : FURTHEST };
  const { from, to } = limitWindow(limit);
  const [nearest = 0, furthest = 0] = [from ?? to, to ?? from];
  return furthest > SMALL_MM ? { least: nearest * (1 - FAR_OFF), most: furthest * (1 + FAR_OFF) } : { least: 0, most: SMALL_MM };
}

/** How far readings of one thing with a tool may lie apart by the tool alone, in its base unit. */
export function spreadOf(tool: Pick<Tool, 's' | 'resolution'> | undefined): number {
  return Math.max(tool?.s ?? 0, tool?.resolution ?? 0);
}

/** What is asked of an amount that is filled in, in its base unit; undefined for what is filled until it shows. */
export function amountAsked({
  amount,
  tolerance = AMOUNT_TOLERANCE,
}: Fluid): { readonly wanted: number; readonly from: number; readonly to: number; readonly tolerance: string } | undefined {
  if (!amount) return undefined;
  const wanted = baseOf(amount.figure, amountQuantity(amount.figure));
  const off = wanted * baseOf(tolerance, 'ratio');
  return { wanted, from: wanted - off, to: wanted + off, tolerance };
}
