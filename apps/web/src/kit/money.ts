import { useSession } from '../link/queries.ts';

/** "420", "420,50" → minor units; undefined when it is not an amount. */
export function minorOf(text: string): number | undefined {
  const typed = text.trim();
  return /^\d{1,7}(?:[.,]\d{1,2})?$/u.test(typed) ? Math.round(Number(typed.replace(',', '.')) * 100) : undefined;
}

/** Minor units as one types them: "420.50". */
export function amountText(minor: number): string {
  return (minor / 100).toFixed(2);
}

/** A share as one types it in percent: "20", "7.5". */
export function percentText(share: number): string {
  return String(Math.round(share * 10_000) / 100);
}

/** Minor units to the whole, as one types an estimate: "420". */
export function wholeText(minor: number): string {
  return (minor / 100).toFixed(0);
}

/** A share as one reads it: "35 %". */
export function percentWords(share: number): string {
  return `${Math.round(share * 100)} %`;
}

export function moneyIn(currency: string): (minor: number) => string {
  const format = new Intl.NumberFormat('en-GB', { style: 'currency', currency });
  return (minor) => format.format(minor / 100);
}

/** Writes minor units in the shop's currency. */
export function useMoney(): (minor: number) => string {
  const { data: session } = useSession();
  return moneyIn(session?.shop.currency ?? 'EUR');
}
