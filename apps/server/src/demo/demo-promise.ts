import { nextOpenDay, openOn, type ShopHours } from '@jubb/book';
import { daysOn } from '@jubb/sheet';
import { OPEN } from './shop-hours.js';

/** The same as the shop itself says it. */
export const DEMO_HOURS: ShopHours = { week: [OPEN, OPEN, OPEN, OPEN, OPEN, null, null], closed: [] };

/** A week holds a day on which the shop is open. */
const DAYS_BACK = 7;

/** The day of a promise so many days on, ms since 1970: where it is closed, when it opens next; of one that has gone by, when it was open last. */
export function promisedDay(zone: string, from: number | string, days: number): string {
  const day = daysOn(zone, from, days);
  if (days >= 0) return nextOpenDay(DEMO_HOURS, day) ?? day;
  const before = Array.from({ length: DAYS_BACK }, (_, ago) => daysOn('UTC', day, -ago));
  return before.find((one) => openOn(DEMO_HOURS, one) !== null) ?? day;
}
