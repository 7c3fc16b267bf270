import { jobReport, jobState, stopsHandOver, stopsSigning, type AnyKeptEntry, type JobView } from '@jubb/book';
import type { ChainView } from '@jubb/wire';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { Client, entry } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: TestDatabase;
let server: RunningServer;
let ilka: Client;
let oswin: Client;
let booked: JobView;
let middle: JobView;

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  ilka = await Client.as(server.base, 'ilka');
  oswin = await Client.as(server.base, 'oswin');
  booked = await ilka.jobNumbered(403);
  middle = await ilka.jobNumbered(402);
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

const entriesOf = async (job: JobView): Promise<readonly AnyKeptEntry[]> => (await ilka.get<JobView>(`/jobs/${job.id}`)).entries;

describe('entries that many tablets send at once', () => {
  /** So many jobs, each with a tablet of its own. */
  const bookedMany = async (count: number): Promise<readonly string[]> => {
    const { revisionId } = await ilka.sheetKeyed('harrowmere-th6-front-hub');
    return (await Promise.all(Array.from({ length: count }, () => ilka.booked(revisionId)))).map(({ id }) => id);
  };
  const chainOf = (id: string): Promise<ChainView> => ilka.get<ChainView>(`/jobs/${id}/chain`);

  test('each gets its own back, and every chain is whole', async () => {
    const ids = await bookedMany(40);
    for (const round of [1, 2, 3]) {
      const notes = ids.map((id) => [id, entry('note', { text: `round ${round} of ${id}` })] as const);
      const answers = await Promise.all(notes.map(([id, note]) => ilka.post<AnyKeptEntry[]>(id, note)));
      for (const [at, [id, note]] of notes.entries())
        expect(answers[at]).toMatchObject({ status: 200, body: [{ id: note.id, jobId: id, seq: round, payload: note.payload }] });
    }
    for (const chain of await Promise.all(ids.map(chainOf))) expect(chain).toMatchObject({ whole: true, entries: 3 });
  });

  test('one that is refused is refused alone, with its own reason', async () => {
    const ids = await bookedMany(12);
    const taken = entry('note', { text: 'kept before' });
    await ilka.post(ids[0]!, taken);
    const answers = await Promise.all([
      ilka.post(ids[0]!, { ...taken, payload: { text: 'other words under its id' } }),
      ilka.post(uuid(), entry('note', { text: 'a job that is not there' })),
      ...ids.slice(1).map((id) => ilka.post(id, entry('note', { text: 'good' }))),
    ]);
    expect(answers.map(({ status }) => status)).toEqual([409, 404, ...Array<number>(11).fill(200)]);
    expect(answers[0]).toMatchObject({ body: { code: 'entry-id-taken' } });
  });

  test('a job that somebody holds in the database keeps nobody else waiting', async () => {
    const [held, ...others] = await bookedMany(6);
    const holder = new pg.Client({ connectionString: database.url });
    await holder.connect();
    await holder.query('BEGIN');
    await holder.query('SELECT 1 FROM job WHERE id = $1 FOR UPDATE', [held]);
    let isKept = false;
    const waiting = ilka.post(held!, entry('note', { text: 'waits for its job' })).then((answer) => {
      isKept = true;
      return answer;
    });
    const answers = await Promise.all(others.map((id) => ilka.post(id, entry('note', { text: 'goes on' }))));
    expect(answers.map(({ status }) => status)).toEqual(others.map(() => 200));
    expect(isKept).toBe(false);
    await holder.query('COMMIT');
    await holder.end();
    expect(await waiting).toMatchObject({ status: 200 });
    expect(await chainOf(held!)).toMatchObject({ whole: true, entries: 1 });
  });
});

describe('what is kept stays', () => {
  test.each([
    ['changed', "UPDATE entry SET payload = '{}'"],
    ['changed in its number', 'UPDATE entry SET seq = seq + 1000'],
    ['removed', 'DELETE FROM entry'],
    ['removed altogether', 'TRUNCATE entry CASCADE'],
  ])('the database itself refuses that entries are %s', async (_, statement) => {
    await expect(database.query(statement)).rejects.toThrow('entries are never changed or removed');
  });

  test('the same id twice is the same entry', async () => {
    const note = entry('note', { text: 'seen twice' });
    const first = await ilka.post<AnyKeptEntry[]>(booked.id, note);
    const again = await ilka.post<AnyKeptEntry[]>(booked.id, note);
    expect(first.status).toBe(200);
    expect(again.body).toEqual(first.body);
    expect((await entriesOf(booked)).filter((kept) => kept.id === note.id)).toHaveLength(1);
  });

  test('the same id with other content is refused', async () => {
    const note = entry('note', { text: 'one thing' });
    await ilka.post(booked.id, note);
    expect(await ilka.post(booked.id, { ...note, payload: { text: 'another' } })).toMatchObject({ status: 409 });
  });

  test('sent again after a lost answer it is the same entry, whatever the world has become', async () => {
    const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
    const tool = (await ilka.get<JobView>(`/jobs/${id}`)).tools.find(({ tag }) => tag === 'D2')!;
    const reading = entry('reading', { limit: 'end-float-found', readings: [0.3, 0.31, 0.3], unit: 'mm' }, { toolId: tool.id });
    const first = await ilka.post<AnyKeptEntry[]>(id, reading);
    expect(first.status).toBe(200);
    // A study finds that the tool scatters far more: the same reading would be judged otherwise now.
    const readings = ['Ilka', 'Bram'].flatMap((person) =>
      [1, 2, 3, 4, 5].flatMap((part) => [0, 1].map((trial) => ({ person, part: String(part), reading: part + trial * 0.2 }))),
    );
    await oswin.made(`/tools/${tool.id}/studies`, { id: uuid(), readings });
    const fresh = entry('note', { text: 'in the same batch' });
    const again = await ilka.post<AnyKeptEntry[]>(id, reading, fresh);
    expect([again.status, again.body.map((one) => one.id)]).toEqual([200, [reading.id, fresh.id]]);
    expect(again.body[0]).toEqual(first.body[0]);
    expect((await ilka.get<JobView>(`/jobs/${id}`)).entries).toHaveLength(2);
    // Something else under the same id is another matter.
    const other = { ...reading, payload: { ...reading.payload, readings: [0.2, 0.2, 0.2] } };
    expect(await ilka.post(id, other)).toMatchObject({ status: 409, body: { errors: [{ field: 'id', given: reading.id }] } });
    expect((await oswin.post(id, reading)).status).toBe(409);
    expect(await ilka.get<ChainView>(`/jobs/${id}/chain`)).toMatchObject({ whole: true, entries: 2 });
  });

  test('entries posted at once by many are numbered without a gap, and the chain is whole', async () => {
    const notes = Array.from({ length: 40 }, (_, index) => entry('note', { text: `note ${index}` }));
    await Promise.all(notes.map((note) => ilka.post(booked.id, note)));
    const kept = await entriesOf(booked);
    expect(kept.map((one) => one.seq)).toEqual(kept.map((_, index) => index + 1));
    expect(await ilka.get<ChainView>(`/jobs/${booked.id}/chain`)).toMatchObject({ whole: true, entries: kept.length });
  });

  test('a chain that was tampered with behind the server’s back is found', async () => {
    const note = entry('note', { text: 'the truth' });
    await ilka.post(middle.id, note);
    await database.query('ALTER TABLE entry DISABLE TRIGGER entry_no_change');
    try {
      await database.query(`UPDATE entry SET payload = '{"text":"a lie"}' WHERE id = $1`, [note.id]);
      const found = (await entriesOf(middle)).find((one) => one.id === note.id);
      expect(await ilka.get<ChainView>(`/jobs/${middle.id}/chain`)).toMatchObject({ whole: false, brokenAt: found?.seq });
      await database.query(`UPDATE entry SET payload = '{"text":"the truth"}' WHERE id = $1`, [note.id]);
    } finally {
      await database.query('ALTER TABLE entry ENABLE TRIGGER entry_no_change');
    }
    expect(await ilka.get<ChainView>(`/jobs/${middle.id}/chain`)).toMatchObject({ whole: true });
  });
});

describe('striking', () => {
  test('a struck entry stays, and no longer counts', async () => {
    const wrong = entry('came-off', { part: 'wheel-nuts', name: 'Wheel nuts', count: 9 });
    await ilka.post(booked.id, wrong);
    await ilka.post(booked.id, entry('strike', { reason: 'one was in the brace' }, { strikes: wrong.id }));
    const view = await ilka.get<JobView>(`/jobs/${booked.id}`);
    const state = jobState(view.sheet.file, view.entries);
    expect(view.entries.some((kept) => kept.id === wrong.id)).toBe(true);
    expect(state.ledger.some((line) => line.id === wrong.id)).toBe(false);
    expect(state.struck.has(wrong.id)).toBe(true);
  });

  test.each([
    ['an entry of nowhere', () => uuid(), 400],
    ['nothing', () => undefined, 400],
  ])('of %s is refused', async (_, strikes, status) => {
    const id = strikes();
    expect((await ilka.post(booked.id, entry('strike', { reason: 'because' }, id ? { strikes: id } : {}))).status).toBe(status);
  });

  test('the second to strike is told who was first', async () => {
    const note = entry('note', { text: 'to be struck' });
    await ilka.post(booked.id, note);
    await ilka.post(booked.id, entry('strike', { reason: 'mine' }, { strikes: note.id }));
    const second = await oswin.post(booked.id, entry('strike', { reason: 'also mine' }, { strikes: note.id }));
    expect(second).toMatchObject({ status: 409, body: { current: { payload: { reason: 'mine' } } } });
  });
});

describe('a strip that was recorded with no link comes in one batch', () => {
  test('an assembly with what came out of it, a mark that is met again, a line and its strike', async () => {
    const { id } = await ilka.booked((await ilka.sheetKeyed('tindlebrook-cc1-loose-ball-hub')).revisionId);
    const pack = entry('came-off', { name: 'clutch pack, whole', count: 1, stack: 'shaft', mark: 'dot to dot' });
    const plate = entry('came-off', { name: 'plate', count: 7, inside: pack.id, direction: 'sharp edge outwards' });
    const wrong = entry('came-off', { name: 'spring', count: 4, size: '25 mm', condition: 'bent' });
    const strike = entry('strike', { reason: 'five, counted again' }, { strikes: wrong.id });
    const answer = await ilka.post<AnyKeptEntry[]>(id, pack, plate, wrong, strike, entry('mark-met', { mark: pack.id }));
    expect(answer.status).toBe(200);
    const { entries, sheet } = await ilka.get<JobView>(`/jobs/${id}`);
    const state = jobState(sheet.file, entries);
    expect(state.ledger.map((line) => line.payload.name)).toEqual(['clutch pack, whole', 'plate']);
    expect(state.marks).toEqual([{ entryId: pack.id, what: 'clutch pack, whole', mark: 'dot to dot', met: true }]);
  });

  test('balls that are not as many on both sides are said, and an unmet mark stops the signature', async () => {
    const { id } = await ilka.booked((await ilka.sheetKeyed('tindlebrook-cc1-loose-ball-hub')).revisionId);
    await ilka.workTo(id, 'balls-out-left');
    const balls = (side: string, count: number): object =>
      entry('came-off', { part: `balls-${side}`, name: 'balls', count }, { step: `balls-out-${side}` });
    await ilka.post(id, balls('left', 9), balls('right', 8), entry('mark', { what: 'shell to axle', mark: 'paint line' }));
    const { entries, sheet } = await ilka.get<JobView>(`/jobs/${id}`);
    const state = jobState(sheet.file, entries);
    expect(state.steps.find(({ step }) => step.ref === 'balls-out-right')?.problem).toMatch(/8 counted, the sheet says 9/u);
    expect(state.steps.find(({ step }) => step.ref === 'balls-out-left')?.problem).toMatch(/there must be as many of each/u);
    expect(stopsSigning(state)).toContain('Mark not met: shell to axle, paint line');
  });
});

describe('bad input', () => {
  const cases: [string, object, string, RegExp][] = [
    ['an unknown field', entry('note', { text: 'x', colour: 'red' }), 'entries[0].payload.colour', /not known/u],
    ['text for a number', entry('came-off', { name: 'nut', count: 'ten' }), 'entries[0].payload.count', /whole number/u],
    ['a minus count', entry('came-off', { name: 'nut', count: -3 }), 'entries[0].payload.count', /at least 1/u],
    [
      'a journal of 40 m',
      entry('reading', { limit: 'inner-journal', readings: [40_000], unit: 'm' }),
      'entries[0].payload.readings',
      /must not be over/u,
    ],
    [
      'a reading in a unit of something else',
      entry('reading', { limit: 'inner-journal', readings: [34.98], unit: 'N·m' }),
      'entries[0].payload.unit',
      /unit of length/u,
    ],
    ['no readings', entry('reading', { limit: 'inner-journal', readings: [], unit: 'mm' }), 'entries[0].payload.readings', /at least one/u],
    [
      'readings that are no numbers',
      entry('reading', { limit: 'inner-journal', readings: ['a'], unit: 'mm' }),
      'entries[0].payload.readings',
      /must/u,
    ],
    [
      'a limit of nowhere',
      entry('reading', { limit: 'third-journal', readings: [1], unit: 'mm' }),
      'entries[0].payload.limit',
      /among the limits/u,
    ],
    ['a look of nowhere', entry('look', { limit: 'inner-race', look: 'lovely' }), 'entries[0].payload.look', /among the looks/u],
    ['a step of nowhere', entry('tick', {}, { step: 'fly' }), 'entries[0].step', /not a step/u],
    ['a tool of nowhere', entry('tick', {}, { toolId: uuid() }), 'entries[0].toolId', /not a tool/u],
    ['an empty note', entry('note', { text: '   ' }), 'entries[0].payload.text', /empty/u],
    ['10 000 letters', entry('note', { text: 'x'.repeat(10_000) }), 'entries[0].payload.text', /at most 2000/u],
    [
      'an 11th nut of ten',
      entry('pull', {
        joint: 'wheel-nuts',
        pass: 1,
        place: 10,
        torque: 30,
        result: 'clicked',
        wrenchLength: 450,
        adapterLength: 0,
        adapterAngle: 0,
      }),
      'entries[0].payload.place',
      /has 10 fasteners/u,
    ],
    ['places without a joint', entry('came-off', { name: 'nut', count: 1, places: [0] }), 'entries[0].payload.joint', /those of a joint/u],
    [
      'more places than came off',
      entry('came-off', { name: 'nut', count: 1, joint: 'wheel-nuts', places: [0, 1] }),
      'entries[0].payload.places',
      /as many as came off/u,
    ],
    [
      'a place that the joint has not',
      entry('came-off', { name: 'nut', count: 1, joint: 'wheel-nuts', places: [10] }),
      'entries[0].payload.places',
      /has 10 fasteners/u,
    ],
    ['a mark of nowhere', entry('mark-met', { mark: uuid() }), 'payload.mark', /not a mark of this job/u],
    [
      'out of an assembly of nowhere',
      entry('came-off', { name: 'plate', count: 1, inside: uuid() }),
      'payload.inside',
      /no line of this job/u,
    ],
    ['a kind of nowhere', { ...entry('note', { text: 'x' }), kind: 'poem' }, 'entries[0].kind', /one of/u],
    ['an id that is none', { ...entry('note', { text: 'x' }), id: 'me' }, 'entries[0].id', /UUID/u],
  ];
  test.each(cases)('%s is refused at its field, and nothing is kept', async (_, bad, field, words) => {
    const before = (await entriesOf(booked)).length;
    const answer = await ilka.post(booked.id, entry('note', { text: 'the good one beside it' }), bad).then(async (first) => {
      // The bad one stands second here, so its index is 1.
      expect(first.status).toBe(400);
      return ilka.post(booked.id, bad);
    });
    expect(answer.status).toBe(400);
    expect(answer.headers.get('content-type')).toContain('application/problem+json');
    const problem = answer.body.errors?.find((one) => one.field === field);
    expect(problem?.allowed).toMatch(words);
    expect((await entriesOf(booked)).length).toBe(before);
  });

  test('emoji are words like others', async () => {
    const note = entry('note', { text: 'grease everywhere 🧤🔧' });
    expect(await ilka.post<AnyKeptEntry[]>(booked.id, note)).toMatchObject({
      status: 200,
      body: [{ payload: { text: 'grease everywhere 🧤🔧' } }],
    });
  });

  test('what is not JSON, too large, or at no address is told in one way, without a stack', async () => {
    const answers = [
      await ilka.call('POST', `/jobs/${booked.id}/entries`, '{"entries": ['),
      await ilka.call('POST', `/jobs/${booked.id}/entries`, JSON.stringify({ entries: 'x'.repeat(6_000_000) })),
      await ilka.call('GET', '/nowhere'),
      await ilka.call('GET', '/jobs/not-an-id'),
      await ilka.call('GET', `/jobs/${uuid()}`),
    ];
    expect(answers.map((answer) => answer.status)).toEqual([400, 413, 404, 400, 404]);
    for (const answer of answers) {
      expect(answer.headers.get('content-type')).toContain('application/problem+json');
      expect(JSON.stringify(answer.body)).not.toMatch(/node_modules|at .*\.js|SELECT|stack/u);
    }
  });
});

describe('the workings with it', () => {
  test('a reading is judged by the server, with the tool’s uncertainty', async () => {
    const tools = await ilka.get<{ id: string; tag: string; u: number }[]>('/tools');
    const micrometer = tools.find((tool) => tool.tag === 'M3')!;
    const kept = await ilka.post<AnyKeptEntry[]>(
      booked.id,
      entry('reading', { limit: 'inner-journal', readings: [34.982, 34.981, 34.982, 34.983], unit: 'mm' }, { toolId: micrometer.id }),
    );
    expect(kept.body[0]?.working).toMatchObject({
      id: 'measure.verdict',
      input: { toolU: micrometer.u, lower: 34.965, upper: 34.991 },
      output: { verdict: 'in' },
    });
  });

  test('a working sent along is not believed', async () => {
    const forged = { ...entry('note', { text: 'x' }), working: { id: 'measure.verdict', output: { verdict: 'in' } } };
    expect(await ilka.post(booked.id, forged)).toMatchObject({ status: 400, body: { errors: [{ field: 'entries[0].working' }] } });
  });
});

describe('a tool that cannot have read it', () => {
  test('is refused at the field: of another quantity, and past its check', async () => {
    const tools = await ilka.get<{ id: string; tag: string }[]>('/tools');
    const tagged = (tag: string): string => tools.find((tool) => tool.tag === tag)!.id;
    const joint = (await ilka.get<JobView>(`/jobs/${booked.id}`)).sheet.file.joints[0]!.ref;
    const pull = entry(
      'pull',
      { joint, pass: 1, place: 0, torque: 32.4, result: 'clicked', wrenchLength: 450, adapterLength: 0, adapterAngle: 0 },
      { toolId: tagged('M3') },
    );
    expect(await ilka.post(booked.id, pull)).toMatchObject({
      status: 400,
      body: { errors: [{ field: 'entries[0].toolId' }] },
    });
    await database.query(`UPDATE tool SET calibration_due = '2020-01-01' WHERE tag = 'M3'`);
    const late = entry('reading', { limit: 'inner-journal', readings: [34.98, 34.98, 34.98], unit: 'mm' }, { toolId: tagged('M3') });
    const answer = await ilka.post(booked.id, late);
    await database.query(`UPDATE tool SET calibration_due = '2099-01-01' WHERE tag = 'M3'`);
    expect(answer).toMatchObject({ status: 400, body: { errors: [{ field: 'entries[0].toolId' }] } });
    expect(JSON.stringify(answer.body)).toContain('check');
  });
});

describe('who may strike', () => {
  test('what somebody may not say, they may not take back', async () => {
    const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
    const joss = await Client.as(server.base, 'joss');
    const decided = entry('decision', { part: 'hub', fate: 'renew', quantity: 1, reason: 'cracked' });
    const note = entry('note', { text: 'seen' });
    expect((await ilka.post(id, decided, note)).status).toBe(200);
    const strike = (strikes: string): object => entry('strike', { reason: 'no' }, { strikes });
    expect(await joss.post(id, strike(decided.id))).toMatchObject({ status: 403, body: { title: 'This is not yours to do' } });
    expect((await joss.post(id, strike(note.id))).status).toBe(200);
    expect((await ilka.post(id, strike(decided.id))).status).toBe(200);
  });

  test('a job has one signature', async () => {
    const { id } = await ilka.booked((await ilka.sheetKeyed('ostrel-ps2-propeller-shaft')).revisionId);
    const { steps } = (await ilka.get<JobView>(`/jobs/${id}`)).sheet.file;
    await oswin.workTo(id, steps.find(({ stage }) => stage === 'hand-over')!.ref);
    const sign = entry('sign', { name: 'Oswin Tarrell' }, { step: steps.find(({ record }) => record.kind === 'sign')!.ref });
    expect(await oswin.post(id, sign)).toMatchObject({ status: 409, body: { title: 'It is signed already' } });
  });
});

test('a clock that is wrong by days or years refuses nothing for ever: both times are kept', async () => {
  const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
  const began = Date.now();
  const ahead = new Date(began + 800 * 86_400_000).toISOString();
  const { steps, joints } = (await ilka.get<JobView>(`/jobs/${id}`)).sheet.file;
  const wrench = (await ilka.get<JobView>(`/jobs/${id}`)).tools.find(
    ({ kind, calibrationDue }) =>
      kind === 'torque-wrench' && calibrationDue !== null && calibrationDue > new Date().toISOString() && calibrationDue < ahead,
  );
  expect(wrench).toBeDefined();
  const step = steps.find(({ record }) => record.kind === 'torque')!.ref;
  const pull = entry(
    'pull',
    { joint: joints[0]!.ref, pass: 1, place: 1, torque: 32.4, result: 'clicked' },
    { step, toolId: wrench!.id, takenAt: ahead },
  );
  const answer = await ilka.post(id, entry('note', { text: 'fast' }, { takenAt: ahead }), pull);
  // By its own clock the wrench would be past its check; nothing was read later than now.
  expect(JSON.stringify(answer.body)).not.toContain('past its check');
  const slow = entry('note', { text: 'slow' }, { takenAt: '2019-01-01T00:00:00.000Z' });
  const fast = entry('note', { text: 'fast' }, { takenAt: ahead });
  expect((await ilka.post(id, slow, fast)).status).toBe(200);
  const kept = (await ilka.get<JobView>(`/jobs/${id}`)).entries.filter(({ id: one }) => one === slow.id || one === fast.id);
  expect(kept.map(({ takenAt }) => takenAt)).toEqual([slow.takenAt, ahead]);
  for (const { keptAt } of kept) expect(Math.abs(Date.parse(keptAt) - began)).toBeLessThan(60_000);
});

test('a stage is set by whoever may work in it', async () => {
  const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
  const [joss, perla] = [await Client.as(server.base, 'joss'), await Client.as(server.base, 'perla')];
  const set = async (by: Client, stage: string): Promise<number> => (await by.post(id, entry('stage', { stage }))).status;
  expect([await set(perla, 'strip'), await set(joss, 'strip')]).toEqual([403, 200]);
  expect([await set(joss, 'build'), await set(ilka, 'build')]).toEqual([403, 200]);
  expect(await set(perla, 'book-in')).toBe(200);
});

describe('going on to what comes after the build', () => {
  test('over what is open takes a reason, or the foreman; the reason is in the report', async () => {
    const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
    const { steps } = (await ilka.get<JobView>(`/jobs/${id}`)).sheet.file;
    await ilka.workTo(id, steps.find(({ stage }) => stage === 'build')!.ref);
    const refused = await ilka.post(id, entry('stage', { stage: 'prove' }));
    expect(refused).toMatchObject({ status: 400, body: { errors: [{ field: 'payload.why' }] } });
    expect(JSON.stringify(refused.body)).toContain('Build: ');
    expect((await ilka.post(id, entry('stage', { stage: 'strip' }))).status).toBe(200);
    expect((await oswin.post(id, entry('stage', { stage: 'prove' }))).status).toBe(200);
    await ilka.post(id, entry('stage', { stage: 'build' }));
    expect((await ilka.post(id, entry('stage', { stage: 'prove', why: 'proved without the wheel' }))).status).toBe(200);
    const report = jobReport(await ilka.get<JobView>(`/jobs/${id}`), { at: String, day: String });
    expect(JSON.stringify(report)).toContain('proved without the wheel');
  });
});

describe('signing and handing over', () => {
  test('only the foreman signs', async () => {
    expect((await ilka.post(middle.id, entry('sign', { name: 'Ilka Varne' }))).status).toBe(403);
  });

  test('an open item stops the signature and the hand-over, and is named', async () => {
    const signing = await oswin.post(middle.id, entry('sign', { name: 'Oswin Tarrell' }, { step: 'sign' }));
    expect(signing.status).toBe(409);
    const named = signing.body.errors?.map((problem) => problem.allowed) ?? [];
    expect(named).toContain('Build: Wheel nuts');
    expect(named.some((words) => words.startsWith('Open end: Dust cap off'))).toBe(true);
    const over = await oswin.post(middle.id, entry('handed-over', { receivedBy: 'Somebody', cautionsTold: true }, { step: 'out' }));
    expect(over.status).toBe(409);
    expect(over.body.errors?.map((problem) => problem.allowed)).toContain('Prove: Foreman signs');
  });

  test('an open end made by hand stops it too, until it is closed', async () => {
    const strap = entry('open-end', { what: 'Strap round the hub', closes: 'take it off' });
    await ilka.post(middle.id, strap);
    const view = await ilka.get<JobView>(`/jobs/${middle.id}`);
    expect(stopsHandOver(jobState(view.sheet.file, view.entries)).join()).toContain('Strap round the hub');
    expect((await ilka.post(middle.id, entry('open-end-closed', { opened: strap.id }))).status).toBe(200);
    const after = await ilka.get<JobView>(`/jobs/${middle.id}`);
    expect(stopsHandOver(jobState(after.sheet.file, after.entries)).join()).not.toContain('Strap round the hub');
  });

  test('nothing is added to a job that is handed over', async () => {
    const finished = await ilka.jobNumbered(401);
    expect(finished.closedAt).not.toBeNull();
    expect(await ilka.post(finished.id, entry('note', { text: 'too late' }))).toMatchObject({
      status: 409,
      body: { title: expect.stringContaining('handed over') },
    });
  });
});
