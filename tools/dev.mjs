// ./jubb dev: what is typed is compiled, the server begins again, the page is served by Vite. Ends with Ctrl+C.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { isTaken, startPostgres, stopPostgres } from './postgres.mjs';
import { Stop, say } from './say.mjs';
import { portWanted, sayLogIns } from './serve.mjs';
import { ROOT, checkMachine, ensureBuild, ensureNodeModules, home } from './setup.mjs';

/** Until it is told to end, or until one of its programs ends by itself. */
export async function dev() {
  checkMachine();
  ensureNodeModules();
  ensureBuild();
  const page = portWanted();
  const api = page + 1;
  for (const port of [page, api])
    if (await isTaken(port)) throw new Stop(`Port ${port} is taken: ./jubb stop, or set JUBB_PORT to another`);
  const { url } = process.env.JUBB_DATABASE_URL ? { url: process.env.JUBB_DATABASE_URL } : await startPostgres(join(home(), 'postgres'));
  const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
  const env = { ...process.env, JUBB_PORT: String(api), JUBB_DATABASE_URL: url, JUBB_API: `http://127.0.0.1:${api}` };
  const watched = ['core', 'sheet', 'book', 'wire'].map((name) => join(ROOT, 'packages', name, 'dist'));
  const programs = [
    begin('types', bin('tsc'), ['-b', '-w', '--preserveWatchOutput'], env),
    begin(
      'server',
      process.execPath,
      [
        '--enable-source-maps',
        '--watch-preserve-output',
        ...[...watched, join(ROOT, 'apps/server/dist')].map((path) => `--watch-path=${path}`),
        join(ROOT, 'apps/server/dist/main.js'),
      ],
      env,
    ),
    begin('pages', bin('vite'), ['--port', String(page), '--strictPort', '--clearScreen', 'false'], env, join(ROOT, 'apps/web')),
  ];
  say(`Jubb is at http://127.0.0.1:${page}, and follows what you type; Ctrl+C ends it`);
  await sayLogIns();
  await new Promise((resolve) => {
    process.on('SIGINT', resolve);
    process.on('SIGTERM', resolve);
    for (const program of programs) program.once('exit', resolve);
  });
  for (const program of programs) if (program.exitCode === null) program.kill('SIGTERM');
  if (!process.env.JUBB_DATABASE_URL) stopPostgres(join(home(), 'postgres'));
}

/** A program whose lines say which one it is. */
function begin(name, command, args, env, cwd = ROOT) {
  const child = spawn(command, args, { cwd, env, stdio: ['ignore', 'pipe', 'pipe'] });
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk) => {
      for (const line of String(chunk).trimEnd().split('\n')) if (line.trim() !== '') say(`${name.padEnd(7)} ${line}`);
    });
  return child;
}
