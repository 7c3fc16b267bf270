import type { NetworkView } from '@jubb/wire';
import { spawnSync, type SpawnSyncReturns } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { Agent, request } from 'node:https';
import type { IncomingMessage } from 'node:http';
import { text } from 'node:stream/consumers';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { once } from 'node:events';
import { ROOT, freePort } from '../kit/server.ts';

let folder: string;
let env: NodeJS.ProcessEnv;
let [secure, plain] = ['', ''];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jubb-lan-'));
  chmodSync(folder, 0o755);
  mkdirSync(join(folder, 'shop'), { mode: 0o755 });
  const { JUBB_DATABASE_URL: _, ...rest } = process.env;
  [secure, plain] = [String(await freePort()), String(await freePort())];
  env = {
    ...rest,
    ...{ NODE_OPTIONS: '', JUBB_HOME: join(folder, 'shop'), JUBB_PORT: String(await freePort()) },
    // This machine alone is the network of the test.
    ...{ JUBB_LAN_BIND: '127.0.0.1', JUBB_LAN_PORT: secure, JUBB_LAN_TRUST_PORT: plain },
  };
});
afterAll(() => {
  jubb(['stop']);
  rmSync(folder, { recursive: true, force: true });
});

function jubb(args: readonly string[], more: NodeJS.ProcessEnv = {}): SpawnSyncReturns<string> {
  return spawnSync(join(ROOT, 'jubb'), args, { encoding: 'utf8', env: { ...env, ...more }, cwd: '/' });
}

interface Got {
  readonly status: number;
  readonly headers: IncomingMessage['headers'];
  readonly body: string;
}

/** What a tablet gets over https that trusts `ca`, or nobody but those that every tablet trusts. */
async function tablet(
  path: string,
  ca: string | undefined,
  asked: { method?: string; headers?: object; body?: string } = {},
): Promise<Got> {
  const { method = 'GET', headers = {}, body } = asked;
  const agent = new Agent(ca === undefined ? {} : { ca });
  const sent = request(`https://127.0.0.1:${secure}${path}`, { agent, method, headers: { ...headers } });
  sent.end(body);
  const [answer] = (await once(sent, 'response')) as [IncomingMessage];
  return { status: answer.statusCode ?? 0, headers: answer.headers, body: await text(answer) };
}

/** Caddy makes its authority in the moment after the server listens. */
async function authority(): Promise<string> {
  for (let tries = 0; tries < 100; tries += 1) {
    const answer = await fetch(`http://127.0.0.1:${plain}/shop.crt`).catch(() => undefined);
    if (answer?.ok) return answer.text();
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error('no authority');
}

test('the tablets of the network come by https with an authority of the shop’s own, and by nothing else', async () => {
  const started = jubb(['start', '--lan', '--demo', 'small']);
  if (started.status !== 0) throw new Error(started.stderr);
  expect(started.stdout).toContain(`On the shop’s network it is at https://127.0.0.1:${secure}`);
  expect(started.stdout).toContain(`A tablet that comes for the first time: http://127.0.0.1:${plain}`);
  const ca = await authority();

  // Whoever does not trust it gets nothing; whoever does gets the shop.
  await expect(tablet('/api/v1/health', undefined)).rejects.toThrow(/certificate|issuer/u);
  expect(JSON.parse((await tablet('/api/v1/health', ca)).body)).toMatchObject({ database: 'up' });
  expect((await tablet('/', ca)).body).toContain('<div id="root">');

  // Over plain http there is the way to trust, and nothing of the shop.
  const page = await fetch(`http://127.0.0.1:${plain}/`);
  expect(await page.text()).toContain(`https://127.0.0.1:${secure}/shop/network`);
  const refused = await fetch(`http://127.0.0.1:${plain}/api/v1/health`);
  expect([refused.status, await refused.text()]).toEqual([403, expect.stringContaining(`Jubb is at https://127.0.0.1:${secure}`)]);

  // A session is one that only https carries; the address of the tablet is known through the proxy.
  const headers = { 'content-type': 'application/json', 'x-jubb-csrf': 'none' };
  const body = JSON.stringify({ login: 'oswin', password: 'bench-417' });
  const entered = await tablet('/api/v1/session', ca, { method: 'POST', headers, body });
  expect(entered.status).toBe(200);
  const cookies = entered.headers['set-cookie'] ?? [];
  expect(cookies.length).toBeGreaterThan(0);
  for (const cookie of cookies) expect(cookie).toMatch(/; Secure/u);
  const cookie = cookies.map((one) => one.split(';')[0]).join('; ');
  const view = JSON.parse((await tablet('/api/v1/network', ca, { headers: { cookie } })).body) as NetworkView;
  const { fingerprint256 } = new X509Certificate(ca);
  expect(view).toEqual({
    secure: [`https://127.0.0.1:${secure}`],
    trust: `http://127.0.0.1:${plain}`,
    fingerprint: fingerprint256,
    isSecure: true,
  });
  expect((await tablet('/api/v1/network/code.svg', ca, { headers: { cookie } })).body).toContain('<svg');

  // What happens elsewhere is told through it at once.
  const events = request(`https://127.0.0.1:${secure}/api/v1/stream`, { agent: new Agent({ ca }), headers: { cookie } });
  events.end();
  const [stream] = (await once(events, 'response')) as [IncomingMessage];
  expect(stream.headers['content-type']).toContain('text/event-stream');
  const [first] = (await once(stream, 'data')) as [Buffer];
  expect(first.length).toBeGreaterThan(0);
  events.destroy();

  expect(jubb(['status']).stdout).toMatch(new RegExp(`ok +network +https://127\\.0\\.0\\.1:${secure}, trusted for \\d{4} days`, 'u'));
});

test('a certificate that is given stands in its place; what is wrong with it is said in one line, and the shop runs on', async () => {
  const refusal = (args: readonly string[], more: NodeJS.ProcessEnv = {}): string => {
    const { status, stderr } = jubb(['start', '--lan', '--demo', 'small', ...args], more);
    expect(status).toBe(1);
    return stderr.trim().split('\n').at(-1) ?? '';
  };
  const [certificate, key] = [join(folder, 'own.crt'), join(folder, 'own.key')];
  const made = spawnSync('openssl', [
    ...['req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:prime256v1', '-nodes', '-days', '90'],
    ...['-keyout', key, '-out', certificate, '-subj', '/CN=jubb', '-addext', 'subjectAltName=IP:127.0.0.1'],
  ]);
  expect(made.status).toBe(0);
  writeFileSync(join(folder, 'none.crt'), 'nothing of the kind');
  expect(refusal(['--certificate', certificate])).toContain('--certificate and --key go together');
  expect(refusal(['--certificate', join(folder, 'nowhere.crt'), '--key', key])).toContain('there is no such file');
  expect(refusal(['--certificate', join(folder, 'none.crt'), '--key', key])).toContain('it is no certificate (PEM)');
  expect(refusal([], { JUBB_LAN_PORT: '99999' })).toContain('JUBB_LAN_PORT is "99999"');
  const ca = readFileSync(join(folder, 'shop', 'lan', 'pki', 'authorities', 'local', 'root.crt'), 'utf8');
  expect((await tablet('/api/v1/health', ca)).status).toBe(200);

  const started = jubb(['start', '--lan', '--demo', 'small', '--certificate', certificate, '--key', key]);
  if (started.status !== 0) throw new Error(started.stderr);
  expect(started.stdout).not.toContain('for the first time');
  const own = readFileSync(certificate, 'utf8');
  for (let tries = 0; tries < 100; tries += 1) {
    const answer = await tablet('/api/v1/health', own).catch(() => undefined);
    if (answer) break;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  expect((await tablet('/api/v1/health', own)).status).toBe(200);
  await expect(tablet('/api/v1/health', ca)).rejects.toThrow(/certificate/u);
  expect(jubb(['status']).stdout).toMatch(/network .* trusted for (?:89|90) days/u);
  expect(existsSync(join(folder, 'shop', 'lan', 'Caddyfile'))).toBe(true);

  // Without it the shop is served to its own machine alone again.
  expect(jubb(['start', '--demo', 'small']).status).toBe(0);
  await expect(tablet('/api/v1/health', own)).rejects.toThrow(/ECONNREFUSED|socket/u);
});
