/** Value at a place, in a straight line between the rows of a table that rises; before the first and after the last their own. */
export function between(rows: readonly (readonly [at: number, value: number])[], at: number): number {
  const next = rows.findIndex(([of]) => of >= at);
  if (next === -1) return rows.at(-1)![1];
  if (next === 0) return rows[0]![1];
  const [[a, from], [b, to]] = [rows[next - 1]!, rows[next]!];
  return from + ((at - a) / (b - a)) * (to - from);
}
