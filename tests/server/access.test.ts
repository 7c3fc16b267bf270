import { ROLES, type Role } from '@jubb/sheet';
import { ENDPOINTS, PROBLEMS, type Endpoint } from '@jubb/wire';
import { once } from 'node:events';
import { request, type IncomingMessage } from 'node:http';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Client } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

const LOGINS: Record<Role, string> = { mechanic: 'ilka', foreman: 'oswin', counter: 'perla', apprentice: 'joss' };
const NOWHERE = '00000000-0000-7000-8000-000000000000';

let database: TestDatabase;
let server: RunningServer;
const clients = new Map<Role, Client>();

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  for (const role of ROLES) clients.set(role, await Client.as(server.base, LOGINS[role]));
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

/** Status of an address that is sent as it is written, which `fetch` does not do. */
async function rawly(path: string): Promise<number> {
  const asked = request({ host: '127.0.0.1', port: server.port, path, headers: { accept: 'text/html' } }).end();
  const [answer] = (await once(asked, 'response')) as [IncomingMessage];
  answer.resume();
  return answer.statusCode ?? 0;
}

/** A call that touches nothing: ids that are nowhere, bodies that are empty. */
async function touch(client: Client, line: string): Promise<number> {
  const [method = '', route = ''] = line.split(' ');
  const path = route.replace('/api/v1', '').replaceAll(':id', NOWHERE);
  if (path === '/stream') {
    const aborter = new AbortController();
    const response = await fetch(`${server.base}/api/v1/stream`, { headers: { cookie: client.cookie }, signal: aborter.signal });
    aborter.abort();
    return response.status;
  }
  return (await client.call(method, path, method === 'GET' || method === 'DELETE' ? undefined : {})).status;
}

const ALL = Object.values(ENDPOINTS).flatMap((group): readonly Endpoint[] => Object.values(group));
const ACCESS = Object.fromEntries(ALL.map(({ method, path, who }) => [`${method} /api/v1${path}`, who]));

interface Answer {
  readonly description: string;
  readonly content?: Readonly<Record<string, { readonly schema: unknown }>>;
}

async function documented(): Promise<{
  readonly paths: Record<string, Record<string, { readonly responses: Record<string, Answer> }>>;
  readonly components: { readonly schemas: Record<string, unknown> };
}> {
  const foreman = await Client.as(server.base, 'oswin');
  const response = await fetch(`${server.base}/api/docs/json`, { headers: { cookie: foreman.cookie } });
  return (await response.json()) as Awaited<ReturnType<typeof documented>>;
}

test('the server answers the endpoints of the wire, every one and no other', async () => {
  const { paths } = await documented();
  const routes = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method.toUpperCase()} ${path.replaceAll(/\{(\w+)\}/gu, ':$1')}`),
  );
  expect(routes.toSorted()).toEqual(Object.keys(ACCESS).toSorted());
});

test('the document says what every operation answers, and what its refusal is', async () => {
  const { paths, components } = await documented();
  const operations = Object.values(paths).flatMap((methods) => Object.values(methods));
  expect(operations).toHaveLength(ALL.length);
  for (const { responses } of operations) {
    const [good] = Object.entries(responses).filter(([status]) => status.startsWith('2'));
    if (good?.[0] !== '204') expect(Object.values(good?.[1].content ?? {})[0]?.schema).toBeDefined();
    expect(responses['default']?.content?.['application/problem+json']).toBeDefined();
  }
  const refs = [...JSON.stringify({ paths, components }).matchAll(/"#\/components\/schemas\/([^"]+)"/gu)].map(([, name = '']) => name);
  expect(refs.length).toBeGreaterThan(300);
  expect(refs.filter((name) => !(name in components.schemas))).toEqual([]);
  expect(components.schemas['answer.ProblemCode']).toMatchObject({ enum: expect.arrayContaining(Object.keys(PROBLEMS)) });
});

// Logging out comes last: it ends the session the other lines use.
const LOG_OUT = 'DELETE /api/v1/session';
const lines = Object.keys(ACCESS).toSorted((a, b) => Number(a === LOG_OUT) - Number(b === LOG_OUT));

describe.each(lines)('%s', (line) => {
  const allowed = ACCESS[line];

  test('without a log-in', async () => {
    const status = await touch(new Client(server.base), line);
    if (allowed === 'anyone') expect(status).not.toBe(401);
    else expect([401, 403]).toContain(status);
  });

  test.each(ROLES)('as %s', async (role) => {
    // Logging in anew would end the session that the other lines use.
    const client = line === 'POST /api/v1/session' ? new Client(server.base) : clients.get(role)!;
    const status = await touch(client, line);
    if (allowed === 'anyone' || allowed?.includes(role)) expect([200, 201, 204, 400, 404]).toContain(status);
    else expect(status).toBe(403);
  });
});

describe('the session', () => {
  test('a change without the token of the session is refused', async () => {
    const client = await Client.as(server.base, 'perla');
    const answer = await client.call('POST', '/jobs', {}, { 'x-jubb-csrf': 'something else' });
    expect(answer).toMatchObject({ status: 403, body: { errors: [{ field: 'x-jubb-csrf' }] } });
  });

  test('the cookie is out of reach of scripts and other sites', async () => {
    const client = new Client(server.base);
    const answer = await client.call('POST', '/session', { login: 'ilka', password: 'bench-417' });
    const cookie = answer.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/HttpOnly/u);
    expect(cookie).toMatch(/SameSite=Strict/u);
  });

  test('behind a proxy that is believed, https makes the cookies secure ones, which go on holding', async () => {
    const behind = await startServer(database.url, { env: { JUBB_PROXIES: '127.0.0.1' } });
    const https = { 'x-forwarded-proto': 'https' };
    try {
      const client = new Client(behind.base);
      const entered = await client.call('POST', '/session', { login: 'ilka', password: 'bench-417' }, https);
      const cookies = entered.headers.getSetCookie();
      expect(cookies.map((cookie) => cookie.split('=')[0]).toSorted()).toEqual(['jubb', 'jubb-tablet']);
      for (const word of [/; Path=\//u, /; HttpOnly/u, /; Secure/u, /; SameSite=Strict/u])
        expect(cookies.filter((cookie) => !word.test(cookie))).toEqual([]);
      expect(await client.call('GET', '/session', undefined, https)).toMatchObject({ status: 200, body: { person: { login: 'ilka' } } });
      // Nobody else's word is taken for it.
      const plain = await new Client(server.base).call('POST', '/session', { login: 'ilka', password: 'bench-417' }, https);
      expect(plain.headers.getSetCookie().join()).not.toMatch(/Secure/u);
    } finally {
      await behind.stop();
    }
  });

  test('wrong passwords run out, however the name is typed and wherever they say they come from', async () => {
    const client = new Client(server.base);
    const statuses = [];
    const names = ['bram', ' bram', 'bram ', 'BRAM', 'Bram\u3000'];
    for (let attempt = 0; attempt < 10; attempt += 1) {
      const tried = { login: names[attempt % names.length], password: `guess ${attempt}` };
      statuses.push((await client.call('POST', '/session', tried, { 'x-forwarded-for': `203.0.113.${attempt}` })).status);
    }
    expect(statuses.slice(0, 5)).toEqual(Array(5).fill(401));
    expect(statuses.slice(5)).toEqual(Array(5).fill(429));
    // Many at once are no way round either.
    const atOnce = await Promise.all(
      Array.from({ length: 20 }, (_, index) => client.call('POST', '/session', { login: 'joss', password: `guess ${index}` })),
    );
    expect(atOnce.filter(({ status }) => status === 401).length).toBeLessThanOrEqual(5);
    // The right one has to wait as well, for it might be the next guess.
    expect(await client.call('POST', '/session', { login: 'bram', password: 'bench-417' })).toMatchObject({
      status: 429,
      body: { title: expect.stringMatching(/Wait (?:2\d|30) s, or ask the foreman/u) },
    });
    // Another name from the same place is not shut out.
    expect((await client.call('POST', '/session', { login: 'ilka', password: 'bench-417' })).status).toBe(200);
  });

  test('wrong PINs of one person run out over all tablets, and every log-in without a cookie is a new one', async () => {
    const { rows } = await database.query("SELECT id FROM person WHERE login = 'bram'");
    const { id: bram } = rows[0] as { id: string };
    const statuses = [];
    for (let tablet = 0; tablet < 4; tablet += 1) {
      const fresh = await Client.as(server.base, 'perla');
      expect((await fresh.call('POST', '/session/swap', { personId: bram, pin: '4170' })).status).toBe(403);
      // Even on tablets that know them.
      await database.query('INSERT INTO tablet_person (tablet_id, person_id) SELECT id, $1 FROM tablet ON CONFLICT DO NOTHING', [bram]);
      for (let attempt = 0; attempt < 3; attempt += 1)
        statuses.push((await fresh.call('POST', '/session/swap', { personId: bram, pin: `000${attempt}` })).status);
    }
    expect(statuses).toEqual([...Array<number>(5).fill(401), ...Array<number>(7).fill(429)]);
  });

  test('passwords are kept as argon2id', async () => {
    const { rows } = await database.query('SELECT password_hash FROM person');
    expect(rows).toHaveLength(5);
    for (const row of rows as { password_hash: string }[]) expect(row.password_hash).toMatch(/^\$argon2id\$/u);
  });

  test('nothing but the page itself is read from the disk', async () => {
    // Beside the folder of the page lies the server's own program.
    const outside = ['/../../server/dist/main.js', '/..%2f..%2fserver%2fdist%2fmain.js', '/%2e%2e/%2e%2e/server/dist/main.js'];
    for (const path of [...outside, `/assets/..${outside[0]!}`, '/gone.js'])
      expect([path, (await rawly(path)) >= 400]).toEqual([path, true]);
    // A working has a dot in its name, and is a place of the page.
    for (const path of ['/jobs/402', '/workings/torque.no-spec', '/icon.svg']) expect([path, await rawly(path)]).toEqual([path, 200]);
  });

  test('the API description is behind the log-in', async () => {
    expect((await fetch(`${server.base}/api/docs/json`)).status).toBe(401);
    expect((await fetch(`${server.base}/api/docs`)).status).toBe(401);
  });

  test('pages carry a policy that runs no foreign or inline script', async () => {
    const policy = (await fetch(server.base, { headers: { accept: 'text/html' } })).headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toContain('unsafe');
  });
});
