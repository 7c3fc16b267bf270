import { baseOf, find, type JobScope, type SheetFile } from '@jubb/sheet';

const HOUR_S = 3600;

/** Hours of the tasks that the job picked, or of the whole unit, by the sheet; to the quarter of an hour. */
export function labourHours(scope: JobScope | null, sheet: SheetFile): number {
  const tasks = sheet.tasks ?? [];
  const picked = (scope?.tasks ?? []).flatMap((ref) => find(tasks, ref) ?? []);
  const counted = picked.length > 0 ? picked : tasks.filter(({ whole }) => whole);
  const seconds = counted.reduce((sum, { time }) => sum + (time === undefined ? 0 : baseOf(time, 'time')), 0);
  return Math.round((seconds / HOUR_S) * 4) / 4 || 1;
}
