import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { jobState, type EarlierReading, type JobView, type Problem, type Tool, type ToolView } from '@jubb/contract';
import { v7 as uuid } from 'uuid';
import { Client, entry, type Answer } from '../kit/client.ts';
import { freshDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: Awaited<ReturnType<typeof freshDatabase>>;
let server: RunningServer;
let ilka: Client;

beforeAll(async () => {
  database = await freshDatabase();
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
  const { revisionId } = await ilka.sheetKeyed(key);
  const { id } = await ilka.booked(revisionId);
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
    expect(earlier.find(({ limit }) => limit === 'inner-journal')).toMatchObject({ jobNumber: 401, figure: expect.closeTo(34.982, 2) });
  });
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

describe('crib', () => {
  const check = (more: object): object => ({ id: uuid(), points: [], against: 'block set 2', ...more });

  test('a tool found out is not offered, lists what it touched since it was good, and comes back by a good check', async () => {
    const tool = await toolTagged('D2');
    const due = new Date(Date.now() + 200 * 86_400_000).toISOString().slice(0, 10);
    const before = await ilka.get<ToolView>(`/tools/${tool.id}`);
    expect(before.touched).toEqual([]);
    const out = await ilka.made<ToolView>(`/tools/${tool.id}/checks`, check({ verdict: 'out', points: [{ shown: 1.02, true: 1 }] }));
    expect(new Set(out.touched.map(({ jobNumber }) => jobNumber))).toEqual(
      new Set([401, 402, ...out.touched.map(({ jobNumber }) => jobNumber)]),
    );
    expect(out.touched.every(({ kind }) => ['reading', 'end-play', 'seal-fitted'].includes(kind))).toBe(true);
    expect(out.calibrationDue! < new Date().toISOString().slice(0, 10)).toBe(true);
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
    expect((await ilka.call<ToolView>('PUT', `/tools/${id}/holder`, { personId: me })).body.holder).toMatchObject({ id: me });
    expect((await ilka.call<ToolView>('PUT', `/tools/${id}/holder`, { personId: null })).body.holder).toBeNull();
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
