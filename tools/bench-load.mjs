// ./jubb bench load: a large shop at work, and Today over a thousand open jobs.
import { performance } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { openPage, logIn, withDemoShop } from './demo-shop.mjs';
import { bookHub } from './demo-work.mjs';
import { median, share } from './figures.mjs';
import { say } from './say.mjs';
import { CHROMIUM, checkMachine, ensureBuild, ensureDebian, ensureNodeModules } from './setup.mjs';

const OPEN_JOBS = 200;
const TABLETS = 100;
const SECONDS = 60;
const WARM_UP_S = 10;
const MANY_OPEN = 1000;
const LOGINS = ['ilka', 'bram', 'oswin', 'perla', 'joss'];
const ROUNDS = 15;

export async function benchLoad() {
  checkMachine();
  ensureNodeModules();
  ensureDebian([CHROMIUM]);
  ensureBuild();
  const figures = await withDemoShop(async ({ base, url }) => {
    const pool = new pg.Pool({ connectionString: url, max: 2 });
    try {
      const calls = [];
      for (const login of LOGINS) calls.push(await logIn(base, login));
      const ids = await openJobs(calls[0], pool, OPEN_JOBS);
      const load = await atWork(base, calls, ids);
      await openJobs(calls[0], pool, MANY_OPEN - OPEN_JOBS);
      return { ...load, ...(await todayAgainstItsSql(calls[0], pool)) };
    } finally {
      await pool.end();
    }
  });
  for (const [what, figure] of Object.entries(figures)) say(`${what.padEnd(66)} ${figure}`);
  say(JSON.stringify(figures));
}

/** So many jobs more, each with the book of a demo job that is in the middle of its work. */
async function openJobs(call, pool, count) {
  const {
    rows: [middle],
  } = await pool.query('SELECT id FROM job WHERE number = 402');
  const first = await bookHub(call, 'Loaded');
  const { rows } = await pool.query(
    `INSERT INTO job (id, unit_id, sheet_revision_id, complaint, promise, estimate_minor, last_seq, last_hash, stage)
     SELECT gen_random_uuid(), b.unit_id, m.sheet_revision_id, 'For measuring ' || n, now() + n * interval '1 hour', 100, m.last_seq, m.last_hash, m.stage
     FROM job m, job b, generate_series(1, $3::int) n WHERE m.id = $1 AND b.id = $2 RETURNING id`,
    [middle.id, first, count - 1],
  );
  const ids = rows.map(({ id }) => id);
  await pool.query(
    `INSERT INTO entry (id, job_id, seq, kind, payload, working, step, tool_id, person_id, taken_at, content_hash, prev_hash, hash)
     SELECT gen_random_uuid(), j, seq, kind, payload, working, step, tool_id, person_id, taken_at, content_hash, prev_hash, hash
     FROM entry, unnest($2::uuid[]) j WHERE job_id = $1 AND strikes IS NULL`,
    [middle.id, ids],
  );
  await pool.query('ANALYZE');
  return [first, ...ids];
}

/** Tablets at one entry a second each, each with a page that hears what changes and asks for what it does not have. */
async function atWork(base, calls, ids) {
  const tablets = [];
  for (let at = 0; at < TABLETS; at += 1)
    tablets.push(await tablet(base, calls[at % calls.length], LOGINS[at % calls.length], ids[at % ids.length]));
  const took = [];
  const began = performance.now();
  const loop = watchTurns(calls[0]);
  await Promise.all(
    tablets.map(async (one, at) => {
      await wait((at * 1000) / TABLETS);
      for (let second = 0; second < WARM_UP_S + SECONDS; second += 1) {
        const due = began + (at * 1000) / TABLETS + second * 1000;
        await wait(Math.max(0, due - performance.now()));
        const ms = await one.record();
        if (second >= WARM_UP_S) took.push(ms);
      }
    }),
  );
  const turns = await loop.stop();
  for (const one of tablets) one.close();
  const lag = tablets.flatMap(({ lags }) => lags);
  return {
    [`${TABLETS} tablets, ${OPEN_JOBS} open jobs: entries kept`]: took.length,
    'an entry, median ms (aim 50)': median(took).toFixed(1),
    'an entry, 95 of 100 within ms (aim 250)': share(took, 0.95).toFixed(1),
    'health beside it, 99 of 100 within ms': share(turns, 0.99).toFixed(1),
    'a change heard by the other page, median ms': median(lag).toFixed(0),
    'a change heard by the other page, 95 of 100 within ms': share(lag, 0.95).toFixed(0),
    'told to a page a second, kB': (tablets.reduce((sum, { bytes }) => sum + bytes(), 0) / TABLETS / (WARM_UP_S + SECONDS) / 1000).toFixed(
      0,
    ),
  };
}

/** One that records on a job, and whose page hears of all. */
async function tablet(base, call, login, jobId) {
  await call('GET', '/today');
  let { length } = (await call('GET', `/jobs/${jobId}`)).entries;
  const lags = [];
  const page = await openPage(base, login, (event) => {
    if (event.type === 'today') {
      const at = event.lines.find((line) => line.jobId === jobId)?.last?.at;
      if (at) lags.push(Date.now() - Date.parse(at));
    }
    if (event.type === 'entries' && event.jobId === jobId && event.seq > length)
      void call('GET', `/jobs/${jobId}/entries?after=${length}`).then((more) => {
        length += more.length;
      });
  });
  return {
    lags,
    bytes: page.bytes,
    close: page.close,
    async record() {
      const began = performance.now();
      const takenAt = new Date().toISOString();
      const [{ seq }] = await call('POST', `/jobs/${jobId}/entries`, {
        entries: [{ id: uuid(), kind: 'note', payload: { text: 'turned' }, takenAt }],
      });
      length = Math.max(length, seq);
      return performance.now() - began;
    },
  };
}

/** How long the server takes to say that it is there, which it does from its memory and one small question. */
function watchTurns(call) {
  const took = [];
  let over = false;
  const asking = (async () => {
    while (!over) {
      const began = performance.now();
      await call('GET', '/health');
      took.push(performance.now() - began);
      await wait(20);
    }
  })();
  return {
    async stop() {
      over = true;
      await asking;
      return took;
    },
  };
}

/** The heads of the open jobs, what is owed, tools and people: all that the database must be asked for. */
async function todayAgainstItsSql(call, pool) {
  const today = await call('GET', '/today');
  const heads = `SELECT j.id, j.number, j.stage, j.promise, j.hold, j.version, j.last_seq, j.scope, j.sheet_revision_id, u.name, m.name, c.name,
    (SELECT s.version FROM sheet_revision s WHERE s.id = j.sheet_revision_id)
    FROM job j JOIN unit u ON u.id = j.unit_id JOIN machine m ON m.id = u.machine_id JOIN customer c ON c.id = m.customer_id WHERE j.closed_at IS NULL ORDER BY j.promise, j.number`;
  const ours = [];
  const bare = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    let began = performance.now();
    await call('GET', '/today');
    ours.push(performance.now() - began);
    began = performance.now();
    await pool.query(heads);
    await pool.query('SELECT * FROM tool');
    await pool.query('SELECT id, name, login, role FROM person');
    bare.push(performance.now() - began);
  }
  return {
    'open jobs on Today': today.lines.length,
    'Today, median ms': median(ours).toFixed(1),
    'its SQL, median ms': median(bare).toFixed(1),
    'Today against its SQL (aim 1.5)': (median(ours) / median(bare)).toFixed(2),
  };
}
