import { WEEKDAYS, type OpenHours, type ShopHours } from '@jubb/book';
import type { ClosedDayBody, FieldProblem, WeekdayBody } from '@jubb/wire';
import { badInput } from './problem.js';
import type { InWords } from './changes.js';

/** Hours as they are kept; refuses a day that ends before it begins, and a day that is named twice. */
export function hoursFrom(week: readonly WeekdayBody[], closed: readonly ClosedDayBody[]): ShopHours {
  const wrongs: FieldProblem[] = week.flatMap(({ from, to }, at): readonly FieldProblem[] => {
    if (from === '' && to === '') return [];
    return from < to && from !== ''
      ? []
      : [{ field: `week[${at}].to`, given: to, allowed: `must be after ${from || 'the time it opens'}` }];
  });
  const twice = closed.findIndex(({ day }, at) => closed.slice(0, at).some((other) => other.day === day));
  if (twice >= 0) wrongs.push({ field: `closed[${twice}].day`, given: closed[twice]!.day, allowed: 'is in the list already' });
  if (wrongs.length > 0) throw badInput(wrongs);
  return {
    week: week.map(({ from, to }) => (from === '' ? null : { from, to })),
    closed: closed.map(({ day, why }) => ({ day, why: why.trim() })).toSorted((one, other) => (one.day < other.day ? -1 : 1)),
  };
}

/** A line for each day of the week, and one for the days on which it is closed. */
export function hoursInWords(hours: ShopHours | null): InWords {
  return {
    ...Object.fromEntries(WEEKDAYS.map((name, at) => [name, openWords(hours?.week[at] ?? null)])),
    'closed on': hours?.closed.map(({ day, why }) => `${day} ${why}`).join('; ') ?? '',
  };
}

function openWords(open: OpenHours | null): string {
  return open ? `${open.from} to ${open.to}` : 'closed';
}
