/** What lines of an order cost together, in minor units. */
export function orderMinor(lines: readonly { readonly quantity: number; readonly priceMinor: number }[]): number {
  return lines.reduce((sum, { quantity, priceMinor }) => sum + quantity * priceMinor, 0);
}

/** Pieces of a line that are still to come; none where more came than was ordered. */
export function toCome({ quantity, received }: { readonly quantity: number; readonly received: number }): number {
  return Math.max(0, quantity - received);
}
