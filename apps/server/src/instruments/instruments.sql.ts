import type { Statement } from '../database/data-source.js';

/**
 * Those of the marks that were not heard yet, each kept by this. By hand: of two processes that take in the same lines at
 * once one has each, and a mark that names no run may come again after a while ($3, ms).
 */
export const HEARD: Statement = {
  name: 'instrument-heard',
  text: `INSERT INTO instrument_heard (instrument_id, mark) SELECT $1, mark FROM unnest($2::text[]) mark ORDER BY mark
    ON CONFLICT (instrument_id, mark) DO UPDATE SET heard_at = now()
      WHERE instrument_heard.heard_at < now() - $3::float8 * interval '1 millisecond' AND instrument_heard.mark NOT LIKE $4 || '%' RETURNING mark`,
};
