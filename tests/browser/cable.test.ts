import { isKind, type JobView } from '@jubb/book';
import type { ChangeLine, InstrumentView } from '@jubb/wire';
import { beforeAll, expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';
import { until } from '../kit/stream.ts';
import { withPort } from '../kit/stand-in-port.ts';

const shop = ownShop();
let api: Client;

beforeAll(async () => {
  api = await Client.as(shop.server.base, 'ilka');
});

async function atInstruments(login: string): Promise<Hand> {
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/crib/instruments');
  await withPort(hand);
  await hand.logIn(login);
  await hand.heads('Instruments');
  return hand;
}

/** Pairs an instrument with this tablet, and opens its port; keys only. */
async function plugged(hand: Hand, tag: string, way?: string): Promise<void> {
  await hand.use(`${tag}: pair with this tablet`);
  await hand.use(`${tag}: by cable`);
  if (way !== undefined) await hand.fill('How it talks', way);
  await hand.use('Choose its port');
  await hand.sees('On its cable');
}

const says = (hand: Hand, text: string): Promise<void> => hand.page.evaluate((line) => window.port.say(line), text);

/** A job at a step, at the bench. */
async function toBench(hand: Hand, sheet: string, step: string): Promise<string> {
  const { id } = await api.bookedOn(sheet);
  await api.workTo(id, step);
  await hand.go(`/bench/${id}`);
  await hand.page.waitForSelector('.bench h1');
  return id;
}

/** What was read at a limit of a job, once it is kept. */
async function readingsOf(id: string, limit: string): Promise<readonly number[]> {
  let kept: readonly number[] | undefined;
  await until(async () => {
    const { entries } = await api.get<JobView>(`/jobs/${id}`);
    kept = entries.filter(isKind('reading')).find(({ payload }) => payload.limit === limit)?.payload.readings;
    return kept !== undefined;
  });
  return kept!;
}

test('an indicator at a cable fills the readings, also after a reload; what is no reading is told; drawn and plugged in, it is there again', async () => {
  const hand = await atInstruments('ilka');
  await plugged(hand, 'D2');
  await says(hand, '+0.31');
  await says(hand, '0 mm\r\n');
  await hand.page.waitForFunction(() => document.querySelector('[aria-label^="D2 "]')?.textContent?.includes('0.31'));
  await says(hand, '##?;\r\n');
  await hand.sees('It sent "##?;", which is no reading');
  await hand.page.evaluate(() => window.port.cripple());
  await says(hand, '+0.327 mm\r\n');
  await hand.page.waitForFunction(() => document.querySelector('[aria-label^="D2 "]')?.textContent?.includes('0.327'));
  expect(await hand.faults()).toEqual([]);

  const id = await toBench(hand, 'harrowmere-th6-front-hub', 'end-float-found');
  await hand.sees('Read the caution');
  await hand.press('Space');
  await hand.sees('Reading 1 of');
  await says(hand, '0,312 mm\r\n');
  await hand.sees('Reading 2 of');
  // A line without its unit goes by the tool's.
  await says(hand, '+000.309\r');
  await hand.sees('Reading 3 of');
  // Without a link it is said, and comes nowhere later.
  await hand.page.setOfflineMode(true);
  await says(hand, '0.400 mm\r\n');
  await new Promise((resolve) => setTimeout(resolve, 500));
  await hand.page.setOfflineMode(false);
  await says(hand, '0.311 mm\r\n');
  await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.bench-keep .btn-primary')?.innerText.startsWith('Keep'));
  await hand.press('PageDown');
  expect(await readingsOf(id, 'end-float-found')).toEqual([0.312, 0.309, 0.311]);

  await hand.go('/crib/instruments');
  await hand.sees('On its cable');
  await hand.page.evaluate(() => window.port.draw());
  await hand.sees('Its cable was drawn');
  await hand.page.evaluate(() => window.port.plug());
  await hand.sees('On its cable');
  await hand.use('Let the cable go');
  await hand.sees('Choose its port');
});

test('a meter that answers SCPI shows what it reads beside the field, and it is taken by a key', async () => {
  const hand = await atInstruments('ilka');
  const shows = (read: string): Promise<unknown> =>
    hand.page.evaluate(
      (answer) => Object.assign(window.port.answers, { '*IDN?': 'BENCH,METER 5,0417,1.2', 'FUNC?': '"RES"', 'READ?': answer }),
      read,
    );
  await shows('+4.10000E+00');
  await plugged(hand, 'E1', 'answers SCPI');
  await hand.sees('It says it is BENCH,METER 5');
  await hand.page.waitForFunction(() => /4\.1\d* Ω/u.test(document.querySelector('[aria-label^="E1 "]')?.textContent ?? ''));
  // Its leads are off: past its range it has no figure.
  await shows('9.9E37');
  await hand.page.waitForFunction(() => document.querySelector('[aria-label^="E1 "]')?.textContent?.includes('click') === false);
  await hand.page.evaluate(() => delete window.port.answers['READ?']);
  await hand.sees('It does not answer');
  expect(await hand.faults()).toEqual([]);

  const id = await toBench(hand, 'quennet-ga-alternator', 'rotor-through-the-brushes');
  await shows('+2.51000E+00');
  await hand.sees('Reading 1 of 2');
  await hand.use('Take it');
  await hand.sees('Reading 2 of 2');
  await shows('+2.47000E+00');
  await hand.page.waitForFunction(() => document.querySelector('[aria-label="The instrument reads"]')?.textContent?.startsWith('2.47'));
  expect(await hand.faults()).toEqual([]);
  await hand.use('Take it');
  await hand.press('PageDown');
  expect(await readingsOf(id, 'rotor-through-brushes')).toEqual([2.51, 2.47]);
});

test('a tool of the crib sends by itself from now on, and no more; of a browser without ports it is said what else works', async () => {
  const oswin = await Client.as(shop.server.base, 'oswin');
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/crib/instruments');
  await hand.page.evaluateOnNewDocument(() => delete (Navigator.prototype as { serial?: unknown }).serial);
  await hand.page.reload();
  await hand.logIn('oswin');
  await hand.heads('Instruments');
  await hand.use('It sends');
  await hand.sees('is missing: which tool is it?');
  await hand.fill('Which tool of the crib', 'K2 ');
  await hand.use('It sends');
  await hand.page.waitForSelector('[aria-label^="K2 "]');
  const k2 = (await oswin.get<InstrumentView[]>('/instruments')).find(({ tool }) => tool.tag === 'K2')!;
  expect(k2).toMatchObject({ clicks: false, tablet: null });
  await hand.use('K2: pair with this tablet');
  await hand.use('K2: by cable');
  await hand.sees('This browser opens no port');
  expect(await hand.faults()).toEqual([]);
  await hand.use('K2: sends no more');
  await hand.page.waitForFunction(() => !document.querySelector('[aria-label^="K2 "]'));
  await hand.use('Undo');
  await hand.page.waitForSelector('[aria-label^="K2 "]');
  const changes = await oswin.get<ChangeLine[]>('/changes?find=K2');
  expect(changes.map(({ act }) => act)).toEqual(['sends by itself', 'sends by itself no more', 'sends by itself']);
});
