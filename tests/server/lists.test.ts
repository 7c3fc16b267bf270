import { limitOfError } from '@jubb/sheet';
import type { ChangeLine, PersonLine, Problem, SessionView, ToolView } from '@jubb/wire';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Client, type Answer } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: TestDatabase;
let server: RunningServer;
let oswin: Client;

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  oswin = await Client.as(server.base, 'oswin');
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

const WORDS = 'plumb and level';
const told = ({ status, body }: Answer<unknown>): string =>
  `${status} ${((body as Problem).errors ?? []).map(({ field, allowed }) => `${field} ${allowed}`).join('; ')}`;
const people = (): Promise<PersonLine[]> => oswin.get<PersonLine[]>('/people');
const named = async (login: string): Promise<PersonLine> => (await people()).find((one) => one.login === login)!;
const logIn = async (login: string, password = WORDS): Promise<{ readonly client: Client; readonly status: number }> => {
  const client = new Client(server.base);
  return { client, status: (await client.call<SessionView>('POST', '/session', { login, password })).status };
};
const begin = (login: string, role = 'mechanic'): Promise<PersonLine> =>
  oswin.made<PersonLine>('/people', { name: `Somebody ${login}`, login, role, password: WORDS });
const change = (person: PersonLine, to: object): Promise<Answer<PersonLine>> => {
  const { name, role, version, leftAt } = person;
  return oswin.call<PersonLine>('PUT', `/people/${person.id}`, { name, role, version, hasLeft: leftAt !== null, ...to });
};

test('somebody new logs in with what the foreman gave them, and does what their role may', async () => {
  const added = await begin('sten');
  expect(added).toMatchObject({ login: 'sten', role: 'mechanic', leftAt: null, tablets: 0 });
  const { client, status } = await logIn('sten');
  expect(status).toBe(200);
  expect((await client.call('GET', '/today')).status).toBe(200);
  expect((await client.call('GET', '/people')).status).toBe(403);
  expect((await client.call('POST', '/people', { name: 'X', login: 'xx', role: 'foreman', password: WORDS })).status).toBe(403);
});

test.each([
  ['a log-in name of somebody else', { login: 'ilka' }, /^400 login is somebody else’s already/u],
  ['a log-in name with a blank', { login: 'two words' }, /^400 login must be 2 to 60 small letters/u],
  ['a short password', { password: 'short' }, /^400 password is too short; at least 10 letters/u],
  ['a role that there is not', { role: 'owner' }, /^400 role must be one of: mechanic, foreman, counter, apprentice/u],
  ['nobody', { name: ' ' }, /^400 name .*what are they called/u],
])('%s is refused at its field, and nobody is made', async (_, wrong, words) => {
  const before = (await people()).length;
  const body = { name: 'Somebody', login: 'somebody', role: 'mechanic', password: WORDS, ...wrong };
  expect(told(await oswin.call('POST', '/people', body))).toMatch(words);
  expect((await people()).length).toBe(before);
});

test('of two who are added at once under one name, one is', async () => {
  const body = { name: 'Twin', login: 'twin', role: 'mechanic', password: WORDS };
  const answers = await Promise.all([oswin.call('POST', '/people', body), oswin.call('POST', '/people', body)]);
  expect(answers.map(({ status }) => status).toSorted()).toEqual([201, 400]);
});

test('who leaves is out at once, everywhere, keeps what they did, and may come back', async () => {
  const person = await begin('leaver');
  const { client } = await logIn('leaver');
  expect((await client.call('GET', '/session')).status).toBe(200);
  const left = await change(person, { hasLeft: true });
  expect(left.body).toMatchObject({ leftAt: expect.any(String), tablets: 0, version: 2 });
  expect((await client.call('GET', '/session')).status).toBe(401);
  expect((await logIn('leaver')).status).toBe(401);
  expect(told(await oswin.call('PUT', `/people/${person.id}/password`, { password: WORDS }))).toMatch(/they left/u);
  expect((await database.query('SELECT 1 FROM person WHERE id = $1', [person.id])).rowCount).toBe(1);
  expect((await change(left.body, { hasLeft: false })).status).toBe(200);
  expect((await logIn('leaver')).status).toBe(200);
});

test('another role holds from the next tap: its session of before is over', async () => {
  const person = await begin('riser');
  const { client } = await logIn('riser');
  expect((await change(person, { role: 'counter' })).body.role).toBe('counter');
  expect((await client.call('GET', '/session')).status).toBe(401);
  // A name alone logs nobody out.
  const again = await logIn('riser');
  await change(await named('riser'), { name: 'Riser Otherwise' });
  expect((await again.client.get<SessionView>('/session')).person).toMatchObject({ role: 'counter' });
});

test('a new password ends the old one, its sessions and its PIN', async () => {
  const person = await begin('forgetful');
  const { client } = await logIn('forgetful');
  expect((await client.call('PUT', '/session/pin', { pin: '4711', password: WORDS })).status).toBe(204);
  expect((await oswin.call('PUT', `/people/${person.id}/password`, { password: 'another ten letters' })).status).toBe(204);
  expect((await client.call('GET', '/session')).status).toBe(401);
  expect((await client.call('POST', '/session/swap', { personId: person.id, pin: '4711' })).status).toBe(403);
  expect((await logIn('forgetful')).status).toBe(401);
  expect((await logIn('forgetful', 'another ten letters')).status).toBe(200);
});

test('the last foreman neither leaves nor steps down, however many try at once', async () => {
  const last = await named('oswin');
  expect(told(await change(last, { hasLeft: true }))).toMatch(/^400 hasLeft cannot be: this is the only foreman/u);
  expect(told(await change(last, { role: 'mechanic' }))).toMatch(/^400 role must stay foreman/u);
  const second = await begin('second', 'foreman');
  const { client } = await logIn('second');
  const down = (who: Client, { id, name, version }: PersonLine): Promise<Answer<unknown>> =>
    who.call('PUT', `/people/${id}`, { name, version, role: 'mechanic', hasLeft: false });
  const both = await Promise.all([down(oswin, second), down(client, last)]);
  expect(both.map(({ status }) => status).toSorted()).toEqual([200, 400]);
  const { rows } = await database.query("SELECT count(*)::int AS n FROM person WHERE role = 'foreman' AND left_at IS NULL");
  expect(rows).toEqual([{ n: 1 }]);
  // Whoever is left puts it back.
  if ((await oswin.call('GET', '/people')).status !== 200) {
    const { id, name, version } = (await client.get<PersonLine[]>('/people')).find(({ login }) => login === 'oswin')!;
    await client.call('PUT', `/people/${id}`, { name, version, role: 'foreman', hasLeft: false });
    oswin = await Client.as(server.base, 'oswin');
  }
});

test('two foremen who change one person: the second sees what the first made of it', async () => {
  const person = await begin('fought-over');
  expect((await change(person, { name: 'First' })).status).toBe(200);
  expect(await change(person, { name: 'Second' })).toMatchObject({ status: 409, body: { current: { name: 'First', version: 2 } } });
});

test('every change is kept with who, before and after, is found by its words, and tells no secret', async () => {
  const person = await begin('told-of');
  await change(person, { name: 'Told Of', role: 'apprentice' });
  await oswin.call('PUT', `/people/${person.id}/password`, { password: 'never to be read' });
  const lines = (find: string): Promise<ChangeLine[]> => oswin.get<ChangeLine[]>(`/changes?find=${encodeURIComponent(find)}`);
  expect((await lines('Told Of')).map(({ act, person: by, fields }) => ({ act, by, fields }))).toEqual([
    { act: 'new password', by: 'Oswin Tarrell', fields: [] },
    {
      act: 'changed',
      by: 'Oswin Tarrell',
      fields: [
        { field: 'name', before: 'Somebody told-of', after: 'Told Of' },
        { field: 'role', before: 'mechanic', after: 'apprentice' },
      ],
    },
  ]);
  expect(JSON.stringify(await lines(''))).not.toMatch(/never to be read|plumb and level|argon2/u);
  const { shop } = await oswin.get<SessionView>('/session');
  const { hourlyMinor, taxShare, marginShare, rules, pinDigits, version } = shop;
  const body = { hourlyMinor: hourlyMinor + 100, taxShare, marginShare, rules, pinDigits, version };
  expect((await oswin.call('PUT', '/shop', body)).status).toBe(200);
  expect((await lines('an hour'))[0]).toMatchObject({
    what: 'shop',
    fields: [{ field: 'an hour', before: (hourlyMinor / 100).toFixed(2), after: (hourlyMinor / 100 + 1).toFixed(2) }],
  });
  const [newest, next] = await lines('');
  expect((await oswin.get<ChangeLine[]>(`/changes?before=${encodeURIComponent(newest!.at)}`))[0]).toEqual(next);
  for (const before of ['yesterday', '0', '2026-11-30', 'ring-gear&before=0'])
    expect(told(await oswin.call('GET', `/changes?before=${before}`))).toMatch(/^400 before must be a time/u);
});

describe('tools', () => {
  const wrench = {
    tag: 'W31',
    name: 'Click wrench 40–200',
    kind: 'torque-wrench',
    quantity: 'torque',
    unit: 'N·m',
    low: 40,
    high: 200,
    resolution: 1,
    within: 4,
    length: 460,
    due: '2099-01-31',
    everyDays: 365,
  };

  test('one comes into the crib, is offered with what its certificate says, is mended, and both are kept', async () => {
    const added = await oswin.made<ToolView>('/tools', wrench);
    // Two even spreads: 4 N·m either way, and half a step of 1 N·m (JCGM 100, 4.3.7).
    expect(added).toMatchObject({
      tag: 'W31',
      calibrationDue: '2099-01-31',
      u: expect.closeTo(Math.hypot(4 / Math.sqrt(3), 1 / Math.sqrt(12)), 9),
    });
    expect(limitOfError(added)).toBeCloseTo(4, 9);
    const ilka = await Client.as(server.base, 'ilka');
    expect((await ilka.get<{ tag: string }[]>('/tools')).some(({ tag }) => tag === 'W31')).toBe(true);
    const change = { ...wrench, high: 210, version: added.version };
    const [first, second] = await Promise.all([1, 2].map(() => oswin.call<ToolView>('PUT', `/tools/${added.id}`, change)));
    expect([first!.status, second!.status].toSorted()).toEqual([200, 409]);
    const [told] = await oswin.get<ChangeLine[]>('/changes?find=W31');
    expect(told).toMatchObject({
      what: 'tool',
      act: 'changed',
      fields: [{ field: 'range', before: '40 N·m to 200 N·m', after: '40 N·m to 210 N·m' }],
    });
    expect((await ilka.call('POST', '/tools', wrench)).status).toBe(403);
  });

  test('one that is overdue is mended otherwise, and comes back by a good check alone', async () => {
    const tools = await oswin.get<ToolView[]>('/tools');
    const { id, calibrationDue } = tools.find(({ tag }) => tag === 'W1')!;
    const { version } = await oswin.get<ToolView>(`/tools/${id}`);
    const small = { ...wrench, tag: 'W1', low: 5, high: 25, resolution: 0.1, within: 0.5, version };
    expect(told(await oswin.call('PUT', `/tools/${id}`, small))).toMatch(/^400 due stays .* until a good check is kept/u);
    const { due: _, ...without } = small;
    expect(told(await oswin.call('PUT', `/tools/${id}`, without))).toMatch(/^400 due stays/u);
    expect((await oswin.call<ToolView>('PUT', `/tools/${id}`, { ...small, due: calibrationDue })).body.calibrationDue).toBe(calibrationDue);
  });

  test.each([
    ['a range upside down', { low: 200, high: 40 }, /^400 high must be over where it begins, 200 N·m/u],
    ['a step as wide as its range', { resolution: 160 }, /^400 resolution must be finer than its range, 160 N·m/u],
    ['a certificate of yesterday', { due: '2026-01-01' }, /^400 due must lie ahead/u],
    ['the tag of another', { tag: 'W3' }, /^400 tag is the tag of another: Click wrench 20–200/u],
    ['a wrench that reads a length', { quantity: 'length', unit: 'mm' }, /^400 quantity must be torque: a torque wrench reads that/u],
    ['a unit of something else', { unit: 'mm' }, /^400 unit must be one of: N·m/u],
    ['no figure', { within: null }, /^400 within must be a figure/u],
    ['a kind that there is not', { kind: 'hammer' }, /^400 kind is missing: what kind of tool/u],
  ])('%s is refused at its field, and nothing is put in', async (_, wrong, words) => {
    const before = await oswin.get<unknown[]>('/tools');
    expect(told(await oswin.call('POST', '/tools', { ...wrench, tag: 'W99', ...wrong }))).toMatch(words);
    expect(await oswin.get<unknown[]>('/tools')).toEqual(before);
  });
});
