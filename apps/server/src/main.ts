import { Demo } from './demo/demo.js';
import { readConfig } from './config.js';
import { makeServer } from './server.js';

/** `node dist/main.js [--empty]`: serves until it is told to stop. */
const config = readConfig(process.env);
try {
  const { app } = await makeServer(config);
  if (!process.argv.includes('--empty')) await app.get(Demo).loadIfEmpty(config.demoSheets);
  await app.listen(config.port, config.host);
  process.stdout.write(`listening ${config.host}:${config.port}\n`);
} catch (error) {
  const { code, message } = error as NodeJS.ErrnoException;
  const words: Partial<Record<string, string>> = {
    EADDRINUSE: `Port ${config.port} is taken: set JUBB_PORT to another one`,
    ECONNREFUSED: 'The database does not answer: check JUBB_DATABASE_URL, or that PostgreSQL runs',
    ENOTFOUND: 'The database has no such address: check JUBB_DATABASE_URL',
    '28P01': 'The database refuses the password: check JUBB_DATABASE_URL',
    '3D000': 'The database does not exist: check the name at the end of JUBB_DATABASE_URL',
    ENOSPC: 'The disk is full: make room and start again',
    '53100': 'The disk of the database is full: make room and start again',
  };
  process.stderr.write(`${(code && words[code]) ?? message}\n`);
  process.exit(1);
}
