import type { Statement } from '../database/data-source.js';

/** Orders with their lines, and what the van brought. By hand: one round trip for a list that every shelf page asks for. */
const ORDERS = `
  SELECT o.id, o.number, o.supplier, o.state, o.sent_at AS "sentAt",
    f.by_hand AS "byHand", f.email, f.phone, f.account, f.lead_days AS "leadDays",
    coalesce((SELECT json_agg(json_build_object('id', l.id, 'number', l.number, 'name', l.name, 'quantity', l.quantity, 'priceMinor', l.price_minor,
      'jobId', l.job_id, 'jobNumber', j.number, 'confirmed', l.confirmed, 'due', l.due, 'received', l.received, 'returned', l.returned) ORDER BY l.number, l.id)
      FROM part_order_line l LEFT JOIN job j ON j.id = l.job_id WHERE l.order_id = o.id), '[]') AS lines,
    coalesce((SELECT s.notes FROM supplier_order s WHERE s.reference = o.id), '[]') AS notes
  FROM part_order o JOIN supplier f ON f.name = o.supplier`;

export const LIST: Statement = {
  name: 'orders',
  text: `${ORDERS} WHERE o.state <> 'delivered' OR o.sent_at > now() - interval '30 days' ORDER BY o.number DESC LIMIT 100`,
};

export const ONE: Statement = { name: 'order', text: `${ORDERS} WHERE o.id = $1` };

/** Jobs that wait for parts, and of which nothing is on order any more. By hand: two tables, and a field of the hold. */
export const NOTHING_ON_ORDER: Statement = {
  name: 'nothing-on-order',
  text: `SELECT j.id FROM job j WHERE j.id = ANY ($1::uuid[]) AND j.hold->>'reason' = 'parts' AND j.closed_at IS NULL
    AND NOT EXISTS (SELECT 1 FROM part_order_line l WHERE l.job_id = j.id AND l.received < l.quantity) ORDER BY j.id`,
};
