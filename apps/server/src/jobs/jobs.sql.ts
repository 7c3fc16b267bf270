import { LICENCES_OF_P } from '../database/licences.sql.js';
import type { Statement } from '../database/data-source.js';
import { ENTRY_COLUMNS, iso } from '../entries/entries.sql.js';
import { OPEN_OWED } from '../entries/owed.sql.js';

/**
 * By hand: every tablet asks for a job and for the list all day, each in one prepared statement that makes its objects in
 * the database (measured: a job's page in 2.2 times its bare SQL); and what earlier jobs tell is read out of the payloads
 * of their entries.
 */

export const HEAD_COLUMNS = `j.id, j.number, j.stage, j.complaint, j.promise, j.estimate_minor AS "estimateMinor", j.hold, j.version,
         j.booked_at AS "bookedAt", j.closed_at AS "closedAt", j.sheet_revision_id AS "sheetRevisionId", j.scope,
         json_build_object('id', u.id, 'name', u.name, 'serial', u.serial) AS unit,
         json_build_object('id', m.id, 'name', m.name, 'serial', m.serial) AS machine,
         json_build_object('id', c.id, 'name', c.name, 'phone', c.phone) AS customer`;
export const HEAD_FROM = `FROM job j JOIN unit u ON u.id = j.unit_id JOIN machine m ON m.id = u.machine_id JOIN customer c ON c.id = m.customer_id`;
const HEAD = `SELECT ${HEAD_COLUMNS} ${HEAD_FROM}`;

const PAGE = 50;
/** So many stand on Today; the rest is with its machines. */
const MOST_OWED_SOON = 20;
/** Enough for a middle and a spread. */
const MOST_EARLIER_JOBS = 30;
export const PAGE_OF_ALL: Statement = {
  name: 'job-page',
  text: `${HEAD} WHERE ($1::int IS NULL OR j.number < $1) ORDER BY j.number DESC LIMIT ${PAGE}`,
};
/** Each piece of the search goes by an index of its own; what it finds is paged by number. */
export const PAGE_FOUND: Statement = {
  name: 'job-page-found',
  text: `WITH units AS (
      SELECT id FROM unit WHERE name ILIKE $2 OR serial ILIKE $2
      UNION SELECT unit.id FROM unit JOIN machine ON machine.id = unit.machine_id WHERE machine.name || ' ' || machine.serial ILIKE $2
      UNION SELECT unit.id FROM unit JOIN machine ON machine.id = unit.machine_id JOIN customer ON customer.id = machine.customer_id
        WHERE customer.name ILIKE $2 OR ($3::text <> '' AND regexp_replace(customer.phone, '\\D', '', 'g') LIKE '%' || $3 || '%')),
    found AS (
      SELECT id FROM job WHERE complaint ILIKE $2
      UNION SELECT id FROM job WHERE $4::text <> '' AND number::text LIKE $4
      UNION SELECT job.id FROM job JOIN units ON units.id = job.unit_id)
    ${HEAD} JOIN found ON found.id = j.id WHERE ($1::int IS NULL OR j.number < $1) ORDER BY j.number DESC LIMIT ${PAGE}`,
};
export const ONE_HEAD: Statement = { name: 'job-head', text: `${HEAD} WHERE j.id = $1` };
export const OWED_SOON: Statement = {
  name: 'owed-soon',
  text: `SELECT o.*, count(*) OVER ()::int AS "all" FROM (${OPEN_OWED}) o
         WHERE o.due <= (SELECT to_char((now() AT TIME ZONE zone) + interval '30 days', 'YYYY-MM-DD') FROM shop) ORDER BY o.due, o."jobNumber" LIMIT ${MOST_OWED_SOON}`,
};
export const OWED_OF_CUSTOMER: Statement = {
  name: 'owed-of-customer',
  text: `SELECT o.* FROM (${OPEN_OWED}) o JOIN machine m ON m.id = o."machineId" WHERE m.customer_id = $1 ORDER BY o.due, o."jobNumber"`,
};
export const PEOPLE: Statement = {
  name: 'people',
  text: `SELECT p.id, p.name, p.login, p.role, ${LICENCES_OF_P} AS licences FROM person p ORDER BY p.name`,
};
export const TOOLS: Statement = {
  name: 'tools',
  text: 'SELECT id, tag, name, kind, quantity, unit, low, high, resolution, u, s, length, calibration_due::text AS "calibrationDue", retired::text FROM tool ORDER BY tag',
};

const jsonOf = (query: string): string => `(SELECT coalesce(json_agg(found), '[]')::text FROM (${query}) found)`;

/** `LastJob`, of a job that goes by `b`. */
const LAST = `json_build_object('id', b.id, 'number', b.number, 'closedAt', b.closed_at, 'sheetRevisionId', b.sheet_revision_id, 'scope', b.scope)`;

/**
 * A job's head and what stands around its entries on its page, in one round trip: people, tools, the approved revision after the one
 * that it goes by, what its machine owes from before, each as JSON; and the last job of the unit that was handed over.
 */
export const AROUND_JOB: Statement = {
  name: 'around-job',
  text: `SELECT head.*, ${jsonOf(PEOPLE.text)} AS people, ${jsonOf(TOOLS.text)} AS tools,
      ${jsonOf(`SELECT o.* FROM (${OPEN_OWED}) o WHERE o."machineId" = u.machine_id AND o."jobId" <> j.id ORDER BY o.due, o."jobNumber"`)} AS owed,
      (SELECT json_build_object('revisionId', n.id, 'revision', n.revision)::text FROM sheet_revision n
        WHERE n.key = s.key AND n.status = 'approved' AND n.revision > s.revision) AS newer,
      (SELECT ${LAST}
        FROM job b WHERE b.unit_id = j.unit_id AND b.booked_at < j.booked_at AND b.closed_at IS NOT NULL ORDER BY b.booked_at DESC LIMIT 1) AS last
    FROM (${HEAD} WHERE j.id = $1) head JOIN job j ON j.id = head.id
      JOIN unit u ON u.id = j.unit_id JOIN sheet_revision s ON s.id = j.sheet_revision_id`,
};

/** The last job of unit $1 that was handed over, where it went by the same sheet as revision $2, whichever of its revisions that was. */
export const LAST_OF_UNIT: Statement = {
  name: 'last-of-unit',
  text: `SELECT ${LAST} AS last
    FROM (SELECT * FROM job WHERE unit_id = $1 AND closed_at IS NOT NULL ORDER BY booked_at DESC LIMIT 1) b
      JOIN sheet_revision s ON s.id = b.sheet_revision_id JOIN sheet_revision own ON own.key = s.key WHERE own.id = $2`,
};

/** Earlier jobs of a unit, the newest first, with what was renewed and why. */
export const HISTORY_OF_UNIT: Statement = {
  name: 'history-of-unit',
  // Out of each sheet its parts are read once, and not for each job that goes by it.
  text: `WITH mine AS (
      SELECT j.id, j.number, j.booked_at, j.closed_at, j.complaint, j.scope, s.id AS sheet, s.key
      FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id WHERE j.unit_id = $1 ORDER BY j.booked_at DESC LIMIT 20),
    file AS MATERIALIZED (
      SELECT id AS sheet, file->'parts' AS parts, file->'seals' AS seals FROM sheet_revision WHERE id IN (SELECT sheet FROM mine)),
    part AS MATERIALIZED (SELECT sheet, p->>'ref' AS ref, p->>'name' AS name FROM file, jsonb_array_elements(parts) p),
    seal AS MATERIALIZED (
      SELECT sheet, s->>'ref' AS ref, part.name FROM file CROSS JOIN jsonb_array_elements(seals) s JOIN part USING (sheet) WHERE part.ref = s->>'part')
    SELECT j.id, j.number, j.booked_at AS "bookedAt", j.closed_at AS "closedAt", j.complaint, j.key AS "sheetKey", j.scope,
           coalesce((SELECT json_agg(json_build_object('part', coalesce(part.name, e.payload->>'part'), 'reason', e.payload->>'reason', 'cause', e.payload->'cause') ORDER BY e.seq)
              FROM entry e LEFT JOIN part ON part.sheet = j.sheet AND part.ref = regexp_replace(e.payload->>'part', '--.*$', '')
              WHERE e.job_id = j.id AND e.kind = 'decision' AND e.payload->>'fate' = 'renew'
                AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)), '[]') AS renewed,
           coalesce((SELECT json_agg(json_build_object('part', coalesce(seal.name, e.payload->>'seal'), 'why', e.payload->>'why') ORDER BY e.seq)
              FROM entry e LEFT JOIN seal ON seal.sheet = j.sheet AND seal.ref = regexp_replace(e.payload->>'seal', '--.*$', '')
              WHERE e.job_id = j.id AND e.kind = 'old-seal-out' AND e.payload->>'why' <> 'sound'
                AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)), '[]') AS seals
    FROM mine j ORDER BY j.booked_at DESC`,
};

/** What earlier jobs of the same unit read, the newest first. */
export const READ_BEFORE: Statement = {
  name: 'read-before',
  text: `SELECT e.payload->>'limit' AS "limit", b.number AS "jobNumber", e.taken_at AS at,
      e.payload->'readings' AS readings, e.payload->'warm' AS warm
    FROM job j JOIN job b ON b.unit_id = j.unit_id AND b.booked_at < j.booked_at JOIN entry e ON e.job_id = b.id AND e.kind = 'reading'
    WHERE j.id = $1 AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id) ORDER BY e.taken_at DESC LIMIT 500`,
};

/** Entries of the kinds in $2 of other jobs of the same sheet, those of the newest jobs first. */
export const WORKED_BEFORE: Statement = {
  name: 'worked-before',
  text: `WITH others(other, since) AS (
      SELECT b.id, b.booked_at FROM job j JOIN sheet_revision own ON own.id = j.sheet_revision_id
        JOIN sheet_revision s ON s.key = own.key JOIN job b ON b.sheet_revision_id = s.id AND b.id <> j.id
      WHERE j.id = $1 ORDER BY b.booked_at DESC LIMIT ${MOST_EARLIER_JOBS})
    SELECT ${ENTRY_COLUMNS} FROM entry e JOIN others ON other = e.job_id
    WHERE e.kind = ANY ($2::text[]) AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
    ORDER BY since DESC, e.seq`,
};

/** Enough for every step of a model, the newest of each first. */
const MOST_KNOW_HOW = 300;
/** Of a tool that was made: its pictures, and how often it served and did not; nothing of anything else. */
const OF_MADE = `CASE WHEN e.kind = 'tool-made' THEN json_build_object(
      'pictures', (SELECT coalesce(json_agg(f.payload ORDER BY f.seq), '[]') FROM entry f WHERE f.job_id = e.job_id AND f.kind = 'photo' AND f.payload->>'of' = e.id::text
        AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = f.id)),
      'served', (SELECT count(*)::int FROM entry u WHERE u.kind = 'tool-served' AND u.payload->>'tool' = e.id::text AND u.payload->>'how' = 'served'
        AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = u.id)),
      'failed', (SELECT count(*)::int FROM entry u WHERE u.kind = 'tool-served' AND u.payload->>'tool' = e.id::text AND u.payload->>'how' <> 'served'
        AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = u.id))) END AS made`;
/** What every job made, with the step and the model that it was made for. */
export const MADE_TOOLS: Statement = {
  name: 'made-tools',
  text: `SELECT e.id, e.payload AS tool, b.id AS "jobId", b.number AS "jobNumber", p.name AS person, ${iso('e.taken_at')} AS at, s.title AS model,
      (SELECT line->>'title' FROM jsonb_array_elements(s.file->'steps') lines(line) WHERE line->>'ref' = regexp_replace(e.step, '--.*$', '')) AS step, ${OF_MADE}
    FROM entry e JOIN job b ON b.id = e.job_id JOIN sheet_revision s ON s.id = b.sheet_revision_id JOIN person p ON p.id = e.person_id
    WHERE e.kind = 'tool-made' AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
    ORDER BY e.taken_at DESC LIMIT 500`,
};

/** Notes, clips, photos and made tools that stand at a step of other jobs of the same sheet; a photo of something else is that job's own. */
export const KNOW_HOW: Statement = {
  name: 'know-how',
  text: `SELECT e.id, regexp_replace(e.step, '--.*$', '') AS step, json_build_object('kind', e.kind, 'payload', e.payload) AS kept,
      b.id AS "jobId", b.number AS "jobNumber", p.name AS person, ${iso('e.taken_at')} AS at, ${OF_MADE}
    FROM job j JOIN sheet_revision own ON own.id = j.sheet_revision_id JOIN sheet_revision s ON s.key = own.key
      JOIN job b ON b.sheet_revision_id = s.id AND b.id <> j.id JOIN entry e ON e.job_id = b.id JOIN person p ON p.id = e.person_id
    WHERE j.id = $1 AND e.step IS NOT NULL AND e.kind IN ('note', 'clip', 'photo', 'tool-made') AND NOT e.payload ? 'of'
      AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
    ORDER BY e.taken_at DESC LIMIT ${MOST_KNOW_HOW}`,
};

/** Of the jobs of this job's sheet that were handed over: how many came back within a year. */
export const COMEBACKS: Statement = {
  name: 'comebacks',
  text: `SELECT count(*)::int AS "handedOver",
      count(*) FILTER (WHERE EXISTS (SELECT 1 FROM job b WHERE b.unit_id = j.unit_id AND b.booked_at > j.closed_at AND b.booked_at < j.closed_at + interval '1 year'))::int AS "cameBack"
    FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id
    WHERE j.closed_at IS NOT NULL AND s.key = (SELECT own.key FROM job here JOIN sheet_revision own ON own.id = here.sheet_revision_id WHERE here.id = $1)`,
};
