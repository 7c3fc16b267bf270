import type { JobHead, JobView } from '@jubb/book';
import type { SheetFile, Tool } from '@jubb/sheet';
import type { SheetLine, SheetView, StockView } from '@jubb/wire';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 as uuid } from 'uuid';
import { NASTY, oneOf, randomFrom, spoilt, type Random } from '../../packages/sheet/src/spoilt.test-kit.ts';
import { Client } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: TestDatabase;
let server: RunningServer;
/** What the server says of itself, for whoever looks for a fault that this found. */
let said = '';

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  server.child.stderr?.on('data', (chunk: Buffer) => (said += chunk.toString()));
  server.child.stdout?.on('data', (chunk: Buffer) => (said += chunk.toString()));
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

const written = (given: unknown): string => (typeof given === 'string' ? given : (JSON.stringify(given) ?? 'undefined'));
interface Schema {
  readonly $ref?: string;
  readonly type?: string;
  readonly enum?: readonly unknown[];
  readonly format?: string;
  readonly pattern?: string;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly items?: Schema;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly minItems?: number;
  readonly allOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly anyOf?: readonly Schema[];
}
interface Operation {
  readonly method: string;
  readonly path: string;
  readonly body?: Schema;
  readonly query: readonly string[];
}

/** Refs, ids and names that the shop really has: half a fault is found only behind a door that opens. */
interface Pool {
  readonly ids: readonly string[];
  readonly words: readonly string[];
}

function made(schema: Schema | undefined, schemas: Readonly<Record<string, Schema>>, pool: Pool, random: Random, deep = 0): unknown {
  if (random() < 0.06 || deep > 8) return oneOf(random, NASTY);
  if (!schema) return oneOf(random, NASTY);
  if (schema.$ref) return made(schemas[schema.$ref.split('/').at(-1)!], schemas, pool, random, deep);
  const [first] = schema.allOf ?? schema.oneOf ?? schema.anyOf ?? [];
  if (first) return made(oneOf(random, schema.allOf ?? schema.oneOf ?? schema.anyOf ?? []), schemas, pool, random, deep + 1);
  if (schema.enum) return oneOf(random, schema.enum);
  switch (schema.type) {
    case 'object': {
      const wanted = Object.entries(schema.properties ?? {}).filter(([name]) => (schema.required ?? []).includes(name) || random() < 0.4);
      return Object.fromEntries(
        wanted.flatMap(([name, of]) => (random() < 0.03 ? [] : [[name, made(of, schemas, pool, random, deep + 1)]])),
      );
    }
    case 'array': {
      const count = (schema.minItems ?? 0) + Math.floor(random() * 4);
      return Array.from({ length: count }, () => made(schema.items, schemas, pool, random, deep + 1));
    }
    case 'integer':
    case 'number': {
      const { minimum = -5, maximum = 2000 } = schema;
      const figure = random() < 0.2 ? oneOf(random, [minimum, maximum, 0, 1]) : minimum + random() * Math.min(maximum - minimum, 100);
      return schema.type === 'integer' ? Math.round(figure) : figure;
    }
    case 'boolean':
      return random() < 0.5;
    default:
      if (schema.format === 'uuid') return random() < 0.7 ? oneOf(random, pool.ids) : uuid();
      if (schema.format === 'date-time') return new Date(1.8e12 + random() * 1e10).toISOString();
      if (schema.format === 'date') return '2027-05-01';
      return random() < 0.7 ? oneOf(random, pool.words) : oneOf(random, ['12 mm', '3', '0.4', 'Lip seal', '2027-03-01', 'a b']);
  }
}

/** The class of the payload of a kind: "came-off" is a CameOffPayload. */
const payloadOf = (kind: string): string =>
  `${kind
    .split('-')
    .map((part) => part.charAt(0).toUpperCase() + part.slice(1))
    .join('')}Payload`;

/** Streams never end; a log-in and a log-out would change who asks. */
const LEFT_OUT = new Set(['get /stream', 'delete /session', 'post /session', 'post /session/swap', 'put /session/pin', 'post /first-run']);
const REQUESTS = 6000;
const AT_ONCE = 4;
const START = 20_261_128;

test('no operation answers any role with a fault of the server, whatever it is sent', async () => {
  const roles = await Promise.all(['ilka', 'oswin', 'perla', 'joss'].map((login) => Client.as(server.base, login)));
  const [ilka, oswin] = roles as [Client, Client, Client, Client];
  const document = await oswin.get<{
    paths: Record<
      string,
      Record<string, { requestBody?: { content?: Record<string, { schema: Schema }> }; parameters?: { in: string; name: string }[] }>
    >;
    components: { schemas: Record<string, Schema> };
  }>('/../docs/json');
  const { schemas } = document.components;
  const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, { requestBody, parameters = [] }]): Operation => {
      const body = requestBody?.content?.['application/json']?.schema;
      const query = parameters.filter((one) => one.in === 'query').map(({ name }) => name);
      return { method, path: path.replace('/api/v1', ''), query, ...(body ? { body } : {}) };
    }),
  );
  const asked = operations.filter(({ method, path }) => !LEFT_OUT.has(`${method} ${path}`));
  expect(asked.length).toBeGreaterThan(75);

  const [jobs, sheets, tools, stock, workings] = await Promise.all([
    oswin.get<JobHead[]>('/jobs'),
    oswin.get<SheetLine[]>('/sheets'),
    oswin.get<Tool[]>('/tools'),
    oswin.get<StockView[]>('/stock'),
    oswin.get<{ id: string; example?: unknown }[]>('/workings'),
  ]);
  const job = await oswin.get<JobView>(`/jobs/${jobs.at(-1)!.id}`);
  const open = await ilka.booked(sheets.find(({ key }) => key === 'ostrel-d44-drive-axle')!.revisionId);
  const draft = await oswin.made<{ revisionId: string }>(
    `/sheets/${sheets.find(({ key }) => key === 'quennet-ga-alternator')!.revisionId}/draft`,
    {},
  );
  const { file } = await oswin.get<SheetView>(`/sheets/${draft.revisionId}`);
  const refs = (of: SheetFile): readonly string[] =>
    [...of.steps, ...of.parts, ...of.joints, ...of.limits, ...of.settings].map(({ ref }) => ref);
  const openFile = (await oswin.get<JobView>(`/jobs/${open.id}`)).sheet.file;
  const pool: Pool = {
    ids: [
      ...Array.from({ length: 12 }, () => open.id),
      ...jobs.flatMap(({ id, unit, customer, machine }) => [id, unit.id, customer.id, machine.id]),
      ...sheets.slice(0, 6).map(({ revisionId }) => revisionId),
      ...Array.from({ length: 6 }, () => draft.revisionId),
      ...tools.slice(0, 6).map(({ id }) => id),
      ...stock.slice(0, 6).map(({ id }) => id),
      ...job.entries.slice(0, 6).map(({ id }) => id),
    ],
    words: [
      ...refs(openFile),
      ...refs(file),
      ...workings.map(({ id }) => id),
      'mm',
      'N·m',
      'Ω',
      'V',
      'L',
      'g',
      'torque.figure',
      'parts',
      'joints',
    ],
  };

  const random = randomFrom(START);
  const faults = new Map<string, string>();
  const statuses = new Map<number, number>();
  const ask = async (): Promise<void> => {
    const { method, path, body, query } = oneOf(random, asked);
    const who = oneOf(random, [...roles, oswin, oswin, ilka]);
    const filled = path.replaceAll(/\{(\w+)\}/gu, (_, name: string) => {
      if (random() < 0.1) return encodeURIComponent(written(oneOf(random, NASTY)) || 'x');
      if (name === 'list') return oneOf(random, ['parts', 'steps', 'limits', 'nothing']);
      if (path.startsWith('/workings')) return oneOf(random, workings).id;
      if (name === 'sha' || name === 'token') return oneOf(random, ['0'.repeat(64), 'abc']);
      return oneOf(random, pool.ids);
    });
    const questions = [...query, 'find', 'text', 'before', 'at', 'total', 'family', 'name']
      .filter((name) => query.includes(name) || random() < 0.1)
      .map((name) => `${name}=${encodeURIComponent(written(oneOf(random, [...NASTY, ...pool.words])))}`);
    let sent = body ? made(body, schemas, pool, random) : method === 'get' ? undefined : oneOf(random, NASTY);
    if (path.endsWith('/entries') && method === 'post' && random() < 0.95) {
      const kind = oneOf(random, schemas['NewEntry']!.properties!['kind']!.enum as string[]);
      const payload = made(schemas[payloadOf(kind)], schemas, pool, random);
      const step = random() < 0.6 ? { step: oneOf(random, openFile.steps).ref } : {};
      const tool = random() < 0.4 ? { toolId: oneOf(random, tools).id } : {};
      sent = { entries: [{ id: uuid(), kind, payload, takenAt: new Date().toISOString(), ...step, ...tool }] };
    }
    if (path === '/sheets/{id}' && method === 'put')
      sent = { version: made({ type: 'integer', minimum: 1 }, schemas, pool, random), file: spoilt(file, random) };
    if (path === '/sheets/drafts') sent = { ...(sent as object), file: spoilt(file, random) };
    if (path === '/sheets/import')
      sent = { text: random() < 0.5 ? JSON.stringify(spoilt(file, random)) : written(oneOf(random, NASTY)), look: random() < 0.5 };
    if (path === '/workings/{id}/run') {
      const id = filled.split('/')[2]!;
      const described = await oswin.call<{ inputs?: { name: string; default?: unknown }[] }>('GET', `/workings/${id}`);
      sent = Object.fromEntries(
        (described.body.inputs ?? []).map(({ name, default: usual }) => [name, random() < 0.5 ? (usual ?? '1') : oneOf(random, NASTY)]),
      );
    }
    const address = `${filled}${questions.length > 0 ? `?${questions.join('&')}` : ''}`;
    const answer = await who.call(method.toUpperCase(), address, sent === undefined ? undefined : (JSON.stringify(sent) ?? 'null'));
    statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
    if (answer.status >= 500) {
      const ticket = /Ticket (\S+)/u.exec(JSON.stringify(answer.body))?.[1];
      await new Promise((resolve) => setTimeout(resolve, 50));
      const trace = ticket === undefined ? '' : said.slice(said.indexOf(ticket), said.indexOf(ticket) + 400);
      const where = `${method} ${path} ${/(?:[a-z-]+\.(?:service|controller|ts)[^\s)]*:\d+)/u.exec(trace)?.[0] ?? ''}`;
      if (!faults.has(where))
        faults.set(
          where,
          `${answer.status} ${address.slice(0, 200)} ${JSON.stringify(sent)?.slice(0, 4000) ?? ''}\n${written(answer.body).slice(0, 300)}\n${trace}`,
        );
    }
  };
  for (let done = 0; done < REQUESTS; done += AT_ONCE) await Promise.all(Array.from({ length: AT_ONCE }, ask));
  expect([...faults].map(([where, what]) => `${where}\n${what}`)).toEqual([]);
  // It is a test of what lies behind the door only if enough got in.
  expect(statuses.get(200) ?? 0).toBeGreaterThan(REQUESTS / 10);
});
