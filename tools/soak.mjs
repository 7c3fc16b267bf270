// ./jubb bench soak: tablets record while one server is killed, another loses its listener, and the database is killed under it.
import { spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { clearTimeout, setTimeout as after } from 'node:timers';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { chainProblems } from './chain.mjs';
import { logIn, openPage } from './demo-shop.mjs';
import { bookHub } from './demo-work.mjs';
import { freePort, startPostgres, stopPostgres } from './postgres.mjs';
import { Stop, say } from './say.mjs';
import { ROOT, checkMachine, ensureBuild, ensureNodeModules } from './setup.mjs';

const FULL = { tablets: 40, seconds: 600, killEveryS: 15, killDatabaseEveryS: 60, cutListenerEveryS: 20 };
const LOGINS = ['ilka', 'bram', 'oswin', 'perla', 'joss'];
const TABLETS_A_JOB = 5;
const RETRY_MS = 400;
const MOST_IN_BATCH = 50;
/** Of so many sendings the tablet never hears the answer. */
const ANSWER_LOST = 0.1;
const PATIENCE_MS = 60_000;
/** The first one of a database makes the demo, on a machine that may be busy with more. */
const UP_MS = 240_000;
/** A page makes its link anew after so long, as a browser does. */
const PAGE_RETRY_MS = 1000;

export async function benchSoak() {
  checkMachine();
  ensureNodeModules();
  ensureBuild();
  const { problems, ...figures } = await soak(FULL);
  for (const [what, figure] of Object.entries(figures)) say(`${what.padEnd(52)} ${figure}`);
  for (const problem of problems) say(`wrong: ${problem}`);
  say(JSON.stringify({ ...figures, problems }));
  if (problems.length > 0) throw new Stop('Entries were lost, doubled or out of order');
}

/**
 * Tablets that each record an entry a second on two servers of one shop. The first server is killed again and again; the
 * second is to stand all the time, though the database is killed under it and its listener is cut. What is wrong
 * afterwards, in words; the chains are worked out by a program of their own.
 */
export async function soak({ tablets: count, seconds, killEveryS, killDatabaseEveryS, cutListenerEveryS }) {
  const folder = mkdtempSync(join(tmpdir(), 'jubb-soak-'));
  chmodSync(folder, 0o755);
  const { url } = await startPostgres(folder);
  const servers = [];
  const pages = [];
  try {
    servers.push(await server(url));
    servers.push(await server(url));
    const [first, second] = servers;
    const bases = [first.base, second.base];
    const calls = [];
    for (const login of LOGINS) calls.push(await logIn(second.base, login));
    const jobIds = await bookIn(calls[0], Math.ceil(count / TABLETS_A_JOB));
    const tablets = [];
    for (let at = 0; at < count; at += 1) {
      const call = await logIn(bases[at % 2], LOGINS[at % LOGINS.length]);
      tablets.push(new Tablet(call, jobIds[at % jobIds.length], at));
    }
    for (const base of bases) pages.push(new Page(base));
    let isOver = false;
    const work = tablets.map((tablet, at) => tablet.work(() => isOver, (at * 1000) / count));
    const done = { killed: 0, databases: 0, cut: 0 };
    for (let at = 1; at <= seconds; at += 1) {
      await wait(1000);
      if (at % killEveryS === 0) {
        await first.kill();
        done.killed += 1;
      }
      if (at % killDatabaseEveryS === 0) {
        stopPostgres(folder, 'immediate');
        await startPostgres(folder);
        done.databases += 1;
      }
      if (at % cutListenerEveryS === 0) {
        await cutListener(url);
        done.cut += 1;
      }
    }
    isOver = true;
    await Promise.all(work);
    const longestSilenceMs = Math.max(...pages.map((page) => page.close()));
    const stands = second.isAlive() ? [] : ['the server that nobody killed has ended'];
    const problems = [...stands, ...(await checkAll(url, jobIds, tablets))];
    const sum = (of) => tablets.reduce((total, tablet) => total + of(tablet), 0);
    return {
      'tablets, on jobs': `${count}, ${jobIds.length}`,
      'entries recorded': sum(({ made }) => made.length),
      'servers killed, databases killed, listeners cut': `${done.killed}, ${done.databases}, ${done.cut}`,
      'sendings that failed': sum(({ failed }) => failed),
      'entries sent again although they were kept': sum(({ again }) => again),
      'longest that one was held, s': (Math.max(...tablets.map(({ longestMs }) => longestMs)) / 1000).toFixed(1),
      'longest silence of a page, s': (longestSilenceMs / 1000).toFixed(1),
      'entries still held in the end': sum(({ held }) => held.length),
      problems,
    };
  } finally {
    for (const page of pages) page.close();
    for (const one of servers) one.end();
    stopPostgres(folder, 'immediate');
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A server of the shop that can be killed, and then stands again at the same place. */
async function server(url) {
  const port = await freePort();
  let child = await serve(url, port);
  return {
    base: `http://127.0.0.1:${port}`,
    isAlive: () => child.exitCode === null && child.signalCode === null,
    end: () => child.kill('SIGKILL'),
    async kill() {
      child.kill('SIGKILL');
      child = await serve(url, port);
    },
  };
}

/** Cuts what the servers hear changes by; they are to listen anew. */
async function cutListener(url) {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.query("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE application_name = 'jubb-stream'");
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** A page that hears of changes, and how long it heard nothing. */
class Page {
  #longestMs = 0;
  #heardAt = Date.now();
  #isOver = false;
  #link;

  constructor(base) {
    void this.#open(base);
  }

  async #open(base) {
    while (!this.#isOver) {
      try {
        const ended = new Promise((resolve) => {
          openPage(base, LOGINS[0], () => this.#hear(), resolve).then((link) => {
            this.#link = link;
          }, resolve);
        });
        await ended;
      } catch {
        // It tries again, as a browser does.
      }
      await wait(PAGE_RETRY_MS);
    }
  }

  #hear() {
    this.#longestMs = Math.max(this.#longestMs, Date.now() - this.#heardAt);
    this.#heardAt = Date.now();
  }

  /** Gives the longest silence, ms. */
  close() {
    this.#isOver = true;
    this.#link?.close();
    return this.#longestMs;
  }
}

async function serve(url, port) {
  const child = spawn(process.execPath, [join(ROOT, 'apps/server/dist/main.js'), '--demo', 'small'], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      NODE_ENV: 'production',
      JUBB_DATABASE_URL: url,
      JUBB_PORT: String(port),
      JUBB_REQUESTS_PER_10S: '1000000',
    },
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  await new Promise((resolve, reject) => {
    const late = after(() => {
      child.kill('SIGKILL');
      reject(new Error('the server did not come up'));
    }, UP_MS);
    const up = () => {
      clearTimeout(late);
      resolve();
    };
    child.stdout.on('data', (chunk) => chunk.toString().includes('listening ') && up());
    // Ended before it listened: the database was away just then, and the next kill begins it anew.
    child.once('exit', up);
  });
  return child;
}

async function bookIn(call, count) {
  const ids = [];
  for (let at = 0; at < count; at += 1) ids.push(await bookHub(call, `Soaked ${at}`));
  return ids;
}

/** What a tablet's outbox does: keeps, sends in order, and lets go only of what the server has. */
class Tablet {
  made = [];
  held = [];
  failed = 0;
  again = 0;
  longestMs = 0;

  constructor(call, jobId, number) {
    this.call = call;
    this.jobId = jobId;
    this.number = number;
  }

  async work(isOver, offsetMs) {
    await wait(offsetMs);
    const sending = this.#sendAll(isOver);
    while (!isOver()) {
      const entry = this.#record();
      this.made.push(entry.id);
      this.held.push(entry);
      await wait(1000);
    }
    await sending;
  }

  #record() {
    const text = `tablet ${this.number}, entry ${this.made.length + 1}`;
    const common = { id: uuid(), takenAt: new Date().toISOString() };
    return this.made.length % 3 === 0
      ? { ...common, kind: 'came-off', payload: { name: text, count: 1 } }
      : { ...common, kind: 'note', payload: { text } };
  }

  async #sendAll(isOver) {
    let overSince;
    for (;;) {
      if (isOver()) overSince ??= Date.now();
      if (overSince !== undefined && (this.held.length === 0 || Date.now() > overSince + PATIENCE_MS)) return;
      const batch = this.held.slice(0, MOST_IN_BATCH);
      if (batch.length === 0) {
        await wait(100);
        continue;
      }
      try {
        await this.call('POST', `/jobs/${this.jobId}/entries`, { entries: batch });
        if (Math.random() < ANSWER_LOST) {
          this.again += batch.length;
          continue;
        }
        this.longestMs = Math.max(this.longestMs, Date.now() - Date.parse(batch[0].takenAt));
        this.held = this.held.slice(batch.length);
      } catch {
        this.failed += 1;
        await wait(RETRY_MS);
      }
    }
  }
}

/** What is wrong with the books of the jobs: entries missing, twice, out of their tablet's order, or a chain that is not whole. */
async function checkAll(url, jobIds, tablets) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const problems = [];
  for (const jobId of jobIds) {
    problems.push(...(await chainProblems(client.query.bind(client), jobId)));
    const { rows } = await client.query('SELECT id, seq::int AS seq FROM entry WHERE job_id = $1', [jobId]);
    const order = new Map(rows.map(({ id, seq }) => [id, seq]));
    const made = new Set(tablets.flatMap((tablet) => (tablet.jobId === jobId ? tablet.made : [])));
    const more = rows.filter(({ id }) => !made.has(id)).length;
    if (order.size !== rows.length) problems.push(`job ${jobId}: ${rows.length - order.size} entries are there twice`);
    if (more > 0) problems.push(`job ${jobId}: ${more} entries that no tablet made`);
    for (const { made: own, number } of tablets.filter((tablet) => tablet.jobId === jobId)) {
      const seqs = own.map((id) => order.get(id));
      const missing = seqs.filter((seq) => seq === undefined).length;
      if (missing > 0) problems.push(`tablet ${number}: ${missing} of ${own.length} entries are missing`);
      if (seqs.some((seq, at) => at > 0 && seq <= seqs[at - 1])) problems.push(`tablet ${number}: its entries are not in order`);
    }
  }
  await client.end();
  return problems;
}
