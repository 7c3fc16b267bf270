import type { HealthView, SessionView } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop({ empty: true });

test('an empty shop is opened by its first foreman, once', async () => {
  const stranger = new Client(shop.server.base);
  expect(await stranger.get<HealthView>('/health')).toMatchObject({ database: 'up', firstRun: true });
  const hand = await Hand.at(shop.screen.browser, shop.server.base);
  await hand.sees('Nobody works here yet');
  expect(await hand.faults()).toEqual([]);
  await hand.fill('Name of the shop', 'Nordtal Bench');
  await hand.fill('Time zone', 'Moon/Crater');
  await hand.fill('Your name', 'Signe Aldmoor');
  await hand.fill('Log-in name', 'signe');
  await hand.fill('Password', 'short');
  await hand.press('Enter');
  await hand.sees('Time zone is not a time zone');
  await hand.sees('Password is too short');
  await hand.fill('Time zone', 'Europe/Vienna');
  await hand.fill('Password', 'plumb and level');
  await hand.press('Enter');
  await hand.sees('Now, for Signe');
  await hand.sees('Nothing on the benches can go on');
  await hand.sees('Nordtal Bench');

  expect(await stranger.get<HealthView>('/health')).not.toHaveProperty('firstRun');
  const again = { shop: 'Mine', zone: 'UTC', currency: 'EUR', name: 'Somebody Else', login: 'else', password: 'let me in, please' };
  expect(await stranger.call('POST', '/first-run', again)).toMatchObject({ status: 409 });
  expect(await stranger.call<SessionView>('POST', '/session', { login: 'signe', password: 'plumb and level' })).toMatchObject({
    status: 200,
    body: { person: { role: 'foreman' }, shop: { name: 'Nordtal Bench', zone: 'Europe/Vienna' } },
  });
});
