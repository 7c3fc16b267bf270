import { limitOfError } from '@jubb/sheet';
import type { JobHead, JobView, StockLine } from '@jubb/book';
import type {
  BroughtView,
  ChainView,
  ChangeLine,
  CustomerLine,
  CustomerView,
  InstrumentView,
  LinesView,
  MessageView,
  PersonLine,
  Problem,
  SentQuote,
  SessionView,
  ToolView,
} from '@jubb/wire';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { Client, type Answer } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { until } from '../kit/stream.ts';

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
  // A name alone logs nobody out, and is theirs where they are logged in.
  const again = await logIn('riser');
  await change(await named('riser'), { name: 'Riser Otherwise' });
  const renamed = async (): Promise<boolean> => (await again.client.get<SessionView>('/session')).person.name === 'Riser Otherwise';
  await until(renamed);
  expect((await again.client.get<SessionView>('/session')).person).toMatchObject({ role: 'counter', login: 'riser' });
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
  const [first, other] = both.map(({ status }) => status).toSorted();
  expect(first).toBe(200);
  // Whoever comes second is the last foreman by then, or is logged out already as what the first has made of them.
  expect([400, 401]).toContain(other);
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
  const { name, zone, hourlyMinor, taxShare, marginShare, rules, pinDigits, version } = shop;
  const body = { name, zone, hourlyMinor: hourlyMinor + 100, taxShare, marginShare, rules, pinDigits, version };
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

  test('what pushes is known by its sizes, and has no check', async () => {
    const driver = {
      tag: 'V31',
      name: 'Seal driver 68',
      kind: 'driver',
      quantity: 'length',
      unit: 'mm',
      low: 54,
      high: 67.5,
      resolution: 0,
      within: 0,
    };
    const added = await oswin.made<ToolView>('/tools', { ...driver, length: 160 });
    expect(added).toMatchObject({ kind: 'driver', low: 54, high: 67.5, length: 160, calibrationDue: null });
    expect(told(await oswin.call('POST', '/tools', { ...driver, tag: 'V32', low: 70 }))).toMatch(
      /^400 high must be more than its inside, 70 mm/u,
    );
    expect((await oswin.call('POST', '/tools', { ...driver, tag: 'V33', low: 0 })).status).toBe(201);
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

describe('instruments', () => {
  const begins = (by: Client, body: object): Promise<Answer<InstrumentView[]>> => by.call('POST', '/instruments', body);

  test('a tool sends by itself from now on, once, however many say so; in no other way, and by the foreman’s word', async () => {
    const tools = await oswin.get<ToolView[]>('/tools');
    const [wrench, rule] = ['W5', 'R1'].map((wanted) => tools.find(({ tag }) => tag === wanted)!.id);
    const twice = await Promise.all([1, 2].map(() => begins(oswin, { toolId: wrench, clicks: true })));
    expect(twice.map(({ status }) => status).toSorted()).toEqual([201, 400]);
    expect(told(twice.find(({ status }) => status === 400)!)).toMatch(/toolId sends by itself already$/u);
    expect(told(await begins(oswin, { toolId: rule, clicks: true }))).toMatch(/^400 clicks is for a torque wrench/u);
    expect(told(await begins(oswin, { toolId: '', clicks: false }))).toMatch(/^400 toolId is missing: which tool is it/u);
    expect(told(await begins(oswin, { toolId: v7(), clicks: false }))).toMatch(/^400 toolId is no tool of this crib/u);
    expect((await begins(await Client.as(server.base, 'ilka'), { toolId: rule, clicks: false })).status).toBe(403);
    const made = (await oswin.get<InstrumentView[]>('/instruments')).find(({ tool }) => tool.id === wrench)!;
    expect(made).toMatchObject({ clicks: true, tablet: null, last: null });
    const sent = await oswin.call<LinesView>('POST', `/instruments/${made.id}/lines`, '{"n":1,"unit":"N·m","taken":true}', {
      'content-type': 'application/x-ndjson',
    });
    expect(sent.body).toMatchObject({ kept: 1, refused: [] });

    const after = (await oswin.call<InstrumentView[]>('DELETE', `/instruments/${made.id}`)).body;
    expect(after.some(({ id }) => id === made.id)).toBe(false);
    expect((await oswin.call('DELETE', `/instruments/${made.id}`)).status).toBe(404);
    expect((await oswin.get<ToolView[]>('/tools')).some(({ id }) => id === wrench)).toBe(true);
  });
});

describe('a table that is brought in', () => {
  const bring = (list: string, rows: readonly object[], preview = false): Promise<Answer<BroughtView>> =>
    oswin.call<BroughtView>('POST', '/lists', { list, rows, preview });
  const tool = {
    tag: 'M71',
    name: 'Micrometer 25–50',
    kind: 'Micrometer',
    low: '25',
    high: '50 mm',
    resolution: '1 µm',
    within: '4 µm',
    everyDays: '365',
  };
  const acts = ({ body }: Answer<BroughtView>): readonly string[] => body.rows.map(({ act, subject }) => `${subject} ${act}`);

  test('a preview says of each row what would be, and makes nothing; then it is so', async () => {
    const rows = [
      tool,
      { tag: 'W1', due: '' },
      { ...tool, tag: 'M72', low: '60' },
      { ...tool, tag: 'M73', within: 'good', kind: 'mikrometer' },
      { ...tool, tag: 'M71', name: 'the same tag again' },
      { tag: 'V71', name: 'Seal driver 64', kind: 'driver', low: '52', high: '63,5', length: '150' },
    ];
    const before = await oswin.get<ToolView[]>('/tools');
    const preview = await bring('tools', rows, true);
    expect(acts(preview)).toEqual(['M71 made', 'W1 same', 'M72 refused', 'M73 refused', 'M71 refused', 'V71 made']);
    expect(preview.body.rows[2]!.wrongs).toEqual([
      expect.objectContaining({ field: 'high', allowed: expect.stringContaining('must be over where it begins') }),
    ]);
    expect(preview.body.rows[3]!.wrongs.map(({ field, given }) => `${field} ${given}`)).toEqual(['kind mikrometer', 'within good']);
    expect(preview.body.rows[4]!.wrongs[0]!.allowed).toBe('stands in this table twice');
    expect(await oswin.get<ToolView[]>('/tools')).toEqual(before);

    expect(acts(await bring('tools', rows))).toEqual(acts(preview));
    const after = await oswin.get<ToolView[]>('/tools');
    expect(after.length).toBe(before.length + 2);
    expect(after.find(({ tag }) => tag === 'M71')).toMatchObject({ low: 25, high: 50, resolution: 0.001, unit: 'mm' });
    expect(after.find(({ tag }) => tag === 'V71')).toMatchObject({ kind: 'driver', low: 52, high: 63.5, length: 150 });
    // Brought in again it is as it is; what a row leaves empty stays.
    expect(acts(await bring('tools', [tool, { tag: 'M71' }].slice(0, 1)))).toEqual(['M71 same']);
    expect(acts(await bring('tools', [{ tag: 'M71', name: 'Micrometer 25–50, new anvils' }]))).toEqual(['M71 changed']);
    expect((await oswin.get<ToolView[]>('/tools')).find(({ tag }) => tag === 'M71')).toMatchObject({
      name: 'Micrometer 25–50, new anvils',
      low: 25,
    });
    // A figure finer than it is shown is another figure.
    expect(acts(await bring('tools', [{ tag: 'M71', high: '50,0000001' }]))).toEqual(['M71 changed']);
    expect((await oswin.get<ToolView[]>('/tools')).find(({ tag }) => tag === 'M71')!.high).toBe(50.0000001);
    const changes = await oswin.get<ChangeLine[]>('/changes?find=M71');
    expect(changes.map(({ act }) => act)).toEqual(['changed', 'added']);
  });

  test('people come with a first password; whoever is here is called or does something else from now on, and the last foreman stays one', async () => {
    const mira = { login: 'Mira', name: 'Mira Olven', role: 'Mechanic', password: WORDS };
    const rows = [
      mira,
      { ...mira, login: 'short', password: 'short' },
      { ...mira, login: 'no one', name: '' },
      { ...mira, login: 'ilka' },
      { ...mira, login: 'lorn', role: 'owner' },
      { login: 'joss', role: 'mechanic' },
      { login: 'bram' },
      { login: 'oswin', role: 'mechanic' },
      { ...mira, login: 'MIRA', name: 'the same again' },
    ];
    const joss = await Client.as(server.base, 'joss');
    const before = await people();
    const preview = await bring('people', rows, true);
    expect(acts(preview)).toEqual([
      'Mira made',
      'short refused',
      'no one refused',
      'ilka refused',
      'lorn refused',
      'joss changed',
      'bram same',
      'oswin refused',
      'MIRA refused',
    ]);
    expect(preview.body.rows.map(({ wrongs }) => wrongs.map(({ field }) => field).join(' '))).toEqual([
      '',
      'password',
      'name login',
      'password',
      'role',
      '',
      '',
      'role',
      'login',
    ]);
    expect(await people()).toEqual(before);
    expect((await joss.call('GET', '/today')).status).toBe(200);

    expect(acts(await bring('people', rows))).toEqual(acts(preview));
    expect((await logIn('mira')).status).toBe(200);
    expect(await named('joss')).toMatchObject({ name: before.find(({ login }) => login === 'joss')!.name, role: 'mechanic' });
    // As from their page: what they were logged in as is over.
    await until(async () => (await joss.call('GET', '/today')).status === 401);
    const said = await oswin.get<ChangeLine[]>('/changes?find=Mira');
    expect(said.map(({ act }) => act)).toEqual(['added']);
    expect(JSON.stringify(said)).not.toContain(WORDS);
  });

  test('customers come with their machines, a row for each; what is somebody else’s stays theirs', async () => {
    const { revisionId } = await oswin.sheetKeyed('harrowmere-th6-front-hub');
    const other = await oswin.booked(revisionId, { machine: { name: 'Tractor 9', serial: 'T-9' } });
    const mill = { name: 'Upper Mill 100 %', phone: '0555 0777', email: 'mill@example.com' };
    const rows = [
      { ...mill, machine: 'Fork lift', serial: 'FL-1' },
      { name: 'upper mill 100 %', machine: 'Saw', serial: 'S-2', address: 'At the weir' },
      { ...mill, machine: 'Fork lift', serial: 'FL-1' },
      { name: 'Nobody', email: 'at home' },
      { name: 'Somebody', serial: 'X-1' },
      { name: 'Thief', machine: 'Tractor', serial: 'T-9' },
      { name: '', phone: '0555' },
    ];
    const preview = await bring('customers', rows, true);
    expect(preview.body.rows.map(({ act, wrongs }) => [act, ...wrongs.map(({ field }) => field)].join(' '))).toEqual([
      'made',
      'changed',
      'refused serial',
      'refused email',
      'refused machine',
      'refused serial',
      'refused name',
    ]);
    expect(await oswin.get<CustomerLine[]>('/customers?find=Upper%20Mill')).toEqual([]);

    expect(acts(await bring('customers', rows))).toEqual(acts(preview));
    // Nobody asks for a piece of a name of somebody who is not known to be there.
    expect((await oswin.get<CustomerLine[]>('/customers')).map(({ name }) => name)).toContain(mill.name);
    const [line] = await oswin.get<CustomerLine[]>('/customers?find=FL-1');
    expect(await oswin.get<CustomerView>(`/customers/${line!.id}`)).toMatchObject({
      ...mill,
      address: 'At the weir',
      machines: [
        { name: 'Fork lift', serial: 'FL-1' },
        { name: 'Saw', serial: 'S-2' },
      ],
    });
    expect(acts(await bring('customers', rows.slice(0, 1)))).toEqual(['Upper Mill 100 % Fork lift FL-1 same']);
    // A name is no pattern: a sign of one finds nobody else.
    expect(acts(await bring('customers', [{ name: 'Upper Mill 100 _' }]))).toEqual(['Upper Mill 100 _ made']);
    expect((await oswin.get<JobView>(`/jobs/${other.id}`)).machine.serial).toBe('T-9');
    expect(JSON.stringify(await oswin.get<ChangeLine[]>('/changes?find=customer'))).not.toMatch(/mill@|0555 0777|Upper Mill/u);
  });

  test('lines of the stores come with what lies there, and are counted in', async () => {
    const ring = {
      number: 'OR-71',
      name: 'O-ring 22 x 2.65',
      kind: 'O-Ring',
      size: '22 x 2.65',
      material: 'nbr',
      shore: '70',
      location: 'R7',
      price: '0,95',
      onHand: '40',
    };
    const wrong = [
      { ...ring, number: 'OR-72', onHand: '-3' },
      { ...ring, number: 'OR-73', material: 'cheese' },
      { number: '', name: 'nothing' },
    ];
    const answer = await bring('stores', [ring, ...wrong]);
    expect(acts(answer)).toEqual(['OR-71 made', 'OR-72 refused', 'OR-73 refused', ' refused']);
    const find = async (): Promise<StockLine> => (await oswin.get<StockLine[]>('/stock?find=OR-71'))[0]!;
    expect(await find()).toMatchObject({ onHand: 40, priceMinor: 95, material: 'NBR', shore: 70, location: 'R7' });
    expect(acts(await bring('stores', [{ ...ring, onHand: '' }]))).toEqual(['OR-71 same']);
    expect(acts(await bring('stores', [{ number: 'OR-71', onHand: '38' }]))).toEqual(['OR-71 changed']);
    expect(await find()).toMatchObject({ onHand: 38, name: 'O-ring 22 x 2.65', priceMinor: 95 });
  });

  test('no more than fits, nothing but text, and nobody but the foreman', async () => {
    expect(
      (
        await bring(
          'tools',
          Array.from({ length: 1001 }, () => tool),
        )
      ).status,
    ).toBe(400);
    expect((await bring('tools', [{ ...tool, low: 25 }])).status).toBe(400);
    expect((await bring('friends', [tool])).status).toBe(400);
    expect(
      (await (await Client.as(server.base, 'perla')).call('POST', '/lists', { list: 'tools', rows: [tool], preview: true })).status,
    ).toBe(403);
  });
});

describe('customers', () => {
  const booked = async (name: string, rest: object = {}): Promise<JobHead> => {
    const { revisionId } = await oswin.sheetKeyed('harrowmere-th6-front-hub');
    return oswin.booked(revisionId, { customer: { name, phone: `0555 ${name.length}` }, ...rest });
  };
  const one = (id: string): Promise<CustomerView> => oswin.get<CustomerView>(`/customers/${id}`);

  test('are changed by whoever saw them last, and what they are reached by is in no list of changes', async () => {
    const { customer } = await booked('Estrid Holm');
    const { version, name } = await one(customer.id);
    const to = { version, name, phone: '0555 123', email: 'estrid@example.com', address: 'Upper mill' };
    expect(told(await oswin.call('PUT', `/customers/${customer.id}`, { ...to, email: 'at home' }))).toMatch(
      /^400 email must be an e-mail address/u,
    );
    const [first, second] = await Promise.all([1, 2].map(() => oswin.call<CustomerView>('PUT', `/customers/${customer.id}`, to)));
    expect([first!.status, second!.status].toSorted()).toEqual([200, 409]);
    expect(await one(customer.id)).toMatchObject({ phone: '0555 123', email: 'estrid@example.com', version: version + 1 });
    const changes = JSON.stringify(await oswin.get<ChangeLine[]>('/changes?find=customer'));
    expect(changes).toContain('email');
    expect(changes).not.toMatch(/estrid@|0555 123|Estrid/u);
  });

  test('two that are one become one: machines, units, jobs and what is owed go along', async () => {
    const [here, there] = [await booked('Holm Estrid'), await booked('E. Holm', { machine: undefined })];
    expect((await oswin.call('POST', `/customers/${here.customer.id}/merge`, { into: here.customer.id })).status).toBe(400);
    const merged = await oswin.call<CustomerView>('POST', `/customers/${there.customer.id}/merge`, { into: here.customer.id });
    expect(merged.body.jobs.map(({ id }) => id).toSorted()).toEqual([here.id, there.id].toSorted());
    expect((await oswin.call('GET', `/customers/${there.customer.id}`)).status).toBe(404);
    expect((await oswin.get<JobView>(`/jobs/${there.id}`)).customer.id).toBe(here.customer.id);
    expect(await oswin.get<ChainView>(`/jobs/${there.id}/chain`)).toMatchObject({ whole: true });
    const perla = await Client.as(server.base, 'perla');
    expect((await perla.call('POST', `/customers/${here.customer.id}/merge`, { into: there.customer.id })).status).toBe(403);
  });

  test('a machine is sold with its units, a unit goes into another machine; what is not there is refused', async () => {
    const [from, to] = [await booked('Seller'), await booked('Buyer')];
    await oswin.call('PUT', `/machines/${from.machine.id}/owner`, { customerId: to.customer.id });
    expect((await oswin.get<JobView>(`/jobs/${from.id}`)).customer.name).toBe('Buyer');
    expect((await one(from.customer.id)).machines).toEqual([]);
    const moved = await oswin.call<CustomerView>('PUT', `/units/${from.unit.id}/machine`, { machineId: to.machine.id });
    expect(
      moved.body.machines
        .find(({ id }) => id === to.machine.id)!
        .units.map(({ id }) => id)
        .toSorted(),
    ).toEqual([from.unit.id, to.unit.id].toSorted());
    expect(told(await oswin.call('PUT', `/units/${from.unit.id}/machine`, { machineId: from.customer.id }))).toMatch(
      /^400 machineId is no machine/u,
    );
    expect((await oswin.call('PUT', `/machines/${from.customer.id}/owner`, { customerId: to.customer.id })).status).toBe(404);
  });

  test('somebody is made nameless: the facts stay, and say nothing of them', async () => {
    const { customer, id } = await booked('Person Whoasks');
    const line = { sort: 'labour', what: 'All of it', quantity: 2, unitMinor: 6800 } as const;
    const offer = {
      to: 'whoasks@example.com',
      words: 'Dear Whoasks, this is what we found.',
      validUntil: '2199-12-31',
      taxShare: 0.2,
      findings: [],
      options: [{ name: 'Rebuild', lines: [line] }],
    };
    const { link } = await oswin.made<SentQuote>(`/jobs/${id}/quotes`, { id: v7(), ...offer });
    const token = link!.split('/').at(-1)!;
    const visitor = new Client(server.base);
    expect(
      (await visitor.call('POST', `/offers/${token}/answer`, { answer: 'yes', option: 0, without: [], words: 'Yes. Whoasks' })).status,
    ).toBe(200);
    expect((await one(customer.id)).quotes).toMatchObject([
      { jobId: id, state: 'yes', body: { to: offer.to, words: offer.words }, answer: { words: 'Yes. Whoasks' } },
    ]);

    const after = await oswin.call<CustomerView>('POST', `/customers/${customer.id}/nameless`);
    expect(after.body).toMatchObject({ name: `Nameless ${customer.id.slice(0, 8)}`, phone: null, email: null, address: null });
    expect((await oswin.get<JobView>(`/jobs/${id}`)).customer.name).toContain('Nameless');
    expect((await oswin.get<CustomerLine[]>('/customers?find=Whoasks')).length).toBe(0);
    // What was offered and agreed stays; where it went, and what was written, does not.
    expect(after.body.quotes).toMatchObject([
      { jobId: id, state: 'yes', body: { options: offer.options }, answer: { answer: 'yes', option: 0 } },
    ]);
    const letters = await oswin.get<MessageView[]>('/messages');
    expect(JSON.stringify([after.body, await oswin.get(`/jobs/${id}/quotes`), letters])).not.toMatch(/whoasks/iu);
    expect((await visitor.call('GET', `/offers/${token}`)).status).toBe(404);
  });
});
