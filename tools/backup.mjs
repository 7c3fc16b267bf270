// ./jubb backup, restore, rehearse: pgBackRest does the work; this says where, how often, and whether it was any good.
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import pg from 'pg';
import { keepCare } from './care.mjs';
import { everyChain } from './chain.mjs';
import { asOwner, backupConfig, isRunning, socketFolder, startPostgres, stopPostgres } from './postgres.mjs';
import { Stop, remark, say } from './say.mjs';
import { PGBACKREST, checkMachine, ensureDebian, ensureNodeModules, home, isRoot, run } from './setup.mjs';

const STANZA = 'jubb';
/** Whole ones a week; so many weeks stay, with all that was written in between. */
const WEEKS_KEPT = 5;
const WEEK_MS = 7 * 24 * 3600 * 1000;
const LEAST_WORDS = 16;

/** The cluster of the shop, and what of it is copied where. */
const cluster = () => join(home(), 'postgres');

/** Where backups go, and the words that open them. */
function settings(folder) {
  const config = backupConfig(folder);
  if (!existsSync(config)) return undefined;
  const text = readFileSync(config, 'utf8');
  const of = (name) => new RegExp(`^${name}=(.*)$`, 'mu').exec(text)?.[1];
  return { repository: of('repo1-path'), words: of('repo1-cipher-pass') };
}

/** `./jubb backup FOLDER` says where they go, and makes the first; `./jubb backup` makes the next. */
export async function backup(args) {
  const [given] = args.filter((one) => !one.startsWith('--'));
  const isQuiet = args.includes('--quiet');
  if (process.env.JUBB_DATABASE_URL)
    throw new Stop('JUBB_DATABASE_URL names a database that is not Jubb’s own: back it up with the tools of whoever runs it');
  checkMachine();
  ensureNodeModules();
  const folder = cluster();
  if (!existsSync(join(folder, 'data', 'PG_VERSION'))) throw new Stop('There is no shop here yet: ./jubb start makes one');
  ensureDebian([PGBACKREST]);
  const known = settings(folder);
  if (!known && given === undefined)
    throw new Stop('Where to? ./jubb backup /mnt/disk/jubb says it once: a folder on another disk, or one that is mounted');
  if (known && given !== undefined && resolve(given) !== known.repository)
    throw new Stop(`Backups go to ${known.repository}: take ${backupConfig(folder)} away first, and keep its words with the old ones`);
  const wasRunning = isRunning(folder);
  const fresh = known ? undefined : setUp(folder, resolve(given));
  // What is written from now on goes there as it is written: the database is begun anew once, to know it.
  if (fresh && wasRunning) stopPostgres(folder);
  const { url } = await startPostgres(folder);
  try {
    if (fresh) await begun(folder, fresh, wasRunning);
    const isFull = newestFull(folder) < Date.now() - WEEK_MS;
    pgbackrest(folder, ['backup', `--type=${isFull ? 'full' : 'incr'}`]);
    const { last, bytes } = told(folder);
    await keepCare(url, 'backup', true, `${isFull ? 'whole' : 'what changed'}, to ${settings(folder).repository}`);
    if (!isQuiet) say(`Backed up: ${last}, ${(bytes / 1e6).toFixed(1)} MB written to ${settings(folder).repository}`);
  } catch (error) {
    await keepCare(url, 'backup', false, String(error.message).slice(0, 300)).catch(() => undefined);
    throw error;
  } finally {
    if (!wasRunning) stopPostgres(folder);
  }
}

/** The place of the backups is made, and the words are said before anything else can go wrong; where it cannot be, nothing is set up. */
async function begun(folder, words, wasRunning) {
  try {
    pgbackrest(folder, ['stanza-create']);
  } catch (error) {
    rmSync(backupConfig(folder), { force: true });
    stopPostgres(folder);
    if (wasRunning) await startPostgres(folder);
    throw error;
  }
  say('Nobody reads a backup without these words. Write them down, and keep them away from this machine:');
  say(`  ${words}`);
}

/** `./jubb restore FOLDER [--to TIME]` makes the shop anew in JUBB_HOME, where nothing may lie yet. */
export async function restore(args) {
  const at = args.indexOf('--to');
  const to = at < 0 ? undefined : args[at + 1];
  const [given] = args.filter((one, index) => !one.startsWith('--') && (at < 0 || index !== at + 1));
  if (given === undefined) throw new Stop('From where? ./jubb restore FOLDER [--to "2026-11-30 14:05"]');
  const moment = to === undefined ? undefined : instantOf(to);
  checkMachine();
  ensureNodeModules();
  ensureDebian([PGBACKREST]);
  const repository = resolve(given);
  if (!existsSync(join(repository, 'backup', STANZA)))
    throw new Stop(`${repository} holds no backup of Jubb: a folder with "backup" and "archive" in it is due`);
  const folder = cluster();
  if (existsSync(join(folder, 'data')))
    throw new Stop(`There is a shop in ${home()} already: nothing was touched. Set JUBB_HOME to a new folder, or move the old one away`);
  const words = await wordsAsked();
  try {
    const { url } = await restoreInto(folder, repository, words, moment);
    const { jobs, entries, last } = await counted(url);
    say(`Restored: ${jobs} jobs, ${entries} entries, the last of ${last ?? 'nobody'}`);
    say('./jubb start opens it. Backups of it are set up anew: ./jubb backup FOLDER');
  } catch (error) {
    stopPostgres(folder, 'immediate');
    // Half a shop is none.
    rmSync(folder, { recursive: true, force: true });
    throw error;
  }
  stopPostgres(folder);
}

/** Restores the last backup beside the running shop, holds it against it, and keeps how that went. */
export async function rehearse() {
  checkMachine();
  ensureNodeModules();
  const folder = cluster();
  const known = settings(folder);
  if (!known) throw new Stop('No backup is set up: ./jubb backup FOLDER says where they go');
  ensureDebian([PGBACKREST]);
  const wasRunning = isRunning(folder);
  const { url } = await startPostgres(folder);
  const aside = mkdtempSync(join(tmpdir(), 'jubb-rehearsal-'));
  if (isRoot()) chmodSync(aside, 0o755);
  const restored = join(aside, 'postgres');
  const began = Date.now();
  try {
    const before = await counted(url);
    // What was written up to now is to be there.
    pgbackrest(folder, ['check']);
    const { url: other } = await restoreInto(restored, known.repository, known.words, undefined);
    const after = await counted(other);
    const problems = [...compared(before, after), ...(await everyChain(other))];
    const took = ((Date.now() - began) / 1000).toFixed(0);
    const found =
      problems.length === 0
        ? `${after.jobs} jobs and ${after.entries} entries came back whole, all ${after.jobs} chains hold, ${took} s`
        : problems.slice(0, 3).join('; ');
    await keepCare(url, 'rehearsal', problems.length === 0, found);
    if (problems.length > 0) throw new Stop(`The backup is not what the shop is: ${found}`);
    say(found);
  } catch (error) {
    if (!(error instanceof Stop) || !error.message.startsWith('The backup is not'))
      await keepCare(url, 'rehearsal', false, String(error.message).slice(0, 300)).catch(() => undefined);
    throw error;
  } finally {
    stopPostgres(restored, 'immediate');
    rmSync(aside, { recursive: true, force: true });
    if (!wasRunning) stopPostgres(folder);
  }
}

/** The last backup in words, and since when none was made; nothing where none is set up. */
export function lastBackup() {
  const known = settings(cluster());
  return known && { repository: known.repository, newest: newest(cluster()) };
}

function setUp(folder, repository) {
  const words = process.env.JUBB_BACKUP_WORDS ?? randomBytes(24).toString('base64url');
  if (words.length < LEAST_WORDS) throw new Stop(`JUBB_BACKUP_WORDS is too short: ${LEAST_WORDS} letters or more are due`);
  try {
    mkdirSync(repository, { recursive: true });
  } catch (error) {
    throw new Stop(`${repository} cannot be made (${error.code}): another folder`);
  }
  if (readdirSync(repository).length > 0) throw new Stop(`${repository} is not empty: backups go to a folder of their own`);
  if (isRoot()) run('chown', ['postgres:', repository]);
  writeConfig(folder, repository, words);
  return words;
}

/** What pgBackRest goes by; only its owner reads it, for the words stand in it. */
function writeConfig(folder, repository, words) {
  const data = join(folder, 'data');
  const own = join(folder, 'backup');
  for (const one of ['log', 'lock', 'spool']) mkdirSync(join(own, one), { recursive: true });
  mkdirSync(socketFolder(folder), { recursive: true });
  // The password of the database is needed where it is restored, and lies in what is encrypted.
  writeFileSync(join(data, 'jubb.password'), readFileSync(join(folder, 'password')), { mode: 0o600 });
  const pass = join(own, 'pgpass');
  writeFileSync(pass, `*:*:*:jubb:${readFileSync(join(folder, 'password'), 'utf8').trim()}\n`, { mode: 0o600 });
  const config = backupConfig(folder);
  const lines = [
    '[global]',
    `repo1-path=${repository}`,
    'repo1-cipher-type=aes-256-cbc',
    `repo1-cipher-pass=${words}`,
    `repo1-retention-full=${WEEKS_KEPT}`,
    `log-path=${join(own, 'log')}`,
    `lock-path=${join(own, 'lock')}`,
    `spool-path=${join(own, 'spool')}`,
    'log-level-console=warn',
    'log-level-file=detail',
    'compress-type=gz',
    'compress-level=3',
    'start-fast=y',
    `[${STANZA}]`,
    `pg1-path=${data}`,
    `pg1-socket-path=${socketFolder(folder)}`,
    'pg1-user=jubb',
    'pg1-database=postgres',
    '',
  ];
  writeFileSync(config, lines.join('\n'), { mode: 0o600 });
  if (isRoot()) run('chown', ['-R', 'postgres:', own, config, socketFolder(folder), join(data, 'jubb.password')]);
}

/** After the shop was moved: what stands of its place in what pgBackRest goes by, and whose the backups are. */
export function movedBackup(folder, user) {
  const known = settings(folder);
  if (!known) return;
  writeConfig(folder, known.repository, known.words);
  run('chown', ['-R', `${user}:`, folder, known.repository, socketFolder(folder)]);
}

function pgbackrest(folder, args, more = []) {
  const port = existsSync(join(folder, 'port')) ? [`--pg1-port=${readFileSync(join(folder, 'port'), 'utf8').trim()}`] : [];
  const isAsking = args[0] === 'info';
  const command = [
    `PGPASSFILE=${join(folder, 'backup', 'pgpass')}`,
    'pgbackrest',
    `--config=${backupConfig(folder)}`,
    `--stanza=${STANZA}`,
    ...(isAsking ? [] : port),
    ...more,
    ...args,
  ];
  const { status, stdout, stderr } = asOwner('env', command);
  if (status === 0) return stdout;
  throw new Stop(inWords(`${stdout}${stderr}`));
}

/** What pgBackRest says, in one line that somebody can act on. */
function inWords(output) {
  // What is opened first is its list of backups: with other words it is noise.
  if (/unable to load info file/u.test(output)) return 'These words do not open the backup: check each letter, large and small';
  const earliest = /unable to find backup set with stop time less than '(?<time>[^']*)'/u.exec(output)?.groups?.time;
  if (earliest !== undefined) return `There is no backup from before ${earliest}: a later time, or none for the last one`;
  if (/recovery ended before configured recovery target/u.test(output)) return 'Nothing was written as late as that: an earlier time';
  if (/No space left|ENOSPC/u.test(output)) return 'The disk is full: make room, where the backups are or here';
  if (/CryptoError|ChecksumError|checksum|truncated|unexpected eof|ZlibError|FormatError/iu.test(output))
    return 'The backup is damaged or cut off: an earlier one may be whole (--to an earlier time), or another copy of the folder';
  if (/PathMissingError|FileMissingError|unable to open missing/u.test(output))
    return `The backup is not whole, a file of it is missing:\n${lastLines(output)}`;
  if (/Permission denied|PathOpenError|PathCreateError/u.test(output))
    return `The folder of the backups cannot be written by the user of the database:\n${lastLines(output)}`;
  return `pgBackRest does not go on:\n${lastLines(output)}`;
}

function lastLines(output) {
  return output
    .trim()
    .split('\n')
    .filter((line) => /ERROR|WARN|raised|HINT/u.test(line))
    .slice(-4)
    .join('\n');
}

async function restoreInto(folder, repository, words, moment) {
  mkdirSync(join(folder, 'data'), { recursive: true });
  writeFileSync(join(folder, 'password'), '', { mode: 0o600 });
  writeConfig(folder, repository, words);
  if (isRoot()) run('chown', ['-R', 'postgres:', folder]);
  rmSync(join(folder, 'data', 'jubb.password'));
  const target = moment === undefined ? ['--type=default'] : ['--type=time', `--target=${moment}`, '--target-action=promote'];
  remark('Bringing the backup back …');
  pgbackrest(folder, ['restore'], [...target, '--archive-mode=off']);
  const password = join(folder, 'data', 'jubb.password');
  if (!existsSync(password)) throw new Stop('The backup is not whole, a file of it is missing: jubb.password');
  writeFileSync(join(folder, 'password'), readFileSync(password));
  const started = await startPostgres(folder, { recovers: true });
  // It is nobody's repository any more: what is restored writes into none until it is told to.
  rmSync(backupConfig(folder), { force: true });
  rmSync(join(folder, 'backup'), { recursive: true, force: true });
  return started;
}

async function counted(url) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows: tables } = await client.query(
      `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public' AND table_type = 'BASE TABLE' ORDER BY 1`,
    );
    const counts = {};
    for (const { name } of tables) counts[name] = Number((await client.query(`SELECT count(*) FROM "${name}"`)).rows[0].count);
    const { rows } = await client.query('SELECT max(taken_at)::text AS last FROM entry');
    return { counts, jobs: counts.job ?? 0, entries: counts.entry ?? 0, last: rows[0].last };
  } finally {
    await client.end();
  }
}

/** What a log grows by while one looks is no difference; that something is missing is. */
const PASSING = new Set(['session', 'rate_limit', 'notice', 'outbox', 'instrument_heard', 'paper', 'file_part']);

function compared(before, after) {
  return Object.keys(before.counts).flatMap((name) => {
    if (PASSING.has(name)) return [];
    const [was, is] = [before.counts[name], after.counts[name]];
    return is === undefined ? [`${name} is missing`] : is < was ? [`${name} has ${is} of ${was}`] : [];
  });
}

function info(folder) {
  const [stanza] = JSON.parse(pgbackrest(folder, ['info'], ['--output=json']));
  return stanza?.backup ?? [];
}

const stopped = ({ timestamp: { stop } }) => stop * 1000;

function newestFull(folder) {
  return Math.max(
    0,
    ...info(folder)
      .filter(({ type }) => type === 'full')
      .map(stopped),
  );
}

function newest(folder) {
  return Math.max(0, ...info(folder).map(stopped));
}

function told(folder) {
  const last = info(folder).at(-1);
  return { last: last.label, bytes: last.info.repository.delta };
}

/** A time as it is typed, in the zone of this machine, for PostgreSQL. */
function instantOf(text) {
  const ms = Date.parse(text.replace(' ', 'T'));
  if (Number.isNaN(ms)) throw new Stop(`--to is "${text}": a time such as "2026-11-30 14:05" is due`);
  if (ms > Date.now()) throw new Stop(`--to is "${text}": that is still to come`);
  return new Date(ms).toISOString().replace('T', ' ').replace('Z', '+00');
}

/** The words of a backup: of the environment, or typed where nobody sees them. */
async function wordsAsked() {
  const given = process.env.JUBB_BACKUP_WORDS;
  if (given !== undefined) return given;
  if (!process.stdin.isTTY) throw new Stop('Which words open it? Set JUBB_BACKUP_WORDS, or type them at a terminal');
  const { createInterface } = await import('node:readline/promises');
  const { Writable } = await import('node:stream');
  process.stderr.write('The words that were written down: ');
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() });
  const line = createInterface({ input: process.stdin, output: silent, terminal: true });
  const words = (await line.question('')).trim();
  line.close();
  remark('');
  return words;
}
