import type { JobHead, JobView, StockLine } from '@jubb/book';
import type { SheetLine } from '@jubb/wire';
import { beforeAll, expect, test } from '@jest/globals';
import { workings } from '@jubb/core';
import type { HTTPRequest, Page } from 'puppeteer-core';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();
let hand: Hand;
let oswin: Client;
let finished: JobView;
let middle: JobView;
let booked: JobView;
let sheet: SheetLine;
let shelf: StockLine;
let draft: { revisionId: string };
/** Jobs on sheets of other families, each where the bench asks for something else. */
const asked: Record<string, JobHead> = {};

beforeAll(async () => {
  hand = await Hand.at(shop.screen.browser, shop.server.base);
  await hand.logIn('ilka');
  oswin = await Client.as(shop.server.base, 'oswin');
  [finished, middle, booked] = (await Promise.all([401, 402, 403].map((number) => oswin.jobNumbered(number)))) as [
    JobView,
    JobView,
    JobView,
  ];
  sheet = await oswin.sheetKeyed('harrowmere-th6-front-hub');
  [shelf] = (await oswin.get<StockLine[]>('/stock')) as [StockLine];
  draft = await oswin.made('/sheets/' + sheet.revisionId + '/draft', {});
  for (const [step, key] of ASKED) {
    const { revisionId } = key ? await oswin.sheetKeyed(key) : await oswin.made<{ revisionId: string }>('/sheets', NEW_MODEL);
    asked[step] = await oswin.booked(revisionId);
    await oswin.workTo(asked[step].id, step);
  }
});

/** What the bench asks for there, by the step; the sheet of a new model has nobody's figures yet. */
const ASKED: readonly (readonly [step: string, sheet?: string])[] = [
  ['bolt-tried', 'harrowmere-ut9-trailer-hub'],
  ['cartridge-turned', 'harrowmere-ut9-trailer-hub'],
  ['belt-off', 'quennet-bn2-blower-drive'],
  ['brake-plate-on'],
];
const NEW_MODEL = { family: 'unitised hub with slipping-clutch bolt', make: 'Ostrel', model: 'UH 3', machine: 'Trailer' };

/** Workings share one page; what differs is what they draw. */
function oneOfEachDrawing(): readonly string[] {
  const byDrawing = new Map<string, string>();
  for (const { id, example } of workings.list()) {
    const result = workings.run(id, example);
    const drawn = result?.ok ? (result.run.drawing?.kind ?? 'nothing') : 'refused';
    if (!byDrawing.has(drawn)) byDrawing.set(drawn, id);
  }
  return [...byDrawing.values()];
}

const VIEWS: readonly (readonly [name: string, path: () => string])[] = [
  ['Today', () => '/'],
  ['Jobs', () => '/jobs'],
  ['Book in', () => '/jobs/new'],
  ['Sheets', () => '/sheets'],
  ['a sheet', () => `/sheets/${sheet.revisionId}`],
  ['a new sheet', () => '/sheets/new'],
  ...(['', '/joints', '/steps', '/limits'] as const).map(
    (list) => [`the editor${list}`, () => `/sheets/${draft.revisionId}/edit${list}`] as const,
  ),
  ['a tag', () => `/jobs/${booked.id}/label`],
  ['Workings', () => '/workings'],
  ...oneOfEachDrawing().map((id) => [`working ${id}`, () => `/workings/${id}`] as const),
  ['Stores', () => '/stores'],
  ['a stock line', () => `/stores/${shelf.id}`],
  ['a new stock line', () => '/stores/new'],
  ['shims by thickness', () => '/stores/shims'],
  ['the shop', () => '/shop'],
  ['on the network', () => '/shop/network'],
  ['practice', () => '/learn'],
  ['the first tour', () => '/learn/tour'],
  ['Orders', () => '/stores/orders'],
  ['Messages', () => '/stores/messages'],
  ['Customers', () => '/customers'],
  ['a customer', () => `/customers/${middle.customer.id}`],
  ['Crib', () => '/crib'],
  ['a tool', () => `/crib/tools/${middle.tools[0]!.id}`],
  ['Instruments', () => '/crib/instruments'],
  ...(['book-in', 'strip', 'measure', 'decide', 'build', 'prove', 'hand-over'] as const).map(
    (stage) => [`a job at ${stage}`, () => `/jobs/${middle.id}/${stage}`] as const,
  ),
  ['its parts', () => `/jobs/${middle.id}/parts`],
  ['its worth', () => `/jobs/${middle.id}/worth`],
  ['its quote', () => `/jobs/${booked.id}/quote`],
  ['a working on a job', () => `/jobs/${booked.id}/work/alternator.diodes`],
  ['bench view', () => `/bench/${middle.id}`],
  ...ASKED.map(([step]) => [`bench view at ${step}`, () => `/bench/${asked[step]!.id}`] as const),
  ['a report', () => `/jobs/${finished.id}/report`],
];

/** Each light at a size of its own, and the ground that it has. */
const LIGHTS = [
  ['day', 1280, 800, 'rgb(239, 236, 228)'],
  ['night', 1024, 768, 'rgb(20, 25, 28)'],
  ['sun', 390, 844, 'rgb(255, 255, 255)'],
] as const;

test.each(VIEWS)(
  'axe finds nothing on %s by day, by night and in the sun, and it does not scroll sideways at three sizes',
  async (_, path) => {
    await hand.go(path());
    await hand.page.waitForSelector('h1');
    for (const [light, width, height, ground] of LIGHTS) {
      await hand.page.setViewport({ width, height });
      // What the light's switch sets; the page need not come anew for it.
      await hand.page.evaluate((chosen) => (document.documentElement.dataset['bsTheme'] = chosen), light);
      await hand.settles(100);
      expect(await hand.page.evaluate(() => getComputedStyle(document.body).backgroundColor)).toBe(ground);
      expect([light, await hand.faults()]).toEqual([light, []]);
      const overhang = await hand.page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
      expect([light, overhang <= 0]).toEqual([light, true]);
    }
  },
);

test('axe finds nothing on the log-in and on what asks for a line', async () => {
  const stranger = await Hand.at(shop.screen.browser, shop.server.base);
  await stranger.sees('Who is working?');
  expect(await stranger.faults()).toEqual([]);
  await stranger.page.close();
  await hand.page.bringToFront();
  await hand.go(`/jobs/${middle.id}`);
  await hand.heads('Wheel nuts');
  await hand.press('o');
  await hand.sees('What is not as it will be');
  expect(await hand.faults()).toEqual([]);
  await hand.press('Escape');
});

test('the light is as it was chosen on this device, and the place one is at is marked', async () => {
  const lit = async (light: string): Promise<string> => {
    await hand.page.evaluate((chosen) => localStorage.setItem('jubb.light', chosen), light);
    await hand.go('/crib');
    await hand.heads('Crib');
    return hand.page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  };
  expect([await lit('night'), await lit('day')]).toEqual(['rgb(20, 25, 28)', 'rgb(239, 236, 228)']);
  const mark = await hand.page.$eval('.places [aria-current="page"]', (link) => getComputedStyle(link).borderLeftColor);
  expect(mark).toBe('rgb(47, 86, 109)');
});

test('letters with accents come when a name has one, and not before', async () => {
  const fonts = (): Promise<readonly string[]> =>
    hand.page.evaluate(async () => {
      await document.fonts.ready;
      return performance.getEntriesByType('resource').flatMap(({ name }) => /[^/]*\.woff2/u.exec(name)?.[0] ?? []);
    });
  await hand.go('/crib');
  await hand.heads('Crib');
  expect((await fonts()).filter((file) => file.includes('accents'))).toEqual([]);
  await hand.page.$eval('h1', (heading) => (heading.textContent = 'Jürgen Çelik'));
  await hand.page.waitForFunction(() => document.fonts.check('600 20px Barlow', 'ü'));
  expect((await fonts()).filter((file) => file.includes('accents'))).toHaveLength(1);
});

test('in bench view every key is at least 64 pixels high, and the number is read from afar', async () => {
  await hand.page.setViewport({ width: 1024, height: 768 });
  await hand.go(`/bench/${middle.id}`);
  await hand.heads('Wheel nuts');
  const heights = await hand.page.$$eval('.bench-keep button', (buttons) => buttons.map((button) => button.getBoundingClientRect().height));
  expect(Math.min(...heights)).toBeGreaterThanOrEqual(64);
  const size = await hand.page.$eval('.number', (number) => parseFloat(getComputedStyle(number).fontSize));
  expect(size).toBeGreaterThanOrEqual(180);
});

test('what one person keeps appears on the page of another by itself', async () => {
  await hand.go(`/jobs/${booked.id}`);
  await hand.heads('Marks and damage on arrival');
  await oswin.post(booked.id, entry('note', { text: 'the customer rang' }));
  await hand.sees('the customer rang');
});

test('eight pages of one browser all hear of it', async () => {
  // A browser opens six connections to a server at most, and a page that could not load would wait for ever.
  const pages: Page[] = [];
  try {
    for (let count = 0; count < 8; count += 1) {
      const page = await hand.page.browserContext().newPage();
      pages.push(page);
      await page.goto(`${shop.server.base}/jobs/${booked.id}`, { waitUntil: 'load' });
    }
    await oswin.post(booked.id, entry('note', { text: 'for every page' }));
    for (const page of pages) {
      // A page behind another paints nothing, so it is asked by the clock.
      await page.waitForFunction(() => document.body.innerText.includes('for every page'), { polling: 100, timeout: 60_000 });
      // The one that hears for all may be among them: another takes its place.
      await page.close();
    }
  } finally {
    // The tests after it look at the page that was there before.
    await Promise.all(pages.filter((page) => !page.isClosed()).map((page) => page.close()));
    await hand.page.bringToFront();
  }
});

test('of two people who change one job the second is told, and what was typed is kept', async () => {
  await hand.page.setViewport({ width: 1280, height: 800 });
  await hand.go(`/jobs/${booked.id}`);
  await hand.use('more');
  await hand.use('Change promise');
  await hand.fill('Complaint', 'Squeals in the rain.');
  const { version } = await oswin.get<JobView>(`/jobs/${booked.id}`);
  await oswin.call<JobHead>('PATCH', `/jobs/${booked.id}`, { version, estimateMinor: 31_000 });
  await hand.use('Keep');
  await hand.sees('Somebody changed this job while you had it open');
  await hand.sees('estimate 310.00');
  await hand.page.reload();
  await hand.sees('Keep');
  expect(await hand.page.$eval('#ch-complaint', (field) => (field as HTMLTextAreaElement).value)).toBe('Squeals in the rain.');
});

test('an entry that the server refuses stays, with a way out', async () => {
  await hand.go(`/jobs/${middle.id}/build`);
  await hand.heads('Wheel nuts');
  await hand.page.setRequestInterception(true);
  const meddle = (request: HTTPRequest): void => {
    const isEntry = request.method() === 'POST' && request.url().endsWith('/entries');
    const body = request.postData()?.replace('"joint":"wheel-nuts"', '"joint":"no-such-joint"') ?? '';
    void request.continue(isEntry ? { postData: body } : {});
  };
  hand.page.on('request', meddle);
  await hand.press('Space');
  await hand.sees('1 refused');
  await hand.sees('is not among the joints of the sheet');
  hand.page.off('request', meddle);
  await hand.page.setRequestInterception(false);
  await hand.use('Try again');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('refused'));
  await hand.sees('of 40 pulls');
  expect((await oswin.get<JobView>(`/jobs/${middle.id}`)).entries.at(-1)).toMatchObject({ kind: 'pull' });
});

test('figures can be shown in the other units, and typed in any', async () => {
  await hand.go('/workings/torque.adapter');
  await hand.sees('97.7 N·m');
  // The example's answer is nobody's: it goes with the first letter.
  await hand.fill('Torque known', '80 lbf·ft');
  await hand.sees('Still to come: Wrench length');
  await hand.fill('Wrench length', '450');
  await hand.fill('Adapter length', '55');
  await hand.fill('Adapter angle', '30');
  await hand.sees('98.1 N·m');
  await hand.fill('Torque known', '30 kPa');
  await hand.sees('is a pressure; a torque is asked');
  await hand.go(`/jobs/${middle.id}/build`);
  await hand.tabTo('Units');
  await hand.type('both');
  await hand.sees('79.7 lbf·ft');
});

/** What stands on the page may still be on its way to the shop.server. */
async function allSent(): Promise<void> {
  await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.topbar [role="status"]')?.innerText === 'live');
}

test('a job goes on to a stage and back again, and the book says so', async () => {
  await hand.go(`/jobs/${booked.id}/strip`);
  await hand.sees('The job is at Book in.');
  await hand.use('Take it on to Strip');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('The job is at Book in.'));
  await allSent();
  await hand.go(`/jobs/${booked.id}/book-in`);
  await hand.sees('The job is at Strip.');
  await hand.use('Take it back to Book in');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('The job is at Strip.'));
  await allSent();
  const { stage, entries } = await oswin.get<JobView>(`/jobs/${booked.id}`);
  expect(stage).toBe('book-in');
  const stages = entries.flatMap((kept) => (kept.kind === 'stage' ? [kept.payload.stage] : []));
  expect(stages).toEqual(['strip', 'book-in']);
});
