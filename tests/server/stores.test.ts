import { daysOn } from '@jubb/sheet';
import type { JobView, QuoteBody, QuoteView, SealLine, ShimLine, StockLine, SupplierOffer } from '@jubb/book';
import type {
  AnswerDue,
  BroughtView,
  ChangeLine,
  OfferView,
  OrderView,
  Problem,
  SentQuote,
  SessionView,
  ShopView,
  StockView,
  SupplierView,
} from '@jubb/wire';
import { createHash, randomBytes } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 as uuid } from 'uuid';
import { Client, entry, type Answer } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { jpeg } from '../kit/jpeg.ts';
import { startServer, type RunningServer } from '../kit/server.ts';
import { item, move, shelf } from '../kit/stock.ts';

let database: TestDatabase;
let server: RunningServer;
let perla: Client;
let ilka: Client;
let job: JobView;

beforeAll(async () => {
  database = await demoDatabase();
  server = await startServer(database.url);
  perla = await Client.as(server.base, 'perla');
  ilka = await Client.as(server.base, 'ilka');
  job = await perla.jobNumbered(403);
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

const told = (answer: Answer<Problem>): string =>
  `${answer.status} ${(answer.body.errors ?? []).map(({ field, allowed }) => `${field} ${allowed}`).join('; ')} ${answer.body.title}`;

describe('shelves', () => {
  test('two people cannot take the last one, however many try at once', async () => {
    const id = await shelf(perla, 3, { number: 'T-LAST' });
    const tries = await Promise.all(
      Array.from({ length: 12 }, (_, index) => (index % 2 ? perla : ilka).call('POST', `/stock/${id}/moves`, move('issue', 1))),
    );
    expect(tries.filter(({ status }) => status === 200)).toHaveLength(3);
    expect(tries.filter(({ status }) => status === 409)).toHaveLength(9);
    expect(await perla.get<StockView>(`/stock/${id}`)).toMatchObject({ onHand: 0, reserved: 0 });
  });

  test('what is kept for one job is not free for another, and goes out to its own', async () => {
    const id = await shelf(perla, 2, { number: 'T-KEPT' });
    await ilka.made(`/stock/${id}/moves`, move('reserve', 2, { jobId: job.id }));
    const other = await perla.jobNumbered(402);
    expect(told(await ilka.call('POST', `/stock/${id}/moves`, move('issue', 1, { jobId: other.id })))).toContain(
      'quantity must be at most 0',
    );
    expect(told(await ilka.call('POST', `/stock/${id}/moves`, move('release', 3, { jobId: job.id })))).toContain('must be at most 2');
    expect(await ilka.made<StockView>(`/stock/${id}/moves`, move('issue', 2, { jobId: job.id }))).toMatchObject({
      onHand: 0,
      reserved: 0,
      reservations: [],
    });
  });

  test('a movement sent twice is one; the same id for another one is refused', async () => {
    const id = await shelf(perla, 0, { number: 'T-TWICE' });
    const once = move('receive', 5);
    await perla.made(`/stock/${id}/moves`, once);
    expect(await perla.made<StockView>(`/stock/${id}/moves`, once)).toMatchObject({ onHand: 5 });
    expect((await perla.call('POST', `/stock/${id}/moves`, { ...once, quantity: 6 })).status).toBe(409);
  });

  test('whatever happens in whatever order, the shelf is what came less what went, and never under nothing', async () => {
    const id = await shelf(perla, 10, { number: 'T-SUM' });
    await Promise.all(
      Array.from({ length: 40 }, (_, index) => {
        const kind = (['issue', 'receive', 'reserve', 'issue'] as const)[index % 4]!;
        return ilka.call('POST', `/stock/${id}/moves`, move(kind, 1 + (index % 3), { ...(kind === 'receive' ? {} : { jobId: job.id }) }));
      }),
    );
    const line = await perla.get<StockView>(`/stock/${id}`);
    const sum = line.movements.reduce(
      (total, { kind, quantity }) => total + (kind === 'receive' ? quantity : kind === 'issue' ? -quantity : 0),
      0,
    );
    expect(line.onHand).toBe(sum);
    expect(line.onHand).toBeGreaterThanOrEqual(line.reserved);
    expect(line.reservations.reduce((total, { quantity }) => total + quantity, 0)).toBe(line.reserved);
  });

  test('a batch past its day, or with less in it, is not given out', async () => {
    const id = await shelf(perla, 0, { number: 'T-OIL', unit: 'L', kind: 'fluid' });
    await perla.made(`/stock/${id}/moves`, move('receive', 4, { batch: 'OLD', expires: '2025-01-31' }));
    await perla.made(`/stock/${id}/moves`, move('receive', 1.5, { batch: 'NEW', expires: '2031-01-31' }));
    expect(told(await ilka.call('POST', `/stock/${id}/moves`, move('issue', 1, { batch: 'OLD' })))).toContain('past its day');
    expect(told(await ilka.call('POST', `/stock/${id}/moves`, move('issue', 2, { batch: 'NEW' })))).toContain('there are 1.5');
    expect((await ilka.call('POST', `/stock/${id}/moves`, move('issue', 1.25, { batch: 'NEW' }))).status).toBe(200);
  });

  test.each([
    ['less than nothing', move('issue', -1), 'must not be under 0'],
    ['a thousand million', move('receive', 1e9), 'must be at most 1000000'],
    ['four decimals', move('receive', 0.0001), 'three decimals'],
    ['nothing', move('receive', 0), 'must be more than 0'],
    ['kept for nobody', move('reserve', 1), 'for which job'],
    ['stolen', { ...move('receive', 1), kind: 'steal' }, 'kind must be one of'],
  ])('%s is refused', async (_name, body, words) => {
    const [line] = await perla.get<StockLine[]>('/stock');
    expect(told(await perla.call('POST', `/stock/${line!.id}/moves`, body))).toContain(words);
  });

  test('a price with three decimals and a number that is there are refused by field', async () => {
    expect(told(await perla.call('POST', '/stock', { ...item('T-PRICE'), priceMinor: 12.5 }))).toContain(
      'priceMinor must be an amount of money',
    );
    const [line] = await perla.get<StockLine[]>('/stock');
    expect(told(await perla.call('POST', '/stock', item(line!.number)))).toContain('number is on the shelves already');
  });
});

test('a line that two change at once is changed by the first; the second is told what it is now', async () => {
  const id = await shelf(perla, 0, { number: 'T-BOTH' });
  const { version } = await perla.get<StockView>(`/stock/${id}`);
  const change = (location: string, at: number): Promise<Answer<StockView & Problem>> =>
    perla.call('PUT', `/stock/${id}`, { ...item('T-BOTH'), location, version: at });
  expect((await change('A1', version)).body).toMatchObject({ location: 'A1', version: version + 1 });
  expect(await change('B2', version)).toMatchObject({ status: 409, body: { current: { location: 'A1', version: version + 1 } } });
  // What lies there moves all day, and is no change of the line.
  await perla.made(`/stock/${id}/moves`, move('receive', 5));
  expect((await change('B2', version + 1)).body).toMatchObject({ location: 'B2', onHand: 5 });
  expect(told(await perla.call('PUT', `/stock/${id}`, item('T-BOTH')))).toContain('version');
});

test('what a count found short still goes to the job that it is kept for, as far as it is there', async () => {
  const id = await shelf(perla, 4, { number: 'T-SHORT' });
  const other = await perla.jobNumbered(402);
  await perla.made(`/stock/${id}/moves`, move('reserve', 2, { jobId: job.id }));
  await perla.made(`/stock/${id}/moves`, move('reserve', 2, { jobId: other.id }));
  await perla.made(`/stock/${id}/moves`, move('count', 1));
  expect(told(await perla.call('POST', `/stock/${id}/moves`, move('issue', 2, { jobId: job.id })))).toContain('at most 1');
  expect(told(await perla.call('POST', `/stock/${id}/moves`, move('issue', 1)))).toContain('at most 0');
  expect(await perla.made<StockView>(`/stock/${id}/moves`, move('issue', 1, { jobId: job.id }))).toMatchObject({ onHand: 0, reserved: 3 });
});

test('what an apprentice counts is what is there once somebody signs it', async () => {
  const id = await shelf(perla, 5, { number: 'T-COUNT' });
  const joss = await Client.as(server.base, 'joss');
  const counted = move('count', 3, { words: 'behind the box, too' });
  const waiting = await joss.made<StockView>(`/stock/${id}/moves`, counted);
  expect(waiting).toMatchObject({ onHand: 5, counts: [{ quantity: 3, person: 'Joss Hallick', words: 'behind the box, too' }] });
  // Sent again after a lost answer it is one.
  expect((await joss.made<StockView>(`/stock/${id}/moves`, counted)).counts).toHaveLength(1);
  const settle = (by: Client, take: boolean): Promise<Answer<StockView>> =>
    by.call<StockView>('POST', `/stock/counts/${waiting.counts[0]!.id}/settle`, { take });
  expect((await settle(joss, true)).status).toBe(403);
  const [one, other] = await Promise.all([settle(perla, true), settle(ilka, true)]);
  expect([one.status, other.status].toSorted()).toEqual([200, 409]);
  expect(await perla.get<StockView>(`/stock/${id}`)).toMatchObject({
    onHand: 3,
    counts: [],
    movements: [{ kind: 'count', person: 'Joss Hallick', words: expect.stringContaining('signed by') }, {}],
  });
  const again = await joss.made<StockView>(`/stock/${id}/moves`, move('count', 9));
  expect((await ilka.call<StockView>('POST', `/stock/counts/${again.counts[0]!.id}/settle`, { take: false })).body).toMatchObject({
    onHand: 3,
    counts: [],
  });
});

describe('shims', () => {
  const shim = (number: string, size: string): object => ({ ...item(number), kind: 'shim', size });

  test('stand by their thickness, whatever unit it was typed in; one without a thickness is refused', async () => {
    await perla.made('/stock', shim('T-SHIM-A', '0,35 mm'));
    await perla.made('/stock', shim('T-SHIM-B', '4 thou'));
    const shims = await ilka.get<ShimLine[]>('/stock/shims');
    const thick = (number: string): number | undefined => shims.find((line) => line.number === number)?.thicknessMm;
    expect([thick('T-SHIM-A'), thick('T-SHIM-B')]).toEqual([0.35, expect.closeTo(0.1016, 9)]);
    const all = shims.map(({ thicknessMm }) => thicknessMm);
    expect(all).toEqual(all.toSorted((one, other) => one - other));
    for (const size of ['thin', '0 mm', '-0.1 mm', '0.1 N·m', '90 mm'])
      expect(told(await perla.call('POST', '/stock', shim('T-SHIM-C', size)))).toContain('size must be the thickness');
  });
});

describe('the shop', () => {
  const book = {
    name: 'Skarrow Bench and Press',
    zone: 'Europe/Vienna',
    hourlyMinor: 7200,
    taxShare: 0.19,
    marginShare: 0.4,
    rules: [{ words: 'lip seal', why: 'rubber is cheap' }],
    pinDigits: 4,
  };

  test('its foreman changes what it asks and its rules, and everybody has them', async () => {
    const oswin = await Client.as(server.base, 'oswin');
    const { shop: before } = await ilka.get<SessionView>('/session');
    const { version, pinDigits } = before;
    expect((await oswin.call('PUT', '/shop', { ...book, version })).status).toBe(200);
    expect((await ilka.get<SessionView>('/session')).shop).toMatchObject({ ...book, version: version + 1 });
    expect(await oswin.call('PUT', '/shop', { ...book, hourlyMinor: 1, version })).toMatchObject({
      status: 409,
      body: { current: { hourlyMinor: 7200 } },
    });
    expect((await ilka.call('PUT', '/shop', { ...book, version })).status).toBe(403);
    expect(told(await oswin.call('PUT', '/shop', { ...book, version, taxShare: 1.2, rules: [{ words: ' ', why: 'x' }] }))).toMatch(
      /taxShare must be at most 100 %; rules\[0\]\.words is missing/u,
    );
    expect(told(await oswin.call('PUT', '/shop', { ...book, version: version + 1, name: ' ', zone: 'Moon/Crater' }))).toMatch(
      /name is missing.*zone is not a time zone/u,
    );
    const { name, zone, hourlyMinor, taxShare, marginShare, rules } = before;
    const back = { name, zone, hourlyMinor, taxShare, marginShare, rules, pinDigits, version: version + 1 };
    expect((await oswin.call('PUT', '/shop', back)).status).toBe(200);
  });
});

describe('orders', () => {
  const supplier = 'Tarnholt Trade Parts';
  /** An order with these numbers for the job, sent. */
  const ordered = async (...quantities: readonly number[]): Promise<{ order: Answer<OrderView>; numbers: readonly string[] }> => {
    const numbers = ['HT6-4407', 'HT6-K1', 'HT6-4401'].slice(0, quantities.length);
    const lines = quantities.map((quantity, index) => ({ id: uuid(), supplier, number: numbers[index], quantity, jobId: job.id }));
    const [open] = await perla.made<OrderView[]>('/orders/lines', { lines });
    return { order: await perla.call<OrderView>('POST', `/orders/${open!.id}/send`), numbers };
  };
  const fault = (name: string): Promise<unknown> => perla.call('PUT', `/suppliers/${encodeURIComponent(supplier)}/fault`, { fault: name });
  const holdOf = async (): Promise<JobView['hold']> => (await perla.get<JobView>(`/jobs/${job.id}`)).hold;
  const comeIn = async ({ id, notes }: OrderView): Promise<OrderView> =>
    perla.made<OrderView>(`/orders/${id}/goods-in`, { id: uuid(), lines: notes });

  test('pressed ten times at once it is ordered once, the job waits, and goes on when all of it is here', async () => {
    const { order } = await ordered(4, 1);
    const again = await Promise.all(Array.from({ length: 10 }, () => perla.call<OrderView>('POST', `/orders/${order.body.id}/send`)));
    expect(new Set(again.map(({ body }) => JSON.stringify(body.lines))).size).toBe(1);
    expect(await holdOf()).toMatchObject({ reason: 'parts' });
    await fault('part of it');
    const first = await perla.made<OrderView>(`/orders/${order.body.id}/deliver`, {});
    const half = await comeIn(first);
    expect(half.state).toBe('confirmed');
    expect(await holdOf()).toMatchObject({ reason: 'parts' });
    const rest = await comeIn(await perla.made<OrderView>(`/orders/${order.body.id}/deliver`, {}));
    expect(rest.state).toBe('delivered');
    expect(await holdOf()).toBeNull();
    const [line] = await perla.get<StockLine[]>('/stock?find=HT6-K1');
    expect((await perla.get<StockView>(`/stock/${line!.id}`)).reservations).toEqual([
      expect.objectContaining({ jobId: job.id, quantity: 1 }),
    ]);
  });

  test('an answer that got lost is asked for again, and nothing is ordered twice', async () => {
    await fault('time-out');
    const { order } = await ordered(2);
    expect(order.status).toBe(504);
    const orders = await perla.get<OrderView[]>('/orders');
    const sent = orders.find(({ state }) => state === 'sent')!;
    const answer = await perla.made<OrderView>(`/orders/${sent.id}/send`, {});
    expect(answer).toMatchObject({ state: 'confirmed', lines: [{ quantity: 2, confirmed: 2 }] });
    await comeIn(await perla.made<OrderView>(`/orders/${sent.id}/deliver`, {}));
  });

  test('an answer that got lost comes by itself a while later, though nobody asks', async () => {
    await fault('time-out');
    const { order } = await ordered(1);
    expect(order.status).toBe(504);
    const sent = (await perla.get<OrderView[]>('/orders')).find(({ state }) => state === 'sent')!;
    // The while is over.
    await database.query("UPDATE outbox SET next_at = now() WHERE reference = $1 AND kind = 'order' AND went_at IS NULL", [sent.id]);
    const state = async (): Promise<string | undefined> =>
      (await perla.get<OrderView[]>('/orders')).find(({ id }) => id === sent.id)?.state;
    for (const until = Date.now() + 15_000; Date.now() < until && (await state()) === 'sent';) await wait(200);
    expect(await state()).toBe('confirmed');
    expect((await database.query('SELECT tries, went_at IS NOT NULL AS went FROM outbox WHERE reference = $1', [sent.id])).rows).toEqual([
      { tries: 2, went: true },
    ]);
    await comeIn(await perla.made<OrderView>(`/orders/${sent.id}/deliver`, {}));
  });

  test('an order and the hold of its job, what came in and the end of the hold: both, or nothing of it', async () => {
    /** The database keeps no entry of a kind meanwhile. */
    const without = async (kind: string, work: () => Promise<void>): Promise<void> => {
      await database.query(`CREATE FUNCTION no_entry() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION 'not kept'; END $$`);
      await database.query(
        `CREATE TRIGGER no_entry BEFORE INSERT ON entry FOR EACH ROW WHEN (NEW.kind = '${kind}') EXECUTE FUNCTION no_entry()`,
      );
      try {
        await work();
      } finally {
        await database.query('DROP FUNCTION no_entry CASCADE');
      }
    };
    const lines = [{ id: uuid(), supplier, number: 'HT6-K1', quantity: 2, jobId: job.id }];
    const open = (await perla.made<OrderView[]>('/orders/lines', { lines }))[0]!;
    await without('hold', async () => {
      expect((await perla.call('POST', `/orders/${open.id}/send`)).status).toBe(500);
    });
    expect((await perla.get<OrderView[]>('/orders')).find(({ id }) => id === open.id)).toMatchObject({ state: 'open' });
    expect((await database.query('SELECT 1 FROM outbox WHERE reference = $1', [open.id])).rows).toEqual([]);
    await perla.made(`/orders/${open.id}/send`, {});
    expect(await holdOf()).toMatchObject({ reason: 'parts' });
    const { notes } = await perla.made<OrderView>(`/orders/${open.id}/deliver`, {});
    const [line] = await perla.get<StockLine[]>('/stock?find=HT6-K1');
    const body = { id: uuid(), lines: notes };
    await without('hold-off', async () => {
      expect((await perla.call('POST', `/orders/${open.id}/goods-in`, body)).status).toBe(500);
    });
    expect((await perla.get<StockView>(`/stock/${line!.id}`)).onHand).toBe(line!.onHand);
    expect(await perla.made<OrderView>(`/orders/${open.id}/goods-in`, body)).toMatchObject({ state: 'delivered' });
    expect((await perla.get<StockView>(`/stock/${line!.id}`)).onHand).toBe(line!.onHand + 2);
    expect(await holdOf()).toBeNull();
  });

  test('goods in name a line once, take in more with a word, and work when a count found the shelf short', async () => {
    const { order } = await ordered(2);
    const [before] = await perla.get<StockLine[]>('/stock?find=HT6-4407');
    await perla.made(`/stock/${before!.id}/moves`, move('count', 0));
    const { id: lineId, number } = order.body.lines[0]!;
    const bring = (...lines: readonly object[]): Promise<Answer<OrderView & Problem>> =>
      perla.call('POST', `/orders/${order.body.id}/goods-in`, { id: uuid(), lines });
    expect(told(await bring({ lineId, number, quantity: 1 }, { lineId, number, quantity: 1 }))).toContain(
      'lines[1].lineId must be named once',
    );
    expect(told(await bring({ lineId, number, quantity: 3 }))).toContain('must be at most 2, or say why');
    expect((await bring({ lineId, number, quantity: 3, why: 'the box holds three' })).body).toMatchObject({
      state: 'delivered',
      lines: [{ received: 3 }],
    });
    const line = await perla.get<StockView>(`/stock/${before!.id}`);
    expect(line.onHand).toBe(3);
    expect(line.movements.slice(0, 3)).toMatchObject([{ quantity: 1 }, { quantity: 2, jobNumber: job.number }, { kind: 'count' }]);
    expect(line.movements[0]?.words).toContain('more than was ordered: the box holds three');
    // Those that came for the job can be taken for it, though all that is kept is more than lies there.
    expect((await perla.call('POST', `/stock/${before!.id}/moves`, move('issue', 2, { jobId: job.id }))).status).toBe(200);
  });

  test('a confirmation for another quantity waits for a word; the wrong part goes back and the job waits on', async () => {
    await fault('other quantity');
    const { order, numbers } = await ordered(3);
    expect(order.body).toMatchObject({ state: 'differs', lines: [{ quantity: 3, confirmed: 4 }] });
    expect((await perla.call('POST', `/orders/${order.body.id}/deliver`)).status).toBe(409);
    await perla.made(`/orders/${order.body.id}/settle`, { asConfirmed: true });
    expect((await perla.call('POST', `/orders/${order.body.id}/settle`, { asConfirmed: true })).status).toBe(409);
    await fault('wrong part');
    const wrong = await comeIn(await perla.made<OrderView>(`/orders/${order.body.id}/deliver`, {}));
    expect(wrong).toMatchObject({ state: 'confirmed', lines: [{ quantity: 4, received: 0, returned: 4 }] });
    expect(await holdOf()).toMatchObject({ reason: 'parts' });
    const lineId = wrong.lines[0]!.id;
    const tooMany = await perla.call('POST', `/orders/${wrong.id}/goods-in`, {
      id: uuid(),
      lines: [{ lineId, number: numbers[0], quantity: 5 }],
    });
    expect(told(tooMany)).toContain('must be at most 4');
    expect(await comeIn(await perla.made<OrderView>(`/orders/${wrong.id}/deliver`, {}))).toMatchObject({ state: 'delivered' });
  });

  test('sold out: nothing is waited for, nothing can be delivered', async () => {
    await fault('sold out');
    const { order } = await ordered(1);
    expect(order.body).toMatchObject({ state: 'differs', lines: [{ confirmed: 0, due: null }] });
    expect(await perla.made<OrderView>(`/orders/${order.body.id}/settle`, { asConfirmed: true })).toMatchObject({
      state: 'delivered',
      lines: [],
    });
    expect((await perla.call('POST', `/orders/${order.body.id}/deliver`)).status).toBe(409);
    await fault('none');
  });

  test('a number that nobody has, and a mechanic who would order, are refused', async () => {
    const before = await perla.get<OrderView[]>('/orders');
    const lines = ['HT6-K1', 'NONE'].map((number) => ({ id: uuid(), supplier, number, quantity: 1 }));
    expect(told(await perla.call('POST', '/orders/lines', { lines }))).toContain('is not in the catalogue');
    // The one that it has is not ordered without the other.
    expect(await perla.get<OrderView[]>('/orders')).toEqual(before);
    const joss = await Client.as(server.base, 'joss');
    expect((await joss.call('POST', '/orders/lines', { lines: lines.slice(0, 1) })).status).toBe(403);
  });
});

describe('quotes', () => {
  const quote = (change: Partial<QuoteBody> = {}): QuoteBody => ({
    id: uuid(),
    to: '0555 0178',
    validUntil: daysOn('UTC', Date.now(), 5),
    taxShare: 0.2,
    findings: [{ words: 'Bearing journal', verdict: 'out', readings: [34.95], from: 34.98, to: 35, unit: 'mm' }],
    options: [
      {
        name: 'As planned',
        lines: [
          { sort: 'labour', what: 'Labour', quantity: 2.5, unitMinor: 6800 },
          { sort: 'part', what: 'Brake hose', quantity: 1, unitMinor: 2333, optional: true, safety: true },
          { sort: 'part', what: 'Dust cap', quantity: 1, unitMinor: 700, optional: true },
        ],
      },
      { name: 'Only what must', lines: [{ sort: 'labour', what: 'Labour', quantity: 1, unitMinor: 6800 }] },
    ],
    ...change,
  });
  /** Sends a quote on a job of its own and gives the token of its link. */
  const sent = async (change: Partial<QuoteBody> = {}): Promise<{ token: string; own: JobView; guest: Client }> => {
    const { revisionId } = await perla.sheetKeyed('harrowmere-th6-front-hub');
    const { id } = await perla.booked(revisionId);
    const body = quote(change);
    const { link } = await perla.made<SentQuote>(`/jobs/${id}/quotes`, body);
    // Sent twice by a lost answer, it is one quote and one message; the link is not said again.
    expect(await perla.made<SentQuote>(`/jobs/${id}/quotes`, body)).toMatchObject({ quotes: [{}], link: null });
    return { token: link!.replace('/q/', ''), own: await perla.get<JobView>(`/jobs/${id}`), guest: new Client(server.base) };
  };
  const yes = { answer: 'yes', option: 0, without: [1, 2] };

  test('a customer without a log-in reads it, says yes without two lines, and the job goes on', async () => {
    const { token, own, guest } = await sent();
    expect(own.hold).toMatchObject({ reason: 'answer' });
    const offer = await guest.get<OfferView>(`/offers/${token}`);
    expect(JSON.stringify(offer)).not.toContain('0555 0178');
    const due = async (): Promise<AnswerDue | undefined> =>
      (await perla.get<readonly AnswerDue[]>('/quotes/open')).find(({ jobId }) => jobId === own.id);
    expect(await due()).toMatchObject({
      jobNumber: own.number,
      number: offer.number,
      validUntil: daysOn('UTC', Date.now(), 5),
      asked: null,
    });
    const answered = await guest.made<OfferView>(`/offers/${token}/answer`, yes);
    expect(answered.state).toBe('yes');
    expect(await due()).toBeUndefined();
    const after = await perla.get<JobView>(`/jobs/${own.id}`);
    expect(after.hold).toBeNull();
    // 2.5 h at 68.00, 20 % tax; the hose was told for safety, the cap is owed.
    expect(after.entries.find(({ kind }) => kind === 'answered')?.payload).toMatchObject({ answer: 'yes', grossMinor: 20_400 });
    expect(after.entries.find(({ kind }) => kind === 'finding')?.payload).toMatchObject({
      text: expect.stringContaining('Told the customer, and declined: Brake hose'),
    });
    expect(after.entries.find(({ kind }) => kind === 'owed')?.payload).toMatchObject({ what: 'Dust cap' });
  });

  test('answered twice: the same again is taken once, another word is refused, a question may become a yes', async () => {
    const { token, own, guest } = await sent();
    expect(told(await guest.call('POST', `/offers/${token}/answer`, { answer: 'ask', without: [] }))).toContain(
      'what would you like to know',
    );
    await guest.made(`/offers/${token}/answer`, { answer: 'ask', without: [], words: 'How long?' });
    const both = await Promise.all([1, 2, 3].map(() => guest.call('POST', `/offers/${token}/answer`, yes)));
    expect(both.map(({ status }) => status)).toEqual([200, 200, 200]);
    expect((await guest.call('POST', `/offers/${token}/answer`, { answer: 'no', without: [] })).status).toBe(409);
    const { entries } = await perla.get<JobView>(`/jobs/${own.id}`);
    expect(entries.filter(({ kind }) => kind === 'answered')).toHaveLength(2);
  });

  test('a line that may not be left out, and an option that is not there, are refused', async () => {
    const { token, guest } = await sent();
    expect(told(await guest.call('POST', `/offers/${token}/answer`, { ...yes, without: [0] }))).toContain('cannot be left out');
    expect(told(await guest.call('POST', `/offers/${token}/answer`, { ...yes, option: 2 }))).toContain('must be one of the 2 options');
  });

  test('a long question with a line left out is taken whole: the word, what is owed, and the hold, or nothing of it', async () => {
    const { token, own, guest } = await sent();
    const words = 'w'.repeat(1000);
    const answered = await guest.made<OfferView>(`/offers/${token}/answer`, { ...yes, words });
    expect(answered.state).toBe('yes');
    const { hold, entries } = await perla.get<JobView>(`/jobs/${own.id}`);
    expect(hold).toBeNull();
    expect(entries.find(({ kind }) => kind === 'owed')?.payload).toMatchObject({ what: 'Dust cap', told: words });
    expect(told(await guest.call('POST', `/offers/${token}/answer`, { answer: 'no', without: [], words: `${words}!` }))).toContain(
      'too long',
    );
  });

  test('an answer whose entries cannot be kept is no answer, also the second time', async () => {
    const { token, own, guest } = await sent();
    const { body } = (await database.query('SELECT body FROM quote WHERE job_id = $1', [own.id])).rows[0] as { body: QuoteBody };
    // A line longer than an entry may be, as no page of today writes it.
    body.options[0]!.lines[2]!.what = 'x'.repeat(400);
    await database.query('UPDATE quote SET body = $2 WHERE job_id = $1', [own.id, body]);
    for (let tries = 0; tries < 2; tries += 1) expect((await guest.call('POST', `/offers/${token}/answer`, yes)).status).toBe(400);
    expect((await guest.get<OfferView>(`/offers/${token}`)).state).toBe('sent');
    const { hold, entries } = await perla.get<JobView>(`/jobs/${own.id}`);
    expect(hold).toMatchObject({ reason: 'answer' });
    expect(entries.filter(({ kind }) => kind === 'answered')).toHaveLength(0);
  });

  test('the link is nowhere but with whoever was told it; a new one ends it', async () => {
    const { token, own, guest } = await sent();
    const everything = (await database.query('SELECT q::text AS row FROM quote q UNION ALL SELECT m::text FROM message m')).rows as {
      row: string;
    }[];
    expect(everything.filter(({ row }) => row.includes(token))).toEqual([]);
    const [quoted] = await perla.get<QuoteView[]>(`/jobs/${own.id}/quotes`);
    const { link } = await perla.made<SentQuote>(`/jobs/${own.id}/quotes/${quoted!.id}/link`, {});
    expect((await guest.call('GET', `/offers/${token}`)).status).toBe(404);
    expect((await guest.get<OfferView>(`/offers/${link!.replace('/q/', '')}`)).state).toBe('sent');
  });

  test('a link that was taken back opens nothing, a new one does; only the customer answers', async () => {
    const { own, token, guest } = await sent();
    const [quoted] = await perla.get<QuoteView[]>(`/jobs/${own.id}/quotes`);
    const link = `/jobs/${own.id}/quotes/${quoted!.id}/link`;
    expect((await ilka.call('DELETE', link)).status).toBe(200);
    expect((await guest.call('GET', `/offers/${token}`)).status).toBe(404);
    expect((await guest.call('POST', `/offers/${token}/answer`, yes)).status).toBe(404);
    const { link: fresh } = await perla.made<SentQuote>(link, {});
    const answer = `/offers/${fresh!.replace('/q/', '')}/answer`;
    // Whoever is logged in here gives no customer's word, even with the link in hand.
    expect(await perla.call('POST', answer, yes)).toMatchObject({ status: 403, body: { title: 'Only the customer answers here' } });
    expect((await guest.call('POST', answer, yes)).status).toBe(200);
  });

  test('two quotes sent at once: one of them is good', async () => {
    const { revisionId } = await perla.sheetKeyed('harrowmere-th6-front-hub');
    const { id } = await perla.booked(revisionId);
    await Promise.all([1, 2, 3].map(() => perla.made(`/jobs/${id}/quotes`, quote())));
    const states = (await perla.get<QuoteView[]>(`/jobs/${id}/quotes`)).map(({ state }) => state);
    expect(states.filter((state) => state !== 'replaced')).toHaveLength(1);
  });

  test('a newer quote takes the place of one that had its yes: it is asked again', async () => {
    const { token, own, guest } = await sent();
    await guest.made(`/offers/${token}/answer`, yes);
    await perla.made(`/jobs/${own.id}/quotes`, quote());
    // The old link ended with its quote.
    expect((await guest.call('GET', `/offers/${token}`)).status).toBe(410);
    expect((await guest.call('POST', `/offers/${token}/answer`, { answer: 'no', without: [] })).status).toBe(410);
    expect((await perla.get<JobView>(`/jobs/${own.id}`)).hold).toMatchObject({ reason: 'answer' });
  });

  test('a picture of the job is behind the link, and nothing else is', async () => {
    const bytes = await jpeg(64);
    const file = createHash('sha256').update(bytes).digest('hex');
    const shown = { file, words: 'The race', width: 400, height: 300 };
    const { revisionId } = await perla.sheetKeyed('harrowmere-th6-front-hub');
    const { id } = await perla.booked(revisionId);
    expect(told(await perla.call('POST', `/jobs/${id}/quotes`, quote({ pictures: [shown] })))).toContain('must be a photo of this job');
    const octets = { 'content-type': 'application/octet-stream' };
    expect((await ilka.call('PUT', `/files/${file}?at=0&total=${bytes.length}`, bytes, octets)).body).toMatchObject({ whole: true });
    expect((await ilka.post(id, entry('photo', { file, words: 'The race', width: 400, height: 300 }))).status).toBe(200);
    const sentWith = await perla.made<SentQuote>(`/jobs/${id}/quotes`, quote({ pictures: [shown] }));
    const link = `${server.base}/api/v1/offers/${sentWith.link!.replace('/q/', '')}/pictures`;
    const seen = await fetch(`${link}/${file}`);
    expect(seen.headers.get('content-type')).toBe('image/jpeg');
    expect([...Buffer.from(await seen.arrayBuffer()).subarray(0, 3)]).toEqual([0xff, 0xd8, 0xff]);
    expect((await fetch(`${link}/${'0'.repeat(64)}`)).status).toBe(404);
    expect((await fetch(`${server.base}/api/v1/files/${file}`)).status).toBe(401);
  });

  test('the shop’s logo stands behind the link and on the report; only a picture, and only by the foreman', async () => {
    const oswin = await Client.as(server.base, 'oswin');
    const bytes = await jpeg(96);
    const file = createHash('sha256').update(bytes).digest('hex');
    const octets = { 'content-type': 'application/octet-stream' };
    await oswin.call('PUT', `/files/${file}?at=0&total=${bytes.length}`, bytes, octets);
    const { token, own, guest } = await sent();
    const { shop } = await oswin.get<SessionView>('/session');
    const report = async (): Promise<Buffer> =>
      Buffer.from(
        await (await fetch(`${server.base}/api/v1/jobs/${own.id}/report.pdf`, { headers: { cookie: oswin.cookie } })).arrayBuffer(),
      );
    const plain = await report();
    expect((await guest.call('GET', `/offers/${token}/pictures/${file}`)).status).toBe(404);
    expect((await perla.call('PUT', '/shop/logo', { version: shop.version, file })).status).toBe(403);
    expect(told(await oswin.call('PUT', '/shop/logo', { version: shop.version, file: 'logo.png' }))).toContain('file must be a SHA-256');
    const put = await oswin.call<ShopView>('PUT', '/shop/logo', { version: shop.version, file });
    expect(put.body).toMatchObject({ logo: file, version: shop.version + 1 });
    expect((await oswin.call('PUT', '/shop/logo', { version: shop.version, file: null })).status).toBe(409);
    expect(await guest.get<OfferView>(`/offers/${token}`)).toMatchObject({ logo: file });
    expect((await fetch(`${server.base}/api/v1/offers/${token}/pictures/${file}`)).headers.get('content-type')).toBe('image/jpeg');
    // A JPEG is put into a PDF as it is (ISO 32000-1, 7.4.8).
    expect((await report()).toString('latin1').split('/DCTDecode').length).toBe(plain.toString('latin1').split('/DCTDecode').length + 1);
    // One that is still on its tablet is left out of the report, until it comes.
    await oswin.call('PUT', '/shop/logo', { version: shop.version + 1, file: '0'.repeat(64) });
    expect((await report()).subarray(0, 5).toString()).toBe('%PDF-');
    await oswin.call('PUT', '/shop/logo', { version: shop.version + 2, file: null });
    expect((await guest.call('GET', `/offers/${token}/pictures/${file}`)).status).toBe(404);
  });

  test.each([
    [{ taxShare: 1.01 }, 'taxShare must be at most 100 %'],
    [{ validUntil: '2020-01-01' }, 'validUntil must not be over already'],
    [{ options: [] }, 'options needs at least one option'],
    [
      { options: [{ name: 'x', lines: [{ sort: 'part' as const, what: 'Ring', quantity: 1, unitMinor: 1.125 }] }] },
      'must be an amount of money',
    ],
  ])('%j is refused', async (change, words) => {
    expect(told(await perla.call('POST', `/jobs/${job.id}/quotes`, quote(change)))).toContain(words);
  });

  test('a link tried again and again is shut, and a right one is not found by trying', async () => {
    const guest = new Client(server.base);
    const tries: number[] = [];
    for (let count = 0; count < 60; count += 1)
      tries.push((await guest.call('GET', `/offers/${randomBytes(24).toString('base64url')}`)).status);
    expect(tries.slice(0, 20)).toEqual(Array.from({ length: 20 }, () => 404));
    expect(new Set(tries.slice(20))).toEqual(new Set([429]));
  });
});

describe('rubber on the shelf', () => {
  const cured = (yearsAgo: number): string => daysOn('UTC', Date.now(), -Math.round(yearsAgo * 365.25));
  const ring = { kind: 'o-ring', size: '21 x 2.65', material: 'NBR', shore: 70, location: 'R9-1' };

  test('lies well by its material and the day it was cured, and is offered no longer', async () => {
    const id = await shelf(perla, 0, { number: 'T-RING', ...ring });
    const good = await perla.made<StockView>(`/stock/${id}/moves`, move('receive', 10, { cured: cured(3) }));
    // ISO 2230, group B: seven years from the cure.
    expect(good.batches).toEqual([
      { batch: `cured ${cured(3)}`, expires: `${Number(cured(3).slice(0, 4)) + 7}${cured(3).slice(4)}`, onHand: 10 },
    ]);
    const offered = async (): Promise<SealLine | undefined> =>
      (await ilka.get<SealLine[]>('/stock/seals')).find(({ number }) => number === 'T-RING');
    expect(await offered()).toMatchObject({ usable: 10, material: 'NBR', shore: 70, until: good.batches[0]!.expires });
    // What was looked at has a day of its own; past it none is offered, and none goes out.
    const gone = await shelf(perla, 0, { number: 'T-OLD', ...ring });
    const yesterday = daysOn('UTC', Date.now(), -2);
    await perla.made(`/stock/${gone}/moves`, move('receive', 5, { batch: 'old', expires: yesterday }));
    expect((await ilka.get<SealLine[]>('/stock/seals')).map(({ number }) => number)).not.toContain('T-OLD');
    expect(told(await ilka.call('POST', `/stock/${gone}/moves`, move('issue', 1, { batch: 'old' })))).toContain('past its day');
    expect(told(await ilka.call('POST', `/stock/${gone}/moves`, move('issue', 1)))).toContain(
      'quantity must be at most 0: the rest is past its day',
    );
    await perla.made(`/stock/${gone}/moves`, move('receive', 3, { cured: cured(1) }));
    expect((await ilka.get<SealLine[]>('/stock/seals')).find(({ number }) => number === 'T-OLD')).toMatchObject({ usable: 3, onHand: 8 });
    expect((await ilka.call('POST', `/stock/${gone}/moves`, move('issue', 4))).status).toBe(400);
    expect((await ilka.call('POST', `/stock/${gone}/moves`, move('issue', 3))).status).toBe(200);
  });

  test('what is past its years, not cured yet, or of no rubber that is known is refused at the day', async () => {
    const id = await shelf(perla, 0, { number: 'T-RING-2', ...ring });
    const into = async (item: string, more: object): Promise<string> =>
      told(await perla.call('POST', `/stock/${item}/moves`, move('receive', 1, more)));
    expect(await into(id, { cured: cured(8) })).toMatch(/^400 cured is past the 7 years that NBR lies well/u);
    expect(await into(id, { cured: daysOn('UTC', Date.now(), 5) })).toContain('must not lie ahead');
    expect(await into(id, { cured: '3Q21' })).toMatch(/^400 cured /u);
    const plain = await shelf(perla, 0, { number: 'T-RING-3' });
    expect(await into(plain, { cured: cured(1) })).toContain('say until when it is good');
    expect((await perla.call('POST', '/stock', { ...item('T-RING-4'), ...ring, material: 'rubber' })).status).toBe(400);
  });
});

describe('a supplier of the shop’s own', () => {
  const NAME = 'Bolt House & Sons / North';
  const reached = { email: 'orders@bolts.example', phone: '+43 1 555', account: 'K-204', leadDays: 4 };
  const at = `/suppliers/${encodeURIComponent(NAME)}`;
  const want = (line: object): Promise<Answer<OrderView[] & Problem>> =>
    perla.call('POST', '/orders/lines', { lines: [{ id: uuid(), supplier: NAME, number: 'B-1', quantity: 10, ...line }] });

  test('is put in once, changed by version, and kept among what was changed', async () => {
    const made = await perla.made<SupplierView>('/suppliers', { name: NAME, ...reached });
    expect(made).toMatchObject({ name: NAME, byHand: true, items: 0, isGone: false, version: 1, ...reached });
    expect(told(await perla.call('POST', '/suppliers', { name: NAME, leadDays: 3 }))).toMatch(/^400 name is there already/u);
    expect(told(await perla.call('POST', '/suppliers', { name: 'X', leadDays: 3, email: 'bolts' }))).toContain('email must be an e-mail');
    const changed = await perla.call<SupplierView>('PUT', at, { ...reached, leadDays: 5, isGone: false, version: 1 });
    expect(changed.body).toMatchObject({ leadDays: 5, version: 2 });
    expect((await perla.call('PUT', at, { ...reached, isGone: false, version: 1 })).status).toBe(409);
    const oswin = await Client.as(server.base, 'oswin');
    const [last] = await oswin.get<readonly ChangeLine[]>('/changes?find=bolt');
    expect(last).toMatchObject({ what: 'supplier', subject: NAME, fields: [{ field: 'days', before: '4', after: '5' }] });
    // The stand-in's books are its own, and it plays nobody who is real.
    const suppliers = await perla.get<readonly SupplierView[]>('/suppliers');
    const demo = suppliers.find(({ byHand }) => !byHand)!;
    expect((await perla.call('PUT', `/suppliers/${encodeURIComponent(demo.name)}`, { ...reached, isGone: false, version: 1 })).status).toBe(
      404,
    );
    expect((await perla.call('PUT', `${at}/fault`, { fault: 'sold out' })).status).toBe(404);
  });

  test('what is ordered there is known from then on; what is not known asks for its price', async () => {
    expect(told(await want({}))).toContain('priceMinor is missing: what does one cost');
    expect(told(await want({ priceMinor: 45 }))).toContain('name is missing');
    // As it was typed, with a blank behind it: it is the same number.
    expect((await want({ number: ' B-1 ', priceMinor: 45, name: 'Stud' })).status).toBe(200);
    expect((await want({})).body[0]!.lines).toMatchObject([
      { number: 'B-1', name: 'Stud', priceMinor: 45, quantity: 10 },
      { number: 'B-1', priceMinor: 45, quantity: 10 },
    ]);
    // Prices come in as a list too, and a row that says nothing new says so.
    const oswin = await Client.as(server.base, 'oswin');
    const rows = [
      { supplier: NAME, number: 'B-1', name: '', price: '0,50' },
      { supplier: NAME, number: 'B-2', name: 'Washer', price: '0.05' },
      { supplier: 'Nobody', number: 'B-2', name: 'Washer', price: '0.05' },
      { supplier: NAME, number: 'B-3', name: '', price: 'cheap' },
    ];
    const brought = await oswin.made<BroughtView>('/lists', { list: 'prices', preview: false, rows });
    expect(brought.rows.map(({ act }) => act)).toEqual(['changed', 'made', 'refused', 'refused']);
    const again = await oswin.made<BroughtView>('/lists', { list: 'prices', preview: true, rows: rows.slice(0, 2) });
    expect(again.rows.map(({ act }) => act)).toEqual(['same', 'same']);
    expect((await perla.get<readonly SupplierOffer[]>(`${at}/items`)).map(({ number, priceMinor }) => [number, priceMinor])).toEqual([
      ['B-1', 50],
      ['B-2', 5],
    ]);
    expect((await perla.call('DELETE', `${at}/items/B-2`)).status).toBe(200);
    expect((await perla.call('DELETE', `${at}/items/B-2`)).status).toBe(404);
  });

  test('an order goes out, is confirmed and comes in by hand; the job that waits for it goes on', async () => {
    const waits = await perla.jobNumbered(402);
    const [order] = (await want({ number: 'B-9', name: 'Sleeve', priceMinor: 900, quantity: 2, jobId: waits.id })).body;
    const line = order!.lines.find(({ number }) => number === 'B-9')!;
    const confirmed = (quantity: number): object => ({
      lines: order!.lines.map(({ id, quantity: ordered }) => ({
        lineId: id,
        confirmed: id === line.id ? quantity : ordered,
        priceMinor: 880,
      })),
    });
    expect(told(await perla.call('POST', `/orders/${order!.id}/confirm`, confirmed(2)))).toMatch(/^409/u);
    expect((await perla.call<OrderView>('POST', `/orders/${order!.id}/send`)).body).toMatchObject({ state: 'sent', byHand: true });
    expect((await perla.get<JobView>(`/jobs/${waits.id}`)).hold).toMatchObject({ reason: 'parts' });
    expect((await perla.call('POST', `/orders/${order!.id}/deliver`)).status).toBe(404);
    const strange = { lines: [{ lineId: uuid(), confirmed: 1, priceMinor: 1 }] };
    expect(told(await perla.call('POST', `/orders/${order!.id}/confirm`, strange))).toContain('is not a line of this order');
    expect((await perla.call<OrderView>('POST', `/orders/${order!.id}/confirm`, confirmed(1))).body.state).toBe('differs');
    await perla.made(`/orders/${order!.id}/settle`, { asConfirmed: true });
    const open = await perla.get<OrderView[]>('/orders');
    const { lines } = open.find(({ id }) => id === order!.id)!;
    expect(lines.find(({ id }) => id === line.id)).toMatchObject({ quantity: 1, priceMinor: 880 });
    const came = lines.map(({ id, number, quantity }) => ({ lineId: id, number, quantity }));
    await perla.made(`/orders/${order!.id}/goods-in`, { id: uuid(), lines: came.slice(1) });
    const less = { lines: [{ lineId: came[1]!.lineId, confirmed: came[1]!.quantity - 1, priceMinor: 1 }] };
    expect(told(await perla.call('POST', `/orders/${order!.id}/confirm`, less))).toContain('so many are here');
    const all = await perla.call<OrderView>('POST', `/orders/${order!.id}/goods-in`, { id: uuid(), lines: came.slice(0, 1) });
    expect(all.body.state).toBe('delivered');
    expect((await perla.get<JobView>(`/jobs/${waits.id}`)).hold ?? null).toBeNull();
    // Nobody orders where nothing is ordered any more.
    await perla.call('PUT', at, { ...reached, isGone: true, version: 2 });
    expect(told(await want({}))).toContain('nothing is ordered any more');
  });
});
