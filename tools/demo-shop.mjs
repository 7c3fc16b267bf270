// A demo shop of its own in a temporary folder, for pictures and measurements.
import { mkdtempSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from './postgres.mjs';
import { run } from './setup.mjs';

/** Runs `work` against a shop started by `./jubb start`, and takes the shop away afterwards: the small one where nothing is said. */
export async function withDemoShop(work, demo = 'small') {
  const folder = mkdtempSync(join(tmpdir(), 'jubb-shop-'));
  run('chmod', ['755', folder]);
  delete process.env.JUBB_DATABASE_URL;
  Object.assign(process.env, { JUBB_HOME: folder, JUBB_PORT: String(await freePort()), JUBB_REQUESTS_PER_10S: '1000000' });
  const { start, stop } = await import('./serve.mjs');
  try {
    const shop = await start(['--demo', demo], { quiet: true });
    return await work(shop);
  } finally {
    await stop({ quiet: true });
    agent.destroy();
    rmSync(folder, { recursive: true, force: true });
  }
}

// One connection a caller and nothing more: what a call costs should be the server's work, not the client's.
const agent = new Agent({ keepAlive: true, maxSockets: 64 });

/** One person at the API. */
export async function logIn(base, login) {
  const { headers } = await enter(base, login);
  return async (method, path, body, type = 'application/json') => {
    const answer = await send(base, method, path, { ...headers, 'content-type': type }, body);
    if (answer.status >= 400) throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
    return answer.body;
  };
}

/** A page that somebody has open: each event that it hears is handed on, and that its link is gone. */
export async function openPage(base, login, hear, onEnd = () => undefined) {
  const { headers } = await enter(base, login);
  let bytes = 0;
  let rest = '';
  const asked = request(`${base}/api/v1/stream`, { headers }, (response) => {
    response.setEncoding('utf8');
    response.on('data', (chunk) => {
      bytes += chunk.length;
      const events = (rest + chunk).split('\n\n');
      rest = events.pop();
      for (const event of events) {
        const data = /^data: (.*)$/mu.exec(event)?.[1];
        if (data && !event.includes('event: ')) hear(JSON.parse(data));
      }
    });
    response.on('error', () => undefined);
    response.on('close', onEnd);
  });
  asked.on('error', onEnd);
  asked.end();
  return { bytes: () => bytes, close: () => asked.destroy() };
}

/** The headers that somebody who is logged in sends. */
export async function enter(base, login) {
  const { DEMO_PASSWORD } = await import('../apps/server/dist/demo/demo-people.js');
  const entered = await send(
    base,
    'POST',
    '/session',
    { 'x-jubb-csrf': 'none', 'content-type': 'application/json' },
    { login, password: DEMO_PASSWORD },
  );
  const cookie = entered.headers['set-cookie'].map((one) => one.split(';')[0]).join('; ');
  return { headers: { cookie, 'x-jubb-csrf': entered.body.csrf } };
}

/** One call at the API, with what it answers. */
function send(base, method, path, headers, body) {
  return ask(`${base}/api/v1`, method, path, headers, body);
}

/** One call at whatever serves at a base. */
export function ask(base, method, path, headers, body) {
  const text = body === undefined || typeof body === 'string' ? body : JSON.stringify(body);
  const length = text === undefined ? {} : { 'content-length': Buffer.byteLength(text) };
  return new Promise((resolve, reject) => {
    const asked = request(`${base}${path}`, { method, agent, headers: { ...headers, ...length } }, (response) => {
      const chunks = [];
      response.on('data', (chunk) => chunks.push(chunk));
      response.on('end', () => {
        const read = Buffer.concat(chunks).toString();
        resolve({ status: response.statusCode, headers: response.headers, body: read === '' ? undefined : JSON.parse(read) });
      });
    });
    asked.on('error', reject);
    asked.end(text);
  });
}
