// The chain of a job's entries, worked out from what the database holds with nothing of the server: a second opinion.
import { createHash } from 'node:crypto';
import pg from 'pg';

const sha256 = (text) => createHash('sha256').update(text).digest('hex');

/** JSON as RFC 8785 has it: names in the order of their UTF-16 units, figures as ECMAScript writes them, no blanks. */
export function canonical(value) {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  const names = Object.keys(value).sort((one, other) => (one < other ? -1 : one > other ? 1 : 0));
  return `{${names.map((name) => `${JSON.stringify(name)}:${canonical(value[name])}`).join(',')}}`;
}

const INSTANT = `to_char(taken_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

/** What is wrong with the chain of a job, in words; nothing when it is whole. `query` asks the database. */
export async function chainProblems(query, jobId) {
  const { rows } = await query(
    `SELECT id, job_id, person_id, kind, version, payload, working, step, tool_id, strikes, ${INSTANT} AS taken_at, seq::int AS seq, prev_hash, hash
     FROM entry WHERE job_id = $1 ORDER BY seq`,
    [jobId],
  );
  let before = '';
  for (const [at, row] of rows.entries()) {
    const content = {
      id: row.id,
      jobId: row.job_id,
      personId: row.person_id,
      kind: row.kind,
      ...(row.version === 1 ? {} : { version: row.version }),
      payload: row.payload,
      working: row.working,
      step: row.step,
      toolId: row.tool_id,
      strikes: row.strikes,
      takenAt: row.taken_at,
    };
    if (row.seq !== at + 1) return [`job ${jobId}: entry ${at + 1} is numbered ${row.seq}`];
    if (row.prev_hash !== before) return [`job ${jobId}: entry ${row.seq} does not follow the one before`];
    if (row.hash !== sha256(`${before}:${row.seq}:${sha256(canonical(content))}`))
      return [`job ${jobId}: entry ${row.seq} is not what its hash says`];
    before = row.hash;
  }
  return [];
}

/** What is wrong with the chains of all jobs, in words; none when they are whole. */
export async function everyChain(url) {
  const pool = new pg.Pool({ connectionString: url, max: 4 });
  try {
    const { rows } = await pool.query('SELECT id FROM job');
    const problems = [];
    for (const { id } of rows) problems.push(...(await chainProblems((text, values) => pool.query(text, values), id)));
    return problems;
  } finally {
    await pool.end();
  }
}
