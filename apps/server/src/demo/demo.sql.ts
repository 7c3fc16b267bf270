import type { Statement } from '../database/data-source.js';

/**
 * By hand: they write what in a shop of its own only entries and movements write, and tens of thousands of rows at once.
 * What they are given as JSON was chained as `keep_entries` chains, and counted as `move_stock` counts.
 */

/** Whether there are tables at all. */
export const IS_MADE: Statement = { name: 'is-made', text: `SELECT to_regclass('demo_sight') IS NOT NULL AS "isSo"` };

/** Whether somebody is here, and no demo stands unfinished. */
export const IS_SETTLED: Statement = {
  name: 'is-settled',
  text: `SELECT EXISTS (SELECT FROM person) AND NOT EXISTS (SELECT FROM demo_sight WHERE place = $1) AS "isSo"`,
};

/** Jobs were booked in just before their first entry, and closed with their last. */
export const DATE_JOBS: Statement = {
  name: 'date-jobs',
  text: `UPDATE job SET booked_at = work.first - interval '20 minutes', closed_at = CASE WHEN closed_at IS NULL THEN NULL ELSE work.last END
    FROM (SELECT job_id, min(taken_at) AS first, max(taken_at) AS last FROM entry GROUP BY job_id) work
    WHERE work.job_id = job.id`,
};

export const MANY_JOBS: Statement = {
  name: 'many-jobs',
  text: `INSERT INTO job (id, number, unit_id, sheet_revision_id, stage, complaint, promise, estimate_minor, scope, booked_at, closed_at, last_seq, last_hash)
    SELECT id, number, "unitId", "sheetRevisionId", stage, complaint, promise, "estimateMinor", scope, "bookedAt", "closedAt", "lastSeq", "lastHash"
    FROM jsonb_to_recordset($1::jsonb) AS j(id uuid, number int, "unitId" uuid, "sheetRevisionId" uuid, stage text, complaint text, promise timestamptz,
      "estimateMinor" int, scope jsonb, "bookedAt" timestamptz, "closedAt" timestamptz, "lastSeq" int, "lastHash" text)`,
};

/** What lets the ties of entries to other rows go, and what ties them again as they were: looked at for all rows at once, and not row by row. */
export const TIES: Statement = {
  name: 'ties',
  text: `SELECT string_agg(format('DROP CONSTRAINT %I', conname), ', ') AS off,
      string_agg(format('ADD CONSTRAINT %I %s', conname, pg_get_constraintdef(oid)), ', ') AS tied
    FROM pg_constraint WHERE conrelid = 'entry'::regclass AND contype = 'f'`,
};

/** Entries as rows; what holds a job, and lets it go, is seen to by the trigger that sees to it always. */
export const COPY_ENTRIES = `COPY entry (id, job_id, seq, kind, version, payload, working, step, tool_id, strikes, person_id, taken_at, kept_at,
    content_hash, prev_hash, hash) FROM STDIN`;

/** Movements in the order of the list, and what lies on each shelf after the last of them. */
export const MANY_MOVES: Statement = {
  name: 'many-moves',
  text: `WITH given AS (
      SELECT m.* FROM ROWS FROM (jsonb_to_recordset($1::jsonb) AS (id uuid, item uuid, kind text, quantity numeric, after numeric, "jobId" uuid, batch text,
        expires date, words text, "personId" uuid, "takenAt" timestamptz)) WITH ORDINALITY AS m(id, item, kind, quantity, after, job_id, batch, expires, words, person_id, taken_at, place)),
    moved AS (
      INSERT INTO stock_movement (id, item_id, kind, quantity, on_hand_after, job_id, batch, expires, words, person_id, taken_at, kept_at)
      SELECT id, item, kind, quantity, after, job_id, batch, expires, words, person_id, taken_at, taken_at FROM given ORDER BY place)
    UPDATE stock_item SET on_hand = last.after
    FROM (SELECT DISTINCT ON (item) item, after FROM given ORDER BY item, place DESC) last WHERE stock_item.id = last.item`,
};

/** The next job has the number after the last one. */
export const NUMBER_ON: Statement = { name: 'number-on', text: `SELECT setval('job_number', (SELECT max(number) FROM job))` };

/** When sheets that are, or were, in force came into it, and by how many days they were before. */
export const DATE_SHEETS: Statement = {
  name: 'date-sheets',
  text: `UPDATE sheet_revision r SET
      approved_at = $1::timestamptz - CASE WHEN r.status = 'superseded' THEN interval '720 days' WHEN old.key IS NULL THEN interval '700 days' ELSE interval '330 days' END,
      edited_at = $1::timestamptz - CASE WHEN r.status = 'superseded' THEN interval '722 days' WHEN old.key IS NULL THEN interval '702 days' ELSE interval '331 days' END
    FROM sheet_revision n LEFT JOIN (SELECT DISTINCT key FROM sheet_revision WHERE status = 'superseded') old ON old.key = n.key WHERE n.id = r.id AND r.status <> 'draft'`,
};

/** Tools were checked a year before they are due again; what was found out, at an instant. */
export const DATE_CHECKS: Statement = {
  name: 'date-checks',
  text: `UPDATE tool_check SET kept_at = CASE WHEN verdict = 'out' THEN $1::timestamptz ELSE due - interval '365 days' END`,
};
