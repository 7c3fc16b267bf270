import type { JobView } from '@jubb/book';
import { STAGES } from '@jubb/sheet';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();
let hand: Hand;
let jobs: readonly JobView[];

beforeAll(async () => {
  hand = await Hand.at(shop.screen.browser, shop.server.base);
  await hand.logIn('ilka');
  const api = await Client.as(shop.server.base, 'ilka');
  jobs = await Promise.all([401, 402, 403].map((number) => api.jobNumbered(number)));
});

describe.each([
  [1280, 800],
  [1024, 768],
  [390, 844],
] as const)('at %i × %i', (width, height) => {
  const open = async (path: string): Promise<void> => {
    await hand.page.setViewport({ width, height });
    await hand.go(path);
    await hand.page.waitForSelector('.act-due h1');
  };

  test.each(STAGES)('the act due and its first key are in the window at %s, and what is under it is no second page', async (stage) => {
    for (const { id } of jobs) {
      await open(`/jobs/${id}/${stage}`);
      const { key, heading, page } = await hand.page.evaluate(() => ({
        key: document.querySelector('.act-due .btn-primary')?.getBoundingClientRect().toJSON() as DOMRect | undefined,
        heading: document.querySelector('.act-due h1')!.getBoundingClientRect().toJSON() as DOMRect,
        page: document.documentElement.scrollHeight,
      }));
      expect(heading.top).toBeLessThan(height / 2);
      if (key) expect([key.top > 0, key.bottom <= height]).toEqual([true, true]);
      expect(page).toBeLessThan(3 * height);
    }
  });

  test('the keys of the job stand at the foot, each with its word; the others behind "More", and Escape leaves them', async () => {
    const middle = jobs[1]!;
    await open(`/jobs/${middle.id}/build`);
    const foot = await hand.page.$eval('.key-bar', (bar) => bar.getBoundingClientRect().bottom);
    expect(Math.round(foot)).toBe(height);
    const more = await hand.page.$$('.key-strip > button');
    await more.at(-1)!.click();
    await hand.page.waitForSelector('.more-keys.show');
    const words = await hand.page.$$eval('.more-keys .btn', (keys) =>
      keys.map((key) => (key as HTMLElement).innerText.trim().split('\n')[0]),
    );
    expect(words).toEqual(expect.arrayContaining(['Moved', 'Owed', 'Strike last', 'Tag', 'Report']));
    await hand.press('Escape');
    await hand.page.waitForFunction(() => document.querySelector('.more-keys') === null);
  });
});

test('one thing at a time stands under the act, and the address keeps which', async () => {
  const middle = jobs[1]!;
  await hand.page.setViewport({ width: 1280, height: 800 });
  await hand.go(`/jobs/${middle.id}/build`);
  await hand.sees('Build list');
  await hand.tab('The book');
  await hand.page.waitForFunction(() => location.search.includes('tab=book'));
  const tables = (): Promise<number> => hand.page.$$eval('.page-tab-body table', (all) => all.length);
  expect(await tables()).toBe(1);
  await hand.page.reload();
  await hand.page.waitForSelector('.page-tab-body table');
  expect(await hand.page.$eval('.page-tabs .active', (tab) => (tab as HTMLElement).innerText)).toContain('The book');
});

test('a step that is chosen from the list has the focus, and Enter does the step', async () => {
  const middle = jobs[1]!;
  await hand.go(`/jobs/${middle.id}/build`);
  await hand.page.waitForSelector('.page-tab-body .steps button, .page-tab-body button');
  const title = await hand.page.$eval('.page-tab-body [aria-current="step"]', (step) => (step as HTMLElement).innerText.split('\n')[0]!);
  await hand.page.click('.page-tab-body [aria-current="step"]');
  await hand.page.waitForFunction(() => document.activeElement?.classList.contains('act-due'));
  await hand.heads(title);
});

test('five keys at the foot of the bench, the longest first, are no wider than a tablet', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const { id } = await api.bookedOn('tindlebrook-sk2-steered-end');
  await api.workTo(id, 'shaft-out');
  await hand.page.setViewport({ width: 1024, height: 768 });
  await hand.go(`/bench/${id}`);
  if ((await hand.text()).includes('I have read it')) await hand.use('I have read it');
  await hand.sees('Half-way, stop');
  const edges = await hand.page.$$eval('.bench-keep .btn', (keys) => keys.map((key) => key.getBoundingClientRect().right));
  expect(edges.length).toBe(5);
  expect(Math.max(...edges)).toBeLessThanOrEqual(1024);
  expect(await hand.page.evaluate(() => document.documentElement.scrollWidth)).toBe(1024);
});

test('on a telephone the places stand in a drawer', async () => {
  await hand.page.setViewport({ width: 390, height: 844 });
  await hand.go(`/jobs/${jobs[1]!.id}`);
  await hand.page.waitForSelector('.act-due h1');
  expect(await hand.page.$eval('.topbar', (bar) => bar.getBoundingClientRect().height)).toBe(48);
  expect(await hand.page.$eval('.act-due', (act) => act.getBoundingClientRect().top)).toBeLessThan(200);
  await hand.use('Menu');
  await hand.page.waitForSelector('.offcanvas.show .places');
  await hand.page.click('.offcanvas .places a[href="/stores"]');
  await hand.heads('Stores');
});
