import { clockIn, dayIn, dayWordsIn, daysBetween, daysOn, instantIn, weekdayIn } from '@jubb/sheet';

/** Days and clocks are the shop's, wherever the device thinks it is; the device's own until a session says. */
let zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

export function keepZone(shopZone: string): void {
  zone = shopZone;
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

/** When a shop gives a unit back on a day that was only named. */
const GIVEN_BACK = '16:00';

/** A promised day as an instant: in the afternoon of it, in the shop. */
export function promiseOn(day: string): string {
  return instantIn(zone, day, GIVEN_BACK);
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
