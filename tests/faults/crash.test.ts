import type { JobHead } from '@jubb/book';
import type { HealthView } from '@jubb/wire';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startPostgres, stopPostgres } from '../../tools/postgres.mjs';
import { soak } from '../../tools/soak.mjs';
import { Client } from '../kit/client.ts';
import { query } from '../kit/database.ts';
import { freePort, startServer, type RunningServer } from '../kit/server.ts';

let folder: string;
let url: string;
let port: number;
let server: RunningServer;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jubb-crash-'));
  chmodSync(folder, 0o755);
  ({ url } = await startPostgres(folder));
  port = await freePort();
  server = await startServer(url, { port });
});
afterAll(async () => {
  await server.stop();
  stopPostgres(folder, 'immediate');
  rmSync(folder, { recursive: true, force: true });
});

test('servers killed, the database killed under another, its listener cut: nothing recorded is missing, doubled or out of order', async () => {
  const { problems, ...figures } = await soak({ tablets: 20, seconds: 13, killEveryS: 4, killDatabaseEveryS: 6, cutListenerEveryS: 5 });
  expect(problems).toEqual([]);
  expect(figures).toMatchObject({ 'servers killed, databases killed, listeners cut': '3, 2, 2', 'entries still held in the end': 0 });
  // It was hard on them: answers were lost, sendings failed.
  expect(figures['entries recorded']).toBeGreaterThan(150);
  expect(figures['sendings that failed']).toBeGreaterThan(0);
  expect(figures['entries sent again although they were kept']).toBeGreaterThan(0);
});

test('while the database is away every call is told so, and all goes on when it is back', async () => {
  const client = await Client.as(server.base, 'ilka');
  stopPostgres(folder, 'fast');
  const health = await client.call<HealthView>('GET', '/health');
  expect(health).toMatchObject({ status: 503, body: { database: 'down' } });
  const refused = await client.call('GET', '/jobs');
  expect(refused.status).toBe(503);
  expect(refused.body.title).toContain('database does not answer');
  expect(JSON.stringify(refused.body)).not.toMatch(/at .*\.js|ECONNREFUSED|stack/u);
  await startPostgres(folder);
  for (let tries = 0; tries < 50 && (await client.call('GET', '/health')).status !== 200; tries += 1) await wait(100);
  expect((await client.get<JobHead[]>('/jobs')).length).toBeGreaterThan(0);
});

test('the database is told to keep what it acknowledges', async () => {
  const asked = await query(url, "SELECT setting FROM pg_settings WHERE name IN ('fsync', 'synchronous_commit', 'full_page_writes')");
  expect(asked.rows).toEqual([{ setting: 'on' }, { setting: 'on' }, { setting: 'on' }]);
});
