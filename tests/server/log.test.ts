import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Client, entry } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { until } from '../kit/stream.ts';

let database: TestDatabase;
let server: RunningServer;
let ilka: Client;
let said = '';

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  for (const out of [server.child.stdout, server.child.stderr])
    out?.on('data', (chunk: Buffer) => {
      said += chunk.toString();
    });
  ilka = await Client.as(server.base, 'ilka');
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

interface Line {
  readonly id: string;
  readonly who: string | null;
  readonly method: string;
  readonly route: string;
  readonly status: number;
  readonly ms: number;
}
const lines = (): readonly Line[] =>
  said
    .split('\n')
    .filter((line) => line.startsWith('{'))
    .map((line) => JSON.parse(line) as Line);
const lineOf = async (fits: (line: Line) => boolean): Promise<Line> => {
  await until(() => lines().some(fits));
  return lines().findLast(fits)!;
};

test('every request is a line that says who asked for what, what became of it and how long it took', async () => {
  await ilka.call('GET', '/jobs?find=secretword');
  expect(await lineOf(({ route }) => route === '/api/v1/jobs')).toMatchObject({
    who: 'ilka',
    method: 'GET',
    status: 200,
    ms: expect.any(Number),
  });
  await new Client(server.base).call('GET', '/jobs');
  expect(await lineOf(({ route, status }) => route === '/api/v1/jobs' && status === 401)).toMatchObject({ who: null });
  await new Client(server.base).call('GET', '/offers/not-a-link-but-a-secret');
  await lineOf(({ route, status }) => route === '/api/v1/offers/:token' && status === 404);
  await ilka.call('GET', '/nowhere');
  await lineOf(({ route, status }) => route === 'none' && status === 404);
  // Nothing of what was in them, nor a password, a link or a word that was looked for.
  expect(said).not.toMatch(/secret|bench-417|find=/u);
});

test('the ticket of an answer that is the server’s fault finds its line, and why', async () => {
  const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
  await database.query(`CREATE FUNCTION broken() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION 'the cause of it'; END $$`);
  await database.query('CREATE TRIGGER broken BEFORE INSERT ON entry FOR EACH ROW EXECUTE FUNCTION broken()');
  const answer = await ilka.post(id, entry('note', { text: 'x' }));
  await database.query('DROP FUNCTION broken CASCADE');
  expect(answer.status).toBe(500);
  const ticket = /^Ticket (\S+)$/u.exec(answer.body.detail ?? '')?.[1];
  expect(await lineOf((line) => line.id === ticket)).toMatchObject({ route: '/api/v1/jobs/:id/entries', who: 'ilka', status: 500 });
  expect(said).toContain(`${ticket} QueryFailedError`.split(' ')[0]!);
  expect(said).toContain('the cause of it');
});
