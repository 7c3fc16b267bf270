import type { Bench } from '@jubb/book';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('benches, keys only: one is put in with hours and people of its own, taken back, a unit stands there, and whom it is not for is told before the act', async () => {
  const api = await Client.as(shop.server.base, 'oswin');
  const named = async (name: string): Promise<Bench | undefined> => (await api.get<Bench[]>('/benches')).find((one) => one.name === name);
  const { id, number } = await api.bookedOn('askvale-gx5-gearbox');
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/shop/benches');
  await hand.logIn('oswin');
  await hand.heads('Benches and machines');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Put it in');
  await hand.sees('what is it called?');
  await hand.fill('Name', 'Jib, 500 kg');
  await hand.fill('It is a', 'lift');
  await hand.fill('Can be used', 'at hours of its own');
  await hand.fill('Monday from', '12:00');
  await hand.fill('Monday until', '07:00');
  await hand.use('Put it in');
  await hand.sees('must be after 12:00');
  await hand.fill('Monday until', '15:00');
  await hand.use('Put it in');
  await hand.sees('Jib, 500 kg is there');
  expect((await named('Jib, 500 kg'))?.hours?.week[0]).toEqual({ from: '12:00', to: '15:00' });
  await hand.use('Undo');
  await hand.page.waitForFunction(() => !document.querySelector('main table')?.textContent?.includes('Jib'));
  expect(await named('Jib, 500 kg')).toBeUndefined();

  await hand.use('Hoist, 1 t');
  await hand.tabTo('Oswin Tarrell foreman');
  await hand.press('Space');
  await hand.use('Keep it');
  await hand.sees('Hoist, 1 t is changed');
  expect((await named('Hoist, 1 t'))?.who.map(({ name }) => name)).toEqual(['Oswin Tarrell']);
  expect(await hand.faults()).toEqual([]);

  // Somebody else changes it meanwhile, and the link is cut: what was typed stays, and is kept once it is seen.
  await hand.fill('Out of use because', 'hook bent');
  const { id: hoist, version, kind } = (await named('Hoist, 1 t'))!;
  const other = { name: 'Hoist, 1 t', kind, who: [], week: [], closed: [], version };
  expect((await api.call('PUT', `/benches/${hoist}`, other)).status).toBe(200);
  await hand.page.waitForFunction(() =>
    [...document.querySelectorAll('main tr')].some(({ textContent }) => /^Hoist, 1 t.*everybody/u.test(textContent ?? '')),
  );
  await hand.cut(true);
  await hand.use('Keep it');
  await hand.sees('link');
  await hand.cut(false);
  await hand.use('Keep it');
  await hand.sees('It now says: Hoist, 1 t, lift, used by everybody');
  await hand.use('Keep mine');
  // That it is changed may stand there from before.
  await hand.page.waitForFunction(() => document.querySelector('main table')?.textContent?.includes('hook bent'));
  expect(await named('Hoist, 1 t')).toMatchObject({ out: 'hook bent', who: [{ name: 'Oswin Tarrell' }] });
  await hand.use('Undo');
  await hand.page.waitForFunction(() => !document.querySelector('main table')?.textContent?.includes('hook bent'));
  expect(await named('Hoist, 1 t')).toMatchObject({ out: null, who: [] });
  await hand.tabTo('Oswin Tarrell foreman');
  await hand.press('Space');
  await hand.use('Keep it');
  await hand.sees('Hoist, 1 t is changed');

  await hand.go(`/jobs/${id}`);
  await hand.use('Stands at: no bench');
  await hand.use('Bench 2');
  await hand.sees(`Job ${number} stands at Bench 2`);
  expect((await named('Bench 2'))?.jobs.map((job) => job.number)).toContain(number);

  await hand.use('Log out');
  await hand.logIn('ilka');
  await hand.go(`/jobs/${id}/strip?step=on-the-bench`);
  await hand.sees('Hoist, 1 t');
  if ((await hand.text()).includes('Read the caution before you begin')) await hand.use('I have read it');
  await hand.sees('needs the lift, which is not for everybody: Hoist, 1 t is used by Oswin Tarrell');
  expect(await hand.faults()).toEqual([]);
});
