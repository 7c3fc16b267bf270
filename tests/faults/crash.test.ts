import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ChainView, HealthView, JobHead, JobView, NewEntry } from '@jubb/contract';
import { startPostgres, stopPostgres } from '../../tools/postgres.mjs';
import { Client, entry } from '../kit/client.ts';
import { query } from '../kit/database.ts';
import { freePort, startServer, type RunningServer } from '../kit/server.ts';

const TABLETS = 6;
const POSTING_MS = 1500;

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

/** Posts entries one after the other, each again and again until it is acknowledged, as a tablet's outbox does. */
async function tablet(client: Client, jobId: string, name: string, until: () => boolean): Promise<readonly NewEntry[]> {
  const acknowledged: NewEntry[] = [];
  for (let number = 1; !until(); number += 1) {
    const note = entry('note', { text: `${name} ${number}` });
    for (;;) {
      const answer = await client.post(jobId, note).catch(() => undefined);
      if (answer?.status === 200) break;
      expect([undefined, 503, 500]).toContain(answer?.status);
      await wait(50);
    }
    acknowledged.push(note);
  }
  return acknowledged;
}

test('server killed and database stopped at once in the middle of posting: every acknowledged entry is there once', async () => {
  const client = await Client.as(server.base, 'ilka');
  const jobs = (await client.get<JobHead[]>('/jobs')).filter((job) => job.closedAt === null);
  let done = false;
  const work = Array.from({ length: TABLETS }, (_, index) => tablet(client, jobs[index % jobs.length]!.id, `tablet ${index}`, () => done));
  for (let round = 0; round < 2; round += 1) {
    await wait(POSTING_MS);
    server.child.kill('SIGKILL');
    stopPostgres(folder, 'immediate');
    await startPostgres(folder);
    server = await startServer(url, { port });
  }
  await wait(POSTING_MS);
  done = true;
  const acknowledged = await Promise.all(work);

  expect(acknowledged.flat().length).toBeGreaterThan(TABLETS * 5);
  for (const job of jobs) {
    const { entries } = await client.get<JobView>(`/jobs/${job.id}`);
    const ids = entries.map((kept) => kept.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(entries.map((kept) => kept.seq)).toEqual(entries.map((_, index) => index + 1));
    expect(await client.get<ChainView>(`/jobs/${job.id}/chain`)).toMatchObject({ whole: true, entries: entries.length });
    for (const [index, notes] of acknowledged.entries()) {
      if (jobs[index % jobs.length] !== job) continue;
      // All of them, and in the order in which the tablet made them.
      expect(ids.filter((id) => notes.some((note) => note.id === id))).toEqual(notes.map((note) => note.id));
    }
  }
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
