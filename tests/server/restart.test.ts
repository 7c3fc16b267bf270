import type { JobView } from '@jubb/book';
import type { ChainView } from '@jubb/wire';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import pg from 'pg';
import { Client, entry } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { openStream, until, type Stream } from '../kit/stream.ts';

let database: TestDatabase;
let server: RunningServer;
let ilka: Client;
let jobId: string;

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  ilka = await Client.as(server.base, 'ilka');
  jobId = (await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId)).id;
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

const isAlive = (): boolean => server.child.exitCode === null && server.child.signalCode === null;
/** Ends every connection to the database but the one that asks, as a restart of it does. */
const cutAll = (application = '%'): Promise<unknown> =>
  database.query(
    `SELECT pg_terminate_backend(pid) FROM pg_stat_activity
     WHERE datname = current_database() AND pid <> pg_backend_pid() AND application_name LIKE $1`,
    [application],
  );
const stream = (): Promise<Stream> => openStream(server.base, ilka);

describe('a database that is started anew under the living server', () => {
  test('with transactions in the middle: the server lives, and what was not kept is sent again and kept once', async () => {
    const holder = new pg.Client({ connectionString: database.url, application_name: 'holder' });
    await holder.connect();
    holder.on('error', () => undefined);
    await holder.query('BEGIN');
    await holder.query('SELECT 1 FROM job WHERE id = $1 FOR UPDATE', [jobId]);
    // Each waits in its own transaction for the lock on the job.
    const entries = Array.from({ length: 6 }, (_, index) => entry('stage', { stage: index % 2 ? 'strip' : 'book-in' }));
    const sent = entries.map((one) => ilka.post(jobId, one));
    await until(async () => {
      const { rows } = await database.query(
        `SELECT count(*)::int AS n FROM pg_stat_activity WHERE datname = current_database() AND wait_event_type = 'Lock'`,
      );
      return rows[0]!.n >= entries.length;
    });
    await cutAll();
    expect(new Set((await Promise.all(sent)).map(({ status }) => status))).toEqual(new Set([503]));
    const again = await Promise.all(entries.map((one) => ilka.post(jobId, one)));
    expect(new Set(again.map(({ status }) => status))).toEqual(new Set([200]));
    expect(isAlive()).toBe(true);
    const kept = (await ilka.get<JobView>(`/jobs/${jobId}`)).entries;
    expect(kept.map(({ id }) => id).toSorted()).toEqual(entries.map(({ id }) => id).toSorted());
    expect(await ilka.get<ChainView>(`/jobs/${jobId}/chain`)).toMatchObject({ whole: true });
    await holder.end().catch(() => undefined);
  });

  test('twelve times over, while entries come: none is lost, none doubled', async () => {
    const before = (await ilka.get<JobView>(`/jobs/${jobId}`)).entries.length;
    const acknowledged: string[] = [];
    let over = false;
    const tablets = Array.from({ length: 4 }, async () => {
      while (!over) {
        const one = entry('note', { text: 'still here' });
        for (;;) {
          const { status } = await ilka.post(jobId, one).catch(() => ({ status: 0 }));
          if (status === 200) break;
          await new Promise((resolve) => setTimeout(resolve, 30));
        }
        acknowledged.push(one.id);
      }
    });
    for (let round = 0; round < 12; round += 1) {
      await new Promise((resolve) => setTimeout(resolve, 120));
      await cutAll();
    }
    over = true;
    await Promise.all(tablets);
    expect(isAlive()).toBe(true);
    const kept = (await ilka.get<JobView>(`/jobs/${jobId}`)).entries.slice(before).map(({ id }) => id);
    expect(kept.toSorted()).toEqual(acknowledged.toSorted());
    expect(await ilka.get<ChainView>(`/jobs/${jobId}/chain`)).toMatchObject({ whole: true });
  });

  test('a process that lost its listener lets its pages go, and hears what comes after', async () => {
    const page = await stream();
    await cutAll('jubb-stream');
    await until(() => !page.isOpen());
    await until(async () => (await stream()).isOpen());
    let next = await stream();
    // It may let a page go once more while it begins to listen; what comes after that is heard.
    await until(async () => {
      if (!next.isOpen()) next = await stream();
      await ilka.post(jobId, entry('note', { text: 'heard' }));
      return next.said().some((event) => event.type === 'entries' && event.jobId === jobId);
    });
  });
});

test('told to stop, the server ends within two seconds, whatever pages are open', async () => {
  const own = await startServer(database.url);
  const client = await Client.as(own.base, 'bram');
  const pages = await Promise.all(
    Array.from({ length: 3 }, () => fetch(`${own.base}/api/v1/stream`, { headers: { cookie: client.cookie } })),
  );
  expect(pages.map(({ status }) => status)).toEqual([200, 200, 200]);
  const before = performance.now();
  await own.stop('SIGTERM');
  expect(performance.now() - before).toBeLessThan(2000);
  expect(own.child.signalCode ?? own.child.exitCode).toBe('SIGTERM');
});
