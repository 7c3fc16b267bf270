import { daysOn } from '@jubb/sheet';

/** A day of the week in the shop: from and to by its clock, "07:00"; nothing where it is closed. */
export interface OpenHours {
  readonly from: string;
  readonly to: string;
}

/** A day on which the shop is closed whatever day of the week it is. */
export interface ClosedDay {
  /** Like 2027-03-01. */
  readonly day: string;
  readonly why: string;
}

/** When somebody is in the shop; days by its calendar. */
export interface ShopHours {
  /** Monday first, seven of them. */
  readonly week: readonly (OpenHours | null)[];
  readonly closed: readonly ClosedDay[];
}

export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

/** No shop is closed for longer; where one is, nobody says when it opens. */
const MOST_DAYS = 60;

/** 0 is Monday. A day of the calendar has its weekday wherever it is. */
function weekdayOf(day: string): number {
  return (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;
}

/** From when to when the shop is open on a day; nothing where it is closed. */
export function openOn({ week, closed }: ShopHours, day: string): OpenHours | null {
  return closed.some((one) => one.day === day) ? null : (week[weekdayOf(day)] ?? null);
}

/** Why the shop is closed on a day; nothing where it is open. */
export function closedWhy(hours: ShopHours, day: string): string | undefined {
  if (openOn(hours, day)) return undefined;
  return hours.closed.find((one) => one.day === day)?.why ?? WEEKDAYS[weekdayOf(day)];
}

/** The first day on or after this one on which it is open; nothing where there is none in two months. */
export function nextOpenDay(hours: ShopHours, day: string): string | undefined {
  for (let on = 0; on < MOST_DAYS; on += 1) {
    const one = daysOn('UTC', day, on);
    if (openOn(hours, one) !== null) return one;
  }
  return undefined;
}
