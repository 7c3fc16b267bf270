import { expect, test } from '@jest/globals';
import { isKind, type JobHead, type JobView, type StockLine } from '@jubb/contract';
import type { HTTPRequest } from 'puppeteer-core';
import { allKept, stateOf } from '../kit/at-job.ts';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('jobs, sheets, tools and the bench open by what people call them', async () => {
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/jobs/402');
  await hand.logIn('ilka');
  const api = await Client.as(shop.server.base, 'ilka');
  const { id } = await api.jobNumbered(402);
  await hand.page.waitForFunction((wanted) => location.pathname.startsWith(`/jobs/${wanted}/`), {}, id);
  await hand.go('/jobs/402/report');
  await hand.page.waitForFunction((wanted) => location.pathname === `/jobs/${wanted}/report`, {}, id);
  await hand.go('/bench/402');
  await hand.page.waitForSelector('.bench');
  await hand.go('/sheets/harrowmere-th6-front-hub');
  await hand.sees('What the checker says');
  await hand.go('/crib/tools/m3');
  await hand.page.waitForFunction(() => /\/crib\/tools\/[0-9a-f-]{36}$/u.test(location.pathname));
  await hand.go('/jobs/9999');
  await hand.sees('There is no job called “9999”');
  await hand.go('/sheets/nowhere');
  await hand.sees('There is no sheet called “nowhere”');
});

test('one box finds a part number, a telephone however it is written, a place and an act; ? says the keys', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/');
  await hand.logIn('ilka');
  const find = async (text: string, words: string, kind: string): Promise<void> => {
    await hand.page.keyboard.down('Control');
    await hand.press('k');
    await hand.page.keyboard.up('Control');
    await hand.page.waitForSelector('#find');
    await hand.type(text);
    await hand.page.waitForFunction(
      (wanted, sort) =>
        [...document.querySelectorAll<HTMLElement>('#found li')].some(
          (one) => one.innerText.startsWith(sort) && one.innerText.includes(wanted),
        ),
      {},
      words,
      kind,
    );
    await hand.press('Escape');
    await hand.page.waitForFunction(() => document.querySelector('#find') === null);
  };
  const [shelf] = await api.get<StockLine[]>('/stock');
  await find(shelf!.number, shelf!.name, 'stores');
  const sheet = await api.sheetKeyed('quennet-t4-turbocharger');
  await find('QT4-112', sheet.title, 'sheet');
  await find('orders', 'Orders', 'place');
  await find('book in', 'Book in a unit', 'act');
  const [job] = (await api.get<JobHead[]>('/jobs')).filter(({ customer }) => (customer.phone ?? '') !== '');
  const digits = job!.customer.phone!.replace(/\D/gu, '');
  await find(`${digits.slice(0, 3)} ${digits.slice(3)}`, String(job!.number), 'job');

  await hand.press('?');
  await hand.sees('Find a job, sheet, part, tool');
  expect(await hand.faults()).toEqual([]);
});

test('what is half typed of one job is not met on another', async () => {
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/jobs/402');
  await hand.logIn('ilka');
  await hand.sees('The book');
  await hand.use('Note');
  await hand.tabTo('What should be remembered');
  await hand.type('strap round the left hub');
  await hand.go('/jobs/403');
  await hand.sees('The book');
  await hand.use('Note');
  await hand.tabTo('What should be remembered');
  expect(await hand.page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe('');
});

test('an entry at which the server fails is set aside with its reason, and those behind it are kept', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const { id } = await api.booked((await api.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/jobs/${id}`);
  await hand.logIn('ilka');
  await hand.sees('The book');
  await hand.page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await hand.page.setRequestInterception(true);
  const answer = (request: HTTPRequest): void => {
    const fails = request.method() === 'POST' && request.url().endsWith('/entries') && (request.postData() ?? '').includes('poison');
    void (fails
      ? request.respond({ status: 500, contentType: 'application/problem+json', body: '{"status":500,"title":"It fell over"}' })
      : request.continue());
  };
  hand.page.on('request', answer);
  for (const what of ['poison', 'a good one']) {
    await hand.use('Note');
    await hand.tabTo('What should be remembered');
    await hand.type(what);
    await hand.press('Enter');
  }
  await hand.sees('The server failed at this 4 times');
  await hand.page.waitForFunction(() => document.body.innerText.includes('a good one'));
  const notes = async (): Promise<string[]> =>
    (await api.get<JobView>(`/jobs/${id}`)).entries.filter(isKind('note')).map(({ payload }) => payload.text);
  for (let tries = 0; tries < 100 && (await notes()).length === 0; tries += 1) await new Promise((next) => setTimeout(next, 100));
  expect(await notes()).toEqual(['a good one']);
});

test('a job goes on to Prove over what is open with a reason only', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const { id } = await api.booked((await api.sheetKeyed('harrowmere-th6-front-hub')).revisionId);
  const { steps } = (await api.get<JobView>(`/jobs/${id}`)).sheet.file;
  await api.workTo(id, steps.find(({ stage }) => stage === 'build')!.ref);
  await api.post(id, entry('stage', { stage: 'build' }));
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/jobs/${id}/prove`);
  await hand.logIn('ilka');
  await hand.use('Take it on to Prove');
  await hand.sees('On to Prove with something open');
  await hand.sees('Open: Build: ');
  await hand.press('Enter');
  await hand.sees('Say it in a word or two');
  await hand.fill('Why it goes on', 'bench is needed');
  await hand.press('Enter');
  await allKept(hand);
  await hand.sees('although something was open: bench is needed');
  expect((await stateOf(api, id)).stage).toBe('prove');
});
