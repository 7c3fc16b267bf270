import { registerDecorator } from 'class-validator';

const MOMENT = /^(\d{4}-\d{2}-\d{2})T([01]\d|2[0-3]):[0-5]\d(?::[0-5]\d(?:\.\d{1,9})?)?(?:Z|[+-](?:0\d|1[0-4]):[0-5]\d)$/u;
/** No job of a shop lies outside of these years; a slip of a year is. */
const YEARS = { from: 2000, before: 2200 } as const;

/** Whether a text is a day of the calendar, "2027-03-01", as ISO 8601 and RFC 3339 write it. */
export function isDay(text: unknown): text is string {
  if (typeof text !== 'string' || !/^\d{4}-\d{2}-\d{2}$/u.test(text)) return false;
  const [year = 0, month = 0, day = 0] = text.split('-').map(Number);
  const at = new Date(Date.UTC(year, month - 1, day));
  return year >= YEARS.from && year < YEARS.before && at.getUTCMonth() === month - 1 && at.getUTCDate() === day;
}

/** Whether a text is a moment with its offset, "2027-03-01T09:30:00Z" (RFC 3339). */
export function isInstant(text: unknown): text is string {
  return typeof text === 'string' && isDay(MOMENT.exec(text)?.[1]);
}

function checked(name: string, validate: (given: unknown) => boolean, message: string): PropertyDecorator {
  return (target, property) =>
    registerDecorator({
      name,
      target: target.constructor,
      propertyName: String(property),
      validator: { validate, defaultMessage: () => message },
    });
}

/** A day, "2027-03-01". */
export function Day(): PropertyDecorator {
  return checked('isDay', isDay, 'is not a day, such as 2027-03-01');
}

/** A moment with its offset, "2027-03-01T09:30:00Z". */
export function Instant(): PropertyDecorator {
  return checked('isInstant', isInstant, 'is not a moment, such as 2027-03-01T09:30:00Z');
}
