// ./jubb bench stores: shelves of a large shop against their SQL, and the cheapest cover against a solver.
import { performance } from 'node:perf_hooks';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { logIn, withDemoShop } from './demo-shop.mjs';
import { median } from './figures.mjs';
import { say } from './say.mjs';
import { checkMachine, ensureBuild, ensureNodeModules } from './setup.mjs';

const MANY_LINES = 50_000;
const MANY_MOVEMENTS = 1_000_000;
const ROUNDS = 5;
const NEEDS = 60;
const KITS = 200;
const SEEDS = 20;

export async function benchStores() {
  checkMachine();
  ensureNodeModules();
  ensureBuild();
  await withDemoShop(async ({ base, url }) => {
    const pool = new pg.Pool({ connectionString: url, max: 4 });
    try {
      const perla = await logIn(base, 'perla');
      await fill(pool);
      for (const { what, ours, bare } of await shelves(perla, pool))
        say(`${what.padEnd(46)} ${ours.toFixed(2)} ms ${bare.toFixed(2)} ms  ${(ours / bare).toFixed(2)}  at most 2`);
    } finally {
      await pool.end();
    }
  });
  await cover();
}

async function fill(pool) {
  await pool.query(
    `INSERT INTO stock_item (number, name, kind, unit, designation, location, minimum, price_minor, on_hand)
     SELECT 'N-' || n, 'Ring ' || (n % 977) || ' of ' || (n % 31), 'seal', 'piece', 'D' || (n % 5000), 'A' || (n % 40), 2, n % 9000, 1000
     FROM generate_series(1, $1::int) n`,
    [MANY_LINES],
  );
  await pool.query(
    `INSERT INTO stock_movement (id, item_id, kind, quantity, on_hand_after, person_id, taken_at)
     SELECT gen_random_uuid(), i.id, CASE WHEN n % 2 = 0 THEN 'receive' ELSE 'issue' END, 1, 1000, p.id, now() - n * interval '1 second'
     FROM generate_series(1, $1::int) n
     JOIN (SELECT id, row_number() OVER (ORDER BY number) - 1 AS r FROM stock_item) i ON i.r = n % $2 CROSS JOIN (SELECT id FROM person LIMIT 1) p`,
    [MANY_MOVEMENTS, MANY_LINES],
  );
  await pool.query('ANALYZE');
}

async function shelves(call, pool) {
  const { rows } = await pool.query("SELECT id FROM stock_item WHERE number = 'N-777'");
  const [{ id: person }] = (await pool.query('SELECT id FROM person LIMIT 1')).rows;
  const [{ id: job }] = (await pool.query('SELECT id FROM job WHERE closed_at IS NULL LIMIT 1')).rows;
  const item = rows[0].id;
  const columns = 'id, number, name, kind, unit, size, designation, location, minimum, price_minor, on_hand, reserved';
  const reserve = () => ({ id: uuid(), kind: 'reserve', quantity: 1, jobId: job, takenAt: new Date().toISOString() });
  const pairs = [
    ['first page', () => call('GET', '/stock'), () => pool.query(`SELECT ${columns} FROM stock_item ORDER BY number LIMIT 50`)],
    [
      'lines that hold two words',
      () => call('GET', '/stock?find=ring%20412'),
      () => pool.query(`SELECT ${columns} FROM stock_item WHERE words LIKE ALL (ARRAY['%ring%', '%412%']) ORDER BY number LIMIT 50`),
    ],
    [
      'reserve one, and the line as it stands then',
      () => call('POST', `/stock/${item}/moves`, reserve()),
      async () => {
        await pool.query('SELECT (move_stock($1, $2, $3)).id', [JSON.stringify(reserve()), item, person]);
        await Promise.all([
          pool.query(`SELECT ${columns} FROM stock_item WHERE id = $1`, [item]),
          pool.query('SELECT * FROM stock_movement WHERE item_id = $1 ORDER BY seq DESC LIMIT 100', [item]),
          pool.query('SELECT batch, sum(quantity) FROM stock_movement WHERE item_id = $1 AND batch IS NOT NULL GROUP BY batch', [item]),
          pool.query('SELECT * FROM stock_reservation WHERE item_id = $1', [item]),
        ]);
      },
    ],
  ];
  const lines = [];
  for (const [what, ours, bare] of pairs) {
    const measured = [[], []];
    for (let round = 0; round <= ROUNDS; round += 1)
      for (const [index, act] of [ours, bare].entries()) {
        const time = await timed(act);
        // The first round warms both.
        if (round > 0) measured[index].push(time);
      }
    lines.push({ what: `${what}, ${MANY_LINES} lines, against its SQL`, ours: median(measured[0]), bare: median(measured[1]) });
  }
  return lines;
}

async function timed(act, times = 30) {
  const taken = [];
  for (let count = 0; count < times; count += 1) {
    const began = performance.now();
    await act();
    taken.push(performance.now() - began);
  }
  return median(taken);
}

/** Kits as suppliers make them: some of the assemblies of one unit, nearly all of each, in its numbers. */
function question(random) {
  const needs = Array.from({ length: NEEDS }, () => 1 + Math.floor(random() * random() * 8));
  const singles = needs.map((_, need) => ({ id: `s${need}`, price: 100 + Math.floor(random() * 2500), brings: [{ need, pieces: 1 }] }));
  const kits = Array.from({ length: KITS }, (_, kit) => {
    const assemblies = new Set();
    const size = 1 + Math.floor(random() * random() * 6);
    while (assemblies.size < size) assemblies.add(Math.floor(random() * 12));
    const brings = [...assemblies].flatMap((assembly) =>
      Array.from({ length: 5 }, (_part, index) => assembly * 5 + index)
        .filter(() => random() < 0.85)
        .map((need) => ({ need, pieces: random() < 0.9 ? needs[need] : Math.max(1, needs[need] - 1) })),
    );
    const full = brings.reduce((sum, { need, pieces }) => sum + singles[need].price * pieces, 0);
    return { id: `k${kit}`, price: Math.max(1, Math.round(full * (0.55 + random() * 0.5))), brings };
  });
  return { needs, offers: [...kits.filter(({ brings }) => brings.length > 0), ...singles] };
}

async function cover() {
  const { cheapestCover, seeded } = await import('../packages/core/dist/index.js');
  const { default: highs } = await import('highs');
  const solver = await highs();
  const ours = [];
  const theirs = [];
  let same = 0;
  for (let seed = 1; seed <= SEEDS; seed += 1) {
    const { needs, offers } = question(seeded(seed));
    const programme = [
      'Minimize',
      offers.map(({ price }, index) => `${price} x${index}`).join(' + '),
      'Subject To',
      ...needs.map(
        (pieces, need) =>
          `n${need}: ${offers.flatMap(({ brings }, index) => brings.filter((one) => one.need === need).map((one) => `${one.pieces} x${index}`)).join(' + ')} >= ${pieces}`,
      ),
      'General',
      offers.map((_, index) => `x${index}`).join(' '),
      'End',
    ].join('\n');
    cheapestCover(needs, offers);
    let began = performance.now();
    const { price } = cheapestCover(needs, offers);
    ours.push(performance.now() - began);
    began = performance.now();
    const solved = solver.solve(programme, { mip_rel_gap: 0 });
    theirs.push(performance.now() - began);
    if (Math.round(solved.ObjectiveValue) === price) same += 1;
  }
  say(
    `cheapest cover, ${NEEDS} needs × ${KITS} kits: median ${median(ours).toFixed(0)} ms, most ${Math.max(...ours).toFixed(0)} ms; HiGHS ${median(theirs).toFixed(0)} ms; the same price in ${same} of ${SEEDS}; aim 50 ms`,
  );
}
