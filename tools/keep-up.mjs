// Keeps the server up: begun by ./jubb start, ended by ./jubb stop. `keep-up.mjs LOG MAIN [arguments]`
import { spawn } from 'node:child_process';
import { appendFileSync, existsSync, renameSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import { clearTimeout, setInterval, setTimeout as after } from 'node:timers';
import { dueAtNight, giveAtNight } from './night.mjs';

/** A log of that size makes room for a new one; so many are kept. */
const LARGEST_LOG = 5_000_000;
const LOGS_KEPT = 3;
/** After it ended by itself it is begun again, each time later; one that stood for a while begins anew. */
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 30_000;
const STEADY_MS = 60_000;
/** What stands before the server comes up at once, or its port is taken for a moment. */
const CADDY_WAIT_MS = 3000;
/** Whether anything is due is looked for every so often. */
const LOOKS_MS = 10 * 60_000;

const [log, main, ...args] = process.argv.slice(2);
let server;
let again;
let wait = FIRST_WAIT_MS;
let hasListened = false;
let isToEnd = false;

function write(text) {
  if (existsSync(log) && statSync(log).size > LARGEST_LOG) {
    for (let older = LOGS_KEPT - 1; older >= 1; older -= 1)
      if (existsSync(`${log}.${older}`)) renameSync(`${log}.${older}`, `${log}.${older + 1}`);
    renameSync(log, `${log}.1`);
  }
  // Readable by its owner only: it names people and their work.
  appendFileSync(log, text, { mode: 0o600 });
}

function begin() {
  const begun = Date.now();
  // Room for what a request makes and lets go: fewer and shorter collections.
  server = spawn(process.execPath, ['--enable-source-maps', '--max-semi-space-size=32', main, ...args], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  server.stdout.on('data', (chunk) => {
    hasListened ||= chunk.includes('listening ');
    write(chunk);
  });
  server.stderr.on('data', write);
  server.on('close', (code, signal) => {
    if (isToEnd) return end(0);
    // One that never came up would not the next time either: whoever started it reads why.
    if (!hasListened) return end(code ?? 1);
    if (Date.now() - begun > STEADY_MS) wait = FIRST_WAIT_MS;
    write(`${new Date().toISOString()} the server ended (${signal ?? code}); it is begun again in ${wait / 1000} s\n`);
    again = after(begin, wait);
    wait = Math.min(wait * 2, LONGEST_WAIT_MS);
  });
}

/** What stands before the server in the network, where that was asked for: begun again whenever it ends. */
let caddy;
function beginCaddy() {
  // It tells what it serves; whatever else of the environment is none of its business.
  const { PATH } = process.env;
  caddy = spawn('caddy', JSON.parse(process.env.JUBB_CADDY), { stdio: ['ignore', 'ignore', 'pipe'], env: { PATH, HOME: dirname(log) } });
  caddy.stderr.on('data', write);
  caddy.on('close', (code, signal) => {
    if (isToEnd) return;
    write(`${new Date().toISOString()} caddy ended (${signal ?? code}); it is begun again in ${CADDY_WAIT_MS / 1000} s\n`);
    after(beginCaddy, CADDY_WAIT_MS);
  });
}

const runs = (child) => child !== undefined && child.exitCode === null && child.signalCode === null;

/** Over only when what stands before the server is: whoever starts again finds its ports free. */
function end(code) {
  isToEnd = true;
  if (!runs(caddy)) process.exit(code);
  caddy.on('close', () => process.exit(code));
  caddy.kill();
}

const done = {};

function night() {
  const now = new Date();
  for (const what of dueAtNight(dirname(log), now, done)) {
    done[what] = now.toDateString();
    const made = giveAtNight(what, process.env);
    made.stdout.on('data', write);
    made.stderr.on('data', write);
  }
}
setInterval(night, LOOKS_MS).unref();

for (const signal of ['SIGTERM', 'SIGINT'])
  process.on(signal, () => {
    isToEnd = true;
    clearTimeout(again);
    if (runs(server)) server.kill(signal);
    else end(0);
  });
begin();
if (process.env.JUBB_CADDY) beginCaddy();
