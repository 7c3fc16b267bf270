import type { Statement } from '../database/data-source.js';

/** Jobs were booked in just before their first entry, and closed with their last. By hand: it goes back over what only entries write. */
export const DATE_JOBS: Statement = {
  name: 'date-jobs',
  text: `UPDATE job SET booked_at = work.first - interval '20 minutes', closed_at = CASE WHEN closed_at IS NULL THEN NULL ELSE work.last END
    FROM (SELECT job_id, min(taken_at) AS first, max(taken_at) AS last FROM entry GROUP BY job_id) work
    WHERE work.job_id = job.id`,
};
