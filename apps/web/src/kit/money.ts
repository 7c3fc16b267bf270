/** "420", "420,50" → minor units; undefined when it is not an amount. */
export function minorOf(text: string): number | undefined {
  const typed = text.trim();
  return /^\d{1,7}(?:[.,]\d{1,2})?$/u.test(typed) ? Math.round(Number(typed.replace(',', '.')) * 100) : undefined;
}
