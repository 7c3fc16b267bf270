import type { Bench, TodayLine, TodayView } from '@jubb/book';
import type { BroughtView, ChangeLine, PersonLine, Problem } from '@jubb/wire';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { Client, entry, type Answer } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: TestDatabase;
let server: RunningServer;
let oswin: Client;
let ilka: Client;
let bram: Client;

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  const as = (login: string): Promise<Client> => Client.as(server.base, login);
  [oswin, ilka, bram] = await Promise.all([as('oswin'), as('ilka'), as('bram')]);
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

const told = ({ status, body }: Answer<unknown>): string =>
  `${status} ${((body as Problem).errors ?? []).map(({ field, allowed }) => `${field} ${allowed}`).join('; ')}`;
const list = (): Promise<Bench[]> => ilka.get<Bench[]>('/benches');
const named = async (name: string): Promise<Bench> => (await list()).find((one) => one.name === name)!;
const body = (rest: object = {}): object => ({ name: 'Press 2', kind: 'press', who: [], week: [], closed: [], ...rest });
const idOf = async (login: string): Promise<string> => (await oswin.get<PersonLine[]>('/people')).find((one) => one.login === login)!.id;
const mend = async (name: string, rest: object): Promise<Bench> => {
  const { id, kind, who, version } = await named(name);
  const answer = await oswin.call<Bench>('PUT', `/benches/${id}`, body({ name, kind, who: who.map((one) => one.id), version, ...rest }));
  expect(answer.status).toBe(200);
  return answer.body;
};

test('the demo has benches and the machines that its sheets need; its test stand has hours and people of its own', async () => {
  const benches = await list();
  expect(benches.filter(({ kind }) => kind === 'bench')).toHaveLength(3);
  expect(benches.filter(({ kind }) => kind !== 'bench').map(({ kind }) => kind)).toEqual(['lift', 'oven', 'press', 'test stand']);
  const stand = benches.at(-1)!;
  expect(stand.hours?.week[0]).toEqual({ from: '08:00', to: '15:00' });
  expect(stand.who.map(({ name }) => name)).toEqual(['Bram Estelow', 'Ilka Varne', 'Oswin Tarrell']);
  expect(benches.flatMap(({ jobs }) => jobs).length).toBeGreaterThan(0);
});

test('the foreman puts one in, changes it and takes it off; each is kept with what it was', async () => {
  const week = [{ from: '07:00', to: '12:00' }, ...Array.from({ length: 6 }, () => ({ from: '', to: '' }))];
  const made = await oswin.made<Bench>(
    '/benches',
    body({ week, closed: [{ day: '2027-03-01', why: 'inspection' }], who: [await idOf('ilka')] }),
  );
  expect(made).toMatchObject({ name: 'Press 2', out: null, version: 1, who: [{ name: 'Ilka Varne' }], jobs: [] });
  expect(made.hours).toEqual({ week: [week[0], null, null, null, null, null, null], closed: [{ day: '2027-03-01', why: 'inspection' }] });
  const changed = await oswin.call<Bench>('PUT', `/benches/${made.id}`, body({ out: 'ram leaks', version: 1 }));
  expect(changed.body).toMatchObject({ out: 'ram leaks', hours: null, who: [], version: 2 });
  expect((await oswin.call('PUT', `/benches/${made.id}`, body({ version: 1 }))).status).toBe(409);
  expect((await oswin.call('DELETE', `/benches/${made.id}`)).status).toBe(204);
  expect((await oswin.call('DELETE', `/benches/${made.id}`)).status).toBe(404);
  const changes = await oswin.get<ChangeLine[]>('/changes?find=Press 2');
  expect(changes.map(({ act }) => act)).toEqual(['taken off', 'changed', 'added']);
  expect(changes[1]!.fields).toContainEqual({ field: 'used by', before: 'Ilka Varne', after: 'everybody' });
  expect(changes[1]!.fields).toContainEqual({ field: 'out of use', before: '', after: 'ram leaks' });
  for (const [method, path] of [
    ['POST', '/benches'],
    ['PUT', `/benches/${made.id}`],
    ['DELETE', `/benches/${made.id}`],
  ] as const)
    expect((await ilka.call(method, path, method === 'DELETE' ? undefined : body({ version: 1 }))).status).toBe(403);
});

test.each([
  ['no name', { name: ' ' }, /^400 name .*what is it called/u],
  ['the name of another', { name: 'Bench 2' }, /^400 name is the name of another/u],
  ['a kind that there is not', { kind: 'crane' }, /^400 kind /u],
  ['somebody who is not here', { who: [v7()] }, /^400 who\[0\] is nobody who works here/u],
  ['four days of a week', { week: Array.from({ length: 4 }, () => ({ from: '', to: '' })) }, /^400 week must be the seven days/u],
  [
    'a day that ends before it begins',
    { week: Array.from({ length: 7 }, () => ({ from: '12:00', to: '07:00' })) },
    /^400 week\[0\]\.to must be after 12:00/u,
  ],
])('a bench with %s is refused at its field, and nothing is kept', async (_, wrong, refusal) => {
  const before = await list();
  expect(told(await oswin.call('POST', '/benches', body(wrong)))).toMatch(refusal);
  expect(await list()).toEqual(before);
});

test('work at a machine that is for others, or out of use, is refused with the reason; a note there is not', async () => {
  const { id } = await ilka.bookedOn('askvale-gx5-gearbox');
  const step = 'on-the-bench';
  const on = (): object => entry('tick', {}, { step });
  await mend('Hoist, 1 t', { who: [await idOf('ilka')] });
  expect(told(await bram.post(id, on()))).toBe(
    '400 entries[0].step needs the lift, which is not for everybody: Hoist, 1 t is used by Ilka Varne',
  );
  expect((await bram.post(id, entry('note', { text: 'The hoist is Ilka’s' }, { step }))).status).toBe(200);
  await mend('Hoist, 1 t', { out: 'hook bent' });
  expect(told(await ilka.post(id, on()))).toBe('400 entries[0].step needs the lift, which is out of use: Hoist, 1 t, hook bent');
  const before = (await ilka.get<{ entries: unknown[] }>(`/jobs/${id}`)).entries.length;
  expect(told(await ilka.post(id, entry('note', { text: 'first of two' }), on()))).toMatch(/^400 entries\[1\]\.step/u);
  expect((await ilka.get<{ entries: unknown[] }>(`/jobs/${id}`)).entries).toHaveLength(before);
  await mend('Hoist, 1 t', { who: [] });
  const answer = told(await bram.post(id, on()));
  expect(answer).not.toMatch(/lift/u);
});

test('Today says which machine the next act takes', async () => {
  const { id } = await ilka.bookedOn('askvale-gx5-gearbox');
  const own = async (): Promise<TodayLine> => (await ilka.get<TodayView>('/today')).lines.find(({ jobId }) => jobId === id)!;
  expect((await own()).bench).toBeUndefined();
  await ilka.workTo(id, 'on-the-bench');
  expect(await own()).toMatchObject({ next: 'On the bench', waits: null, bench: 'lift' });
});

test('the unit of a job stands at one bench, moves to another, and is off it when the job is handed over', async () => {
  const { id, number } = await ilka.bookedOn('askvale-gx5-gearbox');
  const [first, second] = await Promise.all([named('Bench 2'), named('Bench 3, clean room')]);
  const at = async (): Promise<readonly string[]> =>
    (await list()).filter(({ jobs }) => jobs.some((job) => job.number === number)).map(({ name }) => name);
  const stand = (benchId: string | null): Promise<Answer<Bench[]>> => ilka.call<Bench[]>('PUT', `/jobs/${id}/bench`, { benchId });
  expect((await stand(first.id)).body.find(({ name }) => name === 'Bench 2')!.jobs).toContainEqual({ id, number, unit: 'Alternator' });
  await stand(second.id);
  expect(await at()).toEqual(['Bench 3, clean room']);
  expect(told(await stand(v7()))).toMatch(/^400 benchId is none of the shop’s benches/u);
  expect((await ilka.call('PUT', `/jobs/${v7()}/bench`, { benchId: first.id })).status).toBe(404);
  await stand(null);
  expect(await at()).toEqual([]);
  const [over] = (await ilka.get<{ id: string; closedAt: string | null }[]>('/jobs')).filter(({ closedAt }) => closedAt !== null);
  expect(told(await ilka.call('PUT', `/jobs/${over!.id}/bench`, { benchId: first.id }))).toMatch(/was handed over/u);
});

test('benches come in as a list: people by their log-in, hours in one cell', async () => {
  const rows = [
    { name: 'Shot blaster', kind: 'bench', who: 'ilka, BRAM', open: '7:00 to 15:30' },
    { name: 'Bench 2', kind: 'bench', who: '' },
    { name: 'Kiln', kind: 'oven', who: 'nobody-here' },
    { name: 'Mill', kind: 'bench', open: 'mornings' },
    { name: 'Saw', kind: 'saw' },
  ];
  const preview = await oswin.made<BroughtView>('/lists', { list: 'benches', rows, preview: true });
  expect(preview.rows.map(({ act }) => act)).toEqual(['made', 'same', 'refused', 'refused', 'refused']);
  expect(preview.rows.flatMap(({ wrongs }) => wrongs.map(({ field }) => field))).toEqual(['who', 'open', 'kind']);
  expect(await named('Shot blaster')).toBeUndefined();
  await oswin.made('/lists', { list: 'benches', rows, preview: false });
  const blaster = await named('Shot blaster');
  expect(blaster.who.map(({ name }) => name)).toEqual(['Bram Estelow', 'Ilka Varne']);
  expect(blaster.hours?.week.map((day) => day?.from)).toEqual(['07:00', '07:00', '07:00', '07:00', '07:00', undefined, undefined]);
  const again = await oswin.made<BroughtView>('/lists', { list: 'benches', rows: [{ ...rows[0]!, who: 'ilka' }], preview: false });
  expect(again.rows[0]!.act).toBe('changed');
  expect((await named('Shot blaster')).who).toHaveLength(1);
});
