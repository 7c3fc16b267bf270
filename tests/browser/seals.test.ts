import { expect, test } from '@jest/globals';
import { allKept, atJob, openBuild, reads, stateOf } from '../kit/at-job.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('a worn axle shaft: worked out at the seal, the lip goes further in, and a deeper seal reads in; where the bore ends it is a sleeve', async () => {
  const { api, id, hand } = await atJob(shop, 'ostrel-sf30-axle-shaft', 'seal-in', 'build');
  await hand.tab('Workings');
  await hand.sees('Worn track: flush, further in, or a sleeve?');
  await hand.use('Worn track');
  await hand.sees('Track begins at');
  // What the sheet says of the seal is there already.
  const widthOf = (): Promise<string> => hand.page.$eval('#in-width', (field) => (field as HTMLInputElement).value);
  expect(await widthOf()).toBe('10 mm');
  await hand.fill('Track begins at', '6');
  await hand.fill('and ends at', '7,5');
  await hand.fill('How deep', '0,4');
  await hand.fill('Its lip lies at', '65');
  await hand.fill('Bore is deep', '14');
  // A slip of the decimal sign is told by the width of the seal.
  await hand.sees('within its width, 10 mm');
  await hand.fill('Its lip lies at', '6,5');
  // The sheet allows a millimetre; the way that goes further in has its own window.
  await hand.sees('the sheet allows no more');
  await hand.fill('Inset at most', '4');
  await hand.sees('1.7 mm to 4 mm below the face the lip runs on sound metal');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Keep it on the job');
  await allKept(hand);
  const kept = (await stateOf(api, id)).live.findLast(({ kind }) => kind === 'worked')!;
  expect(kept).toMatchObject({ payload: { working: 'seal.wear-track', part: 'seal' }, working: { output: { do: 'inset' } } });

  await openBuild({ hand, id }, 'Seal in');
  await hand.use('Inset past the track');
  await hand.sees('further in, lip clear of the track');
  await api.workTo(id, 'gasket-and-shaft-in');
  const fitted = (await stateOf(api, id)).live.findLast(({ kind }) => kind === 'seal-fitted')!;
  expect(fitted).toMatchObject({ step: 'seal-in', working: { output: { verdict: 'in' } } });
  // Deeper than the millimetre that is right for a seal that stands flush.
  expect(Math.min(...(fitted.payload as { depths: number[] }).depths)).toBeGreaterThan(1.5);

  // Another shaft with too little bore, and rubber that its oil takes apart.
  const other = await atJob(shop, 'ostrel-sf30-axle-shaft', 'seal-in', 'build');
  await other.hand.tab('Workings');
  await other.hand.use('Worn track');
  await other.hand.fill('Track begins at', '6');
  await other.hand.fill('and ends at', '7,5');
  await other.hand.fill('How deep', '0,4');
  await other.hand.fill('Its lip lies at', '6,5');
  await other.hand.fill('Bore is deep', '11');
  await other.hand.sees('filled beneath');
  await other.hand.go(`/jobs/${other.id}/build`);
  await other.hand.tab('Workings');
  await other.hand.use('Does this rubber stand this fluid?');
  await other.hand.sees('Made of');
  await other.hand.page.select('#in-medium', 'glycol-brake-fluid');
  await other.hand.sees('brake fluid swells it');
  await other.hand.page.select('#in-material', 'EPDM');
  await other.hand.sees('holds');
  await other.hand.go(`/jobs/${other.id}/build`);
  await other.hand.heads('Seal in');
});

test('a ring is found for a groove: too thin and too thick are seen before anything is ordered', async () => {
  const { hand } = await atJob(shop, 'askvale-ph80-planetary-hub', 'cover-ring-in', 'build');
  await hand.tab('Workings');
  await hand.use('Does this O-ring fit this groove?');
  await hand.sees('Ring inside');
  expect(await hand.page.$eval('#in-section', (field) => (field as HTMLInputElement).value)).toBe('4 mm');
  await hand.fill('Smaller diameter', '241');
  await hand.fill('Larger diameter', '247,4');
  await hand.fill('Width of the groove', '5,4');
  await hand.sees('right: squeezed');
  await hand.fill('Section', '3');
  await hand.sees('too thin');
  await hand.sees('would be right');
  expect(await hand.faults()).toEqual([]);
  await hand.go('/workings/oring.pick');
  await hand.fill('Smaller diameter', '20,8');
  await hand.fill('Larger diameter', '25');
  await hand.fill('Width of the groove', '3,6');
  await hand.fill('Rings on the shelf', 'box-4 20 2.65');
  await hand.sees('on the shelf');
  await hand.sees('too thick');
  // It is looked for away from the page; any other ring is seen in the groove, with what is wrong with it.
  expect(hand.page.workers()).toHaveLength(1);
  const seen = (): Promise<string> => hand.page.$eval('.answer-side figcaption', (caption) => (caption as HTMLElement).innerText);
  expect(await seen()).toContain('box-4: right');
  const thick = await hand.page.$$eval('.rings tbody tr', (rows) =>
    rows
      .find((row) => row.textContent!.includes('too thick'))!
      .querySelector('button')!
      .innerText.trim(),
  );
  await hand.use(thick);
  await hand.page.waitForFunction(() => document.querySelector('.answer-side figcaption')?.textContent?.includes('too thick'));
  // The old one, flattened, speaks too; and what slides says what moves it.
  await hand.page.select('#in-motion', 'moving');
  await hand.page.select('#in-state', 'flat');
  await hand.fill('Ring in the hand, inside', '20,9');
  await hand.fill('Its section, the thin way', '2,3');
  await hand.fill('and the wide way', '3,2');
  await hand.sees('The one in the hand: can have been box-4');
  await hand.sees('first push');
  expect(await hand.faults()).toEqual([]);
  // Of shaft and bore alone, the groove that it wants.
  await hand.page.select('#in-from', 'between');
  await hand.sees('It wants a groove at least');
});

test('a seal goes in act by act, keys only: a gouge is dressed, a nicked one put aside, the tape is off again, the spring is on', async () => {
  const { api, id, hand } = await atJob(shop, 'tindlebrook-sk2-steered-end', 'inner-seal-in', 'build');
  const step = async (): Promise<{ done: boolean; problem?: string }> =>
    (await stateOf(api, id)).steps.find(({ step: { ref } }) => ref === 'inner-seal-in')!;
  const newOne = async (from: string): Promise<void> => {
    await hand.sees('New parts first');
    await hand.fill('Where they come from', from);
    await hand.press('Enter');
  };
  await openBuild({ hand, id }, 'Inner seal in');
  await newOne('from the kit');
  await hand.tabTo('The old seal shows');
  await hand.type('hard');
  await hand.use('Out, whole');
  // A gouge is dressed, and looked at again.
  await hand.sees('bore clean, no gouge');
  await hand.press('x');
  await hand.press('1');
  await hand.sees('Not right: gouge');
  await hand.use('It is right now');
  // A nicked one is put aside: another one is said to be here before it goes on.
  await hand.sees('whole on every face and edge, no nick');
  await hand.sees('NBR in hypoid oil: marginal');
  expect(await hand.faults()).toEqual([]);
  await hand.press('x');
  await hand.fill('In words, where it is none of these', 'nicked at the joint of the mould');
  await hand.press('Enter');
  await newOne('the second one of the kit');
  await hand.sees('Not right: nicked at the joint');
  expect(await step()).toMatchObject({ done: false, problem: 'the new one is not whole: another one goes in' });
  await hand.use('This one is whole');
  await hand.sees('tape over the splines: on');
  await hand.use('It is on');
  await hand.use('It lies that way');
  // A driver of the crib by the size of the seal; another one can be said.
  await hand.sees('Driver, at most');
  await hand.fill('Driver, at most', 'tube 55, turned for it');
  await hand.use('Greased, in and square');
  await hand.sees('Reading 1 of');
  await reads(hand, '0,2', '0,3', '0,2');
  // In, and not home: the tape would be left in there.
  await hand.sees('tape over the splines: off again');
  await allKept(hand);
  expect(await step()).toMatchObject({ done: false, problem: expect.stringContaining('off again, all of it') });
  expect(await hand.faults()).toEqual([]);
  await hand.cut(true);
  await hand.use('It is off, all of it');
  await hand.sees('garter spring in its groove');
  await hand.cut(false);
  await hand.use('It is in its place');
  await hand.use('It lies right');
  await hand.heads('Gasket and ball on');
  await allKept(hand);
  expect((await step()).done).toBe(true);
  const { live } = await stateOf(api, id);
  expect(live.findLast(({ kind }) => kind === 'seal-fitted')?.payload).toMatchObject({ driver: 'tube 55, turned for it' });
  expect(live.filter(({ kind }) => kind === 'seal-seen')).toHaveLength(8);
  expect(live.findLast(({ kind }) => kind === 'old-seal-out')?.payload).toMatchObject({ seal: 'inner-seal', why: 'hardened' });
});
