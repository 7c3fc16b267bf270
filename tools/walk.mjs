// ./jubb walk: whether what the shop keeps holds together: chains, photos, shelves. Every night by itself.
import pg from 'pg';
import { keepCare } from './care.mjs';
import { everyChain } from './chain.mjs';
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

/** What a machine alone finds out about its database: nobody mends it at a bench. */
const COMMAND = process.env.JUBB_COMMAND ?? './jubb';
const BY_BACKUP = `hold it against a backup: ${COMMAND} restore into a place of its own`;

const FINDINGS = [
  {
    what: 'jobs whose head is not its last entry',
    mend: BY_BACKUP,
    text: `SELECT 'job ' || j.number AS found FROM job j
      LEFT JOIN LATERAL (SELECT seq, hash FROM entry WHERE job_id = j.id ORDER BY seq DESC LIMIT 1) last ON true
      WHERE j.last_seq <> coalesce(last.seq, 0) OR j.last_hash IS DISTINCT FROM coalesce(last.hash, '') ORDER BY j.number`,
  },
  {
    what: 'entries whose photo or clip never came',
    mend: 'take it again, and strike the entry',
    text: `SELECT 'job ' || j.number || ', entry ' || e.seq AS found FROM entry e JOIN job j ON j.id = e.job_id,
        LATERAL jsonb_path_query(e.payload, 'strict $.**.file ? (@.type() == "string" && @ like_regex "^${NAME}$")') named
      WHERE e.kept_at < now() - interval '${ON_THE_WAY}' AND NOT EXISTS (SELECT 1 FROM file f WHERE f.sha256 = named #>> '{}')
        AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
      ORDER BY j.number, e.seq`,
  },
  {
    what: 'files that are not what they were sent as',
    mend: BY_BACKUP,
    // Photos are drawn anew when they come: only what is kept as it was sent has the hash that names it.
    text: `SELECT left(sha256, 12) AS found FROM file WHERE type <> 'image/jpeg' AND encode(sha256(content), 'hex') <> sha256`,
  },
  {
    what: 'shelves with less than nothing on them',
    mend: 'count them',
    text: 'SELECT number AS found FROM stock_item WHERE on_hand < 0 ORDER BY number',
  },
  {
    what: 'shelves that hold something else than their last movement left',
    mend: 'count them',
    text: `SELECT i.number AS found FROM stock_item i
      LEFT JOIN LATERAL (SELECT on_hand_after FROM stock_movement WHERE item_id = i.id ORDER BY seq DESC LIMIT 1) last ON true
      WHERE i.on_hand <> coalesce(last.on_hand_after, 0) ORDER BY i.number`,
  },
];

/** What does not hold together in a shop, in words, one line a kind, each with what to do about it; none where all does. */
export async function walkShop(url) {
  const found = await asked(url, async (query) => {
    const lines = [];
    for (const { what, mend, text } of FINDINGS) lines.push(...inWords(what, mend, await query(text)));
    const unnamed = await query(`SELECT left(sha256, 12) AS found FROM file WHERE ${await isUnnamed(query)} ORDER BY kept_at`);
    return [...lines, ...inWords('files that nothing names', `${COMMAND} walk --clear takes them away`, unnamed)];
  });
  const chains = (await everyChain(url)).map((words) => ({ found: words }));
  return [...found, ...inWords('chains that are broken', BY_BACKUP, chains)];
}

/** Takes away the files that nothing names; how many those were. */
export function clearUnnamed(url) {
  return asked(url, async (query) => (await query(`DELETE FROM file WHERE ${await isUnnamed(query)} RETURNING 1`)).length);
}

async function asked(url, work) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(async (text, values) => (await client.query(text, values)).rows);
  } finally {
    await client.end();
  }
}

function inWords(what, mend, rows) {
  if (rows.length === 0) return [];
  const named = rows.slice(0, MOST_NAMED).map(({ found }) => found);
  return [`${rows.length} × ${what}: ${named.join('; ')}${rows.length > MOST_NAMED ? ' …' : ''} (${mend})`];
}

/** The condition of a file whose name stands nowhere in the shop: wherever one may be named, it is words or JSON of some table. */
async function isUnnamed(query) {
  const columns = await query(
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
  return `kept_at < now() - interval '${ON_THE_WAY}' AND sha256 NOT IN (${places.join(' UNION ')})`;
}

/** Walks the running shop and keeps what was found: a foreman reads it on Today. */
export async function walk(args) {
  ensureNodeModules();
  const url = process.env.JUBB_DATABASE_URL ?? readState()?.url;
  if (url === undefined) throw new Stop('No shop is running here: ./jubb start');
  if (args.includes('--clear')) say(`${await clearUnnamed(url)} files that nothing named are gone`);
  const found = await walkShop(url);
  await keepCare(url, 'walk', found.length === 0, found.length === 0 ? 'chains, photos and shelves hold together' : found.join('. '));
  if (found.length > 0) throw new Stop(`What the shop keeps does not hold together:\n${found.join('\n')}`);
  if (!args.includes('--quiet')) say('Chains, photos and shelves hold together');
}
