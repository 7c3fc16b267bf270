import { closedWhy, nextOpenDay, openOn, type ShopHours } from '@jubb/book';
import { clockIn, dayIn, dayWordsIn, daysBetween, daysOn, instantIn, weekdayIn } from '@jubb/sheet';

/** Days and clocks are the shop's, wherever the device thinks it is; the device's own until a session says. */
let zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** When the shop is open; nothing until it says so. */
let hours: ShopHours | null = null;

export function keepShop(shop: { readonly zone: string; readonly hours: ShopHours | null }): void {
  ({ zone, hours } = shop);
}

/** "2027-03-01", as a date field and the wire have it. */
export function shopToday(): string {
  return dayIn(zone, Date.now());
}

/** A clock of today in the shop, as an instant. */
export function todayAt(clock: string): string {
  return instantIn(zone, shopToday(), clock);
}

export function dayOf(instant: string): string {
  return dayIn(zone, instant);
}

export function inDays(days: number): string {
  return daysOn(zone, Date.now(), days);
}

/** When a shop that does not say when it closes gives a unit back on a day that was only named. */
const GIVEN_BACK = '16:00';

/** A promised day as an instant: when the shop closes on it, or in its afternoon. */
export function promiseOn(day: string): string {
  return instantIn(zone, day, (hours && openOn(hours, day)?.to) ?? GIVEN_BACK);
}

/** A day so many days on, or the first after it on which the shop is open. */
export function openInDays(days: number): string {
  const day = inDays(days);
  return (hours && nextOpenDay(hours, day)) ?? day;
}

/** Why nobody is in the shop on a day, and when somebody is next; nothing where it is open, or does not say. */
export function closedOn(day: string): { readonly why: string; readonly next: string | undefined } | undefined {
  const why = hours && /^\d{4}-\d{2}-\d{2}$/u.test(day) ? closedWhy(hours, day) : undefined;
  return why === undefined || !hours ? undefined : { why, next: nextOpenDay(hours, day) };
}

/** From when to when the shop is open today, hours of its clock; nothing where it is closed, or does not say. */
export function openToday(): readonly [from: number, to: number] | undefined {
  const open = hours && openOn(hours, shopToday());
  const hour = (clock: string): number => Number(clock.slice(0, 2)) + Number(clock.slice(3)) / 60;
  return open ? [hour(open.from), hour(open.to)] : undefined;
}

/** When the shop is open, and what day and time it is there. */
export function shopClock(): { readonly hours: ShopHours | null; readonly day: string; readonly clock: string } {
  return { hours, day: shopToday(), clock: clockIn(zone, Date.now()) };
}

/** Further off than that, a day is said with its year. */
const NEAR_DAYS = 180;

/** "1 Mar", or "1 Mar 2025" where it is far off: of an instant, or a day. */
export function dayWords(given: string): string {
  return dayWordsIn(zone, given, Math.abs(daysBetween(zone, Date.now(), given)) > NEAR_DAYS);
}

export function clockWords(instant: string): string {
  return clockIn(zone, instant);
}

/** "14:05" today, "1 Mar 14:05" before. */
export function timeWords(instant: string): string {
  return dayOf(instant) === shopToday() ? clockWords(instant) : `${dayWords(instant)} ${clockWords(instant)}`;
}

export function promiseWords(instant: string): string {
  const days = daysBetween(zone, Date.now(), instant);
  if (days === 0) return `today ${clockWords(instant)}`;
  if (days < 0) return `${dayWords(instant)}, late`;
  return days < 7 ? weekdayIn(zone, instant) : dayWords(instant);
}
