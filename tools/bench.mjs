// ./jubb bench: how Jubb stands against the bare thing beneath it, side by side in one run.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { firstScreen, letterTyped, manyEntries, memoryOfAStrip, stepToStep, sealDrawn } from './bench-browser.mjs';
import { enter, logIn, withDemoShop } from './demo-shop.mjs';
import { bookHub } from './demo-work.mjs';
import { median } from './figures.mjs';
import { plainClient } from './plain-http.mjs';
import { Stop, remark, say } from './say.mjs';
import { CHROMIUM, ROOT, checkMachine, ensureBuild, ensureDebian, ensureNodeModules } from './setup.mjs';

const ROUNDS = 5;
const ROUND_MS = 1500;
const MOST_CLIENTS = 32;
const WARM_MS = 10_000;

/** What is measured, by the name that `--only` takes; the long ones only when they are asked for, or with `--all`. */
const MEASURED = {
  'posting-1': { run: ({ base, pool, jobIds }) => posting(base, pool, jobIds, 1) },
  'posting-32': { run: ({ base, pool, jobIds }) => posting(base, pool, jobIds, MOST_CLIENTS) },
  'job-page': { run: ({ ilka, pool }) => jobPage(ilka, pool) },
  told: { run: ({ ilka, jobIds }) => told(ilka, jobIds[0]) },
  import: { run: ({ base }) => imported(base) },
  'first-screen': { run: ({ base }) => firstScreen(base) },
  'warm-start': { run: () => warmStart() },
  step: { run: ({ base }) => stepToStep(base) },
  drawing: { run: ({ base }) => sealDrawn(base) },
  entries: { run: ({ base }) => manyEntries(base) },
  scale: { run: ({ ilka, pool }) => atScale(ilka, pool), long: true },
  // Types in the list of the sheets that 'scale' has made.
  letter: { run: ({ base }) => letterTyped(base, MANY_SHEETS), long: true, after: 'scale' },
  memory: { run: ({ base }) => memoryOfAStrip(base), long: true },
};

/** `--only NAME` one of them, `--all` the long ones too; each line is printed as it is measured. */
export async function bench(args = []) {
  const only = args.includes('--only') ? args[args.indexOf('--only') + 1] : undefined;
  if (only !== undefined && !(only in MEASURED)) throw new Stop(`"${only}" is not measured; there are ${Object.keys(MEASURED).join(', ')}`);
  const isWanted = ([name, { long = false }]) =>
    only === undefined ? !long || args.includes('--all') : name === only || MEASURED[only].after === name;
  checkMachine();
  ensureNodeModules();
  ensureDebian([CHROMIUM]);
  ensureBuild();
  const rows = [];
  await withDemoShop(async ({ base, url }) => {
    const pool = new pg.Pool({ connectionString: url, max: MOST_CLIENTS });
    try {
      const shop = { base, pool, ilka: await logIn(base, 'ilka'), jobIds: await bookInMany(base) };
      await pool.query('CREATE TABLE bench_entry (LIKE entry INCLUDING ALL)');
      for (const [, { run }] of Object.entries(MEASURED).filter(isWanted))
        for (const row of [await run(shop)].flat()) {
          rows.push(row);
          sayRow(row);
        }
    } finally {
      await pool.end();
    }
  });
  say(JSON.stringify(rows));
}

function sayRow({ what, ours, bare = '', ratio, aim }) {
  const figures = [ours.padStart(14), bare.padStart(14), (ratio === undefined ? '' : ratio.toFixed(2)).padStart(6)];
  say([what.padEnd(58), ...figures, aim].join('  '));
}

/** What another tablet that has the job open is sent for one pull: the event, and the entry that it asks for. */
async function told(call, jobId) {
  const { entries } = await call('GET', `/jobs/${jobId}`);
  const pull = {
    joint: 'wheel-nuts',
    pass: 1,
    place: 5,
    torque: 32.4,
    result: 'clicked',
    wrenchLength: 450,
    adapterLength: 55,
    adapterAngle: 30,
  };
  const takenAt = new Date().toISOString();
  await call('POST', `/jobs/${jobId}/entries`, { entries: [{ id: uuid(), kind: 'pull', payload: pull, step: 'wheel-nuts', takenAt }] });
  const more = await call('GET', `/jobs/${jobId}/entries?after=${entries.length}`);
  const event = `data: ${JSON.stringify({ type: 'entries', jobId, seq: entries.length + 1 })}\n\n`;
  const bytes = Buffer.byteLength(event) + Buffer.byteLength(JSON.stringify(more));
  return { what: 'one pull reaching another open tablet', ours: `${bytes} B`, aim: 'at most 2000 B' };
}

/** A sheet of about 1 100 lines looked at before it is brought in. */
async function imported(base) {
  const foreman = await logIn(base, 'oswin');
  const text = readFileSync(join(ROOT, 'apps/server/demo/sheets/ostrel-d44-drive-axle.yaml'), 'utf8');
  const look = () => foreman('POST', '/sheets/import', { text, look: true });
  await look();
  const ms = await timed(look, 9);
  return { what: `a sheet of ${text.split('\n').length} lines looked at`, ours: `${ms.toFixed(0)} ms`, aim: 'at most 250 ms' };
}

/** Runs all in turn, round by round, so that what else the machine does falls on each; medians. */
async function sideBySide(acts) {
  const measured = acts.map(() => []);
  for (const act of acts) await act();
  for (let round = 0; round < ROUNDS; round += 1) for (const [index, act] of acts.entries()) measured[index].push(await act());
  return measured.map(median);
}

async function bookInMany(base) {
  const perla = await logIn(base, 'perla');
  const ids = [];
  for (let index = 0; index < MOST_CLIENTS; index += 1) ids.push(await bookHub(perla, `Measured ${index}`));
  return ids;
}

/** Acts a second of so many clients, each doing one after the other. */
async function rate(clients, act, ms = ROUND_MS) {
  let done = 0;
  const began = performance.now();
  const until = began + ms;
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      while (performance.now() < until) {
        await act(client);
        done += 1;
      }
    }),
  );
  return (done * 1000) / (performance.now() - began);
}

const COLUMNS = 'id, job_id, seq, kind, payload, person_id, taken_at, content_hash, prev_hash, hash';
let lastSeq = 0;

/**
 * Each client on a job of its own, as tablets are; one entry a request. Against the same insert
 * (locked, numbered, chained, each id once) by plain pg, and against a bare row into a like table; by a server that has
 * been at work for a while, as every one has but in its first minute.
 */
async function posting(base, pool, jobIds, clients) {
  const { headers } = await enter(base, 'ilka');
  const tablets = jobIds.map(() => plainClient(base, headers));
  const [{ id: person }] = (await pool.query("SELECT id FROM person WHERE login = 'ilka'")).rows;
  const payload = {
    joint: 'wheel-nuts',
    pass: 1,
    place: 3,
    torque: 32.4,
    result: 'clicked',
    wrenchLength: 450,
    adapterLength: 55,
    adapterAngle: 30,
  };
  const takenAt = new Date().toISOString();
  const hashOf = (text) => createHash('sha256').update(text).digest('hex');
  const post = async (client) => {
    const entries = [{ id: uuid(), kind: 'pull', payload, step: 'wheel-nuts', takenAt }];
    const status = await tablets[client].post(`/api/v1/jobs/${jobIds[client]}/entries`, { entries });
    if (status !== 200) throw new Error(`an entry was answered with ${status}`);
  };
  const same = (client) => {
    const content = { id: uuid(), kind: 'pull', payload, working: null, step: 'wheel-nuts', toolId: null, strikes: null, takenAt };
    const batch = JSON.stringify([{ ...content, contentHash: hashOf(JSON.stringify(content)) }]);
    return pool.query('SELECT * FROM keep_entries($1, $2, $3)', [jobIds[client], person, batch]);
  };
  const row = (client) => {
    const text = JSON.stringify(payload);
    const hash = hashOf(text);
    const values = [uuid(), jobIds[client], (lastSeq += 1), 'pull', text, person, takenAt, hash, hash, hash];
    return pool.query(`INSERT INTO bench_entry (${COLUMNS}) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`, values);
  };
  await rate(MOST_CLIENTS, post, WARM_MS);
  const [ours, chained, bare] = await sideBySide([post, same, row].map((act) => () => rate(clients, act)));
  for (const tablet of tablets) tablet.end();
  const who = `${clients} ${clients === 1 ? 'client' : 'clients'}`;
  const line = (what, other, aim) => ({ what, ours: `${ours.toFixed(0)}/s`, bare: `${other.toFixed(0)}/s`, ratio: ours / other, aim });
  return [
    line(`posting entries, ${who}, against the same insert by pg`, chained, clients === 1 ? 'at least 0.4' : 'at least 0.5'),
    line(`posting entries, ${who}, against a bare row`, bare, 'reported'),
  ];
}

/** The data of a job page, against the SQL that it needs. */
async function jobPage(call, pool) {
  const { id } = (await call('GET', '/jobs')).find((job) => job.number === 401);
  const ours = async () => timed(() => call('GET', `/jobs/${id}`));
  const bare = async () =>
    timed(async () => {
      const [{ sheet_revision_id: sheet }] = (
        await pool.query(
          'SELECT j.*, u.name, u.serial, m.name, m.serial, c.name, c.phone FROM job j JOIN unit u ON u.id = j.unit_id JOIN machine m ON m.id = u.machine_id JOIN customer c ON c.id = m.customer_id WHERE j.id = $1',
          [id],
        )
      ).rows;
      const [entries, people, tools, sheets] = await Promise.all([
        pool.query('SELECT * FROM entry WHERE job_id = $1 ORDER BY seq', [id]),
        pool.query('SELECT id, name, login, role FROM person ORDER BY name'),
        pool.query('SELECT * FROM tool ORDER BY tag'),
        pool.query('SELECT file, revision FROM sheet_revision WHERE id = $1', [sheet]),
      ]);
      return [entries.rows, people.rows, tools.rows, sheets.rows];
    });
  const [page, sql] = await sideBySide([ours, bare]);
  return {
    what: 'data of a job page, against the SQL it needs',
    ours: `${page.toFixed(2)} ms`,
    bare: `${sql.toFixed(2)} ms`,
    ratio: page / sql,
    aim: 'at most 1.5',
  };
}

/** Median time of one of many calls, ms. */
async function timed(act, rounds = 60) {
  const times = [];
  for (let count = 0; count < rounds; count += 1) {
    const began = performance.now();
    await act();
    times.push(performance.now() - began);
  }
  return median(times);
}

const MANY_SHEETS = 2000;
const MANY_JOBS = 20_000;

/** List, search and open in a shop of 2 000 sheets and 20 000 jobs, against the SQL that each needs. */
async function atScale(call, pool) {
  await pool.query(
    `INSERT INTO sheet_revision (key, revision, status, file, hash, complete, approved_at)
     SELECT key || '-' || n, 1, 'approved', file || jsonb_build_object('key', key || '-' || n, 'title', (file->>'title') || ' ' || n), hash || n, complete, now()
     FROM (SELECT key, file, hash, complete, row_number() OVER (ORDER BY key) AS r FROM sheet_revision WHERE status = 'approved') s,
          generate_series(1, $1::int) n WHERE n % (SELECT count(*) FROM sheet_revision WHERE status = 'approved') = r - 1`,
    [MANY_SHEETS],
  );
  await pool.query(
    `INSERT INTO job (id, unit_id, sheet_revision_id, complaint, promise, estimate_minor, closed_at)
     SELECT gen_random_uuid(), u.id, s.id, 'Grinds in bend ' || n, now() + n * interval '1 minute', n, now()
     FROM generate_series(1, $1::int) n
     JOIN (SELECT id, row_number() OVER (ORDER BY id) - 1 AS r, count(*) OVER () AS all FROM unit) u ON u.r = n % u.all
     JOIN (SELECT id, row_number() OVER (ORDER BY id) - 1 AS r, count(*) OVER () AS all FROM sheet_revision) s ON s.r = n % s.all`,
    [MANY_JOBS],
  );
  await pool.query('ANALYZE');
  const { rows } = await pool.query("SELECT id FROM sheet_revision WHERE key LIKE 'quennet-ga-alternator-%' LIMIT 1");
  const id = rows[0].id;
  const list = `SELECT key, id, revision, status, title, family, make, model, machine, complete, words FROM sheet_revision WHERE status IN ('approved', 'draft') ORDER BY title, revision`;
  const heads = `SELECT j.*, u.name, u.serial, m.name, m.serial, c.name, c.phone FROM job j JOIN unit u ON u.id = j.unit_id JOIN machine m ON m.id = u.machine_id JOIN customer c ON c.id = m.customer_id`;
  const pairs = [
    [`list of ${MANY_SHEETS} sheets`, '/sheets', list, [], 8],
    [
      'sheets that hold two words',
      '/sheets/find?text=splinters%20shoulder',
      `SELECT id FROM sheet_revision WHERE status IN ('approved', 'draft') AND lexemes @@ to_tsquery('simple', $1) ORDER BY title LIMIT 100`,
      ['splinters:* & shoulder:*'],
      40,
    ],
    [
      'one sheet opened',
      `/sheets/${id}`,
      'SELECT s.*, (SELECT count(*) FROM job j WHERE j.sheet_revision_id = s.id AND j.closed_at IS NULL) FROM sheet_revision s WHERE s.id = $1',
      [id],
      40,
    ],
    [`first page of ${MANY_JOBS} jobs`, '/jobs', `${heads} ORDER BY j.number DESC LIMIT 50`, [], 40],
    [
      'jobs that hold a word',
      '/jobs?find=bend%2019',
      // What a good engineer would ask of the index that holds it.
      `${heads} WHERE j.complaint ILIKE $1 ORDER BY j.number DESC LIMIT 50`,
      ['%bend 19%'],
      20,
    ],
  ];
  const lines = [];
  for (const [what, path, sql, values, times] of pairs) {
    const [ours, bare] = await sideBySide([() => timed(() => call('GET', path), times), () => timed(() => pool.query(sql, values), times)]);
    lines.push({
      what: `${what}, against its SQL`,
      ours: `${ours.toFixed(2)} ms`,
      bare: `${bare.toFixed(2)} ms`,
      ratio: ours / bare,
      aim: 'at most 2',
    });
  }
  return lines;
}

/** A second `./jubb start` beside the running one. */
function warmStart() {
  const times = Array.from({ length: ROUNDS }, () => {
    const began = performance.now();
    const { status, stderr } = spawnSync(join(ROOT, 'jubb'), ['start'], { encoding: 'utf8', env: process.env });
    if (status !== 0) remark(stderr);
    return performance.now() - began;
  });
  return { what: 'warm ./jubb start', ours: `${(median(times) / 1000).toFixed(2)} s`, aim: 'reported' };
}
