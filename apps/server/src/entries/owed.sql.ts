import type { Statement } from '../database/data-source.js';

/** Everything that is still owed, of every machine: not struck, and settled by no job since. */
export const OPEN_OWED = `
  SELECT e.id AS "entryId", j.id AS "jobId", j.number AS "jobNumber", m.id AS "machineId", u.name AS unit, m.name AS machine, c.name AS customer,
         e.payload->>'what' AS what, e.payload->>'told' AS told, e.payload->>'due' AS due, (e.payload->>'hours')::float8 AS hours
  FROM entry e JOIN job j ON j.id = e.job_id JOIN unit u ON u.id = j.unit_id JOIN machine m ON m.id = u.machine_id
       JOIN customer c ON c.id = m.customer_id
  WHERE e.kind = 'owed' AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
    AND NOT EXISTS (SELECT 1 FROM entry s WHERE s.kind = 'owed-settled' AND s.payload->>'owed' = e.id::text
                      AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = s.id))`;

/** Whether a debt is still open, and of the machine of this job. */
export const STILL_OWED: Statement = {
  name: 'still-owed',
  text: `SELECT 1 FROM (${OPEN_OWED}) o WHERE o."entryId" = $2
    AND o."machineId" = (SELECT u.machine_id FROM job j JOIN unit u ON u.id = j.unit_id WHERE j.id = $1)`,
};
