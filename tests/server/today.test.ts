import { daysOn } from '@jubb/sheet';
import {
  jobState,
  nextAct,
  stageProgress,
  type AnyKeptEntry,
  type JobView,
  type TodayLine,
  type TodayTold,
  type TodayView,
} from '@jubb/book';
import type { SheetView } from '@jubb/wire';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Client, entry } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { openStream, until, type Stream } from '../kit/stream.ts';

let database: TestDatabase;
/** Two processes of one shop. */
let here: RunningServer;
let there: RunningServer;
let ilka: Client;
let hub: string;

beforeAll(async () => {
  database = await demoDatabase();
  here = await startServer(database.url);
  there = await startServer(database.url);
  ilka = await Client.as(here.base, 'ilka');
  hub = (await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId;
});
afterAll(async () => {
  await Promise.all([here.stop(), there.stop()]);
  await database.drop();
});

const lineOf = async (client: Client, id: string): Promise<TodayLine | undefined> =>
  (await client.get<TodayView>('/today')).lines.find(({ jobId }) => jobId === id);
const toldOf = (stream: Stream, id: string): readonly TodayTold[] =>
  stream.said().filter((event): event is TodayTold => event.type === 'today' && event.lines.some(({ jobId }) => jobId === id));
const lastOf = (stream: Stream, id: string): TodayLine | undefined =>
  toldOf(stream, id)
    .at(-1)
    ?.lines.find(({ jobId }) => jobId === id);

describe('Today', () => {
  test('says of every job what its whole book says, whatever was remembered of it', async () => {
    const ids = await Promise.all(Array.from({ length: 3 }, async () => (await ilka.booked(hub)).id));
    for (const step of ['marks', 'wheel-off', 'hub-off']) {
      for (const id of ids.slice(0, step === 'hub-off' ? 1 : 3)) await ilka.workTo(id, step).catch(() => undefined);
      const { lines } = await ilka.get<TodayView>('/today');
      for (const line of lines) {
        const job = await ilka.get<JobView>(`/jobs/${line.jobId}`);
        const state = jobState(job.sheet.file, job.entries);
        expect(line).toMatchObject({
          seq: job.entries.length,
          stage: state.stage,
          left: stageProgress(state, state.stage).left,
          next: nextAct(state)?.say ?? '',
          last: job.entries.length === 0 ? null : { personId: state.live.at(-1)?.personId },
        });
      }
    }
  });

  test('a page is told what changed at any process, as its own role has it, and what is gone', async () => {
    const { id } = await ilka.booked(hub);
    const joss = await Client.as(there.base, 'joss');
    const [mine, theirs] = [await openStream(here.base, ilka), await openStream(there.base, joss)];
    try {
      const oswin = await Client.as(there.base, 'oswin');
      await oswin.post(id, entry('hold', { reason: 'parts', words: 'a seal is on its way' }));
      for (const page of [mine, theirs]) await until(() => lastOf(page, id)?.hold?.reason === 'parts');
      expect(lastOf(theirs, id)).toEqual(await lineOf(joss, id));
      expect(lastOf(mine, id)).toEqual(await lineOf(ilka, id));
      await oswin.post(id, entry('hold-off', {}));
      await until(() => lastOf(theirs, id)?.hold === null);
      await database.query('UPDATE job SET closed_at = now() WHERE id = $1', [id]);
      await oswin.call('PATCH', `/jobs/${id}`, { version: 1, complaint: 'Rumbles.' });
      await until(() => theirs.said().some((event) => event.type === 'today' && event.gone.includes(id)));
      expect(await lineOf(ilka, id)).toBeUndefined();
    } finally {
      mine.close();
      theirs.close();
    }
  });

  test('a clock that ends is told though nobody records anything', async () => {
    const { id } = await ilka.booked(hub);
    await ilka.workTo(id, 'marks').catch(() => undefined);
    const page = await openStream(here.base, ilka);
    try {
      const { status } = await ilka.post(id, entry('wait', { what: 'Penetrant', seconds: 2 }));
      expect(status).toBe(200);
      await until(() => toldOf(page, id).some(({ clocks }) => clocks.some(({ jobId, what }) => jobId === id && what === 'Penetrant')));
      const heard = toldOf(page, id).length;
      await until(() => toldOf(page, id).length > heard);
    } finally {
      page.close();
    }
  });

  test('a draft that a job goes by shows what is written in it now', async () => {
    const { family } = await ilka.sheetKeyed('harrowmere-th6-front-hub');
    const { revisionId } = await ilka.made<{ revisionId: string }>('/sheets', {
      family,
      make: 'Ostrel',
      model: 'TN 9',
      machine: 'Trailer',
    });
    const { id } = await ilka.booked(revisionId);
    const before = await lineOf(ilka, id);
    const view = await ilka.get<SheetView>(`/sheets/${revisionId}`);
    const [first] = view.file.steps;
    const file = { ...view.file, steps: [{ ...first, title: 'Look it over' }, ...view.file.steps.slice(1)] };
    expect((await ilka.call('PUT', `/sheets/${revisionId}`, { version: view.version, file })).status).toBe(200);
    const after = await lineOf(ilka, id);
    expect(after?.next).toContain('Look it over');
    expect(after?.next).not.toBe(before?.next);
  });

  test('what is owed soon is told in part, with how much more there is', async () => {
    const { id } = await ilka.booked(hub);
    const due = daysOn('UTC', Date.now(), 5);
    const before = await ilka.get<TodayView>('/today');
    const owed = Array.from({ length: 25 }, (_, place) => entry('owed', { what: `Cap ${place}`, told: 'Ragna', due }));
    expect((await ilka.post(id, ...owed)).status).toBe(200);
    const { owed: lines, owedMore } = await ilka.get<TodayView>('/today');
    expect([lines.length, owedMore]).toEqual([20, before.owed.length + before.owedMore + 25 - 20]);
  });
});

test('entries after a number are those, and no other', async () => {
  const { id } = await ilka.booked(hub);
  const all = Array.from({ length: 5 }, (_, place) => entry('note', { text: `note ${place}` }));
  await ilka.post(id, ...all);
  const after = await ilka.get<readonly AnyKeptEntry[]>(`/jobs/${id}/entries?after=3`);
  expect(after.map((one) => one.id)).toEqual(all.slice(3).map((one) => one.id));
  expect(await ilka.get(`/jobs/${id}/entries?after=5`)).toEqual([]);
  expect((await ilka.call('GET', `/jobs/${id}/entries?after=x`)).status).toBe(400);
});

describe('a session that is over', () => {
  test('ends its streams at every process at once, and no other', async () => {
    const bram = await Client.as(here.base, 'bram');
    const [own, far, others] = [
      await openStream(here.base, bram),
      await openStream(there.base, bram),
      await openStream(there.base, await Client.as(there.base, 'bram')),
    ];
    // The other process remembers the session, too.
    expect((await fetch(`${there.base}/api/v1/session`, { headers: { cookie: bram.cookie } })).status).toBe(200);
    const { cookie } = bram;
    expect((await bram.call('DELETE', '/session')).status).toBe(204);
    await until(() => !own.isOpen() && !far.isOpen());
    const began = Date.now();
    await until(async () => (await fetch(`${there.base}/api/v1/session`, { headers: { cookie } })).status === 401);
    expect(Date.now() - began).toBeLessThan(1000);
    expect(others.isOpen()).toBe(true);
    for (const page of [own, far, others]) expect(page.said().filter((event) => (event.type as string) === 'session-over')).toEqual([]);
    others.close();
  });

  test('ends when another person takes over the tablet', async () => {
    const bram = await Client.as(here.base, 'bram');
    const page = await openStream(here.base, bram);
    await bram.call('POST', '/session', { login: 'joss', password: 'bench-417' });
    await until(() => !page.isOpen());
    expect((await openStream(here.base, bram)).status).toBe(200);
  });
});
