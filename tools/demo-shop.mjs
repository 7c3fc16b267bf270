// A demo shop of its own in a temporary folder, for pictures and measurements.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from './postgres.mjs';
import { run } from './setup.mjs';

/** Runs `work` against a shop started by `./jubb start`, and takes the shop away afterwards. */
export async function withDemoShop(work) {
  const folder = mkdtempSync(join(tmpdir(), 'jubb-shop-'));
  run('chmod', ['755', folder]);
  delete process.env.JUBB_DATABASE_URL;
  Object.assign(process.env, { JUBB_HOME: folder, JUBB_PORT: String(await freePort()), JUBB_REQUESTS_PER_10S: '1000000' });
  const { start, stop } = await import('./serve.mjs');
  try {
    const shop = await start([], { quiet: true });
    return await work(shop);
  } finally {
    await stop({ quiet: true });
    rmSync(folder, { recursive: true, force: true });
  }
}

/** One person at the API. */
export async function logIn(base, login) {
  const { DEMO_PASSWORD } = await import('../apps/server/dist/demo/demo.js');
  const entered = await fetch(`${base}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-jubb-csrf': 'none' },
    body: JSON.stringify({ login, password: DEMO_PASSWORD }),
  });
  const cookie = entered.headers.getSetCookie()[0].split(';')[0];
  const { csrf } = await entered.json();
  return async (method, path, body) => {
    const answer = await fetch(`${base}/api/v1${path}`, {
      method,
      headers: { cookie, 'x-jubb-csrf': csrf, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const read = await answer.json();
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(read)}`);
    return read;
  };
}
