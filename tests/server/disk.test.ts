import type { JobView, TodayView } from '@jubb/book';
import { createHash } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Client, entry } from '../kit/client.ts';
import { freshDatabase, type TestDatabase } from '../kit/database.ts';
import { jpeg } from '../kit/jpeg.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { until } from '../kit/stream.ts';

let database: TestDatabase;
let server: RunningServer;
let ilka: Client;

beforeAll(async () => {
  database = await freshDatabase();
  // Less than all of it is always free; and photos have room for little.
  server = await startServer(database.url, { env: { JUBB_DISK_WARN_PERCENT: '100', JUBB_FILES_MB: '1' } });
  ilka = await Client.as(server.base, 'ilka');
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

test('everybody is told of a disk that is nearly full, on Today', async () => {
  const joss = await Client.as(server.base, 'joss');
  const told = async (): Promise<readonly string[]> => (await joss.get<TodayView>('/today')).notices.map(({ words }) => words);
  await until(async () => (await told()).some((words) => /^The disk of the server has \d+ % left, [\d.]+ GB\. Make room/u.test(words)));
});

test('photos leave room for the entries: past what they may take no more is begun, and all else goes on', async () => {
  const put = async (width: number): Promise<number> => {
    const photo = await jpeg(width);
    const sha = createHash('sha256').update(photo).digest('hex');
    const octets = { 'content-type': 'application/octet-stream' };
    for (let at = 0; at < photo.length; at += 400_000) {
      const { status } = await ilka.call('PUT', `/files/${sha}?at=${at}&total=${photo.length}`, photo.subarray(at, at + 400_000), octets);
      if (status !== 200) return status;
    }
    return 200;
  };
  const statuses = [];
  for (let tries = 0; tries < 6; tries += 1) statuses.push(await put(700));
  expect(statuses[0]).toBe(200);
  expect(statuses.at(-1)).toBe(413);
  const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
  expect((await ilka.post(id, entry('note', { text: 'goes on' }))).status).toBe(200);
});

test('a database without room keeps nothing by half, is read on, and takes what was held when there is room', async () => {
  const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
  await database.query(
    `CREATE FUNCTION no_room() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION 'could not extend file' USING ERRCODE = '53100'; END $$`,
  );
  await database.query(`CREATE TRIGGER no_room BEFORE INSERT ON entry FOR EACH ROW WHEN (NEW.kind = 'finding') EXECUTE FUNCTION no_room()`);
  const held = [entry('note', { text: 'the first' }), entry('finding', { text: 'the second' })];
  const refused = await ilka.post(id, ...held);
  // Over 500: the tablet holds them and tries again.
  expect([refused.status, refused.body.title]).toEqual([507, expect.stringContaining('The disk of the server is full')]);
  expect((await ilka.get<JobView>(`/jobs/${id}`)).entries).toEqual([]);
  await database.query('DROP FUNCTION no_room CASCADE');
  expect((await ilka.post(id, ...held)).status).toBe(200);
  expect((await ilka.get<JobView>(`/jobs/${id}`)).entries.map((one) => one.id)).toEqual(held.map((one) => one.id));
});
