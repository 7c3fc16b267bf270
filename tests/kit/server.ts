import { spawn, type ChildProcess } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const MAIN = fileURLToPath(new URL('../../apps/server/dist/main.js', import.meta.url));
const PATIENCE_MS = 180_000;

export interface RunningServer {
  readonly base: string;
  readonly port: number;
  readonly child: ChildProcess;
  stop(signal?: NodeJS.Signals): Promise<void>;
}

/** Ports that no outgoing connection of another test is given meanwhile. */
const [FIRST_PORT, LAST_PORT] = [12_000, 32_000];

export async function freePort(): Promise<number> {
  for (;;) {
    const port = randomInt(FIRST_PORT, LAST_PORT);
    const isFree = await new Promise<boolean>((resolve) => {
      const probe = createServer().once('error', () => resolve(false));
      probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
    });
    if (isFree) return port;
  }
}

/** The built server as a process of its own, with the demo unless `empty`. */
export async function startServer(
  databaseUrl: string,
  options: { empty?: boolean; demo?: 'small' | 'full'; port?: number; env?: Record<string, string> } = {},
): Promise<RunningServer> {
  const port = options.port ?? (await freePort());
  const child = spawn(process.execPath, [MAIN, ...(options.empty ? ['--empty'] : ['--demo', options.demo ?? 'small'])], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      NODE_ENV: 'production',
      JUBB_DATABASE_URL: databaseUrl,
      JUBB_PORT: String(port),
      JUBB_REQUESTS_PER_10S: '1000000',
      ...options.env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  await new Promise<void>((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error(`the server did not come up: ${said}`)), PATIENCE_MS);
    const hear = (chunk: Buffer): void => {
      said += chunk.toString();
      timer.refresh();
      if (!said.includes('listening ')) return;
      clearTimeout(timer);
      resolve();
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    void ended.then(() => reject(new Error(`the server ended: ${said}`)));
  });
  return {
    base: `http://127.0.0.1:${port}`,
    port,
    child,
    stop: async (signal = 'SIGTERM') => {
      child.kill(signal);
      await ended;
    },
  };
}
