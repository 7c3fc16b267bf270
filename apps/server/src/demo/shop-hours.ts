import { daysOn, instantIn, weekdayIn } from '@jubb/sheet/days';

/** What days it works are alike. */
export const OPEN = { from: '07:00', to: '16:30' };

const MINUTE = 60_000;

/** The hours in which a shop works, Mondays to Fridays, from some day on: one line of minutes that leaves out the rest. */
export class ShopHours {
  readonly #days: readonly { readonly from: number; readonly to: number }[];

  /** Of so many days of the calendar up to the day of `now`, ms since 1970. */
  constructor(zone: string, now: number, days: number) {
    const all = Array.from({ length: days + 1 }, (_, ago) => daysOn(zone, now, ago - days));
    this.#days = all
      .filter((day) => !['Sat', 'Sun'].includes(weekdayIn(zone, day)))
      .map((day) => ({ from: Date.parse(instantIn(zone, day, OPEN.from)), to: Date.parse(instantIn(zone, day, OPEN.to)) }));
  }

  /** The instant that lies so many minutes of work after another one, or before it where they are negative. */
  on(from: number, minutes: number): number {
    let left = Math.abs(minutes) * MINUTE;
    const isBack = minutes < 0;
    let at = this.within(from, isBack);
    let day = Math.max(0, this.#lastOpened(at));
    for (;;) {
      const { from: opens, to: closes } = this.#days[day]!;
      const room = isBack ? at - opens : closes - at;
      if (left <= room) return isBack ? at - left : at + left;
      left -= room;
      const next = this.#days[isBack ? day - 1 : day + 1];
      // Before the first day, and after the last one, the shop works on.
      if (!next) return isBack ? opens - left : closes + left;
      day += isBack ? -1 : 1;
      at = isBack ? next.to : next.from;
    }
  }

  /** The instant itself where so many minutes from it, or before it, lie in one day; else when the next day opens, or the last one closed. */
  inOneDay(instant: number, minutes: number, isBack = false): number {
    const at = this.within(instant, isBack);
    const place = this.#lastOpened(at);
    const day = this.#days[place];
    const room = day ? (isBack ? at - day.from : day.to - at) : Number.POSITIVE_INFINITY;
    if (minutes * MINUTE <= room) return at;
    return (isBack ? this.#days[place - 1]?.to : this.#days[place + 1]?.from) ?? at;
  }

  /** The instant itself where the shop works, else when it opens next, or closed last. */
  within(instant: number, isBack = false): number {
    const last = this.#lastOpened(instant);
    const day = this.#days[last];
    if (day && instant <= day.to) return instant;
    if (isBack) return day?.to ?? instant;
    return this.#days[last + 1]?.from ?? instant;
  }

  /** Place of the day that began last; -1 before the first one. */
  #lastOpened(instant: number): number {
    let [low, high] = [0, this.#days.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#days[middle]!.from <= instant) low = middle + 1;
      else high = middle;
    }
    return low - 1;
  }
}
