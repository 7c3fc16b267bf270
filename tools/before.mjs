// The shop's database as it was before an update, beside itself in the same cluster. `before.mjs keep|find|back|forget`
import { statfsSync } from 'node:fs';
import { join } from 'node:path';
import { isRunning, psql, startPostgres, stopPostgres } from './postgres.mjs';
import { Stop, remark } from './say.mjs';
import { home } from './setup.mjs';

const BEFORE = 'jubb_before';
/** What is left of the disk beside the copy. */
const SPARE_BYTES = 400e6;

const names = (url) => psql(url, 'SELECT datname FROM pg_database').trim().split('\n');

/** Copies it, whole. One that an update which was cut off left is the right one, and stays. */
function keep(url) {
  if (names(url).includes(BEFORE)) return;
  const bytes = Number(psql(url, "SELECT pg_database_size('jubb')"));
  const { bavail, bsize } = statfsSync(home());
  const room = bavail * bsize - SPARE_BYTES;
  if (room < bytes) {
    const lacking = Math.ceil((bytes - room) / 1e6);
    throw new Stop(`The disk has no room for the shop twice: ${lacking} MB are lacking; nothing was changed`);
  }
  // A copy is made of what nobody is at.
  psql(url, "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'jubb'");
  psql(url, `CREATE DATABASE ${BEFORE} TEMPLATE jubb STRATEGY file_copy`);
}

/** Refuses where none is. */
function find(url) {
  if (!names(url).includes(BEFORE)) throw new Stop('No update was cut off here: there is nothing to go back to');
}

function back(url) {
  find(url);
  psql(url, 'DROP DATABASE IF EXISTS jubb WITH (FORCE)');
  psql(url, `ALTER DATABASE ${BEFORE} RENAME TO jubb`);
}

function forget(url) {
  psql(url, `DROP DATABASE IF EXISTS ${BEFORE} WITH (FORCE)`);
}

const ACTS = { keep, find, back, forget };

/** Does it in the shop's cluster, which is left as it was found: running or not. */
export async function before(what) {
  const folder = join(home(), 'postgres');
  const wasRunning = isRunning(folder);
  const { url } = await startPostgres(folder);
  const other = new URL(url);
  other.pathname = '/postgres';
  try {
    return ACTS[what](other.toString());
  } finally {
    if (!wasRunning) stopPostgres(folder);
  }
}

// By the user of a service, whose database it is.
if (process.argv[1] === import.meta.filename) {
  try {
    await before(process.argv[2]);
  } catch (error) {
    remark(error instanceof Stop ? error.message : error.stack);
    process.exitCode = 1;
  }
}
