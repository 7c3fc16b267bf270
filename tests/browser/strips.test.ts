import { isKind, jobState, type JobState, type JobView } from '@jubb/book';
import type { SheetFile, Step } from '@jubb/sheet';
import type { WayInView } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { stateOf } from '../kit/at-job.ts';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';
import { until } from '../kit/stream.ts';

const shop = ownShop();

/** The steps of a sheet's strip. */
const stripOf = ({ steps }: Pick<SheetFile, 'steps'>): readonly Step[] => steps.filter(({ stage }) => stage === 'strip');

/** A mechanic at bench view, who does what the large key says; a step that reads gets what `figure` gives. */
class Bench {
  readonly hand: Hand;
  readonly #figure: (step: string) => string;

  constructor(hand: Hand, figure: (step: string) => string) {
    this.hand = hand;
    this.#figure = figure;
  }

  /** What stands on the page: the step, what is counted, the large key. */
  #sight(): Promise<{ title: string; key: string; field: string; all: string }> {
    return this.hand.page.evaluate(() => {
      const key = document.querySelector<HTMLButtonElement>('.bench-keep .btn-primary');
      const title = document.querySelector<HTMLElement>('.bench h1')?.innerText ?? '';
      const field = document.querySelector<HTMLInputElement>('.bench-do input:focus')?.value ?? 'none';
      return { title, key: key?.disabled ? '' : (key?.innerText ?? ''), field, all: document.querySelector('.bench')?.innerHTML ?? '' };
    });
  }

  /** Does one act; tells what it was, and for which step. */
  async act(): Promise<{ title: string; key: string }> {
    await this.hand.page.waitForSelector('.bench-keep .btn');
    const { title, key, field, all } = await this.#sight();
    if (key.startsWith('It is here') || (key === '' && all.includes('No way back'))) {
      await this.hand.tabTo('What takes its place');
      await this.hand.type('new one, held against the old');
      await this.hand.press('Enter');
    } else if (all.includes('Stop here.')) await this.#lookedAt();
    else if (key === '' && all.includes('Now it can be seen')) await this.hand.press('1');
    else if (key === '' && field !== 'none') {
      await this.hand.type(this.#figure(title));
      // The screen shows that it was read before the next key.
      await this.hand.page.waitForFunction(() => !document.querySelector<HTMLButtonElement>('.bench-keep .btn-primary')?.disabled);
      await this.hand.press('Enter');
    } else if (key === '') throw new Error(`nothing can be pressed at "${title}":\n${await this.hand.text()}`);
    else await this.hand.press('PageDown');
    await this.hand.page
      .waitForFunction((before) => document.querySelector('.bench')?.innerHTML !== before, {}, all)
      .catch(async () => {
        throw new Error(`"${key}" does nothing at "${title}"; the page says:\n${await this.hand.text()}`);
      });
    return { title, key };
  }

  /** The foreman looks at what is done, at a tablet of their own. */
  async #lookedAt(): Promise<void> {
    const foreman = await Client.as(shop.server.base, 'oswin');
    const id = new URL(this.hand.page.url()).pathname.split('/').at(-1)!;
    let step: string | undefined;
    // What was done is on its way.
    await until(async () => {
      step = (await stateOf(foreman, id)).steps.find(({ holds }) => holds)?.step.ref;
      return step !== undefined;
    });
    expect((await foreman.post(id, entry('hold-met', { seen: 'as it should be' }, { step: step! }))).status).toBe(200);
    await this.hand.page.waitForFunction(() => !document.body.innerText.includes('Stop here.'));
  }

  /** Goes on until the strip is done, or until `stop` says so. */
  async strip(stop: (title: string) => boolean = () => false): Promise<void> {
    for (let acts = 0; acts < 200; acts += 1) {
      const { title } = await this.#sight();
      if (title.startsWith('Strip is done') || stop(title)) return;
      await this.act();
    }
    throw new Error('the strip comes to no end');
  }
}

/** Two tablets at one job, and the job as the server has it. */
async function twoTablets(key: string): Promise<{ a: Hand; b: Hand; job: () => Promise<JobView>; state: () => Promise<JobState> }> {
  const api = await Client.as(shop.server.base, 'ilka');
  const { id } = await api.bookedOn(key);
  const first = stripOf((await api.get<JobView>(`/jobs/${id}`)).sheet.file)[0]!;
  await api.workTo(id, first.ref);
  const job = (): Promise<JobView> => api.get<JobView>(`/jobs/${id}`);
  const [a, b] = await Promise.all(
    ['ilka', 'bram'].map(async (login) => {
      const hand = await Hand.at(shop.screen.browser, shop.server.base, `/bench/${id}`, { keeps: true });
      await hand.logIn(login);
      await hand.page.waitForFunction(() => navigator.serviceWorker.controller !== null);
      await hand.go(`/bench/${id}`);
      await hand.page.waitForSelector('.bench h1');
      return hand;
    }),
  );
  const state = async (): Promise<JobState> => {
    const view = await job();
    return jobState(view.sheet.file, view.entries);
  };
  return { a: a!, b: b!, job, state };
}

const isSent = (hand: Hand): Promise<unknown> =>
  hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.bench [role="status"]')?.innerText === 'live');

/** What the sheet wants counted in the strip of this job, by part: its steps for the place it is done at, and its ways. */
function onSheet({ sheet, entries }: JobView): Map<string, number> {
  const inForce = jobState(sheet.file, entries).sheet;
  const counts = stripOf(inForce).flatMap(({ record }) => record.counts ?? []);
  const byPart = new Map<string, number>();
  for (const { part, count } of counts) byPart.set(part, (byPart.get(part) ?? 0) + count);
  return byPart;
}

test('a loose-ball hub with the network cut half-way: nine balls a side, and the side that two tablets counted is settled by a person', async () => {
  const { a, b, job, state } = await twoTablets('tindlebrook-cc1-loose-ball-hub');
  const ilka = new Bench(a, () => '30');
  await ilka.strip((title) => title.startsWith('Balls out, left'));
  await isSent(a);
  await b.heads('Balls out, left');

  await a.cut(true);
  await ilka.strip();
  await a.sees('held, no link');
  // Bram, who knows nothing of that, counts the left side too, and finds one more.
  const bram = new Bench(b, () => '30');
  if ((await b.text()).includes('I have read it')) await bram.act();
  await b.sees('9 came off');
  await b.press('+', 'Space');
  await b.page.waitForFunction(() => document.querySelector('.count-name')?.textContent === 'Dust seals');
  await isSent(b);

  await a.cut(false);
  await isSent(a);
  await a.sees('Counted twice');
  expect((await state()).conflicts).toMatchObject([{ entries: [{ payload: { count: 10 } }, { payload: { count: 9 } }] }]);
  await a.use('9 Ilka');
  await a.page.waitForFunction(() => !document.body.innerText.includes('Counted twice'));
  await isSent(a);
  expect(await a.faults()).toEqual([]);

  const settled = await state();
  expect(settled.conflicts).toEqual([]);
  const balls = settled.reconcile.filter(({ key }) => key.startsWith('balls-'));
  expect(balls.map(({ key, expected }) => [key, expected])).toEqual([
    ['balls-left', 9],
    ['balls-right', 9],
  ]);
  expect(new Map(settled.reconcile.map(({ key, expected }) => [key, expected]))).toEqual(onSheet(await job()));
});

test('a refrigerant compressor: its valve-plate pack is kept whole, then opened with no link, each plate by its direction', async () => {
  const { a, b, job, state } = await twoTablets('askvale-rx10-refrigerant-compressor');
  const ilka = new Bench(a, () => '3');
  await ilka.strip((title) => title.startsWith('Head'));
  await isSent(a);

  await a.cut(true);
  // The pack as one line, by the key for a line of one's own; what came out of it as it is opened on the job page.
  await a.press('l');
  await a.tabTo('Came off, but not on the sheet');
  await a.type('valve-plate pack, small port up, marked paint line across, stack: Head');
  await a.press('Enter');
  await a.sees('valve-plate pack');
  await a.press('Escape');
  await ilka.strip();
  const { id } = await job();
  await a.go(`/jobs/${id}/strip`);
  await a.use('Take apart: valve-plate pack');
  for (const plate of ['suction reed, bevel up', 'plate, small port up', 'discharge reed, notch up']) {
    await a.sees('Out of the valve-plate pack');
    await a.fill('Out of the valve-plate pack', plate);
    await a.press('Enter');
    await a.sees(plate.split(',')[0]!);
  }
  // Bram notes what he sees meanwhile: both go into one book.
  await b.press('k');
  await b.page.waitForSelector('.modal');
  await b.press('1');
  await b.fill('What is seen', 'reed chipped at the corner');
  await b.press('Enter');
  await isSent(b);

  await a.cut(false);
  await a.page.waitForFunction(() => document.querySelector<HTMLElement>('.topbar [role="status"]')?.innerText === 'live');
  expect(await a.faults()).toEqual([]);
  const settled = await state();
  const pack = settled.ledger.find(({ payload }) => payload.name === 'valve-plate pack')!;
  expect(pack.payload).toMatchObject({ count: 1, direction: 'small port up', stack: 'Head' });
  const inner = settled.ledger.filter(({ payload }) => payload.inside === pack.id).map(({ payload }) => [payload.name, payload.direction]);
  expect(inner).toEqual([
    ['suction reed', 'bevel up'],
    ['plate', 'small port up'],
    ['discharge reed', 'notch up'],
  ]);
  const counted = new Map(settled.reconcile.flatMap(({ part, expected }) => (part === undefined ? [] : [[part, expected] as const])));
  expect(counted).toEqual(onSheet(await job()));
  expect(settled.live.filter(isKind('finding')).at(-1)?.payload).toMatchObject({ sort: 'damage' });
  // What was marked waits to be met.
  expect(settled.marks.map(({ mark }) => mark)).toEqual(
    expect.arrayContaining(['paint line, head to body', 'paint line, coil pin to its hole']),
  );
});

test('a gearbox case: 26 screws of three lengths, stripped by two tablets of which one has no link', async () => {
  const { a, b, job, state } = await twoTablets('askvale-gx5-gearbox');
  const ilka = new Bench(a, () => '0.2');
  await ilka.strip((title) => title.startsWith('Case open'));
  await isSent(a);
  await b.heads('Case open');

  await a.cut(true);
  await ilka.strip();
  // The other one has the link and goes on with what only he can see: a hose, off and to be put back.
  await b.press('g');
  await b.page.waitForSelector('.modal');
  await b.press('2');
  await b.fill('What', 'breather hose');
  await b.fill('How it runs', 'over the mount, behind the loom');
  await b.press('Enter');
  await isSent(b);
  await a.cut(false);
  await isSent(a);

  const settled = await state();
  const screws = settled.ledger.filter(({ payload }) => payload.part === 'case-screws').map(({ payload }) => [payload.size, payload.count]);
  expect(screws).toEqual([
    ['60 mm', 4],
    ['45 mm', 14],
    ['30 mm', 8],
  ]);
  expect(settled.reconcile.find(({ key }) => key === 'case-screws')?.expected).toBe(26);
  expect(new Map(settled.reconcile.map(({ key, expected }) => [key, expected]))).toEqual(onSheet(await job()));
  expect(settled.moved).toMatchObject([{ what: 'breather hose', how: 'aside' }]);
  // Both tablets end with the same book.
  await b.heads('Strip is done');
});

test('what is in the way of a machine is offered at the bench, goes back counted and pulled, and stays for its next unit', async () => {
  const ilka = await Client.as(shop.server.base, 'ilka');
  const machine = { name: 'Snow blower 9', serial: 'SB-9' };
  const { id } = await ilka.bookedOn('quennet-ga-alternator', { machine });
  const { machine: booked, sheet } = await ilka.get<JobView>(`/jobs/${id}`);
  await ilka.workTo(id, stripOf(sheet.file)[0]!.ref);
  const path = `/machines/${booked.id}/way-in`;
  const guard = { what: 'Belt guard', how: 'off', screws: 4, size: 'M8 × 20', torque: 25 };
  const tension = { upsets: 'tension', what: 'give of the belt, half-way', readAs: 'length', from: 8, to: 12 };
  const belt = { what: 'Drive belt', how: 'off', routing: 'under the idler', minutes: 6, makes: tension };
  await ilka.call('PUT', path, { version: 0, lines: [guard, belt] });

  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/bench/${id}`);
  await hand.logIn('ilka');
  await hand.go(`/bench/${id}`);
  await hand.page.waitForSelector('.bench-keep .btn');
  // The key is the same before and after it is known what is in the way.
  await until(async () => {
    await hand.press('g');
    const heading = await hand.page.waitForSelector('.modal h2').then((one) => one?.evaluate((node) => node.textContent));
    if (heading?.includes('In the way')) return true;
    await hand.press('Escape');
    await hand.page.waitForSelector('.modal', { hidden: true });
    return false;
  });
  await hand.use('It is out of the way: Belt guard');
  await hand.use('It is out of the way: Drive belt');
  // One screw short is said at once, and is not kept.
  await hand.use('It is back: Belt guard');
  await hand.fill('Counted back in: 4 × M8 × 20', '3');
  await hand.sees('4 came out. Find the others first.');
  await hand.press('Enter');
  await hand.fill('Counted back in: 4 × M8 × 20', '4');
  await hand.fill('Pulled to, 25 N·m is written down', '25');
  await hand.press('Enter');
  await hand.use('It is back: Drive belt');
  await hand.fill('Read: give of the belt, half-way', '15');
  await hand.press('Enter');
  await hand.sees('read 15 mm, which is not right yet');
  await hand.fill('Read: give of the belt, half-way', '10');
  await hand.press('Enter');
  // What nobody had written down yet.
  await hand.use('Something else was moved');
  await hand.page.waitForSelector('.way-pick');
  await hand.press('1');
  await hand.fill('What', 'Heat shield');
  await hand.fill('It upsets', 'a line');
  await hand.fill('What is read once it is back', 'gap to the pipe');
  await hand.fill('Right from, mm', 'a finger');
  await hand.press('Enter');
  await hand.sees('“a finger” is no figure in mm');
  await hand.fill('Right from, mm', '9');
  await hand.fill('to, mm', '8');
  await hand.press('Enter');
  await hand.sees('must be at least where it begins');
  await hand.fill('to, mm', '1.2 cm');
  await hand.press('Enter');
  await isSent(hand);
  const state = await stateOf(ilka, id);
  expect(state.moved.map(({ what }) => what)).toEqual(['Heat shield']);
  expect(state.upset.map(({ makes }) => makes)).toEqual([
    { upsets: 'alignment', what: 'gap to the pipe', readAs: 'length', from: 9, to: 12 },
  ]);
  const back = state.live.filter(isKind('put-back')).map(({ payload: { moved: _, ...rest } }) => rest);
  expect(back).toEqual([{ screws: 4, torque: 25 }, {}]);

  await hand.press('g');
  await hand.use('Keep it for its next unit');
  await until(async () => (await ilka.get<WayInView>(path)).version === 2);
  // What is new there is in the way of this unit; of the machine's others nobody knows.
  expect((await ilka.get<WayInView>(path)).lines.map(({ what, unit }) => [what, unit])).toEqual([
    ['Belt guard', undefined],
    ['Drive belt', undefined],
    ['Heat shield', 'Alternator'],
  ]);
  await hand.press('Escape');
  // On its own page a line is mended; a figure that is none is said at its field.
  await hand.go(`/machines/${booked.id}/way-in`);
  await hand.heads('Way in: Snow blower 9');
  await hand.fill('Torque', 'two turns');
  await hand.use('Keep it');
  await hand.sees('must be a torque, 0.1 to 5000 N·m');
  await hand.fill('Torque', '18 lbf·ft');
  await hand.use('Keep it');
  await hand.sees('Kept.');
  expect((await ilka.get<WayInView>(path)).lines[0]?.torque).toBeCloseTo(24.4, 1);
  expect(await hand.faults()).toEqual([]);
});
