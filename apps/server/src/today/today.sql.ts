import type { Statement } from '../database/data-source.js';
import { ENTRY_COLUMNS } from '../entries/entries.sql.js';
import { HEAD_COLUMNS, HEAD_FROM } from '../jobs/jobs.sql.js';

/** By hand: what every open job is known by is asked with every look at Today, and is one text of five tables. */

const KEY = `concat_ws('|', j.last_seq, j.version, j.sheet_revision_id, s.version, u.name, m.name, c.name)`;
const OPEN = `${HEAD_FROM} JOIN sheet_revision s ON s.id = j.sheet_revision_id WHERE j.closed_at IS NULL`;
export const ALL: Statement = { name: 'today-all', text: `SELECT j.id, ${KEY} AS key ${OPEN} ORDER BY j.promise, j.number` };
export const SOME: Statement = { name: 'today-some', text: `SELECT j.id, ${KEY} AS key ${OPEN} AND j.id = ANY ($1::uuid[])` };
export const FULL: Statement = {
  name: 'today-full',
  text: `SELECT ${HEAD_COLUMNS}, j.last_seq AS "lastSeq", ${KEY} AS key ${OPEN} AND j.id = ANY ($1::uuid[])`,
};
export const ENTRIES: Statement = {
  name: 'today-entries',
  text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = ANY ($1::uuid[]) ORDER BY job_id, seq`,
};
