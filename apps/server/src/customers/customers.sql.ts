import type { Statement } from '../database/data-source.js';
import { HEAD_COLUMNS, HEAD_FROM } from '../jobs/jobs.sql.js';

const MOST_LATELY = 6;

/** By hand: each piece of the search goes by an index of its own (trigrams), which one condition over joined tables does not. */
export const FOUND: Statement = {
  name: 'customers-found',
  text: `SELECT c.id FROM customer c WHERE c.id IN (
      SELECT id FROM customer WHERE name ILIKE $1 OR phone ILIKE $1
      UNION SELECT customer_id FROM machine WHERE name || ' ' || serial ILIKE $1
      UNION SELECT machine.customer_id FROM unit JOIN machine ON machine.id = unit.machine_id WHERE unit.serial ILIKE $1)
    ORDER BY c.name LIMIT 20`,
};

/** Jobs of a customer's units, the newest first. */
export const JOBS_OF: Statement = {
  name: 'customers-jobs',
  text: `SELECT ${HEAD_COLUMNS} ${HEAD_FROM} WHERE c.id = $1 ORDER BY j.number DESC LIMIT 200`,
};

/** Open jobs of customers, machines or units: their pages show a name that may be another one now. */
export const OPEN_OF: Statement = {
  name: 'customers-open-jobs',
  text: `SELECT j.id ${HEAD_FROM} WHERE j.closed_at IS NULL AND $1::uuid IN (c.id, m.id, u.id)`,
};

/** Those of the last jobs: the newest 40 by their number, which an index has in order; where they are few, others by name: of a list that came in nobody was here yet. */
export const LATELY: Statement = {
  name: 'customers-lately',
  text: `WITH here AS (
      SELECT machine.customer_id AS id FROM
        (SELECT number, unit_id FROM job ORDER BY number DESC LIMIT 40) j JOIN unit ON unit.id = j.unit_id JOIN machine ON machine.id = unit.machine_id
      GROUP BY machine.customer_id ORDER BY max(j.number) DESC LIMIT ${MOST_LATELY})
    SELECT id FROM here UNION ALL
    (SELECT id FROM customer WHERE id NOT IN (SELECT id FROM here) ORDER BY name LIMIT ${MOST_LATELY} - (SELECT count(*) FROM here))`,
};
