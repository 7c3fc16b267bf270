import { isKind, jobState, type JobState, type JobView } from '@jubb/book';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

/** A mechanic at bench view, at a step of a fresh job. */
async function atBench(
  key: string,
  isThere: (view: JobView) => string,
  scope?: object,
): Promise<{ hand: Hand; state: () => Promise<JobState> }> {
  const api = await Client.as(shop.server.base, 'ilka');
  const { id } = await api.bookedOn(key, scope === undefined ? {} : { scope });
  await api.workTo(id, isThere(await api.get<JobView>(`/jobs/${id}`)));
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/bench/${id}`);
  await hand.logIn('ilka');
  await hand.page.waitForSelector('.bench h1');
  const state = async (): Promise<JobState> => {
    await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.bench [role="status"]')?.innerText === 'live');
    const view = await api.get<JobView>(`/jobs/${id}`);
    return jobState(view.sheet.file, view.entries);
  };
  return { hand, state };
}

const step =
  (fits: (one: JobView['sheet']['file']['steps'][number]) => boolean) =>
  (view: JobView): string => {
    const found = view.sheet.file.steps.find(fits);
    if (!found) throw new Error('the sheet has no such step');
    return found.ref;
  };

/** Reads the cautions of a step, if it has any that were not read. */
async function readCautions(hand: Hand): Promise<void> {
  await hand.page.waitForSelector('.bench-keep .btn-primary');
  if ((await hand.text()).includes('I have read it')) {
    await hand.press('PageDown');
    await hand.page.waitForFunction(() => !document.body.innerText.includes('I have read it'));
  }
}

test('a mark that falls due half-way: pull, stop, mark, go on, by two; on each side of its own', async () => {
  const scope = { tasks: ['whole-end'], sides: ['left', 'right'], place: 'on the bench', picks: [], identified: [], partsFirst: [] };
  const isHalfWay = step(({ record }) => record.counts?.some(({ halfWay }) => halfWay) ?? false);
  const { hand, state } = await atBench('tindlebrook-sk2-steered-end', isHalfWay, scope);
  await readCautions(hand);
  await hand.sees('Two people: one holds, one pulls and marks.');
  await hand.sees('Pull it half-way and stop there');
  await hand.press('PageDown');
  await hand.sees('Stop. Mark it now: paint line, index tooth to the inner shaft');
  // Nothing is recorded before it is marked; that it is half-way outlives a reload.
  await hand.page.reload();
  await hand.sees('Stop. Mark it now');
  expect(await hand.faults()).toEqual([]);
  await hand.press('PageDown');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('Mark it now'));
  const { marks, ledger } = await state();
  expect(marks).toMatchObject([{ mark: 'paint line, index tooth to the inner shaft', part: 'joint--left', met: false }]);
  expect(ledger.at(-1)?.payload).toMatchObject({ part: 'joint--left', count: 1 });
});

test('an act with no way back waits until what takes its place was seen; a part that may be spoilt is then to be renewed', async () => {
  const { hand, state } = await atBench(
    'ostrel-bt2-belt-tensioner',
    step(({ noWayBack }) => noWayBack === true),
  );
  await readCautions(hand);
  await hand.sees('After this the old part cannot go back in');
  await hand.press('PageDown');
  expect((await state()).live.some(({ kind }) => kind === 'replacement-here')).toBe(false);
  expect(await hand.faults()).toEqual([]);
  await hand.fill('What takes its place', 'ring 24, shelf B3');
  await hand.press('Enter');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('What takes its place'));
  await hand.press('PageDown');
  await hand.page.waitForFunction(() => document.querySelector('.count-name')?.textContent?.startsWith('Pivot screw'));
  await hand.use('It may be spoilt');
  await hand.sees('to be renewed, may be spoilt');
  const { live, decisions } = await state();
  expect(live.filter(isKind('replacement-here')).map(({ payload }) => payload.seen)).toEqual(['ring 24, shelf B3']);
  const [intent] = live.filter(isKind('intent'));
  expect(decisions.find(({ part }) => part.ref === intent?.payload.part)).toMatchObject({ proposed: 'renew' });
});

test('an old seal that did not come out whole is asked after again before the new one goes in', async () => {
  const { hand, state } = await atBench('harrowmere-th6-front-hub', () => 'seal-out');
  await readCautions(hand);
  await hand.sees('came off, whole');
  await hand.press('x');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('came off, whole'));
  const after = await state();
  const [out] = after.live.filter(isKind('old-seal-out'));
  expect(out?.payload.whole).toBe(false);
  expect(after.steps.find(({ step: { record } }) => record.seal === out?.payload.seal)).toMatchObject({
    done: false,
    problem: 'pieces of the old one are still in there',
  });
});

test('a chain of marks is met link by link, and two marks of one chain are two', async () => {
  const { hand, state } = await atBench('harrowmere-th6-front-hub', () => 'wheel-off');
  await hand.press('m');
  await hand.fill('What to what', 'drum to shaft to hub');
  await hand.fill('How', 'paint line');
  await hand.fill('Who held', 'Bram');
  await hand.press('Enter');
  await hand.page.waitForFunction(() => !document.querySelector('.modal'));
  const { live, marks } = await state();
  expect(live.filter(isKind('mark')).map(({ payload }) => payload)).toEqual([
    { what: 'drum to shaft', mark: 'paint line', with: 'Bram' },
    { what: 'shaft to hub', mark: 'paint line', with: 'Bram' },
  ]);
  expect(marks.every(({ met }) => !met)).toBe(true);
});
