import type { JobView } from '@jubb/book';
import { beforeAll, expect, test } from '@jest/globals';
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
  await hand.logIn('ilka');
});

async function booked(key: string, tasks: readonly string[], variant: string): Promise<string> {
  const scope = { variant, tasks, sides: [], place: 'on the bench', picks: [], identified: [], partsFirst: [] };
  return (await api.bookedOn(key, { scope })).id;
}

async function readings(...figures: readonly string[]): Promise<void> {
  for (const [at, figure] of figures.entries()) {
    await hand.sees(`Reading ${at + 1} of`);
    await hand.type(figure);
    await hand.press('Enter');
  }
  await hand.sees('Keep');
  await hand.press('Enter');
}

test('what a cover hides is read before it, for every client; the whole is turned at the end, less what was read before', async () => {
  const id = await booked('ostrel-d44-drive-axle', ['whole-axle'], 'd44-373');
  await api.workTo(id, 'backlash-set');
  await hand.go(`/jobs/${id}/build?step=cover-on`);
  await hand.sees('Degreaser fumes');
  if ((await hand.text()).includes('I have read it')) await hand.use('I have read it');
  await hand.sees('Afterwards nobody can read it');
  expect(await hand.faults()).toEqual([]);
  const bead = { seal: 'cover-joint', directionSeen: true, lubricated: true, unit: 'mm', depths: [] };
  const early = await api.post(id, entry('seal-fitted', bead, { step: 'cover-on' }));
  expect([early.status, JSON.stringify(early.body)]).toEqual([400, expect.stringContaining('hides Backlash, at four places')]);
  await hand.use('Read Backlash, at four places');
  await hand.heads('Backlash set');
  await readings('0,15', '0,16', '0,15', '0,16');
  await allKept(hand);

  await api.workTo(id, 'side-spread-proved');
  expect((await stateOf(api, id)).settings.find(({ setting }) => setting.ref === 'backlash')?.proved).toMatchObject({ verdict: 'in' });
  await hand.go(`/jobs/${id}/prove`);
  await hand.heads('Whole axle turned at the pinion');
  await hand.sees('should show');
  expect(await hand.faults()).toEqual([]);
  // Under what the pinion alone takes: something is loose. Over it by its share: in.
  await readings('2,4', '2,4');
  await hand.sees('Side bearing spread is out');
  await allKept(hand);
  await api.workTo(id, 'side-spread-proved');
  await hand.go(`/jobs/${id}/prove`);
  await hand.heads('Whole axle turned at the pinion');
  await readings('3,2', '3,2');
  await hand.heads('Axle shafts in');
  await allKept(hand);
  const { entries } = await api.get<JobView>(`/jobs/${id}`);
  const proof = entries.findLast(({ kind }) => kind === 'end-play')!;
  expect(proof).toMatchObject({
    payload: { moment: 'proved', less: [{ setting: 'pinion-preload' }] },
    working: { output: { verdict: 'in' } },
  });
});

test('kept or spoilt is asked first; ring, pipe, push and stop are there before the load; over the stop wants a reason', async () => {
  const id = await booked('quennet-bn2-blower-drive', ['whole-nose'], 'bn2-p');
  await api.workTo(id, 'hub-pulled');
  await hand.go(`/jobs/${id}/strip`);
  await hand.heads('Hub pulled');
  await hand.sees('is it to be kept, or may it be spoilt');
  expect(await hand.text()).not.toContain('stop at');
  const early = await api.post(id, entry('came-off', { part: 'hub', name: 'Hub', count: 1 }, { step: 'hub-pulled' }));
  expect([early.status, JSON.stringify(early.body)]).toEqual([400, expect.stringContaining('say first whether it is kept')]);
  await hand.use('Keep it');
  await hand.sees('stop at');
  await hand.sees('Carry the part, push the shaft through');
  await hand.sees('Square before load');
  expect(await hand.faults()).toEqual([]);
  for (const part of ['Coupling with its fingers', 'Coupling pins', 'Pressed hub']) {
    await hand.page.waitForFunction((name) => document.querySelector('.count-name')?.textContent?.startsWith(name), {}, part);
    await hand.press('Space');
  }
  await hand.sees('How did it come apart?');
  await hand.fill('Most that it took', '90');
  await hand.sees('It took more than it should');
  expect(await hand.page.$eval('.btn-primary', (button) => (button as HTMLButtonElement).disabled)).toBe(true);
  await hand.fill('It took more than it should', 'rust in the seat');
  await hand.cut(true);
  await hand.use('Drawn');
  await hand.heads('Shaft and bearings out');
  await hand.cut(false);
  await allKept(hand);
  const { entries } = await api.get<JobView>(`/jobs/${id}`);
  expect(entries.findLast(({ kind }) => kind === 'let-go')).toMatchObject({
    payload: { by: 'puller', force: 90_000, note: 'rust in the seat' },
  });
});

test('what it was brought for is tried when it comes, and not signed before it was tried again', async () => {
  const id = await booked('ostrel-ps2-propeller-shaft', ['whole-shaft'], 'ps2-4');
  await hand.go(`/jobs/${id}/book-in`);
  await hand.heads('Marks and damage on arrival');
  await hand.use('Try what it was brought for');
  await hand.fill('What: noise', 'shake');
  await hand.fill('How it is now', 'in the seat from 60 km/h on');
  await hand.use('Keep it');
  await allKept(hand);
  await api.workTo(id, 'sign');
  await hand.go(`/jobs/${id}/prove`);
  await hand.sees('It came for this: shake, in the seat from 60 km/h on');
  expect(await hand.faults()).toEqual([]);
  await hand.fill('How it is now', 'a little, over 90 km/h');
  await hand.use('Less');
  await hand.sees('The foreman signs this');
  await allKept(hand);
  await hand.go(`/jobs/${id}/report`);
  await hand.sees('What it was brought for, before and after');
  await hand.sees('less, a little, over 90 km/h');
});

test('a unit that no sheet knew: stripped by free lines, drafted, looked over, approved, and booked again', async () => {
  const model = { family: 'winch drive of our own', make: 'Ostrel', model: 'WD 7', machine: 'Winch trailer' };
  const { revisionId } = await api.made<{ revisionId: string }>('/sheets', model);
  const { id } = await api.booked(revisionId);
  await api.post(id, entry('stage', { stage: 'strip' }));
  await hand.go(`/jobs/${id}/strip`);
  const lines = [
    '6 x cap screw 8.8 M8x25 from input cap',
    'Input cap',
    'O-ring 62 mm',
    'bearing 30207, small end in',
    '4 x M6x16 cover screw',
    'Cover',
  ];
  for (const line of lines) {
    await hand.fill('Came off, but not on the sheet', line);
    await hand.press('Enter');
  }
  await allKept(hand);
  await hand.sees(`${lines.length} lines stand on no sheet`);
  expect(await hand.faults()).toEqual([]);
  await hand.use('Make a sheet of this strip');
  await hand.sees('Draft of revision 1');
  await hand.use('Checker:');
  await hand.sees('One way through it, each from book-in to hand-over: nothing left over');
  expect(await hand.faults()).toEqual([]);
  const path = new URL(hand.page.url()).pathname;
  await hand.use('Log out');
  await hand.logIn('oswin');
  await hand.go(path);
  await hand.sees('Kept');
  await hand.use('Approve it');
  await hand.sees('approved by Oswin Tarrell');
  const next = await api.bookedOn(`ostrel-wd-7-stripped-${(await api.get<JobView>(`/jobs/${id}`)).number}`);
  await api.workTo(next.id, 'on-1');
  const state = await stateOf(api, next.id);
  expect(state.ledger.map(({ payload }) => payload.part)).toContain('input-cap');
  expect(state.joints.map(({ joint }) => [joint.thread, joint.count])).toEqual([
    ['M8', 6],
    ['M6', 4],
  ]);
  await hand.use('Log out');
  await hand.logIn('ilka');
});

test('a job is rehearsed: it runs by the Space key, says what must be warm, what is lacking and what can be read no more', async () => {
  const { revisionId } = await api.sheetKeyed('ostrel-d44-drive-axle');
  await hand.go(`/sheets/${revisionId}`);
  await hand.sees('32 ways through it, each from book-in to hand-over: nothing left over');
  await hand.use('Rehearse it');
  await hand.heads('Rehearsal: Ostrel D44');
  await hand.sees('head bearing into the oven at 100 °C');
  await hand.sees('Backlash, at four places can be read no more');
  expect(await hand.faults()).toEqual([]);
  await hand.press('Space');
  await hand.sees('Stop here');
  await hand.page.waitForFunction(() => document.querySelectorAll('.rehearsal .past').length > 1);
  await hand.press('Space');
  await hand.sees('Go on');
  await hand.tabTo('Which job');
  await hand.type('Pinion seal only');
  await hand.sees('Turning torque before the nut is touched');
});
