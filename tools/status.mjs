// ./jubb status: whether all is well, in ten lines; 1 where something is not.
import { existsSync, statfsSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { lastBackup } from './backup.mjs';
import { trustedUntil } from './lan.mjs';
import { isRunning } from './postgres.mjs';
import { say } from './say.mjs';
import { readState } from './serve.mjs';
import { home } from './setup.mjs';

const DAY_MS = 24 * 3600 * 1000;
/** Made at night: one that is older has missed one. */
const OLDEST_BACKUP_MS = 2 * DAY_MS;
const OLDEST_REHEARSAL_DAYS = 35;
const LEAST_FREE = 0.1;
/** A certificate that ends sooner is seen to. */
const LEAST_DAYS = 21;

const ago = (ms) => (ms < DAY_MS ? `${Math.round(ms / 3_600_000)} h ago` : `${Math.round(ms / DAY_MS)} days ago`);

const since = ({ days }) => (days === 0 ? 'today' : `${days} days ago`);

export async function status() {
  const lines = [];
  const line = (isGood, what, words) => lines.push({ isGood, text: `${isGood ? 'ok ' : 'NO '} ${what.padEnd(12)} ${words}` });
  const folder = join(home(), 'postgres');
  const state = readState();
  const hasShop = existsSync(join(folder, 'data', 'PG_VERSION'));
  line(hasShop || process.env.JUBB_DATABASE_URL !== undefined, 'shop', hasShop ? home() : `none in ${home()}: ./jubb start makes one`);
  const health = state && (await asked(state.port));
  line(
    state !== undefined && health !== undefined,
    'server',
    state ? `http://127.0.0.1:${state.port}, ${health ? `version ${health.version}` : 'does not answer'}` : 'not running: ./jubb start',
  );
  line(health?.database === 'up', 'database', health ? health.database : isRunning(folder) ? 'up, and no server asks it' : 'not running');
  const { bavail, blocks, bsize } = statfsSync(existsSync(home()) ? home() : '/');
  line(bavail / blocks >= LEAST_FREE, 'disk', `${((bavail * bsize) / 1e9).toFixed(1)} GB free, ${Math.round((100 * bavail) / blocks)} %`);
  if (state?.told) {
    const until = trustedUntil();
    const days = until === undefined ? 0 : Math.floor((until - Date.now()) / DAY_MS);
    line(
      days > LEAST_DAYS,
      'network',
      `${state.told.secure[0]}, ${until === undefined ? 'no certificate yet' : `trusted for ${days} days`}`,
    );
  }
  line(...backupLine(hasShop));
  if (state) for (const [isGood, what, words] of await inside(state.url)) line(isGood, what, words);
  for (const { text } of lines) say(text);
  if (lines.some(({ isGood }) => !isGood)) process.exitCode = 1;
}

/** The last backup, or why it cannot be told: its disk is not mounted, say. */
function backupLine(hasShop) {
  try {
    const last = hasShop ? lastBackup() : undefined;
    if (!last) return [false, 'backup', 'not set up: ./jubb backup FOLDER'];
    if (last.newest === 0) return [false, 'backup', `none yet in ${last.repository}`];
    const age = Date.now() - last.newest;
    return [age < OLDEST_BACKUP_MS, 'backup', `${ago(age)}, to ${last.repository}`];
  } catch (error) {
    return [false, 'backup', error.message.split('\n')[0]];
  }
}

async function asked(port) {
  try {
    const answer = await fetch(`http://127.0.0.1:${port}/api/v1/health`, { signal: globalThis.AbortSignal.timeout(5000) });
    return await answer.json();
  } catch {
    return undefined;
  }
}

/** What the database itself knows. */
async function inside(url) {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 5000 });
  try {
    await client.connect();
    const one = async (text) => (await client.query(text)).rows[0];
    const cared = (what) =>
      one(
        `SELECT extract(day FROM now() - at)::int AS days, is_good, words FROM shop_care WHERE what = '${what}' ORDER BY at DESC LIMIT 1`,
      );
    const rehearsal = await cared('rehearsal');
    const walked = await cared('walk');
    const { waiting } = await one('SELECT count(*)::int AS waiting FROM outbox WHERE went_at IS NULL');
    const { people } = await one('SELECT count(*)::int AS people FROM person');
    const { name } = (await one('SELECT name FROM migrations ORDER BY id DESC LIMIT 1')) ?? { name: 'none' };
    return [
      [
        rehearsal !== undefined && rehearsal.is_good && rehearsal.days < OLDEST_REHEARSAL_DAYS,
        'rehearsal',
        rehearsal ? `${since(rehearsal)}: ${rehearsal.words}` : 'never: ./jubb rehearse brings the last backup back beside the shop',
      ],
      [
        walked?.is_good !== false,
        'data',
        walked ? `walked ${since(walked)}: ${walked.words}` : 'walked in the night: ./jubb walk does it now',
      ],
      [true, 'messages', `${waiting} wait to be sent`],
      [people > 0, 'opened', people > 0 ? 'yes' : 'no: whoever opens the page first names the shop'],
      [true, 'made by', name],
    ];
  } catch (error) {
    return [[false, 'inside', `the database does not answer: ${error.message}`]];
  } finally {
    await client.end().catch(() => undefined);
  }
}
