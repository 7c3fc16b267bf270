// ./jubb bench soak: many tablets record while the server and the database are killed again and again.
import { spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { clearTimeout, setTimeout as after } from 'node:timers';
import { setTimeout as wait } from 'node:timers/promises';
import { v7 as uuid } from 'uuid';
import { logIn } from './demo-shop.mjs';
import { bookHub } from './demo-work.mjs';
import { freePort, startPostgres, stopPostgres } from './postgres.mjs';
import { Stop, say } from './say.mjs';
import { ROOT, checkMachine, ensureBuild, ensureNodeModules } from './setup.mjs';

const FULL = { tablets: 100, kills: 11, killEveryMs: 10_000 };
const LOGINS = ['ilka', 'bram', 'oswin', 'perla', 'joss'];
const TABLETS_A_JOB = 5;
const RETRY_MS = 400;
const MOST_IN_BATCH = 50;
/** Of so many sendings the tablet never hears the answer. */
const ANSWER_LOST = 0.1;
const PATIENCE_MS = 60_000;

export async function benchSoak() {
  checkMachine();
  ensureNodeModules();
  ensureBuild();
  const { problems, ...figures } = await soak(FULL);
  for (const [what, figure] of Object.entries(figures)) say(`${what.padEnd(44)} ${figure}`);
  for (const problem of problems) say(`wrong: ${problem}`);
  say(JSON.stringify({ ...figures, problems }));
  if (problems.length > 0) throw new Stop('Entries were lost, doubled or out of order');
}

/**
 * Tablets that each record an entry a second, with a server that is killed so many times and a
 * database that is killed once in the middle; what is wrong afterwards, in words.
 */
export async function soak({ tablets: count, kills, killEveryMs }) {
  const folder = mkdtempSync(join(tmpdir(), 'jubb-soak-'));
  chmodSync(folder, 0o755);
  const { url } = await startPostgres(folder);
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  let server = await serve(url, port);
  try {
    const calls = [];
    for (const login of LOGINS) calls.push(await logIn(base, login));
    const jobIds = await bookIn(calls[0], Math.ceil(count / TABLETS_A_JOB));
    const tablets = Array.from({ length: count }, (_, at) => new Tablet(calls[at % calls.length], jobIds[at % jobIds.length], at));
    let isOver = false;
    const work = tablets.map((tablet, at) => tablet.work(() => isOver, (at * 1000) / count));
    const middle = Math.floor(kills / 2);
    for (let round = 0; round < kills; round += 1) {
      await wait(killEveryMs);
      server.kill('SIGKILL');
      if (round === middle) {
        stopPostgres(folder, 'immediate');
        await startPostgres(folder);
      }
      server = await serve(url, port);
    }
    await wait(killEveryMs);
    isOver = true;
    await Promise.all(work);
    const problems = (await Promise.all(jobIds.map((id) => check(calls[0], id, tablets)))).flat();
    const sum = (of) => tablets.reduce((total, tablet) => total + of(tablet), 0);
    return {
      'tablets, on jobs': `${count}, ${jobIds.length}`,
      'entries recorded': sum(({ made }) => made.length),
      'servers killed, databases killed': `${kills}, 1`,
      'sendings that failed': sum(({ failed }) => failed),
      'entries sent again although they were kept': sum(({ again }) => again),
      'longest that one was held, s': (Math.max(...tablets.map(({ longestMs }) => longestMs)) / 1000).toFixed(1),
      'entries still held in the end': sum(({ held }) => held.length),
      problems,
    };
  } finally {
    server.kill('SIGKILL');
    stopPostgres(folder, 'immediate');
    rmSync(folder, { recursive: true, force: true });
  }
}

async function serve(url, port) {
  const child = spawn(process.execPath, [join(ROOT, 'apps/server/dist/main.js')], {
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
    const late = after(() => reject(new Error('the server did not come up')), PATIENCE_MS);
    child.stdout.on('data', (chunk) => {
      if (!chunk.toString().includes('listening ')) return;
      clearTimeout(late);
      resolve();
    });
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

/** What is wrong with a job's book: entries missing, twice, out of their tablet's order, or a chain that is not whole. */
async function check(call, jobId, tablets) {
  const { entries } = await call('GET', `/jobs/${jobId}`);
  const chain = await call('GET', `/jobs/${jobId}/chain`);
  const order = new Map(entries.map(({ id, seq }) => [id, seq]));
  const problems = [];
  if (order.size !== entries.length) problems.push(`job ${jobId}: ${entries.length - order.size} entries are there twice`);
  if (!chain.whole) problems.push(`job ${jobId}: the chain breaks at ${chain.brokenAt}`);
  for (const { made, number } of tablets.filter((tablet) => tablet.jobId === jobId)) {
    const seqs = made.map((id) => order.get(id));
    const missing = seqs.filter((seq) => seq === undefined).length;
    if (missing > 0) problems.push(`tablet ${number}: ${missing} of ${made.length} entries are missing`);
    if (seqs.some((seq, at) => at > 0 && seq <= seqs[at - 1])) problems.push(`tablet ${number}: its entries are not in order`);
  }
  return problems;
}
