import { baseOf, type JobScope, type SheetFile } from '@jubb/sheet';

const HOUR_S = 3600;

/**
 * Hours by the book of what a job picked, for each of its sides; of the whole unit where nothing was picked, and where it
 * was, for it takes the narrower tasks in. Undefined where the sheet gives no time for any of it.
 */
export function bookHours({ tasks = [] }: Pick<SheetFile, 'tasks'>, scope: Pick<JobScope, 'tasks' | 'sides'> | null): number | undefined {
  const picked = tasks.filter(({ ref }) => scope?.tasks.includes(ref));
  const whole = (picked.length === 0 ? tasks : picked).filter((task) => task.whole);
  const timed = (whole.length > 0 ? whole : picked).filter(({ time }) => time !== undefined);
  if (timed.length === 0) return undefined;
  const seconds = timed.reduce((sum, { time }) => sum + baseOf(time!, 'time'), 0);
  return (seconds / HOUR_S) * Math.max(1, scope?.sides.length ?? 0);
}

/** The same as it is quoted, to the quarter of an hour; an hour where the book is silent. */
export function labourHours(file: Pick<SheetFile, 'tasks'>, scope: Pick<JobScope, 'tasks' | 'sides'> | null): number {
  return Math.round((bookHours(file, scope) ?? 0) * 4) / 4 || 1;
}

/** What hours cost, in minor units. */
export function labourMinor(hours: number, hourlyMinor: number): number {
  return Math.round(hours * hourlyMinor);
}
