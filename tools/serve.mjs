// ./jubb start and ./jubb stop
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { join } from 'node:path';
import { dropDatabase, isDemo, isRunning, isTaken, startPostgres, stopPostgres } from './postgres.mjs';
import { Stop, remark, say } from './say.mjs';
import { lanAsked, prepareLan } from './lan.mjs';
import { ROOT, checkMachine, ensureBuild, ensureNodeModules, home, portFrom } from './setup.mjs';

/** A server that says nothing for so long does not come up. */
const PATIENCE_MS = 180_000;
const DEMO_BEGUN = 'demo: ';
/** An answer that does not come for so long is none. */
const ANSWERS_MS = 60_000;
const ANSWER_LOOKS_MS = 200;
/** A service looks whether its server is there every so often, ms, and whether its database is, each so many times. */
const LOOKS_MS = 500;
const DATABASE_LOOKS = 20;

/** Serves, and gives where; says so unless it is `quiet`. */
export async function start(args, { quiet = false } = {}) {
  checkMachine();
  const port = portWanted();
  ensureNodeModules();
  const built = ensureBuild();
  const running = readState();
  const url = process.env.JUBB_DATABASE_URL ?? (await startPostgres(join(home(), 'postgres'))).url;
  const lan = lanAsked(args);
  const asked = { port, built, url, lan, empty: args.includes('--empty'), demo: demoAsked(args) };
  // What it is served by is part of it: asked for otherwise, it is begun anew.
  const isOther = running && ['port', 'built', 'url', 'lan'].some((name) => JSON.stringify(running[name]) !== JSON.stringify(asked[name]));
  if (isOther) await stopServer(running);
  if (!readState()) {
    if (await isTaken(port)) throw new Stop(`Port ${port} is taken by another program: set JUBB_PORT to a free one`);
    await launch(asked);
  }
  const base = `http://127.0.0.1:${port}`;
  if (!quiet) await sayWhere(base, asked.empty, readState()?.told);
  if (args.includes('--stay')) await stay();
  return { base, url };
}

/** Until it is told to stop, for a service; ends with 1 where the server does, to be begun anew by who began it. */
async function stay() {
  let isToStop = false;
  for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, () => (isToStop = true));
  const folder = join(home(), 'postgres');
  for (let looks = 1, gone = 0; !isToStop && readState(); looks += 1) {
    await wait(LOOKS_MS);
    if (process.env.JUBB_DATABASE_URL || looks % DATABASE_LOOKS > 0) continue;
    // One that is begun anew by somebody is gone for a moment.
    gone = isRunning(folder) ? 0 : gone + 1;
    if (gone > 1) await startPostgres(folder).catch(({ message }) => remark(message));
  }
  await stop({ quiet: true });
  if (!isToStop) throw new Stop(`The server ended; see ${join(home(), 'server.log')}`);
}

/** Which demo a new shop begins with: `full`, two years of a shop; `small`, three jobs. */
function demoAsked(args) {
  const at = args.indexOf('--demo');
  const asked = at < 0 ? 'full' : args[at + 1];
  if (asked === 'full' || asked === 'small') return asked;
  throw new Stop(`--demo is "${asked ?? ''}": full or small is due`);
}

/** Throws the demo away and makes it anew; a shop of one's own is left alone. */
export async function demoAgain(args) {
  if (!args.includes('--again'))
    throw new Stop('./jubb demo --again throws the demo away and makes it anew; ./jubb start makes it the first time');
  if (process.env.JUBB_DATABASE_URL) throw new Stop('JUBB_DATABASE_URL names a database that is not Jubb’s own: nothing was touched');
  checkMachine();
  const { url } = await startPostgres(join(home(), 'postgres'));
  if (!isDemo(url)) throw new Stop('This shop is not the demo: nothing was touched');
  const running = readState();
  if (running) await stopServer(running);
  dropDatabase(url);
  await start(args.filter((one) => one !== '--again'));
}

async function sayWhere(base, empty, told) {
  say(`Jubb is at ${base}`);
  if (told) say(`On the shop’s network it is at ${told.secure.join(' and ')}`);
  if (told?.trust) say(`A tablet that comes for the first time: ${told.trust}; the page “On the network” has it as a code to scan`);
  if (empty) {
    say('It has no demo data: whoever opens it first names the shop and its foreman');
    return;
  }
  await sayLogIns();
}

export async function sayLogIns() {
  const { DEMO_PASSWORD, DEMO_PEOPLE, DEMO_PIN } = await import('../apps/server/dist/demo/demo-people.js');
  say(`Demo log-ins, all with the password ${DEMO_PASSWORD} and, to take over a tablet, the PIN ${DEMO_PIN}:`);
  for (const [name, login, role] of DEMO_PEOPLE) say(`  ${login.padEnd(8)} ${name}, ${role}`);
}

export async function stop({ quiet = false } = {}) {
  const running = readState();
  if (running) await stopServer(running);
  const stopped = stopPostgres(join(home(), 'postgres'));
  if (!quiet) say(running || stopped ? 'Jubb is stopped' : 'Jubb was not running');
}

/** The version that answers at a port, its page and its database with it. `isLost` gives why it will not, once that is known. */
export async function answers(port, isLost = () => undefined) {
  const base = `http://127.0.0.1:${port}`;
  const ends = Date.now() + ANSWERS_MS;
  for (;;) {
    try {
      const [health, page] = await Promise.all(['/api/v1/health', '/'].map((path) => fetch(`${base}${path}`)));
      const { database, version } = await health.json();
      if (health.ok && page.ok && database === 'up') return version;
    } catch {
      // Not yet.
    }
    const why = Date.now() > ends ? `It did not answer at ${base} for ${ANSWERS_MS / 1000} s` : isLost();
    if (why) throw new Stop(why);
    await wait(ANSWER_LOOKS_MS);
  }
}

export function portWanted() {
  return portFrom('JUBB_PORT', '4170');
}

function stateFile() {
  return join(home(), 'server.json');
}

/** The server that an earlier run started, if it still runs. */
export function readState() {
  if (!existsSync(stateFile())) return undefined;
  const state = JSON.parse(readFileSync(stateFile(), 'utf8'));
  const commandLine = `/proc/${state.pid}/cmdline`;
  if (existsSync(commandLine) && readFileSync(commandLine, 'utf8').includes('apps/server/dist/main.js')) return state;
  rmSync(stateFile(), { force: true });
  return undefined;
}

async function launch({ port, built, url, lan, empty, demo }) {
  const network = lan && (await prepareLan(lan, port));
  const logFile = join(home(), 'server.log');
  // What earlier ones said stays: it may tell why the last one ended.
  const before = existsSync(logFile) ? statSync(logFile).size : 0;
  const main = join(ROOT, 'apps/server/dist/main.js');
  const child = spawn(process.execPath, [join(ROOT, 'tools/keep-up.mjs'), logFile, main, ...(empty ? ['--empty'] : ['--demo', demo])], {
    cwd: ROOT,
    detached: true,
    stdio: 'ignore',
    env: {
      ...process.env,
      NODE_ENV: 'production',
      JUBB_PORT: String(port),
      JUBB_DATABASE_URL: url,
      ...(network ? { JUBB_PROXIES: '127.0.0.1', JUBB_LAN: JSON.stringify(network.told), JUBB_CADDY: JSON.stringify(network.caddy) } : {}),
    },
  });
  child.unref();
  const said = () => {
    if (!existsSync(logFile)) return '';
    const text = readFileSync(logFile);
    // A log that was put aside meanwhile is a new one from its beginning.
    return text
      .subarray(text.length < before ? 0 : before)
      .toString()
      .trim();
  };
  let [heard, until] = ['', Date.now() + PATIENCE_MS];
  while (!heard.includes('listening ')) {
    if (child.exitCode !== null) throw new Stop(said().split('\n').at(-1) || 'The server ended without a word');
    if (Date.now() > until) {
      child.kill();
      throw new Stop(`The server did not come up: nothing was heard of it for ${PATIENCE_MS / 1000} s; see ${logFile}`);
    }
    await wait(50);
    const now = said();
    if (now === heard) continue;
    if (now.includes(DEMO_BEGUN) && !heard.includes(DEMO_BEGUN)) remark('Making the demo …');
    [heard, until] = [now, Date.now() + PATIENCE_MS];
  }
  writeFileSync(stateFile(), JSON.stringify({ pid: child.pid, port, built, url, ...(network ? { lan, told: network.told } : {}) }), {
    mode: 0o600,
  });
}

async function stopServer({ pid }) {
  process.kill(pid, 'SIGTERM');
  for (let tries = 0; tries < 100 && readState(); tries += 1) await wait(50);
  if (readState()) {
    remark('The server does not stop by itself; ending it');
    // The server with whatever keeps it up: they are one group.
    process.kill(-pid, 'SIGKILL');
  }
  rmSync(stateFile(), { force: true });
}
