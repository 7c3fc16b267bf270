// ./jubb bench years: the shop with two years behind it, against the SQL that each of its places needs.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import pg from 'pg';
import { logIn, withDemoShop } from './demo-shop.mjs';
import { median } from './figures.mjs';
import { say } from './say.mjs';
import { ensureBuild, home } from './setup.mjs';

const ROUNDS = 41;
const HEADS = `SELECT j.*, u.name, u.serial, m.name, m.serial, c.name, c.phone FROM job j JOIN unit u ON u.id = j.unit_id
  JOIN machine m ON m.id = u.machine_id JOIN customer c ON c.id = m.customer_id`;

/** Each place by what it asks of the server, and the SQL that a good engineer would write for it. */
const PLACES = (unit) => [
  // What the road itself takes: the same road, and a row that is read by its key.
  ['the road itself', '/demo/sights', 'SELECT words, path FROM demo_sight ORDER BY place', []],
  ['Today', '/today', `${HEADS} JOIN sheet_revision s ON s.id = j.sheet_revision_id WHERE j.closed_at IS NULL ORDER BY j.promise`, []],
  ['first page of the jobs', '/jobs', `${HEADS} ORDER BY j.number DESC LIMIT 50`, []],
  ['jobs that hold a word', '/jobs?find=squeals', `${HEADS} WHERE j.complaint ILIKE $1 ORDER BY j.number DESC LIMIT 50`, ['%squeals%']],
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
  [
    'history of a unit',
    `/units/${unit}/history`,
    `SELECT j.*, s.key, (SELECT json_agg(json_build_object('part', e.payload->>'part', 'reason', e.payload->>'reason', 'cause', e.payload->'cause')) FROM entry e
       WHERE e.job_id = j.id AND e.kind = 'decision' AND e.payload->>'fate' = 'renew') FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id
       WHERE j.unit_id = $1 ORDER BY j.booked_at DESC LIMIT 20`,
    [unit],
  ],
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
      for (const [what, path, sql, values] of PLACES(rows[0].unit_id)) {
        const [ours, bare] = [[], []];
        await call('GET', path);
        for (let round = 0; round < ROUNDS; round += 1) {
          ours.push(await timed(() => call('GET', path)));
          bare.push(await timed(() => pool.query({ name: what, text: sql, values })));
        }
        const [here, there] = [median(ours), median(bare)];
        say(
          `${what.padEnd(28)} ${here.toFixed(2).padStart(8)} ms ${there.toFixed(2).padStart(8)} ms ${(here / there).toFixed(2).padStart(6)}  at most 1.5`,
        );
      }
      for (const path of EVERY_PAGE) await call('GET', path);
      for (const { id } of await call('GET', '/jobs')) await call('GET', `/jobs/${id}`);
      say(`memory of the server after every page: ${memoryMb()} MB`);
    } finally {
      await pool.end();
    }
  }, 'full');
}

async function timed(act) {
  const began = performance.now();
  await act();
  return performance.now() - began;
}

/** Resident memory of the server that the state file names: what keeps it up has it as its child. */
function memoryMb() {
  const { pid } = JSON.parse(readFileSync(join(home(), 'server.json'), 'utf8'));
  const child = Number(readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ')[0]);
  const status = readFileSync(`/proc/${child || pid}/status`, 'utf8');
  return Math.round(Number(/VmRSS:\s+(\d+)/u.exec(status)?.[1] ?? 0) / 1024);
}
