import type { Statement } from '../database/data-source.js';

/**
 * What is to leave, each put off until its next try ($1: the first wait, $2: the longest, s). By hand: found, locked past
 * those that another process has in hand, and put off in one statement, so that two processes never send the same.
 */
const take = (name: string, which: string): Statement => ({
  name,
  text: `UPDATE outbox o SET tries = tries + 1, next_at = now() + least($2::float8, $1::float8 * power(2, least(tries, 12))) * interval '1 second'
    FROM (SELECT kind, reference FROM outbox WHERE went_at IS NULL AND ${which} ORDER BY next_at LIMIT 20 FOR UPDATE SKIP LOCKED) due
    WHERE o.kind = due.kind AND o.reference = due.reference RETURNING o.kind, o.reference`,
});

export const TAKE_DUE = take('outbox-due', 'next_at <= now()');
export const TAKE_ONE = take('outbox-one', 'kind = $3 AND reference = $4::uuid');
