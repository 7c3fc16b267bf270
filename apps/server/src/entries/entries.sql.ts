import { readUp, type AnyKeptEntry } from '@jubb/book';
import type { EntityManager } from 'typeorm';
import { ask, type Statement } from '../database/data-source.js';

/**
 * By hand, because entries are asked for and kept every few seconds by every tablet: each is one prepared statement,
 * and keeping is one round trip that locks the job, chains, and answers with what was kept.
 */

/** An instant as the wire and the hash have it: ISO, UTC, milliseconds. */
export const iso = (column: string): string => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

export const ENTRY_COLUMNS = `id, job_id AS "jobId", seq, kind, version, payload, working, step, tool_id AS "toolId", strikes,
  person_id AS "personId", ${iso('taken_at')} AS "takenAt", ${iso('kept_at')} AS "keptAt", prev_hash AS "prevHash", hash`;

const of = (name: string, where: string): Statement => ({ name, text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE ${where} ORDER BY seq` });

export const OF_JOB = of('entries-of-job', 'job_id = $1');
/** Those of a job as JSON, and whether one is older than the version of its kind in $2. */
export const JSON_OF_JOB: Statement = {
  name: 'entries-of-job-json',
  text: `SELECT coalesce(json_agg(e ORDER BY e.seq), '[]')::text AS json, coalesce(bool_or(e.version < ($2::jsonb->>e.kind)::int), false) AS "isOld"
    FROM (SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = $1) e`,
};
export const AFTER = of('entries-after', 'job_id = $1 AND seq > $2');
export const OF_KINDS = of('entries-of-kinds', 'job_id = $1 AND kind = ANY ($2::text[])');
export const BY_ID = of('entries-by-id', 'id = ANY ($1::uuid[])');
export const KEEP: Statement = { name: 'keep-entries', text: `SELECT ${ENTRY_COLUMNS} FROM keep_entries($1, $2, $3)` };
/** Of several jobs at once: what was kept by the number of its batch, or a code where nothing of it was. */
export const KEEP_BATCHES: Statement = {
  name: 'keep-batches',
  text: `SELECT b.batch, b.code, e.* FROM keep_batches($1, $2) b, LATERAL (SELECT ${ENTRY_COLUMNS} FROM (SELECT (b.kept).*) one) e`,
};
export const LAST_SEQ: Statement = { name: 'last-seq', text: 'SELECT last_seq AS "lastSeq" FROM job WHERE id = $1' };
export const LOCK_JOB: Statement = { name: 'lock-job', text: 'SELECT 1 FROM job WHERE id = $1 FOR NO KEY UPDATE' };

/** Which revision a job goes by, its scope, and what of its entries shapes the sheet. */
export const PIN: Statement = {
  name: 'pin-of-job',
  text: `SELECT sheet_revision_id AS "revisionId", scope,
      coalesce((SELECT json_agg(json_build_object('kind', e.kind, 'payload', e.payload, 'step', e.step) ORDER BY e.seq)
        FROM entry e WHERE e.job_id = job.id AND e.kind = ANY ($2::text[])
        AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)), '[]') AS shaping
    FROM job WHERE id = $1`,
};

/** Tools by their ids, with the zone of the shop, and when each was last found out. */
export const TOOLS: Statement = {
  name: 'tools-of-entries',
  text: `SELECT t.id, t.tag, t.name, t.kind, t.quantity, t.unit, t.low, t.high, t.resolution, t.u, t.s, t.length,
      to_char(t.calibration_due, 'YYYY-MM-DD') AS "calibrationDue", t.retired::text, s.zone,
      (SELECT ${iso('max(c.kept_at)')} FROM tool_check c WHERE c.tool_id = t.id AND c.verdict = 'out') AS "foundOutAt"
    FROM tool t CROSS JOIN shop s WHERE t.id = ANY ($1::uuid[])`,
};

export const APPROVED_REVISION: Statement = {
  name: 'approved-revision',
  text: `SELECT 1 FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id JOIN sheet_revision n ON n.key = s.key
    WHERE j.id = $1 AND n.id = $2 AND n.revision = $3 AND n.status = 'approved'`,
};

/** Entries as they are read today, in whatever version they were kept. */
export async function readEntries(
  manager: EntityManager,
  statement: Statement,
  ...values: readonly unknown[]
): Promise<readonly AnyKeptEntry[]> {
  return (await ask<AnyKeptEntry>(manager, statement, ...values)).map(readUp);
}
