import type { JobView } from '@jubb/book';
import type { ChainView } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';
import { stocked } from '../kit/stock.ts';

const shop = ownShop();

/** Types readings, each with Enter, and keeps them. */
async function readings(hand: Hand, figures: readonly string[], verdict: string): Promise<void> {
  for (const [index, figure] of figures.entries()) {
    await hand.sees(`Reading ${index + 1} of ${figures.length}`);
    await hand.type(figure);
    await hand.press('Enter');
  }
  await hand.sees('Another reading');
  await hand.sees(verdict);
  await hand.press('Enter');
}

/** Reads the caution that stands before a step. */
async function readCare(hand: Hand, title: string): Promise<void> {
  await hand.heads(title);
  await hand.sees('I have read it');
  await hand.press('Space');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('I have read it'));
}

async function tick(hand: Hand, title: string): Promise<void> {
  await hand.heads(title);
  await hand.sees('Done');
  await hand.press('Space');
}

/** Says of new parts that they come from elsewhere than the stores. */
async function brought(hand: Hand, part: string): Promise<void> {
  await hand.sees(`× ${part}`);
  await hand.fill('Where they come from', 'brought by the van');
  await hand.press('Enter');
}

/** Waits until so much of this part is asked for. */
async function asks(hand: Hand, part: string): Promise<void> {
  await hand.page.waitForFunction((name) => document.querySelector('.count-name')?.textContent?.startsWith(name), {}, part);
}

async function count(hand: Hand, part: string): Promise<void> {
  await asks(hand, part);
  await hand.press('Space');
}

/** Says of what is to be looked at after an act that it is so. */
async function looks(hand: Hand, words: string): Promise<void> {
  await hand.sees(words);
  await hand.press('Space');
  await hand.page.waitForFunction((seen) => !document.body.innerText.includes(seen), {}, words);
}

test('a wheel hub from book-in to hand-over, by keyboard alone', async () => {
  const pins = await stocked(await Client.as(shop.server.base, 'perla'), { number: 'HT6-4407', name: 'Split pin 5 × 50' }, 14);
  const hand = await Hand.at(shop.screen.browser, shop.server.base);
  await hand.logIn('ilka');

  // Book in.
  await hand.page.keyboard.down('Control');
  await hand.press('k');
  await hand.page.keyboard.up('Control');
  await hand.sees('Book in a unit');
  await hand.type('Book in');
  await hand.press('Enter');
  await hand.heads('Book in');
  await hand.fill('Customer, or serial or tag', 'valdorn');
  await hand.use('Valdorn Airfield');
  await hand.fill('Machine', 'Baggage tractor 7');
  await hand.fill('Serial', 'TH6-21990');
  await hand.fill('Unit and side', 'Right front hub');
  await hand.fill('Serial or tag', 'VA-7-RF');
  await hand.tabTo('Sheet');
  await hand.type('Harrowmere TH');
  await hand.fill('What the customer says', 'Grinds when the tractor pulls away.');
  await hand.fill('Estimate', 'about 400');
  await hand.press('Enter');
  await hand.sees('must be an amount of money');
  await hand.fill('Estimate', '395,50');
  await hand.press('Enter');

  await hand.heads('Marks and damage on arrival');
  await hand.type('Grease on the tyre wall');
  await hand.press('Enter');
  await readCare(hand, 'End float as found');
  await readings(hand, ['0,31 mm', '0.305', '12 thou'], 'out');
  await hand.heads('Book in is done');
  await hand.press('Space');

  // Strip: a wrong count, struck, and counted again.
  await tick(hand, 'Chocks in');
  await hand.sees('studs 10');
  await hand.sees('Nobody has said so far');
  await hand.press('1');
  await readCare(hand, 'Wheel off');
  await asks(hand, 'Wheel nuts');
  await hand.fill('Counted', '9');
  await hand.press('Enter');
  await hand.sees('9 counted, the sheet says 10');
  await hand.press('Escape');
  await hand.tabTo('Strike number');
  await hand.press('Enter');
  await hand.sees('Strike: 9 × Wheel nuts');
  await hand.press('Enter');
  await hand.sees('Say it in a word or two');
  await hand.type('one was still in the socket');
  await hand.press('Enter');
  await hand.sees('struck by Ilka Varne');
  await hand.fill('Counted', '10');
  await hand.press('Enter');
  await asks(hand, 'Wheel with tyre');
  await hand.press('Enter');
  await hand.fill('Came off, but not on the sheet', '2 x valve cap extension, tray 3');
  await hand.press('Enter');
  await hand.sees('valve cap extension');
  await hand.press('Escape');

  // The link is cut for the rest of the strip; the book goes on.
  await hand.cut(true);
  await readCare(hand, 'Dust cap off');
  await count(hand, 'Dust cap');
  await count(hand, 'Split pin');
  await looks(hand, 'Expected: It comes with a pull');
  await hand.sees('held, no link');
  for (const part of ['Castle nut', 'Tongued washer', 'Outer bearing']) await count(hand, part);
  await readCare(hand, 'Hub off');
  for (const part of ['Hub', 'Hub seal', 'Inner bearing']) await count(hand, part);
  await looks(hand, 'Expected: The spring of the lip comes with it');
  await hand.cut(false);
  await hand.sees('live');
  await tick(hand, 'Wash and dry');
  await hand.heads('Strip is done');
  await hand.press('Space');

  // Measure, with a reload between two readings.
  await hand.heads('Inner journal');
  await hand.type('34,98');
  await hand.press('Enter');
  await hand.sees('Reading 2 of 4');
  await hand.type('34.9815');
  await hand.page.reload();
  await hand.sees('Reading 2 of 4');
  expect(await hand.page.$eval('.num-field', (field) => (field as HTMLInputElement).value)).toBe('34.9815');
  await hand.press('Enter');
  await hand.type('40 m');
  await hand.press('Enter');
  await hand.sees('is too large here');
  await hand.fill('Reading 3 of 4', '34.9805 mm');
  await hand.press('Enter');
  await hand.sees('Reading 4 of 4');
  await hand.type('34.981');
  await hand.press('Enter');
  await hand.sees('Another reading');
  await hand.press('Enter');
  await hand.heads('Outer journal');
  await readings(hand, ['24.985', '24.9855', '24.985', '24.986'], 'in');
  await hand.heads('Inner race and rollers');
  await hand.press('3');
  await hand.heads('Outer race and rollers');
  await hand.press('1');
  await hand.heads('Races in the hub');
  await hand.press('1');
  await hand.heads('Track of the seal');
  await hand.press('1');
  await hand.heads('Measure is done');
  await hand.press('Space');

  // Decide: the pitted bearing is proposed for renewal; the castle nut is renewed against the proposal.
  await hand.heads('What stays, what is renewed');
  await hand.sees('pits, flaking');
  // What is out stands first; the line behind it is one that may go back.
  await hand.tabTo('rework');
  await hand.press('Tab', 'Tab', 'Tab', 'Tab', 'Enter');
  await hand.sees('although reuse is proposed');
  await hand.type('tyre is bald');
  await hand.press('Enter');
  await hand.sees('Take the other 10 as proposed');
  await hand.press('Escape');
  await hand.use('Take the other 10 as proposed');
  await hand.heads('Decide is done');
  await hand.press('Space');

  // Build, in bench view.
  await hand.heads('Count it back');
  await hand.press('b');
  await hand.page.waitForSelector('.bench');
  for (let line = 0; line < 11; line += 1) {
    await hand.page.waitForFunction((done) => document.querySelectorAll('tr.soft').length === done, {}, line);
    await hand.press('PageDown');
  }
  await readCare(hand, 'Races of renewed bearings');
  await tick(hand, 'Races of renewed bearings');
  // Two of them, one after the other.
  await hand.sees('Home when: the note of the hammer changed');
  await hand.press('Space');
  await looks(hand, 'Home when: the note of the hammer changed');
  // One that does not sound as it should is said to be so, and stands until it is home.
  await hand.sees('Expected: The sound of the hammer changes');
  await hand.press('x');
  await hand.fill('What it was like', 'dull on one side');
  await hand.press('Enter');
  await hand.sees('Not as expected');
  await hand.sees('dull on one side');
  await hand.press('Space');
  await hand.heads('Grease');
  await hand.type('182');
  await hand.press('Enter');
  await hand.heads('Inner bearing in');
  // A new part that is not taken from the shelf: it does not go in before somebody says where it comes from.
  await brought(hand, 'Inner bearing with race');
  await tick(hand, 'Inner bearing in');
  await hand.heads('Seal in');
  await brought(hand, 'Hub seal');
  await looks(hand, 'bore clean, no gouge');
  await looks(hand, 'whole on every face and edge, no nick');
  await hand.sees('lip towards the grease');
  await hand.press('Space');
  await hand.sees('hub grease on the lip');
  await hand.press('Space');
  await readings(hand, ['0.2', '0.22', '0.21'], 'in');
  await looks(hand, 'garter spring in its groove');
  await looks(hand, 'Expected: The hammer sounds solid');
  await tick(hand, 'Hub on the spindle');
  await tick(hand, 'Outer bearing, washer, nut by hand');
  await hand.heads('Set the nut');
  await hand.sees('Seat the bearings');
  await hand.press('Space');
  await readings(hand, ['0.21', '0.21', '0.21'], 'mean');
  // 0.21 mm on a pitch of 1 mm with 12 lock positions: 0.0833 mm a slot, two land inside 0.03 to 0.13.
  await hand.sees('Tighten 60°, 2 slots, and lock it.');
  await hand.sees('Leaves 0.043 mm');
  await hand.press('Space');
  await readings(hand, ['0.15', '0.15', '0.15'], 'out');
  await hand.sees('Tighten 30°, one slot, and lock it.');
  await hand.press('Space');
  await readings(hand, ['0.065', '0.07', '0.065'], 'in');
  await hand.heads('New split pin in');
  await hand.sees(`14 free, shelf ${pins.location}`);
  await hand.press('Space');
  await tick(hand, 'New split pin in');
  await looks(hand, 'Home when: both legs bent');
  await looks(hand, 'Expected: The pin goes in with a push');
  await hand.heads('Wheel on, nuts by hand');
  await brought(hand, 'Wheel with tyre');
  for (const title of ['Wheel on, nuts by hand', 'Down on the floor']) await tick(hand, title);

  // Wheel nuts, with a crowfoot on the wrench.
  await readCare(hand, 'Wheel nuts, pass 1 of 4');
  await hand.sees('Set the wrench to 32.4 N·m');
  await hand.press('w');
  await hand.tabTo('On it');
  await hand.type('A1');
  await hand.fill('Its angle', '30');
  // 32.4 · 450 / (450 + 55 · cos 30°)
  await hand.sees('Set the wrench to 29.3 N·m');
  await hand.press('Escape');
  for (let pull = 0; pull < 30; pull += 1) {
    await hand.sees(`\n${pull}\nof 40 pulls`);
    await hand.press('PageDown');
  }
  await hand.heads('Wheel nuts, pass 4 of 4, once round.');
  await hand.press('t');
  await hand.sees('\n31\nof 50 pulls');
  for (let pull = 31; pull < 50; pull += 1) {
    await hand.sees(`\n${pull}\nof 50 pulls`);
    await hand.press('PageDown');
  }
  await hand.heads('Build is done');
  await hand.press('Space');

  // Prove cannot close over an open end.
  await tick(hand, 'Up again for the last look');
  await hand.heads('End play by dial');
  await hand.press('o');
  await hand.type('Strap round the axle');
  await hand.press('Tab', 'Tab');
  await hand.type('take it off');
  await hand.press('Enter');
  await readings(hand, ['0.065', '0.07', '0.065'], 'in');
  await tick(hand, 'It turns freely');
  await looks(hand, 'Expected: Smooth, no rumble');
  for (const title of ['Pin fitted and bent', 'Dust cap on']) await tick(hand, title);
  await looks(hand, 'Home when: its rim stands on the hub all round');
  await tick(hand, 'Down, stand and chocks out');
  await hand.heads('Warmth of both hubs');
  await readings(hand, ['38', '39'], 'in');
  await hand.heads('Foreman signs');
  await hand.sees('The foreman signs this');
  await hand.sees('Open end: Strap round the axle');
  await hand.press('Escape');
  await hand.sees('Job');
  const path = new URL(hand.page.url()).pathname;
  await hand.use('Log out');

  await hand.logIn('oswin');
  await hand.go(path);
  await hand.heads('Foreman signs');
  expect(await hand.page.$eval('.btn-primary', (button) => (button as HTMLButtonElement).disabled)).toBe(true);
  await hand.use('It is closed');
  await hand.page.waitForFunction(() => !document.querySelector<HTMLButtonElement>('.btn-primary')?.disabled);
  await hand.use('Sign as Oswin Tarrell');
  await hand.heads('Prove is done');
  await hand.use('Go on to Hand over');
  await hand.heads('Tell the driver');
  await hand.use('Done');
  await hand.heads('Hand it over');
  await hand.tabTo('Told, and in the report');
  await hand.press('Space');
  await hand.fill('Received by', 'Ragna Ollwick');
  await hand.press('Enter');
  await hand.sees('Handed over to Ragna Ollwick');
  await hand.use('The report');

  // The report shows it, the struck mistake and all.
  await hand.heads('Job 404: Right front hub');
  const report = await hand.text();
  for (const words of [
    'Wheel nuts: pull again to 108 N·m',
    'As left: 0.067 mm, in.',
    'Grease on the tyre wall',
    'struck by Ilka Varne',
    'one was still in the socket',
    'tyre is bald',
    'W3 Click wrench 20–200',
    'Seen to be home',
    'not so: dull on one side',
    'Proved and signed: Oswin Tarrell',
    'Received by: Ragna Ollwick',
  ])
    expect(report).toContain(words);

  const ilka = await Client.as(shop.server.base, 'ilka');
  const job = await ilka.jobNumbered(404);
  const pulls = job.entries.filter((entry) => entry.kind === 'pull');
  expect(pulls).toHaveLength(50);
  expect(pulls.every((pull) => pull.toolId !== null)).toBe(true);
  const chain = await ilka.get<ChainView>(`/jobs/${job.id}/chain`);
  expect(chain).toMatchObject({ whole: true, entries: job.entries.length });
  expect(report).toContain(chain.hash);
  expect((await ilka.get<JobView>(`/jobs/${job.id}`)).closedAt).not.toBeNull();
});
