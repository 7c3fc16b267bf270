import { jobReport, jobState, type JobView } from '@jubb/book';
import { daysOn, dayIn, type Tool } from '@jubb/sheet';
import type { EarlierReading, InstrumentView, LinesView, Problem, SessionView, ToolView } from '@jubb/wire';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 as uuid } from 'uuid';
import { Client, entry, type Answer } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: TestDatabase;
let server: RunningServer;
let ilka: Client;

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  ilka = await Client.as(server.base, 'ilka');
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

const told = (answer: Answer<unknown>): string =>
  ((answer.body as Problem).errors ?? []).map(({ field, allowed }) => `${field} ${allowed}`).join('; ');
const toolTagged = async (tag: string): Promise<Tool> => (await ilka.get<Tool[]>('/tools')).find((tool) => tool.tag === tag)!;
const jobOn = async (key: string): Promise<JobView> => {
  const { id } = await ilka.bookedOn(key);
  return ilka.get<JobView>(`/jobs/${id}`);
};

describe('grids', () => {
  test('the worst place is judged, a missing row is named, a run-out is its span', async () => {
    const cylinder = await jobOn('harrowmere-hs40-steering-cylinder');
    const rod = cylinder.sheet.file.limits.find(({ grid }) => grid?.rows === 2)!;
    const { id: toolId } = await toolTagged('M2');
    const read = (limit: string, readings: number[]): Promise<Answer<JobView['entries']>> =>
      ilka.post(cylinder.id, entry('reading', { limit, readings, unit: 'mm' }, { toolId }));
    expect(told(await read(rod.ref, [24.99, 24.99, 24.98]))).toContain('must be one for each place: 2 × 2 makes 4');
    // Mean 24.96 is in; the thinnest place is not.
    const [kept] = (await read(rod.ref, [24.985, 24.985, 24.985, 24.9])).body;
    expect(kept!.working?.output).toMatchObject({ verdict: 'out', mean: 24.9 });

    const axle = await jobOn('ostrel-d44-drive-axle');
    const dial = await toolTagged('D2');
    const turn = Array.from({ length: 12 }, (_, place) => 5 + 0.03 * Math.cos((2 * Math.PI * place) / 12));
    const answer = await ilka.post<JobView['entries']>(
      axle.id,
      entry('reading', { limit: 'ring-runout', readings: turn, unit: 'mm' }, { toolId: dial.id }),
    );
    expect(answer.body[0]!.working?.output['mean']).toBeCloseTo(0.06, 6);
    expect(answer.body[0]!.working?.output['verdict']).toBe('in');
  });

  test('what an earlier rebuild of the same unit read stands behind the strip', async () => {
    const { unit } = await ilka.jobNumbered(401);
    const { machine, customer, sheet } = await ilka.jobNumbered(401);
    const again = await ilka.booked(sheet.revisionId, {
      customer: { id: customer.id, name: customer.name },
      machine: { ...machine },
      unit: { ...unit },
    });
    const earlier = await ilka.get<EarlierReading[]>(`/jobs/${again.id}/earlier`);
    const journal = earlier.find(({ limit }) => limit === 'inner-journal');
    expect(journal?.jobNumber).toBe(401);
    expect(journal?.readings[0]).toBeCloseTo(34.98, 1);
  });
});

test('a warm part is kept with its temperature and judged without it; warm ohms are refused', async () => {
  const hub = await jobOn('harrowmere-th6-front-hub');
  const { id: toolId } = await toolTagged('M2');
  const warm = { partT: 60, metal: 'steel' };
  const [kept] = (
    await ilka.post<JobView['entries']>(
      hub.id,
      entry('reading', { limit: 'inner-journal', readings: [35.0], unit: 'mm', warm, zeroed: true }, { toolId }),
    )
  ).body;
  expect(kept!.payload).toMatchObject({ readings: [35], warm, zeroed: true });
  expect(kept!.working?.output['mean']).toBeCloseTo(35 / (1 + 11.5e-6 * 40), 9);
  const alternator = await jobOn('quennet-ga-alternator');
  const ohms = alternator.sheet.file.limits.find(({ quantity }) => quantity === 'resistance')!;
  const refused = await ilka.post(alternator.id, entry('reading', { limit: ohms.ref, readings: [3], unit: 'Ω', warm }));
  expect(told(refused)).toContain('payload.warm is for sizes only');
});

describe('worked out on a job', () => {
  const diodes = (bad: string): object => ({
    working: 'alternator.diodes',
    part: 'rectifier',
    input: {
      readings: ['+1', '−2'].map((diode) => ({ diode, forward: diode === '−2' ? bad : '0.52 V', reverse: diode === '−2' ? bad : 'OL' })),
    },
  });

  test('the server works it out itself, and a bad diode proposes to renew the rectifier by its name', async () => {
    const job = await jobOn('quennet-ga-alternator');
    const answer = await ilka.post<JobView['entries']>(job.id, entry('worked', diodes('0.002 V')));
    expect(answer.body[0]!.working).toMatchObject({ id: 'alternator.diodes', output: { verdict: 'out', bad: '−2 shorted' } });
    const after = await ilka.get<JobView>(`/jobs/${job.id}`);
    const decision = jobState(after.sheet.file, after.entries).decisions.find(({ part }) => part.ref === 'rectifier');
    expect(decision).toMatchObject({ proposed: 'renew', because: expect.stringContaining('−2 shorted') });
  });

  test('what a working refuses is refused by field, and so is one that there is not', async () => {
    const job = await jobOn('quennet-ga-alternator');
    expect(told(await ilka.post(job.id, entry('worked', diodes('some'))))).toMatch(/payload\.input\.readings\[1\]\.forward .*OL/u);
    expect(told(await ilka.post(job.id, entry('worked', { working: 'alternator.magic', input: {} })))).toContain('there is no working');
  });
});

describe('ways', () => {
  test('one that departs from the maker needs the word of foreman and customer, and prints it', async () => {
    const job = await jobOn('harrowmere-hs40-steering-cylinder');
    const step = job.sheet.file.steps.find(({ ways }) => ways?.some(({ departs }) => departs))!;
    const way = step.ways!.find(({ departs }) => departs)!.ref;
    expect(told(await ilka.post(job.id, entry('way', { way }, { step: step.ref })))).toContain('departs from the maker');
    const agreed = { foreman: 'Oswin Tarrell', customer: 'cheap, for this season' };
    expect((await ilka.post(job.id, entry('way', { way, agreed }, { step: step.ref }))).status).toBe(200);
    const { sections } = jobReport(await ilka.get<JobView>(`/jobs/${job.id}`), { at: String, day: String });
    expect(JSON.stringify(sections.find(({ title }) => title.startsWith('Other than')))).toContain('cheap, for this season');
  });

  test('one that stays on the unit is there at the next booking, with who agreed to it; another unit has the shop’s', async () => {
    const first = await jobOn('tindlebrook-bm7-brake-cylinder');
    const step = first.sheet.file.steps.find(({ ways }) => ways?.some(({ stays }) => stays))!;
    const way = step.ways!.find(({ stays }) => stays)!.ref;
    const agreed = { foreman: 'Oswin Tarrell', customer: 'until the kit is made again' };
    await ilka.post(first.id, entry('way', { way, agreed }, { step: step.ref }));
    await ilka.workTo(first.id, 'sign');
    await (await Client.as(server.base, 'oswin')).workTo(first.id, 'nothing more');
    const done = await ilka.get<JobView>(`/jobs/${first.id}`);
    expect(done.closedAt).not.toBeNull();

    const { customer, machine, unit } = done;
    // By whoever may book in: it is the unit that has it.
    const perla = await Client.as(server.base, 'perla');
    const again = await perla.bookedOn('tindlebrook-bm7-brake-cylinder', { customer, machine, unit });
    const { entries } = await ilka.get<JobView>(`/jobs/${again.id}`);
    expect(entries).toMatchObject([{ kind: 'way', step: step.ref, payload: { way, agreed, left: done.number } }]);

    const other = await ilka.bookedOn('tindlebrook-bm7-brake-cylinder');
    expect((await ilka.get<JobView>(`/jobs/${other.id}`)).entries).toEqual([]);
  });
});

describe('a meter', () => {
  test('is switched over: ohms and volts are its own, OL is a line without a figure, torque is not', async () => {
    const instruments = await ilka.get<InstrumentView[]>('/instruments');
    const { id } = instruments.find(({ tool }) => tool.tag === 'E1')!;
    const send = (line: object): Promise<Answer<LinesView>> =>
      ilka.call('POST', `/instruments/${id}/lines`, JSON.stringify(line), { 'content-type': 'application/x-ndjson' });
    expect((await send({ n: 1, value: 2.6, unit: 'Ω', taken: true })).body).toMatchObject({ kept: 1, refused: [] });
    expect((await send({ n: 2, unit: 'MΩ', taken: true })).body.kept).toBe(1);
    expect((await send({ n: 3, value: 5, unit: 'N·m' })).body.refused[0]?.allowed).toContain(
      'is no unit of voltage or resistance or current',
    );
    const job = await jobOn('quennet-ga-alternator');
    const meter = await toolTagged('E1');
    const [kept] = (
      await ilka.post<JobView['entries']>(
        job.id,
        entry('reading', { limit: 'rotor-earth', readings: [1e9], unit: 'MΩ' }, { toolId: meter.id }),
      )
    ).body;
    expect(kept!.working?.output['verdict']).toBe('in');
  });
});

describe('crib', () => {
  const check = (more: object): object => ({ id: uuid(), points: [], against: 'block set 2', ...more });

  test('a tool found out is not offered, lists what it touched since it was good, and comes back by a good check', async () => {
    const tool = await toolTagged('D2');
    const due = daysOn('UTC', Date.now(), 200);
    const before = await ilka.get<ToolView>(`/tools/${tool.id}`);
    expect(before.touched).toEqual([]);
    const out = await ilka.made<ToolView>(`/tools/${tool.id}/checks`, check({ verdict: 'out', points: [{ shown: 1.02, true: 1 }] }));
    expect(new Set(out.touched.map(({ jobNumber }) => jobNumber))).toEqual(
      new Set([401, 402, ...out.touched.map(({ jobNumber }) => jobNumber)]),
    );
    expect(out.touched.every(({ kind }) => ['reading', 'end-play', 'seal-fitted'].includes(kind))).toBe(true);
    // Due the day before, by the shop's own day: near midnight that is another than the one in UTC.
    const { shop } = await ilka.get<SessionView>('/session');
    expect(out.calibrationDue! < dayIn(shop.zone, Date.now())).toBe(true);
    const good = await ilka.made<ToolView>(`/tools/${tool.id}/checks`, check({ verdict: 'good', due }));
    expect(good).toMatchObject({ calibrationDue: due, touched: [] });
    // Found out once more, only what came after the good check is in doubt.
    expect((await ilka.made<ToolView>(`/tools/${tool.id}/checks`, check({ verdict: 'out' }))).touched).toEqual([]);
    await ilka.made(`/tools/${tool.id}/checks`, check({ verdict: 'good', due }));
  });

  test('a next check that is over already is refused; an apprentice checks nothing', async () => {
    const { id } = await toolTagged('K1');
    expect(told(await ilka.call('POST', `/tools/${id}/checks`, check({ verdict: 'good', due: '2020-01-01' })))).toContain(
      'due must lie ahead',
    );
    const joss = await Client.as(server.base, 'joss');
    expect((await joss.call('POST', `/tools/${id}/checks`, check({ verdict: 'out' }))).status).toBe(403);
  });

  test('who has it, and a gauge study that becomes its spread', async () => {
    const { id } = await toolTagged('K2');
    const me = (await ilka.get<{ person: { id: string } }>('/session')).person.id;
    const { version } = await ilka.get<ToolView>(`/tools/${id}`);
    const hold = (personId: string | null, at: number): Promise<Answer<ToolView & Problem>> =>
      ilka.call('PUT', `/tools/${id}/holder`, { personId, version: at });
    expect((await hold(me, version)).body.holder).toMatchObject({ id: me });
    // Who saw it in the crib, and takes it a moment later, is told who has it.
    const late = await hold(null, version);
    expect([late.status, late.body.current]).toEqual([409, expect.objectContaining({ holder: expect.objectContaining({ id: me }) })]);
    expect((await hold(null, version + 1)).body.holder).toBeNull();
    const readings = ['Ilka', 'Bram'].flatMap((person, who) =>
      [1, 2, 3, 4, 5].flatMap((part) =>
        [0, 1].map((trial) => ({ person, part: String(part), reading: 20 + part + who * 0.01 + trial * 0.02 })),
      ),
    );
    const studied = await ilka.made<ToolView>(`/tools/${id}/studies`, { id: uuid(), readings });
    expect(studied.studies[0]!.sigma).toBeCloseTo(studied.s, 12);
    expect(studied.s).toBeGreaterThan(0.01);
    expect(told(await ilka.call('POST', `/tools/${id}/studies`, { id: uuid(), readings: readings.slice(1) }))).toContain('readings');
  });
});
