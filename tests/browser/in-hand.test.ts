import { isKind, jobState, type JobHead, type JobView } from '@jubb/book';
import { find, type Part } from '@jubb/sheet';
import type { StockView } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { allKept, atJob, openBuild, reads, stateOf } from '../kit/at-job.ts';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';
import { stocked } from '../kit/stock.ts';

const shop = ownShop();
const at = async (login: string, path: string): Promise<Hand> => {
  const hand = await Hand.at(shop.screen.browser, shop.server.base, path);
  await hand.logIn(login);
  return hand;
};

test('what goes in new is taken out of stores at its step, and ticked on the list in bench view; what no shelf has is asked for', async () => {
  const { api, id, hand } = await atJob(shop, 'ostrel-ps2-propeller-shaft', 'splines-together', 'build');
  const { sheet, build } = await stateOf(api, id);
  const part = (name: string): Part => find(sheet.parts, name)!;
  const { id: boot, onHand, location } = await stocked(api, part('dust-boot'), 3);
  await stocked(api, part('flange-screws'), 8);
  for (const none of ['boot-clamps', 'guard']) await stocked(api, part(none), 0);
  expect((await api.post(id, entry('decision', { part: 'guard', fate: 'renew', quantity: 1, reason: 'bent' }))).status).toBe(200);
  // One of the two is on a shelf: where the other comes from must be said, and only that one is from there.
  await hand.go(`/jobs/${id}/build`);
  await hand.sees(`${onHand} free, shelf ${location}`);
  await hand.sees('not on the shelf');
  expect(await hand.faults()).toEqual([]);
  await hand.fill('Where they come from: 2 × Boot clamps', 'brought by the van');
  await hand.press('Enter');
  await hand.sees('Is the old Dust boot');
  await allKept(hand);
  const stock = await api.get<StockView>(`/stock/${boot}`);
  // Once, whatever else moved on that shelf before.
  expect([stock.onHand, stock.movements.filter(({ kind }) => kind === 'issue').length]).toEqual([onHand - 1, 1]);
  expect(stock.movements[0]).toMatchObject({ kind: 'issue', quantity: 1 });
  const said = (await stateOf(api, id)).live.filter(isKind('replacement-here')).slice(-2);
  expect(said.map(({ payload }) => [payload.part, payload.seen, payload.item])).toEqual(
    expect.arrayContaining([
      ['dust-boot', `out of stores, ${location}`, boot],
      ['boot-clamps', 'brought by the van', undefined],
    ]),
  );

  // In bench view the list is one key away, and is the same list.
  const yoke = build.find(({ name, inNow }) => name.startsWith('Slip yoke') && inNow === 0)!;
  await hand.go(`/bench/${id}`);
  await hand.sees('Is the old Dust boot');
  await hand.press('b');
  await hand.sees('Build list');
  expect(await hand.faults()).toEqual([]);
  await hand.use(`In, ${yoke.name}`);
  await hand.sees(`of ${build.reduce((sum, { count }) => sum + count, 0)} are in`);
  await hand.press('Space');
  await hand.sees('Is the old Dust boot');
  await hand.go(`/jobs/${id}/parts`);
  await hand.sees('1 from elsewhere');
  // What lies on a shelf is not missing, it only has to be kept.
  await hand.sees('to keep');
  await hand.sees('1 missing');
  await hand.sees('1 out');
  await allKept(hand);
  expect((await stateOf(api, id)).build.find(({ entryId }) => entryId === yoke.entryId)).toMatchObject({ inNow: 1, ticked: 1 });
});

test('with no link the shelves cannot be seen: where the new ones come from is said, and kept when the link is back', async () => {
  const { api, id, hand } = await atJob(shop, 'harrowmere-th6-front-hub', 'inner-in', 'build');
  await hand.go(`/bench/${id}`);
  await hand.heads('Inner bearing in');
  await hand.cut(true);
  await hand.press('Space');
  await hand.heads('Seal in');
  if ((await hand.text()).includes('Read the caution')) await hand.press('Space');
  await hand.sees('The shelves cannot be seen now');
  // Nothing goes in by the large key alone.
  expect(await hand.page.$eval('.btn-primary', (button) => (button as HTMLButtonElement).disabled)).toBe(true);
  await hand.fill('Where they come from', 'out of the seal drawer');
  await hand.press('Enter');
  await hand.sees('Is the old Hub seal');
  await hand.cut(false);
  await hand.go(`/jobs/${id}/build`);
  await allKept(hand);
  const here = (await stateOf(api, id)).live.filter(isKind('replacement-here')).at(-1);
  expect(here?.payload).toEqual({ part: 'hub-seal', count: 1, seen: 'out of the seal drawer' });
});

test('shims that are put in come off the shelf, and go back when another pack is put in', async () => {
  const { api, id, hand } = await atJob(shop, 'askvale-rx10-refrigerant-compressor', 'gap-set', 'build');
  const before = new Map((await api.get<StockView[]>('/stock/shims')).map((line) => [line.id, line.onHand]));
  const moved = async (): Promise<number> =>
    (await api.get<StockView[]>('/stock/shims')).reduce((sum, line) => sum + (before.get(line.id) ?? 0) - line.onHand, 0);
  const putIn = async (): Promise<number> => {
    await hand.sees('Which shims give the clutch its air gap?');
    await hand.sees('out of stores');
    expect(await hand.faults()).toEqual([]);
    await hand.use('Done so; now read it again');
    await hand.sees('put in');
    await allKept(hand);
    const last = (await stateOf(api, id)).live.filter(isKind('worked')).at(-1)!.payload.taken ?? [];
    return last.reduce((sum, { count }) => sum + count, 0);
  };
  await openBuild({ hand, id }, 'Gap set');
  await hand.sees('Reading 1 of 3');
  await reads(hand, '0,21', '0,22', '0,21');
  await hand.fill('Shims now', '0.5');
  const first = await putIn();
  expect(first).toBeGreaterThan(0);
  expect(await moved()).toBe(first);
  // The nut over it is undone by it, and is pulled anew first.
  await api.workTo(id, 'gap-set');
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Reading 1 of 3');
  await reads(hand, '0,9', '0,91', '0,9');
  const second = await putIn();
  // What lay in first is on the shelf again.
  expect(await moved()).toBe(second);
});

test('an unsure gap: the mechanic is told who may let it stand, the foreman accepts it with the reason', async () => {
  const { api, id, hand } = await atJob(shop, 'askvale-rx10-refrigerant-compressor', 'gap-set', 'build');
  await openBuild({ hand, id }, 'Gap set');
  await hand.sees('Reading 1 of 3');
  // A letter that no length can have in it is a key, and the figure stays.
  await hand.type('0,68');
  await hand.press('y');
  await hand.sees('What should be otherwise');
  await hand.press('Escape');
  await hand.tabTo('Reading 1');
  expect(await hand.page.$eval('.num-field', (field) => (field as HTMLInputElement).value)).toBe('0,68');
  await hand.press('Enter');
  await reads(hand, '0,72', '0,7');
  await hand.sees('the foreman may accept it with the reason');
  expect(await hand.faults()).toEqual([]);
  await allKept(hand);

  const foreman = await at('oswin', `/jobs/${id}/build`);
  await foreman.use('Accept it');
  await foreman.fill('Why it may stay so', 'feelers go by hundredths');
  await foreman.press('Enter');
  await foreman.sees('accepted');
  await allKept(foreman);
  const { settings, steps } = await stateOf(api, id);
  expect(settings[0]).toMatchObject({ phase: 'set', tries: [{ verdict: 'unsure', accepted: 'feelers go by hundredths' }] });
  expect(steps.find(({ step }) => step.ref === 'gap-set')?.done).toBe(true);
  await foreman.go(`/jobs/${id}/report`);
  await foreman.sees('unsure, and accepted so: feelers go by hundredths');
});

test('over the counter: no machine, no serial, and the estimate that was worked out', async () => {
  const perla = await Client.as(shop.server.base, 'perla');
  const hand = await at('perla', '/jobs/new');
  await hand.heads('Book in');
  await hand.fill('Name', 'Ansa Kolb');
  await hand.fill('Unit and side', 'Alternator');
  await hand.tabTo('Over the counter, no machine');
  await hand.press('Space');
  await hand.page.waitForFunction(() => !document.querySelector('#machine-name'));
  // What was typed before is not lost by it.
  expect(await hand.page.$eval('#unit-name', (field) => (field as HTMLInputElement).value)).toBe('Alternator');
  await hand.tabTo('Sheet');
  await hand.type('Quennet GA');
  await hand.sees('of book time');
  const worked = await hand.page.$eval('#estimate', (field) => (field as HTMLInputElement).value);
  expect(Number(worked)).toBeGreaterThan(0);
  await hand.fill('What the customer says', 'Does not charge.');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Book in');
  await hand.heads('Marks and damage');
  const [head] = await perla.get<JobHead[]>('/jobs');
  expect(head).toMatchObject({
    machine: { name: 'Over the counter', serial: '' },
    unit: { name: 'Alternator', serial: `tag ${head!.number}` },
    estimateMinor: Math.round(Number(worked) * 100),
  });
  expect(head!.scope?.estimateFrom).toContain('of book time');
  // Brought again, it is found by its tag.
  await hand.go('/jobs/new');
  await hand.fill('Customer, or serial or tag', `tag ${head!.number}`);
  await hand.use(`Alternator, tag ${head!.number}`);
  await hand.use('Same sheet as then');
  await hand.sees('of book time');
  await hand.fill('What the customer says', 'Again.');
  await hand.use('Book in');
  await hand.heads('Marks and damage');
  const [again] = await perla.get<JobHead[]>('/jobs');
  expect([again!.unit.id, again!.number > head!.number]).toEqual([head!.unit.id, true]);
});

test('what is to be new after its step was done is asked for before the signature', async () => {
  const oswin = await Client.as(shop.server.base, 'oswin');
  const { id } = await oswin.bookedOn('quennet-ga-alternator');
  const sign = (await oswin.get<JobView>(`/jobs/${id}`)).sheet.file.steps.find(({ record }) => record.kind === 'sign')!;
  await oswin.workTo(id, sign.ref);
  expect((await oswin.post(id, entry('decision', { part: 'fan', fate: 'renew', quantity: 1, reason: 'a blade is cracked' }))).status).toBe(
    200,
  );
  const hand = await at('oswin', `/jobs/${id}/${sign.stage}`);
  await hand.sees('New parts first');
  await hand.fill('Where they come from', 'from the kit');
  await hand.press('Enter');
  await hand.sees('Sign as Oswin');
  await allKept(hand);
  const job = await oswin.get<JobView>(`/jobs/${id}`);
  const said = jobState(job.sheet.file, job.entries).live.filter(isKind('replacement-here')).at(-1)!;
  expect(said.payload).toMatchObject({ part: 'fan', seen: 'from the kit' });
});
