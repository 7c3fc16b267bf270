import { isKind, type JobView } from '@jubb/book';
import { spawnSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { chmodSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { SecondHost, canHost } from '../kit/second-host.ts';
import { ROOT, freePort } from '../kit/server.ts';
import { until } from '../kit/stream.ts';

const onTwo = canHost() ? test : test.skip;

let folder: string;
let host: SecondHost | undefined;
let env: NodeJS.ProcessEnv;
const ports = { own: 0, secure: 0, plain: 0 };

function jubb(...args: readonly string[]): void {
  const { status, stderr } = spawnSync(join(ROOT, 'jubb'), args, { encoding: 'utf8', env, cwd: '/' });
  if (status !== 0) throw new Error(stderr);
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jubb-second-'));
  chmodSync(folder, 0o755);
  if (!canHost()) return;
  host = new SecondHost(folder);
  for (const port of ['own', 'secure', 'plain'] as const) ports[port] = await freePort();
  const { JUBB_DATABASE_URL: _, ...rest } = process.env;
  mkdirSync(join(folder, 'shop'), { mode: 0o755 });
  env = {
    ...rest,
    ...{ NODE_OPTIONS: '', JUBB_HOME: join(folder, 'shop'), JUBB_PORT: String(ports.own) },
    ...{ JUBB_LAN_BIND: host.here, JUBB_LAN_PORT: String(ports.secure), JUBB_LAN_TRUST_PORT: String(ports.plain) },
  };
  jubb('start', '--lan', '--demo', 'small');
});
afterAll(() => {
  if (host) {
    jubb('stop');
    host.end();
  }
  rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
});

onTwo('a tablet on the network trusts the shop, opens it, works on without its cable, and what it held arrives', async () => {
  const { here, ...at } = {
    here: host!.here,
    secure: `https://${host!.here}:${ports.secure}`,
    plain: `http://${host!.here}:${ports.plain}`,
  };
  await until(() => {
    try {
      return host!.get(`${at.plain}/shop.crt`).status === 200;
    } catch {
      return false;
    }
  }, 60_000);
  // The server itself, and its database, are reached from this machine alone.
  expect(() => host!.get(`http://${here}:${ports.own}/api/v1/health`)).toThrow(/ECONNREFUSED/u);
  expect(host!.get(`${at.plain}/api/v1/health`).status).toBe(403);

  // Before it trusts, the browser opens nothing.
  const wary = await host!.browser();
  try {
    const page = await wary.browser.newPage();
    await expect(page.goto(at.secure)).rejects.toThrow('ERR_CERT_AUTHORITY_INVALID');
  } finally {
    await wary.close();
  }
  const authority = host!.get(`${at.plain}/shop.crt`).body;
  host!.trust(authority);

  const { browser, close } = await host!.browser();
  try {
    const hand = await Hand.at(browser, at.secure, '/shop/network', { keeps: true });
    await hand.logIn('ilka');
    await hand.heads('On the network');
    // What it trusted is what the shop says.
    await hand.sees(new X509Certificate(authority).fingerprint256);
    // The worker that keeps the pages has them some moments after the first of them.
    await hand.page.evaluate(async () => void (await navigator.serviceWorker.ready));
    await hand.use('Try everything');
    await hand.page.waitForFunction(
      () => document.querySelectorAll('main tbody td b').length === document.querySelectorAll('main tbody tr').length,
    );
    const checks = await hand.page.$$eval('main tbody tr', (rows) =>
      rows.map((row) => row.innerText.split('\t').slice(0, 2).join(' ').trim()),
    );
    for (const what of ['Link', 'Without a link', 'Camera', 'Microphone', 'Clock']) expect(checks).toContain(`${what} works`);

    const api = await Client.as(`http://127.0.0.1:${ports.own}`, 'ilka');
    const { id } = await api.bookedOn('tindlebrook-cc1-loose-ball-hub');
    await api.workTo(id, 'balls-out-left');
    const before = (await api.get<JobView>(`/jobs/${id}`)).entries.length;
    await hand.page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await hand.go(`/bench/${id}`);
    await hand.heads('Balls out, left');
    await hand.settles(500);

    host!.drawCable();
    await hand.page.reload();
    await hand.heads('Balls out, left');
    await hand.press('Space');
    await hand.sees('1 held, no link');
    await hand.page.reload();
    await hand.sees('1 held, no link');
    expect((await api.get<JobView>(`/jobs/${id}`)).entries.length).toBe(before);

    host!.plugIn();
    await hand.sees('live');
    await hand.page.waitForFunction(() => !document.body.innerText.includes('held'));
    const { entries } = await api.get<JobView>(`/jobs/${id}`);
    expect(entries.length).toBe(before + 1);
    expect(entries.filter(isKind('came-off')).at(-1)?.payload).toMatchObject({ part: 'balls-left', count: 9 });
  } finally {
    await close();
  }
});
