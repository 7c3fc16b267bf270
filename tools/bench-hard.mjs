// ./jubb bench hard: the worst that may be asked, fifty thousand requests, and a minute of guessing.
import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { logIn, withDemoShop } from './demo-shop.mjs';
import { bookHub } from './demo-work.mjs';
import { share } from './figures.mjs';
import { say } from './say.mjs';
import { checkMachine, ensureBuild, ensureNodeModules } from './setup.mjs';

const REQUESTS = 50_000;
const LOOKS = 5;
const CLIENTS = 8;
const GUESSING_MS = 60_000;

export async function benchHard() {
  checkMachine();
  ensureNodeModules();
  ensureBuild();
  const figures = await withDemoShop(async ({ base, url }) => {
    const oswin = await logIn(base, 'oswin');
    const pool = new pg.Pool({ connectionString: url, max: 1 });
    try {
      return { ...(await worst(base, oswin)), ...(await memory(oswin)), ...(await guessing(base, pool)) };
    } finally {
      await pool.end();
    }
  });
  for (const [what, figure] of Object.entries(figures)) say(`${what.padEnd(72)} ${figure}`);
  say(JSON.stringify(figures));
}

const fields = (count) => Object.fromEntries(Array.from({ length: count }, (_, at) => [`k${at}`, at]));
const manyfold = (file, count) =>
  Object.fromEntries(
    Object.entries(file).map(([name, held]) => [
      name,
      Array.isArray(held) && held[0]?.ref
        ? Array.from({ length: count }, (_, at) => held.map((line) => (at === 0 ? line : { ...line, ref: `${line.ref}-c${at}` }))).flat()
        : held,
    ]),
  );

/** The longest that health took to answer while each of these was on its way, ms. */
async function worst(base, call) {
  const sheet = (await call('GET', '/sheets')).find(({ key }) => key === 'harrowmere-th6-front-hub');
  const { file } = await call('GET', `/sheets/${sheet.revisionId}`);
  const { revisionId } = await call('POST', `/sheets/${sheet.revisionId}/draft`, {});
  const { version } = await call('GET', `/sheets/${revisionId}`);
  const nobody = (path, body) =>
    fetch(`${base}/api/v1${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-jubb-csrf': 'none' },
      body: JSON.stringify(body),
    }).then((answer) => answer.arrayBuffer());
  const anchors = `a:\n${Array.from({ length: 4000 }, (_, at) => `  - {k${at}: &a${at} [1, 2, 3], b: *a${at}}`).join('\n')}`;
  const asks = {
    'nothing else': () => wait(500),
    '1.1 MB of unknown fields from nobody': () => nobody('/session', { login: 'x', password: 'y', ...fields(90_000) }),
    'all the fields that nobody may send': () => nobody('/session', { login: 'x', password: 'y', ...fields(290) }),
    'an offer answered with 2 000 lines left out': () =>
      nobody('/offers/x/answer', { answer: 'yes', without: Array.from({ length: 2000 }, (_, at) => at) }),
    'a YAML that was 6 s to read': () => call('POST', '/sheets/import', { text: anchors }),
    'a sheet file of a hundred sheets': () => call('POST', '/sheets/import', { text: JSON.stringify(manyfold(file, 100)) }),
    'a draft of a hundred sheets': () => call('PUT', `/sheets/${revisionId}`, { version, file: manyfold(file, 100) }),
    'a table of 300 000 values': () =>
      call('PUT', `/sheets/${revisionId}`, { version, file: { ...file, more: Array.from({ length: 2000 }, () => fields(145)) } }),
  };
  const figures = {};
  for (const [what, ask] of Object.entries(asks)) figures[`longest that health took, ms: ${what}`] = (await silence(base, ask)).toFixed(0);
  return figures;
}

/** Asked from a thread of its own: what this one is at does not count. */
const WATCH = `
  const { parentPort, workerData } = require('node:worker_threads');
  let longest = 0;
  let over = false;
  parentPort.once('message', () => { over = true; });
  (async () => {
    while (!over) {
      const began = performance.now();
      await fetch(workerData + '/api/v1/health').then((answer) => answer.arrayBuffer());
      longest = Math.max(longest, performance.now() - began);
      parentPort.postMessage({ seen: true });
      await new Promise((resolve) => setTimeout(resolve, 2));
    }
    parentPort.postMessage({ longest });
  })();`;

async function silence(base, ask) {
  const watch = new Worker(WATCH, { eval: true, workerData: base });
  await new Promise((resolve) => watch.once('message', resolve));
  const longest = new Promise((resolve) => {
    watch.on('message', (told) => told.longest !== undefined && resolve(told.longest));
  });
  await ask().catch(() => undefined);
  watch.postMessage('over');
  const figure = await longest;
  await watch.terminate();
  return figure;
}

/** What the server holds after each fifth of fifty thousand requests, MB. */
async function memory(call) {
  const id = await bookHub(call, 'Held in memory');
  const held = [];
  const asks = [
    () => call('GET', '/today'),
    () => call('GET', `/jobs/${id}`),
    () => call('GET', '/stock?find=seal'),
    () => call('GET', '/health'),
    () => call('POST', '/workings/thread.pitch/run', {}).catch(() => undefined),
    () => call('GET', `/jobs/${uuid()}`).catch(() => undefined),
  ];
  for (let look = 0; look < LOOKS; look += 1) {
    let left = REQUESTS / LOOKS;
    await Promise.all(
      Array.from({ length: CLIENTS }, async () => {
        while (left > 0) {
          left -= 1;
          await asks[left % asks.length]();
        }
      }),
    );
    held.push(serverMb());
  }
  return { [`memory after each fifth of ${REQUESTS} requests, MB`]: held.join(', ') };
}

/** The server is the child of what keeps it up. */
function serverMb() {
  const { pid } = JSON.parse(readFileSync(`${process.env.JUBB_HOME}/server.json`, 'utf8'));
  const [server] = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ');
  return Math.round(Number(/VmRSS:\s+(\d+)/u.exec(readFileSync(`/proc/${server}/status`, 'utf8'))[1]) / 1024);
}

/** How many guesses at one person are looked at in a minute, from so many places at once; all others wait. */
async function guessing(base, pool) {
  const guess = async (login, what) => {
    const answer = await fetch(`${base}/api/v1/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-jubb-csrf': 'none' },
      body: JSON.stringify({ login, password: what }),
    });
    await answer.arrayBuffer();
    return answer.status;
  };
  const statuses = [];
  const took = [];
  const until = performance.now() + GUESSING_MS;
  await Promise.all(
    Array.from({ length: CLIENTS }, async (_, client) => {
      while (performance.now() < until) {
        const began = performance.now();
        statuses.push(await guess('bram', `guess ${client} ${statuses.length}`));
        took.push(performance.now() - began);
      }
    }),
  );
  const { rows } = await pool.query("SELECT words FROM notice WHERE topic LIKE 'tries:password:%'");
  return {
    'guesses at one password in a minute': statuses.length,
    'of them looked at': statuses.filter((status) => status === 401).length,
    'of them told to wait, 95 of 100 within ms': share(took, 0.95).toFixed(0),
    'told to the person and the foreman': rows.length,
  };
}
