// ./jubb walk: whether what the shop keeps holds together: chains, photos, shelves. Every night by itself.
import pg from 'pg';
import { everyChain } from './chain.mjs';
import { keepCare } from './backup.mjs';
import { Stop, say } from './say.mjs';
import { readState } from './serve.mjs';
import { ensureNodeModules } from './setup.mjs';

/** So long a tablet without a link may hold a photo whose entry is here, or the other way round, and nothing is wrong. */
const ON_THE_WAY = '14 days';
/** So many findings of a kind are named; the rest is counted. */
const MOST_NAMED = 3;

/** A file's name where it stands by itself. */
const NAME = '[0-9a-f]{64}';
/** Hashes that are no file's name. */
const NO_NAMES = ['hash', 'prev_hash', 'content_hash', 'last_hash', 'sha256', 'token_hash', 'password_hash', 'pin_hash'];

const FINDINGS = [
  {
    what: 'jobs whose head is not its last entry',
    text: `SELECT 'job ' || j.number AS found FROM job j
      LEFT JOIN LATERAL (SELECT seq, hash FROM entry WHERE job_id = j.id ORDER BY seq DESC LIMIT 1) last ON true
      WHERE j.last_seq <> coalesce(last.seq, 0) OR j.last_hash IS DISTINCT FROM coalesce(last.hash, '') ORDER BY j.number`,
  },
  {
    what: 'entries whose photo or clip never came',
    text: `SELECT 'job ' || j.number || ', entry ' || e.seq AS found FROM entry e JOIN job j ON j.id = e.job_id,
        LATERAL jsonb_path_query(e.payload, 'strict $.**.file ? (@.type() == "string" && @ like_regex "^${NAME}$")') named
      WHERE e.kept_at < now() - interval '${ON_THE_WAY}' AND NOT EXISTS (SELECT 1 FROM file f WHERE f.sha256 = named #>> '{}')
      ORDER BY j.number, e.seq`,
  },
  {
    what: 'files that are not what they were sent as',
    // Photos are drawn anew when they come: only what is kept as it was sent has the hash that names it.
    text: `SELECT left(sha256, 12) AS found FROM file WHERE type <> 'image/jpeg' AND encode(sha256(content), 'hex') <> sha256`,
  },
  { what: 'shelves with less than nothing on them', text: 'SELECT number AS found FROM stock_item WHERE on_hand < 0 ORDER BY number' },
  {
    what: 'shelves that hold something else than their last movement left',
    text: `SELECT i.number AS found FROM stock_item i
      LEFT JOIN LATERAL (SELECT on_hand_after FROM stock_movement WHERE item_id = i.id ORDER BY seq DESC LIMIT 1) last ON true
      WHERE i.on_hand <> coalesce(last.on_hand_after, 0) ORDER BY i.number`,
  },
];

/** What does not hold together in a shop, in words, one line a kind; none where all does. */
export async function walkShop(url) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const found = [];
    for (const { what, text } of FINDINGS) found.push(...inWords(what, (await client.query(text)).rows));
    found.push(...inWords('files that nothing names', await unnamed(client)));
    const chains = await everyChain(url);
    if (chains.length > 0) found.push(`${chains.length} × chains that are broken: ${chains.slice(0, MOST_NAMED).join('; ')}`);
    return found;
  } finally {
    await client.end();
  }
}

function inWords(what, rows) {
  if (rows.length === 0) return [];
  const named = rows.slice(0, MOST_NAMED).map(({ found }) => found);
  return [`${rows.length} × ${what}: ${named.join('; ')}${rows.length > MOST_NAMED ? ' …' : ''}`];
}

/** Files whose name stands nowhere in the shop: wherever one may be named, it is words or JSON of some table. */
async function unnamed(client) {
  const { rows: columns } = await client.query(
    `SELECT c.table_name AS "table", c.column_name AS "column" FROM information_schema.columns c
      JOIN information_schema.tables t USING (table_schema, table_name)
      WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' AND c.data_type IN ('text', 'jsonb') AND c.column_name <> ALL ($1::text[])
        AND c.table_name NOT IN ('file', 'file_part') AND c.is_generated = 'NEVER'`,
    [NO_NAMES],
  );
  const places = columns.map(
    ({ table, column }) =>
      `SELECT named[1] AS name FROM "${table}", regexp_matches("${column}"::text, '\\m${NAME}\\M', 'g') named WHERE "${column}"::text ~ '\\m${NAME}\\M'`,
  );
  const { rows } = await client.query(
    `SELECT left(f.sha256, 12) AS found FROM file f WHERE f.kept_at < now() - interval '${ON_THE_WAY}'
      AND f.sha256 NOT IN (${places.join(' UNION ')}) ORDER BY f.kept_at`,
  );
  return rows;
}

/** Walks the running shop and keeps what was found: a foreman reads it on Today. */
export async function walk(args) {
  ensureNodeModules();
  const url = process.env.JUBB_DATABASE_URL ?? readState()?.url;
  if (url === undefined) throw new Stop('No shop is running here: ./jubb start');
  const found = await walkShop(url);
  await keepCare(url, 'walk', found.length === 0, found.length === 0 ? 'chains, photos and shelves hold together' : found.join('. '));
  if (found.length > 0) throw new Stop(`What the shop keeps does not hold together:\n${found.join('\n')}`);
  if (!args.includes('--quiet')) say('Chains, photos and shelves hold together');
}
