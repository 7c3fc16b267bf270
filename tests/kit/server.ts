import { spawn, type ChildProcess } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';
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

export async function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}

/** The built server as a process of its own, with the demo unless `empty`. */
export async function startServer(
  databaseUrl: string,
  options: { empty?: boolean; port?: number; env?: Record<string, string> } = {},
): Promise<RunningServer> {
  const port = options.port ?? (await freePort());
  const child = spawn(process.execPath, [MAIN, ...(options.empty ? ['--empty'] : [])], {
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
