import type { AnyKeptEntry, JobView } from '@jubb/book';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { allKept, stateOf } from '../kit/at-job.ts';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();
let api: Client;
let hand: Hand;

beforeAll(async () => {
  api = await Client.as(shop.server.base, 'ilka');
  hand = await Hand.at(shop.screen.browser, shop.server.base);
  // Where the foreman logged in once, their PIN will do.
  await hand.logIn('oswin');
  await hand.use('Log out');
  await hand.logIn('ilka');
});

async function booked(key: string, rest: object = {}): Promise<string> {
  return (await api.bookedOn(key, rest)).id;
}
const kept = async (id: string): Promise<readonly AnyKeptEntry[]> => (await api.get<JobView>(`/jobs/${id}`)).entries;
const nameOf = async (id: string, personId: string): Promise<string> =>
  (await api.get<JobView>(`/jobs/${id}`)).people.find((person) => person.id === personId)!.name;

/** Reads the cautions that stand before the act, and does it. */
async function ticks(title: string): Promise<void> {
  await hand.heads(title);
  if ((await hand.text()).includes('Read the caution before you begin')) await hand.use('I have read it');
  await hand.use('Done');
}

async function looksAt(seen: string, pin: string): Promise<void> {
  await hand.sees('Stop here.');
  await hand.use('Oswin Tarrell');
  await hand.fill('What was seen', seen);
  await hand.fill('PIN of Oswin Tarrell', pin);
  await hand.press('Enter');
}

describe('the variant of a job', () => {
  test('is asked for beside it until somebody knows; its counts, its thread and its pulls are those of it then', async () => {
    const id = await booked('harrowmere-ut9-trailer-hub');
    await hand.go(`/jobs/${id}/book-in`);
    await hand.sees('Which one is it?');
    await hand.sees('UT-9, five studs');
    await hand.use('Say which');
    await hand.use('2 UT-9 H, six studs');
    await hand.type('six studs, yellow ring');
    await hand.press('Enter');
    await hand.page.waitForFunction(() => !document.querySelector('.beside')?.textContent?.includes('Which one is it?'));
    await allKept(hand);
    const state = await stateOf(api, id);
    expect([state.variant?.variant.ref, state.variant?.by]).toEqual(['ut9-6', 'found']);
    expect(state.joints.find(({ joint }) => joint.ref === 'wheel-nuts')?.joint.count).toBe(6);
    await hand.use('more');
    await hand.sees('Wheel off: 6 × Wheel nuts');
    expect(await hand.faults()).toEqual([]);
  });

  test('is asked where it shows, whatever the counter said; another one is said with the link cut, and the job goes by it', async () => {
    const id = await booked('harrowmere-ut9-trailer-hub', {
      scope: { variant: 'ut9-5', tasks: ['hub'], sides: [], place: 'on the bench', picks: [], identified: [], partsFirst: [] },
    });
    await api.workTo(id, 'cap-off');
    const step = (await stateOf(api, id)).steps.find((one) => one.step.ref === 'cap-off')!.step;
    await api.post(id, entry('replacement-here', { seen: 'a new cap' }, { step: step.ref }));
    for (const { part, count } of step.record.counts!)
      await api.post(id, entry('came-off', { part, name: part, count, tray: '1' }, { step: step.ref }));
    await hand.go(`/jobs/${id}/strip`);
    await hand.sees('Now it can be seen.');
    await hand.sees('It was booked in as UT-9, five studs');
    await hand.sees('studs 6');
    expect(await hand.faults()).toEqual([]);
    await hand.cut(true);
    await hand.press('2');
    await hand.sees('held, no link');
    await hand.page.waitForFunction(() => !document.body.innerText.includes('Now it can be seen.'));
    await hand.cut(false);
    await allKept(hand);
    const state = await stateOf(api, id);
    expect([state.variant?.variant.ref, state.variant?.by]).toEqual(['ut9-6', 'found']);
    expect(state.joints.find(({ joint }) => joint.ref === 'wheel-nuts')?.joint.count).toBe(6);
    expect(state.steps.find((one) => one.step.ref === 'cap-off')?.done).toBe(true);
  });

  test('a left-hand build says left where its bolt is pulled', async () => {
    const id = await booked('harrowmere-ut9-trailer-hub', {
      scope: { variant: 'ut9-l', tasks: ['bolt-only'], sides: [], place: 'on the bench', picks: [], identified: [], partsFirst: [] },
    });
    await api.workTo(id, 'bolt-home');
    await hand.go(`/jobs/${id}/build`);
    await hand.heads('Centre bolt');
    await hand.sees('by hand to the left');
    await hand.fill('Where they come from', 'brought by the van');
    await hand.press('Enter');
    await hand.sees('Left-hand thread');
  });

  test('the server goes by it too: a pull of a nut that is not there is refused', async () => {
    const id = await booked('harrowmere-ut9-trailer-hub');
    const pull = (place: number): object =>
      entry(
        'pull',
        { joint: 'wheel-nuts', pass: 1, place, torque: 67.5, result: 'clicked', wrenchLength: 450, adapterLength: 0, adapterAngle: 0 },
        { step: 'wheel-on' },
      );
    const post = async (...entries: object[]): Promise<number> => (await api.post(id, ...entries)).status;
    expect(await post(pull(5))).toBe(400);
    expect(await post(entry('variant', { variant: 'ut9-7', seen: 'nothing' }))).toBe(400);
    expect(await post(entry('variant', { variant: 'ut9-6', seen: 'six studs' }))).toBe(200);
    expect(await post(pull(5))).toBe(200);
    expect(await post(entry('variant', { variant: 'ut9-5', seen: 'five, counted again' }))).toBe(200);
    await hand.go(`/jobs/${id}/book-in`);
    await hand.sees('Has no place on this one');
  });
});

test('“inset” and “sleeve” at one seal: the window moves, the sleeve has its part and its step', async () => {
  const id = await booked('harrowmere-pg540-pto-gearbox');
  await api.workTo(id, 'input-seal-in');
  await hand.go(`/jobs/${id}/build`);
  await hand.heads('Input seal in');
  await hand.use('Inset past the track');
  await hand.sees('Clean metal.');
  await allKept(hand);
  expect((await stateOf(api, id)).sheet.seals.find(({ ref }) => ref === 'input-seal')?.depth?.to).toBe('2 mm');
  await hand.use('Sleeve');
  // It comes before the seal, and is the next to do.
  await hand.heads('Sleeve on the input shaft');
  await allKept(hand);
  const { sheet, build } = await stateOf(api, id);
  expect(sheet.parts.some(({ ref }) => ref === 'input-sleeve')).toBe(true);
  expect(build.length).toBeGreaterThan(0);
});

describe('a hold point', () => {
  const KEY = 'tindlebrook-ac2-air-compressor';

  test('waits for somebody else’s eyes and PIN; whoever did it is not asked, and what comes after is refused till then', async () => {
    const id = await booked(KEY);
    await api.workTo(id, 'bled-and-locked');
    await hand.go(`/jobs/${id}/strip`);
    await ticks('Bled and locked');
    await hand.sees('The second person reads the gauge and the lock');
    expect(await hand.page.$$eval('[aria-label="Who looked"] button', (keys) => keys.map((key) => key.textContent))).not.toContain(
      'Ilka Varne mechanic',
    );
    await allKept(hand);
    const next = await api.post(id, entry('tick', {}, { step: 'off-its-bed' }));
    expect([next.status, JSON.stringify(next.body)]).toEqual([400, expect.stringContaining('reads the gauge and the lock first')]);
    const own = await api.post(id, entry('hold-met', { seen: 'all well' }, { step: 'bled-and-locked' }));
    expect([own.status, JSON.stringify(own.body)]).toEqual([400, expect.stringContaining('somebody else than who did it')]);
    await looksAt('gauge at nothing, lock on', '9999');
    await hand.sees('is not the PIN of this person');
    expect(await hand.faults()).toEqual([]);
    await hand.fill('PIN of Oswin Tarrell', '4170');
    await hand.press('Enter');
    await hand.heads('Off its bed');
    await allKept(hand);
    const met = (await kept(id)).at(-1)!;
    expect([met.kind, await nameOf(id, met.personId)]).toEqual(['hold-met', 'Oswin Tarrell']);
    expect((await api.call<string>('GET', `/jobs/${id}/report.pdf`)).status).toBe(200);
    // Ilka is at the tablet as before.
    await hand.sees('Ilka');
  });

  test('with the link cut it is signed, the work goes on, and all of it arrives once the PIN was looked at', async () => {
    const id = await booked(KEY);
    await api.workTo(id, 'bled-and-locked');
    // Nobody is known from before: the tablet begins anew.
    await hand.use('Log out');
    await hand.logIn('ilka');
    await hand.go(`/jobs/${id}/strip`);
    await hand.heads('Bled and locked');
    await hand.cut(true);
    await ticks('Bled and locked');
    await looksAt('gauge at nothing', '4170');
    await hand.heads('Off its bed');
    await hand.use('I have read it');
    await hand.page.waitForFunction(() => document.querySelector('.count-name')?.textContent?.startsWith('Belt guard'));
    await hand.press('Space');
    await hand.sees('Waits for a PIN');
    await hand.cut(false);
    await hand.page.waitForFunction(() => /held until their maker/u.test(document.querySelector('.topbar')?.textContent ?? ''));
    expect((await kept(id)).some(({ step }) => step === 'off-its-bed')).toBe(false);
    await hand.fill('PIN of Oswin Tarrell', '4170');
    await hand.press('Enter');
    await allKept(hand);
    const after = (await kept(id))
      .filter(({ kind }) => kind === 'tick' || kind === 'hold-met' || kind === 'came-off')
      .map(({ kind, step }) => `${kind} ${step}`);
    expect(after.slice(-3)).toEqual(['tick bled-and-locked', 'hold-met bled-and-locked', 'came-off off-its-bed']);
  });
});

describe('what is looked at after an act', () => {
  test('four clips are seen home one by one; a strike asks for one of them again; then the way round and the mark', async () => {
    const id = await booked('tindlebrook-ac2-air-compressor');
    await api.workTo(id, 'rings-and-pistons-on');
    await hand.go(`/jobs/${id}/build`);
    await hand.heads('Rings and pistons on');
    await hand.sees('New each time');
    await hand.fill('Where they come from', 'out of the kit');
    await hand.press('Enter');
    await hand.sees('New parts first');
    await hand.fill('Where they come from', 'out of the kit');
    await hand.press('Enter');
    await hand.use('Done');
    await hand.sees('Home when: both ends of each snap in');
    await hand.use('This one is home (1 of 4)');
    await hand.use('This one is home (2 of 4)');
    await hand.press('s');
    await hand.type('not looked at');
    await hand.press('Enter');
    await hand.sees('This one is home (2 of 4)');
    expect(await hand.faults()).toEqual([]);
    await hand.press('a');
    await hand.use('It lies so');
    await hand.use('It lines up');
    await hand.heads('Base gaskets on');
    await allKept(hand);
    const { steps, marks } = await stateOf(api, id);
    expect(steps.find(({ step }) => step.ref === 'rings-and-pistons-on')?.done).toBe(true);
    expect(marks.find(({ part }) => part === 'pistons')?.met).toBe(true);
  });

  test('two heads are two runs: the second without its pulls keeps the build open', async () => {
    const id = await booked('tindlebrook-ac2-air-compressor');
    await api.workTo(id, 'heads-on--second-cylinder');
    await hand.go(`/jobs/${id}/build`);
    await hand.heads('Head screws, second cylinder, pass 1');
    expect(await hand.faults()).toEqual([]);
    const runs = (await stateOf(api, id)).joints.filter(({ joint }) => joint.base === 'head-screws');
    expect(runs.map(({ done, total }) => [done, total])).toEqual([
      [24, 24],
      [0, 24],
    ]);
  });
});

test('an oven is begun ahead, at the step before; what needs it waits for it, for every client', async () => {
  const id = await booked('ostrel-d44-drive-axle');
  await api.workTo(id, 'cups-in');
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Head bearing into the oven at 100 °C');
  await hand.use('Begun now');
  await hand.sees('ready at');
  expect(await hand.faults()).toEqual([]);
  await allKept(hand);
  expect((await stateOf(api, id)).leads).toMatchObject([{ begun: { wait: { step: 'head-bearing-on-with-its-shim' } } }]);
  const payload = { fit: 'head-bearing', by: 'heat', driver: 'none', home: 'it dropped' };
  const early = await api.post(id, entry('fitted', payload, { step: 'head-bearing-on-with-its-shim' }));
  expect([early.status, JSON.stringify(early.body)]).toEqual([400, expect.stringContaining('min to go: head bearing into the oven')]);
});

test('a drum that will not come: rung by rung, half of it with no link, down to the last, which asks', async () => {
  const id = await booked('ostrel-sf30-axle-shaft');
  await api.workTo(id, 'wheel-and-drum-off');
  const { ladder = [] } = (await stateOf(api, id)).steps.find(({ step }) => step.ref === 'wheel-and-drum-off')!.step;
  await hand.go(`/jobs/${id}/strip`);
  await hand.heads('Wheel and drum off');
  await hand.press('r');
  await hand.fill('What will not come', 'Drum');
  await hand.sees(ladder[0]!);
  await hand.use('Tried, it stays');
  await hand.cut(true);
  for (const rung of ladder.slice(1, -1)) {
    await hand.page.waitForFunction((words) => document.querySelector('.rungs .now')?.textContent?.startsWith(words), {}, rung);
    await hand.use('Tried, it stays');
  }
  await hand.fill('Who is asked, and what', 'Oswin, whether it may be cut');
  expect(await hand.faults()).toEqual([]);
  await hand.use('On hold, and ask');
  await hand.sees('held, no link');
  await hand.cut(false);
  await allKept(hand);
  const job = await api.get<JobView>(`/jobs/${id}`);
  expect(job.hold).toMatchObject({ reason: 'help', words: 'Drum will not come: Oswin, whether it may be cut' });
  const tried = job.entries.flatMap((one) => (one.kind === 'rung' ? [one.payload.tried] : []));
  expect(tried).toEqual(ladder);
  await hand.sees('somebody is asked');
});

test('a trial with the old nuts: kept as that, nothing is used up, and the new ones are asked for afterwards', async () => {
  const id = await booked('tindlebrook-ac2-air-compressor');
  await api.workTo(id, 'cylinders-on--first-cylinder');
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('New each time');
  await hand.press('x');
  await hand.sees('it is kept as a trial, uses nothing up and proves nothing');
  expect(await hand.faults()).toEqual([]);
  await hand.sees('Next is number 1');
  await hand.press('Space');
  await hand.sees('Next is number 2');
  await hand.press('Space');
  await hand.sees('Next is number 3');
  await hand.use('End of the trial');
  await hand.sees('New each time');
  await allKept(hand);
  const { joints, live } = await stateOf(api, id);
  expect(joints.find(({ joint }) => joint.ref === 'cylinder-nuts--first-cylinder')).toMatchObject({ done: 0, undone: 0 });
  expect(live.flatMap((one) => (one.kind === 'pull' && one.payload.trial ? [one.payload.place] : []))).toHaveLength(2);
  expect(live.some(({ kind, step }) => kind === 'replacement-here' && step === 'cylinders-on--first-cylinder')).toBe(false);
});
