import type { JobHead, StockLine } from '@jubb/book';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
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
