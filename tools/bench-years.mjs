// ./jubb bench years: the shop with two years behind it, against the SQL that each of its places needs: behind plain http, and alone.
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import pg from 'pg';
import { ask, logIn, withDemoShop } from './demo-shop.mjs';
import { median } from './figures.mjs';
import { say } from './say.mjs';
import { ensureBuild, home } from './setup.mjs';

const ROUNDS = 101;
/** Asked so often first, on both sides: a shop's server has been asked before. */
const WARM = 200;
const HEADS = `SELECT j.*, u.name, u.serial, m.name, m.serial, c.name, c.phone FROM job j JOIN unit u ON u.id = j.unit_id
  JOIN machine m ON m.id = u.machine_id JOIN customer c ON c.id = m.customer_id`;

/** Each place by what it asks of the server, and the SQL that a good engineer would write for it; what takes a page of it is the product's own. */
const placesOf = (unit, { found, history }) => [
  // What the road itself takes: the same road, and a row that is read by its key.
  ['the road itself', '/demo/sights', 'SELECT words, path FROM demo_sight ORDER BY place', []],
  ['Today', '/today', `${HEADS} JOIN sheet_revision s ON s.id = j.sheet_revision_id WHERE j.closed_at IS NULL ORDER BY j.promise`, []],
  ['first page of the jobs', '/jobs', `${HEADS} ORDER BY j.number DESC LIMIT 50`, []],
  ['jobs that hold a word', '/jobs?find=squeals', found, [null, '%squeals%', '', '']],
  ['stores, first page', '/stock', 'SELECT * FROM stock_item ORDER BY number LIMIT 50', []],
  [
    'stores by two words',
    '/stock?find=seal%20ring',
    "SELECT * FROM stock_item WHERE words LIKE '%seal%' AND words LIKE '%ring%' ORDER BY number LIMIT 50",
    [],
  ],
  [
    'sheets by two words',
    '/sheets/find?text=splinters%20shoulder',
    `SELECT id FROM sheet_revision WHERE status IN ('approved', 'draft') AND lexemes @@ to_tsquery('simple', 'splinters:* & shoulder:*') ORDER BY title LIMIT 100`,
    [],
  ],
  ['history of a unit', `/units/${unit}/history`, history, [unit]],
];

const EVERY_PAGE = [
  '/today',
  '/jobs',
  '/sheets',
  '/stock',
  '/stock/shims',
  '/orders',
  '/tools',
  '/instruments',
  '/quotes/open',
  '/demo/sights',
];

export async function benchYears() {
  ensureBuild();
  const began = performance.now();
  await withDemoShop(async ({ base, url }) => {
    say(`first start, the demo and its database made: ${((performance.now() - began) / 1000).toFixed(1)} s`);
    const pool = new pg.Pool({ connectionString: url, max: 4 });
    try {
      const call = await logIn(base, 'oswin');
      const { rows } = await pool.query('SELECT unit_id FROM job GROUP BY unit_id ORDER BY count(*) DESC, unit_id LIMIT 1');
      const { HISTORY_OF_UNIT, PAGE_FOUND } = await import('../apps/server/dist/jobs/jobs.sql.js');
      const places = placesOf(rows[0].unit_id, { found: PAGE_FOUND.text, history: HISTORY_OF_UNIT.text });
      const bare = await bareRoad(
        url,
        places.map(([, , text, values]) => ({ text, values })),
      );
      try {
        const plain = (at) => ask(`http://127.0.0.1:${bare.port}`, 'GET', `/${at}`, {});
        for (const [at, [what, path, text, values]] of places.entries()) {
          const alone = () => pool.query({ name: what, text, values });
          const [ours, road, sql] = await sideBySide([() => call('GET', path), () => plain(at), alone]);
          const figures = [ours, road, sql].map((ms) => `${ms.toFixed(2).padStart(8)} ms`).join(' ');
          say(`${what.padEnd(28)} ${figures} ${(ours / road).toFixed(2).padStart(6)}  at most 1.5`);
        }
      } finally {
        bare.child.disconnect();
      }
      for (const path of EVERY_PAGE) await call('GET', path);
      for (const { id } of await call('GET', '/jobs')) await call('GET', `/jobs/${id}`);
      say(`memory of the server after every page: ${memoryMb()} MB`);
    } finally {
      await pool.end();
    }
  }, 'full');
}

/** Medians, ms, of acts that are done in turn, so that what else the machine does falls on each. */
async function sideBySide(acts) {
  const times = acts.map(() => []);
  for (let round = -WARM; round < ROUNDS; round += 1)
    for (const [at, act] of acts.entries()) {
      const began = performance.now();
      await act();
      if (round >= 0) times[at].push(performance.now() - began);
    }
  return times.map(median);
}

/** A server of its own that answers with the rows of these statements, by their place. */
async function bareRoad(url, statements) {
  const child = fork(new URL('bare-road.mjs', import.meta.url));
  child.send({ url, statements });
  const [{ port }] = await once(child, 'message');
  return { child, port };
}

/** Resident memory of the server that the state file names: what keeps it up has it as its child. */
function memoryMb() {
  const { pid } = JSON.parse(readFileSync(join(home(), 'server.json'), 'utf8'));
  const child = Number(readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ')[0]);
  const status = readFileSync(`/proc/${child || pid}/status`, 'utf8');
  return Math.round(Number(/VmRSS:\s+(\d+)/u.exec(status)?.[1] ?? 0) / 1024);
}
