import type { AnyKeptEntry, JobView, NoticeView, TodayView, NewEntry } from '@jubb/book';
import type { FileState, InstrumentView, LinesView, LiveLine, Problem, ServerEvent, SessionView, TabletPeople } from '@jubb/wire';
import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import pg from 'pg';
import sharp from 'sharp';
import { Client, entry, type Answer } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { jpeg } from '../kit/jpeg.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: TestDatabase;
let server: RunningServer;
let ilka: Client;
let oswin: Client;

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  ilka = await Client.as(server.base, 'ilka');
  oswin = await Client.as(server.base, 'oswin');
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

describe('one tablet, several people', () => {
  const swap = (client: Client, personId: string, pin: string): Promise<Answer<SessionView>> =>
    client.call<SessionView>('POST', '/session/swap', { personId, pin });

  /** A tablet on which these logged in with their passwords, the last of them now. */
  const usedBy = async (...logins: readonly string[]): Promise<Client> => {
    const tablet = await Client.as(server.base, logins[0]!);
    for (const login of logins.slice(1)) await tablet.call('POST', '/session', { login, password: 'bench-417' });
    return tablet;
  };

  test('a PIN takes over where somebody logged in before, each entry carries its maker, and what is left of the one before is sent', async () => {
    const tablet = await usedBy('bram', 'ilka');
    const job = await tablet.jobNumbered(403);
    const idOf = (name: string): string => job.people.find((person) => person.name.startsWith(name))?.id ?? '';
    const here = await tablet.get<TabletPeople>('/tablet');
    expect(here.people.map(({ name }) => name.split(' ')[0])).toEqual(['Bram', 'Ilka']);
    // Oswin has a PIN, and was never here.
    expect(await swap(tablet, idOf('Oswin'), '4170')).toMatchObject({ status: 403, body: { title: 'A PIN will not do here' } });
    expect((await swap(tablet, idOf('Bram'), '4170')).body).toMatchObject({
      person: { login: 'bram' },
      people: [idOf('Ilka'), idOf('Bram')],
    });
    const mine = entry('note', { text: 'by the one who is here' });
    const left = entry('note', { text: 'by the one before, held without a link' });
    await tablet.post(job.id, mine);
    expect((await tablet.call('POST', `/jobs/${job.id}/entries`, { entries: [left], personId: idOf('Ilka') })).status).toBe(200);
    const { entries } = await tablet.get<JobView>(`/jobs/${job.id}`);
    expect([mine, left].map(({ id }) => entries.find((kept) => kept.id === id)?.personId)).toEqual([idOf('Bram'), idOf('Ilka')]);
    // Somebody who never proved themselves at this tablet has made nothing on it.
    const forged = await tablet.call('POST', `/jobs/${job.id}/entries`, {
      entries: [entry('note', { text: 'x' })],
      personId: idOf('Oswin'),
    });
    expect(forged.status).toBe(403);
    // The role is that of the maker, too.
    const signed = { entries: [entry('sign', { name: 'Bram' })], personId: idOf('Bram') };
    expect((await tablet.call('POST', `/jobs/${job.id}/entries`, signed)).status).toBe(403);
  });

  test('a device where nobody logged in is told nobody’s name, and no PIN will do there', async () => {
    const stranger = new Client(server.base);
    expect(await stranger.get<TabletPeople>('/tablet')).toEqual({ tablet: null, people: [], pinDigits: 4 });
    const { person } = await ilka.get<SessionView>('/session');
    expect(await swap(stranger, person.id, '4170')).toMatchObject({ status: 403, body: { title: 'A PIN will not do here' } });
  });

  test('wrong PINs run out for that person at every tablet, and the password still works', async () => {
    const tablet = await usedBy('joss', 'ilka');
    const { people } = await tablet.get<TabletPeople>('/tablet');
    const joss = people.find(({ name }) => name.startsWith('Joss'))!;
    const statuses = [];
    for (let guess = 0; guess < 10; guess += 1) statuses.push((await swap(tablet, joss.id, `000${guess}`)).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429, 429, 429, 429, 429]);
    expect((await swap(tablet, joss.id, '4170')).status).toBe(429);
    expect((await swap(await usedBy('joss', 'bram'), joss.id, '4170')).status).toBe(429);
    expect((await tablet.call('POST', '/session', { login: 'joss', password: 'bench-417' })).status).toBe(200);
    // Joss is told, and the foreman, until they put it away; nobody else is.
    const told = async (client: Client): Promise<readonly NoticeView[]> =>
      (await client.get<TodayView>('/today')).notices.filter(({ words }) => words.includes('tries at the PIN of Joss'));
    expect([(await told(tablet)).length, (await told(oswin)).length, (await told(ilka)).length]).toEqual([1, 1, 0]);
    await tablet.call('POST', `/notices/${(await told(tablet))[0]!.id}/seen`);
    expect([(await told(tablet)).length, (await told(oswin)).length]).toEqual([0, 1]);
  });

  test('a shop may want six digits: a shorter PIN will not do any more, and none is set', async () => {
    const tablet = await usedBy('perla', 'ilka');
    const { shop } = await oswin.get<SessionView>('/session');
    const { name, zone, hourlyMinor, taxShare, marginShare, rules, version } = shop;
    const set = (pinDigits: number, at: number): Promise<Answer<unknown>> =>
      oswin.call<unknown>('PUT', '/shop', { name, zone, hourlyMinor, taxShare, marginShare, rules, pinDigits, version: at });
    expect((await set(6, version)).status).toBe(200);
    const { people } = await tablet.get<TabletPeople>('/tablet');
    const perla = people.find((one) => one.name.startsWith('Perla'))!;
    expect(perla.hasPin).toBe(false);
    expect(JSON.stringify((await swap(tablet, perla.id, '4170')).body)).toContain('then set one of 6 digits');
    const own = await Client.as(server.base, 'perla');
    expect((await own.call('PUT', '/session/pin', { pin: '4170', password: 'bench-417' })).body.errors?.[0]?.allowed).toContain('6 digits');
    expect((await own.call('PUT', '/session/pin', { pin: '417041', password: 'bench-417' })).status).toBe(204);
    expect((await swap(tablet, perla.id, '417041')).status).toBe(200);
    expect((await set(4, version + 1)).status).toBe(200);
  });

  test('a PIN is set with the password only, is four or six digits, and is kept as argon2id', async () => {
    const bram = await Client.as(server.base, 'bram');
    expect(await bram.call('PUT', '/session/pin', { pin: '12a4', password: 'bench-417' })).toMatchObject({
      status: 400,
      body: { errors: [{ field: 'pin', given: '12a4', allowed: 'must be four or six digits' }] },
    });
    expect((await bram.call('PUT', '/session/pin', { pin: '2580', password: 'wrong' })).status).toBe(401);
    expect((await bram.call('PUT', '/session/pin', { pin: '2580', password: 'bench-417' })).status).toBe(204);
    const { person } = await bram.get<SessionView>('/session');
    expect((await swap(await usedBy('bram', 'ilka'), person.id, '2580')).status).toBe(200);
    const { rows } = await database.query('SELECT pin_hash FROM person WHERE pin_hash IS NOT NULL');
    for (const row of rows as { pin_hash: string }[]) expect(row.pin_hash).toMatch(/^\$argon2id\$/u);
  });
});

describe('photos and clips', () => {
  const sha = (content: Buffer): string => createHash('sha256').update(content).digest('hex');
  const put = (of: string, part: Buffer, at: number, total: number): Promise<Answer<FileState>> =>
    ilka.call<FileState>('PUT', `/files/${of}?at=${at}&total=${total}`, part, { 'content-type': 'application/octet-stream' });

  test('a broken upload goes on where it stopped, and the same bytes are kept once', async () => {
    const photo = await jpeg(800);
    expect(photo.length).toBeGreaterThan(300_000);
    const of = sha(photo);
    expect(await ilka.get(`/files/${of}/state`)).toEqual({ have: 0, whole: false });
    expect((await put(of, photo.subarray(0, 200_000), 0, photo.length)).body).toEqual({ have: 200_000, whole: false });
    // A part that was sent before, or one too far on, does not get in twice or leave a hole.
    expect(await put(of, photo.subarray(0, 200_000), 0, photo.length)).toMatchObject({ status: 409, body: { current: { have: 200_000 } } });
    expect((await put(of, photo.subarray(300_000), 300_000, photo.length)).status).toBe(409);
    expect((await put(of, photo.subarray(200_000), 200_000, photo.length)).body).toEqual({ have: photo.length, whole: true });
    expect((await put(of, photo.subarray(0, 10), 0, photo.length)).body).toEqual({ have: photo.length, whole: true });
    const back = await fetch(`${server.base}/api/v1/files/${of}`, { headers: { cookie: ilka.cookie } });
    expect(back.headers.get('content-type')).toBe('image/jpeg');
    expect(await sharp(Buffer.from(await back.arrayBuffer())).metadata()).toMatchObject({ format: 'jpeg', width: 800, height: 600 });
    expect((await database.query('SELECT 1 FROM file_part')).rows).toEqual([]);
  });

  test('a photo is drawn anew: no place is left in it, wherever it stood, and it is the right way up', async () => {
    const plain = await jpeg(64);
    const place = 'GPSLatitude 47.123 N';
    const withExif = await sharp(plain)
      .withExif({ IFD0: { ImageDescription: place } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const xmp = Buffer.from(`http://ns.adobe.com/xap/1.0/\0<x:xmpmeta>${place}</x:xmpmeta>`, 'latin1');
    const app1 = Buffer.concat([Buffer.from([0xff, 0xe1, 0, xmp.length + 2]), xmp]);
    // EXIF, an XMP segment, a comment between, and bytes behind the end of the picture.
    const told = Buffer.concat([withExif.subarray(0, 2), app1, withExif.subarray(2), Buffer.from(`trailer ${place}`)]);
    expect(told.toString('latin1').split(place).length - 1).toBe(3);
    expect((await put(sha(told), told, 0, told.length)).body).toEqual({ have: told.length, whole: true });
    const read = async (of: string): Promise<Buffer> =>
      Buffer.from(await (await fetch(`${server.base}/api/v1/files/${of}`, { headers: { cookie: ilka.cookie } })).arrayBuffer());
    const back = await read(sha(told));
    expect([back.includes(place), back.includes('Exif'), back.includes('xmpmeta')]).toEqual([false, false, false]);
    expect(await sharp(back).metadata()).toMatchObject({ width: 48, height: 64 });
    // One that was kept before is drawn anew when it is first looked at.
    const before = Buffer.concat([await jpeg(32), Buffer.from(place)]);
    await database.query(`INSERT INTO file (sha256, type, content, kept_by) SELECT $1, 'image/jpeg', $2, id FROM person LIMIT 1`, [
      sha(before),
      before,
    ]);
    expect((await read(sha(before))).includes(place)).toBe(false);
    // Of one that cannot be drawn nothing is given out.
    const broken = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.from(place)]);
    await database.query(`INSERT INTO file (sha256, type, content, kept_by) SELECT $1, 'image/jpeg', $2, id FROM person LIMIT 1`, [
      sha(broken),
      broken,
    ]);
    expect((await read(sha(broken))).includes(place)).toBe(false);
    await database.query('DELETE FROM file WHERE sha256 = $1', [sha(broken)]);
    expect((await database.query('SELECT 1 FROM file WHERE position($1::bytea IN content) > 0', [Buffer.from(place)])).rows).toEqual([]);
  });

  test.each([
    [
      'a photo that breaks off',
      Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 4, 1, 2]), Buffer.alloc(200, 7)]),
      'is no whole photo',
    ],
    ['a page of script', Buffer.from('<script>alert(1)</script>'), 'is neither a JPEG photo nor a WebM clip'],
  ])('%s is refused', async (_, content, words) => {
    const answer = await put(sha(content), content, 0, content.length);
    expect(answer).toMatchObject({ status: 400, body: { errors: [{ field: 'body' }] } });
    expect(JSON.stringify(answer.body)).toContain(words);
  });

  test('bytes that are not what their name says, and a file that is too large, are refused and leave nothing', async () => {
    const photo = await jpeg(32);
    expect((await put(sha(Buffer.from('other')), photo, 0, photo.length)).body).toMatchObject({ errors: [{ field: 'sha' }] });
    expect((await put(sha(photo), photo, 0, 30_000_000)).body).toMatchObject({ errors: [{ field: 'total', given: '30000000' }] });
    expect((await database.query('SELECT 1 FROM file_part')).rows).toEqual([]);
  });
});

describe('instruments at their door', () => {
  const instrument = async (tag: string): Promise<InstrumentView> => {
    const found = (await ilka.get<InstrumentView[]>('/instruments')).find(({ tool }) => tool.tag === tag);
    if (!found) throw new Error(`no instrument ${tag}`);
    return found;
  };
  const send = (id: string, body: string | Buffer, headers: Record<string, string> = {}): Promise<Answer<LinesView>> =>
    ilka.call<LinesView>('POST', `/instruments/${id}/lines`, body, { 'content-type': 'application/x-ndjson', ...headers });
  const line = (n: number, rest: object = {}): string => JSON.stringify({ n, value: 34.98, unit: 'mm', taken: true, ...rest });

  /** Hears what is told of an instrument; gives it once so many lines have come. */
  const listen = async (id: string): Promise<(count: number) => Promise<readonly LiveLine[]>> => {
    const heard: LiveLine[] = [];
    const ear = new pg.Client({ connectionString: database.url });
    await ear.connect();
    await ear.query('LISTEN jubb');
    ear.on('notification', ({ payload }) => {
      const event = JSON.parse(payload ?? '') as ServerEvent;
      if (event.type === 'lines') heard.push(...event.lines.filter(({ instrumentId }) => instrumentId === id));
    });
    return async (count) => {
      for (let tries = 0; tries < 50 && heard.length < count; tries += 1) await new Promise((resolve) => setTimeout(resolve, 50));
      await ear.end();
      return heard;
    };
  };

  test('lines in any unit of its quantity go to the tablet that it is paired with, each once', async () => {
    const { id } = await instrument('K1');
    const { tablet } = await ilka.get<TabletPeople>('/tablet');
    await ilka.call('PUT', `/instruments/${id}/tablet`, { tabletId: tablet?.id });
    const told = await listen(id);
    const lines = [line(1), line(2, { value: 1.5, unit: 'in' }), line(2, { value: 1.5, unit: 'in' }), line(3, { battery: 'low' })];
    expect((await send(id, lines.join('\n'))).body).toEqual({ kept: 3, known: 1, refused: [] });
    // Sent again after a lost answer: nothing is taken twice.
    expect((await send(id, lines.join('\n'))).body).toEqual({ kept: 0, known: 4, refused: [] });
    const heard = await told(3);
    expect(heard.map(({ n, base, unit, tabletId, battery }) => [n, base, unit, tabletId, battery])).toEqual([
      [1, 34.98, 'mm', tablet?.id, undefined],
      [2, expect.closeTo(38.1, 9), 'in', tablet?.id, undefined],
      [3, 34.98, 'mm', tablet?.id, 'low'],
    ]);
    expect(await instrument('K1')).toMatchObject({ tablet, last: { n: 3 } });
  });

  test('of readings that pass only the newest is told, and every one that somebody sent', async () => {
    const { id } = await instrument('W3');
    const told = await listen(id);
    const lines = Array.from({ length: 40 }, (_, at) => line(at + 1, { value: 50 + at, unit: 'N·m', taken: at === 10 || at === 20 }));
    expect((await send(id, lines.join('\n'))).body.kept).toBe(40);
    const heard = await told(3);
    expect(heard.map(({ n, taken }) => [n, taken])).toEqual([
      [11, true],
      [21, true],
      [40, false],
    ]);
  });

  test('a torn line, rubbish and another quantity are named by their line; the sound ones are taken', async () => {
    const { id } = await instrument('S1');
    const mixed = Buffer.concat([
      Buffer.from(`${line(1, { value: 12, unit: 'g' })}\n{"n": 2, "val\n`),
      Buffer.from([0xff, 0xfe, 0x00, 0x9c, 0x0a]),
      Buffer.from(`${line(4, { unit: 'N·m' })}\n[1,2]\n${line(5, { value: 'heavy', unit: 'g' })}\n${line(6, { value: 15, unit: 'g' })}`),
    ]);
    const { status, body } = await send(id, mixed);
    expect([status, body.kept]).toEqual([200, 2]);
    expect(body.refused.map(({ line: at, field }) => [at, field])).toEqual([
      [2, 'line'],
      [3, 'line'],
      [4, 'unit'],
      [5, 'line'],
      [6, 'value'],
    ]);
    expect(body.refused[2]?.allowed).toBe('is no unit of mass, which S1 reads: kg, g, t, lb, oz');
  });

  test('a reading of an instrument past its check, or out of its range, is marked with why', async () => {
    const overdue = await instrument('M4');
    await send(overdue.id, line(1, { value: 60 }));
    expect((await instrument('M4')).last?.marked).toMatch(/^M4 is past its check, which was due \d{4}-/u);
    const calliper = await instrument('K1');
    await send(calliper.id, line(100, { value: 400 }));
    expect((await instrument('K1')).last?.marked).toBe('K1 reads 0 mm to 150 mm: this is out of it');
  });

  test('a flood is told to wait, and another instrument is not held up by it', async () => {
    const { id } = await instrument('D2');
    const many = (from: number, count: number): string =>
      Array.from({ length: count }, (_, at) => line(from + at, { value: 1 })).join('\n');
    const tooMany = await send(id, many(1, 201));
    expect([tooMany.status, JSON.stringify(tooMany.body)]).toEqual([400, expect.stringContaining('at most 200 lines at once')]);
    // What was held without a link goes through, as many as go at once.
    expect((await send(id, many(1, 200))).body).toEqual({ kept: 200, known: 0, refused: [] });
    const flood = [];
    for (let part = 1; part < 8; part += 1) flood.push((await send(id, many(1 + part * 200, 200))).status);
    expect(flood.slice(0, 3)).toEqual([200, 200, 200]);
    expect(flood.at(-1)).toBe(429);
    const { id: other } = await instrument('B3');
    expect((await send(other, line(1, { value: 20, unit: 'N' }))).status).toBe(200);
    expect((await send(id, 'x'.repeat(400_000))).status).toBe(413);
  });

  test('a number by mistake silences nothing, and a counter that begins again is heard', async () => {
    const { id } = await instrument('W3');
    const unit = 'N·m';
    const pull = (n: number, value: number, more: object = {}): string => line(n, { value, unit, ...more });
    expect((await send(id, pull(Number.MAX_SAFE_INTEGER, 50.5))).body).toMatchObject({ kept: 1 });
    expect((await send(id, pull(7, 51.5))).body).toMatchObject({ kept: 1 });
    expect((await send(id, pull(1, 52.5))).body).toMatchObject({ kept: 1 });
    expect((await instrument('W3')).last).toMatchObject({ n: 1, base: 52.5 });
    // The very same again at once is the answer that was lost; a while later it is another reading.
    expect((await send(id, pull(1, 52.5))).body).toMatchObject({ kept: 0, known: 1 });
    await database.query("UPDATE instrument_heard SET heard_at = now() - interval '11 minutes'");
    expect((await send(id, pull(1, 52.5))).body).toMatchObject({ kept: 1, known: 0 });
    // One that names its runs is never mistaken.
    expect((await send(id, pull(1, 52.5, { run: 'a' }))).body).toMatchObject({ kept: 1 });
    expect((await send(id, pull(1, 52.5, { run: 'b' }))).body).toMatchObject({ kept: 1 });
    await database.query("UPDATE instrument_heard SET heard_at = now() - interval '11 minutes'");
    expect((await send(id, pull(1, 52.5, { run: 'a' }))).body).toMatchObject({ kept: 0, known: 1 });
  });

  test('an instrument sends by its own key with nobody logged in; without it, or with another’s, it is refused', async () => {
    const { id } = await instrument('W7');
    const { key } = await oswin.made<{ key: string }>(`/instruments/${id}/key`, {});
    const nobody = new Client(server.base);
    const pull = JSON.stringify({ n: 1, value: 108.4, unit: 'N·m', angle: 45, taken: true });
    const as = (of: string, authorization: string): Promise<Answer<LinesView>> =>
      nobody.call<LinesView>('POST', `/instruments/${of}/lines`, pull, { 'content-type': 'application/x-ndjson', authorization });
    expect((await as(id, `Bearer ${key}`)).body).toEqual({ kept: 1, known: 0, refused: [] });
    expect((await as(id, 'Bearer guessed')).status).toBe(401);
    const { id: other } = await instrument('W3');
    expect((await as(other, `Bearer ${key}`)).status).toBe(401);
    expect((await nobody.call('POST', `/instruments/${id}/lines`, pull, { 'content-type': 'application/x-ndjson' })).status).toBe(401);
  });
});

describe('what must come first', () => {
  test('a seal’s place takes no new ring before the old one is out whole, and no act without a way back before its replacement is seen', async () => {
    const { id } = await ilka.booked((await ilka.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
    const fitted = entry('seal-fitted', { seal: 'inner-seal', directionSeen: true, lubricated: true, depths: [4], unit: 'mm' });
    const sheet = await ilka.get<JobView>(`/jobs/${id}`);
    const seal = sheet.sheet.file.seals[0]!.ref;
    const fit = (): Promise<Answer<unknown>> => ilka.post<unknown>(id, { ...fitted, payload: { ...fitted.payload, seal } });
    expect((await fit()).body).toMatchObject({ errors: [{ allowed: 'takes no new ring until the old one is ticked out whole' }] });
    await ilka.post(id, entry('old-seal-out', { seal, whole: false, words: 'half the lip is in there' }));
    expect((await fit()).status).toBe(400);
    await ilka.post(id, entry('old-seal-out', { seal, whole: true }));
    const seen = (what: string, fine = true): NewEntry => entry('seal-seen', { seal, what, fine, ...(fine ? {} : { words: 'nicked' }) });
    expect((await fit()).body).toMatchObject({ errors: [{ allowed: expect.stringContaining('looked at: bore clean, no gouge') }] });
    await ilka.post(id, seen('place'), seen('new', false));
    expect((await fit()).body).toMatchObject({ errors: [{ allowed: 'does not go in like that: nicked' }] });
    await ilka.post(id, seen('new'));
    expect((await fit()).status).toBe(200);

    const tensioner = await ilka.booked((await ilka.sheetKeyed('ostrel-bt2-belt-tensioner')).revisionId);
    const { steps, parts } = (await ilka.get<JobView>(`/jobs/${tensioner.id}`)).sheet.file;
    const final = steps.find(({ noWayBack, record }) => noWayBack && (record.kind === 'count' || record.kind === 'tick'))!;
    const part = final.record.counts?.[0]?.part ?? parts[0]!.ref;
    const act =
      final.record.kind === 'tick'
        ? entry('tick', {}, { step: final.ref })
        : entry('came-off', { part, name: part, count: 1 }, { step: final.ref });
    expect((await ilka.post(tensioner.id, act)).body).toMatchObject({ errors: [{ field: 'step', given: final.ref }] });
    const here = entry('replacement-here', { seen: 'new bearing on the bench' }, { step: final.ref });
    // Seen and done in one go, as a tablet that had no link sends it.
    expect((await ilka.post<AnyKeptEntry[]>(tensioner.id, here, act)).status).toBe(200);
  });

  test('an old part is not let go before the new one was held against it', async () => {
    const { id } = await ilka.jobNumbered(403);
    const old = { name: 'Oil seal', fate: 'scrap', compared: false };
    expect((await ilka.post(id, entry('old-part', old))).body).toMatchObject({
      errors: [{ field: 'entries[0].payload.fate', given: 'scrap' }],
    });
    expect((await ilka.post(id, entry('old-part', { ...old, compared: true }))).status).toBe(200);
  });
});

test('no more goes in again than came off, however many put it in at once', async () => {
  const { revisionId } = await ilka.sheetKeyed('harrowmere-th6-front-hub');
  const { id } = await ilka.booked(revisionId);
  const [line] = (await ilka.post<JobView['entries']>(id, entry('came-off', { name: 'Screw', count: 3 }))).body;
  const put = (count: number): Promise<Answer<unknown>> => ilka.post(id, entry('went-in', { line: line!.id, name: 'Screw', count }));
  const tries = await Promise.all([put(2), put(2), put(2)]);
  expect(tries.filter(({ status }) => status === 200)).toHaveLength(1);
  const refused = (await put(2)).body as Problem;
  expect(refused.errors?.[0]?.allowed).toContain('at most 1: 3 came off, 2 are in again');
  expect((await put(1)).status).toBe(200);
  expect((await ilka.post(id, entry('went-in', { line: crypto.randomUUID(), name: 'Screw', count: 1 }))).status).toBe(400);
});
