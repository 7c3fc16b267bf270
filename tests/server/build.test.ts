import { jobReport, type EarlierView, type JobView, type NewEntry } from '@jubb/book';
import type { KnowHow, MadeTool, Problem, StockView, WayInView } from '@jubb/wire';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 as uuid } from 'uuid';
import { Client, entry } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { move, shelf } from '../kit/stock.ts';

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

const jobOn = async (key: string): Promise<string> => (await ilka.bookedOn(key)).id;
/** What is said against entries, by field; nothing when they were kept. */
const against = async (id: string, ...entries: NewEntry[]): Promise<string> => {
  const { body } = await ilka.post<Problem>(id, ...entries);
  return (body.errors ?? []).map(({ field, allowed }) => `${field} ${allowed}`).join('; ');
};

describe('fasteners that are new each time', () => {
  const pull = (rest: object = {}): NewEntry =>
    entry(
      'pull',
      {
        ...{ joint: 'flange-front', pass: 1, place: 0, torque: 26, result: 'clicked' },
        ...{ wrenchLength: 450, adapterLength: 0, adapterAngle: 0, ...rest },
      },
      { step: 'on-the-machine' },
    );

  test('are not pulled before the new ones were seen, also in one batch in the wrong order', async () => {
    const id = await jobOn('ostrel-ps2-propeller-shaft');
    const seen = entry('replacement-here', { seen: '4 new, out of the kit' }, { step: 'on-the-machine' });
    expect(await against(id, pull())).toContain('new each time: say first that the new ones are here');
    expect(await against(id, pull(), seen)).toContain('new each time');
    expect((await ilka.get<JobView>(`/jobs/${id}`)).entries).toEqual([]);
    expect(await against(id, seen, pull())).toBe('');
  });

  test('a process that remembers them here is told by the database that another struck that meanwhile', async () => {
    const id = await jobOn('ostrel-ps2-propeller-shaft');
    const seen = entry('replacement-here', { seen: '4 new' }, { step: 'on-the-machine' });
    // Kept by the first process, with what it now remembers of the job.
    expect(await against(id, seen)).toBe('');
    expect(await against(id, pull({ place: 0 }))).toBe('');
    const second = await startServer(database.url);
    try {
      const other = await Client.as(second.base, 'ilka');
      expect((await other.post(id, { ...entry('strike', { reason: 'the old ones' }), strikes: seen.id })).status).toBe(200);
      expect(await against(id, pull({ place: 1 }))).toContain('new each time: say first that the new ones are here');
      // And the other way round: what was refused by something old is looked at anew.
      expect((await other.post(id, entry('replacement-here', { seen: '4 new' }, { step: 'on-the-machine' }))).status).toBe(200);
      expect(await against(id, pull({ place: 1 }))).toBe('');
      expect(await against(id, pull({ place: 2 }), pull({ place: 3 }))).toBe('');
      expect((await ilka.get<{ whole: boolean }>(`/jobs/${id}/chain`)).whole).toBe(true);
    } finally {
      await second.stop();
    }
  });

  test('one that no wrench reaches is printed as such, with the reason', async () => {
    const id = await jobOn('ostrel-ps2-propeller-shaft');
    const seen = entry('replacement-here', { seen: '4 new' }, { step: 'on-the-machine' });
    expect(await against(id, seen, pull({ torque: 0, note: 'the tube is in the way' }))).toBe('');
    const report = JSON.stringify(jobReport(await ilka.get<JobView>(`/jobs/${id}`), { at: String, day: String }));
    expect(report).toContain('by hand, unmeasured');
    expect(report).toContain('the tube is in the way');
  });
});

describe('what goes in new', () => {
  const sealIn = (): NewEntry =>
    entry(
      'seal-fitted',
      { seal: 'hub-seal', directionSeen: true, lubricated: true, depths: [0.2, 0.2, 0.2], unit: 'mm' },
      { step: 'seal-in' },
    );
  const seen = (what: string): NewEntry => entry('seal-seen', { seal: 'hub-seal', what, fine: true }, { step: 'seal-in' });
  const oldOut = (): readonly NewEntry[] => [
    entry('old-seal-out', { seal: 'hub-seal', whole: true }, { step: 'seal-in' }),
    seen('place'),
    seen('new'),
  ];
  const here = (rest: object = {}): NewEntry =>
    entry('replacement-here', { part: 'hub-seal', count: 1, seen: 'shelf A1', ...rest }, { step: 'seal-in' });
  const line = (id: string): Promise<StockView> => ilka.get<StockView>(`/stock/${id}`);
  const hub = (): Promise<string> => jobOn('harrowmere-th6-front-hub');

  test('does not go in before somebody said that it has come, at its step or by the build list', async () => {
    const id = await hub();
    const off = entry('came-off', { part: 'hub-seal', name: 'Hub seal', count: 1 });
    const wentIn = (): NewEntry => entry('went-in', { line: off.id, name: 'Hub seal', count: 1 });
    expect(await against(id, ...oldOut(), sealIn())).toBe(
      'step puts in what is new, and was not said to be here: 1 × Hub seal 52 × 72 × 10',
    );
    expect(await against(id, off, wentIn())).toContain('the new one was not said to be here: 1 × Hub seal');
    expect(await against(id, off, ...oldOut(), here(), sealIn(), wentIn())).toBe('');
  });

  test('goes back without a word where it was decided that the old one does', async () => {
    const id = await hub();
    const kept = entry('decision', { part: 'hub-seal', fate: 'reuse', quantity: 1, reason: 'was in for an hour' });
    // What is renewed each time goes back on the foreman's word alone.
    expect((await ilka.post<Problem>(id, kept)).status).toBe(403);
    expect((await (await Client.as(server.base, 'oswin')).post(id, kept)).status).toBe(200);
    expect(await against(id, ...oldOut(), sealIn())).toBe('');
  });

  test('comes off the shelf by the entry that says so, once, the reserved ones first, and goes back when that is struck', async () => {
    const id = await hub();
    const item = await shelf(ilka, 2);
    await ilka.made(`/stock/${item}/moves`, move('reserve', 1, { jobId: id }));
    const taken = here({ item });
    expect([await against(id, taken), await against(id, taken)]).toEqual(['', '']);
    expect(await line(item)).toMatchObject({ onHand: 1, reserved: 0, movements: [{ kind: 'issue', quantity: 1 }, {}, {}] });
    const { number } = await ilka.get<JobView>(`/jobs/${id}`);
    expect((await line(item)).movements[0]!.jobNumber).toBe(number);
    expect(await against(id, entry('strike', { reason: 'the wrong one' }, { strikes: taken.id }))).toBe('');
    expect(await line(item)).toMatchObject({ onHand: 2, movements: [{ kind: 'return', quantity: 1 }, {}, {}, {}] });
    expect(await against(id, ...oldOut(), sealIn())).toContain('was not said to be here');
  });

  test('is in hand also where the shelf says that there is none: the movement asks for a count', async () => {
    const id = await hub();
    const item = await shelf(ilka, 0);
    expect(await against(id, here({ item }), ...oldOut(), sealIn())).toBe('');
    const { onHand, movements } = await line(item);
    expect([onHand, movements[0]?.words]).toEqual([0, '1 went in, and the shelf had 0 free: count it']);
    // What never left the shelf does not come back to it.
    const said = (await ilka.get<JobView>(`/jobs/${id}`)).entries.find(({ kind }) => kind === 'replacement-here')!;
    await against(id, entry('strike', { reason: 'a slip' }, { strikes: said.id }));
    expect((await line(item)).onHand).toBe(0);
  });

  test.each<readonly [string, object, string]>([
    ['a line that is not in the stores', { item: uuid() }, 'payload.item is no line of the stores'],
    ['a part that the sheet does not have', { part: 'no-such' }, 'payload.part is not among the parts of the sheet'],
    ['no pieces', { count: 0 }, 'payload.count must be at least 1'],
  ])('%s is refused, and nothing is kept', async (_, rest, words) => {
    const id = await hub();
    expect(await against(id, here(rest))).toContain(words);
    expect((await ilka.get<JobView>(`/jobs/${id}`)).entries).toEqual([]);
  });

  test('shims come off the shelf when they are put in; another pack brings the first one back', async () => {
    const id = await jobOn('askvale-rx10-refrigerant-compressor');
    const [half, tenth] = [
      await shelf(ilka, 3, { kind: 'shim', size: '0.5 mm', name: 'Shim' }),
      await shelf(ilka, 3, { kind: 'shim', size: '0.1 mm', name: 'Shim' }),
    ];
    const pack = (setting: string, ...taken: readonly (readonly [item: string, count: number])[]): NewEntry =>
      entry('worked', {
        working: 'compressor.air-gap',
        input: { gaps: [0.2, 0.2, 0.2], shims: 0.5, from: 0.4, to: 0.7, shelf: [0.3, 0.5].map((thickness) => ({ thickness, count: 2 })) },
        setting,
        taken: taken.map(([item, count]) => ({ item, count })),
      });
    const onHand = async (): Promise<number[]> => Promise.all([half, tenth].map(async (one) => (await line(one)).onHand));
    expect(await against(id, pack('air-gap', [half, 1], [tenth, 1]))).toBe('');
    expect(await onHand()).toEqual([2, 2]);
    const second = pack('air-gap', [half, 1], [tenth, 2]);
    expect(await against(id, second)).toBe('');
    expect(await onHand()).toEqual([2, 1]);
    // Struck, the first pack is the one that lies in again.
    expect(await against(id, entry('strike', { reason: 'not that one' }, { strikes: second.id }))).toBe('');
    expect(await onHand()).toEqual([2, 2]);
    expect(await against(id, pack('air-gap'))).toBe('');
    expect(await onHand()).toEqual([3, 3]);
  });

  test('many who take and keep for one job at once neither wait for each other for good nor take one twice', async () => {
    const id = await hub();
    const items = [await shelf(ilka, 40), await shelf(ilka, 40)];
    const all = Array.from({ length: 24 }, (_, index) => {
      const item = items[index % 2]!;
      return index % 3 === 0
        ? ilka.call('POST', `/stock/${item}/moves`, move('reserve', 1, { jobId: id }))
        : ilka.post(id, here({ item }), here({ item: items[(index + 1) % 2]! }));
    });
    expect(new Set((await Promise.all(all)).map(({ status }) => status))).toEqual(new Set([200]));
    const [one, other] = await Promise.all(items.map(line));
    expect(one!.onHand + other!.onHand).toBe(80 - 32);
  });
});

describe('an unsure setting', () => {
  const read = (...readings: number[]): NewEntry => entry('end-play', { setting: 'air-gap', moment: 'locked', readings, unit: 'mm' });
  const accepted = (): NewEntry => entry('accepted', { setting: 'air-gap', why: 'the feelers go by hundredths' });

  test('is accepted by the foreman alone, once, with the reason in the report', async () => {
    const id = await jobOn('askvale-rx10-refrigerant-compressor');
    const oswin = await Client.as(server.base, 'oswin');
    const said = async (who: Client, ...entries: NewEntry[]): Promise<string> =>
      ((await who.post<Problem>(id, ...entries)).body.errors ?? []).map(({ allowed }) => allowed).join();
    expect(await said(oswin, accepted())).toContain('it was not read yet');
    // About the end of the window, which is 0.4 to 0.7 mm.
    expect(await against(id, read(0.68, 0.72, 0.7))).toBe('');
    expect((await ilka.post(id, accepted())).status).toBe(403);
    expect(await said(oswin, accepted())).toBe('');
    expect(await said(oswin, accepted())).toContain('the last one is accepted already');
    const report = JSON.stringify(jobReport(await ilka.get<JobView>(`/jobs/${id}`), { at: String, day: String }));
    expect(report).toContain('unsure, and accepted so: the feelers go by hundredths');
  });

  test.each([
    ['out', 0.9],
    ['in', 0.55],
  ])('one that is %s is not', async (verdict, mm) => {
    const id = await jobOn('askvale-rx10-refrigerant-compressor');
    const oswin = await Client.as(server.base, 'oswin');
    await against(id, read(mm, mm, mm));
    const answer = await oswin.post<Problem>(id, accepted());
    expect(answer.body.errors?.[0]?.allowed).toContain(`the last one is ${verdict}`);
  });
});

describe('a contact pattern', () => {
  const spots = { setting: 'backlash', driveAlong: 'heel', driveUp: 'face', coastAlong: 'toe', coastUp: 'face' };
  const moved = (rest: object = {}): NewEntry =>
    entry('gear-moved', { setting: 'backlash', gear: 'pinion', by: 0.05, undone: [], ...rest });

  test('is judged by the server, with the step that the last move showed', async () => {
    const id = await jobOn('ostrel-d44-drive-axle');
    expect(await against(id, entry('pattern', { ...spots, pinionStep: 0.2 }), moved({ undone: ['cap-screws'] }))).toBe('');
    const job = await ilka.get<JobView>(`/jobs/${id}`);
    expect(job.entries[0]?.working).toMatchObject({ id: 'gear.contact', output: { verdict: 'out', pinion: expect.closeTo(0.2, 9) } });
    const report = JSON.stringify(jobReport(job, { at: String, day: String }));
    expect(report).toContain('drive at the heel, up at the face; coast at the toe, up at the face: out');
    expect(report).toContain('Pinion 0.05 mm deeper; undone for it: Bearing cap screws');
  });

  test.each<readonly [string, NewEntry, string]>([
    ['a place that no tooth has', entry('pattern', { ...spots, driveUp: 'root' }), 'payload.driveUp'],
    ['gears that the sheet does not have', entry('pattern', { ...spots, setting: 'crown' }), 'is not among the settings of the sheet'],
    ['a move of nothing', moved({ by: 0 }), 'nothing was moved'],
    ['a move of another unit', moved({ by: 5 }), 'payload.by'],
    ['a joint that the sheet does not have', moved({ undone: ['lid'] }), 'is not among the joints of the sheet: cover-screws'],
  ])('%s is refused', async (_, wrong, words) => {
    const id = await jobOn('ostrel-d44-drive-axle');
    expect(await against(id, wrong)).toContain(words);
    expect((await ilka.get<JobView>(`/jobs/${id}`)).entries).toEqual([]);
  });
});

describe('fits', () => {
  const measured = (shaft: string): NewEntry =>
    entry('worked', {
      working: 'fit.measured',
      input: { shaft, bore: '40 mm', wanted: 'figures', from: '0.004 mm', to: '0.03 mm', shaftU: '0.001 mm', boreU: '0.001 mm' },
      fit: 'head-bearing',
    });
  const home = (rest: object = {}): NewEntry =>
    entry('fitted', { fit: 'head-bearing', by: 'press', driver: 'tube 42', home: 'the note changed', ...rest });

  test('go home once they are measured; one that is not what is wanted only with the reason', async () => {
    const id = await jobOn('ostrel-d44-drive-axle');
    expect(await against(id, home())).toContain('payload.fit is not measured yet');
    expect(await against(id, measured('40.06 mm'), home())).toContain('payload.note is missing: the fit is out');
    expect(await against(id, measured('40.06 mm'), home({ note: 'the foreman looked at it' }))).toBe('');
    expect(await against(id, measured('40.015 mm'), home())).toBe('');
    expect(await against(id, home({ fit: 'no-such' }))).toContain('payload.fit is not among the fits of the sheet');
  });
});

describe('what is in the way of a machine’s units', () => {
  const coolant = { upsets: 'level', what: 'coolant, cold, over the mark', readAs: 'length', from: 0, to: 20 };
  const hose = { what: 'Coolant hose', how: 'off', screws: 2, size: 'hose clips', torque: 3, makes: coolant };
  const machineOf = async (id: string): Promise<string> => (await ilka.get<JobView>(`/jobs/${id}`)).machine.id;

  test('goes back whole, to its torque, and what it upset is read once it is back', async () => {
    const id = await jobOn('quennet-ga-alternator');
    const out = entry('moved', hose);
    const guard = entry('moved', { what: 'Guard', how: 'off' });
    expect(await against(id, out, guard)).toBe('');
    const back = (more: object = {}): NewEntry => entry('put-back', { moved: out.id, screws: 2, torque: 3.1, ...more });
    const read = (more: object = {}): NewEntry =>
      entry('set-again', { moved: out.id, what: coolant.what, readAs: 'length', figure: 12, ...more });
    expect(await against(id, read())).toContain('payload.moved is not back yet');
    expect(await against(id, back({ screws: 1 }))).toContain('payload.screws must be 2: so many were counted out of Coolant hose');
    expect(await against(id, entry('put-back', { moved: out.id }))).toContain('payload.screws must be 2');
    expect(await against(id, back({ torque: 30 }))).toContain('payload.torque must be 3 N·m');
    expect(await against(id, back(), read({ readAs: 'volume' }))).toContain('payload.readAs must be length');
    expect(await against(id, entry('put-back', { moved: guard.id }), read({ moved: guard.id }))).toContain('upsets nothing');
    expect(await against(id, back(), read())).toBe('');
    expect(await against(id, entry('moved', { ...hose, makes: { ...coolant, from: 30 } }))).toContain(
      'payload.makes.to must be at least 30',
    );
  });

  test('is kept for the machine, offered at the next of its units, and at a machine of the same name until it has its own', async () => {
    const here = await machineOf(await jobOn('quennet-ga-alternator'));
    const path = `/machines/${here}/way-in`;
    const line = { ...hose, minutes: 8 };
    expect(await ilka.get<WayInView>(path)).toMatchObject({ lines: [], version: 0, editedBy: null, like: null });
    expect(await ilka.call('PUT', path, { version: 0, lines: [line] })).toMatchObject({
      status: 200,
      body: { lines: [line], version: 1, editedBy: 'Ilka Varne' },
    });
    // Two who begin it, and one who had read an older one.
    for (const version of [0, 5])
      expect(await ilka.call('PUT', path, { version, lines: [] })).toMatchObject({ status: 409, body: { current: { lines: [line] } } });
    const bad = await ilka.call<Problem>('PUT', path, { version: 1, lines: [{ ...line, minutes: 0.5, how: 'gone' }] });
    expect(bad.body.errors?.map(({ field }) => field).toSorted()).toEqual(['lines[0].how', 'lines[0].minutes']);

    const there = await machineOf(await jobOn('quennet-ga-alternator'));
    expect((await ilka.get<WayInView>(`/machines/${there}/way-in`)).like?.lines).toEqual([line]);
    await ilka.call('PUT', `/machines/${there}/way-in`, { version: 0, lines: [] });
    expect(await ilka.get<WayInView>(`/machines/${there}/way-in`)).toMatchObject({ version: 1, lines: [], like: null });
    expect((await ilka.call('GET', `/machines/${uuid()}/way-in`)).status).toBe(404);
    expect((await ilka.call('PUT', `/machines/${uuid()}/way-in`, { version: 0, lines: [] })).status).toBe(404);
    const perla = await Client.as(server.base, 'perla');
    expect((await perla.call('PUT', path, { version: 1, lines: [] })).status).toBe(403);
  });
});

test('what other jobs of a sheet came to is there for the next one, struck entries are not', async () => {
  const read = (nm: number): NewEntry =>
    entry('end-play', { setting: 'pinion-preload', moment: 'locked', readings: [nm, nm, nm], unit: 'N·m' }, { step: 'preload-set' });
  const ids = [await jobOn('ostrel-d44-drive-axle'), await jobOn('ostrel-d44-drive-axle'), await jobOn('ostrel-d44-drive-axle')];
  const wrong = read(3);
  await ilka.post(ids[0]!, read(2.4));
  await ilka.post(ids[1]!, read(2.6), wrong, entry('strike', { reason: 'another shaft' }, { strikes: wrong.id }));
  const before = await ilka.get<EarlierView>(`/jobs/${ids[2]!}/worked-before`);
  expect(before.settings.find(({ setting }) => setting === 'pinion-preload')).toMatchObject({
    left: { count: 2, median: 2.5, from: 2.4, to: 2.6 },
  });
  expect((await ilka.get<EarlierView>(`/jobs/${ids[0]!}/worked-before`)).settings).toMatchObject([{ left: { count: 1, median: 2.6 } }]);
});

test('a tool made on a job is offered at that step of the next one of the model, and the crib says where it served', async () => {
  const [one, other, elsewhere] = [
    await jobOn('askvale-gx5-gearbox'),
    await jobOn('askvale-gx5-gearbox'),
    await jobOn('ostrel-ps2-propeller-shaft'),
  ];
  const { sheet } = await ilka.get<JobView>(`/jobs/${one}`);
  const step = sheet.file.steps.find(({ stage }) => stage === 'strip')!;
  const puller = { name: 'Bearing puller', use: 'grips behind the inner ring', sizes: 'two arms 8 × 20 × 140', load: 30 };
  const made = entry('tool-made', puller, { step: step.ref });
  const sha = 'a'.repeat(64);
  expect(await against(one, made, entry('photo', { file: sha, width: 640, height: 480, of: made.id }))).toBe('');
  const known = async (job: string): Promise<readonly KnowHow[]> =>
    (await ilka.get<KnowHow[]>(`/jobs/${job}/know-how`)).filter(({ kept }) => kept.kind === 'tool-made');
  expect(await known(other)).toMatchObject([
    { id: made.id, step: step.ref, kept: { payload: puller }, made: { pictures: [{ file: sha }], served: 0, failed: 0 } },
  ]);
  expect([await known(one), await known(elsewhere)]).toEqual([[], []]);

  const served = entry('tool-served', { tool: made.id, name: puller.name, how: 'served' }, { step: step.ref });
  expect(await against(other, served)).toBe('');
  expect(await against(elsewhere, entry('tool-served', { tool: made.id, name: puller.name, how: 'did not serve', why: 'too short' }))).toBe(
    '',
  );
  expect(await against(other, entry('tool-served', { ...served.payload, tool: uuid() }))).toContain('is no tool that was made here');
  const [line] = (await ilka.get<MadeTool[]>('/tools/made')).filter(({ id }) => id === made.id);
  expect(line).toMatchObject({
    tool: puller,
    model: sheet.file.title,
    step: step.title,
    person: 'Ilka Varne',
    made: { served: 1, failed: 1 },
  });
  expect(await against(one, { ...entry('strike', { reason: 'never finished' }), strikes: made.id })).toBe('');
  expect((await ilka.get<MadeTool[]>('/tools/made')).some(({ id }) => id === made.id)).toBe(false);
  expect(await against(one, entry('hold', { reason: 'parts', words: 'seal', comes: 'made' }))).toContain('is said of a tool');
  expect(await against(one, entry('hold', { reason: 'tool', words: 'puller', comes: 'made' }))).toBe('');
});

test('what was kept at a step is there for the next job of the model: not what was struck, nor the picture of a part', async () => {
  const [one, other, elsewhere] = [
    await jobOn('ostrel-d44-drive-axle'),
    await jobOn('ostrel-d44-drive-axle'),
    await jobOn('harrowmere-th6-front-hub'),
  ];
  const at = { step: 'preload-set' };
  const note = entry('note', { text: 'turn ten times before it is read' }, at);
  const slip = entry('note', { text: 'of another job' }, at);
  const picture = { file: 'a'.repeat(64), width: 40, height: 30 };
  const photo = entry('photo', { ...picture, words: 'the spring balance goes here' }, at);
  await ilka.post(one, note, slip, entry('strike', { reason: 'another job' }, { strikes: slip.id }), photo);
  await ilka.post(one, entry('photo', { ...picture, of: note.id }, at), entry('note', { text: 'of the job as a whole' }));
  const known = (await ilka.get<KnowHow[]>(`/jobs/${other}/know-how`)).filter(({ jobId }) => jobId === one);
  expect(known.map(({ id }) => id).toSorted()).toEqual([note.id, photo.id].toSorted());
  expect(known.find(({ id }) => id === note.id)).toMatchObject({
    step: 'preload-set',
    kept: { kind: 'note', payload: note.payload },
    person: 'Ilka Varne',
    at: note.takenAt,
  });
  expect((await ilka.get<KnowHow[]>(`/jobs/${one}/know-how`)).filter(({ jobId }) => jobId === one)).toEqual([]);
  expect((await ilka.get<KnowHow[]>(`/jobs/${elsewhere}/know-how`)).filter(({ jobId }) => jobId === one)).toEqual([]);
});
