import { expect, test } from '@jest/globals';
import { allKept, atJob, openBuild, reads, stateOf } from '../kit/at-job.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('a trailer hub by its bolt: a click is proved, and after two of them it is stopped and looked at', async () => {
  const { api, id, hand } = await atJob(shop, 'harrowmere-ut9-trailer-hub', 'rock-set', 'build');
  await openBuild({ hand, id }, 'Rock set');
  await hand.sees('it is never backed off');
  await hand.use('It clicked');
  await hand.sees('Read it as it stands');
  await reads(hand, '0,08', '0,09', '0,08');
  await hand.sees('Turn it on by half a turn');
  await hand.use('It clicked');
  await hand.sees('Reading 1 of 3');
  // Ten times too much is a slip of the decimal sign, and asked about.
  await hand.type('7');
  await hand.press('Enter');
  await hand.sees('is too large here');
  await hand.fill('Reading 1', '0,07');
  await hand.press('Enter');
  await reads(hand, '0,07', '0,07');
  await hand.sees('Stop and look');
  await hand.sees('the spacer is missing');
  expect(await hand.faults()).toEqual([]);
  await allKept(hand);
  expect((await stateOf(api, id)).settings[0]).toMatchObject({ phase: 'act', acts: 2, tries: [{ verdict: 'out' }, { verdict: 'out' }] });
  // A new cartridge with its spacer: one click, no play.
  await hand.use('It clicked');
  await hand.sees('Reading 1 of 3');
  await reads(hand, '0,004', '0,004', '0,004');
  await allKept(hand);
  expect((await stateOf(api, id)).settings[0]?.phase).toBe('set');
});

test('a planetary hub by its locknut: what locking changes is made up for at the next try, and a tab is bent last', async () => {
  const { api, id, hand } = await atJob(shop, 'askvale-ph80-planetary-hub', 'hub-set', 'build');
  await openBuild({ hand, id }, 'Hub set');
  await hand.use('New bearings');
  await hand.tabTo('Reading');
  await hand.sees('Set the nut, before it is locked');
  await reads(hand, '8', '8', '8');
  await hand.sees('leave the tab straight until it is read');
  await hand.use('Locknut tight');
  await reads(hand, '12', '12', '12');
  // Locking took it up by 4 N·m: half-way in the window after it is 4 before it.
  await hand.sees('before it is locked it should read 4 N·m');
  expect(await hand.faults()).toEqual([]);
  await reads(hand, '4', '4', '4');
  await hand.use('Locknut tight');
  await hand.sees('When it is in, bend the tab');
  await reads(hand, '8', '8', '8');
  await allKept(hand);
  expect((await stateOf(api, id)).settings[0]).toMatchObject({ phase: 'set', acts: 2, tries: { length: 4 } });
  await hand.go(`/jobs/${id}/build?step=hub-set`);
  await hand.sees('Set, and inside the window');
  await hand.sees('locked');
});

test('a blower by its witness mark: a hub that is not home is read, and set to its mark again', async () => {
  const { api, id, hand } = await atJob(shop, 'quennet-bn2-blower-drive', 'hub-set', 'build');
  await openBuild({ hand, id }, 'Hub set');
  await hand.sees('the mark is the setting');
  await hand.use('It is at its mark');
  await reads(hand, '62,4', '62,4', '62,4');
  await hand.sees('It read 62.4 mm');
  await hand.use('It is at its mark');
  await reads(hand, '62,02', '62,01', '62,02');
  await allKept(hand);
  expect((await stateOf(api, id)).settings[0]).toMatchObject({ phase: 'set', tries: { length: 2 } });
});

test('a bearing warmed on to its pinion: too loose wants its reason, over the limit is refused, the time falls', async () => {
  const { api, id, hand } = await atJob(shop, 'ostrel-d44-drive-axle', 'head-bearing-on-with-its-shim', 'build');
  await openBuild({ hand, id }, 'Head bearing on with its shim');
  await hand.sees('Wanted');
  await hand.fill('Shaft d', '40,001');
  await hand.fill('Bore D', '40,000');
  await hand.use('Keep these sizes');
  await hand.sees('Not what is wanted');
  await hand.sees('Why it goes in all the same');
  await hand.use('Measure again');
  await hand.fill('Shaft d', '40,015');
  await hand.fill('Bore D', '40,000');
  await hand.use('Keep these sizes');
  await hand.sees('How warm');
  await hand.fill('The sheet allows', '20 °C');
  await hand.sees('is too small; the least allowed is more than 20');
  await hand.fill('The sheet allows', '110 °C');
  await hand.use('Keep it, and warm it so');
  // The oven comes before the act, and says how long; somebody who looked may say that it is warm.
  await hand.sees('First: head bearing into the oven');
  await hand.use('It is begun');
  await hand.sees('to go');
  await hand.use('It is ready now');
  await hand.use('It leaves the heat');
  await hand.sees('slides for');
  expect(await hand.faults()).toEqual([]);
  await hand.fill('Driver, tube or plate', 'Tube 42');
  await hand.fill('What shows that it is home', 'no feeler goes under');
  await hand.use('It is home');
  await allKept(hand);
  expect((await stateOf(api, id)).fits.find(({ fit }) => fit.ref === 'head-bearing')).toMatchObject({
    verdict: 'in',
    fitted: { payload: { by: 'heat', driver: 'Tube 42', home: 'no feeler goes under' } },
  });
});
