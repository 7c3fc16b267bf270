import type { Statement } from '../database/data-source.js';

/**
 * Entries made with a tool after its last good check, of jobs that went out too. By hand: what an entry was made with
 * stands in a column or, for an adapter, inside its payload, and the two are found by one pass over the index.
 */
export const TOUCHED: Statement = {
  name: 'touched-by-tool',
  text: `SELECT e.id AS "entryId", e.job_id AS "jobId", j.number AS "jobNumber", j.closed_at AS "closedAt", e.kind, e.step, e.taken_at AS at
    FROM entry e JOIN job j ON j.id = e.job_id
    WHERE (e.tool_id = $1 OR e.payload->>'adapterId' = $1::text)
      AND e.taken_at > coalesce((SELECT max(c.kept_at) FROM tool_check c WHERE c.tool_id = $1 AND c.verdict = 'good'), '-infinity')
      AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
    ORDER BY e.taken_at DESC LIMIT 1000`,
};
