import { kindsThat } from '@jubb/book';
import type { Statement } from '../database/data-source.js';

/**
 * By hand: the list and a whole sheet go out as the JSON that the database makes of them (a sheet has some 100 kB), and
 * what is looked for in text goes by an index of trigrams.
 */

const LINE = `s.key, s.id AS "revisionId", s.revision, s.status, s.title, s.family, s.make, s.model, s.machine, s.complete`;
const JOBS = `(SELECT count(*)::int FROM job j WHERE j.sheet_revision_id = s.id AND j.closed_at IS NULL) AS jobs`;

export const LIST: Statement = {
  name: 'sheet-list',
  text: `SELECT ${LINE}, s.words FROM sheet_revision s WHERE s.status IN ('approved', 'draft') ORDER BY s.title, s.revision`,
};
export const ONE: Statement = {
  name: 'sheet-one',
  text: `SELECT ${LINE}, s.file, s.hash, s.version, e.name AS "editedBy", s.edited_at AS "editedAt",
                p.name AS "approvedBy", s.approved_at AS "approvedAt", ${JOBS}
         FROM sheet_revision s LEFT JOIN person p ON p.id = s.approved_by LEFT JOIN person e ON e.id = s.edited_by WHERE s.id = $1`,
};
/** Every word of $1 is in the text, or begins one that is. */
export const FIND: Statement = {
  name: 'sheet-find',
  text: `SELECT s.id FROM sheet_revision s WHERE s.status IN ('approved', 'draft') AND s.lexemes @@ words_begin($1) ORDER BY s.title LIMIT 100`,
};
export const REVISIONS: Statement = {
  name: 'sheet-revisions',
  text: `SELECT s.id AS "revisionId", s.revision, s.status, s.hash, p.name AS "approvedBy", s.approved_at AS "approvedAt", ${JOBS}
         FROM sheet_revision s LEFT JOIN person p ON p.id = s.approved_by WHERE s.key = $1 ORDER BY s.revision DESC`,
};

/** What tells the approved sheets of a family, or of all, apart: a few fields of each file, and not the file. */
export const IDENTITIES: Statement = {
  name: 'sheet-identities',
  text: `SELECT key, id AS "revisionId",
      jsonb_strip_nulls(jsonb_build_object('title', title, 'family', family, 'features', file->'features', 'variants', file->'variants')) AS file
    FROM sheet_revision WHERE status = 'approved' AND ($1::text = '' OR family = $1) ORDER BY title`,
};

/** The kinds that propose something for the sheet. */
export const PROPOSES = kindsThat(({ proposes }) => proposes === true).toSorted();

/** What was proposed for a sheet, of every revision, and nobody has settled; the oldest first. The kinds word for word as the index has them. */
export const OPEN_PROPOSALS: Statement = {
  name: 'open-proposals',
  text: `SELECT e.id AS "entryId", j.id AS "jobId", j.number AS "jobNumber", p.name AS person, e.taken_at AS "takenAt", coalesce(e.payload->>'text', e.payload->>'source') AS text,
              e.payload->>'list' AS list, regexp_replace(e.payload->>'line', '--.*$', '') AS line,
              CASE WHEN e.kind = 'value-found' THEN e.payload->'figures'
                   WHEN e.payload ? 'figure' THEN jsonb_build_array(jsonb_build_object('field', e.payload->'field', 'figure', e.payload->'figure'))
                   ELSE '[]' END AS figures
       FROM sheet_revision s
       JOIN sheet_revision r ON r.key = s.key
       JOIN job j ON j.sheet_revision_id = r.id
       JOIN entry e ON e.job_id = j.id AND e.kind IN (${PROPOSES.map((kind) => `'${kind}'`).join(', ')})
       JOIN person p ON p.id = e.person_id
       WHERE s.id = $1 AND NOT EXISTS (SELECT 1 FROM proposal_settled t WHERE t.entry_id = e.id)
         AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
       ORDER BY e.taken_at`,
};
