import type { JobHead, JobView } from '@jubb/book';
import type { SheetFile } from '@jubb/sheet';
import type { Problem, SheetLine, SheetView } from '@jubb/wire';
import { connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 as uuid } from 'uuid';
import { Client, booking, entry } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { item, move } from '../kit/stock.ts';
import { until } from '../kit/stream.ts';

let database: TestDatabase;
let server: RunningServer;
let ilka: Client;
let oswin: Client;
let nobody: Client;
let sheet: SheetLine;
let jobId: string;
let hub: SheetFile;

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  [ilka, oswin] = await Promise.all([Client.as(server.base, 'ilka'), Client.as(server.base, 'oswin')]);
  nobody = new Client(server.base);
  sheet = await ilka.sheetKeyed('harrowmere-th6-front-hub');
  jobId = (await ilka.booked(sheet.revisionId)).id;
  hub = (await ilka.get<SheetView>(`/sheets/${sheet.revisionId}`)).file;
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

/** What no field can hold, as a program may send it. */
const UNSOUND: readonly (readonly [string, string])[] = [
  ['a NUL', 'a\\u0000b'],
  ['half a character', 'a\\ud83d b'],
  ['the other half', '\\udc00'],
];

describe('what no field can hold is refused at the door', () => {
  test.each(UNSOUND)('%s in an entry', async (_, text) => {
    const body = JSON.stringify({ entries: [entry('note', { text: 'TEXT' })] }).replace('TEXT', text);
    const answer = await ilka.call<Problem>('POST', `/jobs/${jobId}/entries`, body);
    expect(answer.status).toBe(400);
    expect(answer.body.errors).toEqual([{ field: 'entries[0].payload.text', allowed: 'must not hold half a character or a NUL' }]);
    expect((await ilka.get<JobView>(`/jobs/${jobId}`)).entries).toEqual([]);
  });

  test.each(UNSOUND)('%s in what is booked in, put on a shelf, or typed at the log-in', async (_, text) => {
    const sent = async (who: Client, path: string, body: object): Promise<number> =>
      (await who.call('POST', path, JSON.stringify(body).replace('TEXT', text))).status;
    expect(await sent(ilka, '/jobs', booking(sheet.revisionId, { complaint: 'TEXT' }))).toBe(400);
    expect(await sent(ilka, '/stock', item('TEXT'))).toBe(400);
    expect(await sent(nobody, '/session', { login: 'TEXT', password: 'x' })).toBe(400);
    expect(await sent(ilka, '/jobs', { ...booking(sheet.revisionId), TEXT: 1 })).toBe(400);
  });

  test.each([
    '/jobs?find=%00',
    '/stock?find=a%00',
    '/customers?find=%00',
    '/sheets/find?text=%00',
    '/sheets/identities?family=%00',
    '/jobs/%00',
    '/customers/%00',
  ])('a NUL in %s', async (path) => {
    expect((await ilka.call('GET', path)).status).toBe(400);
  });

  test('an address that is not written as one', async () => {
    expect((await ilka.call('GET', '/jobs/%E0%A4%A')).status).toBe(400);
  });
});

describe('days and moments that are none', () => {
  test.each([
    '2026-02-30T10:00:00Z',
    '2027-W05-1',
    '2027-03-01',
    '2027-03-01T25:00:00Z',
    '9999-12-31T00:00:00Z',
    '+275760-09-13T00:00:00Z',
    '0001-01-01T00:00:00Z',
    'soon',
    '',
  ])('an entry of %s', async (takenAt) => {
    const answer = await ilka.post<Problem>(jobId, entry('note', { text: 'x' }, { takenAt }));
    expect([answer.status, answer.body.errors?.[0]?.field]).toEqual([400, 'entries[0].takenAt']);
  });

  test.each(['2027-W05-1', '2027-02-29', '2027-13-01', '2027-060', '2027'])('something owed for %s', async (due) => {
    const answer = await ilka.post<Problem>(jobId, entry('owed', { what: 'x', told: 'y', due }));
    expect([answer.status, answer.body.errors?.[0]?.allowed]).toEqual([400, 'is not a day, such as 2027-03-01']);
  });

  test('a promise that is missing says so, one that is no moment says what one is', async () => {
    const promised = async (promise?: string): Promise<string | undefined> =>
      (await ilka.call<Problem>('POST', '/jobs', booking(sheet.revisionId, { promise }))).body.errors?.[0]?.allowed;
    expect(await promised('')).toBe('is missing');
    expect(await promised('2026-02-30T10:00:00Z')).toContain('is not a moment');
    expect((await ilka.made<JobHead>('/jobs', booking(sheet.revisionId, { promise: '2028-02-29T10:00:00+01:00' }))).promise).toBeTruthy();
  });

  test('a batch that expires on a day that is none', async () => {
    const { id } = await ilka.made<{ id: string }>('/stock', item(`D-${uuid().slice(-6)}`));
    expect((await ilka.call('POST', `/stock/${id}/moves`, move('receive', 1, { batch: 'A', expires: '2027-W05-1' }))).status).toBe(400);
  });
});

/** The longest that a question waited while something else was on its way in, ms: how long nobody else was served. */
async function silenceWhile(work: () => Promise<unknown>): Promise<number> {
  let longest = 0;
  let over = false;
  const watch = (async () => {
    while (!over) {
      const before = performance.now();
      await fetch(`${server.base}/api/v1/health`).then((answer) => answer.arrayBuffer());
      longest = Math.max(longest, performance.now() - before);
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
  })();
  await work();
  over = true;
  await watch;
  return longest;
}

/** Before there were limits, the first of these held everybody up for 24 s. */
const MOST_SILENT_MS = 5000;
const fields = (count: number): Record<string, number> =>
  Object.fromEntries(Array.from({ length: count }, (_, index) => [`k${index}`, index]));
const nested = (deep: number): string => `${'{"a":'.repeat(deep)}1${'}'.repeat(deep)}`;

const names = (count: number): string => Array.from({ length: count }, (_, at) => `k${at}: v`).join('\n');
const anchors = (count: number): string =>
  `a:\n${Array.from({ length: count }, (_, at) => `  - {k${at}: &a${at} [1, 2, 3], b: *a${at}}`).join('\n')}`;
/** The sheet with each of its lines so many times. */
const manyfold = (count: number): object =>
  Object.fromEntries(
    Object.entries(hub).map(([name, held]) => {
      const lines = held as readonly { ref?: string }[];
      if (!Array.isArray(held) || lines[0]?.ref === undefined) return [name, held];
      const again = Array.from({ length: count }, (_, at) =>
        lines.map((line) => (at === 0 ? line : { ...line, ref: `${line.ref}-c${at}` })),
      );
      return [name, again.flat()];
    }),
  );
const saved = async (file: object): Promise<{ status: number; body?: unknown }> => {
  const { revisionId } = await oswin.made<{ revisionId: string }>(`/sheets/${sheet.revisionId}/draft`, {});
  const { version } = await oswin.get<SheetView>(`/sheets/${revisionId}`);
  return oswin.call('PUT', `/sheets/${revisionId}`, { version, file });
};

describe('no request holds up the others', () => {
  // What takes a slow machine too long to read is refused by that name; a quick one reads it, and refuses what it says.
  const REFUSED = ['bad-input', 'sheet-too-large'];
  test.each<readonly [string, () => Promise<{ status: number; body?: unknown }>, number | readonly string[]]>([
    ['1.1 MB of unknown fields from nobody', () => nobody.call('POST', '/session', { login: 'x', password: 'y', ...fields(90_000) }), 413],
    [
      'unknown fields that nobody may just send',
      () => nobody.call('POST', '/session', { login: 'x', password: 'y', ...fields(1200) }),
      400,
    ],
    ['unknown fields from a mechanic', () => ilka.call('POST', '/jobs', { ...booking(sheet.revisionId), ...fields(10_000) }), 400],
    ['an entry of a thousand fields', () => ilka.post(jobId, entry('note', { text: 'x', ...fields(1000) })), 400],
    [
      'fifty thousand entries',
      () => ilka.call('POST', `/jobs/${jobId}/entries`, { entries: Array.from({ length: 50_000 }, () => 1) }),
      400,
    ],
    [
      'a list that is unique at the cost of its square',
      () =>
        ilka.post(
          jobId,
          entry('gear-moved', { setting: 'x', gear: 'pinion', by: 1, undone: Array.from({ length: 60_000 }, (_, index) => `j${index}`) }),
        ),
      400,
    ],
    ['a body nested a thousand deep', () => ilka.call('POST', '/jobs', nested(1000)), 400],
    [
      'a sheet of a hundred thousand values',
      () =>
        oswin.call('POST', '/sheets', {
          family: 'x',
          make: 'x',
          model: 'x',
          machine: 'x',
          more: Array.from({ length: 100 }, () => fields(290)).concat(Array.from({ length: 1800 }, () => fields(200))),
        }),
      400,
    ],
    ['a YAML that was 6 s to read', () => oswin.call('POST', '/sheets/import', { text: anchors(4000) }), REFUSED],
    ['a YAML nested twenty thousand deep', () => oswin.call('POST', '/sheets/import', { text: `a: ${'['.repeat(20_000)}` }), REFUSED],
    ['a YAML of one name thirty thousand times', () => oswin.call('POST', '/sheets/import', { text: 'k: v\n'.repeat(30_000) }), REFUSED],
    ['a sheet file of a hundred sheets', () => oswin.call('POST', '/sheets/import', { text: JSON.stringify(manyfold(100)) }), REFUSED],
    ['a draft of twenty sheets', async () => saved(manyfold(20)), 200],
    ['a draft of a hundred sheets, which nobody can use', async () => saved(manyfold(100)), REFUSED],
    ['a YAML of a hundred thousand names', () => oswin.call('POST', '/sheets/import', { text: names(100_000) }), REFUSED],
    [
      'an answer to a quote of two thousand lines left out',
      () => nobody.call('POST', '/offers/none/answer', { answer: 'yes', without: Array.from({ length: 2000 }, (_, at) => at) }),
      400,
    ],
  ])(
    '%s',
    async (_, send, status) => {
      let got: Awaited<ReturnType<typeof send>> = { status: 0 };
      const silence = await silenceWhile(async () => {
        got = await send();
      });
      if (typeof status === 'number') expect(got.status).toBe(status);
      else expect(status).toContain((got.body as Problem).code);
      expect(silence).toBeLessThan(MOST_SILENT_MS);
    },
    60_000,
  );
});

test('who sends too much on a slow line reads why', async () => {
  const { hostname, port } = new URL(server.base);
  const whole = JSON.stringify({ login: 'x'.repeat(3_000_000) });
  const half = whole.length / 2;
  const socket = connect(Number(port), hostname);
  try {
    let heard = '';
    socket.setEncoding('utf8').on('data', (text: string) => (heard += text));
    socket.write(`POST /api/v1/session HTTP/1.1\r\nHost: jubb\r\nX-Jubb-CSRF: none\r\nContent-Type: application/json\r\n`);
    socket.write(`Content-Length: ${whole.length}\r\n\r\n${whole.slice(0, half)}`);
    // The rest comes when it could long have been refused.
    for (let asked = 0; asked < 20; asked += 1) await nobody.call('GET', '/health');
    expect(heard).toBe('');
    socket.write(whole.slice(half));
    await until(() => heard.includes('}'));
    expect(heard).toMatch(/^HTTP\/1\.1 413 /u);
    expect(heard).toContain('application/problem+json');
  } finally {
    socket.destroy();
  }
});

test('a sheet that takes longer to read than it may is given up, and nothing of it is kept', async () => {
  // No time at all: then a sheet of any length takes longer.
  const hasty = await startServer(database.url, { env: { JUBB_SHEET_SECONDS: '0' } });
  try {
    const client = await Client.as(hasty.base, 'oswin');
    const steps = Array.from({ length: 3000 }, (_, index) => ({ ...hub.steps[0], ref: `step-${index}` }));
    const text = JSON.stringify({ ...hub, key: 'hasty', steps });
    expect(await client.call('POST', '/sheets/import', { text })).toMatchObject({
      status: 413,
      body: { title: 'This sheet is too much to read' },
    });
    expect((await client.get<SheetLine[]>('/sheets')).some(({ key }) => key === 'hasty')).toBe(false);
    expect((await client.call('GET', '/today')).status).toBe(200);
  } finally {
    await hasty.stop();
  }
});
