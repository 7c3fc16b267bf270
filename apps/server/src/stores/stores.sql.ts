import type { Statement } from '../database/data-source.js';

/**
 * By hand: lists are pages by their key that the database makes into JSON, a line comes with all that is behind it in one
 * round trip, and movements are made by a function that locks their line and counts it.
 */

const PAGE = 50;
const COLUMNS = `i.id, i.number, i.name, i.kind, i.unit, i.size, i.designation, i.location, i.material, i.shore, i.minimum::float8 AS minimum,
  i.price_minor AS "priceMinor", i.on_hand::float8 AS "onHand", i.reserved::float8 AS reserved, i.version`;
export const ALL: Statement = {
  name: 'stock',
  text: `SELECT ${COLUMNS} FROM stock_item i WHERE ($1::text IS NULL OR i.number > $1) ORDER BY i.number LIMIT ${PAGE}`,
};
/** Lines that hold so many pieces of text: each by itself, for an index does not go by all of a list at once. */
export const found = (pieces: number): Statement => ({
  name: `stock-found-${pieces}`,
  text: `SELECT ${COLUMNS} FROM stock_item i WHERE ${Array.from({ length: pieces }, (_, at) => `i.words LIKE $${at + 2}`).join(' AND ')}
    AND ($1::text IS NULL OR i.number > $1) ORDER BY i.number LIMIT ${PAGE}`,
});
export const SHORT: Statement = {
  name: 'stock-short',
  text: `SELECT ${COLUMNS} FROM stock_item i WHERE i.on_hand - i.reserved < i.minimum AND ($1::text IS NULL OR i.number > $1) ORDER BY i.number LIMIT ${PAGE}`,
};
export const SHIMS: Statement = {
  name: 'stock-shims',
  text: `SELECT ${COLUMNS}, i.thickness_mm AS "thicknessMm" FROM stock_item i WHERE i.thickness_mm IS NOT NULL ORDER BY i.thickness_mm, i.number LIMIT 1000`,
};
/** Seals and rings by their size, with what of them is free and in date on a day. */
export const SEALS: Statement = {
  name: 'stock-seals',
  text: `SELECT ${COLUMNS}, greatest(0, i.on_hand - i.reserved - coalesce(b.past, 0))::float8 AS usable, b.until::text AS until
         FROM stock_item i LEFT JOIN LATERAL (
           SELECT sum(greatest(0, batch.left)) FILTER (WHERE batch.expires < $1::date) AS past,
             min(batch.expires) FILTER (WHERE batch.expires >= $1::date AND batch.left > 0) AS until
           FROM (SELECT min(m.expires) AS expires,
               sum(CASE WHEN m.kind IN ('receive', 'return') THEN m.quantity WHEN m.kind = 'issue' THEN -m.quantity ELSE 0 END) AS left
             FROM stock_movement m WHERE m.item_id = i.id AND m.batch IS NOT NULL GROUP BY m.batch) batch) b ON true
         WHERE i.kind IN ('seal', 'o-ring') AND i.size IS NOT NULL AND i.on_hand > i.reserved ORDER BY i.number LIMIT 2000`,
};
const MOVEMENTS = `SELECT m.id, m.kind, m.quantity::float8 AS quantity, m.on_hand_after::float8 AS "onHandAfter", j.number AS "jobNumber", m.batch, m.words,
         p.name AS person, m.taken_at AS "takenAt"
         FROM stock_movement m JOIN person p ON p.id = m.person_id LEFT JOIN job j ON j.id = m.job_id WHERE m.item_id = $1 ORDER BY m.seq DESC LIMIT 100`;
const BATCHES = `SELECT m.batch, min(m.expires)::text AS expires,
           sum(CASE WHEN m.kind IN ('receive', 'return') THEN m.quantity WHEN m.kind = 'issue' THEN -m.quantity ELSE 0 END)::float8 AS "onHand"
         FROM stock_movement m WHERE m.item_id = $1 AND m.batch IS NOT NULL GROUP BY m.batch ORDER BY min(m.expires), m.batch`;
const RESERVATIONS = `SELECT r.job_id AS "jobId", j.number AS "jobNumber", r.quantity::float8 AS quantity
         FROM stock_reservation r JOIN job j ON j.id = r.job_id WHERE r.item_id = $1 ORDER BY j.number`;
const COUNTS = `SELECT c.id, c.quantity::float8 AS quantity, p.name AS person, c.words, c.taken_at AS "takenAt"
         FROM stock_count c JOIN person p ON p.id = c.person_id WHERE c.item_id = $1 AND c.settled_by IS NULL ORDER BY c.kept_at`;
const rowsOf = (query: string): string => `(SELECT coalesce(json_agg(found), '[]') FROM (${query}) found)`;
/** A line with all that is behind it, in one round to the database. */
export const ONE: Statement = {
  name: 'stock-one',
  text: `SELECT ${COLUMNS}, ${rowsOf(MOVEMENTS)} AS movements, ${rowsOf(BATCHES)} AS batches, ${rowsOf(RESERVATIONS)} AS reservations, ${rowsOf(COUNTS)} AS counts
         FROM stock_item i WHERE i.id = $1`,
};
export const MOVE: Statement = { name: 'move-stock', text: 'SELECT (move_stock($1, $2, $3)).id' };
export const FOR_JOB: Statement = {
  name: 'stock-for-job',
  text: `SELECT ${COLUMNS}, coalesce(r.quantity, 0)::float8 AS "reservedHere",
           coalesce((SELECT sum(CASE m.kind WHEN 'issue' THEN m.quantity ELSE -m.quantity END) FROM stock_movement m
             WHERE m.item_id = i.id AND m.job_id = $1 AND m.kind IN ('issue', 'return')), 0)::float8 AS "issuedHere"
         FROM stock_item i LEFT JOIN stock_reservation r ON r.item_id = i.id AND r.job_id = $1
         WHERE i.number = ANY ($2::text[]) OR i.designation = ANY ($3::text[]) ORDER BY i.number LIMIT 400`,
};
export const ORDERED_FOR: Statement = {
  name: 'ordered-for-job',
  text: `SELECT l.number, l.quantity, l.received, o.state, l.due::text AS due FROM part_order_line l JOIN part_order o ON o.id = l.order_id WHERE l.job_id = $1`,
};
export const OFFERS: Statement = {
  name: 'supplier-offers',
  text: `SELECT supplier, number, name, price_minor AS "priceMinor", breaks, lead_days AS "leadDays", lead_spread AS "leadSpread", available,
         superseded_by AS "supersededBy" FROM supplier_item WHERE number = ANY ($1::text[]) ORDER BY number, price_minor`,
};

/** Free for a job on a line, what is kept for it with the rest, and what the job has out; the line stays locked. */
export const MOVABLE: Statement = {
  name: 'stock-movable',
  text: `SELECT greatest(0, least(i.on_hand, greatest(coalesce(r.quantity, 0), i.on_hand - i.reserved + coalesce(r.quantity, 0))))::float8 AS free,
    coalesce((SELECT sum(CASE m.kind WHEN 'issue' THEN m.quantity ELSE -m.quantity END) FROM stock_movement m
      WHERE m.item_id = i.id AND m.job_id = $2 AND m.kind IN ('issue', 'return')), 0)::float8 AS out
  FROM stock_item i LEFT JOIN stock_reservation r ON r.item_id = i.id AND r.job_id = $2 WHERE i.id = $1 FOR UPDATE OF i`,
};
