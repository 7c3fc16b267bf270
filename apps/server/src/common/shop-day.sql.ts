import type { Statement } from '../database/data-source.js';

/** By hand: the day is the database's to tell, so that every server process has the same. */
export const TODAY: Statement = { name: 'shop-day', text: 'SELECT zone, (now() AT TIME ZONE zone)::date::text AS today FROM shop' };
