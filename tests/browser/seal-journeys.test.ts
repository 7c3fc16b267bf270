import { expect, test } from '@jest/globals';
import type { Hand } from '../kit/browser.ts';
import { allKept, atJob, openBuild, stateOf, type AtJob } from '../kit/at-job.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

/** What is pressed at a seal, in the order of the work; what is asked beside it is answered where it stands. */
async function acts(hand: Hand, ...keys: readonly string[]): Promise<void> {
  for (const key of keys) await hand.use(key);
}

async function newOnes(hand: Hand, from: string): Promise<void> {
  await hand.sees('New parts first');
  await hand.fill('Where they come from', from);
  await hand.press('Enter');
}

async function isDone({ api, id }: AtJob, step: string): Promise<boolean> {
  return (await stateOf(api, id)).steps.find(({ step: { ref } }) => ref === step)!.done;
}

test('a cylinder: its rings in their order, a seal of the wrong rubber is put aside', async () => {
  const at = await atJob(shop, 'harrowmere-hs40-steering-cylinder', 'rod-seal-and-back-up-in', 'build');
  const { hand } = at;
  await hand.tab('Workings');
  await hand.use('In which order do a cylinder');
  await hand.sees('Rod or bore');
  // The sheet says how thick the rod is.
  expect(await hand.page.$eval('#in-diameter', (field) => (field as HTMLInputElement).value)).toBe('25 mm');
  await hand.fill('Guide rings', '2');
  await hand.fill('Guide strip, thick', '2,5');
  await hand.sees('Cut the strip to');
  await hand.sees('open to the pressure');
  // A rod has no pressure from the weather.
  await hand.tabTo('Pressure comes');
  await hand.type('from both');
  await hand.sees('the weather on the other');
  await hand.press('ArrowUp');
  await hand.sees('Cut the strip to');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Keep it on the job');
  await allKept(hand);
  await openBuild(at, 'Rod seal and back-up in');
  await newOnes(hand, 'from the kit');
  await acts(hand, 'Out, whole', 'It is so');
  // The bag says NBR: it is put aside, and the kit has another.
  await hand.sees('it is 25 × 33 × 6, PU');
  await hand.press('x');
  await hand.use('other rubber');
  await newOnes(hand, 'a second bag');
  expect(await isDone(at, 'rod-seal-and-back-up-in')).toBe(false);
  await acts(hand, 'This one is whole', 'It is on', 'It lies that way', 'Greased, in and square', 'It is off, all of it');
  await hand.heads('Wiper in');
  await allKept(hand);
  expect(await isDone(at, 'rod-seal-and-back-up-in')).toBe(true);
});

test('a brake piston: a ring worked out against the spring that has to push it back, dry it is too much', async () => {
  const at = await atJob(shop, 'tindlebrook-bm7-brake-cylinder', 'piston-in', 'build');
  const { api, id, hand } = at;
  await hand.tab('Workings');
  await hand.use('Does this rubber stand this fluid?');
  await hand.sees('Made of');
  // Rubber that its fluid takes apart is seen before anything is ordered.
  await hand.tabTo('Made of');
  await hand.type('NBR');
  await hand.sees('brake fluid swells it');
  await hand.press('e');
  await hand.go(`/jobs/${id}/build`);
  await hand.tab('Workings');
  await hand.use('How hard does an O-ring drag?');
  await hand.fill('Where it slides', '12,7');
  await hand.fill('Section', '1,78');
  await hand.fill('Squeezed by', '12');
  await hand.fill('Pushed back with', '20');
  await hand.sees('in');
  // Dry it takes twice as much, and the spring does not bring it back.
  await hand.tabTo('It slides');
  await hand.type('dry');
  await hand.page.waitForFunction(() => document.querySelector('.answer-main .number')?.textContent === 'unsure');
  await hand.press('ArrowUp');
  await hand.page.waitForFunction(() => document.querySelector('.answer-main .number')?.textContent === 'in');
  await hand.use('Keep it on the job');
  await allKept(hand);
  await openBuild(at, 'Piston in');
  // Another seal than the maker’s: foreman and customer agree first, by name.
  await hand.use('A ring worked out to fit');
  await hand.fill('Which foreman agrees', 'Oswin Tarrell');
  await hand.fill('What the customer said', 'yes, the kit is not to be had');
  await hand.use('Both agree');
  await hand.sees('Departs from the maker');
  await api.workTo(id, 'boot-on');
  const { live } = await stateOf(api, id);
  expect(live.findLast(({ kind }) => kind === 'worked')).toMatchObject({ working: { output: { verdict: 'in' } } });
  expect(live.findLast(({ kind }) => kind === 'way')?.payload).toMatchObject({ way: 'a-ring-worked-out-to-fit' });
  expect(await isDone(at, 'piston-in')).toBe(true);
});

test('a compressor’s face seal: the sleeve over its keyway is off again before it turns', async () => {
  const at = await atJob(shop, 'askvale-rx10-refrigerant-compressor', 'seal-in', 'build');
  const { hand } = at;
  await openBuild(at, 'Seal in');
  await newOnes(hand, 'lip kit of that bore');
  await acts(hand, 'Out, whole', 'It is so', 'Whole, the right one', 'It is on', 'It lies that way', 'Greased, in and square');
  await hand.sees('off again');
  await allKept(hand);
  expect(await isDone(at, 'seal-in')).toBe(false);
  // A piece of it is not there: nothing goes on.
  await hand.press('x');
  await hand.use('a piece is missing');
  await hand.sees('Not right: a piece is missing');
  await hand.use('It is right now');
  await hand.use('It turns so');
  // Its ring goes in behind it.
  await hand.use('It is home');
  await allKept(hand);
  expect((await stateOf(at.api, at.id)).live.filter(({ kind }) => kind === 'seal-seen').map(({ payload }) => payload)).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ what: 'guard-off', fine: false }),
      expect.objectContaining({ what: 'guard-off', fine: true }),
    ]),
  );
  await at.api.workTo(at.id, 'bearing-into-the-pulley');
  expect(await isDone(at, 'seal-in')).toBe(true);
});

test('a bellows seal: pressed together by its chart, marks at true size; a shaft that the chart does not have is refused', async () => {
  const at = await atJob(shop, 'askvale-db32-dripless-seal', 'bellows-on-the-tube', 'build');
  const { hand } = at;
  await hand.tab('Workings');
  await hand.use('How far is a face seal pressed together?');
  await hand.fill('Shaft', '45');
  await hand.fill('Chart of the sheet', '25 17');
  await hand.press('Enter');
  await hand.type('30 19');
  await hand.press('Enter');
  await hand.type('40 23');
  await hand.sees('the chart goes from 25 mm to 40 mm');
  await hand.fill('Shaft', '30');
  await hand.fill('Neutral mark at', '120');
  await hand.sees('139 mm');
  // Held against the shaft it is as long as it is.
  const wide = await hand.page.$eval('.true-size svg', (drawing) => drawing.getAttribute('width'));
  expect(Number.parseFloat(wide ?? '')).toBeCloseTo(20 + 24, 6);
  await hand.fill('It can give', '18');
  await hand.sees('it would be solid');
  await hand.fill('It can give', '32');
  await hand.use('Keep it on the job');
  await allKept(hand);
  await openBuild(at, 'Bellows on the tube');
  await newOnes(hand, 'kit');
  // One that was creased in its bag is put aside.
  await acts(hand, 'Out, whole', 'It is so');
  await hand.press('x');
  await hand.fill('In words, where it is none of these', 'creased');
  await hand.press('Enter');
  await newOnes(hand, 'kit, the second');
  await acts(hand, 'This one is whole', 'It lies that way', 'Greased, in and square');
  await hand.heads('Bellows clamps');
  await allKept(hand);
  expect(await isDone(at, 'bellows-on-the-tube')).toBe(true);
});

test('a gearbox cover: its bead from where the holes are, and the screws that have to be home before the skin', async () => {
  const at = await atJob(shop, 'askvale-gx5-gearbox', 'case-shut', 'build');
  const { hand } = at;
  await hand.tab('Workings');
  await hand.use('How much sealant');
  await hand.tabTo('Its path is known');
  await hand.type('from where');
  await hand.fill('Holes', '0 210 8.5');
  for (const line of ['210 0 8.5', '300 214 8.5', '214 300 8.5', '105 105 8.5']) {
    await hand.press('Enter');
    await hand.type(line);
  }
  await hand.fill('There is', '2 mL');
  await hand.fill('Skin after', '10 min');
  await hand.fill('Screws to be home', '90');
  await hand.sees('lay another ready');
  await hand.fill('There is', '50 mL');
  await hand.sees('two people');
  await hand.fill('Screws to be home', '18');
  await hand.sees('you have 10 min');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Keep it on the job');
  await allKept(hand);
  await openBuild(at, 'Case shut');
  await acts(hand, 'Off, all of it', 'It is so');
  // Half a year on the shelf with its cap off: a fresh one.
  await hand.sees('in date, not skinned in its nozzle');
  await hand.press('x');
  await hand.use('hard with age');
  await acts(hand, 'This one is whole', 'It lies that way', 'Laid, all round');
  await allKept(hand);
  expect((await stateOf(at.api, at.id)).live.findLast(({ kind }) => kind === 'seal-fitted')).toMatchObject({ step: 'case-shut' });
});
