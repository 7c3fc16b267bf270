import type { JobHead, JobView, TodayView } from '@jubb/book';
import { daysOn, type Tool } from '@jubb/sheet';
import type {
  BeginView,
  ChangeLine,
  ExampleLine,
  LackingLine,
  PersonLine,
  Problem,
  SecondView,
  SessionView,
  SheetLine,
  SheetView,
  ShopView,
  TabletLine,
  TabletPeople,
  ToolView,
} from '@jubb/wire';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { v7 as uuid } from 'uuid';
import { Client, entry, type Answer } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { codeOf } from '../kit/telephone.ts';

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

const IN_A_YEAR = daysOn('UTC', Date.now(), 365);

const told = ({ status, body }: Answer<unknown>): string =>
  `${status} ${((body as Problem).errors ?? []).map(({ field, allowed }) => `${field} ${allowed}`).join('; ')}`;
const lastChange = async (): Promise<ChangeLine> => (await oswin.get<ChangeLine[]>('/changes'))[0]!;

describe('tablets and log-ins', () => {
  const tablets = (): Promise<TabletLine[]> => oswin.get<TabletLine[]>('/tablets');
  const tabletOf = async (client: Client): Promise<TabletLine> => {
    const { tablet } = await client.get<SessionView>('/session');
    return (await tablets()).find(({ id }) => id === tablet!.id)!;
  };

  test('the foreman sees who is in where, and logs them out from afar: at once, on every process', async () => {
    const other = await startServer(database.url);
    try {
      const ilka = await Client.as(server.base, 'ilka');
      const at = await tabletOf(ilka);
      expect(at).toMatchObject({ addedBy: expect.stringContaining('Ilka'), people: [expect.stringContaining('Ilka')], instruments: [] });
      expect(at.logIns).toEqual([expect.objectContaining({ person: expect.stringContaining('Ilka'), beside: [], isThis: false })]);
      const [{ mark, since, until }] = at.logIns as [TabletLine['logIns'][number]];
      expect(Date.parse(until) - Date.parse(since)).toBe(12 * 3600 * 1000);
      expect(Math.abs(Date.parse(since) - Date.now())).toBeLessThan(60_000);
      expect((await tabletOf(oswin)).logIns.filter(({ isThis }) => isThis)).toHaveLength(1);
      const elsewhere = async (): Promise<number> => {
        const answer = await fetch(`${other.base}/api/v1/session`, { headers: { cookie: ilka.cookie } });
        return answer.status;
      };
      expect(await elsewhere()).toBe(200);
      const after = await oswin.call<TabletLine[]>('DELETE', `/log-ins/${mark}`);
      expect(after.status).toBe(200);
      expect(after.body.find(({ id }) => id === at.id)!.logIns).toEqual([]);
      expect((await ilka.call('GET', '/session')).status).toBe(401);
      expect(await elsewhere()).toBe(401);
      expect(await lastChange()).toMatchObject({ what: 'tablet', subject: at.name, act: 'logged out' });
      // Her PIN does there still: it is her tablet.
      expect((await tablets()).find(({ id }) => id === at.id)!.people).toHaveLength(1);
      expect((await oswin.call('DELETE', `/log-ins/${mark}`)).status).toBe(404);
    } finally {
      await other.stop();
    }
  });

  test('on a tablet that is lost nobody is in any more, and no PIN will do', async () => {
    const joss = await Client.as(server.base, 'joss');
    const at = await tabletOf(joss);
    expect((await joss.call('PUT', '/session/pin', { pin: '4711', password: 'bench-417' })).status).toBe(204);
    const [{ id: jossId }] = (await joss.get<TabletPeople>('/tablet')).people as [TabletPeople['people'][number]];
    expect((await joss.call('POST', '/session/swap', { personId: jossId, pin: '4711' })).status).toBe(200);
    const [instrument] = await oswin.get<{ id: string }[]>('/instruments');
    expect((await joss.call('PUT', `/instruments/${instrument!.id}/tablet`, { tabletId: at.id })).status).toBe(204);
    expect((await tabletOf(joss)).instruments).toHaveLength(1);

    expect((await oswin.call<TabletLine[]>('DELETE', `/tablets/${at.id}`)).body.some(({ id }) => id === at.id)).toBe(false);
    expect((await joss.call('GET', '/session')).status).toBe(401);
    expect((await joss.call('POST', '/session/swap', { personId: jossId, pin: '4711' })).status).toBe(403);
    expect(await joss.get<TabletPeople>('/tablet')).toMatchObject({ tablet: null, people: [] });
    expect(await lastChange()).toMatchObject({ what: 'tablet', subject: at.name, act: 'forgotten' });
    // With a password it is a tablet of the shop again, a new one.
    expect((await joss.call('POST', '/session', { login: 'joss', password: 'bench-417' })).status).toBe(200);
    expect((await tabletOf(joss)).id).not.toBe(at.id);
  });

  test('only the foreman may, and what is no log-in ends none', async () => {
    const perla = await Client.as(server.base, 'perla');
    expect((await perla.call('GET', '/tablets')).status).toBe(403);
    expect((await oswin.call('DELETE', '/log-ins/not-a-mark')).status).toBe(404);
    expect((await oswin.call('DELETE', `/tablets/${uuid()}`)).status).toBe(404);
  });
});

describe('a tool out of use', () => {
  const tools = (): Promise<Tool[]> => oswin.get<Tool[]>('/tools');
  const retire = (tool: ToolView, why: string | null): Promise<Answer<ToolView>> =>
    oswin.call<ToolView>('PUT', `/tools/${tool.id}/retired`, { version: tool.version, why });
  const view = (id: string): Promise<ToolView> => oswin.get<ToolView>(`/tools/${id}`);

  test('is offered nowhere and takes no reading, keeps what it read, and can come back', async () => {
    const ilka = await Client.as(server.base, 'ilka');
    const { id: jobId }: JobHead = await ilka.bookedOn('tindlebrook-cc1-loose-ball-hub');
    const made = await oswin.made<ToolView>('/tools', {
      ...{ tag: 'D99', name: 'Dial indicator', kind: 'dial-indicator', quantity: 'length', unit: 'mm' },
      ...{ low: 0, high: 10, resolution: 0.01, within: 0.02, due: IN_A_YEAR },
    });
    const lent = await ilka.call<ToolView>('PUT', `/tools/${made.id}/holder`, { version: made.version, personId: null });
    expect((await retire(lent.body, ' ')).status).toBe(400);
    const gone = await retire(lent.body, 'Dropped, head cracked');
    expect(gone.body).toMatchObject({
      retired: expect.stringMatching(/^\d{4}-\d\d-\d\d$/u),
      retiredWhy: 'Dropped, head cracked',
      holder: null,
    });
    expect((await tools()).find(({ id }) => id === made.id)).toMatchObject({ retired: gone.body.retired });
    expect(await lastChange()).toMatchObject({ what: 'tool', subject: 'D99', act: 'out of use' });
    expect((await retire(lent.body, 'again')).status).toBe(409);
    const { people } = await oswin.get<JobView>(`/jobs/${jobId}`);
    const give = { version: gone.body.version, personId: people[0]!.id };
    expect(told(await oswin.call('PUT', `/tools/${made.id}/holder`, give))).toMatch(/^400 personId cannot have it: it is out of use/u);
    expect((await oswin.get<TodayView>('/today')).crib.map(({ tag }) => tag)).not.toContain('D99');

    // What was read before that day is taken, however late it comes; what was read after it is not.
    await database.query("UPDATE tool SET retired = current_date - 10 WHERE tag = 'D99'");
    const read = (daysAgo: number): object => {
      const takenAt = new Date(Date.now() - daysAgo * 86_400_000).toISOString();
      return entry('reading', { limit: 'rim-play', readings: [0.05, 0.05, 0.05], unit: 'mm' }, { toolId: made.id, takenAt });
    };
    expect(told(await ilka.post(jobId, read(0)))).toMatch(/^400 entries\[0\]\.toolId was put out of use \d{4}-/u);
    expect(told(await ilka.post(jobId, read(20)))).toMatch(/^20/u);
    const back = await retire(gone.body, null);
    expect(back.body).toMatchObject({ retired: null, retiredWhy: null });
    expect(await lastChange()).toMatchObject({ subject: 'D99', act: 'in use again' });
  });

  test('has a picture, and the paper of its check', async () => {
    const ilka = await Client.as(server.base, 'ilka');
    const tool = await view((await tools()).find(({ kind }) => kind === 'micrometer')!.id);
    const file = createHash('sha256').update('a photo').digest('hex');
    expect(told(await ilka.call('PUT', `/tools/${tool.id}/picture`, { version: tool.version, file: 'abc' }))).toMatch(/^400 file must be/u);
    const shown = await ilka.call<ToolView>('PUT', `/tools/${tool.id}/picture`, { version: tool.version, file });
    expect(shown.body).toMatchObject({ picture: file, version: tool.version + 1 });
    expect((await ilka.call('PUT', `/tools/${tool.id}/picture`, { version: tool.version, file: null })).status).toBe(409);

    const check = { verdict: 'good', points: [], against: 'gauge blocks, grade 1', certificate: 'C 418', due: IN_A_YEAR };
    const keep = (paperId: string): Promise<Answer<ToolView>> =>
      ilka.call<ToolView>('POST', `/tools/${tool.id}/checks`, { id: uuid(), ...check, paperId });
    expect(told(await keep(uuid()))).toMatch(/^400 paperId is not a paper of this shop/u);
    const pdf = Buffer.from('%PDF-1.7\n1 0 obj\n<<>>\nendobj\n%%EOF\n');
    const paper = await ilka.call<{ id: string }>('POST', '/papers?name=C%20418.pdf', pdf, { 'content-type': 'application/pdf' });
    expect((await keep(paper.body.id)).body.checks[0]).toMatchObject({ certificate: 'C 418', paperId: paper.body.id });
    expect((await ilka.call('GET', `/papers/${paper.body.id}`)).headers.get('content-type')).toContain('application/pdf');
  });
});

describe('certificates of licensed practice', () => {
  const people = (): Promise<PersonLine[]> => oswin.get<PersonLine[]>('/people');
  const named = async (login: string): Promise<PersonLine> => (await people()).find((one) => one.login === login)!;
  const keep = async (login: string, body: object): Promise<Answer<PersonLine>> =>
    oswin.call<PersonLine>('POST', `/people/${(await named(login)).id}/licences`, body);

  test('are kept with the person, seen at the job, and taken off again; each is among what was changed', async () => {
    const good = { covers: 'electric', number: ' HV 12 ', givenBy: 'guild of the valley', until: IN_A_YEAR };
    expect(told(await keep('ilka', { ...good, covers: 'magic' }))).toMatch(/^400 covers/u);
    expect(told(await keep('ilka', { ...good, until: '2020-01-01' }))).toMatch(/^400 until is over already/u);
    expect(told(await keep('ilka', { ...good, paperId: uuid() }))).toMatch(/^400 paperId is not a paper/u);
    const { licences } = (await keep('ilka', good)).body;
    expect(licences).toEqual([{ ...good, number: 'HV 12', id: expect.any(String), paperId: null }]);
    expect(await lastChange()).toMatchObject({
      what: 'person',
      act: 'certificate',
      fields: expect.arrayContaining([expect.objectContaining({ field: 'until' })]),
    });
    const { id } = await oswin.bookedOn('tindlebrook-cc1-loose-ball-hub');
    const { people: seen } = await oswin.get<JobView>(`/jobs/${id}`);
    expect(seen.find(({ login }) => login === 'ilka')!.licences).toEqual(licences);
    expect(seen.find(({ login }) => login === 'joss')!.licences).toBeNull();
    const off = await oswin.call<PersonLine>('DELETE', `/licences/${licences![0]!.id}`);
    expect(off.body.licences).toBeNull();
    expect((await oswin.call('DELETE', `/licences/${licences![0]!.id}`)).status).toBe(404);
    expect(await lastChange()).toMatchObject({ act: 'certificate taken off' });
  });

  test('whoever takes a hold of a certified person is one: not by a certificate that is over', async () => {
    const ilka = await Client.as(server.base, 'ilka');
    const bram = await Client.as(server.base, 'bram');
    const { id } = await oswin.bookedOn('askvale-rx10-refrigerant-compressor');
    await ilka.workTo(id, 'to-the-certified-person');
    await ilka.post(id, entry('tick', {}, { step: 'to-the-certified-person' }));
    const takes = (): Promise<Answer<Problem>> =>
      bram.post(id, entry('hold-met', { seen: 'takes it over', certificate: 'RC 0533' }, { step: 'to-the-certified-person' }));
    // By the day of the shop, which begins before that of the machine.
    const lastsUntil = (days: number): Promise<unknown> =>
      database.query(`UPDATE licence SET until = (now() AT TIME ZONE (SELECT zone FROM shop))::date + ${days} WHERE number = 'RC 0533'`);
    await lastsUntil(-1);
    expect(told(await takes())).toMatch(/^400 entries\[0\]\.payload\.certificate is over: RC 0533, guild of the valley was good until/u);
    await lastsUntil(0);
    expect(told(await takes())).toMatch(/^200/u);
  });
});

describe('a shop that begins', () => {
  test('the demo has all of it; only the foreman is told how far the shop is', async () => {
    const view = await oswin.get<BeginView>('/begin');
    expect(view).toMatchObject({ people: 5, pins: 5, isBackedUp: false, isRehearsed: false });
    expect(Math.min(view.tools, view.stock, view.suppliers, view.sheets, view.jobs, view.handedOver, view.tablets)).toBeGreaterThan(0);
    expect((await (await Client.as(server.base, 'ilka')).call('GET', '/begin')).status).toBe(403);
  });

  test('what the crib lacks for the sheets is named with the sheets, and goes when it comes', async () => {
    const lacking = (): Promise<LackingLine[]> => oswin.get<LackingLine[]>('/tools/lacking');
    // Every depth gauge goes, and with it what only it reads.
    const gauges = (await oswin.get<Tool[]>('/tools')).filter(({ kind }) => kind === 'depth-gauge');
    expect((await lacking()).map(({ words }) => words)).not.toContain('no depth gauge in the crib');
    for (const { id } of gauges) {
      const { version } = await oswin.get<ToolView>(`/tools/${id}`);
      expect((await oswin.call('PUT', `/tools/${id}/retired`, { version, why: 'sold' })).status).toBe(200);
    }
    const line = (await lacking()).find(({ words }) => words === 'no depth gauge in the crib');
    expect(line!.sheets.length).toBeGreaterThan(0);
    const { version } = await oswin.get<ToolView>(`/tools/${gauges[0]!.id}`);
    await oswin.call('PUT', `/tools/${gauges[0]!.id}/retired`, { version, why: null });
    expect((await lacking()).map(({ words }) => words)).not.toContain('no depth gauge in the crib');
  });

  test('a sheet of a family that the shop has none of begins from the example, with no figure that counts', async () => {
    const examples = await oswin.get<ExampleLine[]>('/examples');
    expect(examples.length).toBeGreaterThanOrEqual(24);
    const [own] = examples.filter(({ family }) => family.includes('turbocharger'));
    await database.query(
      'DELETE FROM sheet_revision s WHERE family = $1 AND NOT EXISTS (SELECT 1 FROM job j WHERE j.sheet_revision_id = s.id)',
      [own!.family],
    );
    expect((await oswin.get<SheetLine[]>('/sheets')).some(({ family }) => family === own!.family)).toBe(false);
    const begun = await oswin.made<{ revisionId: string }>('/sheets', {
      family: own!.family,
      make: 'Ours',
      model: 'T 1',
      machine: 'loader',
    });
    const { file, status } = await oswin.get<SheetView>(`/sheets/${begun.revisionId}`);
    expect([status, file.title, file.steps.length]).toEqual(['draft', 'Ours T 1', own!.steps]);
    const text = JSON.stringify(file);
    expect(text).toContain('"trust":"unverified"');
    expect(text).not.toMatch(/"trust":"(?:published|calculated|shop)"/u);
    expect(file.documents).toEqual([]);
  });
});

describe('when the shop is open', () => {
  const OPEN = { from: '07:00', to: '16:30' };
  const CLOSED = { from: '', to: '' };
  const week = [OPEN, OPEN, OPEN, OPEN, { from: '07:00', to: '12:00' }, CLOSED, CLOSED];
  const versionNow = async (): Promise<number> => (await oswin.get<SessionView>('/session')).shop.version;
  const put = async (body: object): Promise<Answer<ShopView>> =>
    oswin.call<ShopView>('PUT', '/shop/hours', { version: await versionNow(), week, closed: [], ...body });

  test('is said by the foreman, kept with what it was before, and held by version', async () => {
    const version = await versionNow();
    const kept = await put({
      closed: [
        { day: '2027-12-27', why: ' stocktaking ' },
        { day: '2027-12-24', why: 'holiday' },
      ],
    });
    expect(kept.body).toMatchObject({
      version: version + 1,
      hours: {
        week: [OPEN, OPEN, OPEN, OPEN, { from: '07:00', to: '12:00' }, null, null],
        closed: [
          { day: '2027-12-24', why: 'holiday' },
          { day: '2027-12-27', why: 'stocktaking' },
        ],
      },
    });
    const change = await lastChange();
    expect(change.fields).toContainEqual({ field: 'Friday', before: '07:00 to 16:30', after: '07:00 to 12:00' });
    expect((await put({ version })).status).toBe(409);
    const perla = await Client.as(server.base, 'perla');
    expect((await perla.call('PUT', '/shop/hours', { version: version + 1, week, closed: [] })).status).toBe(403);
  });

  test.each<[string, object, RegExp]>([
    ['a week of six days', { week: week.slice(1) }, /^400 week must be the seven days/u],
    ['closing before it opens', { week: [{ from: '16:00', to: '07:00' }, ...week.slice(1)] }, /^400 week\[0\]\.to must be after 16:00/u],
    ['only an end', { week: [{ from: '', to: '07:00' }, ...week.slice(1)] }, /^400 week\[0\]\.to must be after/u],
    ['25 o’clock', { week: [{ from: '25:00', to: '26:00' }, ...week.slice(1)] }, /^400 week\[0\]\.from must be a time of day/u],
    ['a day that is none', { closed: [{ day: '2027-02-30', why: 'x' }] }, /^400 closed\[0\]\.day/u],
    [
      'a day twice',
      {
        closed: [
          { day: '2027-12-24', why: 'x' },
          { day: '2027-12-24', why: 'y' },
        ],
      },
      /^400 closed\[1\]\.day is in the list already/u,
    ],
  ])('is refused: %s', async (_, body, refusal) => {
    expect(told(await put(body))).toMatch(refusal);
  });
});

describe('a second factor', () => {
  const LOGIN = { login: 'perla', password: 'bench-417' };
  const begun = (): Promise<Answer<Problem>> => new Client(server.base).call('POST', '/session', LOGIN);
  const withCode = (code: string): Promise<Answer<Problem>> => new Client(server.base).call('POST', '/session', { ...LOGIN, code });

  test('the telephone of the tests shows what RFC 6238 prints', () => {
    // Appendix B, SHA-1, the last six of its eight digits; the secret is "12345678901234567890".
    const secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
    for (const [seconds, code] of [
      [59, '287082'],
      [1_111_111_109, '081804'],
      [1_234_567_890, '005924'],
      [2_000_000_000, '279037'],
    ] as const)
      expect(codeOf(secret, 0, seconds * 1000)).toBe(code);
  });

  test('is begun by a code of the telephone, asked for beside the password, good once, and let go by the foreman', async () => {
    const perla = await Client.as(server.base, 'perla');
    const view = await perla.get<SecondView>('/session/second');
    if (view.isSet) throw new Error('there is one already');
    const { secret, uri } = view;
    expect(uri).toContain(`secret=${secret}`);
    expect(decodeURIComponent(uri)).toMatch(/^otpauth:\/\/totp\/.*perla/u);
    const { password } = LOGIN;
    // No code of another secret, and not without the password.
    const other = codeOf('GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ');
    expect((await perla.call('PUT', '/session/second', { secret, code: other, password })).body.errors![0]!.field).toBe('code');
    expect((await perla.call('PUT', '/session/second', { secret, code: codeOf(secret), password: 'guessed' })).status).toBe(401);
    expect((await begun()).status).toBe(200);
    expect((await perla.call('PUT', '/session/second', { secret, code: codeOf(secret), password })).status).toBe(204);
    expect(await perla.get<SecondView>('/session/second')).toEqual({ isSet: true });

    expect(await begun()).toMatchObject({ status: 401, body: { code: 'second-factor' } });
    expect(await withCode(other)).toMatchObject({ status: 401, body: { code: 'second-factor', errors: [{ field: 'code' }] } });
    // A wrong password says nothing of a code.
    const wrong = await new Client(server.base).call('POST', '/session', { login: 'perla', password: 'guessed' });
    expect(wrong).toMatchObject({ status: 401, body: { code: 'log-in-wrong' } });
    // Two at once with the same code: one is in.
    const code = codeOf(secret, 1);
    expect((await Promise.all([withCode(code), withCode(code)])).map(({ status }) => status).toSorted()).toEqual([200, 401]);
    expect((await withCode(code)).body.errors![0]!.allowed).toContain('used already');

    const line = (await oswin.get<readonly PersonLine[]>('/people')).find(({ login }) => login === 'perla')!;
    expect(line.hasSecond).toBe(true);
    expect((await perla.call('DELETE', `/people/${line.id}/second`)).status).toBe(403);
    expect((await oswin.call<PersonLine>('DELETE', `/people/${line.id}/second`)).body.hasSecond).toBe(false);
    expect((await begun()).status).toBe(200);
    const changes = await oswin.get<readonly ChangeLine[]>('/changes?find=second');
    expect(changes.map(({ act, person }) => [act, person])).toEqual([
      ['second factor taken off', 'Oswin Tarrell'],
      ['second factor', 'Perla Dunmoor'],
    ]);
    expect(JSON.stringify(changes)).not.toContain(secret);
  });
});
