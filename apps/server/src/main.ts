import { readConfig } from './config.js';
import { DEMO_SIZES, type DemoSize } from './demo/demo.js';
import { loadDemo, makeServer } from './server.js';

/** `node dist/main.js [--empty | --demo small]`: serves until it is told to stop. */
const config = readConfig(process.env);
try {
  const { app } = await makeServer(config);
  if (!process.argv.includes('--empty')) await loadDemo(config, demoSize());
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

/** The demo that is asked for by `--demo`; a shop with two years behind it where nothing is said. */
function demoSize(): DemoSize {
  const at = process.argv.indexOf('--demo');
  const asked = at < 0 ? 'full' : process.argv[at + 1];
  const size = DEMO_SIZES.find((one) => one === asked);
  if (size) return size;
  throw new Error(`--demo is "${asked ?? ''}"; it is one of ${DEMO_SIZES.join(', ')}`);
}
