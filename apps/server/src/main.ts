import { fork } from 'node:child_process';
import { once } from 'node:events';
import { readConfig } from './config.js';
import { demoSize, type DemoSize } from './demo/demo-size.js';
import { isSettled } from './demo/settled.js';

/** `node dist/main.js [--empty | --demo small]`: serves until it is told to stop. */
const config = readConfig(process.env);
try {
  const size = process.argv.includes('--empty') ? undefined : demoSize(askedDemo());
  const demo = size && !(await isSettled(config.databaseUrl)) ? loadDemo(size) : undefined;
  // What it takes to serve is read while the demo is made.
  const { makeServer } = await import('./server.js');
  const { app } = await makeServer(config);
  await demo;
  await app.listen(config.port, config.host);
  process.stdout.write(`listening ${config.host}:${config.port}\n`);
} catch (error) {
  const { code, message, stack } = error as NodeJS.ErrnoException;
  const words: Partial<Record<string, string>> = {
    EADDRINUSE: `Port ${config.port} is taken: set JUBB_PORT to another one`,
    ECONNREFUSED: 'The database does not answer: check JUBB_DATABASE_URL, or that PostgreSQL runs',
    ENOTFOUND: 'The database has no such address: check JUBB_DATABASE_URL',
    '28P01': 'The database refuses the password: check JUBB_DATABASE_URL',
    '3D000': 'The database does not exist: check the name at the end of JUBB_DATABASE_URL',
    ENOSPC: 'The disk is full: make room and start again',
    '53100': 'The disk of the database is full: make room and start again',
  };
  const plain = code && words[code];
  // Whoever asks for the log finds where it came from; the last line is what the command says.
  process.stderr.write(plain ? `${plain}\n` : `${stack}\n${message}\n`);
  process.exit(1);
}

/** What stands behind `--demo`. */
function askedDemo(): string | undefined {
  const at = process.argv.indexOf('--demo');
  return at < 0 ? undefined : (process.argv[at + 1] ?? '');
}

/** Has the demo made by a process of its own; ends with it where that fails, which says why. */
async function loadDemo(size: DemoSize): Promise<void> {
  const [code] = (await once(fork(new URL('load-demo.js', import.meta.url), [size]), 'exit')) as [number | null];
  if (code !== 0) process.exit(1);
}
