import { isKind, type JobView } from '@jubb/book';
import { expect, test } from '@jest/globals';
import type { HTTPRequest } from 'puppeteer-core';
import { allKept, atJob, stateOf } from '../kit/at-job.ts';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

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
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/jobs/${id}`, { keeps: true });
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

test.each(['bench', 'jobs'])(
  'a reading half typed on the %s page stays when somebody else keeps the step, until it is let go',
  async (place) => {
    const { api, id, hand } = await atJob(shop, 'harrowmere-th6-front-hub', 'inner-journal', 'measure');
    const { step } = (await stateOf(api, id)).steps.find(({ step: { ref } }) => ref === 'inner-journal')!;
    await hand.go(place === 'bench' ? `/bench/${id}` : `/jobs/${id}/measure`);
    await hand.heads(step.title);
    await hand.tabTo('Reading');
    await hand.type('34.98');
    const other = entry('reading', { limit: step.record.limit, readings: [34.981, 34.98, 34.98, 34.981], unit: 'mm' }, { step: step.ref });
    expect((await api.post(id, other)).status).toBe(200);
    await hand.sees('Kept meanwhile');
    await hand.heads(step.title);
    expect(await hand.page.evaluate(() => [...document.querySelectorAll('input')].some(({ value }) => value === '34.98'))).toBe(true);
    await hand.use('Let mine go');
    await hand.page.waitForFunction((title) => !document.querySelector('h1')?.innerText.startsWith(title), {}, step.title);
  },
);
