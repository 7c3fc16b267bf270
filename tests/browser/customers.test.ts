import type { CustomerView } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('a customer’s page, keys only: reached by, sold and taken back, two that are one, and made nameless', async () => {
  const api = await Client.as(shop.server.base, 'oswin');
  const { customer, machine } = await api.jobNumbered(402);
  const { revisionId } = await api.sheetKeyed('harrowmere-th6-front-hub');
  const twin = await api.booked(revisionId, { customer: { name: `${customer.name} Ltd` } });
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/jobs');
  await hand.logIn('oswin');
  await hand.use('Customers');
  await hand.fill('Name, telephone, machine, serial', customer.name);
  await hand.use(customer.name);
  await hand.heads(customer.name);
  await hand.fill('E-mail', 'nowhere');
  await hand.use('Keep it');
  await hand.sees('must be an e-mail address');
  await hand.fill('E-mail', 'field@example.com');
  await hand.use('Keep it');
  await hand.sees(', field@example.com');
  expect(await hand.faults()).toEqual([]);

  await hand.tab('Quotes and letters');
  await hand.sees('Nothing was offered to them yet.');
  await hand.tab('Machines');
  await hand.use(`Sold: ${machine.name}`);
  await hand.fill(`Who has ${machine.name} now`, twin.customer.name);
  await hand.use(twin.customer.name);
  await hand.sees(`${machine.name} has another owner`);
  expect((await api.get<CustomerView>(`/customers/${twin.customer.id}`)).machines.map(({ id }) => id)).toContain(machine.id);
  await hand.use('Undo');
  await hand.page.waitForFunction(
    (name) => [...document.querySelectorAll('main section b')].some((one) => one.textContent === name),
    {},
    machine.name,
  );
  expect((await api.get<CustomerView>(`/customers/${customer.id}`)).machines.map(({ id }) => id)).toContain(machine.id);

  await hand.go(`/customers/${twin.customer.id}`);
  await hand.use('Is the same as');
  await hand.fill('Which of them stays', customer.name);
  await hand.use(customer.name);
  await hand.sees('It cannot be taken apart again');
  expect(await hand.faults()).toEqual([]);
  await hand.use('They are one');
  await hand.heads(customer.name);
  await hand.sees(String(twin.number));
  await hand.use('Make nameless');
  await hand.use('Take them away');
  await hand.heads('Nameless');
  expect(await hand.text()).not.toContain(customer.name);
});

test('a list that others add to meanwhile leaves the focus where it is', async () => {
  const api = await Client.as(shop.server.base, 'oswin');
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/jobs');
  await hand.logIn('oswin');
  await hand.page.waitForSelector('.data-table tbody a');
  await hand.page.focus('.data-table tbody a');
  const there = await hand.page.$eval('.data-table tbody a', ({ textContent }) => textContent);
  const { number } = await api.bookedOn('harrowmere-th6-front-hub');
  await hand.sees(String(number));
  expect(await hand.page.evaluate(() => document.activeElement?.textContent)).toBe(there);
});
